"""Options renamed and thrown away with undo; revisions listed with what each changed, opened and kept."""

from nodulant_server.models import Option
from tests.server.base import Shop


class Options(Shop):
    def keys(self):
        return [o["id"] for o in self.send("get", f"/jobs/{self.job.pk}")[1]["options"]]

    def test_renamed_noted_thrown_away_and_brought_back(self):
        path = f"/options/{self.option.pk}"
        self.assertEqual(self.send("patch", path, {"name": "Bolted"})[1]["name"], "Bolted")
        self.assertEqual(self.send("patch", path, {"note": "ask the inspector"})[1]["note"], "ask the inspector")
        before = self.keys()
        self.send("patch", path, {"deleted": True})
        self.assertEqual(self.keys(), [k for k in before if k != self.option.pk])
        self.send("patch", path, {"deleted": False})
        self.assertEqual(self.keys(), before)
        self.refused(self.send("patch", path, {"name": " "})[0], 422, "input")

    def test_the_last_option_stays(self):
        for other in self.job.live_options().exclude(pk=self.option.pk):
            self.send("patch", f"/options/{other.pk}", {"deleted": True})
        problem = self.refused(self.send("patch", f"/options/{self.option.pk}", {"deleted": True})[0], 422, "input")
        self.assertIn("at least one", problem["problems"][0]["message"])
        self.assertIsNone(Option.objects.get(pk=self.option.pk).deleted_at)

    def test_only_who_designs_may(self):
        self.become("bram")
        self.refused(self.send("patch", f"/options/{self.option.pk}", {"name": "mine"})[0], 403, "forbidden")
        self.assertEqual(self.send("get", f"/options/{self.option.pk}/revisions")[0].status_code, 200)


class Revisions(Shop):
    def saved(self, depth, note=""):
        _, option = self.send("get", f"/options/{self.option.pk}")
        design = option["design"]
        notch = next(op for op in design["operations"] if op["kind"] == "notch")
        notch["depth_mm"] = depth
        body = {"base": option["head"], "design": design, "note": note}
        return self.send("post", f"/options/{self.option.pk}/revisions", body)[1]["number"]

    def test_listed_newest_first_with_what_each_changed(self):
        first = self.option.head().number
        self.saved(60.0, "deeper")
        self.saved(61.5)
        rows = self.send("get", f"/options/{self.option.pk}/revisions")[1]
        self.assertEqual([r["number"] for r in rows], [first + 2, first + 1, *range(first, 0, -1)])
        self.assertEqual(
            [(c["field"], c["before"], c["after"]) for c in rows[0]["changes"]], [("Depth", "60 mm", "61.5 mm")]
        )
        self.assertEqual((rows[1]["note"], rows[1]["by"]), ("deeper", "ada"))
        self.assertEqual(rows[-1]["changes"], [])

    def test_told_in_the_askers_tape(self):
        self.saved(63.5)
        told = self.client.get(f"/api/options/{self.option.pk}/revisions", headers={"X-Tape": "in16"}).json()
        self.assertEqual(told[0]["changes"][0]["after"].replace("\u00a0", " "), '2 1/2"')

    def test_an_old_one_is_opened_as_it_was_and_says_what_changed_since(self):
        old = self.design()
        first = self.option.head().number
        self.saved(63.5)
        found = self.send("get", f"/options/{self.option.pk}/revisions/{first}")[1]
        self.assertEqual(found["design"], old)
        self.assertEqual([c["field"] for c in found["since"]], ["Depth"])
        self.assertEqual(self.send("get", f"/options/{self.option.pk}/revisions/99")[0].status_code, 404)
