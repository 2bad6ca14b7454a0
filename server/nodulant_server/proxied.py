"""What a proxy in front says of who asks is taken from the proxies named in the settings, and from nobody else."""

from collections.abc import Callable

from django.conf import settings
from django.http import HttpRequest
from django.http.response import HttpResponseBase

TOLD = ("HTTP_X_FORWARDED_FOR", "HTTP_X_FORWARDED_PROTO", "HTTP_X_FORWARDED_HOST", "HTTP_FORWARDED")
GetResponse = Callable[[HttpRequest], HttpResponseBase]


def from_proxy(get_response: GetResponse) -> GetResponse:
    """Put the real client's address in place of the proxy's; where a stranger claims one, the claim is dropped."""

    def middleware(request: HttpRequest) -> HttpResponseBase:
        if settings.PROXY:
            if request.META.get("REMOTE_ADDR") in settings.PROXY:
                hops = [hop.strip() for hop in request.META.get("HTTP_X_FORWARDED_FOR", "").split(",") if hop.strip()]
                real = next((hop for hop in reversed(hops) if hop not in settings.PROXY), None)
                request.META["REMOTE_ADDR"] = real or request.META["REMOTE_ADDR"]
            else:
                for name in TOLD:
                    request.META.pop(name, None)
        return get_response(request)

    return middleware
