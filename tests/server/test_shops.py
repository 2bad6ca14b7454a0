"""Shops apart from each other, people who come and go, links that hold for a while, and who did what."""

import re
from datetime import timedelta

from django.contrib.auth.models import User
from django.test import Client
from django.utils import timezone

from nodulant_server.actions.transfer import import_job
from nodulant_server.api.root import api
from nodulant_server.models import AuditEntry, ImmutableError, Invitation, Member, ReaderLink, SignedIn, Workshop
from nodulant_server.roles import acting_as
from tests import fixtures as f
from tests.server.base import Shop

WORD = "a-word-nobody-guesses"


class TwoShops(Shop):
    """What one shop has does not exist for another."""

    @classmethod
    def setUpTestData(cls):
        super().setUpTestData()
        other = Workshop.objects.create(name="Across the road")
        cls.stranger = User.objects.create_user("nell", password=WORD)
        Member.objects.create(workshop=other, user=cls.stranger, role="owner")

    def test_no_route_tells_another_shop_of_a_job(self):
        """Every route of the API that names a job or an option in its path, asked with bodies that would do."""
        design = self.design()
        body = {
            "base": 1, "design": design, "survey": None, "name": "x", "vehicle": "x", "reason": "because",
            "subject": "s", "entry": 1, "step": "teardown", "shop": {"name": "x"}, "label": "x", "days": 3,
            "operation": "axle-notch", "key": "depth", "side": "left", "value": 58.0,
            "act": {"kind": "note", "step": "teardown", "text": "x"},
            "plan": {"sheets": [], "left_out": [], "kerf_mm": 2, "margin_mm": 6, "pieces": 0, "area_mm2": 0, "used_mm2": 0},
            "start": {"feature_id": "front-axle", "side": "left"}, "end": {"feature_id": "front-axle", "side": "right"},
            "fault": "free-radius",
            "point": {"feature_id": "front-axle", "side": "left"},
        }  # fmt: skip
        body["survey"] = self.send("get", f"/jobs/{self.job.pk}")[1]["survey"]
        self.client.force_login(self.stranger)
        schema, asked = api.get_openapi_schema(), 0
        ids = {"job_id": self.job.pk, "option_id": self.option.pk, "number": 1, "draft_id": 1, "kind": "pdf"}
        for path, methods in schema["paths"].items():
            if "{job_id}" not in path and "{option_id}" not in path:
                continue
            url = re.sub(r"\{(\w+)\}", lambda m: str(ids.get(m.group(1), "checks")), path.removeprefix("/api"))
            url += "?name=x" if path.endswith("/attachments") else ""
            url += "?step=teardown" if path.endswith("/photos") else ""
            url += "?step=paint" if path.endswith("/handout.pdf") else ""
            url += "?at=2026-05-04T18:00" if path.endswith("/plan.ics") else ""
            url += "?branch_mm=38&wall_mm=3&main_mm=44" if "cope." in path else ""
            url = url.replace("model.pdf", "model.glb")
            for method, told in methods.items():
                with self.subTest(f"{method} {path}"):
                    sent = told.get("requestBody", {}).get("content", {}).get("application/json", {}).get("schema")
                    known = (
                        schema["components"]["schemas"][sent["$ref"].rsplit("/", 1)[1]]["properties"] if sent else {}
                    )
                    own = {k: v for k, v in body.items() if k in known}
                    response, _ = self.send(method, url, None if method in {"get", "delete"} else own)
                    self.assertEqual(response.status_code, 404, response.content[:300])
                    asked += 1
        self.assertGreater(asked, 25)

    def test_nor_a_route_that_names_it_in_its_body(self):
        draft = {"job_id": self.job.pk, "design": self.design()}
        self.client.force_login(self.stranger)
        for path, more in (
            ("/evaluate", {}), ("/first-answer", {}), ("/patterns", {}), ("/gauges", {}), ("/yard/order", {}), ("/handcheck", {}), ("/sweep", {}),
            ("/solids", {}), ("/mounts", {}), ("/find/sets", {"operation_id": "axle-notch"}),
            ("/remedies", {"key": "x"}), ("/find/nest", {}), ("/operations/fresh", {"kind": "notch"}), ("/schedule", {"at": "2026-05-04T18:00"}), ("/built", {}), ("/record", {}), ("/after", {}),
        ):  # fmt: skip
            with self.subTest(path):
                self.assertEqual(self.send("post", path, {**draft, **more})[0].status_code, 404)
        compared = {"job_id": self.job.pk, "option_ids": [self.option.pk, self.option.pk + 1]}
        self.assertEqual(self.send("post", "/compare", compared)[0].status_code, 404)

    def test_each_lists_its_own(self):
        own = import_job(acting_as(self.stranger), f.job("ostrand"))
        self.client.force_login(self.stranger)
        self.assertEqual([j["id"] for j in self.send("get", "/jobs")[1]], [own.pk])
        self.assertEqual({m["name"] for m in self.send("get", "/people")[1]["members"]}, {"nell"})
        self.assertEqual({r["by"] for r in self.send("get", "/audit")[1]}, {"nell"})
        self.become("ada")
        self.assertEqual([j["id"] for j in self.send("get", "/jobs")[1]], [self.job.pk])

    def test_somebody_in_both_goes_from_one_to_the_other(self):
        Member.objects.create(workshop=self.workshop, user=self.stranger, role="reader")
        self.client.force_login(self.stranger)
        data = self.send("get", "/session")[1]
        self.assertEqual((data["shop"], data["role"], len(data["shops"])), ("Across the road", "owner", 2))
        data = self.send("post", f"/session/shop/{self.workshop.pk}", {})[1]
        self.assertEqual((data["shop"], data["role"]), ("Test shop", "reader"))
        self.assertEqual(self.send("get", f"/jobs/{self.job.pk}")[0].status_code, 200)
        self.assertEqual(self.send("post", "/session/shop/99999", {})[0].status_code, 404)


