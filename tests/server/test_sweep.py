"""The sweep over the API: lines as they come, one pair's map, the cut, and what is refused."""

import json

from tests.server.base import Shop


class Sweeping(Shop):
    def setUp(self):
        super().setUp()
        self.step = self.job.options.get(key="step").head().design().model_dump(mode="json")
        self.body = {"job_id": self.job.pk, "design": self.step}

    def lines(self, body):
        response = self.client.post("/api/sweep", json.dumps(body), content_type="application/json")
        self.assertEqual(response.status_code, 200)
        return [json.loads(line) for line in b"".join(response.streaming_content).splitlines()]

    def test_every_pair_comes_with_its_number_and_then_the_whole(self):
        lines = self.lines(self.body)
        self.assertEqual([line["done"] for line in lines[:-1]], list(range(1, len(lines))))
        swept = lines[-1]["swept"]
        self.assertEqual(len(swept["pairs"]), lines[0]["total"])
        short = [(p.get("gap_mm", p.get("beyond_mm")) - p["needed_mm"]) for p in swept["pairs"]]
        self.assertEqual(short, sorted(short))
        self.assertTrue(all(c["stage"] == "sweep" for c in swept["checks"]))
        pair = swept["pairs"][0]["id"]
        _, data = self.send("post", "/sweep/map", {**self.body, "pair_id": pair})
        self.assertEqual((len(data["gap_mm"]), len(data["gap_mm"][0])), (len(data["travel_mm"]), len(data["inputs"])))

    def test_a_design_without_suspensions_sweeps_nothing_and_says_so(self):
        (line,) = self.lines({"job_id": self.job.pk, "design": self.design()})
        self.assertEqual(line["swept"]["pairs"], [])
        self.assertEqual(len([w for w in line["swept"]["left_out"] if "nothing holds it" in w]), 2)

    def test_a_map_of_no_pair(self):
        response, _ = self.send("post", "/sweep/map", {**self.body, "pair_id": "front:nothing:nowhere"})
        self.refused(response, 404, "not-found")

    def test_the_cut_and_what_does_not_pass(self):
        body = {**self.body, "axle": "front", "moving": "toe link, right", "side": "right"}
        _, data = self.send("post", "/sweep/cut", body)
        self.assertTrue(data["both"])
        # a closed hole, and the half-moon from below
        self.assertEqual({c["operation"]["kind"] for c in data["choices"]}, {"hole", "notch"})
        response, _ = self.send("post", "/sweep/cut", {**body, "moving": "lower wishbone, front leg, right"})
        self.refused(response, 422, "not-solvable")

    def test_the_rails_in_space(self):
        _, data = self.send("post", "/solids", self.body)
        self.assertEqual([r["side"] for r in data["rails"]], ["left", "right"])
        self.assertTrue(all(len(row) == 10 for r in data["rails"] for row in r["prisms"]))
        self.assertTrue(data["arches"] and all(len(row) == 7 for row in data["arches"]))
        self.assertEqual(len(data["things"]), len(self.step["obstacles"]))

    def test_a_thing_in_the_middle_cannot_be_mirrored(self):
        middle = {"x_mm": 0, "y_mm": 0, "z_mm": 0}
        shape = {"shape": "box", "middle": middle, "long_mm": 100, "wide_mm": 100, "high_mm": 100}
        thing = {"id": "t-1", "name": "Engine", "body": shape, "mirrored": True}
        response, _ = self.send("post", "/sweep", {**self.body, "design": {**self.step, "obstacles": [thing]}})
        data = self.refused(response, 422, "input")
        self.assertIn("mirrored", json.dumps(data))


