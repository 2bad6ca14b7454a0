import type { Driveline, HardPoint, Hose, Lateral, Layout, Link, Springs, Suspension } from "../api/types";
import type { Draft } from "../draft/document";
import { useShown } from "../evaluation/useEvaluation";

const p = (x: number, y: number, z: number): HardPoint => ({ x_mm: x, y_mm: y, z_mm: z });
const tube = { od_mm: 44.5, wall_mm: 6.35, steel_id: "dom" };
const joints = { swing_deg: 25, rating_n: null, frame_bolt: "square", axle_bolt: "square" } as const;
const link = (frame: HardPoint, axle: HardPoint): Link => ({ frame, axle, tube, joints });

/** Where the hubs are at the planned ride height, as near as the survey says it; points start from there. */
function hubOf(draft: Draft, axle: "front" | "rear", before = false) {
  const own = draft.survey[axle];
  const x = axle === "front" ? 0 : (draft.survey.wheelbase_mm ?? 2600);
  const heights = [own.hub_z_left_mm, own.hub_z_right_mm].filter((z): z is number => z != null);
  const shown = useShown.getState().result;
  const drop = axle === "rear" ? shown?.drop : shown?.drop_front;
  const lowered = before ? 0 : (drop?.towards_rail_mm ?? 0);
  const z = (heights.reduce((sum, h) => sum + h, 0) / (heights.length || 1) || -150) + lowered;
  // links and springs begin inside the rails, clear of their lips
  const rail = draft.survey.rails.right;
  const inner = Math.round((rail.web_y_mm ?? 410) - Math.max(...rail.stations.map((s) => s.width_mm)) - 45);
  return { x, z, half: (own.track_mm ?? 1600) / 2, inner };
}

type Hub = ReturnType<typeof hubOf>;

export function freshLateral(kind: Lateral["kind"], hub: Hub): Lateral {
  if (kind === "track-bar") {
    return { kind, bar: link(p(hub.x + 140, hub.inner, hub.z + 10), p(140, -hub.inner, 20)) };
  }
  return {
    kind,
    pin: p(110, 0, 0),
    crank_mm: 160,
    upper: p(hub.x + 110, -hub.inner, hub.z + 80),
    lower: p(hub.x + 110, hub.inner, hub.z - 80),
    tube: { od_mm: 31.8, wall_mm: 4.78, steel_id: "dom" },
    joints,
  };
}

/** Points of a layout that works on the surveyed hubs, to be typed and dragged from there. */
function layoutOf(kind: Layout["kind"], hub: Hub): Layout {
  const lower = link(p(hub.x - 660, hub.inner, hub.z + 20), p(0, hub.inner + 60, -75));
  const single = link(p(hub.x - 480, 60, hub.z + 150), p(-10, 60, 130));
  const lateral = freshLateral("track-bar", hub);
  switch (kind) {
    case "triangulated":
      return { kind, lower, upper: link(p(hub.x - 460, hub.inner, hub.z + 152), p(-10, 70, 130)) };
    case "parallel":
      return {
        kind,
        lower: link(p(hub.x - 620, hub.inner, hub.z + 20), p(0, hub.inner, -75)),
        upper: link(p(hub.x - 480, hub.inner, hub.z + 130), p(0, hub.inner, 130)),
        lateral,
      };
    case "three-link":
      return { kind, lower, upper: single, lateral };
    case "ladder":
      return { kind, pivot: p(hub.x - 800, 330, hub.z + 60), lateral };
    case "torque-arm":
      return { kind, lower, front: p(hub.x - 1000, 0, hub.z + 90), lateral };
    case "leaf":
      return { kind, eye: p(hub.x - 600, 450, hub.z + 20), seat: p(0, 450, -60) };
    case "trailing":
      return { kind, inner: p(hub.x - 480, 330, hub.z + 30), outer: p(hub.x - 480, hub.half - 140, hub.z + 30) };
    case "multi-link": {
      const y = hub.half - 120;
      const near = 360;
      return {
        kind,
        rods: [
          link(p(hub.x - 60, near, hub.z + 105), p(-40, y, 120)),
          link(p(hub.x + 100, near, hub.z + 110), p(60, y, 120)),
          link(p(hub.x - 110, near, hub.z - 100), p(-60, y, -95)),
          link(p(hub.x + 110, near, hub.z - 95), p(70, y, -95)),
          link(p(hub.x - 520, y - 60, hub.z - 10), p(-60, y, 0)),
        ],
      };
    }
    case "double-wishbone": {
      const y = hub.half - 110;
      return {
        kind,
        upper_front: p(hub.x - 200, 420, hub.z + 114),
        upper_rear: p(hub.x + 200, 420, hub.z + 96),
        upper_ball: p(10, y - 20, 130),
        lower_front: p(hub.x - 150, 360, hub.z - 85),
        lower_rear: p(hub.x + 190, 360, hub.z - 85),
        lower_ball: p(0, y, -95),
        toe: link(p(hub.x + 130, 380, hub.z - 18), p(120, y - 10, -22)),
      };
    }
    case "strut": {
      const y = hub.half - 100;
      return {
        kind,
        top: p(hub.x + 30, y - 110, hub.z + 540),
        foot: p(5, y - 30, 90),
        lower_front: p(hub.x - 140, 380, hub.z - 85),
        lower_rear: p(hub.x + 190, 380, hub.z - 85),
        lower_ball: p(-5, y, -100),
        toe: link(p(hub.x + 130, 398, hub.z - 12), p(125, y - 15, -22)),
      };
    }
  }
}

