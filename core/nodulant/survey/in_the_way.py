"""What may stand in the way of a cut or goes along with what is moved, by the trade's names."""

from typing import Annotated, Literal, get_args

from pydantic import Field

AlongThing = Literal["engine", "sump", "steering-box", "column", "tank", "exhaust", "anti-roll-bar", "hoses"]
ALONG: tuple[AlongThing, ...] = get_args(AlongThing)
InTheWay = Annotated[tuple[AlongThing, ...], Field(max_length=len(ALONG))]
"""Things seen near the work at a first look: each waits for its clearance, or for a word on it, before the cut."""
