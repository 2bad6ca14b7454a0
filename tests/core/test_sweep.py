"""The sweep: nothing slips through, what overlaps at rest is told as such, and the cut that it asks for clears."""

from pathlib import Path
from types import SimpleNamespace
from unittest import TestCase

import numpy as np
from shapely.geometry import Point, Polygon
from shapely.geometry import box as box_of
from shapely.ops import unary_union

from nodulant.axles.points import HardPoint
from nodulant.clearance.axle_bodies import axle_movers
from nodulant.clearance.hull import swept_hull
from nodulant.clearance.looks import exact, placed
from nodulant.clearance.moving import RoundBar, between, spots
from nodulant.clearance.obstacle import BarShape, BoxShape, Obstacle
from nodulant.clearance.pair import Far, Least, least
from nodulant.clearance.placed_things import standing_of
from nodulant.clearance.rail_prisms import rail_body, strips
from nodulant.clearance.shapes import Prisms
from nodulant.clearance.sweep import clearance_map, pairs_of, swept
from nodulant.evaluate.clearances.rod_hole import cut_from_sweep
from nodulant.evaluate.clearances.sweep import map_of, scene, whole_sweep
from nodulant.formats.jobfile import load_job
from nodulant.frame.ops.hole import WebHole
from nodulant.frame.place import Place
from nodulant.job.riding import in_place
from nodulant.parts.limit import LimitChange
from nodulant.parts.tyre import parse_tyre
from nodulant.steering.wheels import steered_wheels
from nodulant.suspension.motion import moved_through
from nodulant.suspension.study import study
from nodulant.targets.drop import add_up

DEMO = Path(__file__).resolve().parents[2] / "demo"
RNG = np.random.default_rng(5)


def job(name="wherry", option="step"):
    return in_place(load_job((DEMO / f"{name}.nodulant.json").read_bytes()).inputs(option))


def with_design(inputs, **change):
    return inputs.model_copy(update={"design": inputs.design.model_copy(update=change)})


def studies(inputs):
    towards = add_up(inputs.design.targets).towards_rail_mm
    return {s.axle: study(inputs.survey, s, inputs.design.seats, towards, 1.0) for s in inputs.design.suspensions}


def movers(inputs, axle):
    surveyed = inputs.survey.front if axle == "front" else inputs.survey.rear
    found = axle_movers(studies(inputs)[axle], parse_tyre(surveyed.tyre), surveyed.tube_diameter_mm)
    return {m.name: m for m in found}


def box(x, y, z, size=(100.0, 100.0, 100.0), kind="other", name="thing"):
    body = BoxShape(middle=HardPoint(x_mm=x, y_mm=y, z_mm=z), long_mm=size[0], wide_mm=size[1], high_mm=size[2])
    return Obstacle(id="thing-1", name=name, kind=kind, body=body)


class Grid(TestCase):
    """Between the grid's positions bodies are interpolated: they must be where the linkage itself puts them."""

    def test_a_single_wheel_between_the_grid(self):
        inputs = job()
        own, at = movers(inputs, "front"), np.array([[-33.7, 0.0, -0.43], [12.3, 0.0, 0.77], [61.1, 0.0, 0.219]])
        s = studies(inputs)["front"]
        for travel, _, steer in at:
            travels, inputs_ = np.sort([0.0, travel]), np.sort([0.0, steer])
            row, column = int(np.argmax(travels == travel)), int(np.argmax(inputs_ == steer))
            wheels = steered_wheels(s.suspension, s.setting, s.motion, travels, inputs_)
            here = np.array([[travel, 0.0, steer]])
            rod = own["toe link, right"]
            np.testing.assert_allclose(
                between(rod.body.b, spots(rod.positions, here))[0], wheels.rods[0].outer[row, column], atol=0.005
            )
            tyre = own["tyre, left"]
            np.testing.assert_allclose(
                between(tyre.body.centre, spots(tyre.positions, here))[0], wheels.left.centre[row, column], atol=0.005
            )

    def test_a_beam_axle_between_the_grid(self):
        inputs = job("brackmoor", "welded")
        s = studies(inputs)["front"]
        rod = movers(inputs, "front")["lower arm, right"]
        m = moved_through(s.suspension.layout, s.setting, np.array([0.0, 37.3]), (0.0, 1.7))
        pose = m.sweep.solved.pose
        end = s.suspension.layout.lower.axle
        place = np.array([s.setting.hub[0] + end.x_mm, end.y_mm, s.setting.hub[2] + end.z_mm])
        expected = pose.origin[3] + pose.rotation[3] @ (place - np.array(s.setting.hub))
        found = between(rod.body.a, spots(rod.positions, np.array([[37.3, 1.7, 0.2]])))[0]
        np.testing.assert_allclose(found, expected, atol=0.005)

    def test_enough_positions_and_pairs(self):
        result = whole_sweep(job())
        self.assertGreaterEqual(result.positions, 1500)
        self.assertGreaterEqual(len(result.pairs), 60)