class CuringSteer(Shop):
    def test_cures_and_an_axle_without_steering(self):
        design = self.job.options.get(key="step").head().design().model_dump(mode="json")
        front = next(i for i, s in enumerate(design["suspensions"]) if s["axle"] == "front")
        body = {"job_id": self.job.pk, "design": design, "suspension": front, "wish": {"reach_mm": 20}}
        _, data = self.send("post", "/find/bump-steer", body)
        self.assertEqual({c["cure"] for c in data["choices"]}, {"rack-height", "rack-place", "outer-spacer"})
        response, _ = self.send("post", "/find/bump-steer", {**body, "suspension": 1 - front})
        self.refused(response, 422, "not-solvable")
        response, _ = self.send("post", "/find/bump-steer", {**body, "design": self.design()})
        self.refused(response, 422, "unknown-reference")

    def test_an_unreadable_tyre_is_refused_at_its_field(self):
        design = self.job.options.get(key="step").head().design().model_dump(mode="json")
        front = next(i for i, s in enumerate(design["suspensions"]) if s["axle"] == "front")
        design["suspensions"][front]["tyre"] = "round and black"
        response, _ = self.send("post", "/evaluate", {"job_id": self.job.pk, "design": design})
        data = self.refused(response, 422, "input")
        self.assertIn(f"/design/suspensions/{front}/tyre", json.dumps(data))


class WaysDown(Shop):
    def test_side_by_side_and_what_cannot_be(self):
        design = self.job.options.get(key="step").head().design().model_dump(mode="json")
        front = next(i for i, s in enumerate(design["suspensions"]) if s["axle"] == "front")
        body = {"job_id": self.job.pk, "design": design, "suspension": front, "drop_mm": 40}
        _, data = self.send("post", "/ways-down", body)
        self.assertEqual([w["way"] for w in data["ways"]], ["start", "springs", "spindle", "raised", "pivots"])
        response, _ = self.send("post", "/ways-down", {**body, "suspension": 1 - front})
        self.refused(response, 422, "not-solvable")
        response, _ = self.send("post", "/ways-down", {**body, "drop_mm": 0})
        self.refused(response, 422, "input")


class Kept(Shop):
    """A sweep of a stored revision is evidence; one of a draft is not, and an old one says so."""

    def setUp(self):
        super().setUp()
        self.option = self.job.options.get(key="step")
        self.step = self.option.head().design().model_dump(mode="json")

    def swept(self, design, option=None):
        body = {"job_id": self.job.pk, "option_id": option or self.option.pk, "design": design}
        response = self.client.post("/api/sweep", json.dumps(body), content_type="application/json")
        self.assertEqual(response.status_code, 200)
        return list(response.streaming_content)

    def on_file(self):
        return self.send("get", f"/options/{self.option.pk}/sweep")[1]["kept"]

    def test_kept_with_its_revision_and_old_when_the_design_changes(self):
        self.assertIsNone(self.on_file())
        self.swept(self.step)
        kept = self.on_file()
        self.assertEqual((kept["revision"], kept["by"], kept["fresh"]), (self.option.head().number, "ada", True))
        self.assertGreater(kept["swept"]["all_pairs"], 100)
        self.assertLessEqual(len(kept["swept"]["pairs"]), 40)
        changed = json.loads(json.dumps(self.step))
        changed["suspensions"][0]["bump_mm"] += 5.0
        saved = self.send(
            "post", f"/options/{self.option.pk}/revisions", {"design": changed, "base": self.option.head().number}
        )
        self.assertIn(saved[0].status_code, {200, 201}, saved[1])
        self.assertFalse(self.on_file()["fresh"])
        self.assertEqual(self.on_file()["revision"], kept["revision"])

    def test_a_draft_s_sweep_is_not_kept(self):
        draft = json.loads(json.dumps(self.step))
        draft["suspensions"][0]["bump_mm"] += 5.0
        self.swept(draft)
        self.assertIsNone(self.on_file())

    def test_who_may_not_design_keeps_nothing(self):
        self.become("inspector")
        self.swept(self.step)
        self.assertIsNone(self.on_file())

    def test_it_stands_in_the_report(self):
        bare = self.client.get(f"/api/options/{self.option.pk}/report.pdf").content
        self.swept(self.step)
        told = self.client.get(f"/api/options/{self.option.pk}/report.pdf").content
        self.assertGreater(len(told), len(bare))

    def test_an_option_of_another_job_is_not_there(self):
        body = {"job_id": self.job.pk + 999, "option_id": self.option.pk, "design": self.step}
        response = self.client.post("/api/sweep", json.dumps(body), content_type="application/json")
        self.assertEqual(response.status_code, 404)
