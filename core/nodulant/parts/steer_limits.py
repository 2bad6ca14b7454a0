"""Limits of the steering."""

from nodulant.parts.limit import Limit, at_least, at_most, noted

STEER_LIMITS: tuple[Limit, ...] = (
    at_least("steer-sense", "Wheels turn the way the steering wheel does", 1.0, "yes", "nothing else may be driven"),
    at_least("lock-reached", "Steering reaches its lock", 1.0, "of its stroke", "a rod or arm that ends it locks it"),
    noted(
        at_most("lock-equal", "Lock to the left against lock to the right", 2.0, "deg", "Nodulant default"),
        "an uneven lock turns less one way; that it locks and grips is judged for itself",
    ),
    at_least("ackermann-least", "Ackermann at 20 degrees", 0.0, "%", "Nodulant default: parallel at the least", 10.0),
    at_most("ackermann-most", "Ackermann at 20 degrees, most", 100.0, "%", "Nodulant default: rolls freely"),
    at_least("rod-grip", "Rod to its arm at the worst of lock", 25.0, "deg", "Nodulant default: far from passing over"),
    at_most("rod-tilt", "Steering joint's tilt over travel and lock", 1.0, "of its limit", "the joint's own limit"),
    at_most(
        "bump-steer", "Bump steer at ride height", 0.1, "deg/in", "common practice, from memory: 0.1 street, 0.03 race"
    ),
    at_most("bump-steer-all", "Steer over the whole travel", 1.0, "deg", "Nodulant default"),
    at_most("roll-steer-front", "Steer in 3 degrees of roll", 1.0, "deg", "Nodulant default"),
    at_most("column-joint", "Steering shaft's joint", 30.0, "deg", "common practice: 30 degrees, 35 at most"),
    at_most(
        "column-uneven", "Unevenness at the steering wheel", 5.0, "%", "Nodulant default: what a hand hardly feels"
    ),
    at_least(
        "column-bearing", "Support bearing of the middle shaft", 1.0, "yes", "three joints do not hold themselves up"
    ),
    at_least("column-clear", "Steering shaft clears", 12.0, "mm", "common practice"),
    at_least("clamp-closes", "Column clamp closes on the tube", 1.0, "x needed", "saw slot against pi times the play"),
)
