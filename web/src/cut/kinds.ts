import { box, butt, is, type KindSpec, leg, name, PROFILES, place, root, sidePlates, steel } from "./fieldSpecs";
import { MOUNT_WORK } from "./mountWork";
import { SMALL_WORK } from "./smallWork";

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
      {
        at: "subframe",
        label: "Subframe",
        is: "choice",
        choices: [
          ["bolted", "bolted, through rubber"],
          ["welded", "welded in solid"],
        ],
        note: "By use: welded in it stiffens the frame in twist and is counted so, with its section below.",
      },
    ],
    parts: [
      {
        at: "tie",
        title: "Section of the subframe",
        when: is("subframe", "welded"),
        fresh: { profile: "box", height_mm: 70, width_mm: 70, wall_mm: 4 },
        fields: [
          { at: "tie.profile", label: "Profile", is: "choice", choices: [["tube", "tube"], ...PROFILES] },
          { at: "tie.height_mm", label: "Height" },
          { at: "tie.width_mm", label: "Width" },
          { at: "tie.wall_mm", label: "Wall", is: "thickness" },
        ],
      },
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
  ...SMALL_WORK,
  ...MOUNT_WORK,
];
