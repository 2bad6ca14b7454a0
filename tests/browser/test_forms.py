"""Tables of the screen, bundled and run in Chromium, against the core's models."""

import subprocess

from nodulant.evaluate import evaluate
from nodulant.frame.ops.union import operation_kinds
from nodulant.job.fresh.work import fresh_operation
from tests import fixtures as f
from tests.browser.base import Bench
from tests.fixtures import ROOT

BUNDLE = """
import { build } from 'vite';
const out = await build({
  configFile: false, logLevel: 'silent', root: process.cwd(),
  build: { write: false, minify: false, lib: { entry: ENTRY, formats: ['es'], fileName: 'mod' } },
});
process.stdout.write((Array.isArray(out) ? out[0] : out).output[0].code);
"""


class Forms(Bench):
    """What the screen offers must be what the core takes."""

    def load(self, path):
        """Bundle a module with what it imports; the page calls it as ``window.mod``."""
        web = ROOT / "web"
        code = subprocess.run(
            ["node", "--input-type=module", "-e", BUNDLE.replace("ENTRY", repr(str(web / "src" / path)))],
            cwd=web,
            check=True,
            capture_output=True,
            text=True,
        ).stdout
        self.page.goto("about:blank")
        self.page.evaluate(
            "async (code) => { window.mod = await import(URL.createObjectURL(new Blob([code], {type: 'text/javascript'}))) }",
            code,
        )

    def _stays_here(self, request):
        if request.url != "about:blank":
            super()._stays_here(request)

    def draft(self):
        inputs = f.with_operations(f.demo())
        return {"design": inputs.design.model_dump(mode="json"), "survey": inputs.survey.model_dump(mode="json")}

    def test_stock_and_planned_stations_go_there_and_back(self):
        self.load("drawing/scale.ts")
        rail = {"stock_x_mm": [-600, 900, 901, 3400], "x_mm": [-600, 900, 1201, 3700]}
        for stock, planned in (
            (-600, -600),
            (0, 0),
            (900, 900),
            (2000, 2300),
            (3400, 3700),
            (-700, -700),
            (3500, 3800),
        ):
            self.assertAlmostEqual(self.page.evaluate("([r, x]) => mod.plannedX(r, x)", [rail, stock]), planned)
            self.assertAlmostEqual(self.page.evaluate("([r, x]) => mod.stockX(r, x)", [rail, planned]), stock)
        self.assertEqual(self.page.evaluate("() => mod.plannedX(undefined, 5)"), 5)

    def test_handles_write_what_they_read(self):
        """Dragging a handle to where it stands must not change its value."""
        self.load("drawing/handles.ts")
        for kind in (str(k.model_fields["kind"].default) for k in operation_kinds()):
            inputs = f.with_operations(f.demo(), fresh_operation(f.with_operations(f.demo()), kind))
            draft = {**self.draft(), "design": inputs.design.model_dump(mode="json")}
            result = evaluate(inputs).model_dump(mode="json")
            run = """([d, r]) => [...mod.handlesOf(d, r, 'left'), ...mod.planHandlesOf(d, r, 'left', d.design.operations[0].id)]
              .map((h) => [h.id, h.valueMm, h.valueAt(h.x, h.z)])"""
            rows = self.page.evaluate(run, [draft, result])
            self.assertTrue(rows, kind)
            for handle, value, read in rows:
                with self.subTest(handle):
                    self.assertAlmostEqual(value, read, delta=0.02)
