"""What leaves an option as a file: patterns, report, checklist, tables."""

from dataclasses import asdict
from typing import Literal

from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Query, Router

from nodulant.assembly.sheet import assembly_sheets
from nodulant.evaluate import evaluate
from nodulant.formats.assembly_pdf import assembly_pdf
from nodulant.formats.checklist_pdf import checklist_pdf
from nodulant.formats.dxf import Unit, named_dxf, pattern_dxf, zipped
from nodulant.formats.heat_pdf import heat_pdf
from nodulant.formats.model_files import model_glb, model_stl
from nodulant.formats.nest_files import nest_zip
from nodulant.formats.order_tables import order_csv, order_xlsx
from nodulant.formats.paper import Paper
from nodulant.formats.pattern_pdf import TitleBlock, pattern_pdf
from nodulant.formats.steps_pdf import StepSheet, steps_pdf
from nodulant.formats.svg import pattern_svg
from nodulant.formats.tables_csv import checks_csv, gauges_csv, parts_csv, readings_csv, welds_csv
from nodulant.formats.weld_symbol import Symbols, usual_symbols
from nodulant.formats.whole_zip import Choices
from nodulant.gauges.collect import gauges_of
from nodulant.heat.plan import heat_plans
from nodulant.job.document import Inputs
from nodulant.model3d.whole import bodies_of
from nodulant.parts.cope import Cope
from nodulant.patterns.collect import patterns_of
from nodulant.patterns.cope import cope_wrap
from nodulant.stock.order import OrderList, order_list
from nodulant.units.inline import told_in
from nodulant_server.actions.log import inputs_of
from nodulant_server.api.access import acting, option_of
from nodulant_server.api.compute import BARE
from nodulant_server.api.problems import problem
from nodulant_server.api.search_bodies import LaidOutBody, NestFilesBody
from nodulant_server.heavy.port import paper as in_one_piece
from nodulant_server.models import Option

router = Router()


def current(request: HttpRequest, option_id: int) -> tuple[Option, Inputs]:
    """The newest stored revision of an option, with the job's newest survey and log: what papers and signatures are of."""
    option = option_of(request, option_id)
    return option, inputs_of(option.job, option.head().design())


def revision_words(option: Option) -> str:
    """What a paper is of."""
    return f"{option.name}, revision {option.head().number}, survey {option.job.survey_head().number}"


def _title(option: Option, inputs: Inputs) -> TitleBlock:
    tag = f"r{option.head().number}-s{option.job.survey_head().number}"
    return TitleBlock(option.job.name, revision_words(option), inputs.content_hash(), tag)


@router.get("/options/{option_id}/everything.zip")
def everything(
    request: HttpRequest,
    option_id: int,
    paper: Paper = "a4",
    unit: Unit = "mm",
    once: bool = False,
    symbols: Symbols | None = None,
    torch: bool = False,
) -> HttpResponse:
    """All files of an option as it stands in one ZIP: patterns, gauges, paper, lists, assembly sheets, model."""
    option, inputs = current(request, option_id)
    evaluate(inputs, BARE)
    title = _title(option, inputs)
    choices = Choices(paper, once, unit, symbols, inputs.shop.rack.kerf_mm if torch else 0.0)
    asked = {"title": asdict(title), "choices": asdict(choices)}
    made = in_one_piece("everything", acting(request), option.job_id, inputs, **asked)
    return _file(made, "application/zip", f"everything-{option.key}-{title.tag}.zip")


@router.get("/options/{option_id}/patterns.{kind}")
def pattern_file(
    request: HttpRequest,
    option_id: int,
    kind: str,
    id: str = "",
    paper: Paper = "a4",
    unit: Unit = "mm",
    once: bool = False,
    torch: bool = False,
) -> HttpResponse:
    """Patterns as files: ``dxf`` or ``svg`` of one pattern, ``pdf`` of one or all, ``zip`` of every DXF.

    With ``once`` a pair that is one turned over is on paper once; for a ``torch`` lines are the middle of the rack's cut.
    """
    option, inputs = current(request, option_id)
    evaluate(inputs)
    style = inputs.shop.style
    found = [told_in(p, style) for p in patterns_of(inputs.survey, inputs.design.operations) if not id or p.id == id]
    if not found or kind not in {"dxf", "svg", "pdf", "zip"} or (kind in {"dxf", "svg"} and len(found) != 1):
        return problem(404, "not-found", "there is no such pattern")
    name, block = (id or "patterns").replace("/", "-"), _title(option, inputs)
    kerf = inputs.shop.rack.kerf_mm if torch else 0.0
    if kind == "pdf":
        return _file(pattern_pdf(found, paper, block, once=once), "application/pdf", f"{name}-{paper}.pdf")
    if kind == "zip":
        made = zipped(named_dxf(found, block.job, block.tag, style, unit, block.words, kerf))
        return _file(made, "application/zip", f"{name}-{unit}.zip")
    if kind == "dxf":
        return _file(pattern_dxf(found[0], unit, block.words, kerf, style), "image/vnd.dxf", f"{name}.dxf")
    return _file(pattern_svg(found[0]), "image/svg+xml", f"{name}.svg")


