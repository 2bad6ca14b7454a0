"""``manage.py shop``: the server of a shop, over https on its own network."""

import io
import os
import ssl
from typing import Any

import segno
from cryptography import x509
from cryptography.hazmat.primitives import hashes
from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError, CommandParser

from nodulant_server.actions.people import first_invitation
from nodulant_server.floor.certificates import certificates, inside, own_addresses
from nodulant_server.floor.upkeep import missing
from nodulant_server.management.commands.serve import serve
from nodulant_server.models import Member
from nodulant_server.shops import shop_named


class Command(BaseCommand):
    """Serve until stopped."""

    help = "Serve this shop over https on its own network, with workers, copies and a page to trust it."

    def add_arguments(self, parser: CommandParser) -> None:
        """Ports and addresses."""
        parser.add_argument("--port", type=int, default=8443)
        parser.add_argument("--trust-port", type=int, default=8480, help="plain page that hands out the authority")
        parser.add_argument("--address", action="append", help="an address of this machine; all of them unless given")
        parser.add_argument("--processes", type=int)

    def handle(self, *args: str, **options: Any) -> None:  # noqa: ANN401
        """Prepare, say where it is, and serve."""
        port, trust_port = options["port"], options["trust_port"]
        addresses = tuple(options["address"] or own_addresses())
        if outside := [a for a in addresses if not inside(a)]:
            raise CommandError(
                f"{', '.join(outside)}: not an address inside a building; put a proxy in front of 'serve'"
            )
        made = certificates(settings.DATA / "tls", addresses)
        url, trust = f"https://{addresses[0]}:{port}/", f"http://{addresses[0]}:{trust_port}/"
        authority = x509.load_pem_x509_certificate(made.authority.read_bytes())
        fingerprint = authority.fingerprint(hashes.SHA256()).hex(":")
        settings.ALLOWED_HOSTS = [*settings.ALLOWED_HOSTS, *addresses]
        settings.SESSION_COOKIE_SECURE = settings.CSRF_COOKIE_SECURE = True
        call_command("migrate", verbosity=0, interactive=False)
        say = self.stdout.write
        say(f"Nodulant is at {url}\nEach device trusts it once: open {trust}")
        drawn = io.StringIO()
        segno.make(trust).terminal(out=drawn, compact=True)
        say(drawn.getvalue())
        say(f"The authority's fingerprint: {fingerprint}")
        if words := missing():
            self.stderr.write(words)
        if not Member.objects.filter(role="owner", disabled_at=None).exists():
            say(f"Nobody owns this shop yet. Whoever opens this link does: {url}join/{first_invitation(shop_named())}")
        self.stdout.flush()
        told = ["0.0.0.0", str(trust_port), str(made.authority), url, fingerprint]
        serve(
            [f"0.0.0.0:{port}"],
            options["processes"],
            upkeep=["upkeep", "--parent", str(os.getpid()), "--trust", *told],
            certfile=str(made.certificate),
            keyfile=str(made.key),
            ssl_context=_context,
        )


def _context(config: Any, default: Any) -> ssl.SSLContext:  # noqa: ANN401
    context: ssl.SSLContext = default()
    context.minimum_version = ssl.TLSVersion.TLSv1_2
    return context
