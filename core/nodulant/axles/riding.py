"""What a thing is fixed to, so that it goes where that goes when rails are cut, stepped, stretched or narrowed.

Points that ride with something are given as they stood on the frame that was surveyed; the plan
moves them. A thing that stays as ``placed`` is given where it stands in the plan.
"""

from collections.abc import Callable
from functools import cache
from typing import Annotated, TypeVar, get_args

from pydantic import BaseModel, StringConstraints

from nodulant.axles.points import HardPoint, OnFrame

Rides = Annotated[str, StringConstraints(pattern=r"^[a-z0-9][a-z0-9_-]{0,39}$")]
"""``placed``, ``rail`` (the stretch of rail at its own station), ``body`` (the rails' straight part between
the axles), or the id of the pocket whose subframe carries it."""
PLACED, RAIL, BODY = "placed", "rail", "body"

M = TypeVar("M", bound=BaseModel)
Mover = Callable[[str, HardPoint], HardPoint]
"""A frame point's path below the model, and the point as it is; gives it where it is to be."""


def moved_on_frame(model: M, move: Mover, below: str = "") -> M:
    """The model with every point that stands on the frame moved; what does not change stays the same object."""
    update: dict[str, object] = {}
    for name in type(model).model_fields:
        value: object = getattr(model, name)
        new = _moved(value, move, f"{below}{name}", on_frame=name in _on_frame(type(model)))
        if new is not value:
            update[name] = new
    return model.model_copy(update=update) if update else model


def frame_points(model: BaseModel) -> dict[str, HardPoint]:
    """Every point of a model that stands on the frame, by its path."""
    found: dict[str, HardPoint] = {}

    def note(path: str, point: HardPoint) -> HardPoint:
        found[path] = point
        return point

    moved_on_frame(model, note)
    return found


def _moved(value: object, move: Mover, path: str, *, on_frame: bool) -> object:
    if isinstance(value, HardPoint):
        return move(path, value) if on_frame else value
    if isinstance(value, tuple):
        new = tuple(_moved(each, move, f"{path}.{k}", on_frame=on_frame) for k, each in enumerate(value))
        return new if any(a is not b for a, b in zip(new, value, strict=True)) else value
    return moved_on_frame(value, move, f"{path}.") if isinstance(value, BaseModel) else value


@cache
def _on_frame(model: type[BaseModel]) -> frozenset[str]:
    """Fields of a model that hold points on the frame."""
    return frozenset(
        name for name, info in model.model_fields.items() if _marked(info.annotation) or _has(info.metadata)
    )


def _has(metadata: object) -> bool:
    return isinstance(metadata, list | tuple) and any(isinstance(m, OnFrame) for m in metadata)


def _marked(annotation: object) -> bool:
    """Whether the marker stands anywhere in an annotation."""
    return _has(getattr(annotation, "__metadata__", ())) or any(_marked(part) for part in get_args(annotation))
