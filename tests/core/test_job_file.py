"""The open job file: equal after a round trip, refused with a pointer, upgraded from older versions."""

import copy
import json
from typing import Annotated

import jsonschema
from django.test import SimpleTestCase
from pydantic import Field, ValidationError

from nodulant.base.model import Frozen
from nodulant.formats.described import unit_of
from nodulant.formats.jobfile import LIMIT_BYTES, JobFileRefused, dump_job, job_schema, load_job
from nodulant.formats.problems import problems_of
from nodulant.job.document import VERSION
from nodulant.units.inline import told
from tests import fixtures as f

DOCUMENT = json.loads(f.DEMO.read_text())


def changed(path, value):
    """The demo document with the value at ``path`` replaced; ``...`` removes it."""
    document = copy.deepcopy(DOCUMENT)
    node = document
    for key in path[:-1]:
        node = node[key]
    if value is ...:
        del node[path[-1]]
    else:
        node[path[-1]] = value
    return json.dumps(document).encode()


NOTCH = ("options", 0, "revisions", 0, "design", "operations", 1)
REFUSED = (
    # path, value, pointer in the refusal, word of what was expected
    ((*NOTCH, "depth_mm"), -5, "/options/0/revisions/0/design/operations/1/depth_mm", "more than 0"),
    ((*NOTCH, "depth_mm"), 0, "/options/0/revisions/0/design/operations/1/depth_mm", "more than 0"),
    ((*NOTCH, "depth_mm"), 1e9, "/options/0/revisions/0/design/operations/1/depth_mm", "5000"),
    ((*NOTCH, "depth_mm"), "deep", "/options/0/revisions/0/design/operations/1/depth_mm", "number"),
    ((*NOTCH, "depth_mm"), None, "/options/0/revisions/0/design/operations/1/depth_mm", "number"),
    ((*NOTCH, "colour"), "red", "/options/0/revisions/0/design/operations/1/colour", "no such field"),
    ((*NOTCH, "liner", "thickness_mm"), 61, "/options/0/revisions/0/design/operations/1/liner/thickness_mm", "40"),
    (("surveys", 0, "survey", "rear", "tyre"), "round", "/surveys/0/survey/rear/tyre", "215/75R16"),
    (("surveys", 0, "survey", "wheelbase_mm"), 12, "/surveys/0/survey/wheelbase_mm", "500"),
    (("surveys", 0, "survey", "datum", "feature_id"), "nowhere", "/surveys/0/survey/datum/feature_id", "one of"),
    (
        ("surveys", 0, "survey", "rails", "left", "stations", 2, "x_mm"),
        -900,
        "/surveys/0/survey/rails/left/stations/2/x_mm",
        "more than",
    ),
    (
        ("surveys", 0, "survey", "rails", "left", "stations", 2, "wall_mm"),
        30,
        "/surveys/0/survey/rails/left/stations/2/wall_mm",
        "quarter",
    ),
    (("surveys", 0, "survey", "masses", 4, "to_x_mm"), -50, "/surveys/0/survey/masses/4/to_x_mm", "more than"),
    (("name",), "", "/name", "1 or more"),
    (("name",), ..., "/name", "this field"),
    (("options",), [], "/options", "at least 1"),
    (("version",), 99, "/version", "1 to"),
    (("version",), "2", "/version", "1 to"),
    (("format",), "drawing", "/format", "nodulant-job"),
)


class RoundTrip(SimpleTestCase):
    """One lost disk and the history is gone: the file must outlive the application."""

    def test_equal_after_export_and_import(self):
        job = f.job()
        self.assertEqual(load_job(dump_job(job)), job)

    def test_the_published_schema_accepts_what_we_write(self):
        jsonschema.Draft202012Validator(job_schema()).validate(json.loads(dump_job(f.job())))

    def test_the_published_schema_is_up_to_date(self):
        published = json.loads((f.ROOT / "docs" / "job-file.schema.json").read_text())
        self.assertEqual(published, json.loads(json.dumps(job_schema())))

    def test_units_stand_in_the_keys(self):
        numbers = [k for k, v in DOCUMENT["surveys"][0]["survey"]["rear"].items() if isinstance(v, int | float)]
        for key in numbers:
            self.assertRegex(key, r"_(mm|deg|kg|mpa)$")


