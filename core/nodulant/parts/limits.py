"""Limits as data: a user may change one with a reason, and the change is recorded."""

from nodulant.parts.limit import Limit, LimitChange, at_least, at_most, noted
from nodulant.parts.steer_limits import STEER_LIMITS
from nodulant.parts.travel_limits import TRAVEL_LIMITS
from nodulant.units.inline import as_length, as_thickness

_STOCK = "section against stock's at that place, both with the yield of their metal"
_GUTTED = "Nodulant default: below this too little is left of the rail, whatever it carries"
FACTOR = "of safety"
LIMITS: tuple[Limit, ...] = (
    at_least("modulus-top", "Bending strength, top fibre", 0.98, "x stock", _STOCK),
    at_least("modulus-bottom", "Bending strength, bottom fibre", 0.98, "x stock", _STOCK),
    at_least("shear-area", "Web's shear strength", 0.95, "x stock", _STOCK),
    at_least("torsion-constant", "Torsion constant J", 0.98, "x stock", f"{_STOCK}; where stock is closed"),
    at_least("torsion-capacity", "Torsion strength", 0.40, "x stock", f"{_GUTTED}; where stock is closed"),
    at_least("capacity-least", "Least of the rail's strengths", 0.40, "x stock", _GUTTED),
    at_most(
        "use-peak",
        "Rail's worst place against stock's worst place",
        1.10,
        "x stock's peak",
        "the same case, each frame on its own supports; judged below a factor of 2.25: Nodulant default",
    ),
    at_least("use-limit", "Rail in the bump", 1.5, FACTOR, "yield over stress, allowable stress design"),
    at_least(
        "twist-limit",
        "Rail with one wheel in a hole",
        1.0,
        FACTOR,
        "yield over stress; the hole's depth bounds the twist, so that nothing may yield",
    ),
    noted(
        at_most("twist-angle", "Frame's own twist with one wheel in a hole", 4.0, "deg", "Nodulant default"),
        "doors, panes and body mounts feel it; nothing breaks by it",
    ),
    at_least(
        "frame-stiffness", "Frame's torsional stiffness", 0.90, "x stock", "between the axles, joints as they are"
    ),
    at_least("place-wanted", "Place that is wanted", 1.0, "yes", "a case needs to know where it acts"),
    at_most("crossmember-twice", "Crossmember given twice", 0.0, "times", "one crossmember stands at one place", 1.0),
    at_least("seat-carried", "What carries a seat", 1.0, "yes", "a force needs metal under it"),
    at_most("patch-load", "Web pressed from below", 1.0, "of allowed", "EN 1993-1-5 section 6 over 1.5, from memory"),
    at_most(
        "flange-bending",
        "Flange bent by a pad beside the web",
        1.0,
        "of allowed",
        "plastic bending of the flange as a cantilever; Nodulant default",
    ),
    at_most(
        "face-meets", "Subframe's face away from the rail", 3.0, "mm", "Nodulant default: what a weld or shim bridges"
    ),
    at_most(
        "hole-bending",
        "Rail bent beside a hole",
        1.0,
        "of yield/1.5",
        "web and flange left over and under it, bent by shear (Vierendeel); a round hole as a rectangle: SCI P355, from memory",
    ),
    at_most(
        "cap-end",
        "Cap's ends",
        1.0,
        "of allowed",
        "two long welds and the end's as a group, elastic method: Blodgett, from memory; 0.3 F_EXX on the throat",
    ),
    at_most(
        "stitch-gap",
        "Gap between two stitches",
        1.0,
        "x most",
        f"EN 1993-1-8, 4.3.2.2: 12 times the thinner part, at most {as_length(200)}; from memory",
    ),
    at_least(
        "corner-radius", "Radius of cut corners", 6.0, "mm", f"common practice: {as_thickness(12.7)} drilled corners"
    ),
    at_least("liner-bend", "Arc radius over liner thickness", 3.0, "x", "common practice: least bend of mild plate"),
    at_least(
        "overlap", "Overlap past the cut", 1.0, "x needed", "rail height (common practice), development and weld length"
    ),
    at_least(
        "end-shape",
        "Ends tapered where the flange is in tension",
        1.0,
        "tapered",
        "common practice: no weld straight across a tension flange",
    ),
    at_least("hole-distance", "Existing hole to cut or plate end", 1.5, "x diameter", "common practice"),
    at_least(
        "end-distance", "Cut or plate to the rail's end", 0.0, "mm", "the rail must be there to be cut and welded"
    ),
    at_least(
        "weldable",
        "Steel may be welded",
        1.0,
        "yes",
        "common practice: a weld destroys the temper of a heat-treated rail",
    ),
    at_least("identity", "Legal identity settled before the splice", 1.0, "yes", "local registration rules"),
    at_least("jog-lap", "Ends of a butted jog that face each other", 0.5, "of the width", "Nodulant default"),
    at_least("plate-length", "Plate long enough to carry", 1.0, "x needed", "development at both ends, and the tapers"),
    at_least(
        "patch", "Patch against the rail's own wall", 1.0, "x wall", "common practice: at least the mount's thickness"
    ),
    at_least("hole-edge", "Hole to the rail's edge", 1.5, "x diameter", "common practice"),
    at_least("pass-web", "Web left beside the hole for a rod", 20.0, "mm", "Nodulant default: room for the weld"),
    at_least("edge-distance", "Bolt hole to the plate's end", 1.5, "x diameter", "common practice"),
    at_least(
        "hole-carries",
        "Bolt hole against the bolt's friction",
        1.0,
        "x slip",
        "AISC allowable stress design, from memory",
    ),
    at_least(
        "no-slip",
        "Bolted plate held by friction in a bump of 1.5 g",
        1.0,
        "x the force",
        "slip factor 0.2: common practice",
    ),
    at_least(
        "sleeve-there", "Sleeves or walls of a closed rail under the bolts' preload", 1.0, "x needed", "common practice"
    ),
    at_least("bolts-clash", "Room between washers", 0.0, "mm", "common practice: a washer is twice its bolt", 6.0),
    at_least("holes-apart", "Metal between two holes", 6.0, "mm", "Nodulant default"),
    at_least("hole-to-weld", "Hole's edge to the weld's toe", 12.7, "mm", "common practice: half an inch"),
    at_least(
        "wrench-room", "Room for a socket beside the joint's bolt", 2.0, "mm", "common practice: socket 2.2 diameters"
    ),
    at_least("hole-pitch", "Holes of a row apart", 2.5, "x diameter", "common practice: 2.5 to 3 diameters"),
    at_least(
        "bolt-out", "Joint's bolt comes out", 1.0, "x its length", "common practice: a bolt that can be taken out"
    ),
    at_least(
        "cast-clear", "Weld clear of a cast housing", 15.0, "mm", "Nodulant default: never on it, never beside it"
    ),
    at_most("axle-weld", "Weld on the axle's tube", 1.0, "of allowed", "0.3 F_EXX on the throat: AISC, from memory"),
    at_least("truss-feet", "Truss has feet on the tubes", 30.0, "mm", "Nodulant default"),
    at_most("truss-bending", "Truss in bending", 1.0, "of yield/1.5", "beam on its two feet"),
    at_most("bridge-bending", "Spring crossmember in bending", 1.0, "of yield/1.5", "beam on two supports"),
    at_most("bridge-weld", "Spring crossmember's end welds", 1.0, "of allowed", "ring of weld: Blodgett, from memory"),
    at_least("pocket-room", "Room in the spring's slot", 12.0, "mm", f"common practice: {as_length(6)} each end"),
    at_most("pad-bending", "Plate past what carries it", 1.0, "of yield/1.5", "cantilever under even pressure"),
    at_least("leg-least", "Fillet leg against the least", 1.0, "x least", "AWS D1.1 table 5.7, from memory"),
    at_most("leg-most", "Fillet leg against the most", 1.0, "x most", "AWS D1.1, along an edge, from memory"),
    at_most("sleeve", "Crush sleeve under preload", 1.0, "of 0.6 yield", "common practice"),
    at_most("weld-group", "Bracket's weld", 1.0, "of allowed", "elastic vector method; 0.3 F_EXX on the throat, AISC"),
    at_most("rail-wall", "Rail's wall under the bracket", 1.0, "of allowed", "EN 1993-1-8 table 7.13, from memory"),
    at_most("bolt-group", "Bracket's bolts", 1.0, "of allowed", "shear and tension together, AISC, from memory"),
    at_most("link-bolt", "Link's bolt in shear", 1.0, "of allowed", "0.6 f_u A/2 a plane, AISC, from memory"),
    at_most("tab-hole", "Tabs at the link's hole", 1.0, "of allowed", "min(1.2 l, 2.4 d) t f_u / 2, AISC, from memory"),
    at_most("tab-bending", "Tabs in bending", 1.0, "of yield/1.5", "allowable stress design"),
    at_least("joint-bending", "Inserted piece in bending", 0.98, "x weaker rail", "not weaker than stock, at the cut"),
    at_least(
        "joint-torsion",
        "Inserted piece in torsion, J",
        0.98,
        "x weaker rail",
        "not weaker than stock, where it is closed",
    ),
    at_least("joint-use", "Inserted piece", 1.5, FACTOR, "yield over stress in its worst case"),
    at_most(
        "joint-panel",
        "Corner panel in shear",
        1.0,
        "of 0.4 yield",
        "flange couple over the panel: Blodgett, knees, from memory",
    ),
    at_most("joint-overlap", "Welds of the overlap", 1.0, "of allowed", "couple M/l and shear on both ends' welds"),
    at_least(
        "fatigue-life",
        "Fatigue life",
        2e6,
        "cycles",
        "EN 1993-1-9, from memory; a vertical load of half of static up and down; twist is not included",
    ),
    at_most("slender", "Plate slenderness b/t", 1.0, "x limit", "EN 1993-1-1 table 5.2, class 3, from memory"),
    at_least("case-limit", "Rail", 1.5, FACTOR, "yield over von Mises stress at limit load"),
    at_least("accident-use", "Rail in an accident", 1.0, FACTOR, "yield over von Mises stress: nothing stays bent"),
    at_most("preheat", "Carbon equivalent", 0.45, "%", "IIW; above it cold welds may crack"),
    at_least(
        "tacks",
        "Tacks against what is done next",
        1.0,
        "x needed",
        "half of sum(l a) 0.3 F_EXX against three times static; Nodulant default",
    ),
    at_most("in-the-cut", "Parts on metal that comes out", 0.0, "parts", "what stands there must be moved first", 1.0),
    at_least("plug-hole", "Hole of the plug welds", 1.0, "x least", f"plate + {as_length(8)}, AWS D1.1, from memory"),
    at_least(
        "throat", "Throat left in the butt", 1.0, "x wall", "what is fused through the root; grinding takes the crown"
    ),
    at_most(
        "seam",
        "Long welds of the plate",
        1.0,
        "of allowed",
        "V Q/I and flow round the cells along the weld in the worst case; 0.3 F_EXX on the throat, 0.4 f_y on the metal",
    ),
    at_most(
        "interim-use",
        "Frame between two steps, standing on its supports",
        1.0,
        "of yield/1.5",
        "sections as they are between two steps",
    ),
    at_least(
        "stand-margin",
        "Vehicle on its stands",
        1.0,
        "x needed",
        f"centre of mass inside what stands under it: {as_length(100)} or 15 % of its depth (common practice)",
    ),
    at_most("stand-load", "Stand loaded most", 1.0, "of its rating", "statics, each sized for its most"),
    *TRAVEL_LIMITS,
    *STEER_LIMITS,
    at_least("metal-clearance", "Moving metal to fixed metal", 12.7, "mm", "common practice: half an inch all round"),
    at_least(
        "tyre-sweep", "Tyre through travel and lock", 10.0, "mm", f"common practice: {as_length(10)} in bump and lock"
    ),
    at_least("along-clear", "Thing that goes along clears", 12.7, "mm", "common practice: half an inch all round"),
    at_least("exhaust-lines", "Exhaust to lines and hoses", 50.0, "mm", f"common practice: {as_length(50)}"),
    at_least("tyre-static", "Tyre standing straight", 20.0, "mm", f"common practice: {as_length(20)} at rest"),
    at_least(
        "soft-clearance",
        "Moving metal to hoses and lines",
        20.0,
        "mm",
        f"common practice: {as_length(20)}, never chafing",
    ),
    at_least("scrub-line", "Over the scrub line, one tyre flat", 0.0, "mm", "common practice, law in many places", 5.0),
    at_least("scrub-plane", "Over the rims, both tyres flat", 0.0, "mm", "common practice", 5.0),
    at_most("inside-at-rest", "Stands inside the rail", 0.0, "mm", "two things cannot be in one place", 1.0),
    at_least("bump-travel", "Bump travel before the clearance is used up", 1.0, "x wanted", "the owner's target"),
    at_least("notch-depth", "Notch depth", 1.0, "x needed", "axle top at full bump plus clearance, liner and weld"),
    at_least(
        "notch-width",
        "Notch width at the rail's underside",
        1.0,
        "x needed",
        "axle's path plus clearance, liner and weld, both sides",
    ),
    at_most("drop-sum", "Drop stack against the target", 0.0, "mm", "the stack must add up to the target", 1.6),
    at_most(
        "mount-follows", "Mount away from its joint", 3.0, "mm", "a bolt stands where its link ends: Nodulant default"
    ),
    at_most(
        "stack-stands", "Drop stack against hubs and tyres", 3.0, "mm", "the same drop told in two ways must agree"
    ),
    noted(
        at_most("wheelbase-kept", "Wheelbase against the surveyed one", 3.0, "mm", "Nodulant default"),
        "brakes, shafts and papers follow a wheelbase; some jobs want another one",
    ),
    at_most("stack-cut", "Drop stack against the cuts", 2.0, "mm", "a step or pocket counts as high as it is cut"),
    at_least("rail-ground", "Rail above the ground", 100.0, "mm", "Nodulant default; the law asks more in many places"),
    at_least(
        "rail-ground-bump", "Rail above the ground at full bump", 25.0, "mm", "Nodulant default, both axles at once"
    ),
    at_most("notch-lowers", "Drop claimed by a notch", 0.0, "mm", "a notch lowers nothing: it buys travel", 1.6),
    at_most(
        "double-count",
        "Mechanisms counted twice",
        0.0,
        "entries",
        "common practice: one movement of the same parts counts once",
        1.0,
    ),
    at_most(
        "hub-agrees", "Hub height against tube and gap", 3.0, "mm", "the same height measured two ways, common practice"
    ),
    noted(
        at_most("assumed-values", "Values that are assumed", 0.0, "values", "a usual size stands until it is measured"),
        "whatever rests on them is as good as the guess",
    ),
    at_least("survey-complete", "Readings taken before teardown", 1.0, "of all", "they cannot be taken afterwards"),
    at_most(
        "tape-fits",
        "Lengths between frame points",
        3.29,
        "spreads",
        "largest standardised residual: one false alarm in a thousand readings",
    ),
    at_most(
        "loaded-radius",
        "Tyre's loaded radius over its free one",
        0.99,
        "of the free radius",
        "common practice: a tyre that carries its wheel stands 2 to 8 % lower",
    ),
    at_most("frame-sway", "Frame bent sideways", 3.0, "mm", "common practice: as the diagonals"),
    at_most("frame-twist", "Frame twisted, over its width", 3.0, "mm", "common practice: to 1/8 in"),
    at_most("frame-sag", "Frame sags or hogs", 3.0, "mm", "common practice: to 1/8 in"),
    at_most("frame-square", "Frame's diagonals against each other", 3.0, "mm", "common practice"),
    at_most("as-built", "As-built reading against plan", 1.5, "mm", f"common practice: points within {as_length(1.5)}"),
    at_most("kit-plate", "Plate in hand against the design", 3.0, "mm", "common practice: a gap that is still filled"),
    at_most("as-built-mount", "Mount as built against plan", 0.8, "mm", "common practice: mounts to 1/32 in"),
    at_most(
        "as-built-link", "Link's length against plan", 1.5, "mm", f"common practice: points within {as_length(1.5)}"
    ),
    at_most("links-equal", "Links equal left and right", 1.0, "mm", f"common practice: within {as_length(1)}"),
    at_most("as-built-parallel", "Plate out of parallel", 1.0, "mm", "common practice: as true as a string shows"),
    at_most("as-built-tabs", "Between the tabs against plan", 0.5, "mm", "Nodulant default: a shim's worth"),
    at_most(
        "as-built-joint", "Joint on the frame against plan", 1.5, "mm", "common practice: mount heights to 1/16 in"
    ),
    at_most("as-built-ride", "Ride height against plan", 3.0, "mm", "common practice: to 1/8 in"),
    at_most("as-built-arch", "Wheel in its arch against plan", 5.0, "mm", "common practice"),
    at_most("as-built-base", "Wheelbase against plan", 5.0, "mm", "common practice: as the wheel in its arch"),
    at_most("as-built-straight", "Bow of the rail by welding", 1.5, "mm", "common practice: as true as before"),
    at_most("as-built-runout", "Runout of a hub flange by welding", 0.15, "mm", "common practice, from memory"),
    at_most("as-built-pinion", "Pinion's angle against plan", 1.0, "deg", "common practice"),
    at_most("as-built-angle", "Angle as built against plan", 0.5, "deg", "common practice"),
    at_most("as-built-camber", "Camber against plan", 0.25, "deg", "common practice: a quarter of a degree"),
    at_most("as-built-caster", "Caster against plan", 0.5, "deg", "common practice: half a degree"),
    at_most("as-built-toe", "Toe of a wheel against plan", 0.05, "deg", "common practice: 1/32 in over a tyre"),
    at_most("as-built-corner", "Corner weight against plan", 25.0, "kg", "Nodulant default: what a driver moves"),
    at_most(
        "as-built-lock", "Lock to lock against plan", 0.1, "turns", "Nodulant default: a hand's breadth at the wheel"
    ),
    at_most("thrust", "Thrust angle", 0.1, "deg", "common practice: a tenth of a degree"),
    at_most("axle-offset", "Axle beside the centre plane", 3.0, "mm", "common practice: to 1/8 in"),
    at_most("as-built-plate", "Plate thickness against plan", 0.3, "mm", "common practice: mill tolerance of plate"),
)
_BY_ID = {limit.id: limit for limit in LIMITS}


def limit_called(limit_id: str) -> Limit | None:
    """The limit of that id as it is by default; None where no check has it."""
    return _BY_ID.get(limit_id)


def find_limit(limit_id: str, changes: dict[str, LimitChange]) -> tuple[Limit, LimitChange | None]:
    """The limit in force under ``limit_id`` and the user's change, if there is one."""
    limit, change = _BY_ID[limit_id], changes.get(limit_id)
    if change is None:
        return limit, None
    own = {
        "value": change.value,
        "basis": f"your own limit: {change.reason} (default {limit.value:g} {limit.unit}: {limit.basis})",
    }
    return limit.model_copy(update=own), change
