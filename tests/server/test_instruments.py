"""Simulated instruments and their port: they settle, drift, want to be zeroed; silence and rubbish are named, and it is asked anew."""

import contextlib
import itertools
import json
import math
import random
import socketserver
import threading
import time
from unittest.mock import patch

import numpy as np
from django.test import SimpleTestCase, override_settings

from nodulant.asbuilt.axle import beam_as_built
from nodulant.asbuilt.instruments import INSTRUMENTS
from nodulant.asbuilt.network import Taped, adjust
from nodulant.evaluate import evaluate
from nodulant.evaluate.suspensions.travel import suspension_studies
from nodulant_server.api.instruments import HeldBody
from nodulant_server.instruments import port as ports
from nodulant_server.instruments.here import attached
from nodulant_server.instruments.port import InstrumentTrouble, LinePort
from nodulant_server.instruments.serve import Service, started
from nodulant_server.instruments.stand_in import Errors, Scenario, StandIn, scenario
from tests import fixtures as f
from tests.server.base import Shop

SCENARIO = f.ROOT / "demo" / "instruments.json"
KNOWN = {i.id: i for i in INSTRUMENTS}


def stand_in(kind="angle-finder", **errors):
    told = Scenario(seed=3, true={"a/b/left": 0.8}, instruments={kind: Errors(**{"noise": 0.0, **errors})})
    return StandIn(KNOWN[kind], told, random.Random(1))


def number(answer):
    return float(answer.split()[1])


