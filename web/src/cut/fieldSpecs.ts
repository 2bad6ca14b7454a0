import type { Operation, OperationKind } from "../api/types";
import type { Kind } from "../units/show";

/** One field of an operation's form; `at` is its path below the operation, parted by dots. */
export type FieldSpec = {
  at: string;
  label: string;
  is?: Kind | "place" | "choice" | "steel" | "tick" | "words" | "crossmember" | "feature" | "bolt" | "grade";
  choices?: readonly (readonly [string, string])[];
  optional?: boolean;
  when?: (op: Operation) => boolean;
  /** Where practitioners differ: what is the default and why. */
  note?: string;
};

/** A part that an operation may have or lack, with its own fields. */
export type PartSpec = {
  at: string;
  title: string;
  fresh: unknown;
  fields: FieldSpec[];
  when?: (op: Operation) => boolean;
};

export type KindSpec = {
  kind: OperationKind;
  /** On the button that adds it. */
  name: string;
  /** What it is for, in one line. */
  says: string;
  fields: FieldSpec[];
  parts?: PartSpec[];
};

export const ENDS = [
  ["diamond", "diamond"],
  ["taper", "45° taper"],
  ["square", "square"],
] as const;
export const BUTTS = [
  ["one-sided-backed", "one side, on a backing"],
  ["one-sided", "one side, root unseen"],
  ["two-sided", "both sides"],
  ["two-sided-ground", "both sides, ground, inspected"],
] as const;
export const PROFILES = [
  ["box", "box"],
  ["channel", "channel"],
] as const;

export const name: FieldSpec = { at: "name", label: "Name", is: "words" };
export const place = (label: string): FieldSpec => ({ at: "place", label, is: "place" });
export const span: FieldSpec[] = [
  { at: "start", label: "Front end", is: "place" },
  { at: "end", label: "Rear end", is: "place" },
];
export const steel: FieldSpec = { at: "steel_id", label: "Steel", is: "steel" };
export const leg: FieldSpec = { at: "weld_leg_mm", label: "Weld leg", is: "thickness" };
export const butt: FieldSpec = { at: "weld", label: "Butt weld", is: "choice", choices: BUTTS };
export const root: FieldSpec[] = [
  { at: "root_gap_mm", label: "Root gap", is: "thickness" },
  {
    at: "ground",
    label: "Ground flush",
    is: "tick",
    note: "Default: an open root of half the wall where it will be ground flush; tight where it stays as welded. Wider than the wall it gets a filler piece.",
  },
  {
    at: "brace",
    label: "Braced",
    is: "choice",
    choices: [
      ["both", "both sides of the cut"],
      ["open-side", "only the open side"],
    ],
    note: "Default: both sides, unless a crossmember within 150 mm of the cut is brace enough.",
  },
];
export const thickness: FieldSpec = { at: "thickness_mm", label: "Thickness", is: "thickness" };

export const box = (depth: string): FieldSpec[] => [
  { at: "box.profile", label: "Piece", is: "choice", choices: PROFILES },
  { at: "box.depth_mm", label: depth },
  { at: "box.wall_mm", label: "Its wall", is: "thickness" },
  { at: "box.steel_id", label: "Its steel", is: "steel" },
];

const sidePlate = (at: string, title: string): PartSpec => ({
  at,
  title,
  fresh: { thickness_mm: 5, overlap_mm: 260, inset_mm: 6, end: "taper", steel_id: "mild", weld_leg_mm: 5 },
  fields: [
    { at: `${at}.thickness_mm`, label: "Thickness", is: "thickness" },
    { at: `${at}.overlap_mm`, label: "Overlap past the cut" },
    { at: `${at}.inset_mm`, label: "Inside the edges by" },
    { at: `${at}.end`, label: "Ends", is: "choice", choices: ENDS },
    { at: `${at}.weld_leg_mm`, label: "Weld leg", is: "thickness" },
    { at: `${at}.steel_id`, label: "Steel", is: "steel" },
  ],
});
export const sidePlates = [sidePlate("outer_plate", "Outer side plate"), sidePlate("inner_plate", "Inner side plate")];

export const BOLTS: PartSpec = {
  at: "bolts",
  title: "Bolts",
  fresh: { size: "M12", grade: "10.9", per_end: 4, edge_mm: 25, sleeves: false },
  fields: [
    { at: "bolts.size", label: "Size", is: "bolt" },
    { at: "bolts.grade", label: "Grade", is: "grade" },
    { at: "bolts.per_end", label: "Bolts at each end", is: "number" },
    { at: "bolts.edge_mm", label: "Centre to plate's end" },
    { at: "bolts.sleeves", label: "Crush sleeves welded through", is: "tick" },
  ],
};

export const is =
  (field: string, ...values: string[]) =>
  (op: Operation) =>
    values.includes(String((op as Record<string, unknown>)[field]));
