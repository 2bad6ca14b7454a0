import { type FieldSpec, is, type KindSpec, leg, name, place, steel } from "./fieldSpecs";

/** The tabs that hold a joint, the same on rail, crossmember and axle. */
export const TABS: FieldSpec[] = [
  { at: "tabs.bolt_size", label: "Joint's bolt", is: "bolt" },
  { at: "tabs.grade", label: "Its grade", is: "grade" },
  { at: "tabs.joint_mm", label: "Joint is wide" },
  { at: "tabs.shim_mm", label: "Shim each side", is: "thickness" },
  { at: "tabs.width_mm", label: "Tab width" },
  { at: "tabs.thickness_mm", label: "Tab thickness", is: "thickness" },
  { at: "tabs.edge_mm", label: "Hole to tab's end" },
  { at: "tabs.room_mm", label: "Free way for the bolt", optional: true },
  { at: "tabs.single", label: "One tab or a stud: single shear", is: "tick" },
];

/** Further holes above and below the joint's own. */
export const ROW: FieldSpec[] = [
  { at: "tabs.holes_above", label: "Holes above it", is: "number" },
  { at: "tabs.holes_below", label: "Holes below it", is: "number" },
  { at: "tabs.pitch_mm", label: "Between holes" },
];

const HOUSINGS = [
  ["not known", "not known"],
  ["steel", "steel"],
  ["cast", "cast"],
] as const;

const axle: FieldSpec[] = [
  { at: "x_mm", label: "Behind the hubs" },
  { at: "y_mm", label: "From the centre plane" },
];
const housing: FieldSpec[] = [
  { at: "tube_mm", label: "Axle tube, diameter" },
  { at: "tube_wall_mm", label: "Axle tube, wall", is: "thickness", optional: true },
  {
    at: "housing",
    label: "Middle of the axle",
    is: "choice",
    choices: HOUSINGS,
    note: "Nothing is welded to a cast middle, nor beside it.",
  },
  { at: "housing_half_mm", label: "Its tube begins at", optional: true },
];
const forces: FieldSpec[] = [
  { at: "along_n", label: "Force along, rearward", is: "force" },
  { at: "up_n", label: "Force up", is: "force" },
  { at: "out_n", label: "Force outward", is: "force" },
];
const PAD_HOLDS = [
  ["air-spring", "an air spring"],
  ["bump-stop", "a bump stop"],
] as const;

