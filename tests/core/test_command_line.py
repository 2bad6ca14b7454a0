"""``nodulant check``: a job file evaluated without a server."""

import contextlib
import io
import json
import subprocess
import sys
import tempfile
import zipfile
from pathlib import Path

from django.test import SimpleTestCase

from nodulant.cli.main import main
from nodulant.formats.jobfile import dump_job
from tests import fixtures as f


def run(*arguments):
    """Exit status, standard output and standard error of one command."""
    out, err = io.StringIO(), io.StringIO()
    with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
        status = main([str(a) for a in arguments])
    return status, out.getvalue(), err.getvalue()


class Check(SimpleTestCase):
    def test_table_says_what_happens_where_in_the_job_s_unit(self):
        status, out, _ = run("check", f.DEMO)
        self.assertEqual(status, 1, "a length of its log is wrong")
        head, *rows = out.splitlines()
        self.assertEqual(head.split(), ["verdict", "check", "says", "limit", "where", "basis"])
        row = next(r for r in rows if "Rail over the rear axle, bending, bottom fibre" in r)
        for word in ("weaker", "0.52 of stock's strength", "at least 98 %", '102 3/4"', "against stock's"):
            self.assertIn(word, row)
        for foreign in (" mm", " kN", " MPa", ">=", "yes"):
            self.assertNotIn(foreign, "\n".join(r.split("  ")[1] for r in rows if "  " in r))

    def test_the_same_cause_is_told_once(self):
        _, out, _ = run("check", f.DEMO)
        titles = [line[14:90].strip() for line in out.splitlines()]
        own = [t for t in titles if t.startswith("Overlap past the cut, outer plate")]
        self.assertEqual(len(own), 2, "left and right agree")
        self.assertEqual(sum("(as built)" in t for t in own), 1, "the plan and what was measured are told apart")
        self.assertTrue(any(t.startswith("and Rail over the rear axle") for t in titles))

    def test_json(self):
        _, out, _ = run("check", f.DEMO, "--json", "--option", "straight")
        told = json.loads(out)
        self.assertEqual(set(told), {"counts", "groups", "checks"})
        self.assertEqual(sum(told["counts"].values()), sum(g["verdict"] != "note" for g in told["groups"]))
        checks = told["checks"]
        self.assertTrue(all(c["basis"] and c["verdict"] for c in checks))

    def test_the_engineers_sheet_as_text_and_as_json(self):
        status, out, _ = run("handcheck", f.DEMO)
        self.assertEqual(status, 0)
        for word in ("section modulus that counts", "Stock:", "What was assumed", "a tenth less", "(measured)"):
            self.assertIn(word, out)
        _, told, _ = run("handcheck", f.DEMO, "--json", "--option", "step")
        self.assertEqual(len(json.loads(told)["places"]), 3)

    def test_a_file_that_is_refused_says_where(self):
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "job.nodulant.json"
            path.write_bytes(dump_job(f.job()).replace(b'"depth_mm":58', b'"depth_mm":-58', 1))
            status, out, err = run("check", path)
        self.assertEqual((status, out), (2, ""))
        self.assertIn("/depth_mm", err)
        self.assertIn("expected more than 0", err)

    def test_a_file_that_is_not_there(self):
        status, _, err = run("check", "/nowhere/job.json")
        self.assertEqual(status, 2)
        self.assertIn("No such file", err)

    def test_a_design_that_cannot_stand_together(self):
        job = f.job()
        option = job.options[0]
        design = option.revisions[0].design
        deep = f.with_notch(job.inputs(), depth_mm=149.0).design.operations
        revision = option.revisions[0].model_copy(update={"design": design.model_copy(update={"operations": deep})})
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "job.nodulant.json"
            broken = option.model_copy(update={"revisions": (revision,)})
            path.write_bytes(dump_job(job.model_copy(update={"options": (broken,)})))
            status, _, err = run("check", path)
        self.assertEqual(status, 2)
        self.assertIn("as deep as the rail", err)

    def test_it_runs_as_a_module_without_django(self):
        code = "import sys, nodulant.cli.main; assert 'django' not in sys.modules; print('free')"
        done = subprocess.run(
            [sys.executable, "-c", code], capture_output=True, text=True, env={"PYTHONPATH": str(f.ROOT / "core")}
        )
        self.assertEqual(done.stdout.strip(), "free", done.stderr)

    def test_a_check_does_not_load_what_writes_files(self):
        code = "import sys; from nodulant.cli.main import main; main(['check', sys.argv[1]]); print(*sys.modules)"
        wherry = str(f.ROOT / "demo" / "wherry.nodulant.json")
        done = subprocess.run(
            [sys.executable, "-c", code, wherry],
            capture_output=True,
            text=True,
            env={"PYTHONPATH": str(f.ROOT / "core")},
        )
        loaded = done.stdout.splitlines()[-1].split()
        self.assertIn("nodulant.evaluate.run", loaded, done.stderr)
        self.assertEqual({"ezdxf", "trimesh", "openpyxl", "ortools", "matplotlib"} & set(loaded), set())

    def test_patterns_and_report_are_written(self):
        with tempfile.TemporaryDirectory() as folder:
            out = Path(folder) / "new"
            self.assertEqual(run("patterns", f.DEMO, "--out", out, "--paper", "letter")[0], 0)
            self.assertEqual(run("report", f.DEMO, "--out", out)[0], 0)
            names = {p.name for p in out.iterdir()}
            self.assertTrue({"axle-notch-liner-left.dxf", "patterns-letter.pdf", "report.pdf"} <= names, names)
            self.assertEqual((out / "report.pdf").read_bytes()[:4], b"%PDF")

    def test_the_order_list_is_written(self):
        with tempfile.TemporaryDirectory() as folder:
            status, out, _ = run("order", f.DEMO, "--option", "step", "--out", folder)
            self.assertEqual((status, len(out.splitlines())), (0, 2))
            rows = (Path(folder) / "order.csv").read_text("utf-8-sig").splitlines()
            self.assertIn("solid wire", " ".join(rows))
            self.assertEqual((Path(folder) / "order.xlsx").read_bytes()[:2], b"PK")

    def test_assembly_sheets_model_and_everything_without_a_server(self):
        with tempfile.TemporaryDirectory() as folder:
            status, out, _ = run("assembly", f.DEMO, "--option", "step", "--symbols", "aws", "--out", folder)
            self.assertEqual(status, 0)
            self.assertEqual({Path(line).name for line in out.split()}, {"assembly-a4.pdf", "welds.csv", "parts.csv"})
            status, out, _ = run("export", f.DEMO, "--out", folder)
            self.assertEqual(status, 0)
            self.assertEqual((Path(folder) / "model.glb").read_bytes()[:4], b"glTF")
            status, _, _ = run("everything", f.DEMO, "--paper", "letter", "--once", "--out", folder)
            self.assertEqual(status, 0)
            self.assertIsNone(zipfile.ZipFile(Path(folder) / "everything.zip").testzip())

    def test_the_plates_are_laid_out(self):
        with tempfile.TemporaryDirectory() as folder:
            status, out, _ = run("nest", f.DEMO, "--out", folder)
            names = {p.name for p in Path(folder).iterdir()}
            self.assertEqual((status, len(out.splitlines())), (0, len(names)))
            self.assertIn("sheets.csv", names)
            self.assertTrue(any(n.endswith("sheet-1.dxf") for n in names), names)

    def test_schema(self):
        status, out, _ = run("schema")
        self.assertEqual((status, json.loads(out)["title"]), (0, "Nodulant job file, version 5"))
