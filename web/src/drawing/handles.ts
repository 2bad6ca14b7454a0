import type { Boxing, Evaluation, Notch, Operation, Side } from "../api/types";
import type { Draft } from "../draft/document";
import { topAt, undersideAt } from "./Elevation";

/** A thing on the sheet that can be dragged along one axis, nudged, or typed in its field. */
export type Handle = {
  id: string;
  label: string;
  axis: "x" | "z";
  x: number;
  z: number;
  valueMm: number;
  index: number;
  /** JSON pointer of the field that holds the value. */
  field: string;
  /** The value when the pointer is at a station and height. */
  valueAt: (x: number, z: number) => number;
  /** The operation with another value. */
  withValue: (valueMm: number) => Operation;
};

/** Station of a named feature as surveyed. */
export function anchorOf(draft: Draft, anchorId: string): number {
  return draft.survey.features.find((f) => f.id === anchorId)?.x_mm ?? 0;
}

/** Every handle of the draft's operations on one side; the mouth's width comes from the core's last outline. */
export function handlesOf(draft: Draft, result: Evaluation, side: Side): Handle[] {
  return draft.design.operations.flatMap((op, index) => {
    if (op.side !== "both" && op.side !== side) return [];
    return op.kind === "notch"
      ? notchHandles(draft, result, side, op, index)
      : boxingHandles(draft, result, side, op, index);
  });
}

function notchHandles(draft: Draft, result: Evaluation, side: Side, notch: Notch, index: number): Handle[] {
  const anchor = anchorOf(draft, notch.place.anchor_id);
  const centre = anchor + notch.place.offset_mm;
  const base = undersideAt(result, side, centre);
  const shape = notch.shape;
  const half = halfMouth(result, side, centre);
  const common = { index, z: base };
  const head = `/design/operations/${index}`;
  const handles: Handle[] = [
    {
      ...common,
      id: `${notch.id}/centre`,
      label: `${notch.name}, centre`,
      axis: "x",
      x: centre,
      valueMm: notch.place.offset_mm,
      field: `${head}/place/offset_mm`,
      valueAt: (x) => x - anchor,
      withValue: (offset_mm) => ({ ...notch, place: { ...notch.place, offset_mm } }),
    },
    {
      ...common,
      id: `${notch.id}/depth`,
      label: `${notch.name}, depth`,
      axis: "z",
      x: centre,
      z: base + notch.depth_mm,
      valueMm: notch.depth_mm,
      field: `${head}/depth_mm`,
      valueAt: (_, z) => z - base,
      withValue: (depth_mm) => ({ ...notch, depth_mm }),
    },
  ];
  if (shape.kind === "arc") {
    handles.push({
      ...common,
      id: `${notch.id}/radius`,
      label: `${notch.name}, radius`,
      axis: "x",
      x: centre + shape.radius_mm,
      z: base + Math.max(notch.depth_mm - shape.radius_mm, 0),
      valueMm: shape.radius_mm,
      field: `${head}/shape/radius_mm`,
      valueAt: (x) => Math.abs(x - centre),
      withValue: (radius_mm) => ({ ...notch, shape: { ...shape, radius_mm } }),
    });
  } else {
    handles.push({
      ...common,
      id: `${notch.id}/mouth`,
      label: `${notch.name}, width at the mouth`,
      axis: "x",
      x: centre + shape.mouth_width_mm / 2,
      valueMm: shape.mouth_width_mm,
      field: `${head}/shape/mouth_width_mm`,
      valueAt: (x) => 2 * Math.abs(x - centre),
      withValue: (mouth_width_mm) => ({ ...notch, shape: { ...shape, mouth_width_mm } }),
    });
  }
  if (notch.outer_plate) {
    const plate = notch.outer_plate;
    handles.push({
      ...common,
      id: `${notch.id}/outer`,
      label: `${notch.name}, overlap of the outer plate`,
      axis: "x",
      x: centre + half + plate.overlap_mm,
      z: (base + topAt(result, side, centre)) / 2,
      valueMm: plate.overlap_mm,
      field: `${head}/outer_plate/overlap_mm`,
      valueAt: (x) => Math.abs(x - centre) - half,
      withValue: (overlap_mm) => ({ ...notch, outer_plate: { ...plate, overlap_mm } }),
    });
  }
  if (notch.cap) {
    const cap = notch.cap;
    handles.push({
      ...common,
      id: `${notch.id}/cap`,
      label: `${notch.name}, height of the cap`,
      axis: "z",
      x: centre,
      z: topAt(result, side, centre) + cap.height_mm,
      valueMm: cap.height_mm,
      field: `${head}/cap/height_mm`,
      valueAt: (_, z) => z - topAt(result, side, centre),
      withValue: (height_mm) => ({ ...notch, cap: { ...cap, height_mm } }),
    });
  }
  return handles;
}

function halfMouth(result: Evaluation, side: Side, centre: number): number {
  const cuts = result.rails.find((r) => r.side === side)?.cuts ?? [];
  const spans = cuts.map((c) => [c.vertices[0]?.x ?? 0, c.vertices.at(-1)?.x ?? 0] as const);
  const own = spans.find(([a, b]) => Math.abs((a + b) / 2 - centre) < 200);
  return own ? (own[1] - own[0]) / 2 : 0;
}

function boxingHandles(draft: Draft, result: Evaluation, side: Side, box: Boxing, index: number): Handle[] {
  return (["start", "end"] as const).map((which) => {
    const place = box[which];
    const anchor = anchorOf(draft, place.anchor_id);
    const x = anchor + place.offset_mm;
    return {
      id: `${box.id}/${which}`,
      label: `${box.name}, ${which === "start" ? "front" : "rear"} end`,
      axis: "x" as const,
      index,
      x,
      z: undersideAt(result, side, x),
      valueMm: place.offset_mm,
      field: `/design/operations/${index}/${which}/offset_mm`,
      valueAt: (at: number) => at - anchor,
      withValue: (offset_mm: number) => ({ ...box, [which]: { ...place, offset_mm } }),
    };
  });
}
