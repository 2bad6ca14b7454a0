"""Every term, and the one that explains a field."""

from nodulant.glossary.axle_terms import AXLES
from nodulant.glossary.frame_terms import FRAME
from nodulant.glossary.term import Term
from nodulant.glossary.work_terms import JUDGED, WORK

TERMS: tuple[Term, ...] = (*FRAME, *AXLES, *WORK, *JUDGED)
_BY_FIELD = {field: term for term in reversed(TERMS) for field in reversed(term.fields)}


def term_for(kind: str, at: str) -> Term | None:
    """The term that explains a field: ``kind`` is the operation's, or empty; ``at`` is its path, parted by dots.

    The nearest name wins: with the operation's kind, with what it is part of, by itself.
    """
    parts = at.split(".")
    name = parts[-1]
    keys = [f"{kind}:{name}", *([f"{parts[-2]}.{name}"] if len(parts) > 1 else []), name]
    return next((_BY_FIELD[key] for key in keys if key in _BY_FIELD), None)
