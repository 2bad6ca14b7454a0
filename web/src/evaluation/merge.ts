import type { Check, Evaluation, Moved } from "../api/types";
import { bySeverity } from "../margins/group";

/** Stages whose checks are those of the suspensions. */
const MOVING: ReadonlySet<string> = new Set(["travel", "steer"]);
/** A drag's answer over the last full one: whys and what a drag does not change are kept. */
export function merged(old: Evaluation, next: Evaluation): Evaluation {
  const whys = new Map(old.checks.map((check) => [check.id, check]));
  const fresh = next.checks.map((check) => ({ ...whys.get(check.id), ...check }) as Check);
  // what was not asked for while a hand drags was not worked out: its rows stay as they were
  const ids = new Set(fresh.map((check) => check.id));
  const leftOut = new Set(next.left_out);
  const unread: ReadonlySet<string> = new Set(next.left_out_states);
  const kept = (check: Check) => leftOut.has(check.limit_id) || unread.has(check.state);
  const checks = inOldOrder(old.checks, [...fresh, ...old.checks.filter((check) => kept(check) && !ids.has(check.id))]);
  const rails = old.rails.map((rail, i) => ({ ...rail, ...next.rails[i] }));
  const interim = next.interim.length ? next.interim : old.interim;
  const along = next.along.length ? next.along : old.along;
  const deflection = next.deflection.length ? next.deflection : old.deflection;
  const judged = next.strips.map((strip) => ({ ...strip, life: strip.life ?? sameStations(old, strip)?.life ?? null }));
  const asRead = old.strips.filter(
    (strip) => unread.has(strip.state) && next.strips.some((s) => s.side === strip.side),
  );
  const strips = [...judged, ...asRead];
  const travel = next.travel.length ? next.travel : old.travel;
  const checklist = next.checklist?.length ? next.checklist : old.checklist;
  return { ...old, ...next, checklist, checks, rails, interim, along, deflection, strips, travel };
}

/** The last answer with the suspensions where the hand has them; nothing is judged, what a glance does not tell stays. */
export function atAGlance(old: Evaluation, moved: Moved): Evaluation {
  const travel = old.travel.map((before) => {
    const axle = moved.travel.find((t) => t.index === before.index);
    if (!axle) return before;
    const { facts, mounts, solids, forces, contacts, stands, steer_facts, locks } = before;
    return { ...axle, facts, mounts, solids, forces, contacts, stands, steer_facts, locks };
  });
  return { ...old, travel };
}

/** The last answer with the suspensions moved: their checks and drawings are new, all else stays. */
export function withTravel(old: Evaluation, moved: Moved): Evaluation {
  const whys = new Map(old.checks.map((check) => [check.id, check]));
  const fresh = moved.checks.map((check) => ({ ...whys.get(check.id), ...check }) as Check);
  const { travel } = moved;
  const checks = inOldOrder(old.checks, [...fresh, ...old.checks.filter((c) => !MOVING.has(c.stage))]);
  return { ...old, checks, travel };
}

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
