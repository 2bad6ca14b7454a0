"""The form of an operation, read from its model: labels stand beside the fields, kinds come from their types."""

from collections.abc import Iterable, Iterator
from typing import Literal, get_args, get_origin

from annotated_types import Le
from pydantic import BaseModel
from pydantic.fields import FieldInfo

from nodulant.base.annotations import members_of
from nodulant.base.model import Frozen
from nodulant.base.shown import Shown
from nodulant.frame.ops.fresh import Piece
from nodulant.frame.ops.operation import RailOperation
from nodulant.frame.place import Place

FieldKind = Literal[
    "length",
    "thickness",
    "angle",
    "force",
    "number",
    "place",
    "words",
    "tick",
    "choice",
    "variant",
    "steel",
    "bolt",
    "grade",
    "crossmember",
    "feature",
    "spots",
    "saw",
    "pipe",
]
KNOWN: dict[str, FieldKind] = {
    "steel_id": "steel",
    "bolt_size": "bolt",
    "size": "bolt",
    "grade": "grade",
    "target_id": "crossmember",
    "feature_id": "feature",
}
"""Texts that are chosen from what the core or the survey knows, by their field's name."""
UNITS: dict[str, FieldKind] = {"_deg": "angle", "_n": "force", "_mm": "length"}
SHEET_MM = 40.0
"""What may not be thicker is told as a wall is."""
OWN = frozenset({"id", "kind", "side", "pair_id"})
"""Fields that are not on the form: the operation's name tags, and the side, which has a choice of its own."""


class Choice(Frozen):
    """A value that may be chosen, and how it is told."""

    value: str
    words: str


class FormField(Frozen):
    """One field; ``at`` is its path below the operation, parted by dots."""

    at: str
    label: str
    kind: FieldKind
    choices: tuple[Choice, ...] = ()
    optional: bool = False
    when: tuple[str, ...] = ()
    note: str = ""


class FormPart(Frozen):
    """A piece with fields of its own; ``optional`` ones are put in and left out by a button."""

    at: str
    title: str
    fields: tuple[FormField, ...]
    optional: bool
    when: tuple[str, ...] = ()
    lacking: str = ""
    many: bool = False
    """As many of it as there are, each with these fields; their paths then begin below the piece."""


class Form(Frozen):
    """What is asked of one kind of operation, in the order it is asked."""

    kind: str
    name: str
    says: str
    fields: tuple[FormField, ...]
    parts: tuple[FormPart, ...]
    searched: bool
    """Whether its metal can be searched for."""
    carries: str = ""
    """What other things can ride with, with the operation's {name}; empty where they cannot."""
    one_piece: bool = False
    """Whether it goes from rail to rail, so that it has no side."""


def form_of(operation: type[RailOperation]) -> Form:
    """The form of a kind of operation."""
    fields: list[FormField] = []
    parts: list[FormPart] = []
    for name, info, shown in _told(operation):
        pieces, listed = _pieces(info.annotation), _listed(info.annotation)
        if listed is not None:
            fields_of_each = tuple(_fields(listed, ""))
            parts.append(FormPart(at=name, title=shown.label, fields=fields_of_each, optional=False, many=True))
        elif len(pieces) > 1:
            fields += _variant(name, pieces, shown)
        elif pieces:
            parts.append(
                FormPart(
                    at=name,
                    title=shown.label,
                    fields=tuple(_fields(pieces[0], f"{name}.")),
                    optional=_optional(info),
                    when=shown.when,
                    lacking=shown.lacking,
                )
            )
        elif _optional(info) and Place in members_of(info.annotation):
            place = FormField(at=name, label=shown.label, kind="place")
            title = f"{shown.label} ({shown.note})" if shown.note else shown.label
            parts.append(FormPart(at=name, title=title, fields=(place,), optional=True, when=shown.when))
        else:
            fields.append(_field(name, info, shown))
    return Form(
        kind=str(operation.model_fields["kind"].default),
        name=operation.adds.name,
        says=operation.adds.says,
        fields=tuple(fields),
        parts=tuple(parts),
        searched=operation.searched,
        carries=operation.carries,
        one_piece=operation.one_piece,
    )


