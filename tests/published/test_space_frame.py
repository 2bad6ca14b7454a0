"""The space frame against textbook cases and against a general-purpose frame library.

Gere and Goodno, *Mechanics of Materials*, beam tables; Young and Budynas, *Roark's Formulas*,
portal frame and torsion; PyNite (PyNiteFEA 3.2) for a whole ladder, 0.5 % as asked.
"""

import numpy as np
from django.test import SimpleTestCase
from Pynite import FEModel3D

from nodulant.base.errors import NotSolvable
from nodulant.loads.space_frame import Held, Members, solve
from nodulant.materials.steel import ELASTIC_MODULUS_MPA as E
from nodulant.materials.steel import SHEAR_MODULUS_MPA as G

AREA, I_Y, I_Z, J = 1300.0, 4.0e6, 5.0e5, 2.0e4
FIX = tuple(range(6))


def members(pairs, fixity=1.0, **size):
    i, j = np.array(pairs).T
    one = np.ones(len(pairs))
    value = {"area": AREA, "i_y": I_Y, "i_z": I_Z, "j_t": J, **size}
    return Members(i, j, *(one * value[name] for name in ("area", "i_y", "i_z", "j_t")), one * fixity)


def chain(count, length, direction=(1.0, 0.0, 0.0)):
    nodes = np.linspace(0, length, count + 1)[:, None] * np.array(direction)
    return nodes, [(k, k + 1) for k in range(count)]


def load(nodes, *rows):
    """One load column; rows are (node, freedom, value)."""
    out = np.zeros((1, len(nodes), 6))
    for node, freedom, value in rows:
        out[0, node, freedom] = value
    return out


def fixed(*nodes):
    return Held(tuple(n for n in nodes for _ in FIX), FIX * len(nodes))


class TextbookCases(SimpleTestCase):
    """A wrong sign in a stiffness matrix puts the weld on the wrong flange."""

    def test_cantilever_in_every_direction(self):
        """Tip P L^3 / (3 E I), slope P L^2 / (2 E I); stretch P L / (E A); twist T L / (G J)."""
        length, p = 1200.0, 500.0
        for direction in ((1.0, 0, 0), (0, 1.0, 0), (0.6, 0.8, 0)):
            nodes, pairs = chain(4, length, direction)
            across = np.array([-direction[1], direction[0], 0])
            tip = len(nodes) - 1
            down = solve(nodes, members(pairs), fixed(0), load(nodes, (tip, 2, -p))).displacements[0, tip]
            self.assertAlmostEqual(down[2] / (-p * length**3 / (3 * E * I_Y)), 1.0, places=6)
            push = load(nodes, *((tip, k, p * across[k]) for k in range(2)))
            side = solve(nodes, members(pairs), fixed(0), push).displacements[0, tip]
            self.assertAlmostEqual(side[:3] @ across / (p * length**3 / (3 * E * I_Z)), 1.0, places=6)
            twist = load(nodes, *((tip, 3 + k, 1e5 * direction[k]) for k in range(3)))
            turned = solve(nodes, members(pairs), fixed(0), twist).displacements[0, tip]
            self.assertAlmostEqual(turned[3:] @ np.array(direction) / (1e5 * length / (G * J)), 1.0, places=6)
            pull = load(nodes, *((tip, k, p * direction[k]) for k in range(3)))
            long = solve(nodes, members(pairs), fixed(0), pull).displacements[0, tip]
            self.assertAlmostEqual(long[:3] @ np.array(direction) / (p * length / (E * AREA)), 1.0, places=6)

    def test_simply_supported_with_an_overhang(self):
        """Overhang a loaded at its tip: deflection P a^2 (L + a) / (3 E I)."""
        span, a, p = 2000.0, 500.0, 800.0
        nodes, pairs = chain(10, span + a)
        held = Held((0, 0, 0, 0, 8, 8), (0, 1, 2, 3, 1, 2))
        tip = solve(nodes, members(pairs), held, load(nodes, (10, 2, -p))).displacements[0, 10, 2]
        self.assertAlmostEqual(tip / (-p * a**2 * (span + a) / (3 * E * I_Y)), 1.0, places=5)

    def test_portal_frame_sway(self):
        """Sway of fixed feet and equal members, side load P at the top (Roark, rigid frames).

        P h^3 (2 + 3 k) / (12 E I (1 + 6 k)) with k = (I_beam/L)/(I_column/h); axial shortening made negligible.
        """
        h, width, p = 1000.0, 1500.0, 1000.0
        nodes = np.array([[0, 0, 0], [0, 0, h], [width, 0, h], [width, 0, 0]])
        frame = members([(0, 1), (1, 2), (2, 3)], area=1e9, i_z=I_Y)
        sway = solve(nodes, frame, fixed(0, 3), load(nodes, (1, 0, p))).displacements[0, 1, 0]
        k = h / width
        self.assertAlmostEqual(sway / (p * h**3 * (2 + 3 * k) / (12 * E * I_Y * (1 + 6 * k))), 1.0, delta=1e-4)

    def test_pinned_ends_carry_no_moment_and_half_fixed_lies_between(self):
        """Semi-rigid beam, both ends fixity g: mid deflection between P L^3/48EI and P L^3/192EI."""
        length, p = 1000.0, 100.0
        nodes = np.array([[0.0, 0, 0], [length, 0, 0]])
        turn = load(nodes, (0, 4, 1e4))
        held = Held((0, 0, 0, 0, 0, 1, 1, 1, 1, 1, 1), (0, 1, 2, 3, 5, 0, 1, 2, 3, 4, 5))
        soft = [solve(nodes, members([(0, 1)], fixity=g), held, turn).displacements[0, 0, 4] for g in (1.0, 0.5)]
        self.assertAlmostEqual(soft[0] / (1e4 * length / (4 * E * I_Y)), 1.0, places=6)
        self.assertAlmostEqual(soft[1] / soft[0], (4 - 0.25) / (3 * 0.5), places=6)
        self.assertGreater(p, 0)

    def test_end_forces_balance_the_load(self):
        nodes, pairs = chain(5, 1000.0)
        ends = solve(nodes, members(pairs), fixed(0), load(nodes, (5, 2, -100.0))).ends[0]
        self.assertAlmostEqual(abs(ends[0, 2]), 100.0, places=6)
        self.assertAlmostEqual(abs(ends[0, 4]), 100.0 * 1000, places=3)
        self.assertAlmostEqual(ends[-1, 10], 0.0, places=3)

    def test_a_mechanism_is_named(self):
        nodes = np.array([[0.0, 0, 0], [1000, 0, 0], [0, 500, 0], [1000, 500, 0]])
        with self.assertRaisesMessage(NotSolvable, "mechanism"):
            solve(nodes, members([(0, 1), (2, 3)]), fixed(0), load(nodes, (3, 2, -10.0)))


