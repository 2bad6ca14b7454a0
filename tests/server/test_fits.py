"""Tuck and bought arm over the API; the lock before the cut when a step is signed; what is refused."""

import json

from tests.server.base import Shop


class Fits(Shop):
    def setUp(self):
        super().setUp()
        self.option = self.job.options.get(key="step")
        self.step = self.option.head().design().model_dump(mode="json")
        self.body = {"job_id": self.job.pk, "design": self.step}
        self.front = next(k for k, s in enumerate(self.step["suspensions"]) if s["axle"] == "front")

    def test_the_tuck_beside_what_is_there(self):
        body = {**self.body, "suspension": self.front, "most_mm": 40, "same_mm": 12}
        _, data = self.send("post", "/find/tuck", body)
        self.assertEqual({w["way"] for w in data["ways"]}, {"offset", "arms", "narrow"})
        self.assertEqual({w["tuck_mm"] for w in data["ways"]}, {12})
        self.assertEqual(data["wings"], ["front wheel arch"])

    def test_an_axle_without_a_wing_or_without_a_suspension(self):
        response, _ = self.send("post", "/find/tuck", {**self.body, "suspension": 1 - self.front})
        self.refused(response, 422, "not-solvable")
        bare = {**self.step, "suspensions": []}
        response, _ = self.send("post", "/find/tuck", {**self.body, "design": bare})
        self.refused(response, 422, "unknown-reference")
        response, _ = self.send("post", "/bought-arm", {**self.body, "design": bare})
        self.refused(response, 422, "unknown-reference")

    def test_an_arm_is_measured_and_one_of_no_length_refused(self):
        body = {**self.body, "suspension": self.front, "arm": "upper-arm"}
        _, data = self.send("post", "/bought-arm", body)
        self.assertEqual(data["changes"], [])
        self.assertAlmostEqual(data["original"]["pivots_apart_mm"], 230.08, places=1)
        for apart, name in ((0.0, "Bolts in as it is"), (19.05, "As it is it does not bolt in")):
            bought = {**data["original"], "pivots_apart_mm": data["original"]["pivots_apart_mm"] + apart}
            _, told = self.send("post", "/bought-arm", {**body, "bought": bought})
            (as_it_is,) = (c for c in told["changes"] if c["change"] == "none")
            self.assertEqual((as_it_is["name"], as_it_is["restores"]), (name, apart == 0.0))
        wrong = {**data["original"], "ball_out_mm": 0}
        response, _ = self.send("post", "/bought-arm", {**body, "bought": wrong})
        self.assertEqual(response.status_code, 422)
        response, _ = self.send("post", "/bought-arm", {**body, "suspension": 1 - self.front})
        data = self.refused(response, 422, "input")
        self.assertIn("no upper arm", json.dumps(data))

    def test_a_wheel_is_told_in_both_ways(self):
        """Six inches between the seats, half an inch of lip: 45 mm of offset are 133.9 mm of backspacing (arithmetic)."""
        body = {"rim_width_mm": 152.4, "lip_mm": 12.7, "offset_mm": 45}
        _, data = self.send("post", "/wheel", body)
        self.assertEqual(data, {"offset_mm": 45.0, "backspacing_mm": 133.9})
        response, _ = self.send("post", "/wheel", {**body, "backspacing_mm": 100})
        self.assertEqual(response.status_code, 422)

    def test_a_locked_cut_is_not_signed(self):
        gone = [o for o in self.step["obstacles"] if o["kind"] != "tank"]
        base = self.option.head().number
        design = {**self.step, "obstacles": gone}
        self.send("post", f"/options/{self.option.pk}/revisions", {"base": base, "design": design, "note": "no tank"})
        self.send("post", f"/jobs/{self.job.pk}/reasons", {"subject": "parts", "reason": "they come tomorrow"})
        for step in ("teardown", "loads-off", "supports", "springs", "stocked"):
            response, _ = self.send("post", f"/options/{self.option.pk}/sign", {"step": step})
            self.assertEqual(response.status_code, 200)
        response, _ = self.send("post", f"/options/{self.option.pk}/sign", {"step": "take-along"})
        data = self.refused(response, 422, "input")
        self.assertIn("no clearance and no way out", json.dumps(data))
        self.send(
            "post", f"/jobs/{self.job.pk}/reasons", {"subject": "take-along", "reason": "tank is off the vehicle"}
        )
        response, _ = self.send("post", f"/options/{self.option.pk}/sign", {"step": "rear-step/brace/both"})
        self.assertEqual(response.status_code, 200)


class Finders(Shop):
    """Finders over the API: what they find goes into the design as it is, what they cannot is said."""

    def setUp(self):
        super().setUp()
        self.step = self.job.options.get(key="step").head().design().model_dump(mode="json")
        self.body = {"job_id": self.job.pk, "design": self.step}
        self.front = next(k for k, s in enumerate(self.step["suspensions"]) if s["axle"] == "front")

    def with_suspension(self, index, own):
        kept = list(self.step["suspensions"])
        kept[index] = own
        return {**self.body, "design": {**self.step, "suspensions": kept}}

    def value(self, body, rule):
        _, data = self.send("post", "/evaluate", {**body, "slim": True})
        return next(c["value"] for c in data["checks"] if c["limit_id"] == rule)

    def test_the_best_cure_is_what_the_design_then_shows(self):
        own = self.step["suspensions"][self.front]
        own["layout"]["toe"]["frame"]["z_mm"] += 15.0
        before = self.value(self.body, "bump-steer")
        _, data = self.send("post", "/find/bump-steer", {**self.body, "suspension": self.front})
        best = data["choices"][0]
        after = self.value(self.with_suspension(self.front, best["suspension"]), "bump-steer")
        self.assertLess(after, before)
        self.assertAlmostEqual(after, abs(best["slope_deg_per_inch"]), places=4)  # one figure on one screen

    def test_a_coil_that_is_found_holds_in_the_design(self):
        rear = 1 - self.front
        _, data = self.send("post", "/find/coilover", {**self.body, "suspension": rear})
        body = self.with_suspension(rear, data["suspension"])
        _, found = self.send("post", "/evaluate", {**body, "slim": True})
        shown = next(c["value"] for c in found["checks"] if c["id"].startswith("frequency-least:rear-springs"))
        self.assertAlmostEqual(shown, data["frequency_hz"], places=3)
        self.assertEqual(data["fails"], [])

    def test_a_coil_that_fails_its_own_rows_says_which(self):
        """A soft wish with a long stroke comes loose in droop: told, and not offered."""
        rear = 1 - self.front
        wish = {"frequency_hz": 2.6, "used_percent": 88}
        _, data = self.send("post", "/find/coilover", {**self.body, "suspension": rear, "wish": wish})
        self.assertTrue(data["fails"] or data["reason"])

    def test_each_needs_a_suspension_that_is_there(self):
        bare = {**self.body, "design": {**self.step, "suspensions": []}}
        for route, more in (
            ("/find/bump-steer", {}),
            ("/find/coilover", {}),
            ("/find/holes", {}),
            ("/find/window", {"link": "upper"}),
            ("/ways-down", {}),
        ):
            with self.subTest(route):
                response, _ = self.send("post", route, {**bare, **more})
                self.refused(response, 422, "unknown-reference")

    def test_ways_down_keep_what_they_say(self):
        _, data = self.send("post", "/ways-down", {**self.body, "suspension": self.front, "drop_mm": 50})
        ways = {w["way"]: w for w in data["ways"]}
        self.assertIn("raised", "".join(ways))
        self.assertTrue(all(way["name"] for way in ways.values()))
