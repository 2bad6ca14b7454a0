"""Stand-ins as small TCP services on the loopback address, one port each."""

import random
import socketserver
import threading
import time

from nodulant_server.instruments.stand_in import Scenario, StandIn, stand_ins


class _Lines(socketserver.StreamRequestHandler):
    """One connection: a line in, a line out."""

    def handle(self) -> None:
        """Until the other end hangs up."""
        server = self.server
        if not isinstance(server, Service):
            return
        for raw in self.rfile:
            answer = server.answered(raw.decode("ascii", "replace"))
            self.wfile.write(f"{answer}\n".encode("ascii", "replace"))


class Service(socketserver.ThreadingTCPServer):
    """One stand-in; connections share its state, as people share an instrument."""

    allow_reuse_address = True
    daemon_threads = True

    def __init__(self, own: StandIn, port: int = 0) -> None:
        """Listen on a port of the loopback address, any free one where it is 0."""
        super().__init__(("127.0.0.1", port), _Lines)
        self._own, self._turn = own, threading.Lock()

    def answered(self, line: str) -> str:
        """One at a time."""
        with self._turn:
            return self._own.answer(line, time.monotonic())

    @property
    def url(self) -> str:
        """By which it is reached."""
        return f"socket://127.0.0.1:{self.server_address[1]}"


def started(told: Scenario, first_port: int = 0) -> dict[str, Service]:
    """All stand-ins of a scenario, each listening in a thread of its own."""
    out = {}
    for k, (name, own) in enumerate(stand_ins(told, random.randrange(1 << 30)).items()):
        service = Service(own, first_port + k if first_port else 0)
        threading.Thread(target=service.serve_forever, daemon=True, name=f"instrument {name}").start()
        out[name] = service
    return out
