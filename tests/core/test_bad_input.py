"""Whatever is typed, the answer is finite figures or a refusal in words; never NaN, never a crash."""

import math
import subprocess
import tempfile
import warnings

from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import ValidationError
from reportlab.graphics.shapes import Circle

from nodulant.base.errors import NodulantError
from nodulant.evaluate import InvalidInputs, SectionAt, Want, evaluate
from nodulant.formats.dossier import dossier_pdf
from nodulant.formats.dossier.cut_drawings import elevation
from nodulant.frame.ops.notches.notch import Notch
from nodulant.frame.ops.plates.boxing import Boxing
from nodulant.frame.place import Place
from nodulant.handcheck import hand_check
from nodulant.loads.beam import seat_centre
from nodulant.patterns.collect import patterns_of
from nodulant.supports.places import fresh_stand
from tests import fixtures as f
from tests.fixtures import finite

FUZZ = settings(deadline=None, derandomize=True, max_examples=120)
WILD = st.one_of(
    st.floats(allow_nan=True, allow_infinity=True),
    st.floats(-300, 300),
    st.floats(0, 200),
    st.sampled_from([0.0, -1.0, 1e9, 1e-9, 5e-324, math.nan, math.inf]),
)


@st.composite
def notches(draw):
    """Notches of every kind, sensible or not, as documents."""
    plate = {
        "thickness_mm": draw(WILD),
        "overlap_mm": draw(WILD),
        "inset_mm": draw(WILD),
        "end": draw(st.sampled_from(["square", "taper", "diamond"])),
    }
    arc = {"kind": "arc", "radius_mm": draw(WILD)}
    straight = {
        "kind": "trapezoid",
        "top_width_mm": draw(WILD),
        "mouth_width_mm": draw(WILD),
        "corner_radius_mm": draw(WILD),
    }
    return {
        "id": "n",
        "name": "n",
        "place": {"anchor_id": "rear-axle", "offset_mm": draw(WILD)},
        "shape": draw(st.sampled_from([arc, straight])),
        "depth_mm": draw(WILD),
        "liner": draw(st.sampled_from([None, {"thickness_mm": plate["thickness_mm"]}])),
        "outer_plate": draw(st.sampled_from([None, plate])),
        "inner_plate": draw(st.sampled_from([None, plate])),
        "cap": draw(
            st.sampled_from([None, {"height_mm": draw(WILD), "thickness_mm": draw(WILD), "overlap_mm": draw(WILD)}])
        ),
    }