class Stops(TestCase):
    def test_roll_does_not_lift_a_wheel_past_its_stops(self):
        """Full bump and full roll at once would lift one wheel far past the stop that ends its travel."""
        inputs = job()
        tyre = movers(inputs, "rear")["tyre, right"]
        own = next(s for s in inputs.design.suspensions if s.axle == "rear")
        rest = tyre.body.centre[tyre.positions.ride()][2]
        rise = tyre.body.centre[..., 2][tyre.there] - rest
        step = 810.0 * np.tan(np.radians(1.0))
        self.assertLess(rise.max(), own.bump_mm + 0.6 * step)
        self.assertGreater(rise.max(), own.bump_mm - 0.6 * step)
        self.assertGreater(rise.min(), -own.droop_mm - 0.6 * step)


class NothingSlipsThrough(TestCase):
    def places(self, mover, count=3000):
        columns = mover.positions.axes()
        at = np.stack([RNG.uniform(c[0], c[-1], count) if len(c) > 1 else np.zeros(count) for c in columns], axis=1)
        # roll lifts one wheel and lowers the other: neither past its stops
        wheels = at[:, :1] + 820.0 * np.tan(np.radians(at[:, 1:2])) * np.array([1.0, -1.0])
        return at[((wheels <= columns[0][-1]) & (wheels >= columns[0][0])).all(axis=1)]

    def test_no_random_place_is_nearer_than_the_least(self):
        """Every kind of pair against thousands of places drawn at random, each worked out exactly."""
        inputs = job()
        things = tuple(rail_body(inputs.survey, inputs.design.operations, side) for side in ("left", "right"))
        things += (standing_of(box(-40, 330, -260, (120, 80, 90))),)
        for axle in ("front", "rear"):
            pairs = pairs_of(tuple(movers(inputs, axle).values()), things)
            looked = 0
            for pair in pairs:
                found = least(pair.mover, pair.other)
                if not isinstance(found, Least):
                    continue
                row = pair.mover.positions.ride()
                at = self.places(pair.mover, 1200)[:400]
                mine = placed(pair.mover, at=spots(pair.mover.positions, at))
                if hasattr(pair.other, "pack"):
                    near = [k for k in range(len(pair.other.pack.boxes.low)) if self.close(mine, pair.other, k)]
                    gaps = [exact(mine, pair.other.pack.some(np.full(len(at), k))).gap.min() for k in near]
                else:
                    gaps = [exact(mine, placed(pair.other, at=spots(pair.other.positions, at))).gap.min()]
                if found.gap_mm < 0 and pair.mover.there[row] and found.travel_mm == 0.0:
                    continue  # overlaps at rest: told as that, not sought further
                looked += 1
                with self.subTest(pair.id):
                    self.assertGreaterEqual(min(gaps), found.gap_mm - 0.05)
            self.assertGreater(looked, 3)

    def close(self, mine, other, k):
        boxes = other.pack.some(np.array([k])).boxes
        a, b, radius = mine if not hasattr(mine, "centre") else (mine.centre, mine.centre, mine.outside)
        low, high = np.minimum(a, b).min(axis=0) - radius - 60, np.maximum(a, b).max(axis=0) + radius + 60
        return bool((boxes.low[0] <= high).all() and (boxes.high[0] >= low).all())

    def test_a_sheet_thinner_than_a_step_is_not_passed(self):
        """A sheet of 1 mm in the way of a rod's end, between two positions of the grid."""
        inputs = job()
        rod = movers(inputs, "front")["lower wishbone, front leg, right"]
        travel = rod.positions.travel
        between_rows = (travel[-4] + travel[-5]) / 2
        end = between(rod.body.a, spots(rod.positions, np.array([[between_rows, 0.0, 0.0]])))[0]
        sheet = box(end[0], end[1], end[2] + rod.body.radius + 0.5, (60.0, 60.0, 1.0))
        found = least(rod, standing_of(sheet))
        self.assertIsInstance(found, Least)
        self.assertLessEqual(found.gap_mm, 0.0)
        (cleared,) = swept([pairs_of((rod,), (standing_of(sheet),))[0]])
        self.assertIsNotNone(cleared.first_bump_mm)
        self.assertLess(cleared.first_bump_mm, between_rows + 1.0)

    def test_a_limit_of_your_own_is_looked_for_as_far_as_it_goes(self):
        """Pairs that are far for the usual limits are judged by a wider one, and none is passed over as far within it."""
        usual = {p.id: p for p in whole_sweep(job()).pairs}
        own = {"metal-clearance": LimitChange(value=160.0, reason="room for a blanket")}
        result = whole_sweep(with_design(job(), limits=own))
        judged = {c.id: c for c in result.checks}
        nearer = [
            p for p in result.pairs if p.limit_id == "metal-clearance" and p.gap_mm is not None and p.gap_mm < 160.0
        ]
        new = [p for p in nearer if usual[p.id].gap_mm is None]
        self.assertGreater(len(new), 3)
        for pair in new:
            self.assertEqual(pair.verdict, "fails")
            self.assertGreaterEqual(pair.gap_mm, usual[pair.id].beyond_mm - 1e-6)
            self.assertTrue(any(pair.id.replace(":", "_") in id_ for id_ in judged), pair.id)
        for pair in result.pairs:
            if pair.limit_id == "metal-clearance" and pair.gap_mm is None:
                self.assertGreater(pair.beyond_mm, 160.0)
            if pair.limit_id != "metal-clearance":
                self.assertEqual(pair.gap_mm, usual[pair.id].gap_mm)

    def test_far_things_are_only_told_to_be_far(self):
        rod = movers(job(), "front")["toe link, right"]
        found = least(rod, standing_of(box(2500, 0, 900)))
        self.assertIsInstance(found, Far)
        self.assertGreater(found.beyond_mm, 1000)


