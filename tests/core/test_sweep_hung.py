"""Everything that is drawn is swept or named: brackets on the axle, dampers, shafts, the pitman arm, crossmembers."""

import numpy as np
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st

from nodulant.axles.points import HardPoint
from nodulant.axles.springs import AntiRollBar, Damper, LeafPack, Strap, TorsionBar
from nodulant.axles.suspension import Suspension
from nodulant.clearance.hung_bodies import bars_of, block_of
from nodulant.clearance.moving import RoundBar
from nodulant.clearance.obstacle import BoxShape, Obstacle
from nodulant.clearance.sweep import pairs_of
from nodulant.clearance.tie_bodies import tie_bodies
from nodulant.driveline.driveline import Driveline
from nodulant.evaluate import evaluate
from nodulant.evaluate.clearances.sweep import scene, whole_sweep
from nodulant.frame.model import planned_state, route_on
from nodulant.frame.ops.union import operation_kinds
from nodulant.job.fresh.suspension import fresh_suspension, fresh_suspension_part
from nodulant.job.riding import in_place
from nodulant.parts.solid import Solid, block
from nodulant.survey.crossmember import Crossmember
from tests import fixtures as f
from tests.core.test_operations import ALL, made

QUICK = settings(deadline=None, derandomize=True, max_examples=60)
sizes = st.floats(2, 300)
RAIL_ITSELF = {
    "boxing": "a plate on the rail's open side: its own body",
    "notch": "cut in the rail's body, plates with it",
    "hole": "opened in the rail's body",
    "stretch": "the rail's own body, longer",
    "splice": "the rail's own body",
    "access-cut": "closed again flush with the rail",
    "narrow": "the rail's own body, its jog with it",
}
"""Work that leaves nothing beside the rail's own body; whatever is not here must be a body of its own, or fail."""
SUSPENSION = {
    "layout": "links are rods, arms are their legs",
    "springs": "coils, bellows and torsion bars are bars, leaf springs pieces of their halves",
    "damper": "a bar",
    "half_shaft": "a bar",
    "steering": "rods, boots, shaft, pitman arm and nut, rack and box; what else of it is named",
    "tyre": "a tyre",
    "anti_roll": "a bar, its arms and links where it was measured, else named",
    "strap": "named",
    "stop": "meant to touch",
    "hoses": "looked at by their slack",
}
"""How each part of a suspension is looked at; sizes and settings are no parts."""
NO_PARTS = {
    *("axle", "name", "camber_deg", "toe_deg", "bump_mm", "droop_mm", "track_mm", "wheel", "loaded_radius_mm"),
    *("tyre_n_per_mm", "hub_z_mm", "hub_x_mm", "wheelbase_mm", "rides", "rides_but", "rides_in", "brake_share"),
    *("tube_wall_mm", "housing", "housing_half_mm", "driven", "unsprung_kg", "pinion_deg", "belly_mm"),
}


def van(**change):
    inputs = f.job().inputs("step")
    return inputs.model_copy(update={"design": inputs.design.model_copy(update=change)})


def rear_with(**change):
    inputs = van()
    own = tuple(s.model_copy(update=change) if s.axle == "rear" else s for s in inputs.design.suspensions)
    return van(suspensions=own)


def movers(inputs, axle="rear"):
    return {m.name: m for m in scene(inputs).movers if m.positions.axle == axle}


