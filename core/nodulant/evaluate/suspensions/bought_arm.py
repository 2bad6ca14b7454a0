"""A bought arm over a design's pick-ups, as the screen gets it."""

from nodulant.axles.suspension import Suspension
from nodulant.base.errors import NotSolvable
from nodulant.base.model import Frozen
from nodulant.evaluate.suspensions.hung import hung
from nodulant.evaluate.suspensions.travel import suspension_studies
from nodulant.job.document import Inputs
from nodulant.steering.bought_arm import NAMES, Arm, BoughtArm, Change, Restored, arm_lengths, laid_over
from nodulant.suspension.study import LEVEL


class ArmChange(Frozen):
    """One change: how far pivots move, rearward along the hinge and outward from it, mm; what it restores and keeps."""

    change: Change
    name: str
    front_rearward_mm: float
    front_outward_mm: float
    rear_rearward_mm: float
    rear_outward_mm: float
    ball_off_mm: float
    restores: bool
    keeps_camber: bool | None
    keeps_toe: bool | None
    keeps_anti_dive: bool | None
    words: str
    suspension: Suspension | None


class ArmLaidOver(Frozen):
    """The arm that is there, and what a bought one asks for; no changes where none was given."""

    original: BoughtArm
    changes: tuple[ArmChange, ...]


DOES_NOT_FIT = "As it is it does not bolt in"

WORDS: dict[Change, str] = {
    "none": "within half a millimetre of the old one",
    "front-mount": "along the old hinge nothing changes; off it the hinge turns, and the curves with it",
    "rear-mount": "along the old hinge nothing changes; off it the hinge turns, and the curves with it",
    "both-mounts": "slid along the old hinge nothing changes; in or out the curves do",
    "pivot-tubes": "a cut and re-welded arm is a load-carrying weld: its own check, a gusset, a qualified welder; the law may forbid it",
}


def bought_arm(inputs: Inputs, suspension: int, arm: Arm, bought: BoughtArm | None) -> ArmLaidOver:
    """Lay it over; raises InputError and NotSolvable where there is no such arm or the hubs are not known."""
    h = hung(inputs, suspension)
    s = suspension_studies(h.planned, LEVEL)[suspension]
    if s.setting is None:
        raise NotSolvable(
            "the hubs are not known", field=s.missing[0] if s.missing else "", found="nothing", acceptable="both hubs"
        )
    original = arm_lengths(s.suspension, arm, s.setting)
    found = () if bought is None else laid_over(s.suspension, arm, s.setting, bought)
    return h.back(ArmLaidOver(original=original, changes=tuple(_told(r) for r in found)))


def _told(r: Restored) -> ArmChange:
    return ArmChange(
        change=r.change,
        name=NAMES[r.change] if r.change != "none" or r.restores else DOES_NOT_FIT,
        front_rearward_mm=round(r.front.rearward_mm, 2),
        front_outward_mm=round(r.front.outward_mm, 2),
        rear_rearward_mm=round(r.rear.rearward_mm, 2),
        rear_outward_mm=round(r.rear.outward_mm, 2),
        ball_off_mm=round(r.ball_off_mm, 2),
        restores=r.restores,
        keeps_camber=r.keeps.camber if r.keeps else None,
        keeps_toe=r.keeps.toe if r.keeps else None,
        keeps_anti_dive=r.keeps.anti_dive if r.keeps else None,
        words=WORDS[r.change] if r.change != "none" or r.restores else _off(r),
        suspension=r.suspension,
    )


def _off(r: Restored) -> str:
    """Why an arm does not bolt in: its pivots stand apart otherwise, or its ball joint lands elsewhere."""
    return "its pivots or its ball joint stand more than half a millimetre from where the mounts have them"