class AtRest(TestCase):
    def test_a_thing_in_the_rail_is_told_and_is_no_contact(self):
        inputs = with_design(job(), obstacles=(box(900, 380, 0, (200, 30, 40), "tank", "Tank"),))
        result = whole_sweep(inputs)
        inside = [c for c in result.checks if c.limit_id == "inside-at-rest"]
        self.assertEqual([c.verdict for c in inside], ["fails"])
        self.assertIn("right rail", inside[0].title)
        self.assertFalse([p for p in result.pairs if p.other == "Tank" and p.inside_at_rest])

    def test_a_bar_through_the_rail_is_told(self):
        bar = Obstacle(
            id="pipe",
            name="Exhaust",
            kind="exhaust",
            mirrored=True,
            body=BarShape(
                a=HardPoint(x_mm=900, y_mm=250, z_mm=0), b=HardPoint(x_mm=900, y_mm=500, z_mm=0), diameter_mm=50
            ),
        )
        result = whole_sweep(with_design(job(), obstacles=(bar,)))
        self.assertEqual(len([c for c in result.checks if c.limit_id == "inside-at-rest"]), 2)

    def test_a_tyre_that_stands_in_a_wing_overlaps_at_rest(self):
        result = whole_sweep(with_design(job(), obstacles=(box(0, 790, 240, (500, 300, 100), "wing", "Wing"),)))
        pair = next(p for p in result.pairs if p.other == "Wing" and p.moving == "tyre, right")
        self.assertTrue(pair.inside_at_rest)
        check = next(c for c in result.checks if "tyre-right_thing-1" in c.id)
        self.assertIn("at rest", check.why.words + " at rest" if "overlap" in check.why.words else "")

    def test_a_wing_over_the_tyre_is_met_in_bump(self):
        wing = box(0, 790, 340 - 98 + 60 + 20, (700, 300, 40), "wing", "Wing")
        result = whole_sweep(with_design(job(), obstacles=(wing,)))
        pair = next(p for p in result.pairs if p.other == "Wing" and p.moving == "tyre, right")
        self.assertFalse(pair.inside_at_rest)
        self.assertLess(pair.gap_mm, 0.0)
        radius = parse_tyre("215/75R16").free_diameter_mm / 2
        # the tyre's top meets the sheet where it has risen by the gap that it has at rest
        self.assertAlmostEqual(pair.first_bump_mm, (340 - 98 + 60) - (radius - 98), delta=4.0)
        self.assertEqual(pair.words, "up")
        held = next(c for c in result.checks if c.limit_id == "tyre-static" and "Wing" in c.title)
        self.assertAlmostEqual(held.value, pair.at_rest_mm)