class Complete(SimpleTestCase):
    def test_every_kind_of_work_is_a_body_or_the_rail_s_own(self):
        """A new kind of operation that leaves no body fails here until somebody says why."""
        self.assertEqual({k.model_fields["kind"].default for k in operation_kinds()}, set(ALL))
        for kind in ALL:
            if kind in RAIL_ITSELF:
                continue
            fields = {"act": "add", "up_mm": 75.0} if kind == "crossmember" else {}
            if kind == "raise":
                fields = {"subframe": "bolted"}
            op = made(kind, id="it", name="the work", **fields)
            here = scene(
                van(
                    operations=(op,),
                    suspensions=tuple(s.model_copy(update={"rides": "rail"}) for s in van().design.suspensions),
                    obstacles=(),
                )
            )
            names = [b.name for b in (*here.standing, *here.movers)]
            with self.subTest(kind):
                self.assertTrue(any("the work" in name for name in names), names)

    def test_every_part_of_a_suspension_is_looked_at_or_named(self):
        self.assertEqual(set(Suspension.model_fields) - NO_PARTS, set(SUSPENSION))

    def test_what_has_no_body_is_named(self):
        point = HardPoint(x_mm=0.0, y_mm=300.0, z_mm=0.0)
        up = HardPoint(x_mm=2610.0, y_mm=300.0, z_mm=300.0)
        inputs = rear_with(anti_roll=AntiRollBar(drop=point), strap=Strap(lower=point, upper=up, length_mm=420.0))
        said = " | ".join(scene(inputs).left_out)
        for words in ("rear anti-roll bar", "rear limit straps"):
            self.assertIn(words, said)

    def bar(self, arm=200.0, link=120.0):
        """A bar as it begins, its bend a link's length over the drop links' joints."""
        inputs = rear_with(anti_roll=AntiRollBar(drop=HardPoint(x_mm=60.0, y_mm=420.0, z_mm=-40.0), arm_mm=arm))
        index = next(k for k, s in enumerate(inputs.design.suspensions) if s.axle == "rear")
        own = inputs.design.suspensions[index].anti_roll
        run = fresh_suspension_part(inputs, index, "runs", "", before=False)
        return own.model_copy(update={"runs": run.model_copy(update={"link_mm": link})})

    def test_an_anti_roll_bar_that_was_measured_is_a_bar_with_two_arms_and_links(self):
        inputs = rear_with(anti_roll=self.bar())
        found = movers(inputs)
        self.assertFalse(any("anti-roll" in words for words in scene(inputs).left_out))
        straight = found["anti-roll bar"].body
        self.assertEqual(float(straight.b[0, 0, 0, 1] - straight.a[0, 0, 0, 1]), 900.0)
        for side, sign in (("right", 1.0), ("left", -1.0)):
            arm, link = found[f"anti-roll bar's arm, {side}"], found[f"anti-roll bar's link, {side}"]
            at, ride = arm.there, arm.positions.ride()
            long = np.linalg.norm((arm.body.b - arm.body.a)[at][:, [0, 2]], axis=1)
            self.assertLess(np.abs(long - 200.0).max(), 1e-9)
            self.assertTrue((np.sign(arm.body.b[at][:, 1]) == sign).all())
            # as it begins the arm lies level at ride height, and the link hangs from it
            self.assertAlmostEqual(float(arm.body.b[ride][2] - arm.body.a[ride][2]), 0.0, delta=0.01)
            self.assertTrue((link.body.a[at][:, 2] > link.body.b[at][:, 2]).all())

    def test_it_is_drawn_where_it_is_swept(self):
        """The drawn arm turned by its angle about its axis (right-handed) ends where the sweep has its hole."""
        inputs = rear_with(anti_roll=self.bar())
        travel = next(t for t in evaluate(inputs).travel if t.axle == "rear")
        drawn = {m.name: m for m in travel.members if "anti-roll" in m.name}
        self.assertEqual(len(drawn), 5)
        found, level = movers(inputs), travel.rolls_deg.index(0.0)
        for side in ("right", "left"):
            arm = drawn[f"anti-roll bar's arm, {side}"]
            turning = travel.cranks[arm.b.body - 1]
            link = drawn[f"anti-roll bar's link, {side}"]
            self.assertEqual((link.a.body, link.b.body), (arm.b.body, 0))
            swept = found[f"anti-roll bar's arm, {side}"]
            r, compared = swept.positions.ride()[1], 0
            for row, at in enumerate(swept.positions.travel):
                k = int(np.argmin(np.abs(np.array(travel.travel_mm) - at)))
                if abs(travel.travel_mm[k] - at) > 1e-6:
                    continue
                angle = turning.angle[k * len(travel.rolls_deg) + level]
                dx, dz = arm.b.x_mm - turning.point[0], arm.b.z_mm - turning.point[2]
                x = turning.point[0] + dx * np.cos(angle) + dz * np.sin(angle)
                z = turning.point[2] - dx * np.sin(angle) + dz * np.cos(angle)
                hole = swept.body.b[row, r, 0]
                self.assertLess(np.hypot(hole[0] - x, hole[2] - z), 0.02)
                compared += 1
            self.assertGreaterEqual(compared, 2)

    def test_a_drop_link_that_does_not_reach_is_an_end_of_the_travel(self):
        def names(bar):
            travel = next(t for t in evaluate(rear_with(anti_roll=bar)).travel if t.axle == "rear")
            return [c.name for c in travel.contacts]

        straight = "anti-roll bar's drop link in line with its arm"
        self.assertIn(straight, names(self.bar(arm=90.0, link=60.0)))
        self.assertNotIn(straight, names(self.bar()))

    def test_a_steering_box_stands_over_its_arm_once_and_carries_it(self):
        inputs = f.job("brackmoor").inputs("welded")
        here = scene(inputs)
        box = next(b for b in here.standing if b.name == "front steering box")
        gear = next(s for s in inputs.design.suspensions if s.axle == "front").steering.gear
        foot = np.array([gear.box.shaft.xyz()])
        # its underside is 25 mm over the arm's middle (common practice)
        self.assertAlmostEqual(float(box.pack.distance(foot)[0]), 25.0, delta=0.5)
        with_box = {p.mover.name for p in pairs_of(here.movers, here.standing) if p.other is box}
        self.assertFalse(with_box & {"pitman arm", "pitman arm's nut", "box's input shaft"})
        self.assertTrue({"tie rod", "drag link"} <= with_box)
        middle = HardPoint(**gear.box.shaft.model_dump())
        placed = Obstacle(
            id="box",
            name="box",
            kind="steering-box",
            body=BoxShape(middle=middle, long_mm=100, wide_mm=100, high_mm=100),
        )
        design = inputs.design.model_copy(update={"obstacles": (*inputs.design.obstacles, placed)})
        again = scene(inputs.model_copy(update={"design": design}))
        self.assertNotIn("front steering box", [b.name for b in again.standing])

    def test_a_rack_is_a_tube_between_its_joints_and_what_it_moves_is_none_with_it(self):
        here = scene(van())
        rack = next(b for b in here.standing if b.name == "front rack")
        others = {p.mover.name for p in pairs_of(here.movers, here.standing) if p.other is rack}
        self.assertFalse([n for n in others if n.startswith(("boot", "toe link"))])
        self.assertIn("tyre, right", others)

    def test_a_crossmember_without_a_height_is_named_and_one_with_it_is_a_body(self):
        inputs = van()
        ties = inputs.survey.crossmembers
        bare = tuple(t.model_copy(update={"up_mm": None}) if t.id == "cab" else t for t in ties)
        inputs = inputs.model_copy(update={"survey": inputs.survey.model_copy(update={"crossmembers": bare})})
        here = scene(inputs)
        names = [b.name for b in here.standing]
        self.assertIn("cab crossmember: its height is not surveyed", here.left_out)
        self.assertNotIn("cab crossmember", names)
        self.assertIn("gearbox crossmember", names)


