"""Evaluate, parse, find and files over HTTP; bad input is a 422 at its field, never a 500."""

import io
import json
import zipfile
from unittest.mock import patch

from django.db import connection
from django.test.utils import CaptureQueriesContext

from nodulant.evaluate import evaluate
from tests import fixtures as f
from tests.fixtures import finite
from tests.server.base import Shop

NOTCH = ("operations", 1)
BAD = (
    # path in the design, value, pointer of the problem
    ((*NOTCH, "depth_mm"), -3, "/design/operations/1/depth_mm"),
    ((*NOTCH, "depth_mm"), 0, "/design/operations/1/depth_mm"),
    ((*NOTCH, "depth_mm"), 1e9, "/design/operations/1/depth_mm"),
    ((*NOTCH, "depth_mm"), "deep", "/design/operations/1/depth_mm"),
    ((*NOTCH, "depth_mm"), None, "/design/operations/1/depth_mm"),
    ((*NOTCH, "depth_mm"), 149, "/design/operations/1/depth_mm"),
    ((*NOTCH, "liner", "thickness_mm"), 41, "/design/operations/1/liner/thickness_mm"),
    ((*NOTCH, "shape", "radius_mm"), 5, "/design/operations/1/liner/thickness_mm"),
    ((*NOTCH, "place", "offset_mm"), 5000, "/design/operations/1/place/offset_mm"),
    ((*NOTCH, "place", "anchor_id"), "nowhere", "/design/operations/1/place/anchor_id"),
    ((*NOTCH, "weather"), "wet", "/design/operations/1/weather"),
    (("operations", 0, "end", "offset_mm"), 20, "/design/operations/0/end/offset_mm"),
    (("operations", 0, "start", "offset_mm"), 9000, "/design/operations/0/end/offset_mm"),
    (("targets", "bump_mm"), 0, "/design/targets/bump_mm"),
    (("targets", "entries", 1, "amount_mm"), None, "/design/targets/entries/1/amount_mm"),
    (("seats", 2, "share"), 0.5, "/design/seats"),
)


def put(document, path, value):
    """The document with ``value`` at ``path``."""
    *head, last = path
    node = document
    for key in head:
        node = node[key]
    node[last] = value
    return document


class Evaluate(Shop):
    def ask(self, design=None, **more):
        return self.send("post", "/evaluate", {"job_id": self.job.pk, "design": design or self.design(), **more})

    def test_the_same_as_the_core(self):
        response, data = self.ask(want={"section": {"side": "left", "x_mm": 2610}}, sequence=7)
        self.assertEqual(response.headers["X-Sequence"], "7")
        check = next(c for c in data["checks"] if c["id"] == "modulus-bottom:axle-notch:left")
        self.assertEqual(check["verdict"], "weaker")
        self.assertTrue(data["section"]["after"])
        self.assertGreaterEqual(len(data["strips"][0]["x_mm"]), 120)

    def test_a_drag_gets_a_small_answer(self):
        want = {
            "steps": False,
            "readings": False,
            "frame": False,
            "interim": False,
            "travel": False,
            "strip_side": "left",
            "section": {"side": "left", "x_mm": 2610},
        }
        response, data = self.ask(slim=True, want=want)
        self.assertLessEqual(len(response.content), 60_000)
        self.assertNotIn("why", data["checks"][0])
        self.assertNotIn("steps", data)

    def test_a_drag_does_not_fetch_the_log(self):
        log = self.job.log.model._meta.db_table
        for as_built in (True, False):
            with CaptureQueriesContext(connection) as asked:
                _, data = self.ask(slim=True, want={"as_built": as_built, "frame": False})
            self.assertEqual(any(log in q["sql"] for q in asked), as_built)
            self.assertEqual(data["left_out_states"], [] if as_built else ["as-built"])

    def test_bad_values_are_named_at_their_field(self):
        for path, value, pointer in BAD:
            with self.subTest(f"{path} {value}"):
                response, data = self.ask(put(self.design(), path, value))
                self.assertEqual(response.status_code, 422)
                self.assertIn(pointer, [p["pointer"] for p in data["problems"]])
                for problem in data["problems"]:
                    self.assertTrue(problem["message"] and problem["expected"], problem)

    def test_nan_and_infinity_in_the_body(self):
        text = json.dumps({"job_id": self.job.pk, "design": put(self.design(), (*NOTCH, "depth_mm"), 7777)})
        for word in ("NaN", "Infinity", "1e400"):
            with self.subTest(word):
                response = self.client.post(
                    "/api/evaluate", text.replace("7777", word), content_type="application/json"
                )
                self.assertIn(response.status_code, (400, 422))
                self.assertEqual(response.headers["Content-Type"], "application/problem+json")

    def test_a_body_that_is_no_json(self):
        for text in ("", "{", "[]", "\x00", '"text"'):
            response = self.client.post("/api/evaluate", text, content_type="application/json")
            self.assertIn(response.status_code, (400, 422), text)

    def test_unknown_job(self):
        self.refused(self.send("post", "/evaluate", {"job_id": 999, "design": self.design()})[0], 404, "not-found")

    def test_no_number_in_an_answer_is_not_finite(self):
        self.assertTrue(finite(self.ask()[1]))


