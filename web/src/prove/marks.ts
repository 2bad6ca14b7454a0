import type { components } from "../api/schema";
import type { FrameAt } from "../api/types";
import type { Held } from "./useLive";

export type Mark = components["schemas"]["Mark"];
type When = FrameAt["when"];

const at = (mark: Mark, when: When) => (when === "before" ? mark.before : mark.planned);

/** An instrument held between two marks; none where one of them has no place yet. */
export function heldBetween(start: Mark | null | undefined, end: Mark | null | undefined, when: When): Held | null {
  if (!start || !end) return null;
  const [a, b] = [at(start, when), at(end, when)];
  const planned = Math.hypot(b.x_mm - a.x_mm, b.y_mm - a.y_mm);
  if (planned === 0) return null;
  const [rearward, rightward] = [(b.x_mm - a.x_mm) / planned, (b.y_mm - a.y_mm) / planned];
  return { at: start.id, to: end.id, planned, rearward, rightward };
}

/** A level read at a mark; where its line lies is the level's own. */
export function heldAt(mark: Mark | null | undefined, when: When): Held | null {
  if (!mark) return null;
  return { at: `level/${mark.id}`, planned: at(mark, when).z_mm, rearward: 0, rightward: 0 };
}
