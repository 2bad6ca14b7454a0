"""Proof: a large tape network, the as-built solve with its corrections, the dossier."""

import math
import time

import numpy as np
from tests import fixtures as f

from bench.measure import Figure, median_ms
from nodulant.asbuilt.log import ReadingEntry
from nodulant.asbuilt.network import Taped, adjust
from nodulant.evaluate import evaluate
from nodulant.evaluate.suspensions.travel import suspension_studies
from nodulant.formats.dossier import dossier_pdf
from nodulant.job.document import AsBuilt
from nodulant.proof.built import axles_as_built

OFF = {"rear-links/lower-length/left": 3.0, "rear-links/lower-length/right": -2.0, "front-wheel/camber/left": 0.9}


def proof() -> list[Figure]:
    """Of the demo's step option."""
    inputs = f.job().inputs("step")
    plan = {r.id: r.spec for r in evaluate(inputs).readings}
    entries = tuple(
        ReadingEntry(
            number=n,
            at="2026-11-20T10:00:00+00:00",
            by="ada",
            operation=id_.split("/")[0],
            key=id_.split("/")[1],
            side="left" if id_.endswith("left") else "right",
            value=plan[id_].planned + off,
            unit=plan[id_].unit,
        )
        for n, (id_, off) in enumerate(OFF.items(), 1)
    )
    read = inputs.model_copy(update={"as_built": AsBuilt(entries=entries)})
    asked, studies = list(evaluate(read).readings), suspension_studies(f.demo("step"))
    began = time.perf_counter()
    paper = dossier_pdf(f.dossier_of(read))
    took = time.perf_counter() - began
    return [
        Figure("tape network, 30 points and 90 lengths", median_ms(_network, 10), "ms", budget="20 ms"),
        Figure(
            "as built solved, corrections tried",
            median_ms(lambda _: axles_as_built(asked, studies, {}), 5),
            "ms",
            budget="500 ms",
        ),
        Figure("dossier of the Wherry", took, "s", budget="15 s"),
        Figure("dossier of the Wherry", len(paper) / 1000, "kB"),
    ]


def _network(seed: int) -> None:
    """Fifteen pairs, taped to the next two, lengths new each time so that nothing is remembered."""
    rng = np.random.default_rng(seed)
    plan = {f"{i}{s}": (230.0 * i, y) for i in range(15) for s, y in (("L", -400.0), ("R", 400.0))}
    pairs = [(f"{i}L", f"{i}R") for i in range(15)]
    for away in (1, 2, 3):
        for i in range(15 - away):
            j = i + away
            pairs += [(f"{i}L", f"{j}L"), (f"{i}R", f"{j}R"), (f"{i}L", f"{j}R")]
    taped = tuple(Taped(a, b, math.dist(plan[a], plan[b]) + rng.normal(), 1.0) for a, b in pairs[:90])
    adjust(plan, taped)
