"""What a field's annotation is made of."""

from typing import Union, get_args, get_origin


def members_of(annotation: object) -> list[object]:
    """The types of a union, without what annotates them; one type alone is its only member."""
    if hasattr(annotation, "__metadata__"):
        return members_of(get_args(annotation)[0])
    if get_origin(annotation) is Union or type(annotation).__name__ == "UnionType":
        return [m for part in get_args(annotation) for m in members_of(part)]
    return [annotation]
