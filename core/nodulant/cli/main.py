"""``nodulant check``, ``handcheck``, ``patterns``, ``order``, ``nest``, ``assembly``, ``export``, ``everything``, ``report``: of a job file; and ``nodulant schema``.

Exit status: 0 nothing fails, 1 a check fails, 2 the file or the command cannot be read.
"""

import argparse
import json
import sys
from pathlib import Path

from nodulant.base.errors import NodulantError
from nodulant.checks.groups import counts
from nodulant.checks.words import limit_in_words, place_in_words, rows_of, says
from nodulant.evaluate import Evaluation, InvalidInputs, evaluate
from nodulant.formats.handcheck_text import sheet_lines
from nodulant.formats.jobfile import JobFileRefused, job_schema, load_job
from nodulant.formats.paper import SIZES
from nodulant.handcheck import hand_check
from nodulant.job.document import Inputs
from nodulant.units.inline import told, told_json
from nodulant.units.show import Style

WIDEST = 70
"""Letters of a column of the table, beyond which its rows run on."""


def main(argv: list[str] | None = None) -> int:
    """Run one command; returns the exit status."""
    parser = argparse.ArgumentParser(prog="nodulant", description="Evaluate Nodulant job files.")
    commands = parser.add_subparsers(dest="command", required=True)
    check = commands.add_parser("check", help="print every check of a job file, one cause after the other")
    check.add_argument("file", type=Path)
    check.add_argument("--option", help="id of the option (the first one by default)")
    check.add_argument("--json", action="store_true", help="print JSON")
    sheet = commands.add_parser("handcheck", help="print the engineer's hand-check sheet")
    sheet.add_argument("file", type=Path)
    sheet.add_argument("--option", help="id of the option (the first one by default)")
    sheet.add_argument("--json", action="store_true", help="print JSON")
    for name, what in (
        ("patterns", "write every pattern as DXF and one 1:1 PDF"),
        ("order", "write the order list and cut lists as CSV and XLSX"),
        ("nest", "lay the plates out on the shop's offcuts and sheets, one DXF a sheet"),
        ("assembly", "write assembly sheets as PDF, the weld map and the parts list as CSV"),
        ("steps", "write the build plan, its hold points, cautions and welding sequence as PDF"),
        ("export", "write frame, plates and suspension in space as glTF and STL"),
        ("everything", "write one ZIP of all patterns, gauges, lists, sheets and the model"),
        ("report", "write the report as PDF"),
    ):
        own = commands.add_parser(name, help=what)
        own.add_argument("file", type=Path)
        own.add_argument("--option", help="id of the option (the first one by default)")
        own.add_argument("--out", type=Path, default=Path("."), help="folder to write into")
        if name not in {"patterns", "assembly", "everything"}:
            continue
        own.add_argument("--paper", choices=tuple(SIZES), default="a4")
        if name == "assembly":
            own.add_argument("--symbols", choices=("iso", "aws"), help="weld symbols (by the unit system by default)")
            continue
        own.add_argument("--once", action="store_true", help="print mirrored pairs once: turn over for the other side")
    commands.add_parser("schema", help="print the JSON Schema of job files")
    arguments = parser.parse_args(argv)
    if arguments.command == "schema":
        print(json.dumps(job_schema(), indent=1))
        return 0
    return _guarded(arguments)


def _guarded(arguments: argparse.Namespace) -> int:
    """Run a command on a file; every refusal is words on standard error and status 2."""
    try:
        job = load_job(arguments.file.read_bytes())
        inputs = job.inputs(arguments.option)
        if arguments.command == "check":
            return _check(inputs, arguments.json)
        if arguments.command == "handcheck":
            return _handcheck(inputs, arguments.json)
        # what writes files needs libraries that take longer to load than a check to run
        from nodulant.cli.written import written  # noqa: PLC0415

        return written(arguments, job, inputs)
    except OSError as error:
        return _refuse([f"{error.filename}: {error.strerror}"])
    except JobFileRefused as error:
        return _refuse(
            [f"{p.pointer or '/'}: {p.message}; found {p.found}, expected {p.expected}" for p in error.problems]
        )
    except InvalidInputs as error:
        return _refuse([_line(problem) for problem in error.problems])
    except NodulantError as error:
        return _refuse([_line(error)])


def _check(inputs: Inputs, as_json: bool) -> int:
    result = evaluate(inputs)
    if as_json:
        found = {
            "counts": counts(result.groups),
            "groups": [g.model_dump() for g in result.groups],
            "checks": [c.model_dump() for c in result.checks],
        }
        print(told_json(json.dumps(found, indent=1), inputs.shop.style))
    else:
        print(told(table(result, inputs.shop.style), inputs.shop.style))
        print(", ".join(f"{n} {verdict}" for verdict, n in counts(result.groups).items()))
    return 1 if counts(result.groups)["fails"] else 0


def _handcheck(inputs: Inputs, as_json: bool) -> int:
    sheet = hand_check(inputs)
    style = inputs.shop.style
    if as_json:
        print(told_json(sheet.model_dump_json(indent=1), style))
    else:
        print(told("\n".join(sheet_lines(sheet, style)), style))
    return 0


def _line(error: NodulantError) -> str:
    return f"{error.field or '/'}: {error.message}; found {error.found}, expected {error.acceptable}"


def _refuse(lines: list[str]) -> int:
    print(told("\n".join(lines), "mm"), file=sys.stderr)
    return 2


def table(result: Evaluation, style: Style) -> str:
    """Checks as a plain table, one cause after the other: verdict, what happens where, value, limit, place, basis."""
    rows = [("verdict", "check", "says", "limit", "where", "basis")]
    for group in result.groups:
        for k, (check, title) in enumerate(rows_of(group, result.checks, style)):
            lead, limit = "  and " if k else "", limit_in_words(check, style)
            rows.append(
                (check.verdict, lead + title, says(check, style), limit, place_in_words(check, style), check.basis)
            )
    widths = [min(max(len(row[i]) for row in rows), WIDEST) for i in range(5)]
    return "\n".join("  ".join([*(c.ljust(w) for c, w in zip(row, widths, strict=False)), row[5]]) for row in rows)
