import { create } from "zustand";
import type { Refused } from "../api/client";
import type { Evaluation, Problem } from "../api/types";
import type { Draft } from "../draft/document";
import { useBench } from "../draft/store";

type Shown = {
  result: Evaluation | null;
  /** The suspensions as they were before the last change that moved them. */
  last: Evaluation["travel"];
  /** The draft that the result belongs to. */
  draft: Draft | null;
  before: Record<string, number>;
  problems: Problem[];
  /** Figures belong to an older draft than the one on the sheet. */
  stale: boolean;
  /** The margins do, while a hand moves; drawing and curves are its own. */
  judgedBefore: boolean;
  /** Time of the pointer event whose state is shown, for the latency measure. */
  shownAt: number;
  /** What is shown came while a hand drags. */
  handOn: boolean;
  /** Ask once more, as something beside the draft has changed. */
  again: () => void;
};

/** An empty list that is always the same one, for selectors. */
export const NONE: never[] = [];

const NOTHING: Omit<Shown, "again"> = {
  result: null,
  last: [],
  draft: null,
  before: {},
  problems: NONE,
  stale: false,
  judgedBefore: false,
  shownAt: 0,
  handOn: false,
};

export const useShown = create<Shown>(() => ({ ...NOTHING, again: () => {} }));

export function resetEvaluation(): void {
  useShown.setState(NOTHING);
}

/** Show what is wrong with a draft; the figures stay those before it. */
export function showRefusal(error: Refused, draft: Draft): void {
  useBench.getState().see(draft);
  useShown.setState({
    problems: error.problems.length ? error.problems : [problemOf(error)],
    stale: true,
  });
}

function problemOf(error: Refused): Problem {
  return { pointer: "", message: error.message, found: "", expected: "" };
}

/** Show a result; while a hand drags the margins before it stay what changes are counted from. */
export function show(result: Evaluation, draft: Draft, at: number, dragging: boolean, judgedBefore = false): void {
  const old = useShown.getState();
  const margins: Record<string, number> = {};
  for (const check of old.result?.checks ?? []) if (check.margin !== null) margins[check.id] = check.margin;
  useBench.getState().see(draft);
  useShown.setState({
    result,
    last: lastOf(old, result),
    draft,
    before: dragging ? old.before : margins,
    problems: NONE,
    stale: false,
    judgedBefore,
    shownAt: at,
    handOn: dragging,
  });
}

/** Where a hand's drag begins, or a typed change: what stood there stays to be seen until the next one. */
function lastOf(old: Shown, next: Evaluation): Evaluation["travel"] {
  const began = !old.handOn && old.result && placeOf(old.result) !== placeOf(next);
  return began && old.result ? old.result.travel : old.last;
}
/** Where every member and hard point lies, to tell whether anything moved. */
const placeOf = (of: Evaluation) => JSON.stringify(of.travel.map((t) => [t.members, t.grips, t.hub]));
