import { create } from "zustand";
import { api, got, Refused } from "../api/client";
import type { Check, Evaluation, Moved, Problem } from "../api/types";
import type { Draft } from "../draft/document";
import { shownDraft, suspensionSeen, useBench } from "../draft/store";
import { bySeverity } from "../margins/group";

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
const KEPT =
  /^(along-|exhaust-lines|hose-slack|twist-|frame-|case-|accident-|place-|joint-|interim-|tacks|seam|fatigue|slender|in-the-cut)/;

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

/** A drag's answer over the last full one: whys and what a drag does not change are kept. */
function merged(old: Evaluation, next: Evaluation): Evaluation {
  const whys = new Map(old.checks.map((check) => [check.id, check]));
  const fresh = next.checks.map((check) => ({ ...whys.get(check.id), ...check }) as Check);
  // the frame in space and the frames between steps are not solved while a hand drags: their rows stay as they were
  const ids = new Set(fresh.map((check) => check.id));
  const kept = (check: Check) => MOVING.has(check.stage) || KEPT.test(check.limit_id);
  const checks = inOldOrder(old.checks, [...fresh, ...old.checks.filter((check) => kept(check) && !ids.has(check.id))]);
  const rails = old.rails.map((rail, i) => ({ ...rail, ...next.rails[i] }));
  const interim = next.interim.length ? next.interim : old.interim;
  const along = next.along.length ? next.along : old.along;
  const cut_locked = next.along.length ? next.cut_locked : old.cut_locked;
  const deflection = next.deflection.length ? next.deflection : old.deflection;
  const strips = next.strips.map((strip) => ({ ...strip, life: strip.life ?? sameStations(old, strip)?.life ?? null }));
  const travel = next.travel.length ? next.travel : old.travel;
  return { ...old, ...next, checks, rails, interim, along, cut_locked, deflection, strips, travel };
}

/** The last answer with the suspensions where the hand has them; nothing is judged, what a glance does not tell stays. */
function atAGlance(old: Evaluation, moved: Moved): Evaluation {
  const travel = old.travel.map((before) => {
    const axle = moved.travel.find((t) => t.index === before.index);
    if (!axle) return before;
    const { facts, mounts, solids, forces, contacts, stands, steer_facts, locks } = before;
    return { ...axle, facts, mounts, solids, forces, contacts, stands, steer_facts, locks };
  });
  return { ...old, travel };
}

/** The last answer with the suspensions moved: their checks and drawings are new, all else stays. */
function withTravel(old: Evaluation, moved: Moved): Evaluation {
  const whys = new Map(old.checks.map((check) => [check.id, check]));
  const fresh = moved.checks.map((check) => ({ ...whys.get(check.id), ...check }) as Check);
  const { travel } = moved;
  const checks = inOldOrder(old.checks, [...fresh, ...old.checks.filter((c) => !MOVING.has(c.stage))]);
  return { ...old, checks, travel };
}

/** Stages whose checks are those of the suspensions. */
const MOVING: ReadonlySet<string> = new Set(["travel", "steer"]);

/** The rows keep their places under the eye while a hand drags, until a verdict changes: then the worst come first again. */
function inOldOrder(old: Check[], next: Check[]): Check[] {
  const fresh = new Map(next.map((check) => [check.id, check]));
  const same = old.length === next.length && old.every((check) => fresh.get(check.id)?.verdict === check.verdict);
  return same ? old.map((check) => fresh.get(check.id) ?? check) : next.toSorted(bySeverity);
}

/** The strip of the last full answer, where its stations are as many. */
function sameStations(old: Evaluation, strip: Evaluation["strips"][number]) {
  return old.strips.find(
    (s) => s.side === strip.side && s.state === strip.state && s.x_mm.length === strip.x_mm.length,
  );
}

/** Evaluate whenever the draft, the side, the station or the load case changes; outside React, so that a drag redraws only what it moves. */
export function startEvaluation(): () => void {
  void (useBench.getState().jobId && run());
  return useBench.subscribe((now, then) => {
    const asked =
      now.side !== then.side ||
      now.stationMm !== then.stationMm ||
      now.loadCase !== then.loadCase ||
      now.loadState !== then.loadState;
    const changed = shownDraft(now) !== shownDraft(then) || now.jobId !== then.jobId || now.optionId !== then.optionId;
    const ended = then.gesture !== null && now.gesture === null;
    if (now.jobId && now.optionId && (asked || changed || ended)) void run();
  });
}

export function evaluateAgain(): void {
  void run();
}

export function resetEvaluation(): void {
  useShown.setState(NOTHING);
}
