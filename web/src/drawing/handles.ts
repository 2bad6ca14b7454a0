import type { Evaluation, Notch, Operation, RailDrawing, Side } from "../api/types";
import { type Draft, type Path, replaced, valueAt } from "../draft/document";
import { topAt, undersideAt } from "./railHeights";
import { between, plannedX, stockX } from "./scale";

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

type Where = {
  draft: Draft;
  result: Evaluation;
  side: Side;
  rail: RailDrawing | undefined;
  op: Operation;
  index: number;
};

/** Every handle of the draft's operations on one side; stations are planned ones, values what the fields hold. */
export function handlesOf(draft: Draft, result: Evaluation, side: Side): Handle[] {
  const rail = result.rails.find((r) => r.side === side);
  return draft.design.operations.flatMap((op, index) => {
    if (op.side !== "both" && op.side !== side) return [];
    const where = { draft, result, side, rail, op, index };
    const places = PLACES.flatMap(([key, words]) => placeHandle(where, key, words));
    return [...places, ...heightHandles(where), ...(op.kind === "notch" ? notchHandles(where, op) : [])];
  });
}

const PLACES = [
  ["place", "place"],
  ["start", "front end"],
  ["end", "rear end"],
] as const;

/** The station of the operation's place on the planned rail. */
/** Station on the planned frame of a place of the plan, mm. */
export function stationOf(
  { draft, rail }: Pick<Where, "draft" | "rail">,
  place: { anchor_id: string; offset_mm?: number },
): number {
  return plannedX(rail, anchorOf(draft, place.anchor_id) + (place.offset_mm ?? 0));
}

function placeHandle(where: Where, key: (typeof PLACES)[number][0], words: string): Handle[] {
  const { draft, result, side, rail, op, index } = where;
  const place = (op as Partial<Record<typeof key, { anchor_id: string; offset_mm?: number } | null>>)[key];
  if (!place) return [];
  const x = stationOf(where, place);
  const z = op.kind === "notch" && op.from_ === "above" ? topAt(result, side, x) : undersideAt(result, side, x);
  return [
    {
      id: `${op.id}/${op.kind === "notch" ? "centre" : key}`,
      label: `${op.name}, ${op.kind === "notch" ? "centre" : words}`,
      axis: "x",
      index,
      x,
      z,
      valueMm: place.offset_mm ?? 0,
      field: `/design/operations/${index}/${key}/offset_mm`,
      valueAt: (at) => stockX(rail, at) - anchorOf(draft, place.anchor_id),
      withValue: (offset) => changed(op, [key, "offset_mm"], offset),
    },
  ];
}

function changed(op: Operation, path: Path, value: number): Operation {
  return replaced(op, path, () => value) as Operation;
}

/** Fields that are a height on the sheet: where they sit, and how the pointer's height gives their value. */
const HEIGHTS: Partial<Record<Operation["kind"], { at: string; words: string; from: "underside" | "rise" }[]>> = {
  "z-step": [{ at: "rise_mm", words: "height of the step", from: "rise" }],
  raise: [{ at: "depth_mm", words: "depth", from: "underside" }],
  hole: [{ at: "height_mm", words: "height", from: "underside" }],
  bracket: [{ at: "height_mm", words: "height", from: "underside" }],
  "access-cut": [{ at: "height_mm", words: "height", from: "underside" }],
};

function heightHandles(where: Where): Handle[] {
  const { result, side, rail, op, index } = where;
  const place = "place" in op ? op.place : "start" in op ? op.start : null;
  if (!place) return [];
  return (HEIGHTS[op.kind] ?? []).map(({ at, words, from }) => {
    const value = valueAt(op, [at]) as number;
    const x = stationOf(where, place);
    const base = undersideAt(result, side, x);
    const up = op.kind === "z-step" && op.rises === "ahead" ? -1 : 1;
    const beyond = from === "rise" ? x + 60 : x;
    return {
      id: `${op.id}/${at}`,
      label: `${op.name}, ${words}`,
      axis: "z" as const,
      index,
      x: beyond,
      z: base + up * value,
      valueMm: value,
      field: `/design/operations/${index}/${at}`,
      valueAt: (_: number, z: number) => up * (z - (rail ? undersideAt(result, side, x) : base)),
      withValue: (mm: number) => changed(op, [at], mm),
    };
  });
}

