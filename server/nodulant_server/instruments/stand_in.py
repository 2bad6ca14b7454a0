"""Simulated instruments: what they read follows from a scenario's true vehicle, with noise, drift and settling.

The scenario says how far off the plan each reading truly is; what it does not name is off by a small amount that
follows from its name, so that two people who read the same thing read the same metal.
"""

import hashlib
import json
import math
import random
import re
from pathlib import Path

from pydantic import Field

from nodulant.asbuilt.instruments import INSTRUMENTS, Instrument
from nodulant.base.model import Frozen

LENGTH = re.compile(r"(?P<start>[^>]+)>(?P<end>[^@]+)@(?P<rearward>-?[\d.]+),(?P<rightward>-?[\d.]+)")
"""A length between two marks, with its direction in plan."""
LEVEL, LINE_UNDER_MM = "level/", 500.0
"""A mark's height is read off a level over one line so far under the datum plane: nobody reads a minus off a level."""


class Errors(Frozen):
    """How one kind of instrument errs: scatter, drift a minute since it was zeroed, and how fast it comes to rest."""

    noise: float
    drift_per_min: float = 0.0
    settles_s: float = 0.6
    bias: float = 0.0


class Scenario(Frozen):
    """A vehicle as it truly stands, against its plan, and the instruments in the shop."""

    seed: int
    true: dict[str, float] = {}
    """By reading, in its unit: how far off the plan it is."""
    moved: dict[str, tuple[float, float]] = {}
    """By mark: how far behind its plan and to the right of it it truly stands, mm; lengths to it follow."""
    elsewhere: dict[str, float] = Field(default={})
    """By unit: how far off what is not named may be, one standard deviation."""
    instruments: dict[str, Errors]


def scenario(path: Path) -> Scenario:
    """Read one; raises OSError and ValidationError."""
    return Scenario.model_validate(json.loads(path.read_text(encoding="utf-8")))


class StandIn:
    """One simulated instrument; ``clock`` gives seconds, ``chance`` its noise."""

    def __init__(self, kind: Instrument, told: Scenario, chance: random.Random) -> None:
        """Switched on, not zeroed, held nowhere."""
        self.kind, self.told, self.chance = kind, told, chance
        self.errors = told.instruments[kind.id]
        self.zeroed_at: float | None = None
        self.held, self.since, self.shown, self.start = "", 0.0, 0.0, 0.0

    def answer(self, line: str, now: float) -> str:
        """What it says to a line, at a time in seconds."""
        word, _, rest = line.strip().partition(" ")
        if word == "WHAT":
            return f"= simulated {self.kind.name}, reads to {self.kind.metric:g} {self.kind.unit}"
        if word == "ZERO":
            self.zeroed_at = now
            return "= zero"
        if word != "READ":
            return "! it knows WHAT, ZERO and READ"
        if self.kind.zeroed and self.zeroed_at is None:
            return "! zero it on the rail first"
        where, _, planned = rest.rpartition(" ")
        try:
            plan = float(planned)
        except ValueError:
            return "! it is held nowhere"
        return f"= {self._reads(where, plan, now):.4f} {self.kind.unit}"

    def _reads(self, where: str, plan: float, now: float) -> float:
        if where != self.held:
            self.held, self.since = where, now
            self.start = self.shown
        rest = math.exp(-(now - self.since) / self.errors.settles_s)
        true = plan + self.true_off(where) + (LINE_UNDER_MM if where.startswith(LEVEL) else 0.0)
        drift = self.errors.drift_per_min * (now - (self.zeroed_at or 0.0)) / 60.0 if self.kind.zeroed else 0.0
        value = true + self.errors.bias + drift + self.chance.gauss(0.0, self.errors.noise)
        value += (self.start - value) * rest
        step = self.kind.metric
        self.shown = round(value / step) * step
        return self.shown

    def true_off(self, where: str) -> float:
        """How far off its plan the vehicle truly is there."""
        if where in self.told.true:
            return self.told.true[where]
        if length := LENGTH.fullmatch(where):
            return self._longer(length["start"], length["end"], float(length["rearward"]), float(length["rightward"]))
        spread = self.told.elsewhere.get(self.kind.unit, 0.0)
        digest = hashlib.sha256(f"{self.told.seed}/{where}".encode()).digest()
        return spread * random.Random(digest).gauss(0.0, 1.0)

    def _longer(self, start: str, end: str, rearward: float, rightward: float) -> float:
        """How much more lies between two marks than planned, along the line from the first to the second."""
        (x0, y0), (x1, y1) = (self._moved(mark) for mark in (start, end))
        return (x1 - x0) * rearward + (y1 - y0) * rightward

    def _moved(self, mark: str) -> tuple[float, float]:
        if mark in self.told.moved:
            return self.told.moved[mark]
        spread = self.told.elsewhere.get("mm", 0.0)
        chance = random.Random(hashlib.sha256(f"{self.told.seed}/{mark}".encode()).digest())
        return spread * chance.gauss(0.0, 1.0), spread * chance.gauss(0.0, 1.0)


def stand_ins(told: Scenario, seed: int) -> dict[str, StandIn]:
    """Every instrument that the scenario has, by id."""
    known = {i.id: i for i in INSTRUMENTS}
    return {
        name: StandIn(known[name], told, random.Random(f"{seed}/{name}")) for name in told.instruments if name in known
    }