class Bars(SimpleTestCase):
    @QUICK
    @given(sizes, sizes, sizes)
    def test_they_stay_inside_their_block_and_reach_its_ends(self, a, b, c):
        solid = block("it", "axle", (10.0, 200.0, 30.0), (a, b, c))
        bars = bars_of(solid)
        self.assertIn(len(bars), (1, 2, 3))
        low = np.array([solid.x[0], solid.y[0], solid.z[0]])
        high = np.array([solid.x[1], solid.y[1], solid.z[1]])
        ends = np.array([p for start, end, _ in bars for p in (start, end)])
        radius = bars[0][2]
        self.assertTrue((ends - radius >= low - 1e-6).all() or min(a, b, c) < 1)
        self.assertTrue((ends + radius <= high + 1e-6).all() or min(a, b, c) < 1)
        longest = int(np.argsort([a, b, c], kind="stable")[-1])
        self.assertAlmostEqual(ends[:, longest].min() - radius, low[longest], places=6)
        self.assertAlmostEqual(ends[:, longest].max() + radius, high[longest], places=6)

    def test_a_flat_plate_is_three_thin_bars_and_a_cube_one(self):
        plate = bars_of(block("it", "axle", (0, 0, 0), (100.0, 6.0, 80.0)))
        self.assertEqual([r for _, _, r in plate], [3.0, 3.0, 3.0])
        self.assertEqual(len(bars_of(block("it", "axle", (0, 0, 0), (50.0, 50.0, 50.0)))), 1)

    def test_one_block_round_all_plates_of_the_axle(self):
        rows = [block("it", "axle", (0, 100.0, 0), (10, 10, 10)), block("it", "axle", (0, 150.0, 20.0), (10, 10, 10))]
        whole = block_of([*rows, block("it", "frame", (900, 0, 0), (10, 10, 10))])
        self.assertEqual((whole.y, whole.z), ([95.0, 155.0], [-5.0, 25.0]))
        self.assertIsNone(block_of([Solid(name="it", on="frame", x=[0, 1], y=[0, 1], z=[0, 1])]))


