"""What templates hang on: a hole of the frame where it is, lines that outlive the cut, the front and the top as they lie.

Geometry by hand; DXF read back with ezdxf's own reader.
"""

import io

import ezdxf
from django.test import SimpleTestCase
from ezdxf.math import bulge_to_arc
from shapely import Polygon, box

from nodulant.formats.dxf import pattern_dxf
from nodulant.frame.model import placed_on, planned_state, route_on
from nodulant.patterns.collect import patterns_of
from nodulant.patterns.hung import REACH_MM
from nodulant.survey.vehicle import Feature
from nodulant.units.inline import told, told_in
from tests import fixtures as f
from tests.core.test_operations import made

CLIP = (2380.0, 105.0, 11.0)
"""Station, height over the underside and diameter of the demo's clip hole."""


def of(inputs):
    return {p.id: p for p in patterns_of(inputs.survey, inputs.design.operations)}


def round_holes(pattern, unit="mm"):
    """Centres and diameters of all circles on layer HOLE, from the file."""
    space = ezdxf.read(io.StringIO(pattern_dxf(pattern, unit).decode())).modelspace()
    out = []
    for own in space.query('LWPOLYLINE[layer=="HOLE"]'):
        points = own.get_points("xyb")
        if len(points) == 2 and all(abs(bulge) == 1 for *_, bulge in points):
            (x0, y0, bulge), (x1, y1, _) = points
            centre, _, _, radius = bulge_to_arc((x0, y0), (x1, y1), bulge)
            out.append((centre.x, centre.y, 2 * radius))
    return out


def lines_on(pattern, layer):
    """Upright lines of a layer as stations in the card's axes."""
    own = [s.outline for s in pattern.strokes if s.layer == layer and not s.outline.closed]
    return [o.vertices[0].x for o in own if o.vertices[0].x == o.vertices[1].x]


def edge_of(pattern):
    return next(s.outline for s in pattern.strokes if s.layer == "CUT")


def notched(**update):
    """The demo's notch alone."""
    both = f.with_notch(f.demo(), **update)
    return f.with_operations(both, both.design.operations[1])


def placed(inputs):
    ops = inputs.design.operations
    return placed_on(inputs.survey, ops, "left", planned_state(ops))[0]


def with_features(inputs, *features):
    own = tuple(x for x in inputs.survey.features if x.kind == "axle-line" or x.id == inputs.survey.datum.feature_id)
    own = tuple(x.model_copy(update={"kind": "other"}) for x in own)
    return f.with_survey(inputs, features=(*own, *features), crossmembers=())


