"""The instruments that this shop's server can ask, by their ids: from ``NODULANT_INSTRUMENTS``, 'id=url id=url'."""

from functools import cache

from django.conf import settings

from nodulant.asbuilt.instruments import INSTRUMENTS
from nodulant_server.instruments.port import LinePort


@cache
def attached() -> dict[str, LinePort]:
    """Ports by id; what is no instrument of the list is left out."""
    known, out = {i.id: i for i in INSTRUMENTS}, dict[str, LinePort]()
    for told in str(getattr(settings, "INSTRUMENTS", "")).split():
        id_, _, url = told.partition("=")
        if id_ in known and url:
            own = known[id_]
            out[id_] = LinePort(own.name, url, own.unit, own.metric)
    return out
