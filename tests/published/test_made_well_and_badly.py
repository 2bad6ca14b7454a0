"""Conventional work, made well and made badly, each with the reckoning or the trade's rule that decides it.

A rail of 150 x 60 x 5 mm mild channel: I = 4.07e6 mm4, S = 54 900 mm3 (rounded corners), yield 248 MPa: 13.6 kN m.
The van's own worst moment in a 3 g bump is 4.0 kN m in one rail: a factor of 3.4 (statics of a beam on two axles).
Rules of the trade are common practice; standards are from memory.
"""

from django.test import SimpleTestCase

from nodulant.evaluate import evaluate
from nodulant.job.document import Design
from tests import fixtures as f
from tests.core.test_operations import made

AHEAD = {"anchor_id": "front-hanger", "offset_mm": -700.0}


def span(start, end, anchor="rear-axle"):
    return {
        "start": {"anchor_id": anchor, "offset_mm": float(start)},
        "end": {"anchor_id": anchor, "offset_mm": float(end)},
    }


def on_the_van(*operations):
    """Work on the van as it came: on its own springs."""
    return f.demo().model_copy(update={"design": Design(operations=operations)})


def notch_with(**update):
    """The demo's arc notch in its boxed rail, changed."""
    return f.with_notch(f.demo(), **update)


def plated(**update):
    return f.demo().design.operations[1].outer_plate.model_copy(update=update)


def boxing(id_, start, end, **more):
    return made("boxing", id=id_, **span(start, end), thickness_mm=5.0, fit="flush", **more)


def stepped(*boxes, **more):
    plate = {"thickness_mm": 5.0, "overlap_mm": 260.0, "end": "diamond", "inset_mm": 0.0}
    place = {"anchor_id": "rear-axle", "offset_mm": -1000.0}
    return on_the_van(made("z-step", place=place, rise_mm=75.0, **{"outer_plate": plate, **more}), *boxes)