class Named(TestCase):
    def test_two_things_of_one_name_are_told_apart(self):
        """A second box comes with the first one's name: both have rows, maps and checks of their own."""
        one = box(0, 790, 370, (500, 300, 40), "wing", "Engine: left")
        two = box(0, 790, 390, (500, 300, 40), "wing", "Engine: left").model_copy(update={"id": "thing-2"})
        inputs = with_design(job(), obstacles=(one, two))
        result = whole_sweep(inputs)
        ids = [p.id for p in result.pairs] + [c.id for c in result.checks]
        self.assertEqual(len(set(ids)), len(ids))
        gaps = {p.obstacle_id: p.gap_mm for p in result.pairs if p.obstacle_id and p.id.startswith("front:tyre-right")}
        self.assertAlmostEqual(gaps["thing-2"] - gaps["thing-1"], 20.0, delta=0.5)
        pair = next(p for p in result.pairs if p.id == "front:tyre-right:thing-2")
        self.assertEqual(map_of(inputs, pair.id).id, pair.id)


class LeftOut(TestCase):
    def test_what_was_not_looked_at_is_said(self):
        inputs = job()
        only = with_design(inputs, suspensions=tuple(s for s in inputs.design.suspensions if s.axle == "rear"))
        self.assertTrue(any("front axle" in words for words in whole_sweep(only).left_out))
        bald = inputs.model_copy(
            update={
                "survey": inputs.survey.model_copy(
                    update={"rear": inputs.survey.rear.model_copy(update={"tyre": None})}
                )
            }
        )
        self.assertTrue(any("rear tyres" in words for words in whole_sweep(bald).left_out))

    def test_a_linkage_that_does_not_move_is_said(self):
        inputs = job()
        own = inputs.design.suspensions[0]
        flat = own.layout.model_copy(update={"upper": own.layout.lower})
        broken = with_design(inputs, suspensions=(own.model_copy(update={"layout": flat}),))
        self.assertTrue(any("does not move" in words for words in whole_sweep(broken).left_out))

    def test_a_tyre_larger_than_the_world_is_swept_all_the_same(self):
        inputs = job()
        huge = tuple(s.model_copy(update={"tyre": "99x30.00R22"}) for s in inputs.design.suspensions)
        result = whole_sweep(with_design(inputs, suspensions=huge))
        self.assertTrue(any(p.moving.startswith("tyre") and p.inside_at_rest for p in result.pairs))
        self.assertNotIn("NaN", result.model_dump_json())


class Maps(TestCase):
    def test_the_map_holds_the_least(self):
        inputs = job()
        for pair in whole_sweep(inputs).pairs[4:9]:
            found = map_of(inputs, pair.id)
            least_there = min(v for row in found.gap_mm for v in row if v is not None)
            self.assertGreaterEqual(least_there, pair.gap_mm - 0.06)
            self.assertLess(least_there, pair.gap_mm + 8.0)

    def test_there_is_no_map_of_nothing(self):
        self.assertIsNone(map_of(job(), "front:nothing:nowhere"))

    def test_what_cannot_be_reached_is_left_blank(self):
        inputs = job("brackmoor", "welded")
        own = inputs.design.suspensions[0]
        gear = own.steering.gear
        wild = gear.model_copy(update={"box": gear.box.model_copy(update={"swing_deg": 79.0})})
        own = own.model_copy(update={"steering": own.steering.model_copy(update={"gear": wild})})
        here = scene(with_design(inputs, suspensions=(own,)))
        pair = next(p for p in pairs_of(here.movers, here.standing) if p.mover.name == "drag link")
        self.assertTrue(np.isnan(clearance_map(pair)).any())


class RoomRoundARod(TestCase):
    """Clearance is square to the rod, so that the hole of one that runs askew is longer by more than its own ellipse."""

    def test_an_ellipse_of_rod_and_room_together(self):
        """A rod of 10 mm with 12.7 mm round it: half axes 22.7 and 22.7/cos t, plane geometry; 24-gon drawn round it."""
        for degrees in (0.0, 20.0, 30.0, 40.0):
            slope = np.tan(np.radians(degrees))
            ends = np.array([[[-500 * slope, -500.0, 0.0]]]), np.array([[[500 * slope, 500.0, 0.0]]])
            bar = SimpleNamespace(body=RoundBar(*ends, 10.0), there=np.array([[True]]))
            x0, z0, x1, z1 = swept_hull((bar,), 0.0, 0.0, 12.7).bounds
            self.assertAlmostEqual((x1 - x0) / 2 / (22.7 / np.cos(np.radians(degrees))), 1.0, delta=0.01)
            self.assertAlmostEqual((z1 - z0) / 2 / 22.7, 1.0, delta=0.01)


