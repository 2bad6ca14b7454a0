"""Checks in groups with their factors, the sweep's worst, the engineer's own sheet."""

from collections.abc import Iterable, Iterator

from reportlab.platypus import Flowable

from nodulant.checks.check import Check
from nodulant.checks.words import limit_in_words, place_in_words, rows_of, says
from nodulant.formats.dossier.contents import Contents
from nodulant.formats.dossier.parts import chapter, length, part, small, table, text
from nodulant.formats.handcheck_text import heading, outcome, section_words, sensitive_words, system
from nodulant.parts.limits import find_limit
from nodulant.units.show import Style

WORST, PLACES = 10, 3
WHOLE = frozenset({"fails", "not computed", "weaker", "close", "stock itself"})


def checks(of: Contents, most: int = 400) -> list[Flowable]:
    """What asks for a look with its basis, row by row; what holds by its rule: how often, and the tightest place."""
    result, style = of.result, of.style
    looked = [["verdict", "check", "says", "limit", "where", "basis"]]
    for group in result.groups:
        if group.verdict not in WHOLE:
            continue
        for c, title in rows_of(group, result.checks, style):
            if c.verdict in WHOLE:
                stock = "" if c.stock is None else f"; stock's worst {c.stock.worst:.2f}"
                told = [c.verdict, title, says(c, style) + stock, limit_in_words(c, style)]
                looked.append([*told, place_in_words(c, style), c.basis])
    out: list[Flowable] = [chapter("Checks")]
    if len(looked) > 1:
        out.append(table(looked[: most + 1], (18, 44, 48, 22, 18, 30)))
    else:
        out.append(text("Nothing fails, nothing is close, and nothing lacks an input."))
    held = [c for c in result.checks if c.verdict in {"holds", "note"}]
    rows = [["rule", "places", "the tightest", "says", "limit"], *_by_rule(held, style)]
    out += [
        part(f"What holds: {len(held)} checks by {len(rows) - 1} rules"),
        table(rows[: most + 1], (48, 12, 48, 42, 30)),
    ]
    if len(rows) > most + 1:
        out.append(small(f"{len(rows) - 1 - most} more rules hold: they stand in the whole dossier."))
    return out


def _by_rule(held: Iterable[Check], style: Style) -> Iterator[list[str]]:
    """One row a rule, the tightest rules first."""
    rules: dict[str, list[Check]] = {}
    for c in held:
        rules.setdefault(c.limit_id, []).append(c)
    for own in sorted(rules.values(), key=lambda rows: -max(c.beyond or 0.0 for c in rows)):
        tight = max(own, key=lambda c: c.beyond or 0.0)
        name = find_limit(tight.limit_id, {})[0].name
        where = tight.title.removeprefix(name).strip(" ,:") or place_in_words(tight, style)
        yield [name, str(len(own)), where, says(tight, style), limit_in_words(tight, style)]


def swept(of: Contents) -> list[Flowable]:
    """The worst pairs of the kept sweep, and whether the design is still what was swept."""
    kept, style = of.swept, of.style
    out: list[Flowable] = [chapter("Clearance through travel, roll and lock")]
    if kept is None:
        return [*out, text("Not swept: no sweep of a stored revision is kept.")]
    when = "for this paper" if kept.revision is None else f"on revision {kept.revision} by {kept.by}, {kept.at[:10]}"
    told = f"Swept {when}: {kept.swept.all_pairs} pairs in {kept.swept.positions} positions, the worst {WORST} here."
    out.append(text(told if kept.fresh else f"{told} The design has changed since: sweep again."))
    rows = [["moving", "other", "least", "wanted", "verdict", "at travel"]]
    for pair in kept.swept.pairs[:WORST]:
        rows.append(
            [
                f"{pair.axle} {pair.moving}",
                pair.other,
                "far" if pair.gap_mm is None else length(pair.gap_mm, style),
                length(pair.needed_mm, style),
                pair.verdict,
                "" if pair.travel_mm is None else length(pair.travel_mm, style),
            ]
        )
    return [
        *out,
        table(rows, (46, 50, 20, 20, 22, 22)),
        small(f"Not looked at: {'; '.join(kept.swept.left_out) or 'nothing'}."),
    ]


def by_hand(of: Contents) -> list[Flowable]:
    """The worst places step by step, and what they hang on; the whole sheet is on screen."""
    sheet, style = of.hand, of.style
    if sheet is None:
        return []
    out: list[Flowable] = [chapter(f"Hand-check sheet, {system(style)}")]
    for place in sheet.places[:PLACES]:
        rows = [["step", "planned", "stock"]]
        before = {line.name: line for line in place.stock.lines} if place.stock else {}
        for line in place.planned.lines:
            stock = outcome(before[line.name], style) if line.name in before else ""
            rows.append([line.name, outcome(line, style), stock])
        out += [
            part(heading(place, style)),
            small(f"{section_words(place, style)}; {place.basis}"),
            table(rows, (32, 76, 72)),
        ]
    if sheet.sensitive:
        rows = [["input", "factor over its limit: a tenth less, as it is, a tenth more"]]
        out += [
            part("What the worst place hangs on"),
            table(rows + [[s.name, sensitive_words(s)] for s in sheet.sensitive], (70, 110)),
        ]
    return out