class AHoleThatIsOnTheFrame(SimpleTestCase):
    """A fabricator puts a drill's shank through it and the template is where it belongs."""

    def test_it_is_cut_to_its_size_at_its_place_on_both_sides(self):
        x, up, across = CLIP
        for side, sign in (("left", 1), ("right", -1)):
            card = of(f.demo())[f"axle-notch/cut-template/{side}"]
            (line,) = {round(v, 6) for v in lines_on(card, "ETCH") if self.whole(card, v)}
            found = [(h[0] - line, h[1], h[2]) for h in round_holes(card) if h[2] > 5]
            self.assertEqual(len(found), 1)
            for value, wanted in zip(found[0], (sign * (x - 2610.0), up, across), strict=True):
                self.assertAlmostEqual(value, wanted, places=6)
            self.assertEqual(card.hangs_on, ("brake line clip hole",))

    @staticmethod
    def whole(card, x):
        """Whether an etched line runs over the whole height: the line that the template is centred on."""
        high = card.bounds()[3]
        return any(
            s.layer == "ETCH"
            and s.outline.bounds()[0] == x == s.outline.bounds()[2]
            and s.outline.bounds()[3] - s.outline.bounds()[1] > 0.99 * high
            for s in card.strokes
        )

    def test_an_inch_file_has_it_in_inches(self):
        card = of(f.demo())["axle-notch/cut-template/left"]
        self.assertTrue(any(abs(d - 11.0 / 25.4) < 1e-9 for *_, d in round_holes(card, "in")))

    def test_it_is_measured_from_the_line_and_from_the_edge(self):
        card = of(f.demo())["axle-notch/cut-template/left"]
        measured = {d.name: d.value_mm for d in card.dimensions if d.critical}
        self.assertAlmostEqual(measured["brake line clip hole from the line"], 230.0)
        self.assertAlmostEqual(measured["brake line clip hole from the lower edge"], 105.0)

    def test_the_card_reaches_for_it_and_no_farther_than_a_sheet(self):
        base = notched()
        start, end = placed(base).span.start_mm, placed(base).span.end_mm
        for gap, reached in ((REACH_MM - 1, True), (REACH_MM + 1, False)):
            x = start - gap
            hole = Feature(id="own", name="own hole", kind="hole", x_mm=x, height_mm=60.0, diameter_mm=14.0)
            card = of(with_features(base, hole))["axle-notch/cut-template/left"]
            self.assertEqual(bool(card.hangs_on), reached, gap)
            self.assertEqual(bool(card.missing), not reached)
            long = card.bounds()[2] - card.bounds()[0]
            self.assertEqual(long > end - start + REACH_MM, reached)

    def test_where_nothing_fixes_it_along_the_rail_it_says_what_to_survey(self):
        bare = with_features(notched())
        card = of(bare)["axle-notch/cut-template/left"]
        self.assertEqual(card.hangs_on, ())
        self.assertIn("survey a hole within 11 13/16", told(card.missing, "in16"))
        self.assertIn("survey a hole", " ".join(label.text for label in card.labels))
        note = pattern_dxf(told_in(card, "in16")).decode()
        self.assertIn("survey a hole within", note)

    def test_a_hole_where_the_card_is_cut_away_does_not_hold_it(self):
        gone = Feature(id="own", name="own hole", kind="hole", x_mm=2610.0, height_mm=20.0, diameter_mm=10.0)
        card = of(with_features(notched(), gone))["axle-notch/cut-template/left"]
        self.assertEqual(card.hangs_on, ())
        self.assertIn("survey a hole", card.missing)

    def test_a_hole_of_the_other_rail_does_not_hold_it(self):
        hole = Feature(
            id="own", name="own hole", kind="hole", side="right", x_mm=2500.0, height_mm=60.0, diameter_mm=14.0
        )
        cards = of(with_features(notched(), hole))
        self.assertEqual(cards["axle-notch/cut-template/left"].hangs_on, ())
        self.assertEqual(cards["axle-notch/cut-template/right"].hangs_on, ("own hole",))

    def test_a_line_across_the_rail_holds_it_too(self):
        at = Feature(id="own", name="front face of the bracket", kind="body-mount", x_mm=2500.0)
        card = of(with_features(notched(), at))["axle-notch/cut-template/left"]
        self.assertEqual(card.hangs_on, ("front face of the bracket",))

    def test_a_plate_over_a_hole_is_marked_where_it_lies_and_not_drilled(self):
        plate = of(f.demo())["box-rear/boxing/left"]
        self.assertEqual(plate.hangs_on, ("brake line clip hole",))
        rings = [s.outline for s in plate.strokes if s.layer == "ETCH" and s.outline.closed]
        self.assertEqual(len(rings), 1)
        x0, _, x1, _ = rings[0].bounds()
        self.assertAlmostEqual(x1 - x0, 11.0)
        self.assertFalse([h for h in round_holes(plate) if abs(h[2] - 11.0) < 0.1])

    def test_a_bracket_s_foot_says_how_far_too(self):
        where = {"anchor_id": "rear-axle", "offset_mm": -100.0}
        foot = of(f.with_operations(f.demo(), made("bracket", place=where)))["it/foot/left"]
        self.assertIn("brake line clip hole", foot.hangs_on[0])

    def test_a_plate_beside_a_hole_says_how_far(self):
        words = told(of(f.demo())["axle-notch/outer/left"].hangs_on[0], "mm")
        self.assertRegex(
            words, r"^front end [\d.]+ mm ahead of the middle of brake line clip hole, lower edge [\d.]+ mm below it$"
        )


class ACutFromAbove(SimpleTestCase):
    """The card's top edge is the rail's top: a cut from above opens there."""

    def test_the_cut_opens_at_the_top(self):
        cards = {way: of(notched(**{"from_": way}))["axle-notch/cut-template/left"] for way in ("below", "above")}
        high, gone = cards["below"].bounds()[3], {}
        for way, card in cards.items():
            outline = Polygon(edge_of(card).points(0.01))
            wide = card.bounds()[2]
            gone[way] = [box(0, low, wide, low + 5).difference(outline).area for low in (0, high - 5)]
        self.assertGreater(gone["below"][0], 100)
        self.assertAlmostEqual(gone["below"][1], 0, places=6)
        for one, other in zip(gone["below"], reversed(gone["above"]), strict=True):
            self.assertAlmostEqual(one, other, places=3)
        names = {way: {d.name for d in card.dimensions} for way, card in cards.items()}
        self.assertIn("width at the underside", names["below"])
        self.assertIn("width at the top", names["above"])


