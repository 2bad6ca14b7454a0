"""What every entry of the log has."""

from typing import Annotated, Literal

from pydantic import Field

from nodulant.base.model import Frozen, Name

Number = Annotated[int, Field(ge=1)]
Subject = Annotated[str, Field(max_length=130)]
"""A step's id, or a reading's."""


class Logged(Frozen):
    """One entry: its number, when it was taken in, and by whom."""

    number: Number
    at: Annotated[str, Field(max_length=40)]
    """When, ISO 8601 with offset, by the clock that keeps the log."""
    by: Name
    imported: Annotated[str, Field(max_length=200)] = ""
    """By whom and from which file, where it was not written here: its name and time are what that file says."""
    done_at: Annotated[str, Field(max_length=40)] = ""
    """When it was done by the clock of the device it was typed on, where it was sent later."""
    clock: Literal["", "ahead", "behind"] = ""
    """That clock, where what it says cannot be."""
