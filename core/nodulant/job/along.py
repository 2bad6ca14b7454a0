"""What a raise, a step or a narrowing takes along, and what was said of each thing."""

from typing import Literal

from nodulant.base.model import Frozen, Name
from nodulant.survey.in_the_way import AlongThing


class AlongNote(Frozen):
    """That a thing is not there, or the way out for it; without a note its clearance counts."""

    thing: AlongThing
    how: Literal["not-there", "way-out"]
    words: Name
