"""Kinds of jobs that people plan, each from an empty job: what one part of the design does, the others know."""

from django.test import SimpleTestCase

from nodulant.base.errors import NodulantError
from nodulant.clearance.work_bodies import work_bodies
from nodulant.evaluate import evaluate
from nodulant.frame.ops.fresh import Setting
from nodulant.frame.ops.union import operation_kinds
from nodulant.job.document import Design, Inputs, Shop
from nodulant.survey.rail import Rail, Station
from nodulant.survey.vehicle import Axle, Datum, Feature, Mass, Rails, Seat, Survey
from nodulant.units.inline import told

WHEELBASE = 2900.0
KINDS = {str(kind.model_fields["kind"].default): kind for kind in operation_kinds()}


def rail(**more):
    rows = tuple(
        Station(x_mm=x, underside_z_mm=0, height_mm=140, width_mm=60, wall_mm=4.5)
        for x in (-600.0, 700.0, 1800.0, 3700.0)
    )
    return Rail(stations=rows, web_y_mm=430.0, inside_radius_mm=5.0, steel_id="mild", **more)


def survey(**more):
    """A light truck of nobody's: channel rails, leaf springs all round, as a tape and a scale give it."""
    features = (
        Feature(id="front-axle", name="front axle line", kind="axle-line", x_mm=0),
        Feature(id="rear-axle", name="rear axle line", kind="axle-line", x_mm=WHEELBASE),
        Feature(id="hanger", name="front hanger", kind="hanger", x_mm=2300),
        Feature(id="clip", name="clip hole", kind="hole", x_mm=2600, height_mm=70, diameter_mm=10),
    )
    masses = (
        Mass(id="frame", name="Frame and cab", mass_kg=900, x_mm=-400, to_x_mm=3400, z_mm=500, aboard="bare"),
        Mass(id="engine", name="Engine", mass_kg=350, x_mm=200, z_mm=300, aboard="bare"),
    )
    seats = tuple(
        Seat(id=i, name=n, axle=a, x_mm=x, share=0.5)
        for i, n, a, x in (
            ("ff", "Front hanger", "front", -500.0),
            ("fr", "Front shackle", "front", 500.0),
            ("rf", "Rear hanger", "rear", 2300.0),
            ("rr", "Rear shackle", "rear", 3500.0),
        )
    )
    axle = {"tyre": "235/75R15", "loaded_radius_mm": 345, "track_mm": 1560}
    fields = {
        "vehicle": "Truck",
        "datum": Datum(feature_id="hanger"),
        "wheelbase_mm": WHEELBASE,
        "rails": Rails(left=rail(), right=rail()),
        "features": features,
        "masses": masses,
        "seats": seats,
        "front": Axle(**axle, hub_z_left_mm=-130, hub_z_right_mm=-130),
        "rear": Axle(
            **axle,
            hub_z_left_mm=-140,
            hub_z_right_mm=-140,
            tube_diameter_mm=80,
            tube_gap_left_mm=100,
            tube_gap_right_mm=100,
        ),
    }
    return Survey(**{**fields, **more})


def begun(*operations, **design):
    """A job from nothing with work in it."""
    return Inputs(survey=survey(), design=Design(operations=operations, **design), shop=Shop())


def new(kind, **fields):
    """A new piece of work as the application begins it, then as it is typed."""
    work = KINDS[kind].fresh(Setting(survey(), "rear"), ())
    return type(work).model_validate({**{n: getattr(work, n) for n in type(work).model_fields}, **fields})


def at(anchor, offset=0.0):
    return {"anchor_id": anchor, "offset_mm": float(offset)}


def rows(inputs):
    return {c.id: c for c in evaluate(inputs).checks}