WELL = {
    # nothing is cut: no ratio can fall, and no factor below stock's
    "nothing": on_the_van,
    # a closed cell: J from 1.06e4 to 3.3e6 mm4 (Bredt), I a tenth more
    "boxed from end to end": lambda: on_the_van(boxing("b", -3200.0, 850.0)),
    # 5 mm of plate on a web adds I; its ends are tapered and lie where M is a third of the peak
    "plate on the web": lambda: on_the_van(made("plate", face="outer", **span(-1500.0, -900.0))),
    # I lost: 5 x 30^3 / 12 = 11 250 mm4 of 4.07e6; 60 mm of web stay above and below (common practice: twice the hole)
    "loom hole in mid-web": lambda: on_the_van(
        made("hole", place=AHEAD, height_mm=75.0, diameter_mm=30.0, liner_mm=None)
    ),
    # depth 58 of 150, lined, plated and boxed: half of stock's S where M is half of the peak: factor 3.4 stays 3.4
    "arc notch, lined and plated in a boxed rail": f.demo,
    "straight-sided notch": lambda: f.demo("straight"),
    # thicker plates than the arc needs
    "arc notch with 6 mm plates": lambda: notch_with(outer_plate=plated(thickness_mm=6.0, overlap_mm=260.0)),
    # a post of the rail's own size, plated, in a rail closed ahead of it and behind it
    "step in a boxed rail": lambda: stepped(boxing("b1", -1700.0, -1001.0), boxing("b2", -849.0, -300.0)),
    # 5 kN on a foot 120 x 90 with 5 mm fillets: 2 x 120 x 0.707 x 5 x 145 = 123 kN in shear
    "bracket for 5 kN": lambda: on_the_van(
        made("bracket", place=AHEAD, height_mm=75.0, along_n=5_000.0, thickness_mm=8.0, weld_leg_mm=5.0)
    ),
    # one tie more never softens a ladder
    "one crossmember more": lambda: on_the_van(
        made("crossmember", act="add", place={"anchor_id": "rear-axle", "offset_mm": -700.0})
    ),
    # a patch as thick as the wall it lets in
    "patch of the wall's own thickness": lambda: on_the_van(made("repair", thickness_mm=5.0)),
    # half an inch more overlap than the van's own plate: more metal past the cut never fails it
    "longer overlap": lambda: notch_with(outer_plate=plated(overlap_mm=250.0)),
}
BADLY = {
    # what is left is 40 mm of web and a flange: S falls to a twentieth
    "110 mm deep and left open": (
        lambda: on_the_van(made("notch", place=AHEAD, depth_mm=110.0, shape={"kind": "arc", "radius_mm": 110.0})),
        {"capacity-least"},
    ),
    # an overlap of 60 mm brings in half a plate (rail height past the cut, common practice)
    "plate that ends at the cut": (lambda: notch_with(outer_plate=plated(overlap_mm=60.0)), {"overlap"}),
    # AWS D1.1 table 5.7: 3 mm or more on 5 mm of metal
    "leg of 1.5 mm": (lambda: notch_with(outer_plate=plated(weld_leg_mm=1.5)), {"leg-least"}),
    # a sharp corner is where the crack begins (common practice: drill 12 mm)
    "sharp corners": (
        lambda: on_the_van(
            made(
                "notch",
                place=AHEAD,
                depth_mm=30.0,
                shape={"kind": "trapezoid", "top_width_mm": 80.0, "mouth_width_mm": 100.0, "corner_radius_mm": 1.0},
            )
        ),
        {"corner-radius"},
    ),
    # a hole of 30 with its edge 5 mm from the flange
    "hole beside the flange": (
        lambda: on_the_van(made("hole", place=AHEAD, height_mm=22.0, diameter_mm=30.0, liner_mm=None)),
        {"hole-edge"},
    ),
    # 20 kN on 2 mm legs and a 3 mm foot
    "flimsy bracket": (
        lambda: on_the_van(
            made("bracket", place=AHEAD, height_mm=75.0, along_n=20_000.0, thickness_mm=3.0, weld_leg_mm=2.0)
        ),
        {"weld-group", "rail-wall", "tab-bending", "leg-least", "edge-distance", "tab-hole"},
    ),
    # an upright butt from one side: a third of the wall is not through
    "step with a bare butt": (
        lambda: stepped(outer_plate=None, weld="one-sided"),
        {"throat", "joint-panel", "accident-use"},
    ),
    # marked by its maker: do not weld, cut or drill
    "heat-treated rail": (lambda: on_steel("heat-treated"), {"weldable"}),
    # the tube comes up through what is left
    "too shallow for the axle": (lambda: notch_with(depth_mm=40.0), {"notch-depth", "metal-clearance", "bump-travel"}),
    # 25 mm of liner bent to a radius of 60
    "liner too thick to bend": (lambda: notch_with(liner=f.liner(25.0)), {"liner-bend"}),
    # bolts through a box without sleeves: preload bends the walls in
    "bolted through a box without sleeves": (
        lambda: on_the_van(
            boxing("b", -1200.0, 500.0),
            made(
                "bracket",
                place={"anchor_id": "rear-axle", "offset_mm": -700.0},
                height_mm=75.0,
                along_n=4000.0,
                fixing="bolted",
            ),
        ),
        {"sleeve-there"},
    ),
    # four times the payload over a notch: M of 4 kN m becomes 10
    "overloaded": (lambda: heavy(6.0), {"use-limit", "case-limit", "accident-use", "use-peak"}),
}


def on_steel(steel):
    rails = f.demo().survey.rails
    return f.with_survey(
        f.demo(), rails=rails.model_copy(update={"left": rails.left.model_copy(update={"steel_id": steel})})
    )


def heavy(times):
    """The bare arc notch, open, under a payload so many times as heavy."""
    inputs = notch_with(liner=None, outer_plate=None)
    inputs = f.with_operations(inputs, inputs.design.operations[1])
    masses = tuple(m.model_copy(update={"mass_kg": m.mass_kg * times}) for m in inputs.survey.masses)
    return f.with_survey(inputs, masses=masses)


#: rows that the van's own notch answers, which a job without it cannot
OF_THE_AXLE = frozenset({"metal-clearance", "bump-travel", "notch-depth", "notch-width", "drop-sum", "survey-complete"})


class Judged(SimpleTestCase):
    def failing(self, inputs):
        return {c.limit_id for c in evaluate(inputs).checks if c.verdict == "fails"}

    def test_what_is_made_well_passes(self):
        for name, job in WELL.items():
            with self.subTest(name):
                self.assertEqual(self.failing(job()) - OF_THE_AXLE, set())

    def test_what_is_made_badly_fails_for_its_own_reason(self):
        for name, (job, reasons) in BADLY.items():
            with self.subTest(name):
                self.assertTrue(self.failing(job()) & reasons)
