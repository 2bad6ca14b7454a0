"""Load cases: a name and the factor on the 1 g forces."""

from nodulant.base.model import Frozen


class Case(Frozen):
    """Static load times ``factor``."""

    id: str
    name: str
    factor: float
    basis: str


CASES: tuple[Case, ...] = (
    Case(id="static", name="Standing, 1 g", factor=1.0, basis="weight"),
    Case(
        id="bump",
        name="Both wheels in a bump, 3 g",
        factor=3.0,
        basis="three times static in total: body-engineering textbooks, from memory",
    ),
)


def find_case(case_id: str) -> Case:
    """The case of that id; the bump case where it is unknown."""
    return next((case for case in CASES if case.id == case_id), CASES[-1])
