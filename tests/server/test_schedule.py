"""When it is done, over the API: a draft's schedule, the calendar, the sheet that goes along with handed-out work."""

from icalendar import Calendar

from tests.pdf_text import text_of
from tests.server.base import Shop

AT = "2026-05-04T08:00"


class Schedule(Shop):
    def ask(self, **timing):
        design = {**self.design(), "timing": timing}
        return self.send("post", "/schedule", {"job_id": self.job.pk, "design": design, "at": AT})

    def test_a_draft_is_planned_in_the_shops_sessions(self):
        response, data = self.ask(due="2026-12-31")
        self.assertEqual(response.status_code, 200)
        found = data["schedule"]
        self.assertGreater(len(found["steps"]), 20)
        self.assertLessEqual(found["ends"], found["in_list_order"])
        self.assertEqual({len(m["who"]) for m in found["sessions"]}, {2})

    def test_days_that_no_calendar_has_and_steps_that_are_gone_are_named_at_their_place(self):
        for timing, pointer in (
            ({"due": "2026-02-30"}, "/design/timing/due"),
            ({"arrivals": [{"what": "x", "step": "gone", "on": "2026-06-01"}]}, "/design/timing/arrivals/0/step"),
            ({"handouts": [{"step": "paint", "to": "painter", "days": 0}]}, "days"),
        ):
            with self.subTest(pointer):
                response, _ = self.ask(**timing)
                problem = self.refused(response, 422, "input")
                self.assertIn(pointer, problem["problems"][0]["pointer"])

    def test_sessions_of_nothing_are_refused_where_they_are_kept(self):
        shop = self.send("get", f"/jobs/{self.job.pk}")[1]
        for session in (
            {"weekday": "Monday", "start": "18:00", "minutes": 0, "who": ["ada"]},
            {"weekday": "Monday", "start": "25:00", "minutes": 60, "who": ["ada"]},
            {"weekday": "Monday", "start": "18:00", "minutes": 60, "who": []},
        ):
            body = {"base": shop["shop_number"], "shop": {**shop["shop"], "week": [session]}}
            self.refused(self.send("put", f"/jobs/{self.job.pk}/shop", body)[0], 422, "input")

    def test_the_stored_plan_as_a_calendar(self):
        response = self.client.get(f"/api/options/{self.option.pk}/plan.ics?at={AT}")
        self.assertEqual(response["Content-Type"], "text/calendar; charset=utf-8")
        self.assertGreater(len(Calendar.from_ical(response.content).walk("VEVENT")), 3)

    def test_a_sheet_goes_along_with_what_is_handed_out(self):
        path = f"/options/{self.option.pk}/handout.pdf?step=paint"
        self.assertEqual(self.client.get(f"/api{path}").status_code, 404)
        timing = {"handouts": [{"step": "paint", "to": "painter", "days": 9, "note": "black, half gloss"}]}
        design = {**self.design(), "timing": timing}
        self.send("post", f"/options/{self.option.pk}/revisions", {"base": self.option.head().number, "design": design})
        words = text_of(self.client.get(f"/api{path}").content)
        for part in ("painter", "9 days", "black, half gloss", "Stays bare", "Earth places", "Taken back"):
            self.assertIn(part, words)
