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

const ENDS = [
  ["diamond", "diamond"],
  ["taper", "45° taper"],
  ["square", "square"],
] as const;
const BUTTS = [
  ["one-sided-backed", "one side, on a backing"],
  ["one-sided", "one side, root unseen"],
  ["two-sided", "both sides"],
  ["two-sided-ground", "both sides, ground, inspected"],
] as const;
const PROFILES = [
  ["box", "box"],
  ["channel", "channel"],
] as const;

const name: FieldSpec = { at: "name", label: "Name", is: "words" };
const place = (label: string): FieldSpec => ({ at: "place", label, is: "place" });
const span: FieldSpec[] = [
  { at: "start", label: "Front end", is: "place" },
  { at: "end", label: "Rear end", is: "place" },
];
const steel: FieldSpec = { at: "steel_id", label: "Steel", is: "steel" };
const leg: FieldSpec = { at: "weld_leg_mm", label: "Weld leg", is: "thickness" };
const butt: FieldSpec = { at: "weld", label: "Butt weld", is: "choice", choices: BUTTS };
const root: FieldSpec[] = [
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
const thickness: FieldSpec = { at: "thickness_mm", label: "Thickness", is: "thickness" };

const box = (depth: string): FieldSpec[] => [
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
const sidePlates = [sidePlate("outer_plate", "Outer side plate"), sidePlate("inner_plate", "Inner side plate")];

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

const is =
  (field: string, ...values: string[]) =>
  (op: Operation) =>
    values.includes(String((op as Record<string, unknown>)[field]));

/** Every operation that is described by a plain form; the notch and the boxing plate have forms of their own. */
export const KINDS: KindSpec[] = [
  {
    kind: "z-step",
    name: "Z-step",
    says: "cut through, and the rail behind or ahead rises: lowers the body, leaves the suspension's geometry",
    fields: [
      name,
      place("Cut"),
      { at: "rise_mm", label: "Step" },
      {
        at: "rises",
        label: "Which part rises",
        is: "choice",
        choices: [
          ["behind", "the rail behind"],
          ["ahead", "the rail ahead"],
        ],
      },
      {
        at: "method",
        label: "Joined by",
        is: "choice",
        choices: [
          ["post", "upright post"],
          ["riser", "sloped riser"],
          ["set-on", "set on top"],
        ],
      },
      {
        at: "cut_angle_deg",
        label: "Cut off upright",
        is: "angle",
        note: "Default: upright. An angled cut moves the rail behind fore or aft as it rises.",
      },
      { at: "riser_angle_deg", label: "Slope of the riser", is: "angle", when: is("method", "riser") },
      { at: "overlap_mm", label: "Overlap", when: is("method", "set-on") },
      ...box("Its depth along (0: rail height)").map((f) => ({ ...f, when: is("method", "post", "riser") })),
      butt,
      leg,
      ...root,
    ],
    parts: [
      ...sidePlates,
      {
        at: "gusset",
        title: "Gussets in both corners",
        fresh: { leg_mm: 60, thickness_mm: 5, steel_id: "mild" },
        fields: [
          { at: "gusset.leg_mm", label: "Leg" },
          { at: "gusset.thickness_mm", label: "Thickness", is: "thickness" },
        ],
      },
    ],
  },
  {
    kind: "raise",
    name: "Raised pocket",
    says: "a subframe or crossmember goes up into the rail: pocket below, box of its depth on top",
    fields: [
      name,
      place("Centre"),
      { at: "length_mm", label: "Length" },
      { at: "depth_mm", label: "Depth at the web" },
      { at: "inner_depth_mm", label: "Depth at the open side", optional: true },
      { at: "corner_radius_mm", label: "Corner radius" },
      { at: "floor_mm", label: "Floor", is: "thickness" },
      { at: "box_mm", label: "Box on top, wall", is: "thickness" },
      { at: "overlap_mm", label: "Box past the pocket" },
      leg,
      steel,
    ],
  },
  {
    kind: "narrow",
    name: "Narrowed stretch",
    says: "between two cuts both rails stand further in, or out: what crosses the frame loses twice that",
    fields: [
      name,
      { at: "inward_mm", label: "Each rail inward by" },
      {
        at: "jog",
        label: "Jog",
        is: "choice",
        choices: [
          ["angled", "angled run"],
          ["butt", "butted ends"],
          ["plated", "plated overlap"],
        ],
      },
      { at: "run_mm", label: "Length of the run", when: is("jog", "angled") },
      ...box("Piece, depth (0: rail height)").slice(2),
      butt,
      leg,
    ],
    parts: [
      {
        at: "start",
        title: "Front cut (without it: from the rail's front end)",
        fresh: null,
        fields: [{ at: "start", label: "Front cut", is: "place" }],
      },
      {
        at: "end",
        title: "Rear cut (without it: to the rail's rear end)",
        fresh: null,
        fields: [{ at: "end", label: "Rear cut", is: "place" }],
      },
    ],
  },
  {
    kind: "stretch",
    name: "Stretch or shorten",
    says: "metal goes in at a cut, or comes out behind it; driveline, lines and loom follow",
    fields: [
      name,
      place("Cut"),
      { at: "length_mm", label: "Longer by (minus: shorter)" },
      ...box("Its depth (0: rail height)"),
      butt,
      leg,
      ...root,
    ],
    parts: sidePlates,
  },
  {
    kind: "splice",
    name: "Splice",
    says: "another rail from a cut rearward, bought or built, or the same one joined again",
    fields: [
      name,
      place("Cut"),
      {
        at: "style",
        label: "Butt",
        is: "choice",
        choices: [
          ["square", "square"],
          ["scarf", "scarf"],
          ["stepped", "stepped"],
        ],
        note: "Default: square with tapered plates on both sides; a scarf or step is a longer butt and harder to prepare.",
      },
      {
        at: "identity_stays",
        label: "Legal identity stays with",
        is: "choice",
        choices: [
          ["not known", "not known yet"],
          ["front", "the front part"],
          ["rear", "the rear part"],
        ],
      },
      { at: "identity_note", label: "How that is known", is: "words", optional: true },
      butt,
      leg,
      ...root,
    ],
    parts: [
      {
        at: "donor",
        title: "Bought or built rail behind",
        fresh: { kind: "rect-tube", height_mm: 120, width_mm: 60, wall_mm: 5, steel_id: "mild" },
        fields: [
          { at: "donor.height_mm", label: "Height" },
          { at: "donor.width_mm", label: "Width" },
          { at: "donor.wall_mm", label: "Wall", is: "thickness" },
          { at: "donor.steel_id", label: "Steel", is: "steel" },
          { at: "donor.cut_from_kit_datum_mm", label: "Cut, from the kit's datum", optional: true },
          { at: "donor.spreader_mm", label: "Spreader width", optional: true },
        ],
      },
      ...sidePlates,
    ],
  },
  {
    kind: "plate",
    name: "Plate",
    says: "a fish plate or doubler on one face",
    fields: [
      name,
      ...span,
      {
        at: "face",
        label: "Face",
        is: "choice",
        choices: [
          ["outer", "web, outside"],
          ["inner", "open side"],
          ["top", "top flange"],
          ["bottom", "bottom flange"],
        ],
      },
      thickness,
      { at: "low_mm", label: "Above the underside", when: is("face", "outer", "inner") },
      { at: "high_mm", label: "Below the top", when: is("face", "outer", "inner") },
      { at: "ends", label: "Ends", is: "choice", choices: ENDS },
      leg,
      steel,
    ],
  },
  {
    kind: "hole",
    name: "Hole, plug or sleeve",
    says: "drill the web, fill a hole, or weld a crush sleeve through a closed rail",
    fields: [
      name,
      place("Centre"),
      {
        at: "work",
        label: "What",
        is: "choice",
        choices: [
          ["drill", "drill it"],
          ["plug", "plug it"],
          ["sleeve", "crush sleeve"],
        ],
      },
      { at: "height_mm", label: "Above the underside" },
      { at: "diameter_mm", label: "Diameter", is: "thickness" },
      { at: "inspected", label: "Fully penetrated, ground, inspected", is: "tick", when: is("work", "plug") },
    ],
    parts: [
      {
        at: "sleeve",
        title: "Crush sleeve",
        when: is("work", "sleeve"),
        fresh: { bolt_size: "M12", grade: "10.9", outside_mm: 25, wall_mm: 5.5, steel_id: "mild" },
        fields: [
          { at: "sleeve.bolt_size", label: "Bolt", is: "bolt" },
          { at: "sleeve.grade", label: "Grade", is: "grade" },
          { at: "sleeve.outside_mm", label: "Outside", is: "thickness" },
          { at: "sleeve.wall_mm", label: "Wall", is: "thickness" },
          { at: "sleeve.steel_id", label: "Steel", is: "steel" },
        ],
      },
    ],
  },
  {
    kind: "crossmember",
    name: "Crossmember",
    says: "add one, or take out, move or replace a surveyed one",
    fields: [
      name,
      {
        at: "act",
        label: "What",
        is: "choice",
        choices: [
          ["add", "add"],
          ["remove", "take out"],
          ["move", "move"],
          ["replace", "replace"],
        ],
      },
      { at: "target_id", label: "Which", is: "crossmember", when: is("act", "remove", "move", "replace") },
      place("Stands at"),
      {
        at: "profile",
        label: "Profile",
        is: "choice",
        choices: [["tube", "tube"], ...PROFILES],
        when: is("act", "add", "replace"),
      },
      { at: "height_mm", label: "Height", when: is("act", "add", "replace") },
      { at: "width_mm", label: "Width", when: is("act", "add", "replace") },
      { at: "wall_mm", label: "Wall", is: "thickness", when: is("act", "add", "replace") },
      {
        at: "end",
        label: "Ends",
        is: "choice",
        choices: [
          ["riveted", "riveted"],
          ["welded", "welded"],
          ["gusseted", "welded, gusseted"],
        ],
        when: is("act", "add", "replace"),
      },
      { at: "removable", label: "Bolted in, removable", is: "tick", when: is("act", "add", "replace") },
    ],
  },
  {
    kind: "access-cut",
    name: "Access cut",
    says: "a piece out so that something can enter, then back in and fish-plated on both sides",
    fields: [
      name,
      ...span,
      { at: "height_mm", label: "Height from the underside" },
      { at: "corner_radius_mm", label: "Corner radius" },
      butt,
      leg,
    ],
    parts: sidePlates,
  },
  {
    kind: "repair",
    name: "Rust repair",
    says: "cut back to sound metal, patch let in, the mount's hole drilled again",
    fields: [name, ...span, thickness, steel, butt],
    parts: [
      {
        at: "mount",
        title: "Mount in the patch",
        fresh: { feature_id: "", height_mm: 60, diameter_mm: 13 },
        fields: [
          { at: "mount.feature_id", label: "Mount", is: "feature" },
          { at: "mount.height_mm", label: "Its hole above the underside" },
          { at: "mount.diameter_mm", label: "Its hole", is: "thickness" },
        ],
      },
    ],
  },
  {
    kind: "bracket",
    name: "Bracket",
    says: "a link, spring or damper bracket with two tabs: welded, bolted or both, checked under the force you give",
    fields: [
      name,
      place("Middle"),
      { at: "height_mm", label: "Middle above the underside" },
      {
        at: "face",
        label: "On",
        is: "choice",
        choices: [
          ["outer", "the web's outside"],
          ["inner", "the open side"],
        ],
      },
      { at: "width_mm", label: "Foot, along" },
      { at: "tall_mm", label: "Foot, high" },
      { at: "thickness_mm", label: "Foot, thick", is: "thickness" },
      steel,
      { at: "tabs.standoff_mm", label: "Link's bolt off the face" },
      { at: "tabs.edge_mm", label: "Hole to tab's end" },
      { at: "tabs.width_mm", label: "Tab width" },
      { at: "tabs.thickness_mm", label: "Tab thickness", is: "thickness" },
      { at: "tabs.bolt_size", label: "Link's bolt", is: "bolt" },
      { at: "tabs.grade", label: "Its grade", is: "grade" },
      { at: "tabs.stiff", label: "Both tabs stiff: two shear planes", is: "tick" },
      { at: "along_n", label: "Force along, rearward", is: "force" },
      { at: "up_n", label: "Force up", is: "force" },
      { at: "out_n", label: "Force outward", is: "force" },
      {
        at: "fixing",
        label: "Fixed by",
        is: "choice",
        choices: [
          ["welded", "weld"],
          ["bolted", "bolts"],
          ["welded-and-bolted", "weld and bolts"],
        ],
        note: "Default on a closed rail: welded, and bolted through sleeves.",
      },
      { ...leg, when: is("fixing", "welded", "welded-and-bolted") },
    ],
    parts: [
      {
        at: "gusset",
        title: "Gusset",
        fresh: { leg_mm: 40, thickness_mm: 5 },
        fields: [
          { at: "gusset.leg_mm", label: "Leg" },
          { at: "gusset.thickness_mm", label: "Thickness", is: "thickness" },
        ],
      },
      { ...BOLTS, title: "Bolts of the foot", when: is("fixing", "bolted", "welded-and-bolted") },
    ],
  },
];
