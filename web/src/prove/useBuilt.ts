import { create } from "zustand";
import { api, got } from "../api/client";
import type { Built } from "../api/types";
import { messageOf } from "../cut/useSearch";
import { useBench } from "../draft/store";

type Shown = { busy: boolean; found: Built | null; trouble: string; solve: () => Promise<void> };

/** What was built, solved by the core when it is asked for. */
export const useBuilt = create<Shown>((set, get) => ({
  busy: false,
  found: null,
  trouble: "",
  solve: async () => {
    if (get().busy) return;
    set({ busy: true });
    try {
      const { jobId, history } = useBench.getState();
      const found = await got(api.POST("/api/built", { body: { job_id: jobId ?? 0, ...history.now } }));
      set({ found, trouble: "" });
    } catch (error) {
      set({ trouble: messageOf(error) });
    } finally {
      set({ busy: false });
    }
  },
}));
