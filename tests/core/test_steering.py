"""What the steering says: sense, locks, wrong input, cures against brute force."""

from pathlib import Path
from unittest import TestCase

import numpy as np

from nodulant.axles.steering import CentreLink, Rack, Sector, Steering
from nodulant.base.errors import NotSolvable
from nodulant.evaluate import Want, evaluate
from nodulant.evaluate.suspensions.travel import moved
from nodulant.formats.jobfile import load_job
from nodulant.job.riding import in_place
from nodulant.search.bump_steer import AskedSteer, SteerWish, changed, find_bump_steer
from nodulant.steering.gear import shaft_axis
from nodulant.steering.study import bump_steer, circle_mm, lock, steer_study
from nodulant.suspension.study import study

DEMO = Path(__file__).resolve().parents[2] / "demo"
ONLY = Want(strips=False, parts=False, steps=False, readings=False, frame=False, interim=False)


def job(name: str, option: str):
    return in_place(load_job((DEMO / f"{name}.nodulant.json").read_bytes()).inputs(option))


def with_front(inputs, own):
    rest = tuple(s for s in inputs.design.suspensions if s.axle != "front")
    return inputs.model_copy(update={"design": inputs.design.model_copy(update={"suspensions": (*rest, own)})})


def front(inputs):
    return next(s for s in inputs.design.suspensions if s.axle == "front")


def with_gear(own, **change):
    gear = own.steering.gear.model_copy(update=change)
    return own.model_copy(update={"steering": own.steering.model_copy(update={"gear": gear})})


def checks_of(inputs):
    return {c.id: c for c in evaluate(inputs, ONLY).checks if c.stage == "steer"}


def drawn(inputs):
    return next(t for t in evaluate(inputs, ONLY).travel if t.axle == "front")


class Sense(TestCase):
    def test_a_mirrored_rack_is_found_out(self):
        wherry = job("wherry", "step")
        self.assertEqual(checks_of(wherry)["steer-sense:front-steering:both"].verdict, "holds")
        turned = checks_of(with_front(wherry, with_gear(front(wherry), input_right_moves="right")))
        self.assertEqual(turned["steer-sense:front-steering:both"].verdict, "fails")
        self.assertEqual(turned["steer-sense:front-steering:both"].value, -1.0)

    def test_a_box_moved_behind_its_arm_is_found_out(self):
        """A box turned about so that its arm points forward moves the rods the other way."""
        brackmoor = job("brackmoor", "welded")
        own = front(brackmoor)
        box = own.steering.gear.box
        about = box.model_copy(update={"shaft": box.shaft.model_copy(update={"x_mm": box.arm_end.x_mm + 155})})
        self.assertEqual(checks_of(brackmoor)["steer-sense:front-steering:both"].value, 1.0)
        self.assertEqual(
            checks_of(with_front(brackmoor, with_gear(own, box=about)))["steer-sense:front-steering:both"].value, -1.0
        )

    def test_every_gear_on_every_layout_follows_its_rods(self):
        """The same centre link: the arm's sense alone decides the wheels' sense."""
        wherry = job("wherry", "step")
        own, seen = front(wherry), []
        joint = own.layout.toe.frame
        for turns in ("clockwise", "anticlockwise"):
            box = Sector(
                shaft=joint.model_copy(update={"x_mm": joint.x_mm + 150, "y_mm": -360}),
                arm_end=joint.model_copy(update={"y_mm": -360}),
                swing_deg=25,
                input_right_turns=turns,
            )
            linked = own.model_copy(update={"steering": Steering(gear=CentreLink(box=box))})
            seen.append(checks_of(with_front(wherry, linked))["steer-sense:front-steering:both"].value)
        self.assertEqual(seen, [-1.0, 1.0])