const PACK = {
  leaves: 4,
  removed: 0,
  pack_mm: 40,
  axle_was: "under",
  flipped: false,
  pads_mm: 0,
  block_mm: 0,
} as const;

export function freshSprings(
  kind: Springs["kind"],
  draft: Draft,
  axle: "front" | "rear",
  independent: boolean,
): Springs {
  const hub = hubOf(draft, axle);
  const y = independent ? Math.min(hub.half - 220, 480) : hub.inner - (kind === "air" ? 85 : 35);
  if (kind === "coilover") {
    return {
      kind,
      on: "upright",
      lower: p(-62, y, -40),
      upper: p(hub.x - 52, y - 20, hub.z + 433),
      rate_n_per_mm: 32,
      free_mm: 360,
      block_mm: 110,
      open_mm: 562,
      closed_mm: 372,
      body_mm: 76,
      count: 1,
      apart_mm: 140,
    };
  }
  if (kind === "air") {
    return {
      kind,
      on: "upright",
      lower: p(0, y, 20),
      upper: p(hub.x, y, hub.z + 220),
      ride_mm: 200,
      least_mm: 85,
      most_mm: 310,
      area_mm2: 12_000,
      area_per_mm: -6,
      volume_mm3: 2.4e6,
      most_bar: 7,
      diameter_mm: 165,
      plate_deg: 0,
    };
  }
  return { kind, seat: p(0, 450, -60), rate_n_per_mm: 35, ...PACK };
}

/** A coilover as its layout wants it: on the lower wishbone between the legs of the upper one, or on the strut's own line. */
export function coiloverOn(layout: Layout, own: Extract<Springs, { kind: "coilover" }>, hubX: number, hubZ: number) {
  if (layout.kind === "strut") return { ...own, lower: layout.foot, upper: layout.top };
  if (layout.kind !== "double-wishbone") return own;
  const share = 0.68;
  const { lower_front: f, lower_rear: r, lower_ball: b } = layout;
  const y = Math.round(((f.y_mm + r.y_mm) / 2) * (1 - share) + b.y_mm * share);
  const z = Math.round(((f.z_mm + r.z_mm) / 2 - hubZ) * (1 - share) + b.z_mm * share) + 25;
  const reach = 470;
  return {
    ...own,
    on: "lower-arm" as const,
    lower: p(4, y, z),
    upper: p(hubX + 4, y - 60, hubZ + z + reach),
    rate_n_per_mm: 60,
    body_mm: 58,
  };
}

/** A brake hose from the rail to the wheel, or to the middle of a live axle. */
export function freshHose(draft: Draft, axle: "front" | "rear", independent: boolean): Hose {
  const hub = hubOf(draft, axle);
  const front = axle === "front";
  const y = front || independent ? hub.half - 100 : 120;
  return {
    name: `${axle} brake hose`,
    frame: p(hub.x - 60, front || independent ? hub.inner + 60 : 120, hub.z + 180),
    wheel: p(-60, y, 60),
    length_mm: 420,
  };
}

