"""Sections against a general-purpose FE section library (sectionproperties 3.10, Saint-Venant warping by FE).

The reference polygons are drawn here by hand with shapely, so a wrong assembly of plates
shows as well as a wrong integral. Tolerances are the issue's: 1 %, and 5 % for the torsion
constant of open parts, where thin-wall theory leaves out the corners.
"""

from functools import lru_cache

from django.test import SimpleTestCase
from sectionproperties.analysis import Section
from sectionproperties.pre import CompoundGeometry, Geometry
from shapely import box, unary_union

from nodulant.frame.model import STOCK, planned_state, sections
from nodulant.sections.channel import shear_centre_offset_mm
from tests import fixtures as f

H, B, T = 150.0, 60.0, 5.0
CUT = 60.0


def channel(h=H, b=B, t=T, radius=0.0):
    """Channel with its web at y = 0; rounded outside by radius + t, inside by radius."""
    sharp = box(0, 0, b, h) - box(t, t, b + 1, h - t)
    if not radius:
        return sharp
    outer = box(0, 0, 3 * b, h).buffer(-(radius + t)).buffer(radius + t, quad_segs=64)
    inner = box(t, t, 3 * b, h - t).buffer(-radius).buffer(radius, quad_segs=64)
    return (outer - inner) & box(0, 0, b, h)


@lru_cache(maxsize=32)
def reference(polygon, mesh=3.0):
    """FE section of a shapely polygon."""
    geometry = Geometry(polygon)
    geometry.create_mesh(mesh_sizes=[mesh])
    section = Section(geometry)
    section.calculate_geometric_properties()
    section.calculate_warping_properties()
    return section


def ours(rail, operations=(), x=1500.0):
    """Our section of the left rail at a station, everything welded on."""
    survey = f.survey_of(rail)
    state = planned_state(operations) if operations else STOCK
    return sections(survey, operations, "left", f.stations_at(x), state)


class AgainstFiniteElements(SimpleTestCase):
    """A wrong section would let a weak rail pass, or send a good one to the scrap heap."""

    def compare(self, polygon, section, torsion=0.01, mesh=3.0):
        fe = reference(polygon, mesh)
        p = section.properties
        i_y, i_z, i_yz = (fe.get_ic()[k] for k in (0, 1, 2))
        top, bottom = fe.get_z()[0], fe.get_z()[1]
        pairs = {
            "A": (p.area[0], fe.get_area()),
            "I across": (p.i_y[0], i_y),
            "I upright": (p.i_z[0], i_z),
            "S top": (p.s_top[0], top),
            "S bottom": (p.s_bottom[0], bottom),
        }
        for name, (mine, theirs) in pairs.items():
            with self.subTest(name):
                self.assertAlmostEqual(mine / theirs, 1.0, delta=0.01)
        with self.subTest("product of inertia"):
            self.assertAlmostEqual(p.i_yz[0], i_yz, delta=0.01 * i_y)
        with self.subTest("J"):
            self.assertAlmostEqual(section.torsion.j[0] / fe.get_j(), 1.0, delta=torsion)

    def test_plain_channel(self):
        self.compare(channel(), ours(f.straight_rail()), torsion=0.05, mesh=2.0)

    def test_channel_with_corner_radii(self):
        self.compare(channel(radius=6.0), ours(f.straight_rail(radius=6.0)), torsion=0.05, mesh=2.0)

    def test_boxed_flush(self):
        rail = f.straight_rail(152.4, 57.15, 4.763)
        polygon = unary_union([channel(152.4, 57.15, 4.763), box(57.15 - 4.763, 0, 57.15, 152.4)])
        self.compare(polygon, ours(rail, (f.boxing("flush", 4.763),)))

    def test_boxed_over_the_lips(self):
        polygon = unary_union([channel(), box(B, 0, B + 4, H)])
        self.compare(polygon, ours(f.straight_rail(), (f.boxing("over-lips", 4.0),)))

    def test_boxed_inside_the_lips(self):
        polygon = unary_union([channel(), box(B - 4 - 5, T, B - 4, H - T)])
        self.compare(polygon, ours(f.straight_rail(), (f.boxing("inside", 5.0),)))

    def test_cut_open_and_bare(self):
        polygon = unary_union([channel(), box(B, 0, B + 5, H)]) - box(-1, -1, 100, CUT)
        section = ours(f.straight_rail(), (f.boxing("over-lips"), f.straight_notch(CUT)))
        self.compare(polygon, section, torsion=0.05, mesh=2.0)

    def boxed_and_lined(self):
        lined = box(0, CUT - 6, B + 5, CUT)
        return unary_union([unary_union([channel(), box(B, 0, B + 5, H)]) - box(-1, -1, 100, CUT), lined])

    def test_cut_with_a_straight_liner(self):
        operations = (f.boxing("over-lips"), f.straight_notch(CUT, liner=f.liner(6.0)))
        self.compare(self.boxed_and_lined(), ours(f.straight_rail(), operations), torsion=0.02)

    def test_liner_and_side_plates(self):
        plates = {"outer_plate": f.side_plate(6.0), "inner_plate": f.side_plate(4.0)}
        operations = (f.boxing("over-lips"), f.straight_notch(CUT, liner=f.liner(6.0), **plates))
        polygon = unary_union([self.boxed_and_lined(), box(-6, CUT, 0, H), box(B + 5, CUT, B + 9, H)])
        self.compare(polygon, ours(f.straight_rail(), operations), torsion=0.03)

    def test_liner_and_cap(self):
        operations = (f.boxing("over-lips"), f.straight_notch(CUT, liner=f.liner(6.0), cap=f.cap(4.0, 50.0)))
        hat = box(0, H, B, H + 50) - box(4, H - 1, B - 4, H + 46)
        polygon = unary_union([self.boxed_and_lined(), hat])
        self.compare(polygon, ours(f.straight_rail(), operations), torsion=0.03)

    def test_shear_centre_of_the_channel(self):
        fe = reference(channel(h=152.4, b=57.15, t=4.763), 2.0)
        x_shear = fe.get_sc()[0]
        mine = 4.763 / 2 - shear_centre_offset_mm(152.4, 57.15, 4.763)
        # thin-wall theory against a solid section: half a millimetre of about fourteen
        self.assertAlmostEqual(mine, x_shear, delta=0.5)


class WebHole(SimpleTestCase):
    """A hole in the web weakens bending and shear where it is, and nowhere else."""

    def test_hole_taken_out_of_the_web(self):
        hole = {"id": "hole", "name": "hole", "kind": "hole", "x_mm": 1500.0, "height_mm": 110.0, "diameter_mm": 30.0}
        survey = f.survey_of(f.straight_rail())
        survey = type(survey).model_validate(
            {**survey.model_dump(), "features": [*survey.model_dump()["features"], hole]}
        )
        section = sections(survey, (), "left", f.stations_at(1500.0, 1400.0), STOCK)
        geometry = CompoundGeometry(channel() - box(-1, 95, T, 125))
        geometry.create_mesh(mesh_sizes=[10.0])
        fe = Section(geometry)
        fe.calculate_geometric_properties()
        self.assertAlmostEqual(section.properties.area[0] / fe.get_area(), 1.0, delta=0.01)
        self.assertAlmostEqual(section.properties.i_y[0] / fe.get_ic()[0], 1.0, delta=0.01)
        self.assertAlmostEqual(section.shear_area[0], T * (H - 30.0), places=6)
        self.assertAlmostEqual(section.shear_area[1], T * H, places=6)
