"""Malformed bodies, a broken disk, a proxy in front: an answer in words, a line in the log, nobody signed in by mistake."""

import logging
from unittest import mock

from django.contrib.sessions.models import Session
from django.core.cache import cache
from django.db import OperationalError
from django.test import Client, override_settings

from nodulant_server.logs import HEADER
from tests.server.base import Shop


class Bodies(Shop):
    def post(self, path, raw, kind="application/json"):
        return self.client.post(f"/api{path}", raw, content_type=kind)

    def test_texts_that_cannot_be_kept_are_refused(self):
        for raw in ('{"name": "a\\ud800b"}', '{"name": "a\\u0000b"}', b'{"name": "\xff"}', "{"):
            with self.subTest(raw):
                response = self.client.patch(f"/api/jobs/{self.job.pk}", raw, content_type="application/json")
                self.assertEqual(response.status_code, 400, response.content)
        for raw in ('{"name": "a\\ud800", "password": "x"}', '{"offset_mm": "\\ud800"}'):
            self.assertEqual(self.post("/session/sign-in", raw).status_code, 400)

    def test_a_job_file_with_half_a_character_is_refused(self):
        text = self.client.get(f"/api/jobs/{self.job.pk}/export").content.decode()
        for bad in ("\\ud800", "\\u0000"):
            changed = text.replace(self.job.name, f"x{bad}", 1)
            self.assertEqual(self.post("/jobs/import", changed.encode()).status_code, 422)

    def test_a_form_instead_of_json_is_refused(self):
        response = self.client.post("/api/evaluate", {"a": "b"})
        self.assertEqual(response.status_code, 400)


class Broken(Shop):
    def test_what_the_storage_says_is_told_in_words(self):
        path = f"/jobs/{self.job.pk}"
        for said, told in (
            ("database is locked", "another save"),
            ("database or disk is full", "disk is full"),
            ("attempt to write a readonly database", "read-only"),
        ):
            with (
                self.subTest(said),
                mock.patch("nodulant_server.api.jobs.change_job", side_effect=OperationalError(said)),
            ):
                data = self.refused(self.send("patch", path, {"name": "x"})[0], 503, "storage")
                self.assertIn(told, data["title"])
                self.assertIn("kept in this browser", data["title"])

    def test_what_broke_has_a_number_that_the_log_has_too(self):
        broken = mock.patch("nodulant_server.api.jobs.change_job", side_effect=RuntimeError("unforeseen"))
        with broken, self.assertLogs("nodulant_server.api.problems", logging.ERROR) as log:
            response, _ = self.send("patch", f"/jobs/{self.job.pk}", {"name": "x"})
        data = self.refused(response, 500, "unexpected")
        self.assertEqual(response.headers[HEADER], data["request"])
        self.assertIn(data["request"], data["title"])
        self.assertIn("unforeseen", "".join(log.output))

    def test_every_answer_has_a_number_of_its_own(self):
        numbers = {self.client.get("/api/session").headers[HEADER] for _ in range(3)}
        self.assertEqual(len(numbers), 3)


class Headers(Shop):
    def test_pages_and_files_are_framed_nowhere(self):
        for path in ("/", "/index.html", "/jobs/1", "/api/session"):
            with self.subTest(path):
                response = self.client.get(path)
                self.assertIn("frame-ancestors 'none'", response.headers["Content-Security-Policy"])
                self.assertEqual(response.headers["X-Frame-Options"], "DENY")

    def test_head_has_no_body(self):
        self.assertEqual(self.client.head("/").content, b"")


@override_settings(DEMO=True)
class Demo(Shop):
    def setUp(self):
        pass

    def who(self, path="/api/session", **meta):
        return Client().get(path, **meta).json()["user"]

    def test_at_this_machine_the_owner_is_signed_in(self):
        self.assertEqual(self.who(), "ada")

    def test_who_came_through_a_proxy_or_by_another_name_is_not(self):
        for meta in (
            {"HTTP_X_FORWARDED_FOR": "192.0.2.7"},
            {"HTTP_X_FORWARDED_PROTO": "https"},
            {"HTTP_FORWARDED": "for=192.0.2.7"},
            {"HTTP_VIA": "1.1 front"},
            {"REMOTE_ADDR": "192.0.2.7"},
        ):
            with self.subTest(meta):
                self.assertIsNone(self.who(**meta))
        with override_settings(PROXY="127.0.0.1"):
            self.assertIsNone(self.who())
        with override_settings(ALLOWED_HOSTS=["shop.local"]):
            self.assertIsNone(self.who(HTTP_HOST="shop.local"))

    def test_requests_without_a_cookie_leave_no_sessions(self):
        before = Session.objects.count()
        for _ in range(3):
            self.assertEqual(Client().get("/api/jobs").status_code, 401)
        self.assertEqual(Session.objects.count(), before)


class SignIn(Shop):
    def setUp(self):
        cache.clear()

    def test_it_needs_the_page_s_own_token(self):
        client = Client(enforce_csrf_checks=True)
        body = {"name": "ada", "password": "ada-secret"}
        forged = client.post("/api/session/sign-in", body, content_type="application/json")
        self.assertEqual(forged.status_code, 403)
        client.get("/")
        token = client.cookies["csrftoken"].value
        taken = client.post("/api/session/sign-in", body, content_type="application/json", HTTP_X_CSRFTOKEN=token)
        self.assertEqual(taken.status_code, 200)

    @override_settings(SECURE_PROXY_SSL_HEADER=("HTTP_X_FORWARDED_PROTO", "https"), CSRF_COOKIE_SECURE=True)
    def test_over_https_through_a_proxy_what_follows_is_taken_too(self):
        client = Client(enforce_csrf_checks=True)
        ahead = {"HTTP_X_FORWARDED_PROTO": "https", "HTTP_ORIGIN": "https://testserver", "HTTP_HOST": "testserver"}
        client.get("/", **ahead)
        body = {"name": "ada", "password": "ada-secret"}

        def send(method, path, body):
            token = client.cookies["csrftoken"].value
            call = getattr(client, method)
            return call(path, body, content_type="application/json", HTTP_X_CSRFTOKEN=token, **ahead)

        self.assertEqual(send("post", "/api/session/sign-in", body).status_code, 200)
        self.assertEqual(send("patch", f"/api/jobs/{self.job.pk}", {"name": "Renamed"}).status_code, 200)
        strange = client.patch(
            f"/api/jobs/{self.job.pk}",
            {"name": "x"},
            content_type="application/json",
            HTTP_X_CSRFTOKEN=client.cookies["csrftoken"].value,
            **{**ahead, "HTTP_ORIGIN": "https://elsewhere.test"},
        )
        self.assertEqual(strange.status_code, 403)
