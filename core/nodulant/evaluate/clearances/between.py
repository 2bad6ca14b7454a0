"""How far any two things are apart, also where it is wide: asked for by name, standing or through all motion."""

from nodulant.base.errors import NotSolvable, UnknownReference
from nodulant.base.model import Frozen
from nodulant.checks.sweep_rules import way_in_words, way_of
from nodulant.clearance.apart import apart
from nodulant.clearance.moving import Mover
from nodulant.clearance.pair import Far, least
from nodulant.clearance.shapes import Standing
from nodulant.evaluate.clearances.sweep import Scene, scene
from nodulant.job.document import Inputs

ANY_MM = 20_000.0
"""Everything on a vehicle is nearer to everything else than this."""


class Between(Frozen):
    """Least distance of two things, mm, negative where they meet; where one moves, in which position."""

    one: str
    two: str
    gap_mm: float
    travel_mm: float | None = None
    roll_deg: float | None = None
    input: float | None = None
    at_rest_mm: float | None = None
    """The same at ride height, level, straight ahead."""
    at: list[float] = []
    words: str = ""
    """Which way the second has to go to have more room."""


def things(inputs: Inputs) -> tuple[str, ...]:
    """Names of everything that can be asked about, what moves by its axle first."""
    return tuple(_named(scene(inputs)))


def between(inputs: Inputs, one: str, two: str) -> Between:
    """The distance of two of them; raises UnknownReference and NotSolvable."""
    named = _named(scene(inputs))
    for field, name in (("/one", one), ("/two", two)):
        if name not in named:
            raise UnknownReference(
                "there is no such thing in this design", field=field, found=name, acceptable=", ".join(named) or "none"
            )
    if one == two:
        raise NotSolvable("a thing has no distance to itself", field="/two", found=two, acceptable="another thing")
    a, b = named[one], named[two]
    if isinstance(a, Standing) and isinstance(b, Standing):
        gap = apart(a, b)
        return Between(one=one, two=two, gap_mm=gap, words="they meet" if gap == 0 else "both stand still")
    mover, other = (a, b) if isinstance(a, Mover) else (b, a)
    if not isinstance(mover, Mover):
        raise ValueError("one of the two moves")
    if isinstance(other, Mover) and (other.positions is not mover.positions or mover.kind == other.kind == "tyre"):
        raise NotSolvable(
            "these two do not move together",
            field="/two",
            found=two,
            acceptable="two things of one axle that are not both tyres, or one of them and something that stands",
        )
    found = least(mover, other, ANY_MM)
    if found is None or isinstance(found, Far):
        raise NotSolvable("it cannot be anywhere", field="/one", found=one, acceptable="an axle that moves")
    return Between(
        one=one,
        two=two,
        gap_mm=found.gap_mm,
        travel_mm=found.travel_mm,
        roll_deg=found.roll_deg,
        input=found.input,
        at_rest_mm=found.at_rest_mm,
        at=[float(v) for v in (found.mine + found.other) / 2],
        words=way_in_words(way_of(found)),
    )


def _named(here: Scene) -> dict[str, Mover | Standing]:
    """Everything by a name of its own."""
    out: dict[str, Mover | Standing] = {}
    for mover in here.movers:
        out.setdefault(f"{mover.positions.axle}: {mover.name}", mover)
    for thing in here.standing:
        out.setdefault(thing.name, thing)
    return out