/** Depth, width, plates and cap of a notch. */
function notchHandles(where: Where, notch: Notch): Handle[] {
  const { result, side, index } = where;
  const centre = stationOf(where, notch.place);
  const up = notch.from_ === "above" ? -1 : 1;
  const edge = up > 0 ? undersideAt(result, side, centre) : topAt(result, side, centre);
  const far = up > 0 ? topAt(result, side, centre) : undersideAt(result, side, centre);
  const half = halfMouth(result, side, centre);
  const along = (x: number) => Math.abs(x - centre);
  const make = (
    name: string,
    words: string,
    at: readonly string[],
    axis: "x" | "z",
    x: number,
    z: number,
    reads: (x: number, z: number) => number,
  ): Handle => ({
    id: `${notch.id}/${name}`,
    label: `${notch.name}, ${words}`,
    axis,
    index,
    x,
    z,
    valueMm: valueAt(notch, at) as number,
    field: `/design/operations/${index}/${at.join("/")}`,
    valueAt: reads,
    withValue: (mm) => changed(notch, at, mm),
  });
  const shape = notch.shape;
  const handles = [
    make("depth", "depth", ["depth_mm"], "z", centre, edge + up * notch.depth_mm, (_, z) => up * (z - edge)),
    shape.kind === "arc"
      ? make(
          "radius",
          "radius",
          ["shape", "radius_mm"],
          "x",
          centre + shape.radius_mm,
          edge + up * Math.max(notch.depth_mm - shape.radius_mm, 0),
          along,
        )
      : make(
          "mouth",
          "width at the mouth",
          ["shape", "mouth_width_mm"],
          "x",
          centre + shape.mouth_width_mm / 2,
          edge,
          (x) => 2 * along(x),
        ),
  ];
  if (notch.outer_plate) {
    const x = centre + half + notch.outer_plate.overlap_mm;
    const words = "overlap of the outer plate";
    handles.push(
      make("outer", words, ["outer_plate", "overlap_mm"], "x", x, (edge + far) / 2, (at) => along(at) - half),
    );
  }
  if (notch.cap) {
    const z = far + up * notch.cap.height_mm;
    handles.push(make("cap", "height of the cap", ["cap", "height_mm"], "z", centre, z, (_, at) => up * (at - far)));
  }
  return handles;
}

function halfMouth(result: Evaluation, side: Side, centre: number): number {
  const cuts = result.rails.find((r) => r.side === side)?.cuts ?? [];
  const spans = cuts.map((c) => [c.vertices[0]?.x ?? 0, c.vertices.at(-1)?.x ?? 0] as const);
  const own = spans.find(([a, b]) => Math.abs((a + b) / 2 - centre) < 200);
  return own ? (own[1] - own[0]) / 2 : 0;
}

/** Handles of one operation in plan: its places on the web's line, and how far in a narrowed stretch stands. `z` is across. */
export function planHandlesOf(draft: Draft, result: Evaluation, side: Side, openId: string | undefined): Handle[] {
  const rail = result.rails.find((r) => r.side === side);
  const index = draft.design.operations.findIndex((op) => op.id === openId);
  const op = draft.design.operations[index];
  if (!rail || !op || (op.side !== "both" && op.side !== side)) return [];
  const where = { draft, result, side, rail, op, index };
  const web = (x: number) => between(x, rail.x_mm, rail.web_y_mm);
  const along = PLACES.flatMap(([key, words]) => placeHandle(where, key, words)).map((handle) => ({
    ...handle,
    id: `${handle.id}@plan`,
    label: `${handle.label}, in plan`,
    z: web(handle.x),
  }));
  if (op.kind !== "narrow") return along;
  const sign = side === "left" ? -1 : 1;
  const stock = draft.survey.rails[side].web_y_mm ?? 0;
  // beside a cut, where both the jog and the stretch are in view
  const beside = (op.run_mm ?? 0) + 60;
  const x = op.end ? stationOf(where, op.end) - beside : op.start ? stationOf(where, op.start) + beside : 0;
  const inward: Handle = {
    id: `${op.id}/inward@plan`,
    label: `${op.name}, inward`,
    axis: "z",
    index,
    x,
    z: sign * (stock - op.inward_mm),
    valueMm: op.inward_mm,
    field: `/design/operations/${index}/inward_mm`,
    valueAt: (_, y) => stock - sign * y,
    withValue: (mm) => changed(op, ["inward_mm"], mm),
  };
  return [...along, inward];
}