def uncut():
    """The step option before the rack's hole is cut."""
    inputs = job()
    return with_design(inputs, operations=tuple(o for o in inputs.design.operations if o.id != "rack-hole"))


class CutFromSweep(TestCase):
    def test_the_hole_that_is_proposed_clears_what_passes_it(self):
        """The loop closed: the proposal placed, everything swept again, and the rods have their half inch."""
        inputs = uncut()
        found = cut_from_sweep(inputs, "front", "toe link, right", "right")
        self.assertTrue(found.both)
        for choice in found.choices:
            if choice.reason:
                continue
            with self.subTest(choice.kind):
                placed_in = with_design(inputs, operations=(*inputs.design.operations, choice.operation))
                pairs = [
                    p
                    for p in whole_sweep(placed_in).pairs
                    if p.other.endswith("rail") and p.moving[:4] in ("toe ", "boot") and p.gap_mm is not None
                ]
                self.assertEqual(len(pairs), 4)
                for pair in pairs:
                    # chords leave metal by up to 0.3 mm
                    self.assertGreaterEqual(pair.gap_mm, 12.7 - 0.35, pair.id)

    def test_a_hole_that_is_there_becomes_the_one_that_is_needed(self):
        inputs = job()
        (there,) = (o for o in inputs.design.operations if o.id == "rack-hole")
        found = cut_from_sweep(inputs, "front", "toe link, right", "right")
        saw = next(c for c in found.choices if c.kind == "saw")
        self.assertEqual((saw.operation.id, saw.operation.name), (there.id, there.name))
        self.assertAlmostEqual(saw.operation.diameter_mm, there.diameter_mm, delta=0.05)

    def test_circle_and_oblong_hold_the_hull_and_its_clearance(self):
        found = cut_from_sweep(uncut(), "front", "toe link, right", "right")
        grown = Polygon(found.outline)
        for choice in found.choices:
            if choice.kind in {"notch", "half-moon"}:
                continue
            hole: WebHole = choice.operation
            free = Polygon(hole.clear_outline().moved(choice.x_mm, found.underside_mm + choice.height_mm).points(0.05))
            self.assertLess(grown.difference(free.buffer(0.1)).area, 0.5, choice.kind)

    def test_the_half_moon_from_below_holds_what_passes_with_its_clearance(self):
        """Half of the pipe's bore over straight sides down to the rail's underside, drawn by itself."""
        found = cut_from_sweep(uncut(), "front", "toe link, right", "right")
        choice = next(c for c in found.choices if c.kind == "half-moon")
        cut = choice.operation
        bore = cut.shape.radius_mm - cut.liner.thickness_mm
        middle = found.underside_mm + cut.depth_mm - cut.shape.radius_mm
        free = Point(choice.x_mm, middle).buffer(bore, quad_segs=90)
        free = free.union(box_of(choice.x_mm - bore, found.underside_mm - 200.0, choice.x_mm + bore, middle))
        self.assertLess(Polygon(found.outline).difference(free.buffer(0.2)).area, 0.5)
        self.assertEqual(cut.from_, "below")

    def test_the_oblong_takes_less_than_the_pipe(self):
        choices = {c.kind: c for c in cut_from_sweep(uncut(), "front", "toe link, right", "right").choices}
        self.assertLess(choices["oblong"].area_mm2, choices["pipe"].area_mm2)

    def test_a_hole_that_runs_out_of_the_web_is_refused_with_its_reason(self):
        inputs = uncut()
        rail = inputs.survey.rails.right
        low = tuple(s.model_copy(update={"height_mm": 0.6 * s.height_mm}) for s in rail.stations)
        rails = inputs.survey.rails.model_copy(update={"right": rail.model_copy(update={"stations": low})})
        lower = inputs.model_copy(update={"survey": inputs.survey.model_copy(update={"rails": rails})})
        choices = {c.kind: c for c in cut_from_sweep(lower, "front", "toe link, right", "right").choices}
        self.assertIn("runs out of the web", choices["pipe"].reason)

    def test_what_does_not_pass_is_told(self):
        for moving, side in (("toe link, right", "left"), ("nothing", "right"), ("tyre, right", "right")):
            with self.subTest(moving), self.assertRaises(Exception) as caught:
                cut_from_sweep(uncut(), "front", moving, side)
            self.assertTrue(caught.exception.acceptable)

    def test_strips_make_up_a_polygon_with_its_holes(self):
        """Their areas sum up to that of the polygon library's own, and none overlaps another."""
        box = Polygon([(0, 0), (900, 0), (900, 150), (0, 150)])
        for gone in (
            [Point(300, 60).buffer(40), Point(620, 0).buffer(70)],
            [Polygon([(100, 150), (180, 40), (260, 150)]), Point(180, 20).buffer(12)],
            [],
        ):
            part = box.difference(unary_union(gone)) if gone else box
            x = np.array([0.0, 900.0])
            corners, low, high = strips(part, x, (np.zeros(2), np.array([60.0, 90.0])))
            made = [Polygon(c) for c in corners]
            self.assertAlmostEqual(sum(m.area for m in made), part.area, delta=1e-6 * part.area)
            self.assertLess(unary_union(made).symmetric_difference(part).area, 1e-6 * part.area)
            self.assertTrue((low == 0).all() and (high >= 60).all() and (high <= 90).all())

    def test_an_axle_asks_for_a_notch_as_deep_as_its_path(self):
        """Handbook of the trade: tube top at full bump + clearance - underside, and the liner."""
        inputs = uncut()
        bare = with_design(inputs, operations=tuple(o for o in inputs.design.operations if o.id in ("rear-step",)))
        found = cut_from_sweep(bare, "rear", "axle tube", "left")
        (notch,) = found.choices
        tube = movers(bare, "rear")["axle tube"]
        seen = rail_body(bare.survey, bare.design.operations, "left").pack
        self.assertIsInstance(seen, Prisms)
        faces = (seen.boxes.low[:, 1].min(), seen.boxes.high[:, 1].max())
        a, b = tube.body.a[tube.there], tube.body.b[tube.there]
        tops = [np.max(a[:, 2] + (y - a[:, 1]) / (b[:, 1] - a[:, 1]) * (b[:, 2] - a[:, 2])) for y in faces]
        slope = np.cos(np.radians(5.0))
        depth = max(tops) + tube.body.radius / slope + 12.7 - found.underside_mm + 6.0
        self.assertAlmostEqual(notch.height_mm, depth, delta=0.8)