class StandIns(SimpleTestCase):
    def test_it_comes_to_rest_at_plan_and_truth(self):
        own = stand_in(settles_s=0.5)
        own.answer("ZERO", 0.0)
        early = number(own.answer("READ a/b/left 4.5", 0.0))
        late = number(own.answer("READ a/b/left 4.5", 5.0))
        self.assertLess(abs(early), 0.5)
        self.assertAlmostEqual(late, 5.3, places=6)

    def test_a_finder_wants_to_be_zeroed_and_drifts_from_then_on(self):
        own = stand_in(drift_per_min=0.3)
        self.assertTrue(own.answer("READ a/b/left 0", 0.0).startswith("! zero"))
        own.answer("ZERO", 0.0)
        own.answer("READ a/b/left 0", 590.0)
        self.assertAlmostEqual(number(own.answer("READ a/b/left 0", 600.0)), 0.8 + 10 * 0.3, delta=0.06)
        self.assertAlmostEqual(number(own.answer("READ a/b/left 0", 1260.0)), 0.8 + 21 * 0.3, delta=0.06)
        own.answer("ZERO", 1260.0)
        self.assertAlmostEqual(number(own.answer("READ a/b/left 0", 1260.0)), 0.8, delta=0.06)

    def test_noise_is_what_the_scenario_says(self):
        told = Scenario(seed=3, instruments={"laser": Errors(noise=2.0, settles_s=1e-6)})
        own = StandIn(KNOWN["laser"], told, random.Random(1))
        own.answer("READ x 0", 0.0)
        rows = [number(own.answer("READ x 0", 10.0 + k)) for k in range(2000)]
        self.assertAlmostEqual(np.std(rows), math.hypot(2.0, 1 / math.sqrt(12)), delta=0.1)

    def test_a_level_reads_over_its_own_line_and_no_minus(self):
        told = Scenario(seed=1, true={"level/a/left": 3.0}, instruments={"laser": Errors(noise=0.0)})
        own = StandIn(KNOWN["laser"], told, random.Random(1))
        own.answer("READ level/a/left -75", 0.0)
        self.assertEqual(float(own.answer("READ level/a/left -75", 60.0).split()[1]), 500.0 - 75.0 + 3.0)

    def test_what_it_does_not_know_it_says(self):
        own = stand_in("laser")
        for line in ("", "HELLO", "READ", "READ a/b/left high"):
            self.assertTrue(own.answer(line, 0.0).startswith("! "), line)

    def test_two_people_read_the_same_metal(self):
        told = scenario(SCENARIO)
        one, other = (StandIn(KNOWN["laser"], told, random.Random(k)) for k in (1, 2))
        self.assertEqual(one.true_off("rear-truss/foot/left"), other.true_off("rear-truss/foot/left"))

    def test_the_demo_s_vehicle_goes_together(self):
        """Wheelbases and pinion of the scenario are what its link lengths make of the axle."""
        true = scenario(SCENARIO).true
        s = next(s for s in suspension_studies(f.demo("step")) if s.suspension.axle == "rear")
        rows = {
            (f"{name}-link", side, "length"): true[f"rear-links/{name}-length/{side}"]
            for name in ("upper", "lower")
            for side in ("left", "right")
        }
        sat = beam_as_built(s.suspension.layout, s.setting, rows)
        one, other = (true[f"vehicle/wheelbase/{side}"] for side in ("left", "right"))
        turned = math.degrees(math.atan2(other - one, 2 * s.setting.half_track_mm))
        self.assertAlmostEqual(turned, sat.thrust_deg, places=3)
        self.assertAlmostEqual((one + other) / 2, sat.rear_mm, places=3)
        self.assertAlmostEqual(true["rear-axle/pinion/right"], sat.pinion_deg, places=3)
        moved = scenario(SCENARIO).moved
        self.assertEqual((moved["hub-rear/left"], moved["hub-rear/right"]), ((one, 0.0), (other, 0.0)))

    def test_lengths_between_marks_are_one_vehicle_s(self):
        """Every length that the laser stand-in shows, fitted by least squares: the axle is turned as the links turn it."""
        told, inputs = scenario(SCENARIO), f.demo("step")
        marks = {m.id: m for m in evaluate(inputs).marks}
        own = StandIn(KNOWN["laser"], told, random.Random(1))
        plan = {i: (m.planned.x_mm, m.planned.y_mm) for i, m in marks.items()}
        taped = []
        for a, b in itertools.combinations(sorted(plan), 2):
            long = math.dist(plan[a], plan[b])
            if long < 300.0:
                continue
            held = HeldBody(
                at=a,
                to=b,
                planned=long,
                rearward=(plan[b][0] - plan[a][0]) / long,
                rightward=(plan[b][1] - plan[a][1]) / long,
            )
            taped.append(Taped(a, b, long + own.true_off(held.where), 0.5))
        network = adjust(plan, tuple(taped), frozenset(i for i in plan if i.startswith("hub")))
        self.assertEqual(network.suspects, ())
        self.assertLess(max(abs(fit.off_mm) for fit in network.lengths), 0.05)
        at = {p.id: p for p in network.points}
        turned = math.degrees(
            math.atan2(
                at["hub-rear/right"].x_mm - at["hub-rear/left"].x_mm,
                at["hub-rear/right"].y_mm - at["hub-rear/left"].y_mm,
            )
        )
        one, other = (told.moved[f"hub-rear/{side}"][0] for side in ("left", "right"))
        self.assertAlmostEqual(turned, math.degrees(math.atan2(other - one, 2 * plan["hub-rear/right"][1])), delta=0.02)


class _Broken(socketserver.StreamRequestHandler):
    def handle(self):
        for _ in self.rfile:
            self.server.asked += 1
            said = self.server.said.pop(0) if self.server.said else self.server.always
            if said is None:
                return
            with contextlib.suppress(OSError):
                self.wfile.write(said)


class _Server(socketserver.ThreadingTCPServer):
    daemon_threads = True

    def __init__(self, *said, always=b"= 1.0 mm\n"):
        super().__init__(("127.0.0.1", 0), _Broken)
        self.said, self.always, self.asked = list(said), always, 0
        threading.Thread(target=self.serve_forever, daemon=True).start()


