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

/** The line that a simulated level reads from lies so far under the datum plane: nobody reads a minus off a level. */
const LINE_UNDER_MM = 500;

/** A level read at a mark, over one line under the frame. */
export function heldAt(mark: Mark | null | undefined, when: When): Held | null {
  if (!mark) return null;
  return { at: `level/${mark.id}`, planned: at(mark, when).z_mm + LINE_UNDER_MM, rearward: 0, rightward: 0 };
}