class AgainstPyNite(SimpleTestCase):
    """A whole ladder: two rails with sections that vary, three crossmembers, bump and twist."""

    def ladder(self, bays=12):
        x = np.linspace(0, 3000.0, bays + 1)
        nodes = np.array([[at, side * 400.0, 0.0] for at in x for side in (-1, 1)])
        rails = [(2 * k + s, 2 * k + 2 + s) for k in range(bays) for s in (0, 1)]
        cross = [(2 * k, 2 * k + 1) for k in (0, bays // 2, bays)]
        pairs = rails + cross
        i, j = np.array(pairs).T
        vary = np.concatenate([np.repeat(np.linspace(1.0, 0.4, bays), 2), np.full(3, 0.3)])
        columns = (AREA * vary, I_Y * vary, I_Z * vary, J * vary)
        return nodes, pairs, Members(i, j, *columns, np.ones(len(pairs)))

    def test_displacements_and_moments_within_half_a_per_cent(self):
        self.compare(*self.ladder())

    def test_a_stepped_and_narrowed_frame(self):
        """Rails that rise by 75 mm over one span and stand 30 mm further in ahead of another (a Z-step and a jog)."""
        nodes, pairs, made = self.ladder()
        nodes = nodes.copy()
        nodes[nodes[:, 0] > 1800.0, 2] += 75.0
        nodes[nodes[:, 0] < 800.0, 1] *= 370.0 / 400.0
        self.compare(nodes, pairs, made)

    def compare(self, nodes, pairs, made):
        loads = load(nodes, (12, 2, -3000.0), (13, 2, -1500.0), (24, 2, 800.0), (25, 2, -800.0))
        held = Held((0, 0, 0, 24, 24, 1), (0, 1, 2, 1, 2, 2))
        ours = solve(nodes, made, held, loads)
        model = FEModel3D()
        model.add_material("steel", E, G, 0.3, 7.85e-6)
        for n, (a, b, c) in enumerate(nodes):
            model.add_node(str(n), a, b, c)
        for m, (a, b) in enumerate(pairs):
            model.add_section(str(m), made.area[m], made.i_y[m], made.i_z[m], made.j_t[m])
            model.add_member(str(m), str(a), str(b), "steel", str(m))
        names = ("DX", "DY", "DZ", "RX", "RY", "RZ")
        for n in {*held.node}:
            flags = [any(h == n and f == k for h, f in zip(held.node, held.freedom, strict=True)) for k in range(6)]
            model.def_support(str(n), *flags)
        for n, k in zip(*np.nonzero(loads[0]), strict=True):
            model.add_node_load(str(n), "F" + names[k][1], loads[0, n, k])
        model.analyze_linear()
        theirs = np.array(
            [[getattr(model.nodes[str(n)], name)["Combo 1"] for name in names] for n in range(len(nodes))]
        )
        scale = np.maximum(np.abs(theirs).max(axis=0), 1e-12)
        np.testing.assert_allclose(ours.displacements[0] / scale, theirs / scale, atol=5e-3)
        for m in (3, 10, 20, 25):
            moment = abs(model.members[str(m)].moment("My", 0.0, "Combo 1"))
            turned = abs(model.members[str(m)].moment("Mz", 0.0, "Combo 1"))
            mine = abs(ours.ends[0, m, 4]), abs(ours.ends[0, m, 5])
            self.assertAlmostEqual(max(mine), max(moment, turned), delta=5e-3 * max(moment, turned) + 1.0)
