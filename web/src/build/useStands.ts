import { create } from "zustand";
import { api, got } from "../api/client";
import type { components } from "../api/schema";
import type { Draft } from "../draft/document";
import { useBench } from "../draft/store";

export type Support = components["schemas"]["Support"];
export type Moment = components["schemas"]["Moment"];
type Found = components["schemas"]["SupportsFound"];

type Stands = {
  /** Whether they are looked at instead of the steps. */
  open: boolean;
  moment: number;
  found: Found | null;
  trouble: string;
  show: (open: boolean) => void;
  pick: (moment: number) => void;
  look: (draft: Draft) => Promise<void>;
};

let asked: Draft | null = null;
let busy = false;

/** How the frame stands on what is placed under it; asked again for the newest draft only, while a stand is dragged too. */
export const useStands = create<Stands>((set) => ({
  open: false,
  moment: 0,
  found: null,
  trouble: "",
  show: (open) => set({ open }),
  pick: (moment) => set({ moment }),
  look: async (draft) => {
    asked = draft;
    if (busy) return;
    busy = true;
    try {
      while (asked) {
        const own: Draft = asked;
        asked = null;
        const body = { job_id: useBench.getState().jobId, ...own };
        set({ found: await got(api.POST("/api/supports", { body })), trouble: "" });
      }
    } catch (error) {
      set({ trouble: error instanceof Error ? error.message : "not looked at" });
    } finally {
      busy = false;
    }
  },
}));

/** Places that the core finds for stands; throws where it cannot look. */
export async function findPlaces(): Promise<Support[]> {
  const { jobId, history } = useBench.getState();
  return got(api.POST("/api/supports/places", { body: { job_id: jobId, ...history.now } }));
}

/** One more stand, where the core puts it. */
export async function freshStand(): Promise<Support> {
  const { jobId, history } = useBench.getState();
  return got(api.POST("/api/supports/fresh", { body: { job_id: jobId, ...history.now } }));
}
