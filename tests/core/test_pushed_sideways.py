"""Cornering comes into the frame where links and track bar bear on it, with the torque of their height (statics)."""

import numpy as np
from django.test import SimpleTestCase

from nodulant.evaluate import evaluate
from nodulant.frame.ops.mounts.bracket import Bracket
from nodulant.frame.ops.mounts.tabs import Tabs
from nodulant.frame.place import Place
from nodulant.job.document import Inputs
from nodulant.job.fresh.layouts import LAYOUTS
from nodulant.job.fresh.suspension import fresh_suspension
from nodulant.loads import case_loads
from nodulant.loads.plan import Pull
from nodulant.loads.pulls import put_on
from nodulant.remedies.patch import patched
from nodulant.suspension.on_frame import pushed_sideways
from nodulant.suspension.study import study
from tests import fixtures as f
from tests.core.test_operations import made
from tests.core.test_remedies import remedies
from tests.core.test_space_cases import frame, load, on_frame
from tests.core.test_springs_beside import OUTSIDE, TIE, factor, on_coils

ON_LINKS = ("triangulated", "parallel", "three-link", "ladder", "torque-arm")
BAR_MM = 2750.0
"""Station of the track bar's bracket on the right rail."""
STRONG = TIE.model_copy(update={"x_mm": BAR_MM, "profile": "channel", "height_mm": 100.0, "wall_mm": 5.0})


def barred(z: float, y: float = 305.0, **own) -> Inputs:
    """The van on a parallel four-link with its coils over the rails' shear centres, the track bar's bracket at a height."""
    inputs = on_coils(OUTSIDE, **own)
    axle = fresh_suspension(inputs, "rear", "parallel", before=False)
    bar = axle.layout.lateral.bar
    lifted = bar.model_copy(
        update={
            "frame": bar.frame.model_copy(update={"x_mm": BAR_MM, "y_mm": y, "z_mm": z}),
            "axle": bar.axle.model_copy(update={"z_mm": bar.axle.z_mm + z - bar.frame.z_mm}),
        }
    )
    layout = axle.layout.model_copy(update={"lateral": axle.layout.lateral.model_copy(update={"bar": lifted})})
    rear = axle.model_copy(update={"springs": inputs.design.suspensions[0].springs, "layout": layout})
    return inputs.model_copy(update={"design": inputs.design.model_copy(update={"suspensions": (rear,)})})


class Linkage(SimpleTestCase):
    """What it takes of a newton to the right on the tyres."""

    def test_force_and_moment_are_those_on_the_tyres(self):
        inputs = f.demo("step")
        for kind in ON_LINKS:
            with self.subTest(kind):
                s = study(
                    inputs.survey, fresh_suspension(inputs, "rear", kind, before=True), inputs.survey.seats, 0.0, 1.0
                )
                pulls = pushed_sideways(s)
                np.testing.assert_allclose(np.sum([p.force for p in pulls], axis=0), (0, 1, 0), atol=0.01)
                x, _, z = s.setting.hub
                moment = np.sum([np.cross(p.at, p.force) for p in pulls], axis=0)
                tyres = np.cross((x, 0.0, z - s.setting.radius_mm), (0.0, 1.0, 0.0))
                np.testing.assert_allclose(moment, tyres, atol=0.02 * abs(tyres).max())

    def test_a_track_bar_takes_it_where_it_is_bolted_on(self):
        pulls = on_frame("parallel")["rear"].sideways
        across = [p for p in pulls if abs(p.force[1]) > 0.02]
        self.assertEqual(len(across), 1)
        self.assertAlmostEqual(across[0].force[1], 1.0, delta=0.02)

    def test_leaves_and_wheels_by_themselves_take_it_at_their_seats(self):
        inputs = f.demo("step")
        for kind in set(LAYOUTS) - set(ON_LINKS):
            own = fresh_suspension(inputs, "rear", kind, before=True)
            self.assertEqual(pushed_sideways(study(inputs.survey, own, inputs.survey.seats, 0.0, 1.0)), (), kind)


