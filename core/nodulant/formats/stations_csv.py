"""Rail stations from CSV: columns x, underside, height, width, wall, rust lost, in any order of the head line.

A head may carry a unit: ``x mm``, ``height in``. Values may be typed as on a tape. Errors
name the line.
"""

import csv
import io

from pydantic import ValidationError

from nodulant.base.errors import InputError, UnreadableQuantity
from nodulant.formats.problems import Problem, problems_of
from nodulant.survey.rail import Station
from nodulant.units import parse_quantity
from nodulant.units.inline import as_length

FIELDS = {
    "x": "x_mm",
    "station": "x_mm",
    "underside": "underside_z_mm",
    "z": "underside_z_mm",
    "height": "height_mm",
    "width": "width_mm",
    "wall": "wall_mm",
    "rust": "rust_loss_mm",
}
HEAD = "x, underside, height, width, wall"
LIMIT_LINES = 400


class StationsRefused(InputError):
    """A CSV that is not taken; ``problems`` point at its lines."""

    code = "stations-refused"

    def __init__(self, problems: list[Problem]) -> None:
        """Keep every line's problem; the message is the first one's."""
        super().__init__(
            problems[0].message, field=problems[0].pointer, found=problems[0].found, acceptable=problems[0].expected
        )
        self.problems = problems


def read_stations(text: str, unit: str = "mm") -> tuple[Station, ...]:
    """Stations in the file's order; ``unit`` holds where neither head nor value names one."""
    delimiter = ";" if text.split("\n", 1)[0].count(";") else ","
    rows = list(csv.reader(io.StringIO(text), delimiter=delimiter))
    if not rows:
        raise StationsRefused([Problem(pointer="/line/1", message="the file is empty", found="", expected=HEAD)])
    columns = _head(rows[0], unit)
    stations: list[Station] = []
    problems: list[Problem] = []
    for number, row in enumerate(rows[1:], start=2):
        if any(cell.strip() for cell in row):
            _line(number, row, columns, stations, problems)
    if not problems and not 2 <= len(stations) <= LIMIT_LINES:
        problems.append(
            Problem(
                pointer="/line/1",
                message=f"{len(stations)} stations",
                found=str(len(stations)),
                expected=f"2 to {LIMIT_LINES}",
            )
        )
    if problems:
        raise StationsRefused(problems)
    return tuple(stations)


def _head(cells: list[str], unit: str) -> list[tuple[str, str]]:
    columns = []
    for number, cell in enumerate(cells, start=1):
        words = cell.strip().lower().split()
        if not words or words[0] not in FIELDS:
            raise StationsRefused(
                [
                    Problem(
                        pointer="/line/1", message=f"column {number} has no known head", found=cell[:40], expected=HEAD
                    )
                ]
            )
        columns.append((FIELDS[words[0]], words[1].strip("()") if len(words) > 1 else unit))
    missing = {"x_mm", "underside_z_mm", "height_mm", "width_mm"} - {name for name, _ in columns}
    if missing:
        raise StationsRefused(
            [Problem(pointer="/line/1", message="a column is missing", found=", ".join(cells)[:80], expected=HEAD)]
        )
    return columns


def _line(
    number: int, row: list[str], columns: list[tuple[str, str]], stations: list[Station], problems: list[Problem]
) -> None:
    values: dict[str, float] = {}
    for (name, unit), cell in zip(columns, row, strict=False):
        if name in {"wall_mm", "rust_loss_mm"} and not cell.strip():
            continue
        try:
            values[name] = parse_quantity(cell, "length", unit).value
        except UnreadableQuantity as error:
            problems.append(
                Problem(
                    pointer=f"/line/{number}",
                    message=f"{name.removesuffix('_mm')}: {error.message}",
                    found=cell[:40],
                    expected=error.acceptable,
                )
            )
            return
    try:
        station = Station.model_validate(values)
    except ValidationError as error:
        problems += [p.model_copy(update={"pointer": f"/line/{number}"}) for p in problems_of(error)]
        return
    if stations and station.x_mm <= stations[-1].x_mm:
        problems.append(
            Problem(
                pointer=f"/line/{number}",
                message="this station does not lie behind the one before",
                found=as_length(station.x_mm),
                expected=f"more than {as_length(stations[-1].x_mm)}",
            )
        )
        return
    stations.append(station)