class ThroughHoles(TestCase):
    def test_the_rail_opens_where_the_hole_is(self):
        inputs = job()
        hole = WebHole(
            id="pass",
            name="Pass",
            side="right",
            place=Place(anchor_id="cab-crossmember", offset_mm=360.0),
            height_mm=75.0,
            diameter_mm=60.0,
            work="pass",
            liner_mm=4.0,
        )
        opened = with_design(inputs, operations=(*inputs.design.operations, hole))
        rods = [
            RoundBar(np.array([[1000.0, y, z]]), np.array([[1000.0, y + 200.0, z]]), 10.0) for y, z in ((300.0, 0.0),)
        ]
        for rod in rods:
            before, after = (rail_body(i.survey, i.design.operations, "right").pack for i in (inputs, opened))
            gaps = []
            for pack in (before, after):
                count = len(pack.boxes.low)
                a, b = np.repeat(rod.a, count, axis=0), np.repeat(rod.b, count, axis=0)
                points = a + 0.5 * (b - a)
                gaps.append(float(pack.distance(points).min()) - rod.radius)
            self.assertLess(gaps[0], 0.0)
            # 60 mm less two walls of 4 leave 26 mm of radius, less the rod's 10
            self.assertAlmostEqual(gaps[1], 16.0, delta=0.4)

    def test_a_point_in_the_middle_of_the_circle(self):
        hole = WebHole(
            id="p",
            name="p",
            place=Place(anchor_id="a", offset_mm=0),
            height_mm=75,
            diameter_mm=60,
            tall_mm=20,
            work="pass",
        )
        shape = Polygon(hole.clear_outline().points(0.01))
        self.assertAlmostEqual(shape.area, np.pi * 30**2 + 60 * 20, delta=3.0)
        self.assertTrue(shape.contains(Point(0, 39.9)) and not shape.contains(Point(0, 40.1)))