class Port(SimpleTestCase):
    def setUp(self):
        quick = patch.object(ports, "SILENT_S", 0.2)
        quick.start()
        self.addCleanup(quick.stop)

    def port(self, server):
        self.addCleanup(server.server_close)
        self.addCleanup(server.shutdown)
        return LinePort("laser tape", f"socket://127.0.0.1:{server.server_address[1]}", "mm", 1.0)

    def test_the_middle_of_five_and_whether_it_rests(self):
        said = [f"= {v} mm\n".encode() for v in (10.0, 10.5, 40.0, 10.2, 10.4)]
        found = self.port(_Server(*said)).read("x 10")
        self.assertEqual((found.value, found.settled), (10.4, False))
        self.assertTrue(self.port(_Server()).read("x 10").settled)

    def test_a_line_that_is_cut_is_opened_anew(self):
        server = _Server(None)
        self.assertEqual(self.port(server).read("x 10").value, 1.0)

    def test_silence_and_rubbish_are_named(self):
        for always, words in (
            (b"", "does not answer"), (b"hello\n", "no reading"), (b"= nan mm\n", "no reading"), (b"= 4 kg\n", "no reading"),
            (b"= \xff\xfe mm\n", "no reading"), (b"! flat battery\n", "flat battery"), (b"= 1e9 mm\n", "no reading"),
            (b"x" * 500, "no reading"),
        ):  # fmt: skip
            with self.subTest(always[:20]), self.assertRaisesRegex(InstrumentTrouble, words):
                self.port(_Server(always=always)).read("x 10")

    def test_one_that_is_not_there_and_comes_back(self):
        server = _Server()
        port = self.port(server)
        port.read("x 1")
        address = server.server_address
        server.shutdown()
        server.server_close()
        port._shut()
        with self.assertRaisesRegex(InstrumentTrouble, "cannot be reached"):
            port.read("x 1")
        again = Service(stand_in("laser", settles_s=1e-6), address[1])
        threading.Thread(target=again.serve_forever, daemon=True).start()
        self.addCleanup(again.server_close)
        self.addCleanup(again.shutdown)
        self.assertEqual(port.read("a/b/left 10").value, 11.0)


class OverTheApi(Shop):
    def setUp(self):
        super().setUp()
        services = started(scenario(SCENARIO))
        told = " ".join(f"{name}={s.url}" for name, s in services.items())
        attached.cache_clear()
        mine = override_settings(INSTRUMENTS=told)
        mine.enable()
        self.addCleanup(attached.cache_clear)
        self.addCleanup(mine.disable)
        for service in services.values():
            self.addCleanup(service.server_close)
            self.addCleanup(service.shutdown)

    def test_zero_first_then_it_reads(self):
        held = {"at": "rear-axle/pinion/right", "planned": 4.5}
        names = {row["id"] for row in self.send("get", "/instruments")[1]}
        self.assertEqual(names, set(json.loads(SCENARIO.read_text())["instruments"]))
        response, data = self.send("post", "/instruments/angle-finder/read", held)
        self.assertEqual(response.status_code, 422)
        self.assertIn("zero it on the rail first", data["problems"][0]["message"])
        self.assertEqual(self.send("post", "/instruments/angle-finder/zero", {})[0].status_code, 200)
        response, data = self.send("post", "/instruments/angle-finder/read", held)
        self.assertEqual((response.status_code, data["unit"]), (200, "deg"))

    def test_a_length_between_two_marks(self):
        held = {"at": "cab-mount/left", "to": "hub-rear/left", "planned": 2000.0, "rearward": 1.0, "rightward": 0.0}
        self.send("post", "/instruments/laser/read", held)
        time.sleep(5.0)  # it comes to rest
        response, data = self.send("post", "/instruments/laser/read", held)
        self.assertEqual((response.status_code, data["unit"]), (200, "mm"))
        self.assertAlmostEqual(data["value"], 2003.7, delta=2.5)
        self.assertEqual(self.send("post", "/instruments/laser/read", {**held, "to": "x y"})[0].status_code, 422)
        self.assertEqual(self.send("post", "/instruments/laser/read", {**held, "rearward": 2.0})[0].status_code, 422)

    def test_one_that_is_not_there(self):
        held = {"at": "rear-axle/pinion/right", "planned": 4.5}
        self.assertEqual(self.send("post", "/instruments/tape/read", held)[0].status_code, 404)
        self.assertEqual(self.send("post", "/instruments/laser/read", {**held, "at": "x\ny"})[0].status_code, 422)

    def test_a_reader_asks_no_instrument(self):
        self.become("inspector")
        held = {"at": "rear-axle/pinion/right", "planned": 4.5}
        self.assertEqual(self.send("post", "/instruments/laser/read", held)[0].status_code, 403)
