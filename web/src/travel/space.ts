export type Vec = readonly [number, number, number];

/** Three numbers of a list. */
export function vec(list: readonly number[] | null | undefined): Vec {
  return [list?.[0] ?? 0, list?.[1] ?? 0, list?.[2] ?? 0];
}

/** A row of the table between its neighbours; beyond the ends the last one stays. */
export function split(value: number, column: readonly number[]): { low: number; high: number; share: number } {
  const last = column.length - 1;
  if (last <= 0 || value <= (column[0] ?? 0)) return { low: 0, high: 0, share: 0 };
  if (value >= (column[last] ?? 0)) return { low: last, high: last, share: 0 };
  let high = 1;
  while ((column[high] ?? 0) < value) high += 1;
  const [a, b] = [column[high - 1] ?? 0, column[high] ?? 0];
  return { low: high - 1, high, share: (value - a) / (b - a || 1) };
}

/** A vector turned about an axis by an angle, radians. */
export function about([x, y, z]: Vec, axis: Vec, angle: number): Vec {
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

/** A point turned about a hinge. */
export function hinged(at: Vec, [px, py, pz]: Vec, axis: Vec, angle: number): Vec {
  const arm = about([at[0] - px, at[1] - py, at[2] - pz], axis, angle);
  return [arm[0] + px, arm[1] + py, arm[2] + pz];
}