class CentreLinks(TestCase):
    def test_a_parallelogram_moves_both_joints_like_a_rack_on_an_arc(self):
        """Pitman and idler alike: the link keeps its direction, so both joints go the same way by the same amount."""
        wherry = job("wherry", "step")
        own = front(wherry)
        joint = own.layout.toe.frame
        box = Sector(
            shaft=joint.model_copy(update={"x_mm": joint.x_mm + 150, "y_mm": -360}),
            arm_end=joint.model_copy(update={"y_mm": -360}),
            swing_deg=25,
            input_right_turns="anticlockwise",
        )
        linked = own.model_copy(update={"steering": Steering(gear=CentreLink(box=box))})
        q = steer_study(study(wherry.survey, linked, wherry.design.seats, 0.0, 1.0))
        np.testing.assert_allclose(q.wheels.gear.right, q.wheels.gear.left, atol=1e-9)
        reach = 150 * np.sin(np.radians(25))
        self.assertAlmostEqual(q.wheels.gear.right[-1, 1], -reach, places=6)
        self.assertAlmostEqual(q.wheels.gear.right[-1, 0], 150 * (1 - np.cos(np.radians(25))), places=6)
        self.assertTrue(q.wheels.alike)

    def test_an_idler_of_another_length_steers_the_sides_apart(self):
        wherry = job("wherry", "step")
        own = front(wherry)
        joint = own.layout.toe.frame
        box = Sector(
            shaft=joint.model_copy(update={"x_mm": joint.x_mm + 150, "y_mm": -360}),
            arm_end=joint.model_copy(update={"y_mm": -360}),
            swing_deg=25,
        )
        idler = joint.model_copy(update={"x_mm": joint.x_mm + 110, "y_mm": 360})
        end = joint.model_copy(update={"y_mm": 360})
        linked = own.model_copy(update={"steering": Steering(gear=CentreLink(box=box, idler=idler, idler_end=end))})
        found = drawn(with_front(wherry, linked))
        self.assertFalse(found.steer.trouble)
        self.assertTrue(found.steer.left.poses, "the left wheel needs poses of its own")
        q = steer_study(study(wherry.survey, linked, wherry.design.seats, 0.0, 1.0))
        lengths = np.linalg.norm(q.wheels.gear.right - q.wheels.gear.left, axis=1)
        self.assertGreater(lengths.max(), 0.5)