class Fuzz(SimpleTestCase):
    """Wrong input deserves as much care as right input."""

    def stands(self, inputs):
        try:
            result = evaluate(inputs, Want(section=SectionAt(side="left", x_mm=2610)))
        except NodulantError as error:
            self.assertTrue(error.message)
            for problem in getattr(error, "problems", [error]):
                self.assertTrue(problem.field.startswith("/"), problem.message)
                self.assertTrue(problem.acceptable, problem.message)
            return
        self.assertTrue(finite(result.model_dump()))
        self.assertTrue(all(finite(p.model_dump()) for p in patterns_of(inputs.survey, inputs.design.operations)))

    def test_two_of_one_id_are_told_apart_by_nobody(self):
        inputs = f.demo("step")
        for root, name in (("survey", "seats"), ("survey", "masses"), ("design", "seats"), ("design", "operations")):
            document = getattr(inputs, root)
            first, second, *rest = getattr(document, name)
            twice = document.model_copy(update={name: (first, second.model_copy(update={"id": first.id}), *rest)})
            with self.assertRaises(InvalidInputs, msg=name) as caught:
                evaluate(inputs.model_copy(update={root: twice}))
            self.assertEqual(caught.exception.problems[0].field, f"/{root}/{name}")

    def test_links_that_push_for_one_axle_twice_are_named(self):
        inputs = f.demo("arc")
        loads = inputs.design.loads
        twice = loads.model_copy(update={"links": loads.links * 2})
        with self.assertRaises(InvalidInputs) as caught:
            evaluate(inputs.model_copy(update={"design": inputs.design.model_copy(update={"loads": twice})}))
        self.assertEqual(caught.exception.problems[0].field, "/design/loads/links/1/axle")

    def test_a_bolt_whose_hole_breaks_out_of_its_tab_fails_by_far(self):
        inputs = f.demo("step")
        mounts = [op for op in inputs.design.operations if hasattr(op, "tabs")]
        self.assertGreater(len(mounts), 0)
        torn = tuple(
            op.model_copy(update={"tabs": op.tabs.model_copy(update={"edge_mm": 4.0})}) if op in mounts else op
            for op in inputs.design.operations
        )
        result = evaluate(f.with_operations(inputs, *torn))
        rows = [c for c in result.checks if c.limit_id == "tab-hole"]
        self.assertEqual({c.verdict for c in rows}, {"fails"})
        self.assertTrue(finite(result.model_dump()))

    @FUZZ
    @given(notches())
    def test_any_notch(self, document):
        try:
            notch = Notch.model_validate(document)
        except ValidationError:
            return
        self.stands(f.with_operations(f.demo(), f.demo().design.operations[0], notch))

    @FUZZ
    @given(
        st.floats(15, 145),
        st.floats(8, 150),
        st.floats(0.5, 12),
        st.floats(0, 400),
        st.floats(0.5, 20),
        st.floats(5, 200),
    )
    def test_any_sensible_notch_with_all_its_plates(self, depth, radius, t, overlap, cap_t, cap_h):
        try:
            notch = f.arc_notch(
                depth,
                radius,
                liner=f.liner(t),
                outer_plate=f.side_plate(t, overlap, end="diamond"),
                inner_plate=f.side_plate(t, overlap, inset=5),
                cap=f.cap(cap_t, cap_h, overlap),
            ).model_copy(update={"place": Place(anchor_id="rear-axle")})
        except ValidationError:
            return
        self.stands(f.with_operations(f.demo(), f.demo().design.operations[0], notch))

    @FUZZ
    @given(WILD, WILD, WILD, st.sampled_from(["over-lips", "flush", "inside"]), WILD)
    def test_any_boxing(self, start, end, thickness, fit, inset):
        places = {k: {"anchor_id": "rear-axle", "offset_mm": v} for k, v in (("start", start), ("end", end))}
        try:
            box = Boxing.model_validate(
                {"id": "b", "name": "b", "thickness_mm": thickness, "fit": fit, "inset_mm": inset, **places}
            )
        except ValidationError:
            return
        self.stands(f.with_operations(f.demo(), box))

    @FUZZ
    @given(WILD, WILD, WILD, WILD)
    def test_any_target(self, drop, bump, droop, amount):
        targets = type(f.demo().design.targets)
        entries = [{"id": "a", "name": "a", "mechanism": "springs", "amount_mm": amount, "costs_travel": True}]
        try:
            made = targets.model_validate({"drop_mm": drop, "bump_mm": bump, "droop_mm": droop, "entries": entries})
        except ValidationError:
            return
        inputs = f.demo()
        self.stands(inputs.model_copy(update={"design": inputs.design.model_copy(update={"targets": made})}))

    @FUZZ
    @given(
        st.lists(
            st.tuples(
                st.sampled_from(["depth", "width", "position", "liner-thickness", "outer-overlap"]),
                st.floats(-500, 500),
            ),
            max_size=5,
        )
    )
    def test_any_readings(self, rows):
        try:
            inputs = f.with_readings(f.demo(), *((k, "left", v) for k, v in rows))
        except ValidationError:
            return
        self.stands(inputs)


class Report(SimpleTestCase):
    """What an inspector reads."""

    def text(self, inputs):
        with tempfile.NamedTemporaryFile(suffix=".pdf") as file:
            file.write(dossier_pdf(f.dossier_of(inputs, "Wherry <low> & floor", "Arc, revision 3")))
            file.flush()
            return subprocess.run(
                ["pdftotext", "-layout", file.name, "-"], check=True, capture_output=True, text=True
            ).stdout

    def test_it_holds_what_the_dossier_needs(self):
        text = self.text(f.with_readings(f.demo(), ("depth", "left", 61.0)))
        for word in (
            "Wherry <low> & floor",
            "Caution",
            "planning figures from simplified models",
            "licensed engineer",
            "qualified welder",
            "Checks",
            "As built",
            '2 3/8"',
            '+0.118"',
            "not taken",
            "hash",
        ):
            self.assertIn(word, text)

    def test_it_names_the_hash_of_what_was_evaluated(self):
        inputs = f.demo()
        self.assertIn(inputs.content_hash()[:16], self.text(inputs).replace("\n", ""))

    def test_no_letter_is_missing_from_its_font(self):
        self.assertNotIn("\u25a0", self.text(f.demo()))

    def test_the_drawing_shows_the_jobs_own_full_bump(self):
        def lifts(bump):
            inputs = f.with_targets(f.demo(), bump_mm=bump)
            drawn = elevation(evaluate(inputs), "left", 500, 2610, 450, bump, "mm")
            low, high = [shape.cy for shape in drawn.contents if isinstance(shape, Circle)]
            return (high - low) / (500 / 900)

        self.assertAlmostEqual(lifts(40.0), 40.0, delta=0.01)
        self.assertAlmostEqual(lifts(75.0), 75.0, delta=0.01)

    def test_a_bare_job_has_a_report_too(self):
        self.assertIn("not computed", self.text(f.with_operations(f.with_survey(f.demo(), masses=()))))


