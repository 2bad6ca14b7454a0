import { create } from "zustand";
import { api, got, Refused } from "../api/client";
import type { Evaluation, Problem } from "../api/types";
import type { Draft } from "../draft/document";
import { shownDraft, suspensionSeen, useBench } from "../draft/store";
import { atAGlance, merged, withTravel } from "./merge";

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
};

/** An empty list that is always the same one, for selectors. */
export const NONE: never[] = [];

const NOTHING: Shown = {
  result: null,
  last: [],
  draft: null,
  before: {},
  problems: NONE,
  stale: false,
  judgedBefore: false,
  shownAt: 0,
};

export const useShown = create<Shown>(() => NOTHING);

/** Cases that each rail answers as a beam; the others need the frame in space. */
const BEAM_CASES = ["static", "bump"];

/** A hand that has not moved for this long is answered in full. */
const RESTED_MS = 150;
let resting = 0;

function whenItRests(): void {
  clearTimeout(resting);
  resting = window.setTimeout(() => {
    if (!inFlight && useBench.getState().gesture) void run(true);
  }, RESTED_MS);
}

let inFlight = false;
let waiting = false;
let sequence = 0;

/** Evaluate what is on the bench: one in flight, the newest waits, older ones are dropped. */
async function run(rested = false): Promise<void> {
  clearTimeout(resting);
  if (inFlight) {
    waiting = true;
    return;
  }
  inFlight = true;
  const draft = shownDraft(useBench.getState());
  const draw = await asked(draft, rested).catch((error: unknown) => () => refused(error, draft));
  inFlight = false;
  // the next question is on its way before this answer is drawn: it asks for the newest draft, and both take their time
  if (waiting) {
    waiting = false;
    void run();
  }
  draw();
}

/** Ask for the figures of a draft; what comes back draws them. */
async function asked(draft: Draft, rested: boolean): Promise<() => void> {
  const { jobId, gesture, stage, rollDeg } = useBench.getState();
  const { design, survey } = draft;
  const at = gesture?.at ?? 0;
  if (gesture && (stage === "travel" || stage === "steer") && useShown.getState().result) {
    // a hand that moves is answered at a glance; when it rests, or where the axle leans, with everything
    const glance = !rested && rollDeg === 0;
    const only = glance ? suspensionSeen(useBench.getState()) : null;
    // a glance is asked for without the things that stand around; work on the rails moves what rides on them
    const moving = glance ? { ...design, obstacles: [] } : design;
    const moved = await got(api.POST("/api/travel", { body: { job_id: jobId, design: moving, survey, glance, only } }));
    return () => {
      const old = useShown.getState().result;
      if (old) show(glance ? atAGlance(old, moved) : withTravel(old, moved), draft, at, true, glance);
      if (glance) whenItRests();
    };
  }
  const next = await got(api.POST("/api/evaluate", { body: questionOf(draft) }));
  return () => {
    const old = useShown.getState().result;
    show(gesture && old ? merged(old, next) : next, draft, at, gesture !== null);
  };
}

function questionOf({ design, survey }: Draft) {
  const { jobId, side, stationMm, gesture, loadCase, loadState } = useBench.getState();
  const dragging = gesture !== null;
  sequence += 1;
  return {
    job_id: jobId,
    design,
    survey,
    slim: dragging,
    sequence,
    want: {
      frame: !dragging || !BEAM_CASES.includes(loadCase),
      interim: !dragging,
      along: !dragging,
      travel: !dragging,
      strips: true,
      parts: true,
      steps: !dragging,
      readings: !dragging,
      case: loadCase,
      load_state: loadState,
      strip_side: side,
      section: { side, x_mm: stationMm },
    },
  };
}

function refused(error: unknown, draft: Draft): void {
  if (!(error instanceof Refused)) throw error;
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
function show(result: Evaluation, draft: Draft, at: number, dragging: boolean, judgedBefore = false): void {
  const old = useShown.getState();
  const margins: Record<string, number> = {};
  for (const check of old.result?.checks ?? []) if (check.margin !== null) margins[check.id] = check.margin;
  useBench.getState().see(draft);
  useShown.setState({
    result,
    last: lastOf(old, result, dragging),
    draft,
    before: dragging ? old.before : margins,
    problems: NONE,
    stale: false,
    judgedBefore,
    shownAt: at,
  });
}

/** Where a hand's drag begins, or a typed change: what stood there stays to be seen until the next one. */
function lastOf(old: Shown, next: Evaluation, dragging: boolean): Evaluation["travel"] {
  const began = !handOn && old.result && placeOf(old.result) !== placeOf(next);
  handOn = dragging;
  return began && old.result ? old.result.travel : old.last;
}
let handOn = false;

/** Where every member and hard point lies, to tell whether anything moved. */
const placeOf = (of: Evaluation) => JSON.stringify(of.travel.map((t) => [t.members, t.grips, t.hub]));

/** Evaluate whenever the draft, the side, the station or the load case changes; outside React, so that a drag redraws only what it moves. */
export function startEvaluation(): () => void {
  void (useBench.getState().jobId && run());
  addEventListener("online", evaluateAgain);
  const stop = useBench.subscribe((now, then) => {
    const asked =
      now.side !== then.side ||
      now.style !== then.style ||
      now.stationMm !== then.stationMm ||
      now.loadCase !== then.loadCase ||
      now.loadState !== then.loadState;
    const changed = shownDraft(now) !== shownDraft(then) || now.jobId !== then.jobId || now.optionId !== then.optionId;
    const ended = then.gesture !== null && now.gesture === null;
    if (now.jobId && now.optionId && (asked || changed || ended)) void run();
  });
  return () => {
    removeEventListener("online", evaluateAgain);
    stop();
  };
}

export function evaluateAgain(): void {
  void run();
}

export function resetEvaluation(): void {
  useShown.setState(NOTHING);
}
