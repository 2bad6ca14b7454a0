/** Stations to pixels: one scale for elevation, plan, tape and strength strip. */
export type View = { x0: number; x1: number };
export type Scale = {
  view: View;
  width: number;
  perMm: number;
  x: (stationMm: number) => number;
  station: (px: number) => number;
};

const LEAST_MM = 120;
const MOST_MM = 9000;

export function scaleOf(view: View, width: number): Scale {
  const perMm = width / (view.x1 - view.x0);
  return {
    view,
    width,
    perMm,
    x: (stationMm) => (stationMm - view.x0) * perMm,
    station: (px) => view.x0 + px / perMm,
  };
}

/** Closer or farther about a station that stays where it is. */
export function zoomed(view: View, factor: number, aboutMm: number): View {
  const span = Math.min(Math.max((view.x1 - view.x0) * factor, LEAST_MM), MOST_MM);
  const share = (aboutMm - view.x0) / (view.x1 - view.x0);
  return { x0: aboutMm - share * span, x1: aboutMm + (1 - share) * span };
}

export function moved(view: View, byMm: number): View {
  return { x0: view.x0 + byMm, x1: view.x1 + byMm };
}

/** A value between columns, for drawing only. */
export function between(x: number, xs: readonly number[], ys: readonly number[]): number {
  const last = xs.length - 1;
  if (x <= (xs[0] ?? 0)) return ys[0] ?? 0;
  if (x >= (xs[last] ?? 0)) return ys[last] ?? 0;
  let i = 1;
  while ((xs[i] ?? Number.POSITIVE_INFINITY) < x) i += 1;
  const [a, b] = [xs[i - 1] ?? 0, xs[i] ?? 0];
  const [ya, yb] = [ys[i - 1] ?? 0, ys[i] ?? 0];
  return ya + ((yb - ya) * (x - a)) / (b - a || 1);
}

/** Pixels drawn beyond each edge, so that a line's end and its width are never seen there. */
const BEYOND = 4;

/**
 * The part of a line that is in sight; `points` run from left to right, pixels. A browser works out every dash of a
 * line, also of what is out of sight, each time that it paints.
 */
export function inSight(points: readonly Spot[], width: number): Spot[] {
  const [left, right] = [-BEYOND, width + BEYOND];
  const seen: Spot[] = [];
  points.forEach((b, i) => {
    const a = points[i - 1];
    for (const edge of a ? [left, right] : [])
      if (a && a[0] < edge && edge < b[0]) seen.push([edge, crossing(a, b, edge)]);
    if (b[0] >= left && b[0] <= right) seen.push(b);
  });
  return seen;
}

type Spot = readonly [x: number, y: number];

function crossing(a: Spot, b: Spot, x: number): number {
  return a[1] + ((b[1] - a[1]) * (x - a[0])) / (b[0] - a[0]);
}

/** The column row nearest to a value, such as the pose at a travel. */
export function nearest(value: number, column: readonly number[]): number {
  let best = 0;
  column.forEach((v, i) => {
    if (Math.abs(v - value) < Math.abs((column[best] ?? 0) - value)) best = i;
  });
  return best;
}

/** Where a stock station is on the planned rail. */
export function plannedX(
  rail: { stock_x_mm: readonly number[]; x_mm: readonly number[] } | undefined,
  x: number,
): number {
  const [from, to] = [rail?.stock_x_mm, rail?.x_mm];
  if (!from?.length || !to?.length) return x;
  const [a, b] = [from[0] ?? 0, from.at(-1) ?? 0];
  if (x < a) return x - a + (to[0] ?? 0);
  if (x > b) return x - b + (to.at(-1) ?? 0);
  return between(x, from, to);
}

/** The stock station that is at a planned one. */
export function stockX(
  rail: { stock_x_mm: readonly number[]; x_mm: readonly number[] } | undefined,
  x: number,
): number {
  return rail ? plannedX({ stock_x_mm: rail.x_mm, x_mm: rail.stock_x_mm }, x) : x;
}
