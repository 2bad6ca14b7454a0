"""Bodies and answers of what is searched for on a draft: metal, remedies, suspensions, steering, clearances."""

from typing import Annotated

from pydantic import Field

from nodulant.base.model import Frozen
from nodulant.evaluate.clearances.between import Between
from nodulant.evaluate.clearances.kept_sweep import SweepOnFile
from nodulant.evaluate.clearances.sweep import SweepResult, SweptPair
from nodulant.formats.dxf import Unit
from nodulant.job.taped_points import On, Taped
from nodulant.parts.sides import AxleName, Side
from nodulant.remedies.tried import Remedies
from nodulant.search.bracket_holes import FoundHoles, Holes, Wanted
from nodulant.search.bump_steer import SteerWish
from nodulant.search.finder import FoundSets, SetFound
from nodulant.search.fit_coilover import CoilWish
from nodulant.search.link_window import FoundWindow, Window
from nodulant.steering.bought_arm import Arm, BoughtArm
from nodulant.stock.nesting.plan import NestPlan
from nodulant_server.api.bodies import DraftBody


class FindBody(DraftBody):
    """Find the lightest metal for an operation of a draft."""

    operation_id: Annotated[str, Field(max_length=40)]


class RemedyBody(DraftBody):
    """Try what mends a group of checks of a draft."""

    key: Annotated[str, Field(max_length=400)]


class SuspensionBody(DraftBody):
    """One suspension of a draft, by its number."""

    suspension: Annotated[int, Field(ge=0, le=1)] = 0


class FreshSuspensionBody(DraftBody):
    """A new suspension of a layout's kind for one axle, planned or as it was ``before`` the work."""

    axle: AxleName
    kind: Annotated[str, Field(max_length=40)]
    before: bool = False


class FreshSuspensionPartBody(SuspensionBody):
    """What a part of a suspension begins with, or of the shaft to the rear axle; ``kind`` where there are several."""

    part: Annotated[str, Field(max_length=40)]
    kind: Annotated[str, Field(max_length=40)] = ""
    before: bool = False


class TapedBody(SuspensionBody):
    """A point of a suspension, by its path below it, and what was measured of it."""

    path: Annotated[str, Field(max_length=80)]
    on: On
    taped: Taped
    before: bool = False


class RidesBody(SuspensionBody):
    """What a suspension, or its one frame point at ``path``, is to ride with."""

    rides: Annotated[str, Field(max_length=40)]
    path: Annotated[str, Field(max_length=80)] = ""


class FindHolesBody(SuspensionBody):
    """Find the bracket holes of a suspension of a draft."""

    holes: Holes = Holes()
    wanted: Wanted = Wanted()


class FindWindowBody(SuspensionBody):
    """Find where one end of a link goes, and how long the link is."""

    link: Annotated[str, Field(max_length=40)]
    window: Window = Window()
    wanted: Wanted = Wanted()


class FitCoilBody(SuspensionBody):
    """Fit the coilover of a suspension of a draft."""

    wish: CoilWish = CoilWish()


class CureSteerBody(SuspensionBody):
    """What cures the bump steer of a suspension of a draft."""

    wish: SteerWish = SteerWish()


class MapBody(DraftBody):
    """The clearance of one pair of the sweep over travel and steer."""

    pair_id: Annotated[str, Field(max_length=300)]


class SweepBody(DraftBody):
    """Sweep a draft; with its option the sweep is kept where the draft is the newest revision."""

    option_id: int | None = None


class SweepKeptOut(Frozen):
    """The sweep that is kept of an option, if one is."""

    kept: SweepOnFile | None


class BetweenBody(DraftBody):
    """Two things of a draft by their names; without them only the names are told."""

    one: Annotated[str, Field(max_length=200)] = ""
    two: Annotated[str, Field(max_length=200)] = ""


class ThingsApart(Frozen):
    """Names that can be asked about, and the distance where two were."""

    things: tuple[str, ...]
    found: Between | None = None


class RodHoleBody(DraftBody):
    """The cut that what passes a rail needs."""

    axle: AxleName
    moving: Annotated[str, Field(max_length=120)]
    side: Side


class SweepLine(Frozen):
    """One line of a sweep's answer: a pair with how many are done, then the whole, or a problem."""

    done: int | None = None
    total: int | None = None
    pair: SweptPair | None = None
    swept: SweepResult | None = None
    problem: str | None = None
    told: str | None = None
    """Why nothing comes: what waits before it, or that its worker stopped."""


class WaysBody(SuspensionBody):
    """A front of a draft, to be lowered by one amount in several ways."""

    drop_mm: Annotated[float, Field(gt=0, le=300)] = 50.0


class TuckBody(SuspensionBody):
    """An axle of a draft whose wheels are to go in until they clear; the most that each may, mm."""

    most_mm: Annotated[float, Field(ge=1, le=200)] = 80.0
    same_mm: Annotated[float, Field(ge=0, le=200)] | None = None
    """Compare every way at this tuck instead of solving each."""


class ArmBody(SuspensionBody):
    """A bought arm to be laid over the pick-ups of a draft; without one only the arm that is there is told."""

    arm: Arm = "lower-arm"
    bought: BoughtArm | None = None


class FindLine(Frozen):
    """One line of a search's answer: progress, then what was found or a problem."""

    done: int | None = None
    total: int | None = None
    best: SetFound | None = None
    """The lightest that passed so far."""
    seconds_left: float | None = None
    """About how long the search goes on, at its pace so far."""
    sets: FoundSets | None = None
    remedies: Remedies | None = None
    holes: FoundHoles | None = None
    window: FoundWindow | None = None
    nest: NestPlan | None = None
    problem: str | None = None
    told: str | None = None
    """Why nothing comes: what waits before it, or that its worker stopped."""


class OrderBody(DraftBody):
    """A draft's order list; its plates as they were laid out, where they were."""

    plan: NestPlan | None = None


class LaidOutBody(Frozen):
    """Plates as they were laid out on sheets."""

    plan: NestPlan


class NestFilesBody(LaidOutBody):
    """Laid-out sheets that are wanted as files."""

    unit: Unit = "mm"
    torch: bool = False
    """Cut lines are the middle of the rack's cut, not to size."""
