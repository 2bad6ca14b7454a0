"""Bodies in space: closed, as heavy as their parts, where the model has them; files read back with trimesh's own reader.

glTF's units and axes are those of its specification (Khronos glTF 2.0, 3.4: metres, y up, front along +z).
"""

import io
import zipfile

import numpy as np
import trimesh
from django.test import SimpleTestCase

from nodulant.evaluate import evaluate
from nodulant.formats.model_files import model_glb, model_stl
from nodulant.formats.pattern_pdf import TitleBlock
from nodulant.formats.whole_zip import Choices, whole_zip
from nodulant.frame.columns import rail_at
from nodulant.job.riding import in_place
from nodulant.materials.steel import DENSITY_KG_PER_MM3
from nodulant.model3d.whole import bodies_of
from tests import fixtures as f
from tests.core.test_operations import ALL, made
from tests.core.test_patterns_of_every_cut import FULL


def alone(kind, **fields):
    return f.alone(f.demo(), made(kind, **fields))


def read(data, kind):
    return trimesh.load(io.BytesIO(data), file_type=kind)


class Closed(SimpleTestCase):
    def test_every_body_of_every_option_and_kind_is_closed(self):
        rows = [(o.id, f.job().inputs(o.id)) for o in f.job().options]
        rows += [(kind, alone(kind, **FULL.get(kind, {}))) for kind in ALL]
        for name, inputs in rows:
            for body in bodies_of(inputs):
                with self.subTest(f"{name}: {body.name}"):
                    self.assertTrue(body.mesh.is_watertight)
                    self.assertGreater(body.mesh.volume, 0)

    def test_volume_times_density_is_the_added_mass(self):
        """Crossmembers of the list stand there as bodies of their own."""
        jobs = [f.job().inputs(o.id) for o in f.job().options]
        rows = [f.alone(inputs, *inputs.design.operations) for inputs in jobs]
        rows += [alone(kind, **FULL.get(kind, {})) for kind in ALL]
        for inputs in rows:
            parts = [b for b in bodies_of(inputs) if b.part_id]
            mass = sum(b.mesh.volume for b in parts) * DENSITY_KG_PER_MM3
            wanted = evaluate(in_place(inputs)).mass_added_kg
            self.assertAlmostEqual(mass, wanted, delta=1e-3 * max(wanted, 1e-6))


class Where(SimpleTestCase):
    """Stations, heights and faces by hand from the survey."""

    def bounds(self, bodies, *names):
        own = [b.mesh.bounds for b in bodies if all(n in b.name for n in names)]
        self.assertTrue(own, names)
        return np.min([b[0] for b in own], axis=0), np.max([b[1] for b in own], axis=0)

    def test_the_rails_stand_on_their_sides(self):
        inputs = f.with_operations(f.demo())
        bodies = bodies_of(inputs)
        rail = inputs.survey.rails.left
        for side, sign in (("left", -1), ("right", 1)):
            low, high = self.bounds(bodies, f"{side} rail")
            self.assertAlmostEqual(low[0], rail.start_mm, places=3)
            self.assertAlmostEqual(high[0], rail.end_mm, places=3)
            outer = max(abs(low[1]), abs(high[1]))
            self.assertAlmostEqual(outer, rail.web_y_mm, places=3)
            self.assertEqual(np.sign(low[1] + high[1]), sign)

    def test_a_channel_has_the_metal_of_its_section(self):
        inputs = f.with_operations(f.demo())
        bodies = [b for b in bodies_of(inputs) if b.name.startswith("left rail")]
        rail = inputs.survey.rails.left
        x = np.linspace(rail.start_mm, rail.end_mm, 4001)
        area = [h * t + 2 * (w - t) * t for _, h, w, t in (rail_at(rail, v) for v in x)]
        self.assertAlmostEqual(sum(b.mesh.volume for b in bodies) / np.trapezoid(area, x), 1.0, delta=0.02)

    def test_a_step_raises_the_rail_behind_it(self):
        bodies = bodies_of(alone("z-step", rise_mm=75.0))
        ahead, behind = (self.bounds(bodies, f"left rail, piece {n}") for n in (1, 2))
        self.assertAlmostEqual(behind[0][2] - ahead[0][2], 75.0, delta=1.0)

    def test_an_outer_plate_lies_on_the_web_s_outside(self):
        inputs = alone("plate")
        rail = inputs.survey.rails.left
        for side, sign in (("left", -1), ("right", 1)):
            low, high = self.bounds(bodies_of(inputs), "Outer plate", side)
            faces = sorted([sign * rail.web_y_mm, sign * (rail.web_y_mm + 5.0)])
            np.testing.assert_allclose([low[1], high[1]], faces, atol=1e-6)

    def test_a_boxing_plate_closes_the_open_side(self):
        inputs = alone("boxing")
        rail = inputs.survey.rails.right
        low, high = self.bounds(bodies_of(inputs), "Boxing plate", "right")
        wide = rail_at(rail, 1800.0)[2]
        self.assertTrue(low[1] >= rail.web_y_mm - wide - 6.0 and high[1] <= rail.web_y_mm - wide + 6.0)

    def test_tyres_stand_on_their_track(self):
        inputs = f.job().inputs("step")
        bodies = [b for b in bodies_of(inputs) if b.group == "suspension" and "tyre" in b.name]
        self.assertEqual(len(bodies), 4)
        middles = sorted(float(b.mesh.bounds.mean(axis=0)[1]) for b in bodies)
        self.assertAlmostEqual(middles[0], -middles[3], delta=1.0)


class NothingPlanned(SimpleTestCase):
    def test_a_design_without_work_still_leaves_as_files(self):
        made = whole_zip(f.with_operations(f.demo()), TitleBlock("job", "option", "0" * 64, "r1"), Choices())
        names = zipfile.ZipFile(io.BytesIO(made)).namelist()
        self.assertIn("model.glb", names)
        self.assertNotIn("patterns.pdf", names)


class Files(SimpleTestCase):
    def test_gltf_is_in_metres_with_a_node_for_every_body(self):
        bodies = bodies_of(f.demo())
        scene = read(model_glb(bodies), "glb")
        self.assertEqual(len(scene.geometry), len(bodies))
        own = [n for n in scene.graph.nodes_geometry if "Boxing plate, left" in n]
        self.assertEqual(len(own), 1)
        volume = sum(scene.geometry[scene.graph[n][1]].volume for n in scene.graph.nodes_geometry)
        self.assertAlmostEqual(volume * 1e9 / sum(b.mesh.volume for b in bodies), 1.0, delta=1e-4)

    def test_the_left_is_plus_x_and_the_front_plus_z(self):
        scene = read(model_glb(bodies_of(f.demo())), "glb")

        def middle(start):
            points = [
                scene.geometry[scene.graph[n][1]].vertices for n in scene.graph.nodes_geometry if n.startswith(start)
            ]
            return np.concatenate(points).mean(axis=0)

        self.assertGreater(middle("left rail")[0], 0.2)
        self.assertLess(middle("right rail")[0], -0.2)
        self.assertLess(middle("left rail")[2], 0.0)

    def test_stl_is_in_millimetres_and_closed(self):
        bodies = bodies_of(alone("plate"))
        mesh = read(model_stl(bodies), "stl")
        self.assertAlmostEqual(mesh.volume / sum(b.mesh.volume for b in bodies), 1.0, delta=1e-4)
        whole = np.concatenate([b.mesh.bounds for b in bodies])
        np.testing.assert_allclose(mesh.bounds, [whole.min(axis=0), whole.max(axis=0)], atol=1e-3)
