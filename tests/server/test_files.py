"""Checklist, checks and readings as files: read back, in the job's unit, nothing that a spreadsheet would run."""

import csv
import hashlib
import io
import zipfile

from openpyxl import load_workbook

from nodulant.formats.tables_csv import plain
from nodulant.search.steps import to_the_end
from nodulant.stock.nesting.plan import nest
from tests import fixtures as f
from tests.server.base import Shop


class Files(Shop):
    def table(self, name):
        response = self.client.get(f"/api/options/{self.option.pk}/{name}.csv")
        self.assertEqual(response.status_code, 200)
        self.assertIn("text/csv", response.headers["Content-Type"])
        return list(csv.DictReader(io.StringIO(response.content.decode("utf-8-sig"))))

    def evaluated(self):
        return self.send("post", "/evaluate", {"job_id": self.job.pk, "design": self.design()})[1]

    def test_checks_come_back_as_many_as_there_are_worst_first(self):
        rows, found = self.table("checks"), self.evaluated()
        self.assertEqual([r["verdict"] for r in rows], [c["verdict"] for c in found["checks"]])
        self.assertTrue(all(r["check"] and r["stage"] for r in rows))
        self.assertFalse([r for r in rows if "[[" in "".join(r.values())])

    def test_readings_tell_planned_measured_and_how_far_off(self):
        rows, found = self.table("readings"), self.evaluated()
        self.assertEqual(len(rows), len(found["readings"]))
        for row, reading in zip(rows, found["readings"], strict=True):
            self.assertEqual(bool(row["off"]), reading["value"] is not None)

    def test_the_order_list_as_a_table_a_workbook_and_on_screen(self):
        rows = self.table("order")
        self.assertIn("welding", {r["kind"] for r in rows})
        response = self.client.get(f"/api/options/{self.option.pk}/order.xlsx")
        book = load_workbook(io.BytesIO(response.content))
        self.assertEqual(book["Order"].max_row, len(rows) + 1)
        _, told = self.send("post", "/order", {"job_id": self.job.pk, "design": self.design()})
        self.assertEqual(len(told["rows"]), len(rows))
        self.assertNotIn("[[", str(told))
        self.assertIn(self.client.get(f"/api/options/{self.option.pk}/order.pdf").status_code, (404, 422))

    def test_gauges_welds_and_parts_as_tables(self):
        gauges, welds, parts = (self.table(name) for name in ("gauges", "welds", "parts"))
        self.assertIn("hole-centre pointer", {r["kind"] for r in gauges})
        self.assertTrue(all(r["bead, all"] for r in welds))
        self.assertEqual(parts[-1]["work"], "in all")
        for row in (*gauges, *welds, *parts):
            self.assertFalse("[[" in "".join(row.values()))

    def test_assembly_sheets_by_either_standard_and_nothing_else(self):
        for symbols, words in (("iso", b"%PDF"), ("aws", b"%PDF")):
            response = self.client.get(f"/api/options/{self.option.pk}/assembly.pdf?symbols={symbols}&paper=letter")
            self.assertEqual(response.status_code, 200)
            self.assertTrue(response.content.startswith(words))
        self.assertEqual(self.client.get(f"/api/options/{self.option.pk}/assembly.pdf?symbols=own").status_code, 422)

    def test_the_model_in_space(self):
        glb = self.client.get(f"/api/options/{self.option.pk}/model.glb")
        self.assertEqual(glb.content[:4], b"glTF")
        self.assertEqual(self.client.get(f"/api/options/{self.option.pk}/model.stl").status_code, 200)
        self.assertIn(self.client.get(f"/api/options/{self.option.pk}/model.obj").status_code, (404, 422))

    def test_a_coped_tube_s_wrap_on_screen_and_as_a_file(self):
        sizes = {"branch_mm": 38.1, "wall_mm": 4.0, "main_mm": 44.4, "angle_deg": 60.0, "offset_mm": 0.0}
        response, wrap = self.send("post", "/cope", sizes)
        self.assertEqual(response.status_code, 200)
        self.assertEqual(wrap["title"], "Cope wrap")
        query = "&".join(f"{name}={value}" for name, value in sizes.items())
        for kind in ("dxf", "svg", "pdf"):
            self.assertEqual(self.client.get(f"/api/options/{self.option.pk}/cope.{kind}?{query}").status_code, 200)
        response, told = self.send("post", "/cope", {**sizes, "branch_mm": 60.0})
        self.assertEqual(response.status_code, 422)
        self.assertIn("past the side", str(told))
        response, _ = self.send("post", "/cope", {**sizes, "angle_deg": 5.0})
        self.assertEqual(response.status_code, 422)

    def test_everything_in_one_zip_with_names_that_tell(self):
        response = self.client.get(f"/api/options/{self.option.pk}/everything.zip?paper=letter&unit=in&once=true")
        self.assertEqual(response.status_code, 200)
        archive = zipfile.ZipFile(io.BytesIO(response.content))
        self.assertIsNone(archive.testzip())
        names = archive.namelist()
        plate = next(n for n in names if "Boxing-plate-L" in n)
        self.assertRegex(plate, r"patterns/.+-Boxing-plate-L-[\d.]+(in|mm)-1off-r\d+-s\d+-in\.dxf$")
        listed = list(csv.reader(io.StringIO(archive.read("contents.csv").decode("utf-8-sig"))))
        self.assertEqual({r[0] for r in listed[2:]}, set(names) - {"contents.csv"})
        for name, what, digest in listed[2:]:
            self.assertTrue(what)
            self.assertEqual(hashlib.sha256(archive.read(name)).hexdigest(), digest)

    def test_a_name_is_no_formula(self):
        self.assertEqual(plain("=1+1"), "'=1+1")
        self.assertEqual(plain("@sum"), "'@sum")
        self.assertEqual(plain('-2 1/2"'), '-2 1/2"')

    def test_the_checklist_is_a_pdf_and_another_table_is_not_there(self):
        response = self.client.get(f"/api/options/{self.option.pk}/checklist.pdf")
        self.assertTrue(response.content.startswith(b"%PDF"))
        self.assertIn(self.client.get(f"/api/options/{self.option.pk}/people.csv").status_code, (404, 422))

    def test_the_order_by_laid_out_sheets_as_files(self):
        """The list that is bought by is the list that was seen: sheets as they were laid out, not strips."""
        plan = to_the_end(nest(f.job().inputs(self.option.key), 1.0))
        body = {"plan": plan.model_dump(mode="json")}
        response, _ = self.send("post", f"/options/{self.option.pk}/order.csv", body)
        rows = list(csv.DictReader(io.StringIO(response.content.decode("utf-8-sig"))))
        self.assertTrue(any("sheet" in r["how much"] for r in rows if r["kind"] == "plate"))
        response, _ = self.send("post", f"/options/{self.option.pk}/order.xlsx", body)
        self.assertEqual(load_workbook(io.BytesIO(response.content))["Order"].max_row, len(rows) + 1)
        self.assertEqual(self.send("post", f"/options/{self.option.pk}/order.pdf", body)[0].status_code, 404)