class OnTheFrame(SimpleTestCase):
    """From the brackets into the rails."""

    def test_the_bar_s_rail_takes_all_of_it_and_is_twisted_by_its_height(self):
        fr, own = frame(), load(axles=on_frame("parallel"))
        loads = case_loads.cornering(fr, own, 1.0)
        force = own.axle_load("rear")
        bar = max(own.axles["rear"].sideways, key=lambda p: abs(p.force[1]))
        arm = bar.at[2] - float(np.interp(bar.at[0], fr.x, fr.shear_centres[1::2, 1]))
        self.assertLess(arm, -100.0)
        self.assertAlmostEqual(loads[1::2, 3].sum() / (force * arm), 1.0, delta=0.08)
        self.assertLess(abs(loads[::2, 3].sum()), 0.1 * abs(loads[1::2, 3].sum()))

    def test_what_comes_in_between_hangs_on_both_as_on_a_beam(self):
        fr = frame()
        for force in ((0.0, 0.0, 900.0), (0.0, 500.0, 0.0), (300.0, -200.0, 100.0)):
            at = np.array((2000.0, 120.0, -140.0))
            loads = put_on(fr, [Pull(tuple(at), force)])[0]
            total = loads[:, 3:].sum(axis=0) + np.cross(fr.nodes, loads[:, :3]).sum(axis=0)
            np.testing.assert_allclose(loads[:, :3].sum(axis=0), force, atol=1e-6)
            np.testing.assert_allclose(total, np.cross(at, force), atol=2000.0)
            self.assertEqual(np.abs(loads[:, 3]).max(), 0.0, "it does not twist them")

    def test_what_a_bracket_hands_to_a_crossmember_beside_it_comes_in_there(self):
        fr = frame()
        tie = float(fr.x[fr.tied][4])
        pull = [Pull((tie + 80.0, 350.0, -100.0), (0.0, 1000.0, 0.0))]
        free, braced = (put_on(fr, pull, braced=own)[0] for own in (False, True))
        k = int(np.argmin(np.abs(fr.x - tie)))
        self.assertAlmostEqual(braced[2 * k + 1, 1], 1000.0, delta=1e-6)
        self.assertAlmostEqual(free[2 * k + 1, 1], 0.0, delta=600.0)
        for own in (free, braced):
            total = own[:, 3:].sum(axis=0) + np.cross(fr.nodes, own[:, :3]).sum(axis=0)
            self.assertAlmostEqual(total[2], 1000.0 * (tie + 80.0), delta=1.0)


class Judged(SimpleTestCase):
    """Common practice: a track bar's bracket on an open rail wants a crossmember at it, the more the lower it hangs."""

    def test_the_lower_the_bar_the_harder_its_rail_is_worked(self):
        high, mid, low = (factor(barred(z), "corner") for z in (60.0, 0.0, -100.0))
        self.assertGreater(high, 1.3 * mid)
        self.assertGreater(mid, 1.3 * low)
        self.assertLess(low, 0.6)

    def test_a_crossmember_at_it_and_boxed_rails_carry_it(self):
        alone = factor(barred(-80.0), "corner")
        tied = factor(barred(-80.0, ties=(STRONG,)), "corner")
        self.assertGreater(tied, 3 * alone)
        ends = {
            "start": {"anchor_id": "rear-axle", "offset_mm": -520},
            "end": {"anchor_id": "rear-axle", "offset_mm": 805},
        }
        boxed = barred(-80.0, ties=(STRONG,), operations=(made("boxing", **ends),))
        rows = [c for c in evaluate(boxed).checks if "rail-corner" in c.id]
        self.assertEqual({c.verdict for c in rows}, {"holds"})

    def test_a_crossmember_at_the_bar_is_among_what_is_tried(self):
        inputs = barred(-30.0)
        group = next(
            g for g in evaluate(inputs).groups if any("rail-corner" in i for i in g.ids) and g.verdict == "fails"
        )
        found = remedies(inputs, group.key)
        ties = [t.x_mm for own in found.offered for t in own.patch.crossmembers]
        self.assertTrue(any(abs(x - BAR_MM) < 1 for x in ties), ties)
        self.assertGreater(factor(patched(inputs, found.offered[0].patch), "corner"), 2 * factor(inputs, "corner"))


class Typed(SimpleTestCase):
    """A track bar's bracket with a typed force, of an axle that nobody described."""

    def van(self, lift_mm: float, *, side="right", ties=(), **own) -> Inputs:
        tabs = Tabs(standoff_mm=25.0, lift_mm=lift_mm, width_mm=60.0)
        place = Place(anchor_id="rear-axle", offset_mm=BAR_MM - 2610.0)
        own = {"out_n": 9000.0, "height_mm": 75.0, **own}
        bar = Bracket(
            id="bar", name="Track bar", side=side, place=place, width_mm=150.0, tall_mm=120.0, tabs=tabs, **own
        )
        inputs = f.demo("arc")
        design = {"operations": (bar,), "suspensions": (), "crossmembers": ties}
        return inputs.model_copy(update={"design": inputs.design.model_copy(update=design)})

    def corner(self, lift_mm: float, **own) -> float | None:
        return factor(self.van(lift_mm, **own), "corner")

    def test_the_lower_it_hangs_on_an_open_rail_the_less_is_left(self):
        """Common practice: a track bar's bracket below an open rail is braced to a crossmember."""
        level, low = self.corner(0.0), self.corner(-220.0)
        self.assertGreater(level, 1.3 * low)
        self.assertLess(low, 1.0, "9 kN 145 mm under the rail's underside")
        rows = [c for c in evaluate(self.van(-220.0)).checks if "rail-corner:" in c.id or "rail-brake-corner:" in c.id]
        self.assertTrue(all("typed for 'Track bar'" in c.why.words for c in rows) and len(rows) == 4, rows)
        self.assertGreater(self.corner(-220.0, ties=(STRONG,)), 1.2 * low)

    def test_what_pushes_along_or_has_no_force_twists_nothing(self):
        plain = self.corner(-220.0, out_n=0.0)
        self.assertGreater(plain, 1.4)
        self.assertAlmostEqual(self.corner(-220.0, out_n=0.0, along_n=9000.0) / plain, 1.0, delta=1e-3)

    def test_either_way_counts_alike(self):
        for sign in (1.0, -1.0):
            self.assertAlmostEqual(self.corner(-220.0, out_n=sign * 9000.0) / self.corner(-220.0), 1.0, delta=1e-6)
