import type { HardPoint, Layout, Suspension } from "../api/types";

export type Steering = NonNullable<Suspension["steering"]>;
export type Gear = Steering["gear"];

const p = (x: number, y: number, z: number): HardPoint => ({ x_mm: x, y_mm: y, z_mm: z });

/** Gears that a layout can have, with words. */
export function gearsFor(layout: Layout): (readonly [Gear["kind"], string])[] {
  if (layout.kind === "double-wishbone" || layout.kind === "strut") {
    return [
      ["rack", "rack"],
      ["centre-link", "box, centre link and idler"],
    ];
  }
  if (layout.kind === "trailing" || layout.kind === "multi-link") return [];
  return [["drag-link", "box with a drag link"]];
}

type Stands = { hubX: number; hubZ: number; half: number; rail: number };

/** A gear that works on the hubs as they stand, to be typed and dragged from there. */
export function freshGear(kind: Gear["kind"], layout: Layout, at: Stands): Gear {
  const toe = "toe" in layout ? layout.toe : null;
  const behind = toe ? toe.axle.x_mm > 0 : false;
  if (kind === "rack")
    return { kind, stroke_mm: 65, turns: 3.2, boot_mm: 56, input_right_moves: behind ? "left" : "right" };
  if (kind === "centre-link") {
    const joint = toe?.frame ?? p(at.hubX + 130, 300, at.hubZ);
    // the arm points at the axle, so that anticlockwise it moves the joints the way that steers right
    const box = {
      shaft: p(joint.x_mm + (behind ? 150 : -150), -(joint.y_mm + 60), joint.z_mm + 20),
      arm_end: p(joint.x_mm, -(joint.y_mm + 60), joint.z_mm),
      lean_deg: 0,
      tilt_deg: 0,
      swing_deg: 30,
      turns: 4,
      input_right_turns: "anticlockwise" as const,
    };
    return { kind, box, idler: null, idler_end: null };
  }
  return {
    kind,
    box: {
      shaft: p(at.hubX - 350, -(at.rail + 35), at.hubZ + 60),
      arm_end: p(at.hubX - 200, -(at.rail + 35), at.hubZ + 50),
      lean_deg: 0,
      tilt_deg: 0,
      swing_deg: 33,
      turns: 4,
      input_right_turns: "anticlockwise",
    },
    knuckle: p(-170, at.half - 105, 50),
  };
}

/** Steering with its gear, and king pins where the axle needs them. */
export function freshSteering(layout: Layout, at: Stands): Steering | null {
  const kind = gearsFor(layout)[0]?.[0];
  if (!kind) return null;
  const single = "toe" in layout;
  const king_pins = single
    ? null
    : { upper: p(10, at.half - 130, 95), lower: p(-10, at.half - 100, -95), tie_rod: p(160, at.half - 150, -35) };
  return { gear: freshGear(kind, layout, at), king_pins };
}