class Joining(Shop):
    def invited(self, role="helper"):
        return self.send("post", "/people/invite", {"role": role})[1]["path"].removeprefix("/join/")

    def test_one_person_joins_by_a_link_once(self):
        token = self.invited()
        self.client.logout()
        self.assertEqual(self.send("get", f"/join/{token}")[1], {"shop": "Test shop", "role": "helper"})
        data = self.send("post", f"/join/{token}", {"name": "nell", "password": WORD})[1]
        self.assertEqual((data["user"], data["role"]), ("nell", "helper"))
        self.assertEqual(self.send("get", f"/jobs/{self.job.pk}")[0].status_code, 200)
        again = {"name": "mallory", "password": WORD}
        self.refused(self.send("post", f"/join/{token}", again)[0], 422, "input")

    def test_what_is_stored_does_not_open_it(self):
        token = self.invited()
        self.assertNotIn(token, str(Invitation.objects.values_list()))

    def test_weak_passwords_and_taken_names_are_refused_and_the_link_still_holds(self):
        token = self.invited()
        self.client.logout()
        for name, password, pointer in (
            ("nell", "short", "/password"), ("nell", "12345678901", "/password"), ("nell-of-it", "nell-of-it", "/password"),
            ("ADA", WORD, "/name"), ("  ", WORD, "/name"), ("nell", "", "/password"),
        ):  # fmt: skip
            with self.subTest(name=name, password=password):
                response = self.send("post", f"/join/{token}", {"name": name, "password": password})[0]
                self.assertEqual(self.refused(response, 422, "input")["problems"][0]["pointer"], pointer)
        self.assertEqual(self.send("post", f"/join/{token}", {"name": "nell", "password": WORD})[0].status_code, 200)

    def test_taken_back_or_too_old_it_does_not_hold(self):
        taken, old = self.invited(), self.invited()
        waiting = self.send("get", "/people")[1]["invitations"]
        self.send("delete", f"/people/invitations/{waiting[1]['id']}")
        Invitation.objects.filter(pk=waiting[0]["id"]).update(expires_at=timezone.now() - timedelta(seconds=1))
        self.client.logout()
        for token in (taken, old, "no-such-token"):
            self.refused(self.send("get", f"/join/{token}")[0], 404, "not-found")

    def test_only_owners_invite(self):
        for name in ("bram", "inspector"):
            self.become(name)
            self.refused(self.send("post", "/people/invite", {"role": "owner"})[0], 403, "forbidden")
            self.assertEqual(self.send("get", "/people")[1]["invitations"], [])
            self.refused(self.send("get", "/audit")[0], 403, "forbidden")


