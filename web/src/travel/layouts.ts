import type { Layout } from "../api/types";

/** A group of fields of a layout; `at` is its path below the layout. */
export type PartSpec = {
  at: string;
  title: string;
  is: "link" | "frame" | "axle" | "length";
};

export type LayoutSpec = {
  kind: Layout["kind"];
  name: string;
  says: string;
  parts: PartSpec[];
  /** A track bar or a Watt's link keeps it in the middle. */
  lateral?: boolean;
};

const upper: PartSpec = { at: "upper", title: "Upper link, right", is: "link" };
const lower: PartSpec = { at: "lower", title: "Lower link, right", is: "link" };

/** Layouts in the words of people who build them. */
export const LAYOUTS: LayoutSpec[] = [
  {
    kind: "triangulated",
    name: "Triangulated four-link",
    says: "upper links converge and locate the axle sideways too; no track bar",
    parts: [upper, lower],
  },
  {
    kind: "parallel",
    name: "Parallel four-link",
    says: "four bars fore and aft with a track bar or Watt's link; one bar too many, so it binds in roll",
    parts: [upper, lower],
    lateral: true,
  },
  {
    kind: "three-link",
    name: "Two arms and an upper link",
    says: "two trailing arms, one upper link, a track bar or Watt's link; does not bind",
    parts: [
      { ...upper, title: "Upper link" },
      { ...lower, title: "Trailing arm, right" },
    ],
    lateral: true,
  },
  {
    kind: "ladder",
    name: "Ladder bars",
    says: "bars fast on the housing; roll twists the housing, short travel only",
    parts: [{ at: "pivot", title: "Front pivot, right", is: "frame" }],
    lateral: true,
  },
  {
    kind: "torque-arm",
    name: "Torque arm",
    says: "two lower links, a long arm on the housing takes the torque",
    parts: [lower, { at: "front", title: "Arm's front end", is: "frame" }],
    lateral: true,
  },
  {
    kind: "leaf",
    name: "Leaf springs",
    says: "the stock baseline, by the equivalent link",
    parts: [
      { at: "eye", title: "Front eye, right", is: "frame" },
      { at: "seat", title: "Seat on the axle, right", is: "axle" },
    ],
  },
  {
    kind: "trailing",
    name: "Trailing or semi-trailing arm",
    says: "each wheel on an arm of its own; pivots askew make it semi-trailing",
    parts: [
      { at: "inner", title: "Inner pivot, right", is: "frame" },
      { at: "outer", title: "Outer pivot, right", is: "frame" },
    ],
  },
  {
    kind: "multi-link",
    name: "Five rods a wheel",
    says: "each upright on five rods",
    parts: [0, 1, 2, 3, 4].map((i) => ({ at: `rods.${i}`, title: `Rod ${i + 1}, right`, is: "link" as const })),
  },
  {
    kind: "double-wishbone",
    name: "Double wishbone",
    says: "two wishbones and a toe link a wheel",
    parts: [
      { at: "upper_front", title: "Upper wishbone, front pivot", is: "frame" },
      { at: "upper_rear", title: "Upper wishbone, rear pivot", is: "frame" },
      { at: "upper_ball", title: "Upper ball joint", is: "axle" },
      { at: "lower_front", title: "Lower wishbone, front pivot", is: "frame" },
      { at: "lower_rear", title: "Lower wishbone, rear pivot", is: "frame" },
      { at: "lower_ball", title: "Lower ball joint", is: "axle" },
      { at: "toe", title: "Toe link", is: "link" },
    ],
  },
  {
    kind: "strut",
    name: "Strut and lower arm",
    says: "a strut fast on the upright, a lower arm, a toe link a wheel",
    parts: [
      { at: "top", title: "Top mount, right", is: "frame" },
      { at: "foot", title: "Strut's foot, right", is: "axle" },
      { at: "lower_front", title: "Lower arm, front pivot", is: "frame" },
      { at: "lower_rear", title: "Lower arm, rear pivot", is: "frame" },
      { at: "lower_ball", title: "Lower ball joint", is: "axle" },
      { at: "toe", title: "Toe link", is: "link" },
    ],
  },
];

export function specOf(kind: Layout["kind"]): LayoutSpec | undefined {
  return LAYOUTS.find((l) => l.kind === kind);
}
