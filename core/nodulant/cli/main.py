"""``nodulant check FILE [--option ID] [--json]`` and ``nodulant schema``.

Exit status: 0 nothing fails, 1 a check fails, 2 the file or the command cannot be read.
"""

import argparse
import json
import sys
from pathlib import Path

from nodulant.base.errors import NodulantError
from nodulant.checks.check import Check
from nodulant.evaluate import InvalidInputs, evaluate
from nodulant.formats.jobfile import JobFileRefused, job_schema, load_job


def main(argv: list[str] | None = None) -> int:
    """Run one command; returns the exit status."""
    parser = argparse.ArgumentParser(prog="nodulant", description="Evaluate Nodulant job files.")
    commands = parser.add_subparsers(dest="command", required=True)
    check = commands.add_parser("check", help="print every check of a job file")
    check.add_argument("file", type=Path)
    check.add_argument("--option", help="id of the option (the first one by default)")
    check.add_argument("--json", action="store_true", help="print JSON")
    commands.add_parser("schema", help="print the JSON Schema of job files")
    arguments = parser.parse_args(argv)
    if arguments.command == "schema":
        print(json.dumps(job_schema(), indent=1))
        return 0
    return _check(arguments.file, arguments.option, arguments.json)


def _check(path: Path, option: str | None, as_json: bool) -> int:
    try:
        result = evaluate(load_job(path.read_bytes()).inputs(option))
    except OSError as error:
        return _refuse([f"{path}: {error.strerror}"])
    except JobFileRefused as error:
        return _refuse(
            [f"{p.pointer or '/'}: {p.message}; found {p.found}, expected {p.expected}" for p in error.problems]
        )
    except InvalidInputs as error:
        return _refuse([_line(problem) for problem in error.problems])
    except NodulantError as error:
        return _refuse([_line(error)])
    if as_json:
        print(json.dumps([c.model_dump() for c in result.checks], indent=1))
    else:
        print(table(result.checks))
    return 1 if any(c.verdict == "fails" for c in result.checks) else 0


def _line(error: NodulantError) -> str:
    return f"{error.field or '/'}: {error.message}; found {error.found}, expected {error.acceptable}"


def _refuse(lines: list[str]) -> int:
    print("\n".join(lines), file=sys.stderr)
    return 2


def table(checks: tuple[Check, ...]) -> str:
    """Checks as a plain table: verdict, id, value, limit, margin, place, basis."""
    rows = [("verdict", "check", "value", "limit", "margin", "governs", "basis")]
    rows += [
        (
            c.verdict,
            c.id,
            _number(c.value),
            f"{'>=' if c.direction == 'at-least' else '<='} {c.limit:g} {c.unit}",
            _number(c.margin),
            _place(c),
            c.basis,
        )
        for c in checks
    ]
    widths = [max(len(row[i]) for row in rows) for i in range(6)]
    return "\n".join(
        "  ".join([*(cell.ljust(w) for cell, w in zip(row, widths, strict=False)), row[6]]) for row in rows
    )


def _number(value: float | None) -> str:
    return "-" if value is None else f"{value:.3f}"


def _place(check: Check) -> str:
    g = check.governs
    parts = [
        f"x {g.station_mm:.0f} mm" if g.station_mm is not None else "",
        f"travel {g.pose_mm:.0f} mm" if g.pose_mm is not None else "",
        g.case or "",
    ]
    return ", ".join(part for part in parts if part) or (
        "missing " + ", ".join(check.missing) if check.missing else "-"
    )
