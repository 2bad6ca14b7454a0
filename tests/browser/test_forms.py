"""The forms' own tables, bundled and run in Chromium, against the core's models."""

import subprocess

from pydantic import TypeAdapter

from nodulant.evaluate import Want, evaluate
from nodulant.frame.ops.union import Operation
from nodulant.frame.place import resolve
from tests import fixtures as f
from tests.browser.base import Bench
from tests.core.test_operations import ALL
from tests.fixtures import ROOT

BUNDLE = """
import { build } from 'vite';
const out = await build({
  configFile: false, logLevel: 'silent', root: process.cwd(),
  build: { write: false, minify: false, lib: { entry: ENTRY, formats: ['es'], fileName: 'mod' } },
});
process.stdout.write((Array.isArray(out) ? out[0] : out).output[0].code);
"""
OPERATION = TypeAdapter(Operation)


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

    def fresh(self, kind):
        return self.page.evaluate("([d, k]) => mod.freshOperation(d, k)", [self.draft(), kind])

    def test_a_fresh_operation_is_taken_as_it_stands(self):
        """Adding work must never begin with an error."""
        self.load("cut/fresh.ts")
        for kind in ALL:
            with self.subTest(kind):
                op = OPERATION.validate_python(self.fresh(kind))
                self.assertEqual(op.kind, kind)
                result = evaluate(f.with_operations(f.demo(), op), Want(case="brake"))
                self.assertTrue(result.checks)
                self.assertGreater(resolve(op.anchor, f.demo().survey.features), -1e4)

    def test_a_second_one_gets_its_own_name(self):
        self.load("cut/fresh.ts")
        draft = self.draft()
        first = self.page.evaluate("([d, k]) => mod.freshOperation(d, k)", [draft, "z-step"])
        draft["design"]["operations"] = [first]
        second = self.page.evaluate("([d, k]) => mod.freshOperation(d, k)", [draft, "z-step"])
        self.assertNotEqual(first["id"], second["id"])

    def test_every_field_of_a_form_is_a_field_of_the_core(self):
        """A form that writes a field which the core does not know would be refused on every change."""
        self.load("cut/fresh.ts")
        made = {kind: self.fresh(kind) for kind in ALL}
        self.load("cut/kinds.ts")
        run = """() => mod.KINDS.map((k) => ({kind: k.kind, fields: k.fields.map((f) => f.at),
          parts: (k.parts ?? []).map((p) => ({at: p.at, fresh: p.fresh, fields: p.fields.map((f) => f.at)}))}))"""
        kinds = {k["kind"]: k for k in self.page.evaluate(run)}
        self.assertEqual(set(kinds), set(ALL) - {"notch", "boxing"})
        for kind, spec in kinds.items():
            whole = OPERATION.validate_python(made[kind]).model_dump(mode="json")
            for at in spec["fields"]:
                self.assertTrue(self.has(whole, at), f"{kind}.{at}")
            for part in spec["parts"]:
                if part["fresh"] is None:
                    continue
                filled = {**made[kind], part["at"]: {**part["fresh"], **self.needs(part["at"])}}
                model = OPERATION.validate_python(filled).model_dump(mode="json")
                for at in part["fields"]:
                    self.assertTrue(self.has(model, at), f"{kind}.{at}")

    def needs(self, part):
        return {"feature_id": "rear-axle"} if part == "mount" else {}

    def has(self, node, at):
        for key in at.split("."):
            if not isinstance(node, dict) or key not in node:
                return False
            node = node[key]
        return True

    def test_choices_are_those_of_the_core(self):
        self.load("cut/fresh.ts")
        made = {kind: self.fresh(kind) for kind in ALL}
        self.load("cut/kinds.ts")
        run = """() => mod.KINDS.flatMap((k) => k.fields.filter((f) => f.is === 'choice' && !f.at.includes('.'))
          .flatMap((f) => f.choices.map((c) => [k.kind, f.at, c[0]])))"""
        rows = self.page.evaluate(run)
        self.assertGreater(len(rows), 30)
        for kind, at, value in rows:
            changed = {**made[kind], at: value}
            if value == "set-on":
                changed["rise_mm"] = 160.0
            if kind == "crossmember" and value in {"remove", "move", "replace"}:
                changed["target_id"] = "cab"
            with self.subTest(f"{kind}.{at} = {value}"):
                self.assertEqual(getattr(OPERATION.validate_python(changed), at), value)

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
        self.load("cut/fresh.ts")
        made = {kind: self.fresh(kind) for kind in ALL}
        self.load("drawing/handles.ts")
        for kind in ALL:
            op = OPERATION.validate_python(made[kind])
            inputs = f.with_operations(f.demo(), op)
            draft = {**self.draft(), "design": inputs.design.model_dump(mode="json")}
            result = evaluate(inputs).model_dump(mode="json")
            run = """([d, r]) => [...mod.handlesOf(d, r, 'left'), ...mod.planHandlesOf(d, r, 'left', d.design.operations[0].id)]
              .map((h) => [h.id, h.valueMm, h.valueAt(h.x, h.z)])"""
            rows = self.page.evaluate(run, [draft, result])
            self.assertTrue(rows, kind)
            for handle, value, read in rows:
                with self.subTest(handle):
                    self.assertAlmostEqual(value, read, delta=0.02)
