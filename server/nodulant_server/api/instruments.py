"""Instruments that this shop's server can ask: what they read now."""

from typing import Annotated

from django.http import Http404, HttpRequest
from ninja import Router
from pydantic import Field

from nodulant.base.model import Frozen
from nodulant.parts.measure import Measure
from nodulant_server.api.access import acting
from nodulant_server.instruments.here import attached
from nodulant_server.instruments.port import LinePort, LiveReading
from nodulant_server.roles import require

router = Router()


class Attached(Frozen):
    """An instrument that can be asked."""

    id: str
    name: str
    unit: Measure


Held = Annotated[str, Field(pattern=r"^[a-z0-9/_:-]{1,160}$")]
Share = Annotated[float, Field(ge=-1, le=1)]


class HeldBody(Frozen):
    """Where it is held: the reading's id and its plan, which a stand-in makes its answer of."""

    at: Held
    planned: Annotated[float, Field(ge=-1e5, le=1e5)]
    to: Held | None = None
    """The other end of a length between two marks, with its direction from ``at`` in plan."""
    rearward: Share = 0.0
    rightward: Share = 0.0

    @property
    def where(self) -> str:
        """As a stand-in is told it."""
        return self.at if self.to is None else f"{self.at}>{self.to}@{self.rearward:.5f},{self.rightward:.5f}"


@router.get("/instruments", response=list[Attached])
def instruments(request: HttpRequest) -> list[Attached]:
    """What can be asked; empty in a shop without any."""
    return [Attached(id=k, name=p.name, unit=p.unit) for k, p in attached().items()]


@router.post("/instruments/{id_}/read", response=LiveReading)
def read(request: HttpRequest, id_: str, body: HeldBody) -> LiveReading:
    """What it reads now, and whether it has come to rest."""
    return _port(request, id_).read(f"{body.where} {body.planned:.6f}")


@router.post("/instruments/{id_}/zero", response=Attached)
def zero(request: HttpRequest, id_: str) -> Attached:
    """Take what it reads now as zero."""
    port = _port(request, id_)
    port.zero()
    return Attached(id=id_, name=port.name, unit=port.unit)


def _port(request: HttpRequest, id_: str) -> LinePort:
    require(acting(request), "log")
    port = attached().get(id_)
    if port is None:
        raise Http404
    return port
