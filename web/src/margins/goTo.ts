import { useBench } from "../draft/store";
import { lookAt } from "../drawing/view";
import type { Row } from "./group";

/** Bring the sheet to where a check is worst, and the strip to the load case in which it is. */
export function goTo(row?: Row) {
  if (!row) return;
  const { station_mm, pose_mm, case: loadCase } = row.check.governs;
  const { put, side } = useBench.getState();
  const own = row.sides === "left" || row.sides === "right" ? row.sides : side;
  put({ side: own });
  if (station_mm != null) {
    put({ stationMm: station_mm, ...(loadCase && { loadCase }) });
    lookAt(station_mm);
  }
  if (pose_mm != null) put({ travelMm: pose_mm });
}
