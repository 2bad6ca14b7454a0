"""Links as an angle finder and a tape read them; a drag link beside what it should follow."""

import math

from django.test import SimpleTestCase

from nodulant.evaluate import evaluate
from nodulant.evaluate.steering.steer_facts import _between
from nodulant.evaluate.suspensions.travel import moved
from tests.core.test_sweep import job


class Sizes(SimpleTestCase):
    def test_by_hand(self):
        """Lower link of the van: frame 1950, 330, -70; axle 0, 400, -75 from the hubs at 2610, -92.75."""
        inputs = job()
        own = next(t for t in evaluate(inputs).travel if t.axle == "rear")
        lower = next(x for x in own.links if x.path == "lower")
        along, across, up = 1950.0 - 2610.0, 330.0 - 400.0, -70.0 - (-75.0 + own.hub[2])
        self.assertAlmostEqual(lower.length_mm, math.sqrt(along**2 + across**2 + up**2))
        self.assertAlmostEqual(lower.side_deg, math.degrees(math.atan(up / abs(along))))
        self.assertAlmostEqual(lower.plan_deg, math.degrees(math.atan(abs(across / along))))
        self.assertFalse(lower.lateral)
        self.assertEqual({x.path for x in own.links}, {"upper", "lower"})

    def test_a_glance_has_them_too(self):
        """While a hand drags, the length beside the link is the one on the screen."""
        inputs = job()
        for axle in moved(inputs, glance=True).travel:
            whole = next(t for t in evaluate(inputs).travel if t.index == axle.index)
            self.assertEqual(axle.links, whole.links)

    def test_a_track_bar_lies_across(self):
        bars = [x for t in evaluate(job("brackmoor", "welded")).travel for x in t.links if x.path == "lateral.bar"]
        self.assertEqual([x.lateral for x in bars], [True])


class Parallel(SimpleTestCase):
    def test_angle_between_two_lines(self):
        for slope, other, off in ((0.0, 45.0, 45.0), (170.0, -10.0, 0.0), (89.0, -89.0, 2.0)):
            one, two = ((0.0, math.cos(math.radians(a)), math.sin(math.radians(a))) for a in (slope, other))
            self.assertAlmostEqual(_between(one, two, 1), off)
        self.assertIsNone(_between((1.0, 0.0, 0.0), (0.0, 1.0, 0.0), 1))

    def test_the_wagon_s_drag_link_beside_its_track_bar(self):
        """By hand from the two links' own heights and widths."""
        inputs = job("brackmoor", "welded")
        own = next(s for s in inputs.design.suspensions if s.axle == "front")
        travel = next(t for t in evaluate(inputs).travel if t.axle == "front")
        fact = next(x for x in travel.steer_facts if "track bar" in x.name)
        bar, gear = own.layout.lateral.bar, own.steering.gear
        hub = travel.hub
        rise = math.atan((bar.frame.z_mm - bar.axle.z_mm - hub[2]) / (bar.frame.y_mm - bar.axle.y_mm))
        drag = math.atan(
            (gear.box.arm_end.z_mm - gear.knuckle.z_mm - hub[2]) / (gear.box.arm_end.y_mm - gear.knuckle.y_mm)
        )
        self.assertAlmostEqual(fact.value, abs(math.degrees(rise - drag)), places=6)


class Lowest(SimpleTestCase):
    def test_the_van_s_lowest_bracket_by_hand(self):
        """Lower link's bracket: its tabs end half their width below the joint; the ground is a radius under the hubs."""
        inputs = job()
        own = next(t for t in evaluate(inputs).travel if t.axle == "rear")
        fact = next(x for x in own.facts if x.name == "Lowest bracket on the rails, over the ground")
        low = min(min(s.z) for s in own.solids if s.on == "frame")
        self.assertAlmostEqual(fact.value, low - (own.hub[2] - own.radius_mm))
        bracket = next(o for o in inputs.design.operations if o.id == "rear-lower-link-bracket")
        bolt = bracket.height_mm + bracket.tabs.lift_mm
        self.assertLessEqual(low, bolt)
        self.assertGreater(low, bolt - bracket.tabs.width_mm)
        self.assertIn(bracket.name, fact.words)


class OnTyres(SimpleTestCase):
    def test_two_springs_one_after_the_other(self):
        """Squares of the periods add: 1/f2 on the tyre less 1/f2 without is the tyre's own 4 pi2 m/k (textbook)."""
        inputs = job()
        rate = 220.0
        own = tuple(s.model_copy(update={"tyre_n_per_mm": rate}) for s in inputs.design.suspensions)
        told = inputs.model_copy(update={"design": inputs.design.model_copy(update={"suspensions": own})})
        stands = [w for t in evaluate(told).travel for w in t.stands if w.on_tyre_hz is not None]
        self.assertGreater(len(stands), 3)
        for stand in stands:
            mass = stand.load_n / 2 / 9.80665
            added = 4 * math.pi**2 * mass / (1000 * rate)
            self.assertAlmostEqual(1 / stand.on_tyre_hz**2 - 1 / stand.frequency_hz**2, added, places=9)
        self.assertFalse([w for t in evaluate(inputs).travel for w in t.stands if w.on_tyre_hz is not None])