class Front(SimpleTestCase):
    def test_a_raised_subframe_marks_and_proves_its_points(self):
        points = [
            {"name": "seat", "what": "face", "x_mm": 0.0, "y_mm": 400.0, "z_mm": 0.0, "pair": True},
            {"name": "rear bushing", "what": "bushing", "x_mm": 240.0, "y_mm": 380.0, "z_mm": -40.0, "pair": True},
        ]
        sub = new("subframe", place=at("front-axle"), up_mm=50.8, points=points)
        pocket = new("raise", place=at("front-axle"), depth_mm=57.0, inner_depth_mm=45.0)
        result = evaluate(begun(sub, pocket))
        titles = [s.spec.title for s in result.steps]
        order = [titles.index(t) for t in ("Marks that survive", "Lower it out", "Bring it up", "Prove its points")]
        self.assertEqual(order, sorted(order))
        read = {(r.spec.name, r.side) for r in result.readings}
        for axis in ("along", "across", "height"):
            self.assertLessEqual({(f"rear bushing, {axis}", side) for side in ("left", "right")}, read)
        edges = dict(pocket.cut_templates())
        self.assertEqual(len(edges), 2, "one template for each wall of a tapered pocket")
        deep = sorted(max(v.y for v in edge.vertices) for edge in edges.values())
        self.assertAlmostEqual(deep[1] - deep[0], 12.0, delta=0.05)

    def test_a_step_and_a_jog_meet_end_to_end_or_are_refused_by_name(self):
        step = new("z-step", place=at("front-axle", 700), rise_mm=50.8, rises="ahead")
        jog = new("narrow", end=at("front-axle", 700), inward_mm=50.8)
        self.assertTrue(evaluate(begun(step, jog)).parts)
        with self.assertRaises(NodulantError) as caught:
            evaluate(begun(step, jog.model_copy(update={"end": jog.end.model_copy(update={"offset_mm": 800.0})})))
        self.assertIn("overlap", caught.exception.message)
        self.assertIn("160 mm further back, or 100 mm ahead", told(caught.exception.acceptable, "mm"))

    def test_a_seat_on_metal_that_comes_out_is_told(self):
        jog = new("narrow", end=at("front-axle", 550), inward_mm=50.8)
        told = [
            c for c in rows(begun(jog)).values() if c.why and "Front shackle" in c.why.words and c.verdict == "fails"
        ]
        self.assertTrue(told)

    def test_a_new_mount_of_a_box_begins_at_the_front_on_one_rail_whatever_the_job_is_about(self):
        for axle in ("front", "rear"):
            mount = KINDS["steering-mount"].fresh(Setting(survey(), axle, (6.0,)), ())
            self.assertEqual((mount.side, mount.place.anchor_id), ("left", "front-axle"))

    def test_a_box_s_plate_begins_at_its_axle_on_its_side(self):
        plate = new("steering-mount", place=at("front-axle", -300), side="left", turn_deg=20.0)
        result = evaluate(begun(plate))
        self.assertEqual({p.side for p in result.parts}, {"left"})
        self.assertFalse([c.id for c in result.checks if c.verdict == "not computed" and "rear" in c.id])


