"""Whether the vehicle stands on the stands that are placed, before and after every cut and lift: its worst moment."""

from collections.abc import Iterator

from nodulant.checks.check import Changes, Check, Governs, Subject, Why, judge, not_computed
from nodulant.supports.look import Moment, SupportsFound
from nodulant.supports.tipping import Stands

STANDING = Subject(subject="stands", stage="build")
TIPS = "Move a stand, or put one more under it: the Build stage shows where it stands at that moment, and finds places."
WEAK = "A stand of a higher rating, or one more beside it."


def stand_checks(found: SupportsFound, changes: Changes) -> list[Check]:
    """The least margin of any body at any moment, and the stand that is loaded most; nothing before anything was placed."""
    if found.missing:
        return [not_computed("stand-margin", STANDING, ("/survey/masses",), changes)]
    rows = [(m, s) for m in found.moments for s in m.stands]
    if not rows:
        return []
    moment, worst = min(rows, key=lambda row: _margin(row[1]))
    checks = [
        judge(
            "stand-margin",
            STANDING,
            _margin(worst),
            Why(
                formula="inside / needed",
                values={"inside": worst.needed_mm * _margin(worst), "needed": worst.needed_mm},
                words=f"mm, centre of mass from the nearest edge of what stands under it; {_when(moment, worst)}: {worst.words}",
            ),
            changes,
            governs=Governs(station_mm=worst.body.x_mm),
            detail=_when(moment, worst),
            remedy=TIPS,
        )
    ]
    return [*checks, *_loaded(rows, changes)]


def _loaded(rows: list[tuple[Moment, Stands]], changes: Changes) -> Iterator[Check]:
    loads = [(row.use, row, m, s) for m, s in rows for row in s.loads]
    if not loads:
        return
    use, row, moment, stands = max(loads, key=lambda r: r[0])
    yield judge(
        "stand-load",
        STANDING,
        use,
        Why(
            formula="carries / rated",
            values={"carries": row.load_kg, "rated": row.load_kg / use if use else 1.0},
            words=f"kg on {row.name}, the most over the triangles that hold the centre of mass; {_when(moment, stands)}",
        ),
        changes,
        detail=f"{row.name}, {_when(moment, stands)}",
        remedy=WEAK,
    )


def _margin(s: Stands) -> float:
    """Of what is needed; a body that is tied down needs no more than to lie over its stands; 0 where nothing is under it."""
    if s.margin_mm is None:
        return 0.0
    share = s.margin_mm / s.needed_mm
    # what holds though it stands near its edge is tied down; what is too heavy for a stand is told by its load
    return max(share, 1.0) if s.holds else share


def _when(moment: Moment, stands: Stands) -> str:
    return moment.name if len(moment.stands) == 1 else f"{moment.name}, {stands.body.name}"