@router.get("/options/{option_id}/assembly.pdf")
def assembly_file(
    request: HttpRequest, option_id: int, paper: Paper = "a4", symbols: Symbols | None = None
) -> HttpResponse:
    """Assembly sheets of an option as it stands: an operation a page; weld symbols as chosen, or as its unit system has them."""
    option, inputs = current(request, option_id)
    evaluate(inputs)
    style = inputs.shop.style
    block = _title(option, inputs)
    sheets = [told_in(sheet, style) for sheet in assembly_sheets(inputs)]
    made = assembly_pdf(sheets, paper, block, style, symbols or usual_symbols(style))
    return _file(made, "application/pdf", f"assembly-{option.key}-{paper}.pdf")


@router.get("/options/{option_id}/cope.{kind}")
def cope_file(
    request: HttpRequest, option_id: int, kind: Literal["dxf", "svg", "pdf"], cope: Query[Cope], paper: Paper = "a4"
) -> HttpResponse:
    """The wrap of a coped tube at 1:1; its sizes in the query, mm and degrees."""
    option, inputs = current(request, option_id)
    title, own = _title(option, inputs), told_in(cope_wrap(cope), inputs.shop.style)
    if kind == "pdf":
        return _file(pattern_pdf([own], paper, title), "application/pdf", f"cope-{option.key}.pdf")
    if kind == "svg":
        return _file(pattern_svg(own), "image/svg+xml", f"cope-{option.key}.svg")
    return _file(pattern_dxf(own, of=title.words), "image/vnd.dxf", f"cope-{option.key}.dxf")


@router.get("/options/{option_id}/model.{kind}")
def model_file(request: HttpRequest, option_id: int, kind: Literal["glb", "stl"]) -> HttpResponse:
    """The planned frame, what is added and its suspension in space: glTF in metres, y up, or STL in mm, z up."""
    option, inputs = current(request, option_id)
    evaluate(inputs, BARE)
    bodies = bodies_of(inputs)
    if kind == "glb":
        return _file(model_glb(bodies), "model/gltf-binary", f"model-{option.key}.glb")
    return _file(model_stl(bodies), "model/stl", f"model-{option.key}.stl")


@router.get("/options/{option_id}/report.pdf")
def report(request: HttpRequest, option_id: int, short: bool = False) -> HttpResponse:
    """The dossier of an option as it stands, or the inspector's four pages."""
    option, inputs = current(request, option_id)
    asked = {**_dossier_of(request, option), "short": short}
    made = in_one_piece("report", acting(request), option.job_id, inputs, **asked)
    return _file(made, "application/pdf", f"{'inspection' if short else 'dossier'}-{option.key}.pdf")


@router.get("/options/{option_id}/dossier.zip")
def dossier(request: HttpRequest, option_id: int) -> HttpResponse:
    """The dossier with the inspector's paper, the open job file and every photo."""
    option, inputs = current(request, option_id)
    made = in_one_piece("dossier", acting(request), option.job_id, inputs, **_dossier_of(request, option))
    return _file(made, "application/zip", f"dossier-{option.key}.zip")


def _dossier_of(request: HttpRequest, option: Option) -> dict[str, object]:
    """Who has it made, when, of which revision, and where the job is read on screen."""
    return {
        "option_id": option.pk,
        "revision": revision_words(option),
        "author": acting(request).name,
        "day": timezone.localdate().isoformat(),
        "address": request.build_absolute_uri(f"/jobs/{option.job_id}"),
    }