class WhereTheRailIsSawnThrough(SimpleTestCase):
    """A Z-step, a stretch, a splice or a jog is cut along a line: its card says which."""

    def each(self):
        for kind in ("z-step", "stretch", "splice", "narrow", "access-cut"):
            inputs = f.with_operations(f.demo(), made(kind))
            yield kind, inputs, of(inputs)[f"{inputs.design.operations[0].id}/cut-lines/left"]

    def test_there_is_a_slot_to_scribe_in_along_every_cut(self):
        for kind, inputs, card in self.each():
            with self.subTest(kind):
                slots = [s.outline for s in card.strokes if s.layer == "HOLE" and len(s.outline.vertices) == 4]
                op = inputs.design.operations[0]
                wanted = {"z-step": 2, "stretch": 1, "splice": 1, "narrow": 4, "access-cut": 3}[kind]
                self.assertEqual(len(slots), wanted, op.kind)
                high = card.bounds()[3]
                for slot in slots:
                    _, y0, _, y1 = slot.bounds()
                    self.assertTrue(y0 >= 0 and y1 <= high)

    def test_the_scribed_lines_say_how_far_the_ends_moved(self):
        for kind, inputs, card in self.each():
            if kind == "access-cut":
                continue
            with self.subTest(kind):
                ops = inputs.design.operations
                route = route_on(inputs.survey, ops, "left", planned_state(ops))
                start, end = placed(inputs).start_mm, placed(inputs).end_mm
                end = start if end - start < 2 else end
                dx = route.shift_at(end + 100)[0] - route.shift_at(start - 100)[0]
                words = told(next(t.text for t in card.labels if "after the weld" in t.text), "mm")
                self.assertIn(f"{end - start + 200 + dx:.0f} mm apart", words)
                self.assertEqual("higher" in words, kind == "z-step")

    def test_a_stretch_that_runs_to_the_rail_s_end_has_a_card_at_its_one_cut(self):
        card = of(f.job().inputs("step"))["narrow-front/cut-lines/left"]
        self.assertLess(card.bounds()[2] - card.bounds()[0], 800.0)
        words = told(card.after, "mm")
        self.assertIn("30 mm further out", words)
        self.assertNotIn("narrow-front/cut-lines-2/left", of(f.job().inputs("step")))

    def test_two_cuts_far_apart_have_a_card_each(self):
        span = {
            "start": {"anchor_id": "rear-axle", "offset_mm": -1500.0},
            "end": {"anchor_id": "rear-axle", "offset_mm": -500.0},
        }
        found = of(f.with_operations(f.demo(), made("narrow", **span)))
        first, second = (found[f"it/cut-lines{n}/left"] for n in ("", "-2"))
        self.assertIn("further in", told(first.after, "mm"))
        self.assertIn("further out", told(second.after, "mm"))

    def test_an_angled_cut_leans_as_it_is_cut(self):
        inputs = f.with_operations(f.demo(), made("z-step", cut_angle_deg=20.0))
        card = of(inputs)["it/cut-lines/left"]
        slot = next(s.outline for s in card.strokes if s.layer == "HOLE" and len(s.outline.vertices) == 4)
        (x0, y0), (x1, y1) = ((v.x, v.y) for v in slot.vertices[:2])
        self.assertAlmostEqual((x1 - x0) / (y1 - y0), 0.36397, places=4)


class BetweenNarrowedRails(SimpleTestCase):
    """A crossmember between rails that move inward loses as much at each end (by hand: 700 between, 30 a side)."""

    def test_its_end_has_a_card_with_the_line_to_saw_at(self):
        cards = {k: p for k, p in of(f.job().inputs("step")).items() if "/crossmember/" in k}
        self.assertEqual(len(cards), 2)
        self.assertEqual(len({p.title for p in cards.values()}), len(cards))
        for card in cards.values():
            (line,) = lines_on(card, "ETCH")
            self.assertAlmostEqual(line, 30.0)
            self.assertEqual(card.count, 2)
            self.assertIn("640 mm long", told(card.after, "mm"))

    def test_none_where_the_rails_go_apart_or_nothing_is_between(self):
        wider = f.with_operations(f.demo(), made("narrow", inward_mm=-20.0))
        self.assertFalse([k for k in of(wider) if "/crossmember/" in k])


class AsItLies(SimpleTestCase):
    """FRONT stands on a piece only where the front is to its left."""

    def test_a_crosswise_plate_says_so(self):
        for kind, role in (("bracket", "tabs"), ("axle-bracket", "axle-tabs")):
            inputs = f.with_operations(f.demo(), made(kind))
            for side in ("left", "right"):
                words = " ".join(t.text for t in of(inputs)[f"it/{role}/{side}"].labels)
                self.assertNotIn("FRONT", words)

    def test_it_says_how_many_are_cut(self):
        card = of(f.with_operations(f.demo(), made("bracket")))["it/tabs/left"]
        self.assertEqual(card.count, 2)
        self.assertIn("2 off", pattern_dxf(told_in(card, "mm")).decode())
