import type { AxleTravel, BodyPoint } from "../api/types";

export type Vec = readonly [number, number, number];

/** Three numbers of a list. */
export function vec(list: readonly number[] | null | undefined): Vec {
  return [list?.[0] ?? 0, list?.[1] ?? 0, list?.[2] ?? 0];
}

/** Whether two points ride on one body in one place. */
export function samePoint(a: BodyPoint, b: BodyPoint): boolean {
  return a.body === b.body && a.x_mm === b.x_mm && a.y_mm === b.y_mm && a.z_mm === b.z_mm;
}

/** Where a suspension stands: rows of the pose table on both sides of a travel and a roll, and how far between. */
type Between = { rows: readonly number[]; shares: readonly number[] };

/** A row of the table between its neighbours; beyond the ends the last one stays. */
function split(value: number, column: readonly number[]): { low: number; high: number; share: number } {
  const last = column.length - 1;
  if (last <= 0 || value <= (column[0] ?? 0)) return { low: 0, high: 0, share: 0 };
  if (value >= (column[last] ?? 0)) return { low: last, high: last, share: 0 };
  let high = 1;
  while ((column[high] ?? 0) < value) high += 1;
  const [a, b] = [column[high - 1] ?? 0, column[high] ?? 0];
  return { low: high - 1, high, share: (value - a) / (b - a || 1) };
}

function between(axle: AxleTravel, travelMm: number, rollDeg: number): Between {
  const t = split(travelMm, axle.travel_mm);
  const r = split(rollDeg, axle.rolls_deg);
  const row = (i: number, j: number) => i * axle.rolls_deg.length + j;
  return {
    rows: [row(t.low, r.low), row(t.low, r.high), row(t.high, r.low), row(t.high, r.high)],
    shares: [(1 - t.share) * (1 - r.share), (1 - t.share) * r.share, t.share * (1 - r.share), t.share * r.share],
  };
}

function turned([x, y, z]: Vec, axis: Vec, angle: number): Vec {
  const size = Math.hypot(...axis);
  if (size < 1e-12 || angle === 0) return [x, y, z];
  const [a, b, c] = [axis[0] / size, axis[1] / size, axis[2] / size];
  const [s, k] = [Math.sin(angle), Math.cos(angle)];
  const along = (a * x + b * y + c * z) * (1 - k);
  return [
    x * k + (b * z - c * y) * s + a * along,
    y * k + (c * x - a * z) * s + b * along,
    z * k + (a * y - b * x) * s + c * along,
  ];
}

/** Puts every point of every body where a travel and a roll carry it; for drawing only, figures come from the core. */
export function placer(axle: AxleTravel, travelMm: number, rollDeg: number): (point: BodyPoint) => Vec {
  const { rows, shares } = between(axle, travelMm, rollDeg);
  const mixed = (read: (row: number) => number) =>
    rows.reduce((sum, row, i) => sum + (shares[i] ? (shares[i] ?? 0) * read(row) : 0), 0);
  const pose = [0, 1, 2, 3, 4, 5].map((k) => mixed((row) => axle.poses[row]?.[k] ?? 0));
  const hub = vec(axle.hub);
  const omega: Vec = [pose[3] ?? 0, pose[4] ?? 0, pose[5] ?? 0];
  const carried = ([x, y, z]: Vec): Vec => {
    if (axle.poses.length === 0) return [x, y, z];
    const arm = turned([x - hub[0], y - hub[1], z - hub[2]], omega, Math.hypot(...omega));
    return [arm[0] + (pose[0] ?? 0), arm[1] + (pose[1] ?? 0), arm[2] + (pose[2] ?? 0)];
  };
  return ({ body, x_mm, y_mm, z_mm }) => {
    const at: Vec = [x_mm, y_mm, z_mm];
    if (body === -1) return at;
    if (body === 0) return carried(at);
    const crank = axle.cranks[body - 1];
    if (!crank) return at;
    const angle = mixed((row) => crank.angle[row] ?? 0);
    const [px, py, pz] = vec(crank.point);
    const arm = turned([at[0] - px, at[1] - py, at[2] - pz], vec(crank.axis), angle);
    const own: Vec = [arm[0] + px, arm[1] + py, arm[2] + pz];
    return crank.parent === 0 ? carried(own) : own;
  };
}

/** Where everything stands in words: what has the same puts everything in the same place. */
function keyOf(axle: AxleTravel, travelMm: number, rollDeg: number): string {
  const { rows, shares } = between(axle, travelMm, rollDeg);
  const used = rows.map((row, i) =>
    shares[i] ? [shares[i], axle.poses[row], axle.cranks.map((c) => c.angle[row])] : 0,
  );
  return JSON.stringify([axle.hub, used, axle.cranks.map((c) => [c.point, c.axis, c.parent])]);
}

/** Placers of the right and the left side: single wheels roll as a pair, the one up as the other goes down. */
export function placersOf(axle: AxleTravel, travelMm: number, rollDeg: number) {
  if (!axle.independent) {
    const place = placer(axle, travelMm, rollDeg);
    return { right: place, left: place, key: keyOf(axle, travelMm, rollDeg) };
  }
  const rise = (axle.half_track_mm ?? 0) * Math.tan((rollDeg * Math.PI) / 180);
  const [up, down] = [travelMm + rise, travelMm - rise];
  const key = keyOf(axle, up, 0) + keyOf(axle, down, 0);
  return { right: placer(axle, up, 0), left: placer(axle, down, 0), key };
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
