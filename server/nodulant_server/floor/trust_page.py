"""A plain page that hands out the shop's authority and says how to trust it; everything else leads to the https address."""

from functools import partial
from html import escape
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from pathlib import Path

FILE = "/nodulant-shop.crt"
PAGE = """<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<title>Trust this shop's server</title>
<style>body{{font:18px/1.5 sans-serif;max-width:40rem;margin:2rem auto;padding:0 1rem;background:#f6f3ea;color:#1c2430}}
a.big{{display:inline-block;padding:.8rem 1.2rem;background:#1f3d99;color:#fff;text-decoration:none;margin:.4rem 0}}
li{{margin:.5rem 0}}</style>
<h1>Trust this shop's server, once on each device</h1>
<p>The shop's server signs with an authority that was made on it and never left it. It can vouch for addresses inside a
building only, not for places on the internet.</p>
<p><a class="big" href="{file}">1. Get the authority's file</a></p>
<p>2. Tell the device to trust it:</p>
<ul><li><b>Android</b>: Settings, search for 'CA certificate', install it from the downloads.</li>
<li><b>iPhone, iPad</b>: Settings, 'Profile downloaded', install; then General, About, Certificate Trust Settings, turn it
on.</li><li><b>Windows</b>: open the file, Install, 'Trusted Root Certification Authorities'.</li>
<li><b>macOS</b>: open the file, Keychain Access, Trust, 'Always'.</li>
<li><b>Linux</b>: in the browser's settings, Certificates, Authorities, Import.</li></ul>
<p>Its fingerprint (SHA-256), to be compared with the one at the server: <code>{fingerprint}</code></p>
<p><a class="big" href="{url}">3. Go to the shop</a></p></html>"""


class _Handler(BaseHTTPRequestHandler):
    """Two answers, and one way on."""

    def __init__(self, *args: object, authority: Path, url: str, fingerprint: str) -> None:
        """Keep what is told."""
        self.authority, self.url, self.fingerprint = authority, url, fingerprint
        super().__init__(*args)  # type: ignore[arg-type]

    def do_GET(self) -> None:
        """The page, the file, or the way to the shop."""
        if self.path == "/":
            told = {"file": FILE, "url": escape(self.url), "fingerprint": self.fingerprint}
            self._send(200, "text/html; charset=utf-8", PAGE.format(**told).encode())
        elif self.path == FILE:
            self._send(200, "application/x-x509-ca-cert", self.authority.read_bytes())
        else:
            self.send_response(302)
            self.send_header("Location", self.url)
            self.end_headers()

    def _send(self, status: int, kind: str, content: bytes) -> None:
        self.send_response(status)
        self.send_header("Content-Type", kind)
        self.send_header("Content-Length", str(len(content)))
        self.end_headers()
        self.wfile.write(content)

    def log_message(self, *args: object) -> None:
        """Nothing worth a line."""


def trust_page(host: str, port: int, authority: Path, url: str, fingerprint: str) -> ThreadingHTTPServer:
    """The page's server, not started yet."""
    handler = partial(_Handler, authority=authority, url=url, fingerprint=fingerprint)
    server = ThreadingHTTPServer((host, port), handler)
    server.daemon_threads = True
    return server