class Refusals(SimpleTestCase):
    """A refused file says where, what was found, what was expected, and nothing is written."""

    def refused(self, data):
        with self.assertRaises(JobFileRefused) as caught:
            load_job(data)
        return caught.exception.problems

    def test_table(self):
        for path, value, pointer, expected in REFUSED:
            with self.subTest(f"{pointer} {value}"):
                problems = self.refused(changed(path, value))
                self.assertIn(pointer, [p.pointer for p in problems])
                own = next(p for p in problems if p.pointer == pointer)
                self.assertIn(expected, own.expected)
                self.assertTrue(own.message)

    def test_a_bound_is_told_with_the_unit_of_its_field(self):
        class Model(Frozen):
            wall_mm: Annotated[float, Field(le=40)] = 1.0
            plate_stock_mm: tuple[Annotated[float, Field(gt=0)], ...] = ()
            mass_kg: Annotated[float, Field(ge=2)] = 2.0
            rate_n_per_mm: Annotated[float, Field(le=2000)] = 1.0
            turn_deg: Annotated[float, Field(ge=-30)] = 0.0
            share: Annotated[float, Field(le=1)] = 1.0

        rows = (
            ({"wall_mm": 76.2}, '3"', '1.575" or less'),
            ({"plate_stock_mm": [5.0, -25.4]}, '-1"', "more than 0"),
            ({"mass_kg": 0.5}, "1.1 lb", "4.41 lb or more"),
            ({"rate_n_per_mm": 9000}, "9000", "2000 or less"),
            ({"turn_deg": -45}, "-45 deg", "-30 deg or more"),
            ({"share": 2}, "2", "1 or less"),
        )
        for fields, found, expected in rows:
            with self.subTest(fields), self.assertRaises(ValidationError) as caught:
                Model.model_validate(fields)
            (own,) = problems_of(caught.exception)
            self.assertEqual((told(own.found, "in16"), told(own.expected, "in16")), (found, expected))

    def test_nan_and_infinity(self):
        for word in ("NaN", "Infinity", "-Infinity"):
            text = changed((*NOTCH, "depth_mm"), 7777).replace(b"7777", word.encode())
            self.assertIn("finite", self.refused(text)[0].expected)

    def test_truncated_at_every_kind_of_place(self):
        data = f.DEMO.read_bytes()
        for end in (0, 1, 17, len(data) // 3, len(data) - 3):
            with self.subTest(end):
                self.assertTrue(self.refused(data[:end])[0].message)

    def test_not_text_not_json_not_an_object(self):
        for data in (b"\xff\xfe\x00", b"hello", b"[]", b"null", b"[" * 100_000):
            with self.subTest(data[:5]):
                self.refused(data)

    def test_too_large(self):
        problems = self.refused(b" " * (LIMIT_BYTES + 1))
        self.assertIn("too large", problems[0].message)

    def test_all_problems_are_named_at_once(self):
        document = copy.deepcopy(DOCUMENT)
        document["name"] = ""
        document["options"][0]["revisions"][0]["design"]["operations"][1]["depth_mm"] = -1
        pointers = {p.pointer for p in self.refused(json.dumps(document).encode())}
        self.assertTrue({"/name", "/options/0/revisions/0/design/operations/1/depth_mm"} <= pointers, pointers)

    def test_numbers_of_revisions_rise(self):
        document = copy.deepcopy(DOCUMENT)
        document["surveys"].append(document["surveys"][0])
        self.assertEqual(self.refused(json.dumps(document).encode())[0].pointer, "/surveys/1/number")


class TypedText(SimpleTestCase):
    """What was typed is shown in the number's place: it has to mean that number."""

    def loaded(self, **typed):
        document = json.loads(dump_job(f.job()))
        design = document["options"][0]["revisions"][-1]["design"]
        design["typed"] = {key: {"text": text, "unit": "in"} for key, text in typed.items()}
        own = load_job(json.dumps(document).encode()).options[0].revisions[-1].design
        return next(op for op in own.operations if op.id == "axle-notch"), own.typed

    def test_one_that_agrees_stays_and_one_that_does_not_goes(self):
        op, typed = self.loaded(**{"axle-notch.depth_mm": "58 mm", "targets.drop_mm": "9 7/8"})
        self.assertEqual(op.depth_mm, 58.0)
        self.assertEqual({k: t.text for k, t in typed.items()}, {"axle-notch.depth_mm": "58 mm"})

    def test_one_beside_no_number_is_left_alone(self):
        _, typed = self.loaded(**{"axle-notch.name": "12"})
        self.assertEqual(set(typed), {"axle-notch.name"})


class Upgrades(SimpleTestCase):
    """Version 1 had one ``keeps_geometry``; it became camber, toe and anti-dive in version 2."""

    def test_a_version_1_file_opens(self):
        old = copy.deepcopy(DOCUMENT)
        old["version"] = 1
        for option in old["options"]:
            for i, entry in enumerate(option["revisions"][0]["design"]["targets"]["entries"]):
                del entry["keeps"]
                entry["keeps_geometry"] = i > 0
        job = load_job(json.dumps(old).encode())
        self.assertEqual(job.version, VERSION)
        first, second = job.options[0].revisions[0].design.targets.entries
        self.assertEqual((first.keeps.camber, first.keeps.toe, first.keeps.anti_dive), (False, False, False))
        self.assertEqual((second.keeps.camber, second.keeps.toe, second.keeps.anti_dive), (True, True, True))

    def test_a_version_2_file_s_jack_stops_and_limits_open(self):
        """One place became one an axle; a use of 0.8 of yield/1.5 is a factor of 1.875; rules that are gone are gone."""
        old = {**copy.deepcopy(DOCUMENT), "version": 2}
        design = old["options"][0]["revisions"][0]["design"]
        design["loads"] = {"jack": {"x_mm": 1800.0, "side": "right"}, "stops": None}
        design["limits"] = {
            "use-limit": {"value": 0.8, "reason": "club"},
            "accident-use": {"value": 0.5, "reason": "ours"},
            "use-along": {"value": 1.1, "reason": "gone"},
        }
        new = load_job(json.dumps(old).encode()).options[0].revisions[0].design
        (jack,) = new.loads.jacks
        self.assertEqual((jack.x_mm, jack.side, jack.axle, new.loads.stops), (1800.0, "right", "rear", ()))
        self.assertAlmostEqual(new.limits["use-limit"].value, 1.875)
        self.assertAlmostEqual(new.limits["accident-use"].value, 2.0)
        self.assertEqual(new.limits["use-limit"].reason, "club")
        self.assertNotIn("use-along", new.limits)

    def test_the_old_document_is_left_as_it_was(self):
        old = {**copy.deepcopy(DOCUMENT), "version": 1}
        before = json.dumps(old)
        load_job(before.encode())
        self.assertEqual(json.dumps(old), before)


class Described(SimpleTestCase):
    """The schema is what a stranger writes a job file from."""

    def setUp(self):
        schema = job_schema()
        self.rows = [
            (f"{part}.{field}", field, told["description"])
            for part, own in {"JobFile": schema, **schema["$defs"]}.items()
            for field, told in own.get("properties", {}).items()
        ]

    def test_every_field_has_a_description_and_a_quantity_its_unit(self):
        self.assertGreater(len(self.rows), 900)
        self.assertEqual([at for at, _, says in self.rows if len(says) < 2], [])
        lacking = [at for at, field, says in self.rows if (unit := unit_of(field)) and unit not in says]
        self.assertEqual(lacking, [])
        told = {at: says for at, _, says in self.rows}
        self.assertEqual(told["LeafPack.rate_n_per_mm"], "Of the pack with all its leaves, N/mm")
        self.assertEqual(told["ZStep.cut_angle_deg"].rsplit(", ", 1)[1], "degrees")