class ComingAndGoing(Shop):
    def member(self, name):
        return Member.objects.get(workshop=self.workshop, user__username=name).pk

    def test_a_role_is_changed_at_once(self):
        self.send("patch", f"/people/{self.member('bram')}", {"role": "reader"})
        self.become("bram")
        self.assertEqual(self.send("get", "/session")[1]["role"], "reader")

    def test_who_is_shut_out_is_out_at_once_and_may_come_back(self):
        bram = Client()
        bram.post("/api/session/sign-in", {"name": "bram", "password": "bram-secret"}, content_type="application/json")
        self.assertEqual(bram.get("/api/jobs").status_code, 200)
        self.send("patch", f"/people/{self.member('bram')}", {"disabled": True})
        self.assertEqual(bram.get("/api/jobs").status_code, 401)
        self.assertFalse(SignedIn.objects.filter(user__username="bram").exists())
        again = {"name": "bram", "password": "bram-secret"}
        answer = bram.post("/api/session/sign-in", again, content_type="application/json")
        self.assertIn("in no shop", answer.json()["title"])
        self.send("patch", f"/people/{self.member('bram')}", {"disabled": False})
        self.assertEqual(
            bram.post("/api/session/sign-in", again, content_type="application/json").json()["role"], "helper"
        )

    def test_the_last_owner_stays(self):
        for change in ({"role": "helper"}, {"disabled": True}):
            response = self.send("patch", f"/people/{self.member('ada')}", change)[0]
            self.assertIn("at least one owner", self.refused(response, 422, "input")["title"])

    def test_a_helper_changes_nobody(self):
        self.become("bram")
        for change in ({"role": "owner"}, {"disabled": True}):
            self.refused(self.send("patch", f"/people/{self.member('ada')}", change)[0], 403, "forbidden")

    def test_a_new_password_by_link_ends_the_old_sessions(self):
        bram = Client()
        bram.post("/api/session/sign-in", {"name": "bram", "password": "bram-secret"}, content_type="application/json")
        token = self.send("post", f"/people/{self.member('bram')}/password", {})[1]["path"].removeprefix("/password/")
        fresh = Client()
        answer = fresh.post(f"/api/password/{token}", {"password": WORD}, content_type="application/json")
        self.assertEqual(answer.json()["user"], "bram")
        self.assertEqual(bram.get("/api/jobs").status_code, 401)
        again = fresh.post(f"/api/password/{token}", {"password": f"{WORD}2"}, content_type="application/json")
        self.assertEqual(again.status_code, 422)

    def test_one_s_own_password(self):
        self.client.post(
            "/api/session/sign-in", {"name": "ada", "password": "ada-secret"}, content_type="application/json"
        )
        elsewhere = Client()
        elsewhere.post(
            "/api/session/sign-in", {"name": "ada", "password": "ada-secret"}, content_type="application/json"
        )
        self.refused(self.send("post", "/session/password", {"old": "guess", "new": WORD})[0], 401, "sign-in")
        self.refused(self.send("post", "/session/password", {"old": "ada-secret", "new": "ada"})[0], 422, "input")
        self.assertEqual(self.send("post", "/session/password", {"old": "ada-secret", "new": WORD})[0].status_code, 200)
        self.assertEqual(self.send("get", "/jobs")[0].status_code, 200)
        self.assertEqual(elsewhere.get("/api/jobs").status_code, 401)

    def test_sessions_are_listed_and_ended(self):
        for agent in ("tablet", "laptop"):
            browser = Client(HTTP_USER_AGENT=agent)
            browser.post(
                "/api/session/sign-in", {"name": "ada", "password": "ada-secret"}, content_type="application/json"
            )
        rows = browser.get("/api/session/places").json()
        self.assertEqual([(r["agent"], r["here"]) for r in rows], [("laptop", True), ("tablet", False)])
        browser.delete(f"/api/session/places/{rows[1]['id']}")
        self.assertEqual(len(browser.get("/api/session/places").json()), 1)
        self.become("bram")  # nobody ends another person's
        self.send("delete", f"/session/places/{rows[0]['id']}")
        self.assertEqual(browser.get("/api/jobs").status_code, 200)


class Locked(Shop):
    """A stranger's guesses lock strangers out."""

    def tries(self, browser, count, name="ada", password="guess"):
        body = {"name": name, "password": password}
        return [
            browser.post("/api/session/sign-in", body, content_type="application/json").status_code
            for _ in range(count)
        ]

    def test_the_owner_gets_in_where_they_were_before(self):
        own, stranger = Client(), Client()
        self.assertEqual(self.tries(own, 1, password="ada-secret"), [200])
        own.post("/api/session/sign-out", {}, content_type="application/json")
        self.assertEqual(self.tries(stranger, 9)[-1], 429)
        self.assertEqual(self.tries(stranger, 1, password="ada-secret"), [429])
        self.assertEqual(self.tries(own, 1, password="ada-secret"), [200])

    def test_a_known_browser_is_no_way_round(self):
        own = Client()
        self.tries(own, 1, password="ada-secret")
        self.assertEqual(self.tries(own, 9)[-1], 429)

    def test_from_another_address_nothing_is_locked(self):
        self.tries(Client(REMOTE_ADDR="10.0.0.66"), 9)
        self.assertEqual(self.tries(Client(REMOTE_ADDR="10.0.0.5"), 1, password="ada-secret"), [200])