class Locked(TestCase):
    def test_a_rack_whose_stroke_the_rods_cannot_follow_locks(self):
        wherry = job("wherry", "step")
        found = checks_of(with_front(wherry, with_gear(front(wherry), stroke_mm=190)))
        row = found["lock-reached:front-steering:right"]
        self.assertEqual(row.verdict, "fails")
        self.assertLess(row.value, 1.0)
        self.assertIn("lock", row.remedy.lower() + row.why.words.lower())
        self.assertTrue(all(c.value is None or np.isfinite(c.value) for c in found.values()))

    def test_a_rack_far_off_is_told_and_nothing_is_nan(self):
        wherry = job("wherry", "step")
        own = front(wherry)
        for x, y, z in ((150, 300, 900), (150, -640, 80), (900, 5, -700)):
            toe = own.layout.toe
            point = toe.frame.model_copy(update={"x_mm": x, "y_mm": y, "z_mm": z})
            layout = own.layout.model_copy(update={"toe": toe.model_copy(update={"frame": point})})
            text = evaluate(with_front(wherry, own.model_copy(update={"layout": layout})), ONLY).model_dump_json()
            self.assertNotIn("NaN", text)

    def test_a_drag_link_too_short_for_its_arm_is_told(self):
        brackmoor = job("brackmoor", "welded")
        own = front(brackmoor)
        box = own.steering.gear.box
        wild = box.model_copy(update={"swing_deg": 79.0})
        found = checks_of(with_front(brackmoor, with_gear(own, box=wild)))
        reached = [found[f"lock-reached:front-steering:{side}"] for side in ("left", "right")]
        self.assertTrue(any(c.verdict == "fails" and "reach" in c.why.words for c in reached))

    def test_gears_that_do_not_fit_their_axle_are_not_computed_with_the_reason(self):
        wherry, brackmoor = job("wherry", "step"), job("brackmoor", "welded")
        on_beam = front(brackmoor).model_copy(
            update={"steering": front(brackmoor).steering.model_copy(update={"gear": Rack()})}
        )
        linked = front(wherry).model_copy(update={"steering": front(brackmoor).steering})
        bare = front(brackmoor).model_copy(
            update={"steering": front(brackmoor).steering.model_copy(update={"king_pins": None})}
        )
        for inputs, own, word in (
            (brackmoor, on_beam, "drag link"),
            (wherry, linked, "rack or a centre link"),
            (brackmoor, bare, "king pins"),
        ):
            found = checks_of(with_front(inputs, own))
            row = found["steer-sense:front-steering:both"]
            self.assertEqual(row.verdict, "not computed")
            self.assertIn(word, row.remedy)
            self.assertTrue(row.missing[0].startswith("/design/suspensions/"))

    def test_a_rod_through_the_rail_is_not_computed_until_it_is_swept(self):
        """It turns with the wheels, and the rail's cuts count: silence would read as room enough."""
        found = {c.id: c for c in evaluate(job("wherry", "step"), ONLY).checks}
        row = found["link-room:front-toe-link:both"]
        self.assertEqual(row.verdict, "not computed")
        self.assertIn("sweep", row.remedy)

    def test_without_steering_a_front_axle_is_not_computed(self):
        wherry = job("wherry", "step")
        found = checks_of(with_front(wherry, front(wherry).model_copy(update={"steering": None})))
        self.assertEqual({c.verdict for c in found.values()}, {"not computed"})

    def test_an_arm_without_length_is_refused_in_words(self):
        brackmoor = job("brackmoor", "welded")
        own = front(brackmoor)
        box = own.steering.gear.box
        flat = box.model_copy(update={"arm_end": box.shaft})
        row = checks_of(with_front(brackmoor, with_gear(own, box=flat)))["lock-reached:front-steering:both"]
        self.assertEqual(row.verdict, "not computed")
        self.assertIn("pitman", row.remedy)


class Cures(TestCase):
    def asked(self, inputs, reach=60.0):
        return AskedSteer(inputs.survey, front(inputs), inputs.design.seats, 0.0, SteerWish(reach_mm=reach))

    def span(self, inputs, own):
        values = bump_steer(steer_study(study(inputs.survey, own, inputs.design.seats, 0.0, 1.0)))
        good = values[np.isfinite(values)]
        return float(good.max() - good.min())

    def test_each_cure_is_the_best_of_its_whole_reach(self):
        """Against brute force: no step of a millimetre over the whole reach does better."""
        for inputs, cures in (
            (job("wherry", "step"), ("rack-height", "outer-spacer")),
            (job("brackmoor", "welded"), ("arm-height", "axle-height")),
        ):
            found = {c.cure: c for c in find_bump_steer(self.asked(inputs)).choices}
            for cure in cures:
                every = [self.span(inputs, changed(front(inputs), cure, float(up), 0.0)) for up in range(-60, 61, 2)]
                with self.subTest(cure):
                    self.assertLessEqual(found[cure].span_deg, min(every) + 0.002)

    def test_the_brackmoor_is_cured(self):
        """Its drag link does not run parallel to its track bar; the finder brings it there."""
        inputs = job("brackmoor", "welded")
        found = find_bump_steer(self.asked(inputs))
        best = found.choices[0]
        self.assertGreater(found.span_deg, 3.0)
        self.assertLess(best.span_deg, 0.4)
        self.assertLess(abs(best.slope_deg_per_inch), 0.1)
        gear, bar = best.suspension.steering.gear, best.suspension.layout.lateral.bar
        hub = drawn(inputs).hub
        link = np.array([gear.knuckle.y_mm - gear.box.arm_end.y_mm, hub[2] + gear.knuckle.z_mm - gear.box.arm_end.z_mm])
        track = np.array([bar.axle.y_mm - bar.frame.y_mm, hub[2] + bar.axle.z_mm - bar.frame.z_mm])
        self.assertAlmostEqual(link[1] / link[0], track[1] / track[0], delta=0.01)

    def test_a_reach_too_short_says_that_further_is_better(self):
        found = find_bump_steer(self.asked(job("brackmoor", "welded"), reach=10.0))
        arm = next(c for c in found.choices if c.cure == "arm-height")
        self.assertTrue(arm.at_the_end)
        self.assertAlmostEqual(arm.up_mm, 10.0)

    def test_nothing_to_cure_is_told(self):
        wherry = job("wherry", "step")
        bare = with_front(wherry, front(wherry).model_copy(update={"steering": None}))
        with self.assertRaises(NotSolvable) as caught:
            find_bump_steer(self.asked(bare))
        self.assertIn("there is none", caught.exception.message)

    def test_a_box_leaned_keeps_its_arm_s_length(self):
        own = front(job("brackmoor", "welded"))
        before, after = own.steering.gear.box, changed(own, "box-lean", 24.0, 0.0).steering.gear.box
        long = [np.linalg.norm(np.subtract(b.arm_end.xyz(), b.shaft.xyz())) for b in (before, after)]
        self.assertAlmostEqual(long[0], long[1], places=9)
        self.assertAlmostEqual(after.lean_deg, 6.0)


