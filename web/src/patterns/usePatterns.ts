import { create } from "zustand";
import { api, got } from "../api/client";
import type { Pattern } from "../api/types";
import { useBench } from "../draft/store";

export type Paper = "a4" | "a3" | "letter" | "legal" | "roll";

type Shown = {
  patterns: Pattern[];
  chosen: string | null;
  paper: Paper;
  /** Whether a pair that is one turned over is printed once. */
  once: boolean;
  /** Whether cut lines in drawings are the middle of the torch's cut, not to size. */
  torch: boolean;
  /** Pages that all patterns take; null while that is not known. */
  pages: number | null;
  trouble: string;
  load: () => Promise<void>;
  choose: (id: string) => void;
  /** A gauge's shape on the bench, until a pattern is chosen. */
  gauge: Pattern | null;
  look: (gauge: Pattern) => void;
  print: (more: { paper?: Paper; once?: boolean; torch?: boolean }) => void;
  count: () => Promise<void>;
};

/** Patterns of the draft on the bench. */
export const usePatterns = create<Shown>((set, get) => ({
  patterns: [],
  chosen: null,
  paper: "a4",
  once: false,
  torch: false,
  pages: null,
  trouble: "",
  load: async () => {
    const { jobId, history } = useBench.getState();
    const body = { job_id: jobId, ...history.now, slim: false, sequence: 0, want: NOTHING };
    try {
      const patterns = await got(api.POST("/api/patterns", { body }));
      void get().count();
      set((s) => ({
        patterns,
        trouble: "",
        chosen: patterns.some((p) => p.id === s.chosen) ? s.chosen : (patterns[0]?.id ?? null),
      }));
    } catch (error) {
      set({ trouble: error instanceof Error ? error.message : "no patterns" });
    }
  },
  choose: (chosen) => set({ chosen, gauge: null }),
  gauge: null,
  look: (gauge) => set({ gauge }),
  print: (more) => {
    set({ ...more, pages: null });
    void get().count();
  },
  count: async () => {
    const { jobId, history } = useBench.getState();
    const { paper, once } = get();
    try {
      const { pages } = await got(
        api.POST("/api/patterns/pages", { body: { job_id: jobId, ...history.now, paper, once } }),
      );
      if (get().paper === paper && get().once === once) set({ pages });
    } catch {
      set({ pages: null });
    }
  },
}));

/** Of an evaluation nothing is wanted here: patterns and lists are worked out by themselves. */
export const NOTHING = {
  frame: false,
  interim: false,
  along: false,
  travel: false,
  strips: false,
  as_built: false,
  parts: false,
  steps: false,
  readings: false,
  load_state: "laden" as const,
  case: "bump",
};
