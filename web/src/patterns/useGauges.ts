import { create } from "zustand";
import { api, got } from "../api/client";
import type { components } from "../api/schema";
import type { Step } from "../api/types";
import { useBench } from "../draft/store";

export type Gauge = components["schemas"]["Gauge"];

type Gauges = { gauges: Gauge[]; trouble: string; load: () => Promise<void> };

/** Gauges and jigs of the draft on the bench. */
export const useGauges = create<Gauges>((set) => ({
  gauges: [],
  trouble: "",
  load: async () => {
    const { jobId, history } = useBench.getState();
    try {
      set({ gauges: await got(api.POST("/api/gauges", { body: { job_id: jobId, ...history.now } })), trouble: "" });
    } catch (error) {
      set({ trouble: error instanceof Error ? error.message : "no gauges" });
    }
  },
}));

/** Those that a step asks for; what belongs to the whole job is asked for by the first step of its phase. */
export function gaugesOf(gauges: readonly Gauge[], step: Step, steps: readonly Step[]): Gauge[] {
  const first = steps.find((s) => s.spec.phase === step.spec.phase)?.id === step.id;
  return gauges.filter((g) => {
    if (g.phase !== step.spec.phase) return false;
    if (g.operation == null) return first;
    const own = steps.find((s) => s.operation === g.operation && s.side === step.side && s.spec.phase === g.phase);
    const sides = g.side === "both" || step.side === "both" || g.side === step.side;
    return g.operation === step.operation && own?.id === step.id && sides;
  });
}
