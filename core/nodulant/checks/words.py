"""A check in words, as report and command line say it; the screen puts the same words together."""

from collections.abc import Iterator, Sequence

from nodulant.checks.check import Check
from nodulant.checks.groups import Group
from nodulant.parts.limits import find_limit
from nodulant.parts.reads import reads
from nodulant.units.said import tell
from nodulant.units.show import Style, show_length


def says(check: Check, style: Style) -> str:
    """What a check says: its own sentence, or its value as its limit reads; what it lacks where it was not computed."""
    if check.said is not None:
        return tell(check.said, style)
    if check.value is None:
        return check.remedy or "an input is missing"
    limit = find_limit(check.limit_id, {})[0].model_copy(update={"value": check.limit})
    return tell(reads(limit, check.value), style)


def limit_in_words(check: Check, style: Style) -> str:
    """The limit of a check; nothing where it is met or not."""
    if check.yes_no:
        return ""
    sign = "at least" if check.direction == "at-least" else "at most"
    limit = find_limit(check.limit_id, {})[0]
    return f"{sign} {tell(reads(limit, check.limit), style)}"


def rows_of(group: Group, checks: Sequence[Check], style: Style) -> Iterator[tuple[Check, str]]:
    """The checks of a group with their titles, worst first; rows that say the same left and right are one."""
    own = [c for c in checks if c.id in group.ids]
    told: set[tuple[str, str]] = set()
    for check in own:
        same = (check.title, says(check, style))
        if same in told:
            continue
        told.add(same)
        sides = {c.id.split("@")[0].rsplit(":", 1)[-1] for c in own if c.title == check.title}
        side = f" ({sides.pop()})" if len(sides) == 1 and sides <= {"left", "right"} else ""
        built = " (as built)" if check.state == "as-built" else ""
        yield check, f"{check.title}{side}{built}"


def place_in_words(check: Check, style: Style) -> str:
    """Where along the rail and when in travel a check is worst."""
    g = check.governs
    rows = (
        f"at {show_length(g.station_mm, style)}" if g.station_mm is not None else "",
        f"travel {show_length(g.pose_mm, style)}" if g.pose_mm is not None else "",
    )
    return ", ".join(row for row in rows if row)