class OnTheAxle(SimpleTestCase):
    def test_brackets_and_truss_ride_with_the_axle_rigidly(self):
        found = movers(van())
        tube = found["axle tube"].body
        own = [m for m in found.values() if m.kind == "bracket"]
        self.assertGreaterEqual(len({m.name.partition(" (")[0].partition(",")[0] for m in own}), 4)
        for m in own:
            for end in (m.body.a, m.body.b):
                far = np.linalg.norm(end - tube.a, axis=-1)[m.there]
                self.assertLess(np.ptp(far), 1e-6, m.name)

    def test_a_truss_that_reaches_under_the_rail_strikes_it(self):
        """Feet that end 10 mm outside the rail's inner face, 40 mm over the tube that comes up to the notch."""
        gaps = []
        for foot in (325.0, 380.0):
            ops = tuple(
                o.model_copy(update={"foot_to_mm": foot}) if o.kind == "truss" else o for o in van().design.operations
            )
            rows = [p for p in whole_sweep(van(operations=ops)).pairs if p.moving.startswith("Truss")]
            rows = [p for p in rows if "rail" in p.other or "notch" in p.other]
            gaps.append(min(p.gap_mm if p.gap_mm is not None else p.beyond_mm for p in rows))
        self.assertGreater(gaps[0], 0.0)
        self.assertLess(gaps[1], 0.0)

    def test_what_hangs_in_a_bracket_is_no_pair_with_it(self):
        here = scene(van())
        pairs = {frozenset((p.mover.name, p.other.name)) for p in pairs_of(here.movers, here.standing)}
        self.assertNotIn(frozenset(("upper link, right", "Upper link on the rear axle, right")), pairs)
        self.assertNotIn(frozenset(("axle tube", "Truss on the rear axle, right")), pairs)
        self.assertIn(frozenset(("spring, right", "Truss on the rear axle, right")), pairs)