class Drawn(TestCase):
    def test_a_glance_is_smaller_and_says_the_same(self):
        wherry = job("wherry", "step")
        quick = next(t for t in moved(wherry, glance=True).travel if t.axle == "front")
        full = drawn(wherry)
        self.assertLess(len(quick.model_dump_json()), 0.8 * len(full.model_dump_json()))
        toe = [next(c for c in t.curves if c.id == "toe") for t in (quick, full)]
        self.assertAlmostEqual(toe[0].values[-1], toe[1].values[-1], places=5)

    def test_curves_run_over_the_inputs_that_are_sent(self):
        for name, option in (("wherry", "step"), ("brackmoor", "welded")):
            steer = drawn(job(name, option)).steer
            for curve in steer.curves:
                self.assertEqual(len(curve.values), len(steer.inputs))
            middle = steer.inputs.index(0.0)
            right = next(c for c in steer.curves if c.id == "right")
            self.assertAlmostEqual(right.values[middle], -0.1, places=6)

    def test_both_locks_are_told(self):
        for name, option, tyre_m in (("wherry", "step", 0.215), ("brackmoor", "welded", 0.3175)):
            found = drawn(job(name, option))
            self.assertEqual([end.to for end in found.locks], ["left", "right"])
            for end in found.locks:
                self.assertGreater(end.inner_deg, end.outer_deg)
                radius = (end.circle_m - tyre_m) / 2
                self.assertAlmostEqual(radius * np.sin(np.radians(end.outer_deg)) / 2.6, 1.0, delta=0.06)

    def test_a_planned_tyre_and_track_count(self):
        wherry = job("wherry", "step")
        wide = front(wherry).model_copy(update={"track_mm": 1700.0, "tyre": "31x10.50R15"})
        found = drawn(with_front(wherry, wide))
        self.assertEqual(found.half_track_mm, 850.0)
        self.assertAlmostEqual(found.radius_mm, 0.94 * 31 * 25.4 / 2)
        measured = drawn(with_front(wherry, wide.model_copy(update={"loaded_radius_mm": 371.0})))
        self.assertEqual(measured.radius_mm, 371.0)


