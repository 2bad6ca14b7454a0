"""Sign-in, roles, and the demo that opens on the loopback address only."""

import io

from django.core.cache import cache
from django.core.management import CommandError, call_command
from django.test import override_settings

from nodulant_server.models import LogEntry
from nodulant_server.roles import ALLOWED
from tests.server.base import Shop

CLOSED = (
    ("get", "/jobs"),
    ("post", "/jobs"),
    ("get", "/jobs/1"),
    ("get", "/jobs/1/export"),
    ("get", "/jobs/1/log"),
    ("post", "/jobs/import"),
    ("post", "/jobs/1/survey"),
    ("put", "/jobs/1/shop"),
    ("get", "/options/1"),
    ("put", "/options/1/draft"),
    ("post", "/options/1/revisions"),
    ("post", "/options/1/branch"),
    ("post", "/options/1/sign"),
    ("post", "/options/1/readings"),
    ("post", "/jobs/1/lengths"),
    ("post", "/jobs/1/levels"),
    ("post", "/built"),
    ("post", "/record"),
    ("post", "/after"),
    ("get", "/options/1/inspections.ics"),
    ("get", "/instruments"),
    ("get", "/practice"),
    ("post", "/practice"),
    ("post", "/practice/1/hint"),
    ("post", "/practice/1/accuse"),
    ("post", "/practice/1/give-up"),
    ("post", "/instruments/tape/read"),
    ("post", "/instruments/tape/zero"),
    ("get", "/options/1/report.pdf"),
    ("get", "/options/1/dossier.zip"),
    ("get", "/options/1/patterns.pdf"),
    ("get", "/options/1/assembly.pdf"),
    ("get", "/options/1/everything.zip"),
    ("get", "/options/1/steps.pdf"),
    ("get", "/options/1/heat.pdf"),
    ("get", "/options/1/plan.ics?at=2026-05-04T18:00"),
    ("post", "/schedule"),
    ("get", "/options/1/handout.pdf?step=paint"),
    ("get", "/options/1/floor"),
    ("get", "/options/1/labels.pdf"),
    ("post", "/options/1/floor"),
    ("get", "/options/1/heat/axle-notch"),
    ("get", "/options/1/built"),
    ("post", "/options/1/photos?step=teardown"),
    ("get", "/jobs/1/photos/" + "0" * 64),
    ("get", "/options/1/model.glb"),
    ("post", "/jobs/1/reasons"),
    ("post", "/jobs/1/withdraw"),
    ("post", "/evaluate"),
    ("post", "/patterns"),
    ("post", "/gauges"),
    ("post", "/cope"),
    ("get", "/options/1/cope.pdf"),
    ("post", "/supports"),
    ("post", "/supports/places"),
    ("post", "/supports/fresh"),
    ("post", "/lifts/fresh"),
    ("post", "/yard/order"),
    ("get", "/yard"),
    ("post", "/options/1/table"),
    ("post", "/stations"),
    ("post", "/find/sets"),
    ("post", "/find/nest"),
    ("post", "/options/1/nest.zip"),
    ("post", "/operations/fresh"),
    ("post", "/operations/part"),
    ("post", "/between"),
    ("get", "/options/1/sweep"),
    ("post", "/mounts"),
    ("post", "/rides"),
    ("post", "/remedies"),
    ("post", "/handcheck"),
    ("get", "/jobs/1/counts"),
    ("get", "/catalogue"),
    ("post", "/session/sign-out"),
)


class SignIn(Shop):
    """A neighbour on the shop's network must not change a frame's design."""

    def setUp(self):
        cache.clear()

    def test_every_route_but_the_session_needs_sign_in(self):
        for method, path in CLOSED:
            with self.subTest(path):
                response, _ = self.send(method, path, {} if method != "get" else None)
                self.refused(response, 401, "sign-in")

    def test_name_and_password(self):
        response, data = self.send("post", "/session/sign-in", {"name": "ada", "password": "ada-secret"})
        self.assertEqual((response.status_code, data["user"], data["role"]), (200, "ada", "owner"))
        self.assertEqual(self.send("get", "/jobs")[0].status_code, 200)
        self.send("post", "/session/sign-out", {})
        self.assertEqual(self.send("get", "/jobs")[0].status_code, 401)

    def test_wrong_password_is_slowed_after_eight_tries(self):
        wrong = {"name": "ada", "password": "guess"}
        for _ in range(7):
            self.refused(self.send("post", "/session/sign-in", wrong)[0], 401, "sign-in")
        self.refused(self.send("post", "/session/sign-in", wrong)[0], 429, "too-many-tries")
        right = {"name": "ada", "password": "ada-secret"}
        self.refused(self.send("post", "/session/sign-in", right)[0], 429, "too-many-tries")

    def test_without_the_demo_nobody_is_switched(self):
        self.refused(self.send("post", "/session/switch", {"name": "ada"})[0], 403, "forbidden")
        self.assertIsNone(self.send("get", "/session")[1]["user"])

    def test_a_browser_needs_the_csrf_token(self):
        strict = self.client_class(enforce_csrf_checks=True)
        strict.force_login(self.people["ada"])
        response = strict.post("/api/jobs", "{}", content_type="application/json")
        self.assertEqual(response.status_code, 403)