class Besides(SimpleTestCase):
    def test_a_damper_follows_its_foot(self):
        low, up = HardPoint(x_mm=80.0, y_mm=300.0, z_mm=0.0), HardPoint(x_mm=2690.0, y_mm=280.0, z_mm=400.0)
        found = movers(rear_with(damper=Damper(lower=low, upper=up)))
        body = found["damper, right"].body
        self.assertIsInstance(body, RoundBar)
        at = found["damper, right"].positions.ride()
        hub = found["axle tube"].body
        middle = (hub.a[at] + hub.b[at]) / 2
        np.testing.assert_allclose(body.a[at], middle + np.array([80.0, 300.0, 0.0]), atol=1e-6)
        mirrored = found["damper, left"].body.a[at]
        np.testing.assert_allclose(mirrored, middle + np.array([80.0, -300.0, 0.0]), atol=1e-6)

    def test_the_propeller_shaft_runs_from_its_bearing_to_the_pinion(self):
        line = Driveline(
            gearbox=HardPoint(x_mm=900.0, y_mm=0.0, z_mm=60.0),
            bearing=HardPoint(x_mm=1700.0, y_mm=0.0, z_mm=40.0),
            pinion=HardPoint(x_mm=-200.0, y_mm=0.0, z_mm=10.0),
        )
        found = movers(van(driveline=line))
        rear, front = found["propeller shaft"], found["propeller shaft's front piece"]
        self.assertAlmostEqual(rear.body.radius, 38.1)
        self.assertAlmostEqual(float(np.ptp(front.body.a, axis=(0, 1, 2)).max()), 0.0)
        at = rear.positions.ride()
        self.assertAlmostEqual(float(np.linalg.norm(rear.body.a[at] - (1700.0, 0.0, 40.0))), 60.0, places=6)

    def test_the_pitman_arm_keeps_its_length_and_carries_its_nut(self):
        inputs = f.job("brackmoor").inputs("welded")
        found = {m.name: m for m in scene(inputs).movers}
        arm, nut = found["pitman arm"], found["pitman arm's nut"]
        long = np.linalg.norm(arm.body.b - arm.body.a, axis=-1)[arm.there]
        self.assertLess(np.ptp(long), 1e-6)
        np.testing.assert_allclose((nut.body.a + nut.body.b) / 2, arm.body.b, atol=1e-9)
        names = {frozenset((p.mover.name, p.other.name)) for p in pairs_of(scene(inputs).movers, ())}
        self.assertNotIn(frozenset(("pitman arm", "pitman arm's nut")), names)

    def test_a_crossmember_lies_between_the_rails_at_its_height(self):
        survey = f.demo().survey
        routes = {s: route_on(survey, (), s, planned_state(())) for s in ("left", "right")}
        tie = Crossmember(id="it", name="it", x_mm=1500.0, height_mm=80, width_mm=60, wall_mm=4, up_mm=75.0)
        (body,) = tie_bodies((tie,), survey.rails, routes)
        box = body.pack.boxes
        np.testing.assert_allclose((box.low[0], box.high[0]), ((1470, -350, 35), (1530, 350, 115)))
        self.assertEqual(tie_bodies((tie.model_copy(update={"up_mm": None}),), survey.rails, routes), ())