class Column(TestCase):
    """The shaft's checks on the van."""

    def with_shaft(self, **change):
        wherry = job("wherry", "step")
        own = front(wherry)
        place = lambda x, y, z: {"x_mm": x, "y_mm": y, "z_mm": z}  # noqa: E731
        shaft = {
            "column": place(-250, -350, 820),
            "joints": [place(-60, -330, 420), place(120, -150, 60)],
            "gear": place(170, -110, 20),
            **change,
        }
        steering = Steering.model_validate({**own.steering.model_dump(), "shaft": shaft})
        return with_front(wherry, own.model_copy(update={"steering": steering}))

    def test_angles_unevenness_and_drawing(self):
        inputs = self.with_shaft()
        found = checks_of(inputs)
        joints = [c for c in found.values() if c.limit_id == "column-joint"]
        self.assertEqual(len(joints), 2)
        self.assertIn("column-uneven:front-shaft:both", found)
        names = [m.name for m in drawn(inputs).members]
        self.assertIn("steering shaft 1", names)
        self.assertTrue(any("joints.1" in g.path for g in drawn(inputs).grips))

    def test_three_joints_need_a_bearing(self):
        place = lambda x, y, z: {"x_mm": x, "y_mm": y, "z_mm": z}  # noqa: E731
        joints = [place(-60, -330, 420), place(40, -230, 240), place(120, -150, 60)]
        without = checks_of(self.with_shaft(joints=joints))["column-bearing:front-shaft:both"]
        held = checks_of(self.with_shaft(joints=joints, bearing=True))["column-bearing:front-shaft:both"]
        self.assertEqual((without.verdict, held.verdict), ("fails", "holds"))

    def test_a_clamp_that_closes_one_that_does_not_and_one_that_does_not_go_on(self):
        clamp = {"column_mm": 44.45, "tube_mm": 50.8, "wall_mm": 3.05}
        for change, verdict in (
            ({"slot_mm": 3.0}, "holds"),
            ({"slot_mm": 0.5}, "fails"),
            ({"column_mm": 45.0}, "fails"),
        ):
            row = checks_of(self.with_shaft(clamp={**clamp, **change}))["clamp-closes:front-column-clamp:both"]
            self.assertEqual(row.verdict, verdict, change)

    def test_points_in_one_place_are_not_computed(self):
        place = {"x_mm": 0.0, "y_mm": -300.0, "z_mm": 400.0}
        row = checks_of(self.with_shaft(joints=[place, place]))["column-joint:front-shaft:both"]
        self.assertEqual(row.verdict, "not computed")
        self.assertIn("one place", row.remedy)


class Parallel(TestCase):
    """A drag link square to its joint's path steers nothing at ride height: parallel to a track bar (exact rule of the trade)."""

    def test_every_way_lays_it_parallel_and_none_steers_at_ride_height(self):
        inputs = job("brackmoor", "welded")
        own = front(inputs)
        found = find_bump_steer(AskedSteer(inputs.survey, own, inputs.design.seats, 0.0, SteerWish(reach_mm=120)))
        self.assertGreater(abs(found.off_parallel_deg), 0.5)
        self.assertGreaterEqual({c.cure for c in found.parallel}, {"axle-height", "arm-height", "box-height"})
        bar = own.layout.lateral.bar
        for choice in found.parallel:
            with self.subTest(choice.cure):
                self.assertLess(abs(choice.slope_deg_per_inch), 0.006)
                again = find_bump_steer(
                    AskedSteer(inputs.survey, choice.suspension, inputs.design.seats, 0.0, SteerWish(reach_mm=2))
                )
                self.assertLess(abs(again.off_parallel_deg), 0.02)
                gear, high = choice.suspension.steering.gear, own_hub(inputs)
                link = np.add(gear.knuckle.xyz(), (0.0, 0.0, high)) - np.array(gear.box.arm_end.xyz())
                track = np.add(bar.axle.xyz(), (0.0, 0.0, high)) - np.array(bar.frame.xyz())
                slopes = [v[2] / v[1] for v in (link, track)]
                self.assertAlmostEqual(np.degrees(np.arctan(slopes[0]) - np.arctan(slopes[1])), 0.0, delta=0.7)

    def test_out_of_reach_is_left_out(self):
        inputs = job("brackmoor", "welded")
        found = find_bump_steer(
            AskedSteer(inputs.survey, front(inputs), inputs.design.seats, 0.0, SteerWish(reach_mm=1))
        )
        self.assertEqual(found.parallel, ())


