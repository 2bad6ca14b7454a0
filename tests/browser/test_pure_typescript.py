"""Pure TypeScript of the front end, run in Chromium against the core's own tables."""

import subprocess

import numpy as np
import orjson

from nodulant.base.errors import UnreadableQuantity
from nodulant.evaluate import Want, evaluate
from nodulant.glossary.terms import TERMS, term_for
from nodulant.linkage.compiled import places
from nodulant.steering.wheels import steered_wheels
from nodulant.suspension.motion import Setting, moved_through
from nodulant.suspension.study import study
from nodulant.units import parse_quantity
from nodulant_server.api.compute import SLIM
from tests import fixtures as f
from tests.browser.base import Bench
from tests.core.test_steering import job
from tests.core.test_suspensions import ONLY, suspended
from tests.fixtures import ROOT
from tests.tables import FIGURES, READ, REFUSED, SHOWN, TAPE, THICKNESS, TOLD

BUNDLE = """
const { rolldown } = require('rolldown');
rolldown({ input: process.argv[1] })
  .then((made) => made.generate({ format: 'esm' }))
  .then(({ output }) => process.stdout.write(output[0].code));
"""


def setting_of(axle):
    """Where a drawn axle stands."""
    return Setting(tuple(axle.hub), axle.half_track_mm, axle.radius_mm)