class Travel(Shop):
    def test_suspensions_alone_without_whys(self):
        design = self.job.options.get(key="step").head().design().model_dump(mode="json")
        _, data = self.send("post", "/travel", {"job_id": self.job.pk, "design": design})
        self.assertTrue(data["checks"] and all("why" not in c for c in data["checks"]))
        self.assertGreater(len(data["travel"][0]["rolls_deg"]), 3)

    def test_at_a_glance_nothing_is_judged_and_the_answer_is_small(self):
        design = self.job.options.get(key="step").head().design().model_dump(mode="json")
        survey = self.job.survey_head().survey().model_dump(mode="json")
        for given in ({}, {"survey": survey}):
            for only in (0, 1):
                body = {"job_id": self.job.pk, "design": design, "glance": True, "only": only, **given}
                response, data = self.send("post", "/travel", body)
                self.assertEqual((data["checks"], data["travel"][0]["rolls_deg"]), ([], [0.0]))
                self.assertEqual([t["index"] for t in data["travel"]], [only])
                self.assertLess(len(response.content), 17_500)

    def test_nothing_held_is_nothing_moved(self):
        _, data = self.send("post", "/travel", {"job_id": self.job.pk, "design": self.design()})
        self.assertEqual(data, {"checks": [], "travel": []})


class Choices(Shop):
    def test_stations(self):
        good = "x,underside,height,width,wall\n0,0,150,60,5\n900,0,150,60,5\n"
        self.assertEqual(len(self.send("post", "/stations", {"text": good})[1]), 2)
        data = self.refused(
            self.send("post", "/stations", {"text": good.replace("900", "text")})[0], 422, "stations-refused"
        )
        self.assertEqual(data["problems"][0]["pointer"], "/line/3")

    def test_catalogue(self):
        data = self.send("get", "/catalogue")[1]
        self.assertIn("notch", [m["mechanism"] for m in data["mechanisms"]])
        self.assertFalse(next(s for s in data["steels"] if s["id"] == "heat-treated")["weldable"])


class Counted(Shop):
    """One count everywhere: the jobs' list says what the margins say."""

    def test_every_option_as_its_margins_count(self):
        rows = self.send("get", f"/jobs/{self.job.pk}/counts")[1]
        self.assertEqual([r["name"] for r in rows], [o.name for o in f.job().options])
        groups = self.send("post", "/evaluate", {"job_id": self.job.pk, "design": self.design()})[1]["groups"]
        told = [g["verdict"] for g in groups]
        for verdict, n in rows[0]["counts"].items():
            self.assertEqual(n, told.count(verdict), verdict)

    def test_what_is_as_it_was_is_not_counted_again(self):
        """A name, a reading or a design that changes is seen at once; the rest is as it was."""
        url = f"/jobs/{self.job.pk}/counts"
        before = self.send("get", url)[1]
        first, *others = before
        with patch("nodulant_server.api.compute.evaluate", wraps=evaluate) as worked:
            self.assertEqual(self.send("get", url)[1], before)
            self.send("patch", f"/options/{first['id']}", {"name": "Renamed"})
            self.assertEqual(self.send("get", url)[1], [{**first, "name": "Renamed"}, *others])
            worked.assert_not_called()
            design = put(self.design(), (*NOTCH, "depth_mm"), 12)
            self.send("post", f"/options/{first['id']}/revisions", {"base": 1, "design": design})
            changed, *same = self.send("get", url)[1]
            worked.assert_called_once()
        self.assertEqual(same, others)
        self.assertNotEqual(changed["counts"], first["counts"])


