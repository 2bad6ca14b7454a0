"""One root for every error the core raises.

Each error has a stable ``code``, the ``field`` as a JSON pointer, what was ``found``
and what would be ``acceptable``; the interface shows them at the field.
"""


class NodulantError(Exception):
    """Root of all typed errors."""

    code = "error"

    def __init__(self, message: str, *, field: str = "", found: str = "", acceptable: str = "") -> None:
        """Keep the sentence for a person and the parts for a program."""
        super().__init__(message)
        self.message = message
        self.field = field
        self.found = found
        self.acceptable = acceptable


class InputError(NodulantError, ValueError):
    """A value that cannot be used as it stands."""

    code = "input"


class UnreadableQuantity(InputError):
    """Typed text that is no quantity; ``position`` is the 0-based place of the trouble."""

    code = "unreadable"

    def __init__(self, message: str, *, position: int, found: str, acceptable: str) -> None:
        """Keep the position so that a field can point at it."""
        super().__init__(message, found=found, acceptable=acceptable)
        self.position = position


class UnknownReference(InputError, LookupError):
    """A name that refers to nothing in the job."""

    code = "unknown-reference"


class NotSolvable(NodulantError, ArithmeticError):
    """A well-formed question without an answer; the message says why."""

    code = "not-solvable"