class Rear(SimpleTestCase):
    def test_a_step_takes_its_axle_up_and_keeps_the_wheelbase(self):
        step = new("z-step", place=at("rear-axle", -700), rise_mm=100.0)
        result = evaluate(begun(step))
        self.assertAlmostEqual(result.drop.total_mm, 100.0)
        self.assertNotIn("wheelbase-kept:vehicle:both", {c.id for c in result.checks})

    def test_a_set_on_step_says_what_it_takes_from_the_wheelbase(self):
        step = new("z-step", place=at("rear-axle", -700), rise_mm=150.0, method="set-on", overlap_mm=250.0)
        row = rows(begun(step))["wheelbase-kept:vehicle:both"]
        self.assertEqual((row.verdict, row.value), ("note", 250.0))
        self.assertIn("shorter", row.why.words)

    def test_a_stretch_says_what_it_adds(self):
        stretch = new("stretch", place=at("hanger", -300))
        row = rows(begun(stretch))["wheelbase-kept:vehicle:both"]
        self.assertAlmostEqual(row.value, stretch.length_mm)
        self.assertIn("longer", row.why.words)

    def test_a_bolted_notch_is_drilled_and_every_plate_has_the_holes(self):
        plate = {"thickness_mm": 5.0, "overlap_mm": 150.0}
        sizes = {"outer_plate": plate, "inner_plate": plate, "liner": {"thickness_mm": 5.0}, "bolts": {"per_end": 4}}
        result = evaluate(begun(new("notch", depth_mm=60.0, **sizes)))
        holed = {p.role: len(p.holes) for p in result.parts if p.side == "left"}
        self.assertEqual((holed["outer"], holed["inner"]), (8, 8))
        titles = [s.spec.title for s in result.steps]
        self.assertTrue(any(t.startswith("Drill 8 holes") for t in titles))
        welded = {t for t in titles if t.startswith("Weld")}
        self.assertEqual(welded, {"Weld the bracket on the bench"}, "nothing is welded to the rail on bolted work")

    def test_two_stretches_are_told_apart_by_name(self):
        first = new("stretch", place=at("hanger", -300))
        more = {
            "id": "stretch-2",
            "name": "Second stretch",
            "place": first.place.model_copy(update={"offset_mm": -900.0}),
        }
        result = evaluate(begun(first, first.model_copy(update=more)))
        cuts = [(s.spec.title, s.operation, s.side) for s in result.steps if s.operation]
        self.assertEqual(len(cuts), len(set(cuts)))
        self.assertEqual(
            {t for t, _, _ in cuts if t.startswith("Cut through")},
            {"Cut through: Stretch or shorten", "Cut through: Second stretch"},
        )

    def test_a_bracket_bolted_through_a_boxed_rail_has_its_holes_and_asks_for_sleeves(self):
        spots = [{"along_mm": x, "up_mm": z} for x in (-40.0, 40.0) for z in (-20.0, 20.0)]
        bolts = {"positions": spots, "sleeves": False}
        bracket = new("bracket", place=at("hanger", -500), height_mm=70.0, fixing="bolted", bolts=bolts, along_n=9000.0)
        box = new("boxing", start=at("hanger", -800), end=at("rear-axle", 300))
        result = evaluate(begun(box, bracket))
        foot = next(p for p in result.parts if p.role == "foot" and p.side == "left")
        self.assertEqual(
            sorted((h.x_mm, h.y_mm) for h in foot.holes), sorted((1800 + s["along_mm"], 70 + s["up_mm"]) for s in spots)
        )
        crushed = [c for c in result.checks if c.limit_id == "sleeve-there" and c.verdict == "fails"]
        self.assertTrue(crushed)
        titles = [s.spec.title for s in result.steps if s.side == "left"]
        self.assertLess(titles.index("Everything that goes inside the rail"), titles.index("Weld the boxing plate"))

    def test_a_rotten_place_is_let_in_piece_by_piece(self):
        result = evaluate(begun(new("repair")))
        self.assertEqual(
            {p.name for p in result.parts if p.side == "left"},
            {"Patch, web", "Patch, top flange", "Patch, bottom flange"},
        )

    def test_a_coilover_s_mount_rises_above_its_rail(self):
        pocket = new("spring-pocket", place=at("rear-axle", -60), bolt_up_mm=230.0, spring_n=9000.0)
        result = evaluate(begun(pocket))
        self.assertLessEqual({"cheek-outer", "cheek-inner"}, {p.role for p in result.parts})
        zones = next(s for s in result.steps if s.spec.key == "zones")
        self.assertIn("until the gusset is tacked", zones.spec.detail)
        (body,) = work_bodies(survey(), (pocket,), "left")
        self.assertGreater(float(body.pack.corners[:, :, 1].max()), 230.0)
