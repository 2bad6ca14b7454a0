"""Steps of the job as a whole: only those that its own work asks for."""

from collections.abc import Iterable

from nodulant.frame.ops.union import Operation
from nodulant.parts.specs import Act, HoldPoint, StepSpec
from nodulant.units.inline import as_distance, as_length

SUPPORTS = "Rated stands on flat concrete, never only a jack; wheels chocked."
SPRINGS = "Springs and air springs store energy: unloaded and held before anything of theirs is loosened."
OVERNIGHT_MIN = 16 * 60
"""Two coats of epoxy until they are handled (common practice; its data sheet says for how long)."""
TEARDOWN = "teardown"
ALONG_STEP = "take-along"
PARTS_STEP = "parts"
MOCK_UP_STEP = "mock-up"
LOADS_STEP, LINES_STEP = "loads-off", "lines-back"

TAKE_ALONG = StepSpec(
    key=ALONG_STEP,
    phase="prepare",
    title="What goes along or is in the way clears: release the cut",
    detail="Engine, sump, steering, column, tank, exhaust, anti-roll bar and hoses: each has a clearance, is not there, or has a way out.",
    minutes=20,
    hold=HoldPoint(kind="look", ask="Every row of the take-along list is settled"),
)
SURVEYED = StepSpec(
    key=TEARDOWN,
    phase="survey",
    title="Survey complete: release teardown",
    detail="Every reading that teardown destroys is in the survey.",
    minutes=15,
    hold=HoldPoint(kind="look", ask="All readings taken before teardown"),
)
LOADS_OFF = StepSpec(
    key=LOADS_STEP,
    phase="prepare",
    title="Loads and fluids off",
    detail="Battery off, tank and fuel lines away or shielded, brake line, vent, hoses and loom off the metal that is cut or welded: their clips drawn, ends capped, each marked with where it goes back.",
    minutes=90,
    tools=("shields", "caps", "labels"),
    cautions=("Fuel vapour: no flame, no sparks.", "Brake fluid and undercoat burn."),
)
STANDS = StepSpec(
    key="supports",
    phase="prepare",
    title="Frame on stands",
    detail="The weight goes from the axles to the frame: level, both sides, on either side of what is cut, under metal that stays.",
    minutes=45,
    people=2,
    tools=("stands", "level"),
    cautions=(SUPPORTS,),
    hold=HoldPoint(kind="look", ask="It stands without the jack and does not rock"),
    acts=("supports",),
)
FREED = StepSpec(
    key="springs",
    phase="prepare",
    title="Springs and axle free",
    detail="Only now: axle on its own jack, dampers off, springs let down to nothing, U-bolts and shackles loosened cold.",
    minutes=90,
    people=2,
    tools=("jack", "spring clamps"),
    cautions=(SPRINGS, SUPPORTS),
    acts=("frees-springs",),
)
PARTS_HERE = StepSpec(
    key=PARTS_STEP,
    phase="prepare",
    title="Every part that sets a size is here",
    detail="The right variant, out of its box, and measured: its own reading stands in the design, not the catalogue's. Plates lie on the rail that they are for: gaps and short ends show now.",
    minutes=45,
    tools=("calliper", "tape"),
    hold=HoldPoint(kind="look", ask="Every row of the parts list is in hand"),
)
STOCKED = StepSpec(
    key="stocked",
    phase="prepare",
    title="What the next session uses up, and hands",
    detail="For the next session: what it uses up lies there, tools work, batteries are charged, extinguisher and shields at hand; whoever is asked to hold has said yes.",
    minutes=15,
    hold=HoldPoint(kind="look", ask="Nothing of the next session has to be fetched"),
)
MOCK_UP = StepSpec(
    key=MOCK_UP_STEP,
    phase="tack",
    title="Axle at ride height on solid struts",
    detail="Struts in place of springs and dampers, wheels' centres at their height left and right, square to the frame; every mount is tacked to what stands here.",
    minutes=60,
    people=2,
    tools=("solid struts", "tape", "level"),
    hold=HoldPoint(kind="look", ask="Ride height as planned, left and right, before any bracket is made"),
    acts=("stands-at-height",),
)
BY_HAND = StepSpec(
    key="by-hand",
    phase="look",
    title="Bump to droop by hand",
    detail="Struts out, axle on a jack: both wheels up and down, then one by itself, to the stops. Links, joints, dampers, hoses and shaft watched all the way.",
    minutes=60,
    people=2,
    tools=("jack", "feeler blocks"),
    cautions=("Tacks never hold the vehicle over a person.",),
    hold=HoldPoint(kind="look", ask="Nothing touches, nothing binds"),
    acts=("moves-by-hand",),
)
JOINTS_OUT = StepSpec(
    key="joints-out",
    phase="weld",
    title="Joints, bushings and rubber out",
    detail=f"Out of everything that is welded next, and of what lies within {as_length(150)} of it; dampers, bellows, brake lines and seals off or under a wet shield. Holes plugged against spatter.",
    minutes=45,
    tools=("press", "shields"),
    acts=("joints-out",),
)
CAVITY = StepSpec(
    key="cavity",
    phase="finish",
    title="Closed cells against rust",
    detail="When they are cold and dry: cavity wax through each drain hole by a long lance until it comes out of the next one; drain holes open afterwards.",
    minutes=40,
    tools=("cavity wax", "lance"),
)
PAINT = StepSpec(
    key="paint",
    phase="finish",
    title="Inspect, prime and paint",
    detail="Look for undercut at flange edges, missed roots and porosity; bare metal, two coats of epoxy; threads, earth places and faces that meet stay bare.",
    minutes=120,
    rest_min=OVERNIGHT_MIN,
    cautions=("Respirator: zinc and paint fumes.",),
    hold=HoldPoint(kind="look", ask="Welds looked at by a second person"),
)
LINES_BACK = StepSpec(
    key=LINES_STEP,
    phase="finish",
    title="Lines, vent and loom back",
    detail="Brake line, fuel lines, axle vent and loom on new clips, each where it was marked to go or round what stands there now: clear of every edge, weld and exhaust, nothing rubs in bump, droop or lock. The vent ends above the axle's highest place. Fuel and brakes looked at under pressure.",
    minutes=90,
    tools=("clips", "flare spanners"),
    cautions=("Fuel vapour: no flame, no sparks.",),
    hold=HoldPoint(kind="look", ask="Every line clipped and clear, no leak under pressure"),
)
PROVE = StepSpec(
    key="prove",
    phase="prove",
    title="As-built readings",
    detail="Every reading of the cut and its plates, both sides.",
    minutes=60,
    tools=("tape", "depth gauge", "calliper"),
)
RETORQUE = StepSpec(
    key="retorque",
    phase="road",
    title="Road test and re-torque",
    detail=f"After {as_distance(100)}: welds, bolts, joints, rubbing marks; again after {as_distance(1000)}.",
    minutes=90,
)


OPENS: set[Act] = {"cuts", "moves", "shuts", "welds"}
"""Work that lines have to be out of the way of."""


def general_steps(operations: Iterable[Operation], *, hangs: bool, parts: bool = False) -> tuple[StepSpec, ...]:
    """For these operations; ``hangs`` says that a suspension is planned, ``parts`` that some of them set sizes."""
    does: set[Act] = {act for op in operations for step in op.steps("") for act in step.acts}
    mounts = hangs or "mocks-up" in does
    springs = mounts or bool(does & {"cuts", "moves", "welds-axle"})
    return (
        SURVEYED,
        LOADS_OFF,
        STANDS,
        *((FREED,) if springs else ()),
        *((PARTS_HERE,) if parts else ()),
        STOCKED,
        *((MOCK_UP,) if mounts else ()),
        *((BY_HAND,) if mounts else ()),
        *((JOINTS_OUT,) if "welds-mount" in does else ()),
        *((CAVITY,) if "shuts" in does else ()),
        PAINT,
        *((LINES_BACK,) if does & OPENS else ()),
        PROVE,
        RETORQUE,
    )
