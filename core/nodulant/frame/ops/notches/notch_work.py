"""The build steps and as-built readings of a notch, as plain data."""

from nodulant.frame.ops.mounts.bolted import BoltGroup, drill_step, inside_steps, torque_words
from nodulant.frame.ops.notches.notch_plan import NotchPlan
from nodulant.frame.ops.welded import braces, braces_off, thickness_reading, welded
from nodulant.parts.cautions import DUST, HOT, WHEEL
from nodulant.parts.specs import HoldPoint, ReadingSpec, StepSpec, reading
from nodulant.units.inline import as_length, as_thickness

CUT_MINUTES = {"template": 60, "hole-saw": 150}
CUTTING = {
    "template": f"Cut inside the line and dress to it; bare metal {as_length(25)} around. With a hole saw it would take about 150 minutes, most of it setting up.",
    "hole-saw": "Guide tube tacked square to the rail, slow speed, oil wiped off before welding; a caught tooth bends the saw. To a template it would take about 60 minutes.",
}


def notch_steps(notch: NotchPlan, place: str) -> list[StepSpec]:
    """Steps on one side in the order of their phases; ``place`` says where in words."""
    depth = (
        f"{as_length(notch.depth_mm)} deep, {as_length(2 * notch.half_mouth_mm)} wide at the underside, centre {place}"
    )
    steps = [
        braces("The cut takes the flange that keeps this rail straight.", tacked=notch.bolts is None),
        StepSpec(
            key="mark",
            phase="mark",
            title="Mark the cut",
            detail=f"Layout dye, centre line square to the underside, template to the datum: {depth}. Two scribed lines that outlive the cut.",
            minutes=30,
            tools=("layout dye", "scriber", "square", "rail cut template"),
            hold=HoldPoint(kind="reading", ask="Centre of the marked cut from its datum", reading="position"),
        ),
        StepSpec(
            key="drill",
            phase="cut",
            title="Drill the corners",
            detail=f"Holes of {as_thickness(12.7)} at the re-entrant corners, or the arc's crown first.",
            minutes=20,
            tools=("drill", f"{as_length(12)} bit"),
            cautions=(DUST,),
            acts=("drills-corners",),
        ),
        StepSpec(
            key="cut",
            phase="cut",
            title="Cut short, fit, dress",
            detail=CUTTING[notch.tool],
            minutes=CUT_MINUTES[notch.tool],
            tools=("cut-off wheel", "flap disc")
            if notch.tool == "template"
            else ("hole saw", "guide tube", "flap disc"),
            cautions=(WHEEL, DUST, HOT),
            hides="the uncut rail",
            hold=HoldPoint(kind="reading", ask="Depth of the cut from the underside", reading="depth"),
            acts=("cuts",),
        ),
    ]
    if notch.bolts is not None:
        return [*steps, *_bolted_steps(notch, notch.bolts)]
    steps += _plate_steps(notch)
    tacked = bool(notch.liner or notch.cap or notch.outer_plate or notch.inner_plate)
    steps.append(_clear("Axle through its travel, still tacked" if tacked else "Axle through its travel"))
    if notch.liner or notch.cap:
        steps.append(
            StepSpec(
                key="weld",
                phase="weld",
                title="Weld in sequence",
                detail=f"Beads of {as_length(40)} to {as_length(50)}, skipped and back-stepped, side to side, hand-warm between.",
                minutes=90,
                tools=("welder",),
                cautions=(HOT, "Battery and computers disconnected before arc welding."),
                hides="faying faces and roots",
                acts=("welds",),
            )
        )
    return [*steps, braces_off()]


def _clear(title: str) -> StepSpec:
    return StepSpec(
        key="clear",
        phase="look",
        title=title,
        detail="Roll the axle in, lift it from droop to full bump, look all round.",
        minutes=45,
        people=2,
        tools=("jack", "feeler blocks"),
        hold=HoldPoint(kind="look", ask="Clearance all round at full bump, nothing touches"),
        acts=("moves-by-hand",),
    )