@router.get("/options/{option_id}/checklist.pdf")
def survey_checklist(request: HttpRequest, option_id: int) -> HttpResponse:
    """The survey's checklist on paper."""
    option, inputs = current(request, option_id)
    return _file(checklist_pdf(option.job.name, inputs), "application/pdf", f"survey-{option.job.pk}.pdf")


@router.get("/options/{option_id}/steps.pdf")
def printed_steps(request: HttpRequest, option_id: int, sheet: StepSheet = "plan") -> HttpResponse:
    """The build plan of an option as it stands, or a part of it: what is open, hold points, cautions."""
    option, inputs = current(request, option_id)
    made = steps_pdf(
        option.job.name,
        revision_words(option),
        evaluate(inputs).steps,
        gauges_of(inputs),
        {op.id: op.name for op in inputs.design.operations},
        inputs.shop.style,
        sheet,
    )
    return _file(made, "application/pdf", f"{sheet}-{option.key}.pdf")


@router.get("/options/{option_id}/heat.pdf")
def welding_sequence(request: HttpRequest, option_id: int) -> HttpResponse:
    """How every operation of an option is welded: beads by number on both rails, waits, what they bend."""
    option, inputs = current(request, option_id)
    made = heat_pdf(option.job.name, revision_words(option), heat_plans(inputs), inputs.shop.style)
    return _file(made, "application/pdf", f"heat-{option.key}.pdf")


@router.get("/options/{option_id}/order.{kind}")
def order_file(request: HttpRequest, option_id: int, kind: str) -> HttpResponse:
    """The order list of an option as it stands; ``xlsx`` has the cut lists too."""
    option, inputs = current(request, option_id)
    return _order_file(order_list(inputs), kind, option.key, inputs)


def _order_file(order: OrderList, kind: str, key: str, inputs: Inputs) -> HttpResponse:
    if kind not in {"csv", "xlsx"}:
        return problem(404, "not-found", "the list is there as csv and xlsx")
    style = inputs.shop.style
    if kind == "csv":
        return _file(order_csv(order, style), "text/csv; charset=utf-8", f"order-{key}.csv")
    sheet = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"
    return _file(order_xlsx(order, style), sheet, f"order-{key}.xlsx")


@router.post("/options/{option_id}/order.{kind}")
def nested_order(request: HttpRequest, option_id: int, kind: str, body: LaidOutBody) -> HttpResponse:
    """The same list with plates by the sheets that they were laid out on."""
    option, inputs = current(request, option_id)
    return _order_file(order_list(inputs, plan=body.plan), kind, option.key, inputs)


@router.post("/options/{option_id}/nest.zip")
def nest_files(request: HttpRequest, option_id: int, body: NestFilesBody) -> HttpResponse:
    """Laid-out sheets, one DXF each, and what lies on which as a table."""
    option, inputs = current(request, option_id)
    made = nest_zip(body.plan, inputs.shop.style, body.unit, inputs.shop.rack.kerf_mm if body.torch else 0.0)
    return _file(made, "application/zip", f"sheets-{option.key}-{body.unit}.zip")


@router.get("/options/{option_id}/{table}.csv")
def tables(
    request: HttpRequest, option_id: int, table: Literal["checks", "readings", "gauges", "welds", "parts"]
) -> HttpResponse:
    """Checks, readings, gauges, weld map or parts list of an option as it stands, for a sheet of one's own."""
    option, inputs = current(request, option_id)
    style = inputs.shop.style
    if table == "gauges":
        return _file(gauges_csv(gauges_of(inputs), style), "text/csv; charset=utf-8", f"gauges-{option.key}.csv")
    if table in {"welds", "parts"}:
        sheets = assembly_sheets(inputs)
        data = welds_csv(sheets, style) if table == "welds" else parts_csv(sheets, style)
        return _file(data, "text/csv; charset=utf-8", f"{table}-{option.key}.csv")
    result = told_in(evaluate(inputs), style)
    data = checks_csv(result, style) if table == "checks" else readings_csv(result, style)
    return _file(data, "text/csv; charset=utf-8", f"{table}-{option.key}.csv")


def _file(data: bytes, content_type: str, name: str) -> HttpResponse:
    response = HttpResponse(data, content_type=content_type)
    response["Content-Disposition"] = f'attachment; filename="{name}"'
    return response
