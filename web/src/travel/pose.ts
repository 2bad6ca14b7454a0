import type { AxleTravel, BodyPoint } from "../api/types";
import { about, hinged, split, type Vec, vec } from "./space";
import { KNUCKLE, type Turned, turnedAt } from "./turned";

/** Whether two points ride on one body in one place. */
export function samePoint(a: BodyPoint, b: BodyPoint): boolean {
  return a.body === b.body && a.x_mm === b.x_mm && a.y_mm === b.y_mm && a.z_mm === b.z_mm;
}

/** Where a suspension stands: rows of the pose table on both sides of a travel and a roll, and how far between. */
type Between = { rows: readonly number[]; shares: readonly number[] };

function between(axle: AxleTravel, travelMm: number, rollDeg: number): Between {
  const t = split(travelMm, axle.travel_mm);
  const r = split(rollDeg, axle.rolls_deg);
  const row = (i: number, j: number) => i * axle.rolls_deg.length + j;
  return {
    rows: [row(t.low, r.low), row(t.low, r.high), row(t.high, r.low), row(t.high, r.high)],
    shares: [(1 - t.share) * (1 - r.share), (1 - t.share) * r.share, t.share * (1 - r.share), t.share * r.share],
  };
}

/** Puts every point of every body where travel, roll and steer carry it; for drawing only, figures come from the core. */
export function placer(
  axle: AxleTravel,
  travelMm: number,
  rollDeg: number,
  turned?: Turned,
): (point: BodyPoint) => Vec {
  const { rows, shares } = between(axle, travelMm, rollDeg);
  const mixed = (read: (row: number) => number) =>
    rows.reduce((sum, row, i) => sum + (shares[i] ? (shares[i] ?? 0) * read(row) : 0), 0);
  const pose = turned?.upright ?? [0, 1, 2, 3, 4, 5].map((k) => mixed((row) => axle.poses[row]?.[k] ?? 0));
  const hub = vec(axle.hub);
  const omega: Vec = [pose[3] ?? 0, pose[4] ?? 0, pose[5] ?? 0];
  const carried = ([x, y, z]: Vec): Vec => {
    if (axle.poses.length === 0) return [x, y, z];
    const arm = about([x - hub[0], y - hub[1], z - hub[2]], omega, Math.hypot(...omega));
    return [arm[0] + (pose[0] ?? 0), arm[1] + (pose[1] ?? 0), arm[2] + (pose[2] ?? 0)];
  };
  return ({ body, x_mm, y_mm, z_mm }) => {
    const at: Vec = [x_mm, y_mm, z_mm];
    if (body === -1) return at;
    if (body === 0) return carried(at);
    const geared = turned?.bodies.get(body);
    if (geared) return geared.parent === 0 ? carried(geared.place(at)) : geared.place(at);
    const crank = axle.cranks[body - 1];
    if (!crank) return body >= KNUCKLE ? carried(at) : at;
    const own = hinged(
      at,
      vec(crank.point),
      vec(crank.axis),
      mixed((row) => crank.angle[row] ?? 0),
    );
    return crank.parent === 0 ? carried(own) : own;
  };
}

/** Where everything stands in words: what has the same puts everything in the same place. */
function keyOf(axle: AxleTravel, travelMm: number, rollDeg: number, steer: number): string {
  const { rows, shares } = between(axle, travelMm, rollDeg);
  const used = rows.map((row, i) =>
    shares[i] ? [shares[i], axle.poses[row], axle.cranks.map((c) => c.angle[row])] : 0,
  );
  const geared = steer === 0 ? 0 : [steer, axle.steer?.right, axle.steer?.left];
  return JSON.stringify([axle.hub, used, axle.cranks.map((c) => [c.point, c.axis, c.parent]), geared]);
}

/** Placers of the right and the left side: single wheels roll as a pair, the one up as the other goes down. */
export function placersOf(axle: AxleTravel, travelMm: number, rollDeg: number, steer = 0) {
  const rise = axle.independent ? (axle.half_track_mm ?? 0) * Math.tan((rollDeg * Math.PI) / 180) : 0;
  const [up, down] = [travelMm + rise, travelMm - rise];
  const roll = axle.independent ? 0 : rollDeg;
  const right = placer(axle, up, roll, turnedAt(axle, up, steer, "right"));
  if (!axle.independent) return { right, left: right, key: keyOf(axle, travelMm, rollDeg, steer) };
  const left = placer(axle, down, 0, turnedAt(axle, down, steer, "left"));
  return { right, left, key: keyOf(axle, up, 0, steer) + keyOf(axle, down, 0, steer) };
}

/** A value of a curve at a travel, between its rows; nothing where the linkage does not reach. */
export function valueAtTravel(
  travel: readonly number[],
  values: readonly (number | null)[],
  at: number,
): number | null {
  const { low, high, share } = split(at, travel);
  const [a, b] = [values[low], values[high]];
  if (a == null || b == null) return null;
  return a + (b - a) * share;
}
