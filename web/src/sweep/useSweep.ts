import { create } from "zustand";
import { postLines } from "../api/client";
import type { Check, SweepLine, SweepResult, SweptPair } from "../api/types";
import { messageOf } from "../cut/useSearch";
import { type Draft, valueAt } from "../draft/document";
import { shownDraft, useBench } from "../draft/store";

type Sweep = {
  pairs: SweptPair[];
  result: SweepResult | null;
  progress: { done: number; total: number } | null;
  trouble: string;
  /** Why nothing comes just now. */
  told: string;
  /** What it was swept on: a draft that differs makes it old. */
  on: Draft | null;
  optionId: number;
  chosen: string | null;
  run: () => Promise<void>;
  cancel: () => void;
  choose: (pair: SweptPair | null) => void;
};

let stop: AbortController | null = null;

/** The last sweep of the open option: pairs as they come, then the whole with its checks. */
export const useSweep = create<Sweep>((set) => ({
  pairs: [],
  result: null,
  progress: null,
  trouble: "",
  told: "",
  on: null,
  optionId: 0,
  chosen: null,
  run: async () => {
    stop?.abort();
    const own = new AbortController();
    stop = own;
    const { jobId, optionId, history } = useBench.getState();
    const on = history.now;
    const found: SweptPair[] = [];
    set({ progress: { done: 0, total: 1 }, trouble: "" });
    try {
      const body = { job_id: jobId, option_id: optionId, design: on.design, survey: on.survey };
      await postLines<SweepLine>("/api/sweep", body, own.signal, (line) => {
        set({ told: line.told ?? "" });
        if (line.pair) found.push(line.pair);
        if (line.done != null && line.total != null) {
          const progress = { done: line.done, total: line.total };
          // what was found so far, worst first, without a redraw for each of a hundred lines
          set(line.done % 8 === 0 ? { progress, pairs: [...found].sort(byUrgency), on, optionId } : { progress });
        }
        if (line.swept) set({ result: line.swept, pairs: line.swept.pairs, on, optionId });
        if (line.problem) set({ trouble: line.problem });
      });
    } catch (error) {
      if (!own.signal.aborted) set({ trouble: messageOf(error) });
    }
    if (stop === own) set({ progress: null, told: "" });
  },
  cancel: () => {
    stop?.abort();
    set({ progress: null });
  },
  choose: (pair) => {
    set({ chosen: pair?.id ?? null });
    if (pair?.travel_mm == null) return;
    const { put, history } = useBench.getState();
    const suspension = Math.max(
      (history.now.design.suspensions ?? []).findIndex((s) => s.axle === pair.axle),
      0,
    );
    put({
      suspension,
      travelMm: pair.travel_mm,
      rollDeg: pair.roll_deg ?? 0,
      steer: pair.input ?? 0,
      stationMm: pair.at?.[0] ?? 0,
    });
  },
}));

/** How far short of its wish a pair is. */
function shortBy(p: SweptPair): number {
  return (p.gap_mm ?? p.beyond_mm ?? 0) - p.needed_mm;
}

const byUrgency = (a: SweptPair, b: SweptPair) => shortBy(a) - shortBy(b);

/** Parts of the design that a sweep depends on. */
const PARTS = ["operations", "suspensions", "targets", "obstacles", "limits"] as const;

/** Whether what was swept is no longer what stands in the draft. */
export function isOld(on: Draft | null, now: Draft): boolean {
  if (!on) return true;
  return on.survey !== now.survey || PARTS.some((part) => valueAt(on.design, [part]) !== valueAt(now.design, [part]));
}

/** Checks of the sweep while it is that of the open option; old ones are not shown as if they held. */
export function useSweepChecks(): readonly Check[] {
  const result = useSweep((s) => s.result);
  const swept = useSweep((s) => s.optionId);
  const on = useSweep((s) => s.on);
  const optionId = useBench((s) => s.optionId);
  const old = useBench((s) => isOld(on, shownDraft(s)));
  return result && swept === optionId && !old ? result.checks : NONE;
}

const NONE: readonly Check[] = [];