/** A damper that stands beside an air or leaf spring. */
export function freshDamper(draft: Draft, axle: "front" | "rear", independent: boolean) {
  const hub = hubOf(draft, axle);
  const y = independent ? Math.min(hub.half - 260, 440) : hub.inner - 30;
  return {
    lower: p(-90, y, -40),
    upper: p(hub.x - 100, y - 20, hub.z + 390),
    open_mm: 540,
    closed_mm: 330,
    body_mm: 55,
    count: 1,
    apart_mm: 120,
  };
}

/** A stop that has given all it gives just before full bump. */
export function freshStop(bump_mm: number) {
  const gives_mm = 25;
  return { gap_mm: Math.max(bump_mm - gives_mm - 5, 10), gives_mm };
}

/** A strap that is taut just before the wanted droop is used up. */
export function freshStrap(draft: Draft, axle: "front" | "rear", droop_mm: number, independent: boolean) {
  const hub = hubOf(draft, axle);
  const y = independent ? Math.min(hub.half - 300, 400) : hub.inner - 60;
  const above = 140;
  return { lower: p(60, y, 0), upper: p(hub.x + 60, y, hub.z + above), length_mm: Math.round(above + droop_mm - 5) };
}

/** A rear eye as far behind the seat as the front one lies ahead. */
export function mirroredEye(layout: Extract<Layout, { kind: "leaf" }>, axleX: number): HardPoint {
  return p(2 * (axleX + layout.seat.x_mm) - layout.eye.x_mm, layout.eye.y_mm, layout.eye.z_mm);
}

export function freshSuspension(
  kind: Layout["kind"],
  draft: Draft,
  axle: "front" | "rear",
  before = false,
): Suspension {
  const hub = hubOf(draft, axle, before);
  const targets = draft.design.targets;
  return {
    axle,
    name: axle === "rear" ? "Rear suspension" : "Front suspension",
    layout: layoutOf(kind, hub),
    springs: null,
    stop: null,
    damper: null,
    strap: null,
    bump_mm: axle === "rear" ? (targets.bump_mm ?? 90) : 80,
    droop_mm: axle === "rear" ? (targets.droop_mm ?? 80) : 70,
    hoses: [],
    steering: null,
    camber_deg: 0,
    toe_deg: 0,
    track_mm: null,
    tyre: null,
    loaded_radius_mm: null,
    hub_z_mm: null,
    hub_x_mm: null,
    tyre_n_per_mm: null,
    rides: before ? "placed" : "rail",
    rides_but: {},
    housing: "not known",
    housing_half_mm: null,
    tube_wall_mm: null,
    driven: axle === "rear",
    brake_share: axle === "rear" ? 0.35 : 0.65,
    unsprung_kg: null,
    pinion_deg: draft.survey[axle].pinion_angle_deg ?? null,
    belly_mm: 110,
    rides_in: "laden",
    anti_roll: null,
    half_shaft: null,
  };
}

export function freshLayout(kind: Layout["kind"], draft: Draft, axle: "front" | "rear", before = false): Layout {
  return layoutOf(kind, hubOf(draft, axle, before));
}

export function lateralFor(kind: Lateral["kind"], draft: Draft, axle: "front" | "rear", before = false): Lateral {
  return freshLateral(kind, hubOf(draft, axle, before));
}

/** A shaft from behind the gearbox to ahead of the axle. */
export function freshShaft(draft: Draft): Driveline {
  const hub = hubOf(draft, "rear");
  const gearbox = (draft.survey.crossmembers ?? []).find((c) => c.name.includes("gearbox"))?.x_mm;
  return {
    rides: "rail",
    gearbox: p((gearbox ?? hub.x - 1400) + 150, 0, hub.z + 70),
    gearbox_deg: draft.survey.rear.pinion_angle_deg ?? 3,
    pinion: p(-260, 0, 0),
    bearing: null,
    tube_mm: 76.2,
    wall_mm: 2.11,
    slip_mm: 120,
    engaged_mm: 70,
    most_rpm: 4000,
    joint_deg: 18,
    near: [],
    clearance_mm: 20,
  };
}

/** A half shaft from a differential in the middle to the upright. */
export function freshHalfShaft(draft: Draft, axle: "front" | "rear") {
  const hub = hubOf(draft, axle);
  return {
    inner: p(hub.x, 170, hub.z + 10),
    outer: p(0, hub.half - 120, 0),
    joint_deg: 22,
    plunge_mm: 40,
  };
}
