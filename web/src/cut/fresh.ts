import type { Boxing, Notch } from "../api/types";
import { type Draft, freshId } from "../draft/document";

/** A place to start from: the rear axle line where there is one, else the datum feature. */
function startPlace(draft: Draft, offset_mm: number) {
  const axle = draft.survey.wheelbase_mm;
  const near = draft.survey.features.find((f) => f.kind === "axle-line" && axle != null && Math.abs(f.x_mm - axle) < 1);
  const last = draft.survey.features.filter((f) => f.kind === "axle-line").at(-1);
  return { anchor_id: (near ?? last)?.id ?? draft.survey.datum.feature_id, offset_mm };
}

function operationId(draft: Draft, kind: string) {
  return freshId(
    kind,
    draft.design.operations.map((op) => op.id),
  );
}

export function freshNotch(draft: Draft): Notch {
  return {
    kind: "notch",
    id: operationId(draft, "notch"),
    name: "Notch",
    side: "both",
    place: startPlace(draft, 0),
    shape: { kind: "arc", radius_mm: 60 },
    depth_mm: 40,
    weld_allowance_mm: 2,
    liner: null,
    outer_plate: null,
    inner_plate: null,
    cap: null,
  };
}

export function freshBoxing(draft: Draft): Boxing {
  return {
    kind: "boxing",
    id: operationId(draft, "boxing"),
    name: "Boxing plate",
    side: "both",
    start: startPlace(draft, -400),
    end: startPlace(draft, 400),
    thickness_mm: 5,
    fit: "over-lips",
    inset_mm: 4,
    steel_id: "mild",
    weld_leg_mm: 4,
  };
}
