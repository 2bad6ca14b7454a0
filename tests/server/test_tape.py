"""Answers tell their quantities as the asker's tape reads them; what a person typed comes back as it was typed."""

import json

from nodulant.units.inline import MARK
from tests.server.base import Shop


class Tape(Shop):
    def asked(self, tape=None):
        body = {"job_id": self.job.pk, "design": self.design()}
        headers = {} if tape is None else {"X-Tape": tape}
        response = self.client.post("/api/evaluate", json.dumps(body), content_type="application/json", headers=headers)
        self.assertFalse(MARK.search(response.content.decode()))
        return {s["id"]: s["spec"]["detail"] for s in response.json()["steps"]}

    def test_the_same_step_in_inches_and_in_millimetres(self):
        mark = "axle-notch/mark/left"
        self.assertIn("58 mm deep", self.asked()[mark])
        self.assertIn("58 mm deep", self.asked("mm")[mark])
        self.assertIn('2\u00a05/16" deep', self.asked("in16")[mark], "and no line breaks inside it")

    def test_a_tape_that_nobody_knows_reads_in_millimetres(self):
        self.assertIn("58 mm deep", self.asked("ells")["axle-notch/mark/left"])

    def test_a_document_keeps_what_was_typed(self):
        design = self.design()
        design["operations"][0]["name"] = "Plate, 75 mm, as [[length:75]]"
        self.send("put", f"/options/{self.option.pk}/draft", {"base": 1, "design": design})
        response = self.client.get(f"/api/options/{self.option.pk}", headers={"X-Tape": "in16"})
        self.assertIn("Plate, 75 mm", response.json()["draft"]["operations"][0]["name"])

    def test_a_refusal_is_told_too(self):
        design = self.design()
        notch = next(op for op in design["operations"] if op["kind"] == "notch")
        notch["depth_mm"] = 149.0
        body = json.dumps({"job_id": self.job.pk, "design": design})
        response = self.client.post("/api/evaluate", body, content_type="application/json", headers={"X-Tape": "in16"})
        self.assertEqual(response.status_code, 422)
        problem = response.json()["problems"][0]
        self.assertIn('"', problem["found"])
        self.assertNotIn("[[", json.dumps(problem))
