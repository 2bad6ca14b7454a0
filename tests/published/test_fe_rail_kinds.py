"""Rail kinds against the FE section library: a wrong section kind would make every verdict on that rail wrong.

Polygons are drawn by hand with shapely. 1 % everywhere, 5 % for J of open sections, as in the
checks of the plain channel.
"""

from django.test import SimpleTestCase
from shapely import Point, box, unary_union

from nodulant.survey.rail import Rail, Station
from tests import fixtures as f
from tests.published import test_fe_sections as plain
from tests.published.test_fe_sections import ours

H, B, T = 120.0, 70.0, 4.0


def rail(kind, h=H, b=B, t=T, **more):
    rows = tuple(Station(x_mm=x, underside_z_mm=0, height_mm=h, width_mm=b, wall_mm=t) for x in (0.0, 3000.0))
    return Rail(kind=kind, stations=rows, steel_id="mild", **more)


def tube(h=H, b=B, t=T, inside=0.0):
    if not inside:
        return box(0, 0, b, h) - box(t, t, b - t, h - t)
    outer = box(0, 0, b, h).buffer(-(inside + t)).buffer(inside + t, quad_segs=64)
    return outer - box(t, t, b - t, h - t).buffer(-inside).buffer(inside, quad_segs=64)


class RailKinds(SimpleTestCase):
    """Each kind of rail, whole and cut."""

    def same(self, polygon, section, torsion=0.01, mesh=3.0):
        plain.AgainstFiniteElements.compare(self, polygon, section, torsion, mesh)

    def test_rectangular_tube(self):
        self.same(tube(), ours(rail("rect-tube")))

    def test_rectangular_tube_with_corner_radii(self):
        self.same(tube(inside=6.0), ours(rail("rect-tube", inside_radius_mm=6.0)), mesh=2.0)

    def test_rectangular_tube_cut_open(self):
        cut = tube() - box(-1, -1, 100, 40)
        section = ours(rail("rect-tube"), (f.straight_notch(40.0),))
        self.same(cut, section, torsion=0.05, mesh=1.5)

    def test_rectangular_tube_cut_and_lined_counts_its_liner(self):
        lined = unary_union([tube() - box(-1, -1, 100, 40), box(0, 36, B, 40)])
        section = ours(rail("rect-tube"), (f.straight_notch(40.0, liner=f.liner(4.0)),))
        self.same(lined, section, torsion=0.02)

    def test_round_tube(self):
        ring = Point(45, 45).buffer(45, quad_segs=64) - Point(45, 45).buffer(41, quad_segs=64)
        self.same(ring, ours(rail("round-tube", h=90.0, b=90.0)), mesh=2.0)

    def test_two_skins(self):
        channel = box(0, 0, B, H) - box(T, T, B + 1, H - T)
        self.same(unary_union([channel, box(B, 0, B + 2.5, H)]), ours(rail("two-skin", second_wall_mm=2.5)), mesh=2.0)

    def test_lips_turned_in(self):
        lipped = box(0, 0, B, H) - box(T, T, B - T, H - T) - box(B - T - 1, 20, B + 1, H - 20)
        self.same(lipped, ours(rail("lipped-channel", lip_mm=20.0)), torsion=0.05, mesh=1.5)

    def test_lips_turned_out(self):
        channel = box(0, 0, B, H) - box(T, T, B + 1, H - T)
        lips = [box(B - T, T - 20, B, 0), box(B - T, H, B, H + 20 - T)]
        section = ours(rail("lipped-channel", lip_mm=20.0, lips="outward"))
        self.same(unary_union([channel, *lips]), section, torsion=0.05, mesh=1.5)

    def hat(self):
        return unary_union(
            [box(0, 0, B, T), box(0, 0, T, H), box(B - T, 0, B, H), box(-20, H - T, 0, H), box(B, H - T, B + 20, H)]
        )

    def test_top_hat_open(self):
        self.same(self.hat(), ours(rail("top-hat", lip_mm=20.0)), torsion=0.05, mesh=1.5)

    def test_top_hat_under_a_floor(self):
        floor = box(-20, H, B + 20, H + 1.5)
        section = ours(rail("top-hat", lip_mm=20.0, second_wall_mm=1.5))
        # the floor beyond the hat's walls adds to I but not to the cell
        self.same(unary_union([self.hat(), floor]), section, torsion=0.02, mesh=1.5)


class NotchFromAbove(SimpleTestCase):
    """A cut from above is a cut from below turned over."""

    def test_mirror_image(self):
        plates = {"liner": f.liner(6.0), "outer_plate": f.side_plate(6.0), "cap": f.cap(4.0, 50.0)}
        below = ours(f.straight_rail(), (f.boxing(), f.straight_notch(60.0, **plates)))
        above = ours(f.straight_rail(), (f.boxing(), f.straight_notch(60.0, from_="above", **plates)))
        self.assertAlmostEqual(below.properties.s_top[0], above.properties.s_bottom[0], places=3)
        self.assertAlmostEqual(below.properties.s_bottom[0], above.properties.s_top[0], places=3)
        self.assertAlmostEqual(below.torsion.j[0] / above.torsion.j[0], 1.0, delta=1e-9)
        self.assertAlmostEqual(below.shear_area[0], above.shear_area[0], places=6)


class Rust(SimpleTestCase):
    """Stock is what the maker built: a rusty rail is weaker than that until it is repaired."""

    def test_the_lost_wall_shows_everywhere_but_in_stock(self):
        rows = tuple(
            Station(x_mm=x, underside_z_mm=0, height_mm=H, width_mm=B, wall_mm=4.0, rust_loss_mm=1.0)
            for x in (0.0, 3000.0)
        )
        rusty = Rail(stations=rows, steel_id="mild")
        stock = ours(rusty)
        planned = ours(rusty, (f.boxing(half=100.0),), x=200.0)
        self.assertAlmostEqual(stock.shear_area[0], 4.0 * H, places=9)
        self.assertAlmostEqual(planned.shear_area[0], 3.0 * H, places=9)