class ReadersLink(Shop):
    def linked(self, **body):
        return self.send("post", f"/jobs/{self.job.pk}/links", {"label": "the inspector", **body})[1]["path"]

    def test_whoever_holds_it_looks_at_that_job_alone(self):
        other = import_job(self.owner, f.job("ostrand"))
        path, reader = self.linked(), Client()
        self.assertEqual(reader.get(path).headers["Location"], f"/jobs/{self.job.pk}")
        session = reader.get("/api/session").json()
        self.assertEqual((session["role"], session["link"]), ("reader", self.job.pk))
        self.assertEqual([j["id"] for j in reader.get("/api/jobs").json()], [self.job.pk])
        self.assertEqual(reader.get(f"/api/jobs/{self.job.pk}").status_code, 200)
        self.assertEqual(reader.get(f"/api/options/{self.option.pk}/report.pdf").status_code, 200)
        self.assertEqual(reader.get(f"/api/jobs/{other.pk}").status_code, 404)
        draft = {"base": 1, "design": self.design()}
        answer = reader.put(f"/api/options/{self.option.pk}/draft", draft, content_type="application/json")
        self.assertEqual(answer.status_code, 403)
        for path in ("/api/audit", "/api/people", "/api/server", f"/api/jobs/{self.job.pk}/links"):
            self.assertEqual(reader.get(path).status_code, 403, path)
        self.assertEqual(reader.get("/api/library").json(), [])
        for path in ("/api/session/places", "/api/session/password"):
            self.assertIn(reader.get(path).status_code, (403, 405))

    def test_taken_back_it_stops_at_once(self):
        path, reader = self.linked(), Client()
        reader.get(path)
        row = self.send("get", f"/jobs/{self.job.pk}/links")[1][0]
        self.assertEqual(row["label"], "the inspector")
        self.send("delete", f"/links/{row['id']}")
        self.assertEqual(reader.get(f"/api/jobs/{self.job.pk}").status_code, 401)
        self.assertEqual(Client().get(path).status_code, 404)

    def test_it_expires(self):
        path, reader = self.linked(days=1), Client()
        reader.get(path)
        ReaderLink.objects.update(expires_at=timezone.now() - timedelta(seconds=1))
        self.assertEqual(reader.get(f"/api/jobs/{self.job.pk}").status_code, 401)

    def test_a_helper_makes_none_and_days_are_bounded(self):
        for days in (0, 181, -3):
            body = {"label": "x", "days": days}
            self.refused(self.send("post", f"/jobs/{self.job.pk}/links", body)[0], 422, "input")
        self.become("bram")
        self.refused(self.send("post", f"/jobs/{self.job.pk}/links", {"label": "x"})[0], 403, "forbidden")


class Audit(Shop):
    def test_what_is_done_is_told_newest_first(self):
        design = self.design()
        self.send("post", f"/options/{self.option.pk}/revisions", {"base": 1, "design": design})
        self.send("get", f"/jobs/{self.job.pk}/export")
        self.send("patch", f"/options/{self.option.pk}", {"deleted": True})
        self.send("patch", f"/jobs/{self.job.pk}", {"deleted": True})
        self.send("post", "/people/invite", {"role": "reader"})
        told = [row["what"] for row in self.send("get", "/audit")[1]]
        wanted = [
            "invited",
            "job to the trash",
            "option to the trash",
            "job exported",
            "revision stored",
            "job imported",
        ]
        self.assertEqual(told, wanted)

    def test_signing_in_and_failing_to(self):
        browser = Client(REMOTE_ADDR="10.1.2.3")
        for password in ("guess", "ada-secret"):
            body = {"name": "ada", "password": password}
            browser.post("/api/session/sign-in", body, content_type="application/json")
        rows = AuditEntry.objects.filter(address="10.1.2.3")
        self.assertEqual([r.what for r in rows], ["signed in", "sign-in refused"])
        self.assertEqual({r.workshop for r in rows}, {self.workshop})
        body = {"name": "nobody-here", "password": "x"}
        browser.post("/api/session/sign-in", body, content_type="application/json")
        self.assertIsNone(AuditEntry.objects.all()[0].workshop)

    def test_nothing_in_it_is_changed(self):
        entry = AuditEntry.objects.all()[0]
        entry.by = "nobody"
        for change in (
            entry.save,
            entry.delete,
            AuditEntry.objects.all().delete,
            lambda: AuditEntry.objects.update(by="nobody"),
        ):
            with self.assertRaises(ImmutableError):
                change()

    def test_a_page_at_a_time(self):
        for _ in range(120):
            AuditEntry(workshop=self.workshop, by="ada", what="tried").save()
        first = self.send("get", "/audit")[1]
        rest = self.send("get", f"/audit?before={first[-1]['id']}")[1]
        self.assertEqual((len(first), rest[-1]["what"]), (100, "job imported"))
