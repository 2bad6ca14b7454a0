"""One wheel in a hole: how hard the frame is twisted, and what bounds it.

The wheel drops into a hole of depth h. What twists the frame is the lesser of what lifts that wheel
altogether, and what the hole's depth enforces on frame and springs in series: K x h/track with 1/K =
1/K_frame + 1/K_front + 1/K_rear, K_frame the stiffest that the frame can be. An axle whose roll
stiffness nobody knows is guessed from a ride frequency of 1.5 Hz, k = (m/2) (2 pi f)^2 a wheel and
k s^2/2 in roll, s between its springs (Nodulant default); taking it as rigid would multiply the couple.
"""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from nodulant.loads.beam import G, reactions, seat_centre
from nodulant.loads.ladder import Ladder
from nodulant.loads.plan import RollStiffness
from nodulant.parts.sides import FRONT_REAR, AxleName
from nodulant.survey.vehicle import Seat, Survey

GUESSED_HZ = 1.5
Bound = Literal["wheel lifted", "hole"]


@dataclass(frozen=True)
class Twist:
    """The couple on one frame, N mm, the frame's own twist under it, degrees, and what bounds it."""

    couple_nmm: float
    angle_deg: float
    bound: Bound
    guessed: tuple[AxleName, ...]
    """Axles whose roll stiffness was guessed."""
    hole_mm: float
    lifted_nmm: float
    """The couple that lifts the wheel altogether."""
    enforced_nmm: float
    """The couple that the hole's depth enforces."""


@dataclass(frozen=True)
class Hole:
    """Its depth, mm, the factor on the couple that lifts the wheel, and how the axles roll."""

    depth_mm: float
    factor: float
    rolls: Mapping[AxleName, RollStiffness]


def twist_of(survey: Survey, seats: tuple[Seat, ...], ladder: Ladder, hole: Hole) -> Twist:
    """The twist of one frame; raises NotSolvable where it cannot rest on its seats."""
    held = reactions(survey.masses, seats)
    tracks = {"front": survey.front.track_mm or 1.0, "rear": survey.rear.track_mm or 1.0}
    loads = {"front": held.front, "rear": held.rear}
    lifted = hole.factor * min(loads[a] * tracks[a] / 2 for a in FRONT_REAR)
    rolls = {a: hole.rolls.get(a) or guessed_roll(survey, seats, a, loads[a]) for a in FRONT_REAR}
    series = 1.0 / (ladder.held_radians_per_nmm + sum(1.0 / r.nmm_per_rad for r in rolls.values()))
    enforced = series * hole.depth_mm / min(tracks.values())
    couple = min(lifted, enforced)
    return Twist(
        couple,
        math.degrees(couple * ladder.radians_per_nmm),
        "hole" if enforced < lifted else "wheel lifted",
        tuple(a for a in FRONT_REAR if rolls[a].guessed),
        hole.depth_mm,
        lifted,
        enforced,
    )


def guessed_roll(survey: Survey, seats: tuple[Seat, ...], axle: AxleName, load_n: float) -> RollStiffness:
    """Roll stiffness of springs under the rails that ride at 1.5 Hz."""
    rails = survey.rails
    apart = rails.left.web_y_mm + rails.right.web_y_mm
    seat_centre(seats, axle)
    wheel = load_n / G / 2 * (2 * math.pi * GUESSED_HZ) ** 2 / 1000.0
    return RollStiffness(nmm_per_rad=max(wheel * apart**2 / 2, 1.0), guessed=True)
