import { create } from "zustand";
import { api, got } from "../api/client";
import type { components } from "../api/schema";
import { messageOf } from "../cut/useSearch";
import { useBench } from "../draft/store";

export type Schedule = components["schemas"]["Schedule"];
export type Planned = components["schemas"]["Planned"];

type Shown = {
  /** Whether it is looked at instead of the steps. */
  open: boolean;
  busy: boolean;
  found: Schedule | null;
  /** Whether nothing is left to do. */
  over: boolean;
  trouble: string;
  show: (open: boolean) => void;
  work: () => Promise<void>;
};

/** Now by the clock of the shop, as it is written on a wall. */
export function wallClock(now = new Date()): string {
  return new Date(now.getTime() - now.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
}

/** When every step is done, worked out by the core when it is asked for. */
export const useSchedule = create<Shown>((set, get) => ({
  open: false,
  busy: false,
  found: null,
  over: false,
  trouble: "",
  show: (open) => set({ open }),
  work: async () => {
    if (get().busy) return;
    set({ busy: true });
    try {
      const { jobId, history } = useBench.getState();
      const body = { job_id: jobId, ...history.now, at: wallClock() };
      const { schedule } = await got(api.POST("/api/schedule", { body }));
      set({ found: schedule ?? null, over: !schedule, open: Boolean(schedule), trouble: "" });
    } catch (error) {
      set({ trouble: messageOf(error) });
    } finally {
      set({ busy: false });
    }
  },
}));