class Finding(Shop):
    def lines(self, body, what="find/sets"):
        response = self.client.post(f"/api/{what}", json.dumps(body), content_type="application/json")
        if response.status_code != 200:
            return response, []
        return response, [json.loads(line) for line in b"".join(response.streaming_content).splitlines()]

    def test_progress_then_a_set(self):
        _, lines = self.lines({"job_id": self.job.pk, "design": self.design(), "operation_id": "axle-notch"})
        self.assertEqual(lines[0]["done"], 0)
        self.assertTrue(any(line.get("best") and line.get("seconds_left") is not None for line in lines))
        self.assertGreater(lines[-1]["sets"]["choices"][0]["mass_kg"], 0.1)

    def test_an_operation_without_metal_to_find(self):
        for name in ("nothing", "narrow-rear"):
            response, _ = self.lines({"job_id": self.job.pk, "design": self.design(), "operation_id": name})
            self.refused(response, 422, "unknown-reference")

    def test_plates_are_laid_out_and_the_sheets_are_files(self):
        _, lines = self.lines({"job_id": self.job.pk, "design": self.design()}, "find/nest")
        plan = lines[-1]["nest"]
        self.assertEqual(sum(len(s["pieces"]) for s in plan["sheets"]), plan["pieces"])
        self.assertNotIn("[[", str(plan))
        url = f"/options/{self.option.pk}/nest.zip"
        response, _ = self.send("post", url, {"plan": plan, "unit": "in"})
        self.assertEqual(response.status_code, 200)
        with zipfile.ZipFile(io.BytesIO(response.content)) as files:
            kinds = [name.rsplit(".", 1)[1] for name in files.namelist()]
            drawn = len(plan["sheets"])
            self.assertEqual({k: kinds.count(k) for k in kinds}, {"dxf": drawn, "svg": drawn, "csv": 1})
        self.refused(self.send("post", url, {"plan": {**plan, "sheets": "all"}})[0], 422, "input")

    def test_pages_are_counted_before_they_are_printed(self):
        body = {"job_id": self.job.pk, "design": self.design()}
        counts = {}
        for paper in ("a4", "a3"):
            for once in (False, True):
                counts[paper, once] = self.send("post", "/patterns/pages", {**body, "paper": paper, "once": once})[1][
                    "pages"
                ]
        self.assertGreater(counts["a4", False], counts["a4", True])
        self.assertGreater(counts["a4", False], counts["a3", False])
        url = f"/api/options/{self.option.pk}/patterns.pdf?paper=a4&once=true"
        self.assertEqual(self.client.get(url).content.count(b"/Type /Page\n"), counts["a4", True])
        self.refused(self.send("post", "/patterns/pages", {**body, "paper": "a0"})[0], 422, "input")

    def test_a_rack_that_cannot_be_is_named(self):
        head = self.send("get", f"/jobs/{self.job.pk}")[1]
        crossing = [{"along_mm": x, "across_mm": y} for x, y in ((0, 0), (100, 100), (100, 0), (0, 100))]
        offcut = {"id": "a", "name": "a", "thickness_mm": 5, "corners": crossing}
        for rack, words in (({"offcuts": [offcut]}, "lines cross"), ({"kerf_mm": 20}, "too large")):
            shop = {**head["shop"], "rack": {**head["shop"]["rack"], **rack}}
            url, body = f"/jobs/{self.job.pk}/shop", {"base": head["shop_number"], "shop": shop}
            response, told = self.send("put", url, body)
            self.assertEqual(response.status_code, 422)
            self.assertIn(words, told["problems"][0]["message"])

    def test_remedies_of_a_group_are_tried(self):
        design = put(self.design(), ("operations", 1, "outer_plate"), None)
        design = put(design, ("operations", 1, "liner"), None)
        body = {"job_id": self.job.pk, "design": design}
        groups = self.send("post", "/evaluate", body)[1]["groups"]
        failing = next(g for g in groups if g["verdict"] == "fails")
        _, lines = self.lines({**body, "key": failing["key"]}, "remedies")
        found = lines[-1]["remedies"]
        self.assertTrue(found["offered"] or found["reason"])

    def test_the_engineers_sheet(self):
        body = {"job_id": self.job.pk, "design": self.design()}
        sheet = self.send("post", "/handcheck", body)[1]
        self.assertEqual((len(sheet["places"]), len(sheet["sensitive"])), (3, 5))
        survey = f.demo().survey.model_dump(mode="json")
        survey["rails"]["left"]["stations"][0]["wall_mm"] = None
        response, _ = self.send("post", "/handcheck", {**body, "survey": survey})
        self.refused(response, 422, "not-solvable")

    def test_holes_and_a_suspension_that_is_not_there(self):
        design = self.job.options.get(key="step").head().design().model_dump(mode="json")
        two, one = {"above": 1}, {}
        holes = {"frame_upper": two, "frame_lower": two, "axle_upper": one, "axle_lower": one}
        body = {"job_id": self.job.pk, "design": design, "holes": holes}
        _, lines = self.lines(body, "find/holes")
        self.assertEqual(lines[-1]["holes"]["tried"], 4)
        self.refused(
            self.lines({**body, "design": self.design(), "suspension": 1}, "find/holes")[0], 422, "unknown-reference"
        )
        self.refused(self.lines({**body, "holes": {"frame_upper": {"above": 9}}}, "find/holes")[0], 422, "input")

    def test_a_suspension_and_its_parts_begin_on_the_hubs(self):
        body = {"job_id": self.job.pk, "design": {**self.design(), "suspensions": []}}
        _, own = self.send("post", "/suspensions/fresh", {**body, "axle": "rear", "kind": "parallel"})
        self.assertEqual((own["axle"], own["layout"]["kind"], own["rides"]), ("rear", "parallel", "rail"))
        held = {**body, "design": {**self.design(), "suspensions": [own]}}
        for part, kind in (("springs", "air"), ("strap", ""), ("lateral", "watts"), ("driveline", "")):
            response, piece = self.send("post", "/suspensions/part", {**held, "part": part, "kind": kind})
            self.assertEqual(response.status_code, 200)
            self.assertTrue(piece)
        for wrong, field in (({"part": "wings"}, "/part"), ({"part": "springs", "kind": "string"}, "/kind")):
            response, _ = self.send("post", "/suspensions/part", {**held, **wrong})
            data = self.refused(response, 422, "unknown-reference")
            self.assertIn(field, json.dumps(data))
        response, _ = self.send("post", "/suspensions/part", {**body, "part": "damper"})
        self.refused(response, 422, "unknown-reference")
        response, _ = self.send("post", "/suspensions/fresh", {**body, "axle": "rear", "kind": "hoverpad"})
        self.refused(response, 422, "unknown-reference")

    def test_where_a_link_goes_and_a_link_that_is_not_there(self):
        design = self.job.options.get(key="step").head().design().model_dump(mode="json")
        window = {"ahead_mm": 20, "behind_mm": 20, "down_mm": 0, "up_mm": 0, "step_mm": 20}
        body = {"job_id": self.job.pk, "design": design, "link": "upper", "window": window}
        _, lines = self.lines(body, "find/window")
        self.assertEqual(lines[-1]["window"]["tried"], 3)
        _, lines = self.lines({**body, "link": "middle"}, "find/window")
        self.assertIn("cannot be searched", lines[-1]["problem"])
        self.refused(
            self.lines({**body, "design": self.design(), "suspension": 1}, "find/window")[0], 422, "unknown-reference"
        )
        self.refused(self.lines({**body, "window": {"step_mm": 0}}, "find/window")[0], 422, "input")

    def test_a_broken_design_is_refused_before_it_starts(self):
        body = {
            "job_id": self.job.pk,
            "design": put(self.design(), (*NOTCH, "depth_mm"), 149),
            "operation_id": "axle-notch",
        }
        self.refused(self.lines(body)[0], 422, "invalid-inputs")


