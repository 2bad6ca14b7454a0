"""Commands that write files of a job."""

import argparse
import sys
from datetime import date
from pathlib import Path
from typing import get_args

from nodulant.assembly.sheet import assembly_sheets
from nodulant.evaluate import evaluate
from nodulant.evaluate.clearances.kept_sweep import SweepOnFile, kept
from nodulant.evaluate.clearances.sweep import whole_sweep
from nodulant.formats.assembly_pdf import assembly_pdf
from nodulant.formats.dossier import Contents, dossier_pdf
from nodulant.formats.dxf import pattern_dxf
from nodulant.formats.heat_pdf import heat_pdf
from nodulant.formats.model_files import model_glb, model_stl
from nodulant.formats.nest_files import file_name, nest_csv, sheet_pattern
from nodulant.formats.order_tables import order_csv, order_xlsx
from nodulant.formats.paper import Paper
from nodulant.formats.pattern_pdf import TitleBlock, pattern_pdf
from nodulant.formats.steps_pdf import StepSheet, steps_pdf
from nodulant.formats.tables_csv import parts_csv, welds_csv
from nodulant.formats.weld_symbol import Symbols, usual_symbols
from nodulant.formats.whole_zip import Choices, whole_zip
from nodulant.gauges.collect import gauges_of
from nodulant.heat.plan import heat_plans
from nodulant.job.document import Inputs, JobFile
from nodulant.model3d.whole import bodies_of
from nodulant.patterns.collect import patterns_of
from nodulant.search.steps import to_the_end
from nodulant.stock.nesting.plan import nest
from nodulant.stock.order import order_list
from nodulant.units.inline import told, told_in


def written(arguments: argparse.Namespace, job: JobFile, inputs: Inputs) -> int:
    """Run the command that ``arguments`` name; returns the exit status. Raises OSError and NodulantError."""
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