/** What carries links, springs, dampers, stops and straps, on the rails and on the axle. */
export const MOUNT_WORK: KindSpec[] = [
  {
    kind: "spring-bridge",
    name: "Spring crossmember or hoop",
    says: "a tube from rail to rail, straight or hooped, with tabs for the upper ends of coilovers or dampers",
    fields: [
      name,
      place("Middle"),
      {
        at: "form",
        label: "Form",
        is: "choice",
        choices: [
          ["straight", "straight"],
          ["hoop", "hoop over the rails"],
        ],
      },
      { at: "height_mm", label: "Middle above the underside" },
      { at: "y_mm", label: "Mounts from the centre" },
      { at: "od_mm", label: "Tube diameter", is: "thickness" },
      { at: "wall_mm", label: "Tube wall", is: "thickness" },
      steel,
      leg,
      { at: "gusset_mm", label: "End gusset's leg (0: none)" },
      { at: "tabs.standoff_mm", label: "Bolt below the tube" },
      ...TABS,
      { at: "spring_n", label: "Force of one side", is: "force" },
      { at: "across_n", label: "Of it inward", is: "force" },
    ],
  },
  {
    kind: "spring-pocket",
    name: "Spring pocket in the rail",
    says: "a slot through the bottom flange, the coilover's bolt through both walls, doublers and a gusset",
    fields: [
      name,
      place("Middle"),
      { at: "length_mm", label: "Slot, long" },
      { at: "depth_mm", label: "Cut up the walls" },
      { at: "body_mm", label: "Body in the slot" },
      { at: "corner_radius_mm", label: "Corner radius", is: "thickness" },
      { at: "bolt_up_mm", label: "Bolt above the underside" },
      { at: "bolt_size", label: "Bolt", is: "bolt" },
      { at: "grade", label: "Its grade", is: "grade" },
      { at: "plate_mm", label: "Doublers (0: none)", is: "thickness" },
      { at: "overlap_mm", label: "Past the slot" },
      { at: "gusset_mm", label: "Gusset's leg (0: none)" },
      steel,
      leg,
      { at: "sleeve", label: "Spacers from eye to walls", is: "tick" },
      { at: "spring_n", label: "Force of one side", is: "force" },
    ],
  },
  {
    kind: "pad",
    name: "Plate under the rail",
    says: "for an air spring or a bump stop, flush or on a box",
    fields: [
      name,
      place("Middle"),
      { at: "holds", label: "Holds", is: "choice", choices: PAD_HOLDS },
      { at: "long_mm", label: "Along" },
      { at: "across_mm", label: "Across" },
      { at: "thickness_mm", label: "Thickness", is: "thickness" },
      { at: "out_mm", label: "Outward of the rail's middle" },
      { at: "drop_mm", label: "Below the rail" },
      steel,
      leg,
      { at: "force_n", label: "Force at full bump", is: "force" },
    ],
  },
  {
    kind: "axle-bracket",
    name: "Bracket on the axle",
    says: "tabs on the axle's tube or on a truss, for a link, coilover, damper or strap",
    fields: [
      name,
      place("Axle line"),
      {
        at: "holds",
        label: "Holds",
        is: "choice",
        choices: [
          ["link", "a link"],
          ["coilover", "a coilover"],
          ["damper", "a damper"],
          ["strap", "a limit strap"],
        ],
      },
      {
        at: "stands_on",
        label: "Stands on",
        is: "choice",
        choices: [
          ["tube", "the tube"],
          ["truss", "a truss"],
        ],
      },
      ...axle,
      { at: "z_mm", label: "Above the hubs" },
      { at: "base_mm", label: "Truss's cover above the hubs", when: is("stands_on", "truss") },
      ...housing,
      { at: "thickness_mm", label: "Plate between, thick", is: "thickness" },
      steel,
      leg,
      { at: "brace", label: "A plate between the tabs", is: "tick" },
      ...TABS,
      ...ROW,
      ...forces,
    ],
  },
  {
    kind: "truss",
    name: "Truss on the axle",
    says: "carries the upper links over the middle of the axle, welded to its tubes only",
    fields: [
      name,
      place("Axle line"),
      ...axle,
      { at: "foot_from_mm", label: "Feet begin at" },
      { at: "foot_to_mm", label: "Feet end at" },
      { at: "tall_mm", label: "Cover above the tube" },
      { at: "clear_mm", label: "Opening above the tube" },
      { at: "deep_mm", label: "Fore and aft" },
      { at: "thickness_mm", label: "Plate", is: "thickness" },
      steel,
      leg,
      ...housing,
      ...forces,
    ],
  },
  {
    kind: "axle-pad",
    name: "Plate on the axle",
    says: "under an air spring or a bump stop, turned so that it stands square at ride height",
    fields: [
      name,
      place("Axle line"),
      { at: "holds", label: "Holds", is: "choice", choices: PAD_HOLDS },
      ...axle,
      { at: "z_mm", label: "Above the hubs" },
      { at: "tilt_deg", label: "Turned, nose up", is: "angle" },
      { at: "long_mm", label: "Along" },
      { at: "across_mm", label: "Across" },
      { at: "thickness_mm", label: "Thickness", is: "thickness" },
      steel,
      leg,
      ...housing,
      ...forces,
    ],
  },
  {
    kind: "steering-mount",
    name: "Mount of a steering box or rack",
    says: "a plate through-bolted in sleeves, parallel to the centre plane; the gear stands on bolts of its own, never welded",
    fields: [
      name,
      place("Middle"),
      {
        at: "holds",
        label: "Holds",
        is: "choice",
        choices: [
          ["box", "a steering box"],
          ["rack", "a rack"],
        ],
      },
      {
        at: "face",
        label: "On the rail's",
        is: "choice",
        choices: [
          ["outer", "outer face"],
          ["inner", "inner face"],
        ],
      },
      { at: "height_mm", label: "Middle above the underside" },
      { at: "long_mm", label: "Plate along" },
      { at: "tall_mm", label: "Plate high" },
      { at: "thickness_mm", label: "Thickness", is: "thickness" },
      steel,
      { at: "bolts.size", label: "Bolts through the rail", is: "bolt" },
      { at: "bolts.grade", label: "Their grade", is: "grade" },
      { at: "bolts.per_end", label: "In each row", is: "number" },
      { at: "bolts.edge_mm", label: "From the plate's edge" },
      { at: "bolts.sleeves", label: "Crush sleeves", is: "tick" },
      { at: "pad.bolt_size", label: "Bolts of the gear", is: "bolt" },
      { at: "pad.grade", label: "Grade of those", is: "grade" },
      { at: "pad.long_mm", label: "Their pattern along" },
      { at: "pad.tall_mm", label: "Their pattern high" },
      { at: "pad.corners", label: "How many, 2 to 4", is: "number" },
      { at: "standoff_mm", label: "Force acts off the plate by" },
      { at: "lift_mm", label: "Above its middle by" },
      ...forces,
    ],
  },
];