def _bolted_steps(notch: NotchPlan, bolts: BoltGroup) -> list[StepSpec]:
    """A bracket that is made over its cut, welded on the bench and bolted on: no bead on the rail."""
    count = 2 * bolts.per_end
    plates = [name for name, plate in (("outer", notch.outer_plate), ("inner", notch.inner_plate)) if plate]
    pieces = [*(["liner"] if notch.liner else []), *(f"{name} plate" for name in plates)]
    welds = len(pieces) > 1
    out = (
        [
            welded(
                key="bracket",
                phase="fit",
                title="Tack the bracket together in its cut",
                detail=f"{', '.join(pieces).capitalize()} clamped in and over the finished cut, which is their jig: small tacks from piece to piece, none to the rail.",
                minutes=60,
                with_tools=("clamps",),
                hold=HoldPoint(kind="reading", ask="Liner thickness as fitted", reading="liner-thickness")
                if notch.liner
                else None,
            )
        ]
        if welds
        else []
    )
    drill = drill_step(bolts, count, "bracket clamped on")
    out.append(drill.model_copy(update={"key": "bolt-holes", "phase": "fit"}))
    out += inside_steps(bolts, count)
    out.append(_clear("Axle through its travel, the bracket on a bolt at each end"))
    if welds:
        out.append(
            welded(
                key="weld",
                phase="weld",
                title="Weld the bracket on the bench",
                detail=f"Off the rail: beads of {as_length(40)} to {as_length(50)} by turns on both sides, cold before it goes back; its holes still meet the rail's, or it is set until they do.",
                minutes=80,
            )
        )
    out.append(
        StepSpec(
            key="bolt",
            phase="plate",
            title="Bolt the bracket",
            detail=f"Cut edges and all faces that meet primed and dry first; then {torque_words(bolts)}, from the cut outwards in two rounds, marked when done; nothing is welded to the rail.",
            minutes=45,
            tools=("torque wrench", "paint marker"),
            hides="faying faces",
            acts=("welds",),
        )
    )
    return [*out, braces_off(tacked=False)]


def _plate_steps(notch: NotchPlan) -> list[StepSpec]:
    steps = []
    if notch.liner:
        steps.append(
            welded(
                key="liner",
                phase="tack",
                title="Fit and tack the liner",
                detail=f"{as_thickness(notch.liner.thickness_mm)}, tight in the cut, four small tacks a joint.",
                minutes=40,
                with_tools=("clamps",),
                hold=HoldPoint(kind="reading", ask="Liner thickness as fitted", reading="liner-thickness"),
            )
        )
    if notch.cap:
        steps.append(
            welded(
                key="cap",
                phase="tack",
                title="Fit and tack the cap",
                detail=f"{as_length(notch.cap.height_mm)} high, {as_thickness(notch.cap.thickness_mm)}, ends tapered.",
                minutes=50,
                with_tools=("clamps",),
            )
        )
    plates = [name for name, plate in (("outer", notch.outer_plate), ("inner", notch.inner_plate)) if plate]
    if plates:
        steps.append(
            welded(
                key="plates",
                phase="plate",
                title="Side plates on",
                detail=f"{' and '.join(plates)} plate, from one template and mirrored; welds finished at the ends away from the tension flange.",
                minutes=80,
                with_tools=("clamps",),
                hides="the rail's sides",
            )
        )
    return steps


def notch_readings(notch: NotchPlan, datum: str) -> list[ReadingSpec]:
    """What is measured on one side after welding, with its plan, mm."""
    under = "rail underside beside the cut"
    rows = [
        reading("position", "Centre of the cut", notch.place.offset_mm, datum),
        reading("depth", "Depth of the cut", notch.depth_mm, under),
        reading("width", "Width at the underside", 2 * notch.half_mouth_mm, under),
    ]
    if notch.liner:
        rows.append(thickness_reading("liner", "Liner", notch.liner.thickness_mm))
    for role, plate in (("outer", notch.outer_plate), ("inner", notch.inner_plate)):
        if plate:
            rows += [thickness_reading(role, role.capitalize(), plate.thickness_mm), _overlap(role, plate.overlap_mm)]
    if notch.cap:
        rows += [thickness_reading("cap", "Cap", notch.cap.thickness_mm), _overlap("cap", notch.cap.overlap_mm)]
        rows.append(reading("cap-height", "Cap height", notch.cap.height_mm, "top flange"))
    return rows


def _overlap(role: str, planned: float) -> ReadingSpec:
    return reading(
        f"{role}-overlap", f"{role.capitalize()} overlap past the cut, the shorter end", planned, "mouth of the cut"
    )