class Stands(Shop):
    def body(self, **more):
        design = {**self.design(), **more}
        return {"job_id": self.job.pk, "design": design}

    def test_places_are_found_and_hold(self):
        response, put = self.send("post", "/supports/places", self.body())
        self.assertEqual(response.status_code, 200)
        self.assertGreaterEqual(len(put), 4)
        _, found = self.send("post", "/supports", self.body(supports=put))
        self.assertTrue(found["moments"])
        self.assertTrue(all(s["holds"] for m in found["moments"] for s in m["stands"]))
        _, bare = self.send("post", "/supports", self.body())
        self.assertFalse(any(s["holds"] for m in bare["moments"] for s in m["stands"]))

    def test_a_stand_that_cannot_be_is_named(self):
        wrong = {"id": "s", "name": "Stand", "x_mm": 0, "y_mm": 0, "rating_kg": 0}
        data = self.refused(self.send("post", "/supports", self.body(supports=[wrong]))[0], 422, "input")
        self.assertTrue(any("rating_kg" in p["pointer"] for p in data["problems"]))


class Paper(Shop):
    def test_the_plan_as_any_of_its_sheets_and_no_other(self):
        for sheet in ("plan", "now", "holds", "cautions"):
            response = self.client.get(f"/api/options/{self.option.pk}/steps.pdf?sheet={sheet}")
            self.assertEqual(response.status_code, 200)
            self.assertTrue(response.content.startswith(b"%PDF"))
        self.assertEqual(self.client.get(f"/api/options/{self.option.pk}/steps.pdf?sheet=own").status_code, 422)
