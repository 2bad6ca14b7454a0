import { create } from "zustand";
import { api, got } from "../api/client";
import type { Pattern } from "../api/types";
import { useBench } from "../draft/store";

type Shown = {
  patterns: Pattern[];
  chosen: string | null;
  paper: "a4" | "letter";
  trouble: string;
  load: () => Promise<void>;
  choose: (id: string) => void;
  setPaper: (paper: "a4" | "letter") => void;
};

/** Patterns of the draft on the bench. */
export const usePatterns = create<Shown>((set) => ({
  patterns: [],
  chosen: null,
  paper: "a4",
  trouble: "",
  load: async () => {
    const { jobId, history } = useBench.getState();
    const body = { job_id: jobId, ...history.now, slim: false, sequence: 0, want: NOTHING };
    try {
      const patterns = await got(api.POST("/api/patterns", { body }));
      set((s) => ({
        patterns,
        trouble: "",
        chosen: patterns.some((p) => p.id === s.chosen) ? s.chosen : (patterns[0]?.id ?? null),
      }));
    } catch (error) {
      set({ trouble: error instanceof Error ? error.message : "no patterns" });
    }
  },
  choose: (chosen) => set({ chosen }),
  setPaper: (paper) => set({ paper }),
}));

/** Of an evaluation nothing is wanted here: patterns and lists are worked out by themselves. */
export const NOTHING = {
  frame: false,
  interim: false,
  along: false,
  travel: false,
  strips: false,
  parts: false,
  steps: false,
  readings: false,
  load_state: "laden" as const,
  case: "bump",
};
