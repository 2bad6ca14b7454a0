import type { Boxing, Notch, Operation, OperationKind } from "../api/types";
import { type Draft, freshId } from "../draft/document";
import { freshMount, TAB } from "./freshMounts";

/** A place to start from: the rear axle line where there is one, else the datum feature. */
export function startPlace(draft: Draft, offset_mm: number) {
  const axle = draft.survey.wheelbase_mm;
  const near = draft.survey.features.find((f) => f.kind === "axle-line" && axle != null && Math.abs(f.x_mm - axle) < 1);
  const last = draft.survey.features.filter((f) => f.kind === "axle-line").at(-1);
  return { anchor_id: (near ?? last)?.id ?? draft.survey.datum.feature_id, offset_mm };
}

/** The same from the front axle line. */
function frontPlace(draft: Draft, offset_mm: number) {
  const first = draft.survey.features.find((f) => f.kind === "axle-line");
  return { anchor_id: first?.id ?? draft.survey.datum.feature_id, offset_mm };
}

function base<K extends OperationKind>(draft: Draft, kind: K, name: string) {
  const id = freshId(
    kind,
    draft.design.operations.map((op) => op.id),
  );
  return { kind, id, name, side: "both" as const };
}

export function freshNotch(draft: Draft): Notch {
  return {
    ...base(draft, "notch", "Notch"),
    place: startPlace(draft, 0),
    from_: "below",
    shape: { kind: "arc", radius_mm: 60 },
    depth_mm: 40,
    tool: "template",
    weld_allowance_mm: 2,
    liner: null,
    outer_plate: null,
    inner_plate: null,
    cap: null,
    bolts: null,
  };
}

export function freshBoxing(draft: Draft): Boxing {
  return {
    ...base(draft, "boxing", "Boxing plate"),
    start: startPlace(draft, -400),
    end: startPlace(draft, 400),
    thickness_mm: 5,
    fit: "over-lips",
    inset_mm: 4,
    steel_id: "mild",
    weld_leg_mm: 4,
    seam: "full",
    bead_mm: 50,
    pitch_mm: 100,
  };
}

const BOX = { profile: "box" as const, depth_mm: 0, wall_mm: 6, steel_id: "mild" };
const CUT = {
  weld: "one-sided-backed" as const,
  weld_leg_mm: 5,
  root_gap_mm: 2.5,
  ground: true,
  brace: "both" as const,
  outer_plate: null,
  inner_plate: null,
};

/** A new operation of a kind, in a place where it can be seen. */
export function freshOperation(draft: Draft, kind: OperationKind): Operation {
  const at = (offset: number) => startPlace(draft, offset);
  const mount = freshMount(draft, kind, (own, name) => base(draft, own, name), at);
  return mount ?? freshRailWork(draft, kind, at);
}

function freshRailWork(
  draft: Draft,
  kind: OperationKind,
  at: (mm: number) => ReturnType<typeof startPlace>,
): Operation {
  switch (kind) {
    case "notch":
      return freshNotch(draft);
    case "boxing":
      return freshBoxing(draft);
    case "z-step":
      return {
        ...base(draft, kind, "Z-step"),
        ...CUT,
        place: at(-800),
        rise_mm: 75,
        rises: "behind",
        method: "post",
        box: BOX,
        riser_angle_deg: 45,
        overlap_mm: 250,
        cut_angle_deg: 0,
        gusset: null,
      };
    case "raise":
      return {
        ...base(draft, kind, "Raised pocket"),
        place: { anchor_id: at(0).anchor_id, offset_mm: -400 },
        length_mm: 160,
        depth_mm: 40,
        inner_depth_mm: null,
        corner_radius_mm: 12,
        floor_mm: 5,
        box_mm: 5,
        overlap_mm: 160,
        steel_id: "mild",
        weld_leg_mm: 5,
        subframe: "bolted",
        tie: null,
      };
    case "narrow":
      return {
        ...base(draft, kind, "Narrowed stretch"),
        start: null,
        end: frontPlace(draft, 500),
        inward_mm: 20,
        jog: "angled",
        run_mm: 120,
        box: BOX,
        weld: "one-sided-backed",
        weld_leg_mm: 5,
      };
    case "stretch":
      return {
        ...base(draft, kind, "Stretch"),
        ...CUT,
        place: at(-900),
        length_mm: 200,
        box: { ...BOX, profile: "channel", wall_mm: 5 },
      };
    case "splice":
      return {
        ...base(draft, kind, "Splice"),
        ...CUT,
        place: at(-800),
        style: "square",
        donor: null,
        identity_stays: "not known",
        identity_note: null,
      };
    case "plate":
      return {
        ...base(draft, kind, "Plate"),
        start: at(-300),
        end: at(300),
        face: "outer",
        thickness_mm: 5,
        low_mm: 6,
        high_mm: 6,
        ends: "diamond",
        steel_id: "mild",
        weld_leg_mm: 5,
        plugs: null,
      };
    case "hole":
      return {
        ...base(draft, kind, "Hole"),
        place: at(-300),
        height_mm: 75,
        diameter_mm: 13.5,
        tall_mm: 0,
        liner_mm: null,
        work: "drill",
        inspected: false,
        weld_washers: false,
        sleeve: null,
      };
    case "crossmember":
      return {
        ...base(draft, kind, "New crossmember"),
        act: "add",
        target_id: null,
        place: at(-400),
        profile: "tube",
        height_mm: 60,
        width_mm: 60,
        wall_mm: 4,
        end: "welded",
        removable: false,
      };
    case "access-cut":
      return {
        ...base(draft, kind, "Access cut"),
        start: at(-500),
        end: at(-380),
        height_mm: 80,
        corner_radius_mm: 12,
        weld: "one-sided-backed",
        weld_leg_mm: 5,
        outer_plate: null,
        inner_plate: null,
      };
    case "repair":
      return {
        ...base(draft, kind, "Rust repair"),
        start: at(-500),
        end: at(-350),
        thickness_mm: 5,
        steel_id: "mild",
        low_mm: 0,
        high_mm: 0,
        top: true,
        bottom: true,
        far: true,
        weld: "two-sided-ground",
        mount: null,
      };
    case "bracket":
      return {
        ...base(draft, kind, "Link bracket"),
        place: at(-500),
        face: "outer",
        height_mm: 70,
        width_mm: 120,
        tall_mm: 90,
        thickness_mm: 6,
        steel_id: "mild",
        tabs: TAB,
        gusset: null,
        drain_mm: 0,
        fixing: "welded",
        weld_leg_mm: 5,
        bolts: null,
        weld_when: "after-all-checks",
        along_n: 0,
        up_n: 0,
        out_n: 0,
      };
    default:
      return freshNotch(draft);
  }
}