class TwoInOne(SimpleTestCase):
    """Two bolts in one hole are refused at the field, and so is a pattern that its foot has no room for."""

    def bracket(self, **more):
        place = {"anchor_id": "rear-axle", "offset_mm": -700.0}
        fields = {"kind": "bracket", "id": "it", "name": "it", "place": place, "height_mm": 70.0, "fixing": "bolted"}
        return f.with_operations(f.demo(), f.operation({**fields, **more}))

    def test_the_usual_foot_has_room_for_its_bolts(self):
        self.assertTrue(evaluate(self.bracket()).checks)

    def test_at_the_field(self):
        same = [{"along_mm": 0.0, "up_mm": 0.0}, {"along_mm": 5.0, "up_mm": 0.0}]
        for more in (
            {"bolts": {"positions": same}},
            {"bolts": {"per_end": 8}},
            {"tall_mm": 30.0, "bolts": {"per_end": 2}},
        ):
            with self.subTest(str(more)), self.assertRaisesRegex(InvalidInputs, "one hole|breaks out") as told:
                evaluate(self.bracket(**more))
            self.assertTrue(told.exception.problems[0].field.startswith("/design/operations/0/"))


class NothingAboard(SimpleTestCase):
    """Masses of 0 kg are rows that wait for their figures: nothing that they carry is computed, nothing is refused."""

    def with_masses(self, inputs, change):
        masses = tuple(change(m) for m in inputs.survey.masses)
        return inputs.model_copy(update={"survey": inputs.survey.model_copy(update={"masses": masses})})

    def test_they_are_as_if_no_mass_was_given(self):
        for name, option in (("wherry", "arc"), ("wherry", "step"), ("brackmoor", "welded")):
            inputs = f.job(name).inputs(option)
            light = self.with_masses(inputs, lambda m: m.model_copy(update={"mass_kg": 0.0}))
            bare = inputs.model_copy(update={"survey": inputs.survey.model_copy(update={"masses": ()})})
            with self.subTest((name, option)):
                found, without = evaluate(light), evaluate(bare)
                self.assertTrue(finite(found.model_dump(mode="json")))
                self.assertEqual({c.id: c.verdict for c in found.checks}, {c.id: c.verdict for c in without.checks})
                waits = [c for c in found.checks if c.verdict == "not computed" and "/survey/masses" in c.missing]
                self.assertIn("case-limit", {c.limit_id for c in waits})
                self.assertTrue(hand_check(light))

    def test_stands_under_nothing_are_not_computed(self):
        inputs = self.with_masses(f.demo("arc"), lambda m: m.model_copy(update={"mass_kg": 0.0}))
        stands = ()
        for _ in range(4):
            stands = (*stands, fresh_stand(inputs.survey, stands))
        design = inputs.design.model_copy(update={"supports": stands})
        found = evaluate(inputs.model_copy(update={"design": design}))
        (own,) = (c for c in found.checks if c.limit_id == "stand-margin")
        self.assertEqual((own.verdict, own.value, own.missing), ("not computed", None, ("/survey/masses",)))
        wait = next(r for r in found.before_teardown if r.pointer == "/survey/masses")
        self.assertFalse(wait.taken)
        strength = next(u for u in found.checklist if u.id == "strength")
        self.assertFalse(next(i for i in strength.items if i.pointer == "/survey/masses").taken)

    def test_all_of_it_on_one_axle(self):
        """An axle that carries nothing has no spring force and no frequency; it is no division by nothing."""
        inputs = f.job("brackmoor").inputs("welded")
        for axle in ("front", "rear"):
            x = seat_centre(inputs.design.seats or inputs.survey.seats, axle)
            heavy = self.with_masses(inputs, lambda m, x=x: m.model_copy(update={"x_mm": x, "to_x_mm": None}))
            with warnings.catch_warnings():
                warnings.simplefilter("error", RuntimeWarning)
                self.assertTrue(finite(evaluate(heavy).model_dump(mode="json")))
