"""What an evaluation returns: results in columns, 6 significant digits."""

from nodulant.asbuilt.compare import AskedReading
from nodulant.base.errors import NodulantError
from nodulant.base.model import Frozen
from nodulant.build.plan import Step
from nodulant.checks.check import Check, State
from nodulant.checks.groups import Group
from nodulant.drawn.dimension import Dimension
from nodulant.evaluate.clearances.along import Along
from nodulant.evaluate.gates.parts_here import PartNeeded
from nodulant.evaluate.heights import Heights
from nodulant.evaluate.rails.taken_along import TakenAlong
from nodulant.evaluate.readings.frame_at import FrameAt
from nodulant.evaluate.readings.points import Mark
from nodulant.evaluate.readings.taped import TapedFrame
from nodulant.evaluate.suspensions.travel_drawing import AxleTravel
from nodulant.geometry import Outline
from nodulant.parts.part import Part
from nodulant.parts.sides import AxleName, LoadState, Side
from nodulant.survey.before_teardown import Reading
from nodulant.survey.checklist import Unlocks
from nodulant.targets.drop import DropResult
from nodulant.targets.notch_needed import NotchNeeded


class InvalidInputs(NodulantError, ValueError):
    """Inputs that are well-formed one by one but cannot stand together."""

    code = "invalid-inputs"

    def __init__(self, problems: list[NodulantError]) -> None:
        """Keep every problem; the message is the first one's."""
        first = problems[0]
        super().__init__(first.message, field=first.field, found=first.found, acceptable=first.acceptable)
        self.problems = problems


class SectionAt(Frozen):
    """Ask for the section of a side at a station, mm."""

    side: Side
    x_mm: float


class Want(Frozen):
    """What the caller needs; leave out what is not on the screen."""

    strips: bool = True
    parts: bool = True
    steps: bool = True
    readings: bool = True
    """What is read as built, and what is marked off on the rails."""
    frame: bool = True
    """The frame in space, fatigue and slenderness; left out while a hand drags."""
    interim: bool = True
    """The frame between steps; left out while a hand drags."""
    along: bool = True
    """What goes along with a raise or a narrowing; left out while a hand drags."""
    travel: bool = True
    """Suspensions through travel; left out while a hand drags something else."""
    as_built: bool = True
    """What the log says: rails, axle and frame as they were read; left out while a hand drags."""
    case: str = "bump"
    load_state: LoadState = "laden"
    """What is aboard while the frame is judged."""
    strip_side: Side | None = None
    """Only this rail's strips; both where it is left out."""
    section: SectionAt | None = None


class Strip(Frozen):
    """Columns along one rail in one state: station mm, ratios to stock; moment N m, bending stress MPa and use in the case."""

    side: Side
    state: str
    case: str
    x_mm: list[float]
    area: list[float]
    inertia: list[float]
    modulus_top: list[float]
    modulus_bottom: list[float]
    shear_area: list[float]
    torsion_constant: list[float]
    moment_stock_nm: list[float] | None
    moment_nm: list[float] | None
    stress_stock_mpa: list[float] | None
    stress_mpa: list[float] | None
    use_stock: list[float] | None
    use: list[float] | None
    torque_nm: list[float] | None = None
    """In the twist case only."""
    use_torque: list[float] | None = None
    """Its use of yield/1.5 where a cell is closed; 0 where the rail is open and warping, not computed, carries it."""
    life: list[float] | None = None
    """Fatigue life over stock's at 1 g, the worst edge or weld there."""


class FlangePlate(Frozen):
    """A part that lies flat on a flange, from the side, in its place on the planned frame."""

    part: str
    outline: Outline


class SeenBlock(Frozen):
    """A piece of a mount, seen from the side in its place on the planned frame."""

    operation: str
    name: str
    outline: Outline


class Measured(Frozen):
    """What is marked off for one operation on a rail in side view, and the box its dimension lines stand round, mm."""

    operation: str
    x0_mm: float
    z0_mm: float
    x1_mm: float
    z1_mm: float
    dimensions: tuple[Dimension, ...]
    plan: tuple[Dimension, ...] = ()
    """The same from above: x along, y across with the right side positive, mm."""


class RailDrawing(Frozen):
    """A rail as drawn on its planned route: columns at its stations and cuts, mm, and the cut edges on it."""

    side: Side
    stock_x_mm: list[float]
    """Surveyed stations of the same columns: what rides where."""
    x_mm: list[float]
    underside_z_mm: list[float]
    top_z_mm: list[float]
    web_y_mm: list[float]
    tip_y_mm: list[float]
    cuts: tuple[Outline, ...]
    built_cuts: tuple[Outline, ...]
    """The cuts as measured, where something was measured."""
    flange_plates: tuple[FlangePlate, ...] = ()
    crossings: tuple[SeenBlock, ...] = ()
    """What reaches from rail to rail."""
    mounts: tuple[SeenBlock, ...] = ()
    """Brackets, pockets and pads on this rail."""
    measured: tuple[Measured, ...] = ()


