"""What the application says to an instrument, and what it takes for an answer.

Lines of ASCII, ended by a line feed. Asked: ``WHAT``, ``ZERO``, ``READ`` (what follows READ says where it is held,
for stand-ins; a real instrument need not look at it). Answered: ``= <number> <unit>``, ``= <words>``, or ``! <why not>``.
Any pyserial URL will do: a device's name, ``socket://host:port``, ``rfc2217://..``.
"""

import contextlib
import threading
import time
from collections.abc import Iterator

import serial

from nodulant.base.errors import NodulantError
from nodulant.base.model import Frozen
from nodulant.parts.measure import Measure

SILENT_S = 1.5
TRIES = 2
LONGEST = 120
SAMPLES = 5
APART_S = 0.03


class InstrumentTrouble(NodulantError, OSError):
    """An instrument that does not answer, answers what cannot be read, or refuses."""

    code = "instrument"


class LiveReading(Frozen):
    """The middle of some readings in a row, how far they scatter, and whether it has come to rest."""

    value: float
    unit: Measure
    spread: float
    resolution: float
    settled: bool
    """Whether these few lie within its step; who asks again and again looks whether they stay there."""


class LinePort:
    """One instrument at a pyserial URL; opened when it is first asked, and anew after trouble."""

    def __init__(self, name: str, url: str, unit: Measure, resolution: float) -> None:
        """Nothing is opened yet."""
        self.name, self.url, self.unit, self.resolution = name, url, unit, resolution
        self._lock = threading.Lock()
        self._open: serial.Serial | None = None

    def what(self) -> str:
        """What it says it is."""
        return self._asked("WHAT")

    def zero(self) -> None:
        """Take what it reads now as zero."""
        self._asked("ZERO")

    def read(self, where: str) -> LiveReading:
        """Some readings in a row; raises InstrumentTrouble."""
        values = []
        for k in range(SAMPLES):
            time.sleep(APART_S if k else 0.0)
            values.append(self._number(self._asked(f"READ {where}")))
        values.sort()
        spread = values[-1] - values[0]
        return LiveReading(
            value=values[len(values) // 2],
            unit=self.unit,
            spread=spread,
            resolution=self.resolution,
            settled=spread <= 2 * self.resolution,
        )

    def _number(self, answer: str) -> float:
        number, _, unit = answer.partition(" ")
        try:
            value = float(number)
        except ValueError:
            raise self._trouble("sends what is no reading", answer) from None
        if unit != self.unit or not abs(value) < 1e6:
            raise self._trouble("sends what is no reading", answer)
        return value

    def _asked(self, line: str) -> str:
        """The answer's words; a line that was broken is opened anew once."""
        last = ""
        for _ in range(TRIES):
            with self._lock, self._at() as port:
                try:
                    port.reset_input_buffer()
                    port.write(f"{line}\n".encode("ascii"))
                    answer = port.read_until(b"\n", LONGEST).decode("ascii", "replace").strip()
                except (OSError, ValueError) as error:
                    last = str(error)
                    self._shut()
                    continue
                if not answer:
                    self._shut()
                    last = "no answer"
                    continue
            if answer.startswith("! "):
                raise InstrumentTrouble(
                    f"the {self.name} refuses: {answer[2:]}",
                    field="/instrument",
                    found=answer[2:],
                    acceptable=answer[2:],
                )
            if not answer.startswith("= "):
                raise self._trouble("sends what is no reading", answer)
            return answer[2:]
        raise self._trouble("does not answer", last)

    @contextlib.contextmanager
    def _at(self) -> Iterator[serial.Serial]:
        if self._open is None:
            try:
                opened = serial.serial_for_url(self.url, timeout=SILENT_S, write_timeout=SILENT_S)
                self._open = opened
            except (OSError, ValueError) as error:
                raise self._trouble("cannot be reached", str(error)) from error
        yield self._open

    def _shut(self) -> None:
        if self._open is not None:
            with contextlib.suppress(OSError):
                self._open.close()
            self._open = None

    def _trouble(self, words: str, found: str) -> InstrumentTrouble:
        return InstrumentTrouble(
            f"the {self.name} {words}",
            field="/instrument",
            found=found[:60],
            acceptable="look at its plug and its battery, or type what it shows; it is asked anew next time",
        )
