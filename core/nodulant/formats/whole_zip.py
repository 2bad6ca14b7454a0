"""One ZIP for the bench and the plasma shop: patterns, gauges, paper, lists, assembly sheets and the model, and what each is."""

import hashlib
from collections.abc import Iterable
from dataclasses import dataclass

from nodulant.assembly.sheet import assembly_sheets
from nodulant.evaluate import Want, evaluate
from nodulant.formats.assembly_pdf import assembly_pdf
from nodulant.formats.dxf import Files, Unit, named_dxf, zipped
from nodulant.formats.heat_pdf import heat_pdf
from nodulant.formats.model_files import model_glb
from nodulant.formats.order_tables import order_csv, order_xlsx
from nodulant.formats.paper import Paper
from nodulant.formats.pattern_pdf import TitleBlock, pattern_pdf
from nodulant.formats.steps_pdf import steps_pdf
from nodulant.formats.tables_csv import gauges_csv, parts_csv, table_csv, welds_csv
from nodulant.formats.weld_symbol import Symbols, usual_symbols
from nodulant.gauges.collect import gauges_of
from nodulant.heat.plan import heat_plans
from nodulant.job.document import Inputs
from nodulant.model3d.whole import bodies_of
from nodulant.patterns.collect import patterns_of
from nodulant.patterns.pattern import Pattern
from nodulant.stock.order import order_list
from nodulant.units.inline import told_in

STEPS = Want(strips=False, parts=False, steps=True, readings=False)
WHAT = {
    "patterns/": "a plate or template to cut",
    "gauges/": "a gauge to cut",
    "patterns.pdf": "all patterns at 1:1: measure the bars before you cut",
    "gauges.pdf": "gauges that are cut flat, at 1:1",
    "gauges.csv": "every gauge with its size, and the step that asks for it",
    "assembly.pdf": "how each operation is put together",
    "welds.csv": "the weld map",
    "parts.csv": "the parts list with masses",
    "steps.pdf": "the build plan",
    "holds.pdf": "hold points to sign by hand",
    "heat.pdf": "welding in sequence: beads by number, waits, what they bend",
    "order.csv": "what to buy",
    "order.xlsx": "what to buy, with cut lists",
    "model.glb": "frame, plates and suspension in space, metres",
}


@dataclass(frozen=True)
class Choices:
    """How the files are made: paper, pairs once or both, unit of drawings, weld symbols as the unit system has them if None."""

    paper: Paper = "a4"
    once: bool = False
    unit: Unit = "mm"
    symbols: Symbols | None = None
    kerf_mm: float = 0.0
    """Cut lines of plates are the middle of a cut so wide; 0 to size."""


def whole_zip(inputs: Inputs, title: TitleBlock, choices: Choices) -> bytes:
    """Everything of a design that leaves as a file, but for its report; raises InputError and UnknownReference."""
    style = inputs.shop.style
    patterns = [told_in(p, style) for p in patterns_of(inputs.survey, inputs.design.operations)]
    gauges = gauges_of(inputs)
    flat = [told_in(g.pattern, style) for g in gauges if g.pattern is not None]
    sheets = [told_in(s, style) for s in assembly_sheets(inputs)]
    order, steps = order_list(inputs), evaluate(inputs, STEPS).steps
    names = {op.id: op.name for op in inputs.design.operations}

    def drawn(folder: str, own: Iterable[Pattern]) -> Files:
        made = named_dxf(own, title.job, title.tag, style, choices.unit, title.words, choices.kerf_mm)
        return {folder + name: data for name, data in made.items()}

    files = drawn("patterns/", patterns) | drawn("gauges/", flat)
    if patterns:
        files["patterns.pdf"] = pattern_pdf(patterns, choices.paper, title, once=choices.once)
    if flat:
        files["gauges.pdf"] = pattern_pdf(flat, choices.paper, title)
    files |= {
        "gauges.csv": gauges_csv(gauges, style),
        "assembly.pdf": assembly_pdf(sheets, choices.paper, title, style, choices.symbols or usual_symbols(style)),
        "welds.csv": welds_csv(sheets, style),
        "parts.csv": parts_csv(sheets, style),
        "steps.pdf": steps_pdf(title.job, title.words, steps, gauges, names, style),
        "holds.pdf": steps_pdf(title.job, title.words, steps, gauges, names, style, "holds"),
        "heat.pdf": heat_pdf(title.job, title.words, heat_plans(inputs), style),
        "order.csv": order_csv(order, style),
        "order.xlsx": order_xlsx(order, style),
        "model.glb": model_glb(bodies_of(inputs)),
    }
    return zipped({"contents.csv": _contents(files, title), **files})


def _contents(files: Files, title: TitleBlock) -> bytes:
    """Every file with what it is and the hash of what it holds; what all of them are of on top."""
    rows = [(title.words, "", "")]
    rows += [(name, _what(name), hashlib.sha256(data).hexdigest()) for name, data in files.items()]
    return table_csv(("file", "what", "sha256"), rows)


def _what(name: str) -> str:
    folder, slash, _ = name.partition("/")
    return WHAT[folder + slash]