def unlabelled(model: type[BaseModel]) -> list[str]:
    """Fields that stand on no form because nobody gave them words."""
    bare = [n for n, info in model.model_fields.items() if n not in OWN and _shown(info) is None]
    below = [
        f"{n}.{m}"
        for n, info, _ in _told(model)
        for piece in (*_pieces(info.annotation), *filter(None, [_listed(info.annotation)]))
        for m in unlabelled(piece)
        if m != "kind"
    ]
    return bare + below


def _shown(info: FieldInfo) -> Shown | None:
    return next((m for m in info.metadata if isinstance(m, Shown)), None)


def _told(model: type[BaseModel]) -> Iterator[tuple[str, FieldInfo, Shown]]:
    """Fields with words, in their order on the form."""
    rows = [(name, info, shown) for name, info in model.model_fields.items() if (shown := _shown(info)) is not None]
    yield from sorted(rows, key=lambda row: row[2].order)


def _fields(model: type[BaseModel], below: str) -> Iterator[FormField]:
    for name, info, shown in _told(model):
        yield _field(f"{below}{name}", info, shown)


def _variant(name: str, pieces: list[type[BaseModel]], shown: Shown) -> Iterator[FormField]:
    """A choice between several kinds of piece, each with its own fields."""
    yield FormField(at=name, label=shown.label, kind="variant", choices=_choices(shown, shown.choices))
    for piece in pieces:
        kind = str(piece.model_fields["kind"].default)
        for field in _fields(piece, f"{name}."):
            yield field.model_copy(update={"when": (f"{name}.kind", kind)})


def _field(at: str, info: FieldInfo, shown: Shown) -> FormField:
    name = at.rsplit(".", 1)[-1]
    literal = next((m for m in members_of(info.annotation) if get_origin(m) is Literal), None)
    choices: tuple[Choice, ...] = ()
    kind = _kind(name, info, shown)
    if kind == "choice" and literal is not None:
        values = [str(v) for v in get_args(literal)]
        ordered = [v for v in shown.choices if v in values] or values
        choices = _choices(shown, ordered)
    return FormField(
        at=at, label=shown.label, kind=kind, choices=choices, optional=_optional(info), when=shown.when, note=shown.note
    )


def _choices(shown: Shown, values: Iterable[str]) -> tuple[Choice, ...]:
    return tuple(Choice(value=v, words=shown.choices.get(v, v)) for v in values)


def _kind(name: str, info: FieldInfo, shown: Shown) -> FieldKind:
    """What a field is, by its name's unit and its type."""
    members = members_of(info.annotation)
    if shown.kind:
        return _as_kind(shown.kind)
    if name in KNOWN:
        return KNOWN[name]
    if Place in members:
        return "place"
    if bool in members:
        return "tick"
    if any(get_origin(m) is Literal for m in members):
        return "choice"
    if str in members:
        return "words"
    kind = next((k for unit, k in UNITS.items() if name.endswith(unit)), "number")
    most = _most(info)
    return "thickness" if kind == "length" and most == SHEET_MM else _as_kind(kind)


def _as_kind(text: str) -> FieldKind:
    """A kind by its name; raises KeyError where there is none."""
    kinds: tuple[FieldKind, ...] = get_args(FieldKind)
    return {str(kind): kind for kind in kinds}[text]


def _optional(info: FieldInfo) -> bool:
    return type(None) in members_of(info.annotation)


def _pieces(annotation: object) -> list[type[BaseModel]]:
    """Models that a field holds; a place is a field."""
    return [m for m in members_of(annotation) if isinstance(m, type) and issubclass(m, BaseModel) and m is not Place]


def _listed(annotation: object) -> type[Piece] | None:
    """The piece that a field holds any number of."""
    of = get_args(annotation)[:1] if get_origin(annotation) is tuple else ()
    return next((m for m in of if isinstance(m, type) and issubclass(m, Piece)), None)


def _most(info: FieldInfo) -> float | None:
    """The bound above a number, also where it stands inside an optional type."""
    inside = [m for part in get_args(info.annotation) for m in getattr(part, "__metadata__", ())]
    flat = [each for m in (*info.metadata, *inside) for each in getattr(m, "metadata", [m])]
    return next((m.le for m in flat if isinstance(m, Le) and isinstance(m.le, float | int)), None)