class PureTypeScript(Bench):
    def load(self, path):
        """Import a module with what it imports; the page can call it as ``window.mod``."""
        web = ROOT / "web"
        command = ["node", "-e", BUNDLE, str(web / "src" / path)]
        code = subprocess.run(command, cwd=web, check=True, capture_output=True, text=True).stdout
        self.page.goto("about:blank")
        self.page.evaluate(
            "async (code) => { window.mod = await import(URL.createObjectURL(new Blob([code], {type: 'text/javascript'}))) }",
            code,
        )

    def _stays_here(self, request):
        if request.url != "about:blank":
            super()._stays_here(request)

    def test_the_floor_shows_what_holds_the_rest_up(self):
        """Where nothing is open: the first step whose forerunners are done, and never one that only waits for another."""
        self.load("floor/after.ts")
        steps = [
            {"id": "survey", "status": "done", "needs": []},
            {"id": "weld", "status": "waiting", "needs": ["mock-up"]},
            {"id": "mock-up", "status": "waiting", "needs": ["survey"]},
            {"id": "parts", "status": "waiting", "needs": ["survey"]},
        ]
        held = "([steps, but]) => mod.held(steps, but)?.id ?? null"
        self.assertEqual(self.page.evaluate(held, [steps, None]), "mock-up")
        self.assertEqual(self.page.evaluate(held, [steps, "mock-up"]), "parts")
        self.assertIsNone(self.page.evaluate(held, [[{**s, "status": "done"} for s in steps], None]))

    def test_a_line_is_drawn_where_it_is_seen(self):
        """As far as the edges and a little beyond, with the height that it has there; in sight it is as it was."""
        self.load("drawing/scale.ts")
        seen = "([points, width]) => mod.inSight(points, width)"
        spots = [[-500, 0], [-100, 10], [60, 50], [140, 40], [300, 40], [320, 90]]
        got = np.array(self.page.evaluate(seen, [spots, 200]))
        np.testing.assert_allclose(got[1:-1], spots[2:4])
        xs, heights = np.array(spots, dtype=float).T
        np.testing.assert_allclose(got[:, 1], np.interp(got[:, 0], xs, heights))
        self.assertTrue(-20 < got[0, 0] < 0 and 200 < got[-1, 0] < 220, got)
        across = self.page.evaluate(seen, [[[-900, 3], [900, 3]], 200])
        self.assertEqual([y for _, y in across], [3, 3])
        self.assertEqual(self.page.evaluate(seen, [[[-900, 3], [-800, 3]], 200]), [])

    def test_what_takes_long_is_asked_in_turn_and_only_while_somebody_waits(self):
        self.load("api/inTurn.ts")
        script = """async () => {
            const asked = [], running = [], left = new AbortController(), stays = new AbortController().signal;
            let now = 0;
            const ask = (name, fails) => async () => {
                asked.push(name); now += 1; running.push(now);
                await new Promise((go) => setTimeout(go, 20));
                now -= 1;
                if (fails) throw new Error(name);
                return name;
            };
            const all = [
                mod.inTurn(stays, ask("one")), mod.inTurn(stays, ask("two", true)),
                mod.inTurn(left.signal, ask("gone")), mod.inTurn(stays, ask("three")),
            ];
            left.abort();
            const ended = await Promise.allSettled(all);
            return [asked, Math.max(...running), ended.map((e) => e.status)];
        }"""
        asked, together, ended = self.page.evaluate(script)
        self.assertEqual(asked, ["one", "two", "three"])
        self.assertEqual(together, 1)
        self.assertEqual(ended, ["fulfilled", "rejected", "rejected", "fulfilled"])

    def test_a_drag_keeps_what_it_did_not_ask_for(self):
        """Rows, curves and cut edges as built stay as they were; those of the plan are the new ones."""
        self.load("evaluation/merge.ts")
        inputs = f.logged_job().inputs("arc")
        whole = orjson.loads(evaluate(inputs).model_dump_json())
        asked = Want(as_built=False, frame=False, interim=False, along=False, travel=False, strip_side="left")
        dragged = evaluate(f.with_notch(inputs, depth_mm=61.5), asked)
        part = orjson.loads(orjson.dumps(dragged.model_dump(exclude=SLIM), option=orjson.OPT_SERIALIZE_NUMPY))
        found = self.page.evaluate("([whole, part]) => mod.merged(whole, part)", [whole, part])
        was, now = ({c["id"]: c for c in own["checks"]} for own in (whole, found))
        self.assertEqual(was.keys(), now.keys())
        read = [id_ for id_, c in was.items() if c["state"] == "as-built"]
        self.assertGreater(len(read), 30)
        self.assertEqual([was[id_] for id_ in read], [now[id_] for id_ in read])
        clearance = "metal-clearance:axle-tube:left"
        self.assertNotEqual(was[clearance]["value"], now[clearance]["value"])
        self.assertEqual(now[clearance]["why"], was[clearance]["why"])
        self.assertEqual(
            [(s["side"], s["state"]) for s in found["strips"]], [("left", "planned"), ("left", "as-built")]
        )
        self.assertEqual(found["strips"][1], next(s for s in whole["strips"] if s["state"] == "as-built"))
        self.assertEqual([r["built_cuts"] for r in found["rails"]], [r["built_cuts"] for r in whole["rails"]])
        self.assertNotEqual(found["rails"][0]["cuts"], whole["rails"][0]["cuts"])
        for own in ("taped", "frame_times", "teardown_locked", "cut_locked", "readings"):
            self.assertEqual(found[own], whole[own], own)

    def test_an_instrument_between_two_marks_is_told_their_plan(self):
        """Length and direction by Pythagoras; of a level the height over the datum plane."""
        self.load("prove/marks.ts")
        spot = {"x_mm": 0.0, "y_mm": -400.0, "z_mm": -75.0}
        one = {"id": "a/left", "before": spot, "planned": spot}
        two = {"id": "b/right", "before": {**spot, "x_mm": 300.0, "y_mm": 0.0}, "planned": {**spot, "x_mm": 600.0}}
        between = "([a, b, when]) => mod.heldBetween(a, b, when)"
        before = self.page.evaluate(between, [one, two, "before"])
        self.assertEqual((before["planned"], before["rearward"], before["rightward"]), (500.0, 0.6, 0.8))
        self.assertEqual(self.page.evaluate(between, [one, two, "tacked"])["planned"], 600.0)
        self.assertIsNone(self.page.evaluate(between, [one, one, ""]))
        self.assertIsNone(self.page.evaluate(between, [one, None, ""]))
        level = self.page.evaluate("(m) => mod.heldAt(m, '')", one)
        self.assertEqual((level["at"], level["planned"]), ("level/a/left", -75.0))

    def test_lengths_read_as_the_core_reads_them(self):
        self.load("units/show.ts")
        for value, style, text in SHOWN:
            with self.subTest(text):
                self.assertEqual(self.page.evaluate("([v, s]) => mod.showLength(v, s)", [value, style]), text)
        for value, style, text in THICKNESS:
            with self.subTest(text):
                shown = self.page.evaluate("([v, s]) => mod.showThickness(v, s)", [value, style])
                self.assertEqual(shown, text)
                self.assertAlmostEqual(parse_quantity(shown).value, value, delta=0.05)

    def test_quantities_in_sentences_are_told_as_the_core_tells_them(self):
        self.load("units/tell.ts")
        call = "([v, k, s]) => mod.tell({text: 'so {a}, and {a}', of: {a: {value: v, kind: k}}}, s)"
        for value, kind, style, text in TOLD:
            with self.subTest(f"{value} {kind} {style}"):
                self.assertEqual(self.page.evaluate(call, [value, kind, style]), f"so {text}, and {text}")

    def test_figures_are_told_as_the_core_tells_them(self):
        self.load("units/figure.ts")
        for value, unit, style, text in FIGURES:
            with self.subTest(text):
                shown = self.page.evaluate("([v, u, s]) => mod.showFigure(v, u, s)", [value, unit, style])
                self.assertEqual(shown, text)

    def test_a_fields_word_is_the_cores(self):
        self.load("help/terms.ts")
        words = [t.model_dump() for t in TERMS]
        for kind, at in (("notch", "depth_mm"), ("raise", "depth_mm"), ("", "wheel.offset_mm"), ("notch", "cap.end")):
            with self.subTest(f"{kind} {at}"):
                call = "([w, k, n]) => mod.termFor(w, k, n)?.id"
                found = self.page.evaluate(call, [words, kind, at.split(".")])
                self.assertEqual(found, term_for(kind, at).id)

    def test_typed_text_is_read_as_the_core_reads_it(self):
        self.load("units/read.ts")
        self.assertGreaterEqual(len(READ) + len(TAPE) + len(REFUSED), 200)
        rows = [[text, kind, unit] for text, kind, unit, _, _ in (*READ, *TAPE)]
        found = self.page.evaluate("(rows) => rows.map(([t, k, u]) => mod.readQuantity(t, k, u))", rows)
        for (text, _, _, value, unit), read in zip((*READ, *TAPE), found, strict=True):
            with self.subTest(text):
                self.assertAlmostEqual(read["value"], value, delta=1e-9 * max(1.0, abs(value)))
                self.assertEqual((read["unit"], read["text"]), (unit, text.strip()))
        for text, kind, position, _ in REFUSED:
            with self.subTest(text):
                read = self.page.evaluate("([t, k]) => mod.readQuantity(t, k, 'mm')", [text, kind])
                with self.assertRaises(UnreadableQuantity) as refused:
                    parse_quantity(text, kind, "mm")
                self.assertEqual((read["position"], read["message"]), (position, refused.exception.message))
                self.assertEqual(read["acceptable"], refused.exception.acceptable)

    def test_typed_text_keeps_its_unit(self):
        self.load("units/show.ts")
        call = "([t, u, s]) => mod.asTyped({text: t, unit: u}, 'length', s)"
        for text, unit, style, shown in (
            ("2 1/2", "in", "in16", "2 1/2"),
            ("2 1/2", "in", "mm", "2 1/2 in"),
            ("60 mm", "mm", "in16", "60 mm"),
        ):
            self.assertEqual(self.page.evaluate(call, [text, unit, style]), shown)

    def test_snapping_to_tape_marks(self):
        self.load("units/show.ts")
        self.assertAlmostEqual(self.page.evaluate("() => mod.snap(58, 'in16')"), 37 / 16 * 25.4, places=6)
        self.assertAlmostEqual(self.page.evaluate("() => mod.snapUp(58.01, 'mm')"), 59)
        self.assertAlmostEqual(self.page.evaluate("() => mod.snapUp(58, 'mm')"), 58)

    def test_members_are_drawn_where_the_core_puts_them(self):
        """A drawing that strays from the figures would be believed: every end of every rod, crank holes too."""
        inputs = suspended("three-link")
        (axle,) = evaluate(inputs, ONLY).travel
        found = moved_through(
            inputs.design.suspensions[0].layout, setting_of(axle), np.array([-41.0, 0.0, 33.0]), (0.0, 2.0, 4.0)
        )
        c = found.sweep.compiled
        self.load("travel/pose.ts")
        data = axle.model_dump(mode="json")
        rods = [m for m in data["members"] if m["kind"] in ("link", "rod")]
        for row, (travel, roll) in enumerate((t, r) for t in (-41.0, 0.0, 33.0) for r in (0.0, 2.0, 4.0)):
            with self.subTest((travel, roll)):
                shown = np.array(
                    self.page.evaluate(
                        "([axle, t, r, rods]) => { const at = mod.placer(axle, t, r); return rods.map((m) => [at(m.a), at(m.b)]); }",
                        [data, travel, roll, rods],
                    )
                )
                pose = found.sweep.solved.pose.rows(np.array([row]))
                for end, ends in enumerate((c.a, c.b)):
                    # between the table's rows it interpolates: within a pixel's worth
                    np.testing.assert_allclose(shown[:, end], places(c, pose, ends)[0], atol=0.6)

    def test_steered_wheels_are_drawn_where_the_core_puts_them(self):
        """A wheel drawn apart from its figures would be believed: toe links, knuckles and drag links, turned and moved."""
        self.load("travel/pose.ts")
        for name, option in (("wherry", "step"), ("brackmoor", "welded")):
            inputs = job(name, option)
            own = next(s for s in inputs.design.suspensions if s.axle == "front")
            s = study(inputs.survey, own, inputs.design.seats, 0.0, 1.0)
            data = next(t for t in evaluate(inputs, ONLY).travel if t.axle == "front").model_dump(mode="json")
            # between the table's rows the drawing interpolates: asked for off them
            inputs_ = np.array([-0.83, 0.0, 0.61])
            wheels = steered_wheels(own, s.setting, s.motion, s.motion.travel[[10, s.ride, 50]], inputs_)
            half, hub = data["half_track_mm"], data["hub"]
            for i, travel in enumerate(wheels.travel):
                for j, steer in enumerate(inputs_):
                    for side, sign in (("right", 1.0), ("left", -1.0)):
                        single = data["independent"]
                        body = 0 if single else (14 if sign > 0 else 15)
                        point = {
                            "body": body,
                            "x_mm": hub[0],
                            "y_mm": half if single else sign * half,
                            "z_mm": hub[2],
                        }
                        ask = "([a, t, s, side, p]) => mod.placersOf(a, t, 0, s)[side](p)"
                        shown = np.array(self.page.evaluate(ask, [data, float(travel), float(steer), side, point]))
                        if single and sign < 0:
                            shown = shown * np.array([1.0, -1.0, 1.0])
                        centre = getattr(wheels, side).centre[i, j]
                        with self.subTest((name, travel, steer, side)):
                            np.testing.assert_allclose(shown, centre, atol=1.2)

    def test_what_has_one_key_stands_in_one_place(self):
        """Points that keep their key are not drawn again: a key that missed a change would leave the old drawing."""
        (axle,) = evaluate(suspended("three-link"), ONLY).travel
        data = axle.model_dump(mode="json")
        self.load("travel/pose.ts")
        ask = "([a, t, r]) => { const p = mod.placersOf(a, t, r); return [p.key, p.right({body: 0, x_mm: 2600, y_mm: 500, z_mm: 30})]; }"
        raised = {**data, "hub": [data["hub"][0], 0.0, data["hub"][2] + 12.0]}
        seen = {}
        for travel, roll in ((0, 0), (0, 2), (10, 0), (10, 2), (-40, 5), (0.5, 0)):
            for name, given in (("as it is", data), ("raised", raised)):
                key, place = self.page.evaluate(ask, [given, travel, roll])
                again, same = self.page.evaluate(ask, [given, travel, roll])
                self.assertEqual((key, place), (again, same))
                self.assertNotIn(key, seen, msg=(name, travel, roll, seen.get(key)))
                seen[key] = (name, travel, roll)

    def test_points_are_the_same_only_on_one_body_in_one_place(self):
        self.load("travel/pose.ts")
        point = {"body": 0, "x_mm": 1.0, "y_mm": 2.0, "z_mm": 3.0}
        for change, same in (({}, True), ({"body": 1}, False), ({"x_mm": 1.5}, False), ({"z_mm": -3.0}, False)):
            found = self.page.evaluate("([a, b]) => mod.samePoint(a, b)", [point, {**point, **change}])
            self.assertEqual(found, same, msg=change)

    def test_a_view_lays_out_and_reads_back(self):
        self.load("travel/views.ts")
        seen = {"middle": [2300, 0, 40], "span": [1400, 2000, 900]}
        back = self.page.evaluate(
            """(seen) => [null, 'side'].flatMap((alone) => mod.viewsOf(800, 500, seen, alone)).map((v) => {
                const p = [2100, -300, 120];
                const [x, y] = v.at(p);
                return [v.back(x, y, [1, 2, 3]), v.across, v.up, x >= v.left && x <= v.left + v.width];
            })""",
            seen,
        )
        self.assertEqual(len(back), 4)
        for point, across, up, inside in back:
            self.assertTrue(inside)
            for k in (across, up):
                self.assertAlmostEqual(point[k], (2100, -300, 120)[k], places=6)
            rest = ({0, 1, 2} - {across, up}).pop()
            self.assertEqual(point[rest], (1, 2, 3)[rest])

    def test_a_curve_is_read_between_its_rows_and_nowhere_beyond_a_gap(self):
        self.load("travel/pose.ts")
        for values, at, expected in (([1, 3, 5], 5, 2.0), ([1, None, 5], 5, None), ([1, 3, 5], 99, 5.0)):
            self.assertEqual(
                self.page.evaluate("([v, at]) => mod.valueAtTravel([0, 10, 20], v, at)", [values, at]), expected
            )

    def test_history_is_a_value(self):
        self.load("draft/history.ts")
        run = """() => {
          let h = mod.begin('a'); h = mod.commit(h, 'b'); h = mod.commit(h, 'c');
          const undone = mod.undo(mod.undo(mod.undo(h)));
          const again = mod.redo(undone);
          const fresh = mod.commit(again, 'd');
          return [h.now, undone.now, again.now, fresh.now, fresh.future.length, mod.commit(h, 'c') === h];
        }"""
        self.assertEqual(self.page.evaluate(run), ["c", "a", "b", "d", 0, True])

    def test_actions_on_a_draft(self):
        self.load("draft/document.ts")
        run = """() => {
          const op = {id: 'n', kind: 'notch', depth_mm: 5, liner: {thickness_mm: 6}};
          const draft = {design: {operations: [op], typed: {'n.depth_mm': {text: '5', unit: 'mm'}}}, survey: {masses: []}};
          const path = ['design', 'operations', 0, 'depth_mm'];
          const typed = mod.reduce(draft, {kind: 'set', path, value: 7, typed: {text: '7 mm', unit: 'mm'}});
          const dragged = mod.reduce(typed, {kind: 'operation', index: 0, value: {...op, depth_mm: 8}});
          const gone = mod.reduce(draft, {kind: 'remove', path: ['design', 'operations', 0]});
          const more = mod.reduce(draft, {kind: 'insert', path: ['survey', 'masses'], value: 1});
          return [typed.design.typed['n.depth_mm'].text, dragged.design.typed, draft.design.operations[0].depth_mm,
                  gone.design.operations.length, more.survey.masses, mod.freshId('x', ['x-1', 'x-2'])];
        }"""
        self.assertEqual(self.page.evaluate(run), ["7 mm", {}, 5, 0, [1], "x-3"])

    def test_equal_checks_of_both_rails_are_one_row(self):
        self.load("margins/group.ts")
        run = """() => mod.grouped([
          {id: 'a:rail:left', cause: 'a@planned', verdict: 'fails', value: 0.5, beyond: 2},
          {id: 'a:rail:right', cause: 'a@planned', verdict: 'fails', value: 0.5, beyond: 2},
          {id: 'b:rail:left', cause: 'b@planned', verdict: 'holds', value: 1.5, beyond: 0.7},
          {id: 'b:rail:right', cause: 'b@planned', verdict: 'fails', value: 0.7, beyond: 1.4},
          {id: 'a:rail:left@as-built', cause: 'a@as-built', verdict: 'fails', value: 0.4, beyond: 2.5},
        ]).map((g) => g.rows.map((r) => r.sides))"""
        self.assertEqual(self.page.evaluate(run), [["both"], ["right", "left"], ["left"]])
