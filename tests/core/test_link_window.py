"""Where a link goes within a window: the map says what the bench will say, and a link has a length one can buy."""

import math

from django.test import SimpleTestCase

from nodulant.axles.points import on_axle
from nodulant.base.errors import NotSolvable
from nodulant.evaluate import InvalidInputs, evaluate
from nodulant.evaluate.brackets.mount_follows import brought_up_to_date
from nodulant.evaluate.suspensions.fitted import TRAVEL, window_judged
from nodulant.evaluate.suspensions.travel import suspension_studies
from nodulant.search.bracket_holes import Wanted
from nodulant.search.link_window import AskedWindow, Window, find_window
from nodulant.search.steps import to_the_end
from nodulant.suspension.study import study
from tests import fixtures as f
from tests.core.test_suspensions import suspended

SMALL = Window(ahead_mm=20, behind_mm=20, down_mm=20, up_mm=20, step_mm=20)


def asked(link="upper", window=SMALL, wanted=None, **more):
    job = suspended(**more)
    own = job.design.suspensions[0]
    return AskedWindow(job.survey, own, job.design.seats, 75.0, 0.9, link, window, wanted or Wanted())


def brute(a, back, up):
    """The figures of one place, studied by itself."""
    layout = a.suspension.layout
    link = getattr(layout, a.link)
    point = getattr(link, a.window.end)
    moved = point.model_copy(update={"x_mm": point.x_mm + back, "z_mm": point.z_mm + up})
    own = a.suspension.model_copy(
        update={"layout": layout.model_copy(update={a.link: link.model_copy(update={a.window.end: moved})})}
    )
    s = study(a.survey, own, a.seats, a.towards_rail_mm, a.grip)
    slope = (s.motion.heave[s.ride, 0] - s.motion.heave[s.ride, 4] * s.setting.radius_mm) / s.motion.heave[s.ride, 2]
    squat = 100 * slope * s.vehicle.wheelbase_mm / s.centre_above_ground_mm
    steer = s.motion.roll[s.ride, 5] / s.motion.roll[s.ride, 3]
    new = getattr(own.layout, a.link)
    return squat, steer, math.dist(on_axle(new.axle, s.setting.hub), new.frame.xyz())


class AgainstBruteForce(SimpleTestCase):
    def test_every_choice_is_what_its_place_gives(self):
        for link, end in (("upper", "frame"), ("lower", "axle")):
            a = asked(link, SMALL.model_copy(update={"end": end}))
            found = find_window(a)
            self.assertEqual((found.tried, len(found.choices)), (9, 9))
            for choice in found.choices:
                squat, steer, length = brute(a, choice.back_mm, choice.up_mm)
                self.assertAlmostEqual(choice.anti_squat, squat, places=4)
                self.assertAlmostEqual(choice.roll_steer, steer, places=6)
                self.assertAlmostEqual(choice.length_mm, length, places=6)

    def test_the_best_of_all_places_comes_first(self):
        a = asked(wanted=Wanted(anti_squat=120.0))
        found = find_window(a)
        scores = [c.score for c in found.choices]
        self.assertEqual(scores, sorted(scores))
        known = [v for row in found.score for v in row if v is not None]
        self.assertAlmostEqual(scores[0], min(known))
        place = found.choices[0]
        at = found.score[found.up_mm.index(place.up_mm)][found.back_mm.index(place.back_mm)]
        self.assertEqual(at, place.score)

    def test_only_links_of_the_wanted_length(self):
        a = asked()
        now = brute(a, 0.0, 0.0)[2]
        found = find_window(asked(window=SMALL.model_copy(update={"least_mm": now - 5, "most_mm": now + 5})))
        self.assertTrue(found.choices)
        self.assertTrue(all(abs(c.length_mm - now) <= 5 for c in found.choices))
        self.assertLess(found.tried, 9)

    def test_none_of_that_length_gives_its_reason(self):
        found = find_window(asked(window=SMALL.model_copy(update={"most_mm": 50.0})))
        self.assertEqual((found.choices, found.reason), ((), "no place in this window gives a link of that length"))


class WrongInput(SimpleTestCase):
    def test_a_link_that_is_not_there_names_those_that_are(self):
        with self.assertRaisesRegex(NotSolvable, "cannot be searched") as caught:
            find_window(asked("middle"))
        self.assertEqual(caught.exception.acceptable, "lower, upper")

    def test_single_wheels_are_refused(self):
        with self.assertRaisesRegex(NotSolvable, "cannot be searched"):
            find_window(asked("toe", kind="double-wishbone"))

    def test_too_fine_a_grid_is_refused(self):
        wide = Window(ahead_mm=400, behind_mm=400, down_mm=400, up_mm=400, step_mm=2)
        with self.assertRaisesRegex(NotSolvable, "too many places"):
            find_window(asked(window=wide))

    def test_a_track_bar_can_be_searched(self):
        found = find_window(asked("lateral.bar", kind="parallel"))
        self.assertEqual(found.tried, 9)
        self.assertNotEqual(found.choices[1].suspension.layout.lateral, found.choices[0].suspension.layout.lateral)


class Judged(SimpleTestCase):
    """What is offered fails in nothing in which the design did not fail before; what is not says in what."""

    def test_each_best_place_in_the_whole_design(self):
        inputs = f.demo("step")
        d = inputs.design
        wide = Window(ahead_mm=300.0, behind_mm=300.0, down_mm=200.0, up_mm=200.0, step_mm=100.0)
        found = to_the_end(window_judged(inputs, 0, "lower", wide, Wanted(anti_squat=300.0)))
        before = {c.id for c in evaluate(inputs).checks if c.verdict == "fails"}
        for choice in found.choices:
            suspensions = (choice.suspension, *d.suspensions[1:])
            changed = inputs.model_copy(update={"design": d.model_copy(update={"suspensions": suspensions})})
            operations = brought_up_to_date(changed, suspension_studies(changed), all_asked=False)
            design = changed.design.model_copy(update={"operations": operations})
            try:
                checks = evaluate(changed.model_copy(update={"design": design}), TRAVEL).checks
            except InvalidInputs as error:
                new = [error.message]
            else:
                new = [c.title for c in checks if c.verdict == "fails" and c.id not in before]
            self.assertEqual(set(choice.fails), set(new))
        self.assertTrue(any(choice.fails for choice in found.choices), "a wish of 300 % breaks something")
