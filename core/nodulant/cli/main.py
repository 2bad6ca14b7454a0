"""``nodulant check``, ``handcheck``, ``patterns``, ``order``, ``nest``, ``assembly``, ``export``, ``everything``, ``report``: of a job file; and ``nodulant schema``.

Exit status: 0 nothing fails, 1 a check fails, 2 the file or the command cannot be read.
"""

import argparse
import json
import sys
from datetime import date
from pathlib import Path
from typing import get_args

from nodulant.assembly.sheet import assembly_sheets
from nodulant.base.errors import NodulantError
from nodulant.checks.groups import counts
from nodulant.checks.words import limit_in_words, place_in_words, rows_of, says
from nodulant.evaluate import Evaluation, InvalidInputs, evaluate
from nodulant.evaluate.clearances.kept_sweep import SweepOnFile, kept
from nodulant.evaluate.clearances.sweep import whole_sweep
from nodulant.formats.assembly_pdf import assembly_pdf
from nodulant.formats.dossier import Contents, dossier_pdf
from nodulant.formats.dxf import pattern_dxf
from nodulant.formats.handcheck_text import sheet_lines
from nodulant.formats.heat_pdf import heat_pdf
from nodulant.formats.jobfile import JobFileRefused, job_schema, load_job
from nodulant.formats.model_files import model_glb, model_stl
from nodulant.formats.nest_files import file_name, nest_csv, sheet_pattern
from nodulant.formats.order_tables import order_csv, order_xlsx
from nodulant.formats.paper import SIZES, Paper
from nodulant.formats.pattern_pdf import TitleBlock, pattern_pdf
from nodulant.formats.steps_pdf import StepSheet, steps_pdf
from nodulant.formats.tables_csv import parts_csv, welds_csv
from nodulant.formats.weld_symbol import Symbols, usual_symbols
from nodulant.formats.whole_zip import Choices, whole_zip
from nodulant.gauges.collect import gauges_of
from nodulant.handcheck import hand_check
from nodulant.heat.plan import heat_plans
from nodulant.job.document import Inputs
from nodulant.model3d.whole import bodies_of
from nodulant.patterns.collect import patterns_of
from nodulant.search.steps import to_the_end
from nodulant.stock.nesting.plan import nest
from nodulant.stock.order import order_list
from nodulant.units.inline import told, told_in, told_json
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
        arguments.out.mkdir(parents=True, exist_ok=True)
        if arguments.command == "patterns":
            return _patterns(job.name, inputs, arguments.out, arguments.paper, once=arguments.once)
        title = TitleBlock(job.name, "from a job file", inputs.content_hash(), inputs.content_hash()[:8])
        if arguments.command == "assembly":
            return _assembly(title, inputs, arguments.out, arguments.paper, arguments.symbols)
        if arguments.command == "export":
            return _export(inputs, arguments.out)
        if arguments.command == "steps":
            return _steps(job.name, inputs, arguments.out)
        if arguments.command == "everything":
            evaluate(inputs)
            made = whole_zip(inputs, title, Choices(arguments.paper, arguments.once))
            _write(arguments.out / "everything.zip", made)
            return 0
        if arguments.command == "order":
            return _order(inputs, arguments.out)
        if arguments.command == "nest":
            return _nest(inputs, arguments.out)
        return _report(job.name, arguments.option or job.options[0].id, inputs, arguments.out)
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


def _patterns(name: str, inputs: Inputs, out: Path, paper: Paper, *, once: bool) -> int:
    evaluate(inputs)
    found = [told_in(p, inputs.shop.style) for p in patterns_of(inputs.survey, inputs.design.operations)]
    block = TitleBlock(name, "from a job file", inputs.content_hash())
    for pattern in found:
        _write(out / f"{pattern.id.replace('/', '-')}.dxf", pattern_dxf(pattern, of=block.words))
    _write(out / f"patterns-{paper}.pdf", pattern_pdf(found, paper, block, once=once))
    return 0


def _order(inputs: Inputs, folder: Path) -> int:
    order, style = order_list(inputs), inputs.shop.style
    for name, data in (("order.csv", order_csv(order, style)), ("order.xlsx", order_xlsx(order, style))):
        (folder / name).write_bytes(data)
        print(folder / name)
    return 0


def _nest(inputs: Inputs, folder: Path) -> int:
    """One DXF a sheet and a table; status 1 where a plate is left out."""
    evaluate(inputs)
    plan, style = to_the_end(nest(inputs)), inputs.shop.style
    for k, sheet in enumerate(plan.sheets, 1):
        _write(folder / file_name(sheet, k, style), pattern_dxf(told_in(sheet_pattern(sheet), style)))
    _write(folder / "sheets.csv", nest_csv(plan, style))
    for one in plan.left_out:
        print(told(f"left out: {one.name}, {one.side}: {one.words}", style), file=sys.stderr)
    return 1 if plan.left_out else 0


def _assembly(title: TitleBlock, inputs: Inputs, out: Path, paper: Paper, symbols: Symbols | None) -> int:
    evaluate(inputs)
    style = inputs.shop.style
    sheets = [told_in(sheet, style) for sheet in assembly_sheets(inputs)]
    _write(out / f"assembly-{paper}.pdf", assembly_pdf(sheets, paper, title, style, symbols or usual_symbols(style)))
    _write(out / "welds.csv", welds_csv(sheets, style))
    _write(out / "parts.csv", parts_csv(sheets, style))
    return 0


def _steps(name: str, inputs: Inputs, out: Path) -> int:
    steps, gauges = evaluate(inputs).steps, gauges_of(inputs)
    names = {op.id: op.name for op in inputs.design.operations}
    for sheet in get_args(StepSheet):
        made = steps_pdf(name, "from a job file", steps, gauges, names, inputs.shop.style, sheet)
        _write(out / f"steps-{sheet}.pdf", made)
    _write(out / "heat.pdf", heat_pdf(name, "from a job file", heat_plans(inputs), inputs.shop.style))
    return 0


def _export(inputs: Inputs, out: Path) -> int:
    evaluate(inputs)
    bodies = bodies_of(inputs)
    _write(out / "model.glb", model_glb(bodies))
    _write(out / "model.stl", model_stl(bodies))
    return 0


def _report(name: str, option: str, inputs: Inputs, out: Path) -> int:
    of = Contents(
        job=name,
        option=option,
        revision="from a job file",
        author="nodulant report",
        day=date.today().isoformat(),
        inputs=inputs,
        swept=_swept_now(inputs),
    )
    _write(out / "report.pdf", dossier_pdf(of))
    _write(out / "report-short.pdf", dossier_pdf(of, short=True))
    return 0


def _swept_now(inputs: Inputs) -> SweepOnFile:
    """A sweep for this very paper."""
    swept = kept(inputs, whole_sweep(inputs))
    return SweepOnFile(revision=None, at="", by="nodulant report", fresh=True, swept=swept)


def _write(path: Path, data: bytes) -> None:
    path.write_bytes(data)
    print(path)


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