class Files(Shop):
    """What is downloaded is of the newest stored revision, never of a draft."""

    def get(self, path):
        return self.client.get(f"/api/options/{self.option.pk}/{path}")

    def test_patterns_and_report(self):
        cases = (
            ("patterns.pdf", b"%PDF"),
            ("patterns.pdf?paper=letter&id=axle-notch/liner/left", b"%PDF"),
            ("patterns.dxf?id=axle-notch/liner/left", b"  0\nSECTION"),
            ("patterns.svg?id=axle-notch/liner/right", b"<svg"),
            ("report.pdf", b"%PDF"),
        )
        for path, start in cases:
            with self.subTest(path):
                response = self.get(path)
                self.assertEqual(response.status_code, 200)
                self.assertTrue(response.content.lstrip(b"\n").startswith(start), response.content[:40])
                self.assertIn("attachment", response.headers["Content-Disposition"])

    def test_a_revision_is_what_is_cut_and_a_draft_is_not(self):
        design = put(self.design(), (*NOTCH, "depth_mm"), 40.0)
        path = "patterns.svg?id=axle-notch/cut-template/left"
        before = self.get(path).content
        self.send("put", f"/options/{self.option.pk}/draft", {"base": 1, "design": design})
        self.assertEqual(self.get(path).content, before)
        self.send("post", f"/options/{self.option.pk}/revisions", {"base": 1, "design": design})
        self.assertNotEqual(self.get(path).content, before)

    def test_unknown_patterns(self):
        for path in ("patterns.dxf", "patterns.dxf?id=nothing", "patterns.exe?id=axle-notch/liner/left"):
            self.refused(self.get(path), 404, "not-found")
        self.assertEqual(self.get("patterns.pdf?paper=a0").status_code, 422)

    def test_the_list_of_patterns(self):
        _, data = self.send("post", "/patterns", {"job_id": self.job.pk, "design": self.design()})
        self.assertEqual({p["side"] for p in data}, {"left", "right"})
        self.assertEqual(len(data), 2 * (2 + len(f.demo().design.operations)))


class Headers(Shop):
    def test_no_request_leaves_the_machine(self):
        policy = self.client.get("/api/session").headers["Content-Security-Policy"]
        self.assertIn("default-src 'self'", policy)
        self.assertIn("frame-ancestors 'none'", policy)
        self.assertEqual(self.client.get("/api/session").headers["X-Content-Type-Options"], "nosniff")

    def test_unknown_route(self):
        self.assertEqual(self.client.get("/api/nothing").status_code, 404)
