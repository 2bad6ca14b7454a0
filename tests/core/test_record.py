"""The weld and inspection record: every joint of the weld map once a side, and when one is done."""

import re
from datetime import date

from django.test import SimpleTestCase
from icalendar import Calendar

from nodulant.asbuilt.record import BoltsEntry, InspectionEntry, OnTheRoadEntry, PaintEntry, WeldEntry
from nodulant.assembly.sheet import assembly_sheets
from nodulant.formats.after_ics import after_ics
from nodulant.job.document import AsBuilt
from nodulant.proof.after import after
from nodulant.proof.record import weld_record
from tests import fixtures as f

WHEN = {"at": "2026-11-20T10:00:00+00:00", "by": "bram"}


def recorded(*entries, option="step"):
    job = f.demo(option)
    return weld_record(job.model_copy(update={"as_built": AsBuilt(entries=entries)}))


def weld(number, joint, **more):
    return WeldEntry(**WHEN, number=number, joint=joint, operator="bram", **more)


class Joints(SimpleTestCase):
    def test_each_weld_of_the_map_once_a_side(self):
        rows = recorded().rows
        self.assertEqual(len({r.joint for r in rows}), len(rows))
        wanted = sum(2 if w.side == "both" else 1 for s in assembly_sheets(f.demo("step")) for w in s.welds)
        self.assertEqual(sum(r.kind == "weld" for r in rows), wanted)
        self.assertEqual({r.state for r in rows}, {"open"})

    def test_nobody_passes_his_own_weld(self):
        joint = recorded().rows[0].joint
        for looked, state in (("", "made"), ("Bram", "made"), ("ada", "done")):
            row = recorded(weld(1, joint, looked_by=looked)).rows[0]
            self.assertEqual(row.state, state, looked)

    def test_a_defect_stays_open_until_it_is_repaired(self):
        joint = recorded().rows[0].joint
        marks = weld(1, joint, looked_by="ada", dye="marks")
        found = recorded(marks)
        self.assertEqual(found.rows[0].state, "to repair")
        self.assertIn("1 welds to repair", found.open_points)
        again = weld(2, joint, looked_by="ada", dye="clear", defect="undercut", repaired=True)
        self.assertEqual(recorded(marks, again).rows[0].state, "done")

    def test_bolts_want_torque_mark_and_a_second_look(self):
        joint = next(r.joint for o in ("step", "arc", "straight") for r in recorded(option=o).rows if r.kind == "bolts")
        option = next(o for o in ("step", "arc", "straight") if any(r.joint == joint for r in recorded(option=o).rows))
        told = {"number": 1, "joint": joint, "torque_nm": 80.0}
        for more, state in (
            ({}, "made"), ({"marked": True}, "made"), ({"marked": True, "looked_by": "ada"}, "done"),
            ({"marked": True, "looked_by": "bram"}, "made"),
        ):  # fmt: skip
            found = recorded(BoltsEntry(**WHEN, **told, **more), option=option)
            self.assertEqual(next(r.state for r in found.rows if r.joint == joint), state, more)

    def test_paint_and_a_job_s_hash(self):
        inputs = f.demo("step")
        coats = PaintEntry(**WHEN, number=1, zone="left rail", coats=2, film_um=120.0)
        painted = inputs.model_copy(update={"as_built": AsBuilt(entries=(coats,))})
        self.assertEqual(weld_record(painted).paint, (coats,))
        self.assertEqual(painted.content_hash(), inputs.content_hash(), "a record changes no figure")


class After(SimpleTestCase):
    def job(self, *entries):
        inputs = f.demo("step")
        return after(inputs.model_copy(update={"as_built": AsBuilt(entries=entries)}))

    def test_the_days_follow_from_the_first_drive(self):
        """250 km a week: 100 km after 3 days, 1000 km after 28."""
        found = self.job(OnTheRoadEntry(**WHEN, number=1, first="2026-12-01", km_week=250.0))
        self.assertEqual([i.day for i in found.inspections], ["2026-12-04", "2026-12-29"])
        self.assertEqual([i.day for i in self.job().inspections], ["", ""])

    def test_a_day_that_no_calendar_has_is_no_crash(self):
        found = self.job(OnTheRoadEntry(**WHEN, number=1, first="2026-02-31", km_week=250.0))
        self.assertEqual(found.inspections[0].day, "")

    def test_what_was_found_stands_at_its_distance(self):
        what = self.job().inspections[0].rows[0].what
        found = self.job(InspectionEntry(**WHEN, number=1, km=100, what=what, ok=False, found="rust line"))
        self.assertEqual((found.inspections[0].rows[0].ok, found.inspections[1].rows[0].ok), (False, None))

    def test_the_calendar_is_read_back(self):
        found = self.job(OnTheRoadEntry(**WHEN, number=1, first="2026-12-01", km_week=250.0))
        calendar = Calendar.from_ical(after_ics("Wherry", "revision 3", found, "in16"))
        events = list(calendar.walk("VEVENT"))
        self.assertEqual([e["dtstart"].dt for e in events], [date(2026, 12, 4), date(2026, 12, 29)])
        self.assertIn("miles", events[0]["summary"])
        self.assertIn("no crack", events[0]["description"])
        self.assertEqual(len({e["uid"] for e in events}), 2)


class Tightened(SimpleTestCase):
    def test_a_bolted_joint_says_how_tight(self):
        """T = K F d with three quarters of the proof load, K 0.2 dry (common practice): an M16 10.9 to 312 N m or so."""
        rows = [r for r in weld_record(f.job("brackmoor").inputs("bolt-in")).rows if r.kind == "bolts"]
        m16 = next(r for r in rows if "M16" in r.asks and "10.9" in r.asks)
        dry, oiled = (float(v) for v in re.findall(r"\[\[torque:([\d.]+)\]\]", m16.asks))
        preload = 0.75 * 830 * 157  # ISO 898-1's proof stress and ISO 724's stress area, from memory
        self.assertAlmostEqual(dry / (0.2 * preload * 0.016), 1.0, delta=0.01)
        self.assertAlmostEqual(oiled / dry, 0.75, delta=0.001)
        self.assertTrue(all("oiled" in r.asks for r in rows))
