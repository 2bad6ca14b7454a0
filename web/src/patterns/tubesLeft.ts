import type { components } from "../api/schema";
import type { RackTube } from "./stockText";

type TubeCuts = components["schemas"]["TubeCuts"];

/** What is left shorter than this is scrap, mm. */
const WORTH_MM = 100;
const SAME_MM = 0.5;

/** The rack's tubes once all of an order's are cut: lengths that were used are gone, what is left of bars stands there. */
export function tubesLeft(rack: readonly RackTube[], cut: readonly TubeCuts[]): RackTube[] {
  const left = [...rack];
  for (const own of cut) {
    const first = own.pieces[0];
    if (!first || (first.profile ?? "tube") !== "tube") continue;
    const size = { od_mm: own.od_mm, wall_mm: own.wall_mm, steel_id: first.steel_id };
    for (const bar of own.plan.bars) {
      if (bar.in_rack) {
        const used = left.findIndex(
          (t) =>
            Math.abs(t.od_mm - size.od_mm) < SAME_MM &&
            Math.abs(t.wall_mm - size.wall_mm) < SAME_MM &&
            t.steel_id === size.steel_id &&
            Math.abs(t.long_mm - bar.stock_mm) < SAME_MM,
        );
        if (used >= 0) left.splice(used, 1);
      }
      if (bar.left_mm >= WORTH_MM) left.push({ ...size, long_mm: Math.floor(bar.left_mm) });
    }
  }
  return left;
}