class Springs(SimpleTestCase):
    """Leaf springs and torsion bars as bodies."""

    def leaf(self, **more):
        inputs = van(suspensions=())
        own = fresh_suspension(inputs, "rear", "leaf", False)
        eye = own.layout.eye
        rear = eye.model_copy(update={"x_mm": eye.x_mm + 1300.0})
        layout = own.layout.model_copy(update={"rear_eye": rear})
        pack = LeafPack(seat=layout.seat, rate_n_per_mm=35.0, **more)
        return van(suspensions=(own.model_copy(update={"layout": layout, "springs": pack}),))

    def test_a_half_rises_to_its_eye_with_the_square_of_the_way(self):
        """Constant curvature from a level clamp (beam under an end load of a spring of constant strength, textbook)."""
        own = movers(self.leaf())
        s = self.leaf().design.suspensions[0]
        first, second = own["leaf spring, right"], own["leaf spring (2), right"]
        at = first.positions.ride()
        seat, eye = first.body.a[at], np.array(s.layout.eye.xyz())
        for bar, share in ((first.body.b[at], 0.45), (second.body.b[at], 0.85)):
            np.testing.assert_allclose(bar[0], seat[0] + share * (eye[0] - seat[0]), atol=1e-6)
            np.testing.assert_allclose(bar[2], seat[2] + share**2 * (eye[2] - seat[2]), atol=1e-6)
        self.assertEqual((first.body.radius, second.body.radius), (20.0, 10.0))
        # the clamped middle goes with the axle, the eyes stay
        travel = first.positions.travel
        np.testing.assert_allclose(first.body.a[:, 5, 0, 2] - seat[2], travel - travel[at[0]], atol=0.5)
        self.assertEqual(sum(name.startswith("leaf spring") for name in own), 8)

    def test_the_pack_is_on_the_side_of_the_axle_that_it_lies_on(self):
        heights = []
        for more in ({}, {"flipped": True}, {"axle_was": "over"}):
            bar = movers(self.leaf(**more))["leaf spring, right"]
            heights.append(float(bar.body.a[bar.positions.ride()][2]))
        self.assertAlmostEqual(heights[0] - heights[2], 40.0, places=6)
        self.assertAlmostEqual(heights[1], heights[2], places=6)

    def test_a_pack_meets_the_rail_before_the_axle_s_tube_does(self):
        inputs = self.leaf(pack_mm=90.0)
        gaps = {p.moving: p.gap_mm for p in whole_sweep(inputs).pairs if p.other == "right rail" and p.gap_mm}
        thin = {p.moving: p.gap_mm for p in whole_sweep(self.leaf()).pairs if p.other == "right rail" and p.gap_mm}
        # its top comes up by what it is thicker; the rail lies a little beside it, so it comes nearer by less
        nearer = thin["leaf spring, right"] - gaps["leaf spring, right"]
        self.assertTrue(30.0 < nearer < 50.0, nearer)

    def torsion(self):
        inputs = van(suspensions=())
        own = fresh_suspension(inputs, "front", "double-wishbone", False)
        return van(suspensions=(own.model_copy(update={"springs": TorsionBar(diameter_mm=26.0, length_mm=1100.0)}),))

    def test_a_torsion_bar_lies_along_its_arm_s_hinge_and_stands_still(self):
        inputs = self.torsion()
        bar = movers(inputs, "front")["torsion bar, right"]
        layout = in_place(inputs).design.suspensions[0].layout
        front, rear = np.array(layout.lower_front.xyz()), np.array(layout.lower_rear.xyz())
        way = (rear - front) / np.linalg.norm(rear - front)
        start = rear if rear[0] > front[0] else front
        np.testing.assert_allclose(bar.body.a.reshape(-1, 3), np.broadcast_to(start, (bar.positions.count, 3)))
        ahead = start + way * np.sign(way[0]) * 1100.0
        np.testing.assert_allclose(bar.body.b.reshape(-1, 3)[0], ahead, atol=1e-6)
        others = {p.other.name for p in pairs_of(scene(inputs).movers, scene(inputs).standing) if p.mover is bar}
        others |= {p.moving for p in whole_sweep(inputs).pairs if p.other == "torsion bar, right"}
        self.assertIn("toe link, right", others)
        self.assertFalse(any("lower wishbone" in name or "rail" in name for name in others), others)

    def test_its_key_stands_at_a_crossmember_or_is_told(self):
        inputs = self.torsion()
        own = next(c for c in evaluate(inputs).checks if c.limit_id == "key-carried")
        bar = movers(inputs, "front")["torsion bar, right"]
        key = float(bar.body.b.reshape(-1, 3)[0][0])
        nearest = min(abs(t.x_mm - key) for t in inputs.survey.crossmembers)
        self.assertAlmostEqual(own.value, nearest, delta=1e-6)
        self.assertEqual(own.verdict, "fails" if nearest > 60.0 else own.verdict)
        under = inputs.survey.crossmembers[0].model_copy(update={"id": "under", "name": "under the key", "x_mm": key})
        there = {"crossmembers": (*inputs.survey.crossmembers, under)}
        carried = inputs.model_copy(update={"survey": inputs.survey.model_copy(update=there)})
        self.assertEqual(next(c for c in evaluate(carried).checks if c.limit_id == "key-carried").verdict, "holds")
        bare = inputs.model_copy(update={"survey": inputs.survey.model_copy(update={"crossmembers": ()})})
        bare = bare.model_copy(
            update={
                "design": bare.design.model_copy(
                    update={"crossmembers": (), "operations": (), "obstacles": (), "driveline": None}
                )
            }
        )
        self.assertEqual(next(c for c in evaluate(bare).checks if c.limit_id == "key-carried").verdict, "not computed")


class Boots(SimpleTestCase):
    def test_a_rack_s_boots_are_no_pair_with_the_subframe_that_carries_it(self):
        inputs = van()
        front = next(s for s in inputs.design.suspensions if s.axle == "front")
        names = {op.id: op.name for op in inputs.design.operations}
        carrier = names[next(r for r in {front.rides, *front.rides_but.values()} if r in names)]
        result = whole_sweep(inputs)
        self.assertFalse([p for p in result.pairs if p.moving.startswith("boot") and p.other.startswith(carrier)])
        self.assertTrue([p for p in result.pairs if p.moving.startswith("toe link") and p.other.startswith(carrier)])