def own_hub(inputs):
    return drawn(inputs).hub[2]


class PassesOver(TestCase):
    """An arm in line with its rod moves it nowhere: the wheels come back, which nobody may take for a lock."""

    def in_line(self, off_deg):
        """The wagon with its pitman arm turned until it stands ``off_deg`` from its drag link."""
        inputs = job("brackmoor", "welded")
        own = front(inputs)
        gear = own.steering.gear
        shaft, knuckle = gear.box.shaft, gear.knuckle
        along = np.arctan2(knuckle.y_mm - shaft.y_mm, knuckle.x_mm - shaft.x_mm) + np.radians(off_deg)
        moved_to = {"x_mm": shaft.x_mm + 155 * np.cos(along), "y_mm": shaft.y_mm + 155 * np.sin(along)}
        box = gear.box.model_copy(update={"arm_end": gear.box.arm_end.model_copy(update=moved_to)})
        return with_front(inputs, with_gear(own, box=box))

    def test_an_arm_over_centre_fails_its_sense_and_its_grip(self):
        found = checks_of(self.in_line(12.0))
        sense = found["steer-sense:front-steering:both"]
        self.assertEqual((sense.verdict, sense.value), ("fails", 0.0))
        self.assertIn("passes over", sense.said.text)
        # 35 degrees of swing over the whole input: the dead centre lies about 12/35 of it away from the middle
        self.assertAlmostEqual(sense.said.of["at"].value, 12.0 / 35.0, delta=0.12)
        self.assertEqual(found["rod-grip:front-pitman-arm:both"].verdict, "fails")
        self.assertLess(min(found[f"lock-reached:front-steering:{s}"].value for s in ("left", "right")), 0.6)

    def test_an_arm_square_to_its_rod_does_not(self):
        found = checks_of(job("brackmoor", "welded"))
        self.assertEqual(found["steer-sense:front-steering:both"].verdict, "holds")
        self.assertGreater(found["rod-grip:front-pitman-arm:both"].value, 45.0)


class Ackermann(TestCase):
    def reversed_(self):
        """Tie rod behind the axle, its arms pointing outward: the outer wheel turns more (textbook)."""
        inputs = job("brackmoor", "welded")
        own = front(inputs)
        pins = own.steering.king_pins
        out = pins.model_copy(update={"tie_rod": pins.tie_rod.model_copy(update={"y_mm": 745.0})})
        return with_front(
            inputs, own.model_copy(update={"steering": own.steering.model_copy(update={"king_pins": out})})
        )

    def test_inner_and_outer_are_told_by_the_turn_and_not_by_size(self):
        inputs = self.reversed_()
        own = front(inputs)
        q = steer_study(study(inputs.survey, own, inputs.design.seats, 0.0, inputs.design.loads.grip))
        right, left = lock(q, 1), lock(q, -1)
        self.assertLess(right.inner_deg, right.outer_deg)
        self.assertLess(left.inner_deg, left.outer_deg)
        self.assertEqual(right.inner_deg, right.right_deg)
        self.assertEqual(left.inner_deg, -left.left_deg)

    def test_without_a_wheelbase_it_is_not_computed(self):
        inputs = job("wherry", "step")
        bare = inputs.model_copy(update={"survey": inputs.survey.model_copy(update={"wheelbase_mm": None})})
        row = checks_of(bare)["ackermann-least:front-steering:both"]
        self.assertEqual((row.verdict, row.missing), ("not computed", ("/survey/wheelbase_mm",)))

    def test_it_is_judged(self):
        found = checks_of(self.reversed_())
        self.assertEqual(found["ackermann-least:front-steering:both"].verdict, "fails")
        self.assertLess(found["ackermann-least:front-steering:both"].value, 0.0)
        self.assertEqual(checks_of(job("brackmoor", "welded"))["ackermann-least:front-steering:both"].verdict, "holds")