@override_settings(DEMO=True)
class Demo(Shop):
    def setUp(self):
        self.client.logout()

    def test_ada_is_signed_in_by_herself_on_loopback(self):
        data = self.send("get", "/session")[1]
        self.assertEqual((data["user"], data["demo"]), ("ada", True))
        self.assertEqual({p["name"] for p in data["people"]}, {"ada", "bram", "inspector"})

    def test_not_from_elsewhere(self):
        for extra in (
            {"REMOTE_ADDR": "192.168.1.20"},
            {"HTTP_X_FORWARDED_FOR": "127.0.0.1"},
            {"REMOTE_ADDR": "not an address"},
        ):
            with self.subTest(extra):
                fresh = self.client_class()
                data = fresh.get("/api/session", **extra).json()
                self.assertEqual((data["user"], data["demo"], data["people"]), (None, False, []))

    def test_one_can_become_the_helper_and_the_reader(self):
        self.send("get", "/session")
        for name, role in (("bram", "helper"), ("inspector", "reader"), ("ada", "owner")):
            self.assertEqual(self.send("post", "/session/switch", {"name": name})[1]["role"], role)
        self.refused(self.send("post", "/session/switch", {"name": "mallory"})[0], 403, "forbidden")

    def test_signing_out_stays_signed_out(self):
        self.send("get", "/session")
        self.send("post", "/session/sign-out", {})
        self.assertIsNone(self.send("get", "/session")[1]["user"])


class AddingPeople(Shop):
    """Without the demo a shop adds its own people."""

    def test_a_person_may_sign_in_with_the_role_given(self):
        call_command("add_person", "nell", "helper", password="longer-than-eight", stdout=io.StringIO())
        self.client.logout()
        data = self.send("post", "/session/sign-in", {"name": "nell", "password": "longer-than-eight"})[1]
        self.assertEqual(data["role"], "helper")

    def test_a_short_password_is_refused(self):
        with self.assertRaises(CommandError):
            call_command("add_person", "nell", "helper", password="short")


class Roles(Shop):
    """A helper signs and measures, a reader looks; neither moves a cut."""

    def job_number(self):
        return self.send("get", f"/jobs/{self.job.pk}")[1]["shop_number"]

    def acts(self):
        """One call of each kind and the act that it needs."""
        option, job, design = self.option.pk, self.job.pk, self.design()
        reading = {"operation": "axle-notch", "key": "depth", "side": "left", "value": 58.0}
        ends = [{"feature_id": "front-axle", "side": side} for side in ("left", "right")]
        length = {"start": ends[0], "end": ends[1], "value": 760.0}
        return (
            ("read", "get", f"/jobs/{job}", None),
            ("design", "put", f"/options/{option}/draft", {"base": 1, "design": design}),
            ("design", "post", f"/options/{option}/revisions", {"base": 1, "design": design}),
            ("design", "post", f"/options/{option}/branch", {"name": "again", "design": design}),
            ("design", "put", f"/jobs/{job}/shop", {"base": self.job_number(), "shop": {"name": "Shop"}}),
            ("log", "post", f"/options/{option}/readings", reading),
            ("log", "post", f"/options/{option}/sign", {"step": "teardown"}),
            ("log", "post", f"/jobs/{job}/lengths", length),
            ("decide", "post", f"/jobs/{job}/reasons", {"subject": "teardown", "reason": "because"}),
            ("import", "post", "/jobs", {"name": "new", "start": {"vehicle": "new"}}),
        )

    def test_each_role_may_what_it_may(self):
        for name, role in (("inspector", "reader"), ("bram", "helper"), ("ada", "owner")):
            self.become("ada")
            LogEntry.objects.all()._raw_delete("default")  # a step is signed once
            acts = self.acts()
            self.become(name)
            for act, method, path, body in acts:
                with self.subTest(f"{role} {path}"):
                    response, _ = self.send(method, path, body)
                    if act in ALLOWED[role]:
                        self.assertEqual(response.status_code, 200, response.content)
                    else:
                        self.refused(response, 403, "forbidden")

    def test_someone_in_no_shop_sees_nothing(self):
        self.people["bram"].memberships.all().delete()
        self.become("bram")
        self.assertIsNone(self.send("get", "/session")[1]["user"])
        self.refused(self.send("get", "/jobs")[0], 401, "sign-in")
