"""The log: signatures, readings, overrides, decisions; append-only, with who and when."""

from nodulant_server.models import LogEntry
from tests.server.base import Shop

READING = {"operation": "axle-notch", "key": "depth", "side": "left", "value": 58.0, "text": "2 9/32"}


class Work(Shop):
    def sign(self, step, **more):
        return self.send("post", f"/options/{self.option.pk}/sign", {"step": step, **more})

    def read(self, **change):
        return self.send("post", f"/options/{self.option.pk}/readings", {**READING, **change})

    def reasons(self, **body):
        return self.send("post", f"/jobs/{self.job.pk}/reasons", body)

    def log(self):
        return self.send("get", f"/jobs/{self.job.pk}/log")[1]

    def steps(self):
        _, data = self.send("post", "/evaluate", {"job_id": self.job.pk, "design": self.design()})
        return {s["id"]: s for s in data["steps"]}

    def test_signing_names_person_time_and_hash(self):
        self.become("bram")
        _, entries = self.sign("teardown", note="all read")
        self.assertEqual(entries[0]["by"], "bram")
        self.assertRegex(entries[0]["at"], r"^\d{4}-\d\d-\d\dT")
        self.assertEqual(len(entries[0]["evaluated"]), 64)
        self.assertEqual(self.steps()["teardown"]["status"], "done")

    def test_a_step_is_signed_once(self):
        self.assertEqual(self.sign("teardown")[0].status_code, 200)
        data = self.refused(self.sign("teardown")[0], 422, "input")
        self.assertIn("signed already", data["title"])
        self.assertEqual(self.job.log.filter(document__kind="sign-off", document__step="teardown").count(), 1)

    def test_who_may_take_back_what(self):
        path = f"/jobs/{self.job.pk}"
        _, override = self.send("post", f"{path}/reasons", {"subject": "teardown", "reason": "was read last week"})
        self.become("bram")
        self.assertEqual(
            self.send("post", f"{path}/withdraw", {"entry": override["number"], "reason": "no"})[0].status_code, 403
        )
        self.become("ada")
        back = {"entry": override["number"], "reason": "measured after all"}
        self.assertEqual(self.send("post", f"{path}/withdraw", back)[0].status_code, 200)

    def test_a_step_that_waits_cannot_be_signed(self):
        data = self.refused(self.sign("axle-notch/cut/left")[0], 422, "input")
        self.assertIn("waits for", data["problems"][0]["found"])
        self.assertEqual(self.log(), [])

    def test_nothing_is_passed_or_decided_that_no_option_has(self):
        for body in (
            {"subject": "dance", "reason": "because"},
            {"subject": "", "reason": "because"},
            {"subject": "teardown", "reason": "because", "choice": "accept"},
            {"subject": "axle-notch/depth/nowhere", "reason": "because", "choice": "rework"},
        ):
            with self.subTest(body):
                self.assertEqual(
                    self.refused(self.reasons(**body)[0], 422, "input")["problems"][0]["pointer"], "/subject"
                )
        self.assertEqual(self.log(), [])
        good = {"subject": "axle-notch/depth/left", "reason": "within the fit-up", "choice": "accept"}
        self.assertEqual(self.reasons(**good)[0].status_code, 200)

    def test_unknown_step(self):
        self.refused(self.sign("dance")[0], 422, "input")

    def test_a_hold_point_takes_its_reading(self):
        for step in ("teardown", "loads-off", "supports", "springs", "stocked", "axle-notch/brace/both"):
            self.assertEqual(self.sign(step)[0].status_code, 200, step)
        data = self.refused(self.sign("axle-notch/mark/left")[0], 422, "input")
        self.assertEqual(data["problems"][0]["pointer"], "/reading")
        _, entries = self.sign("axle-notch/mark/left", reading={"value": 0.5, "text": "0.5 mm"})
        self.assertEqual([e["kind"] for e in entries], ["reading", "sign-off"])
        self.assertEqual(entries[1]["reading"], entries[0]["number"])
        self.assertEqual(entries[0]["key"], "position")

    def test_passing_with_a_reason(self):
        self.assertEqual(self.reasons(subject="teardown", reason=" ")[0].status_code, 422)
        self.reasons(subject="teardown", reason="gauge on loan")
        step = self.steps()["teardown"]
        self.assertEqual((step["status"], step["reason"]), ("overridden", "gauge on loan"))

    def test_readings_change_the_evaluation_of_their_side(self):
        self.read(value=61.0)
        _, data = self.send("post", "/evaluate", {"job_id": self.job.pk, "design": self.design()})
        by_id = {c["id"]: c for c in data["checks"]}
        self.assertLess(
            by_id["modulus-bottom:axle-notch:left@as-built"]["value"], by_id["modulus-bottom:axle-notch:left"]["value"]
        )
        self.assertEqual(
            by_id["modulus-bottom:axle-notch:right@as-built"]["value"],
            by_id["modulus-bottom:axle-notch:right"]["value"],
        )

    def test_readings_that_nobody_asked_for_or_that_cannot_be(self):
        for change in (
            {"key": "colour"},
            {"operation": "other"},
            {"value": -2.0},
            {"value": 0},
            {"value": 1e9},
            {"side": "top"},
        ):
            with self.subTest(change):
                self.assertEqual(self.read(**change)[0].status_code, 422)
        self.assertEqual(self.log(), [])

    def tape(self, start, end, mm=760.0):
        ends = [{"feature_id": name, "side": side} for name, side in (start, end)]
        body = {"start": ends[0], "end": ends[1], "value": mm, "text": f"{mm:g} mm"}
        return self.send("post", f"/jobs/{self.job.pk}/lengths", body)

    def test_a_length_between_two_points_of_the_frame(self):
        _, entry = self.tape(("front-axle", "left"), ("front-axle", "right"))
        self.assertEqual((entry["kind"], entry["start"]["side"], entry["by"]), ("length", "left", "ada"))
        _, data = self.send("post", "/evaluate", {"job_id": self.job.pk, "design": self.design()})
        self.assertEqual([row["measured_mm"] for row in data["taped"]["lengths"]], [760.0])
        self.send("post", f"/jobs/{self.job.pk}/withdraw", {"entry": entry["number"], "reason": "wrong mark"})
        _, data = self.send("post", "/evaluate", {"job_id": self.job.pk, "design": self.design()})
        self.assertIsNone(data["taped"])

    def test_a_length_that_cannot_be(self):
        left = ("front-axle", "left")
        data = self.refused(self.tape(left, ("nowhere", "right"))[0], 422, "input")
        self.assertEqual(data["problems"][0]["pointer"], "/end/feature_id")
        for end, mm in ((left, 760.0), (("front-axle", "right"), -1.0), (("front-axle", "right"), 1e9)):
            with self.subTest((end, mm)):
                self.assertEqual(self.tape(left, end, mm)[0].status_code, 422)
        self.assertEqual(self.log(), [])

    def test_decide_and_take_back(self):
        _, entry = self.read(value=61.0)
        self.reasons(subject="axle-notch/depth/left", reason="margin is there", choice="accept")
        back = {"entry": entry["number"], "reason": "read the wrong line"}
        _, counter = self.send("post", f"/jobs/{self.job.pk}/withdraw", back)
        self.assertEqual((counter["kind"], counter["entry"]), ("withdrawal", entry["number"]))
        self.assertEqual([e["number"] for e in self.log()], [1, 2, 3])
        self.refused(self.send("post", f"/jobs/{self.job.pk}/withdraw", back)[0], 422, "input")
        self.refused(self.send("post", f"/jobs/{self.job.pk}/withdraw", {"entry": 99, "reason": "x"})[0], 422, "input")

    def test_number_time_and_person_are_the_servers(self):
        response, _ = self.read(number=77, by="someone", at="yesterday")
        self.assertEqual(response.status_code, 422)
        self.read()
        row = LogEntry.objects.get()
        self.assertEqual((row.number, row.document["by"]), (1, "ada"))
