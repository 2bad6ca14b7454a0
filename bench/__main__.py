"""``python -m bench [--write]``: measure, print, and with --write keep the figures in docs/speeds.md."""

import os
import sys
import tempfile
from pathlib import Path

for name in ("OPENBLAS_NUM_THREADS", "OMP_NUM_THREADS", "MKL_NUM_THREADS"):
    os.environ[name] = "1"
os.environ.update(
    DJANGO_SETTINGS_MODULE="nodulant_server.settings",
    NODULANT_DEMO="1",
    NODULANT_DATA=tempfile.mkdtemp(prefix="nodulant-bench-"),
    DJANGO_ALLOW_ASYNC_UNSAFE="true",
)

import django  # noqa: E402

django.setup()

from bench import core_speeds, drag_latency, files, floor_speeds, load, nesting, proof_speeds, travel_speeds  # noqa: E402
from bench.measure import Figure  # noqa: E402

HEAD = """# Speeds

Written by `make bench`. Ratios and sizes are gated; milliseconds are recorded beside their wish, with the machine they
were measured on, because machines are shared and noisy.

| figure | measured | gate or wish | |
|---|---|---|---|
"""


def row(figure: Figure) -> str:
    """One line of the table."""
    gate = figure.budget and f"wish {figure.budget}"
    if figure.at_least is not None:
        gate = f"at least {figure.at_least:g}"
    if figure.at_most is not None:
        gate = f"at most {figure.at_most:g}"
    mark = "" if figure.at_least is None and figure.at_most is None else "holds" if figure.holds else "MISSED"
    return f"| {figure.name} | {figure.value:.3g} {figure.unit} | {gate} | {mark} |"


def main() -> int:
    """Measure all; exit status 1 where a gate is missed."""
    figures = (
        core_speeds.evaluation()
        + core_speeds.against_finite_elements()
        + core_speeds.frame_solve()
        + core_speeds.whole_frame()
        + nesting.nesting()
        + floor_speeds.floor()
        + proof_speeds.proof()
        + files.files()
        + travel_speeds.poses()
        + travel_speeds.bracket_map()
        + travel_speeds.steering()
        + drag_latency.drag()
        + load.load()
    )
    table = "\n".join(row(figure) for figure in figures)
    text = f"{HEAD}{table}\n\nMachine: {drag_latency.load()}.\n"
    print(text)
    if "--write" in sys.argv:
        (Path(__file__).resolve().parents[1] / "docs" / "speeds.md").write_text(text)
    return 0 if all(figure.holds for figure in figures) else 1


sys.exit(main())