class AxleDrawing(Frozen):
    """The tube on one side through travel: pose table of its centre, mm, and where it comes near."""

    side: Side
    diameter_mm: float
    travel_mm: list[float]
    x_mm: list[float]
    z_mm: list[float]
    clearance_mm: list[float]
    touch_mm: float | None
    needed_mm: float
    tyre_radius_mm: float | None
    ground_z_mm: float | None


class SectionShape(Frozen):
    """One polygon of a section, mm: y from the web, z from the underside; a ``void`` is air inside the one before."""

    name: str
    y_mm: list[float]
    z_mm: list[float]
    share: float


class SectionFigure(Frozen):
    """A property before and after: mm2, mm3 or mm4."""

    name: str
    unit: str
    stock: float
    planned: float


class SectionDrawing(Frozen):
    """The section at a station before and after, with its figures and its sizes in the plane of the section."""

    side: Side
    x_mm: float
    before: tuple[SectionShape, ...]
    after: tuple[SectionShape, ...]
    figures: tuple[SectionFigure, ...]
    shear_centre_mm: float
    dimensions: tuple[Dimension, ...] = ()
    """Of the rail: height and width over its outside, y from the web, z from the underside."""
    walls: tuple[str, ...] = ()
    """The rail's wall and every plate that is there, with thickness."""


class Deflection(Frozen):
    """The planned rail's shape under a case: displacement of its drawn stations, mm."""

    side: Side
    case: str
    x_mm: list[float]
    up_mm: list[float]
    inward_mm: list[float]


class Figure(Frozen):
    """A number that is shown, not judged, with its basis."""

    id: str
    name: str
    value: float
    unit: str
    basis: str


class InterimFrame(Frozen):
    """The frame while one cut is open on one rail: use at 1 g of yield/1.5, and what may be done meanwhile."""

    operation: str
    name: str
    side: Side
    in_two: bool
    use: float | None
    station_mm: float
    may_stand: bool | None
    may_move: bool | None
    tacks_n: float
    """What eight tacks of 20 mm are trusted with."""
    tacks_needed_n: float | None
    words: str


class Evaluation(Frozen):
    """Everything the core has to say about one set of inputs."""

    content_hash: str
    touched: tuple[AxleName, ...]
    """The axles that the job is about."""
    checks: tuple[Check, ...]
    groups: tuple[Group, ...]
    """Checks told together, worst first; what is counted are these."""
    left_out: tuple[str, ...] = ()
    """Rules that were not asked for and not worked out: their rows are as they were in the last whole answer."""
    left_out_states: tuple[State, ...] = ()
    """States of the frame that were not: their rows and curves are as they were too."""
    before_teardown: tuple[Reading, ...]
    checklist: tuple[Unlocks, ...]
    """The survey by what it is good for; empty while a hand drags."""
    teardown_locked: bool
    """Readings that teardown destroys are missing; by an empty log where what is as built is left out."""
    drop: DropResult
    drop_front: DropResult
    heights: Heights
    notch_needed: tuple[NotchNeeded, ...]
    figures: tuple[Figure, ...]
    rails: tuple[RailDrawing, ...]
    axle: tuple[AxleDrawing, ...]
    strips: tuple[Strip, ...]
    parts: tuple[Part, ...]
    mass_added_kg: float
    section: SectionDrawing | None
    taken_along: tuple[TakenAlong, ...]
    along: tuple[Along, ...]
    cut_locked: bool
    """Something that goes along has no clearance yet: the step before the first cut waits for it."""
    interim: tuple[InterimFrame, ...]
    deflection: tuple[Deflection, ...]
    weld_mm: float
    """Length of all welds that the design adds."""
    travel: tuple[AxleTravel, ...]
    stock_travel: tuple[AxleTravel, ...]
    """Suspensions of the survey, as they were: not judged, only compared with."""
    steps: tuple[Step, ...]
    parts_needed: tuple[PartNeeded, ...] = ()
    """What has to be in hand before metal is cut."""
    readings: tuple[AskedReading, ...]
    taped: TapedFrame | None
    """What lengths between points of the frame say, once there are some."""
    frame_times: tuple[FrameAt, ...] = ()
    """The frame's shape each time that it was measured, oldest first."""
    marks: tuple[Mark, ...] = ()
    """What lengths and levels are taken at."""