class LevelShaft(TestCase):
    """The commonest side box: its shaft level across the rail, the arm hanging down, the drag link fore and aft."""

    def test_a_shaft_across_is_an_axis_across(self):
        box = front(job("brackmoor", "welded")).steering.gear.box
        self.assertEqual(tuple(np.round(shaft_axis(box.model_copy(update={"tilt_deg": 90.0})), 9)), (0.0, 1.0, 0.0))
        self.assertEqual(tuple(np.round(shaft_axis(box.model_copy(update={"lean_deg": -90.0})), 9)), (-1.0, 0.0, 0.0))
        for lean, tilt in ((20.0, 0.0), (-15.0, 30.0), (40.0, -25.0)):
            x, y = np.tan(np.radians(lean)), np.tan(np.radians(tilt))
            axis = shaft_axis(box.model_copy(update={"lean_deg": lean, "tilt_deg": tilt}))
            np.testing.assert_allclose(axis, np.array([x, y, 1.0]) / np.sqrt(x * x + y * y + 1), atol=1e-12)

    def test_level_both_ways_is_refused(self):
        inputs = job("brackmoor", "welded")
        own = front(inputs)
        box = own.steering.gear.box.model_copy(update={"lean_deg": 90.0, "tilt_deg": 90.0})
        row = checks_of(with_front(inputs, with_gear(own, box=box)))["steer-sense:front-steering:both"]
        self.assertEqual(row.verdict, "not computed")
        self.assertIn("level one way", row.remedy)


class OneFigure(TestCase):
    """One figure has one value: what Travel and Steering say straight ahead at ride height is the same."""

    def test_roll_centre_and_anti_dive_with_camber_and_toe(self):
        inputs = job("wherry", "step")
        own = front(inputs).model_copy(update={"camber_deg": -1.5, "toe_deg": 0.4})
        axle = drawn(with_front(inputs, own))
        travel = {c.id: c.at_ride for c in axle.curves}
        turned = {c.id: c.at_ride for c in axle.steer.curves}
        for one, two in (("roll-centre", "roll-centre-turned"), ("anti-brake", "anti-dive-turned")):
            self.assertAlmostEqual(travel[one], turned[two], delta=2e-4 * abs(travel[one]))


class BumpSteerIsOneFigure(TestCase):
    def test_the_finder_begins_where_the_check_stands(self):
        for name, option in (("wherry", "step"), ("brackmoor", "welded")):
            inputs = job(name, option)
            asked = AskedSteer(inputs.survey, front(inputs), inputs.design.seats, 0.0, SteerWish())
            told = checks_of(inputs)["bump-steer:front-steering:both"].value
            self.assertAlmostEqual(abs(find_bump_steer(asked).slope_deg_per_inch), told, delta=0.02 * told + 1e-4)


class Circle(TestCase):
    def test_round_the_point_where_both_lines_meet(self):
        """The line square to the outer wheel at its foot meets the rear axle's line; the foot's distance to there, by hand."""
        for name, option in (("wherry", "step"), ("brackmoor", "welded")):
            inputs = job(name, option)
            q = steer_study(study(inputs.survey, front(inputs), inputs.design.seats, 0.0, inputs.design.loads.grip))
            end, base = lock(q, 1), inputs.survey.wheelbase_mm
            x, y, _ = q.left.patch[q.ride, end.column]
            square = np.radians(end.left_deg)  # heading (-cos, sin): the normal runs along (sin, cos)
            away = (base - x) / np.sin(square)
            centre = np.array([base, y + away * np.cos(square)])
            radius = float(np.hypot(*(centre - (x, y))))
            self.assertAlmostEqual(circle_mm(q, 1, 215.0) / (2 * radius + 215.0), 1.0, places=6)
