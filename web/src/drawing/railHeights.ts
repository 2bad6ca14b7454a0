import type { Evaluation, Side } from "../api/types";
import { between } from "./scale";

/** Height of the rail's underside at a station, for handles and labels. */
export function undersideAt(result: Evaluation, side: Side, stationMm: number): number {
  const rail = result.rails.find((r) => r.side === side);
  return rail ? between(stationMm, rail.x_mm, rail.underside_z_mm) : 0;
}

/** Height of the rail's top at a station. */
export function topAt(result: Evaluation, side: Side, stationMm: number): number {
  const rail = result.rails.find((r) => r.side === side);
  return rail ? between(stationMm, rail.x_mm, rail.top_z_mm) : 0;
}
