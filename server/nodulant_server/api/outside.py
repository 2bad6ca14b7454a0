"""What stands outside: the cutting table looks at laid-out sheets, the steel yard answers the order list."""

from django.http import HttpRequest
from ninja import Router

from nodulant.formats.dxf import pattern_dxf
from nodulant.formats.nest_files import sheet_pattern
from nodulant.stock.order import order_list
from nodulant.units.inline import told_in
from nodulant_server.api.compute import drafted
from nodulant_server.api.files import current
from nodulant_server.api.search_bodies import NestFilesBody, OrderBody
from nodulant_server.outside.here import TABLE, YARD
from nodulant_server.outside.port import TableAnswer, YardAnswer, YardStock

router = Router()


@router.post("/options/{option_id}/table", response=list[TableAnswer])
def at_the_table(request: HttpRequest, option_id: int, body: NestFilesBody) -> list[TableAnswer]:
    """What the cutting table makes of every laid-out sheet, each by its own drawing."""
    _, inputs = current(request, option_id)
    kerf = inputs.shop.rack.kerf_mm if body.torch else 0.0
    drawn = (told_in(sheet_pattern(sheet), inputs.shop.style) for sheet in body.plan.sheets)
    return [
        TABLE.look(sheet.name, pattern_dxf(drawing, body.unit, kerf_mm=kerf), sheet.thickness_mm)
        for sheet, drawing in zip(body.plan.sheets, drawn, strict=True)
    ]


@router.get("/yard", response=YardStock)
def yard_stock(request: HttpRequest) -> YardStock:
    """What the yard has."""
    return YARD.stock()


@router.post("/yard/order", response=YardAnswer)
def yard_order(request: HttpRequest, body: OrderBody) -> YardAnswer:
    """A draft's order list as the yard answers it."""
    inputs = drafted(request, body.job_id, body.design, body.survey)
    return YARD.take(order_list(inputs, plan=body.plan), inputs.shop.rates.currency)
