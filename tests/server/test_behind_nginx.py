"""Debian's nginx in front, with a certificate of our own making: https is known as such, and who really asks too."""

import http.client
import json
import os
import shutil
import socket
import ssl
import subprocess
import sys
import tempfile
import time
from pathlib import Path

from django.conf import settings
from django.test import SimpleTestCase

from nodulant_server.floor.certificates import certificates
from tests.server.base import of_sqlite

WORD = "a-word-nobody-guesses"
CONF = """
worker_processes 1; pid {folder}/nginx.pid; error_log {folder}/error.log; daemon off;
events {{ worker_connections 64; }}
http {{
  access_log off; client_body_temp_path {folder}; proxy_temp_path {folder}; fastcgi_temp_path {folder};
  uwsgi_temp_path {folder}; scgi_temp_path {folder};
  server {{
    listen 127.0.0.1:{front} ssl; ssl_certificate {tls}/server.crt; ssl_certificate_key {tls}/server.key;
    location / {{
      proxy_pass http://127.0.0.1:{back}; proxy_http_version 1.1; proxy_buffering off;
      proxy_set_header Host $http_host; proxy_set_header X-Forwarded-Proto $scheme;
      proxy_set_header X-Forwarded-For $proxy_add_x_forwarded_for;
    }}
  }}
}}
"""


def free_port():
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        return free.getsockname()[1]


@of_sqlite
class BehindNginx(SimpleTestCase):
    def setUp(self):
        nginx = shutil.which("nginx") or "/usr/sbin/nginx"
        self.assertTrue(Path(nginx).exists(), "nginx is missing: run bin/ensure-nginx")
        self.folder = Path(self.enterContext(tempfile.TemporaryDirectory(ignore_cleanup_errors=True)))
        self.front, self.back = free_port(), free_port()
        made = certificates(self.folder / "tls", ("127.0.0.1",))
        self.context = ssl.create_default_context(cafile=made.authority)
        own = {name: value for name, value in os.environ.items() if not name.startswith(("DJANGO_", "NODULANT_"))}
        told = {"NODULANT_DATA": str(self.folder / "data"), "NODULANT_TLS": "1", "NODULANT_PROXY": "127.0.0.1"}
        self.environment = {**own, **told, "NODULANT_DEMO": "1"}
        self.manage("migrate", "--verbosity", "0")
        self.manage("add_person", "nell", "owner", "--password", WORD)
        serve = ["serve", "--port", str(self.back), "--processes", "1", "--workers-elsewhere"]
        self.start([sys.executable, str(Path(settings.ROOT) / "manage.py"), *serve])
        (self.folder / "nginx.conf").write_text(
            CONF.format(folder=self.folder, tls=self.folder / "tls", front=self.front, back=self.back)
        )
        self.start([nginx, "-p", str(self.folder), "-c", str(self.folder / "nginx.conf")])
        for _ in range(300):
            try:
                if self.ask("GET", "/")[0] == 200:
                    return
            except OSError:
                pass
            time.sleep(0.2)
        self.fail((self.folder / "error.log").read_text())

    def manage(self, *command):
        subprocess.run([sys.executable, str(Path(settings.ROOT) / "manage.py"), *command], env=self.environment, check=True,
                       stdout=subprocess.DEVNULL)  # fmt: skip

    def start(self, command):
        process = subprocess.Popen(command, env=self.environment, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
        self.addCleanup(process.wait)
        self.addCleanup(process.terminate)

    def ask(self, method, path, body=None, **headers):
        """An answer over https: status, headers, content."""
        line = http.client.HTTPSConnection(
            "127.0.0.1", self.front, context=self.context, timeout=60, source_address=("127.0.0.3", 0)
        )
        sent = None if body is None else json.dumps(body)
        line.request(method, path, sent, {"Content-Type": "application/json", **headers})
        answer = line.getresponse()
        found = answer.status, answer.headers, answer.read()
        line.close()
        return found

    def test_https_is_known_as_such_and_the_real_client_is_noted(self):
        _, headers, _ = self.ask("GET", "/")
        self.assertIn("max-age", headers["Strict-Transport-Security"])
        cookies = headers.get_all("Set-Cookie")
        self.assertTrue(cookies and all("Secure" in cookie for cookie in cookies), cookies)
        self.assertNotIn("gunicorn", headers.get("Server", ""))
        session = json.loads(self.ask("GET", "/api/session")[2])
        self.assertEqual((session["user"], session["demo"]), (None, False), "the demo signs in nobody behind a proxy")
        token = next(c for c in cookies if c.startswith("csrftoken=")).split(";")[0]
        csrf = {"Cookie": token, "X-CSRFToken": token.split("=")[1]}
        ours = f"https://127.0.0.1:{self.front}"
        body = {"name": "nell", "password": WORD}
        status, _, told = self.ask("POST", "/api/session/sign-in", body, **csrf, Origin="https://elsewhere.example")
        self.assertEqual(status, 403, told)
        forged = {"X-Forwarded-For": "10.9.9.9"}
        status, headers, told = self.ask(
            "POST", "/api/session/sign-in", body, **csrf, **forged, Origin=ours, Referer=f"{ours}/"
        )
        self.assertEqual(status, 200, told)
        kept = "; ".join(c.split(";")[0] for c in headers.get_all("Set-Cookie"))
        self.assertTrue(all("Secure" in c for c in headers.get_all("Set-Cookie")))
        audit = json.loads(self.ask("GET", "/api/audit", Cookie=kept)[2])
        self.assertEqual((audit[0]["what"], audit[0]["address"]), ("signed in", "127.0.0.3"))
