import type { AxleTravel } from "../api/types";
import { hinged, split, type Vec, vec } from "./space";

/** The first number of a knuckle; without a table they ride on the axle. */
export const KNUCKLE = 14;

/** What the steering gear moves at one travel and input: a single wheel's upright, and bodies by their number. */
export type Turned = {
  upright?: number[];
  bodies: Map<number, { parent: number; place: (at: Vec) => Vec }>;
};

/** The tables of one side at a travel and an input between -1 (full left) and +1, held to what the gear reaches. */
export function turnedAt(
  axle: AxleTravel,
  travelMm: number,
  steer: number,
  side: "right" | "left",
): Turned | undefined {
  const steering = axle.steer;
  const own = steering?.[side];
  if (!steering || !own) return undefined;
  const [low, high] = [steering.reached?.[0] ?? 0, steering.reached?.[1] ?? 0];
  const input = Math.min(Math.max(steer, low), high);
  const inputs = steering.inputs ?? [];
  const mixed = (read: (row: number) => number, at = input, byTravel = false) => {
    const s = split(at, inputs);
    const t = byTravel ? split(travelMm, steering.travel_mm ?? []) : { low: 0, high: 0, share: 0 };
    const value = (i: number) => {
      const base = byTravel ? i * inputs.length : 0;
      return read(base + s.low) * (1 - s.share) + (s.share ? read(base + s.high) * s.share : 0);
    };
    return value(t.low) * (1 - t.share) + (t.share ? value(t.high) * t.share : 0);
  };
  const bodies = new Map<number, { parent: number; place: (at: Vec) => Vec }>();
  for (const body of own.bodies) {
    const shift = body.shift ?? [];
    if (shift.length) {
      const moved = [0, 1, 2].map((k) => mixed((row) => shift[row]?.[k] ?? 0));
      const place = ([x, y, z]: Vec): Vec => [x + (moved[0] ?? 0), y + (moved[1] ?? 0), z + (moved[2] ?? 0)];
      bodies.set(body.body, { parent: -1, place });
    } else {
      const angle = mixed((row) => body.angle?.[row] ?? 0, input, body.parent === 0);
      const place = (at: Vec) => hinged(at, vec(body.point), vec(body.axis), angle);
      bodies.set(body.body, { parent: body.parent, place });
    }
  }
  const poses = own.poses.length ? own.poses : steering.right?.poses;
  if (!axle.independent || !poses?.length || input === 0) return { bodies };
  const at = own.poses.length ? input : -input;
  return { bodies, upright: [0, 1, 2, 3, 4, 5].map((k) => mixed((row) => poses[row]?.[k] ?? 0, at, true)) };
}
