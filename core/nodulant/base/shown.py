"""How a field of a model is shown on a form: its words stand beside the field itself.

What kind of field it is (a length, a choice, a place) the form reads from the field's own type,
so a declaration says only what the type cannot.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field


@dataclass(frozen=True, slots=True)
class Shown:
    """A field's label, and what the form needs beside it."""

    label: str
    choices: Mapping[str, str] = field(default_factory=dict[str, str])
    """Words of its choices, in the order they are offered; without them the choices' own values."""
    when: tuple[str, ...] = ()
    """Another field's path and the values of it at which this one is shown; empty: always."""
    lacking: str = ""
    """Another part that must not be there for this one to be offered."""
    kind: str = ""
    """What the type does not tell: ``thickness``, ``number``, ``bolt``."""
    note: str = ""
    """Where practitioners differ: what is the default and why."""
    order: int = 0
    """Later groups stand lower on the form."""
