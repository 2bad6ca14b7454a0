"""A job in the database and people signed in."""

import json
from unittest import skipUnless

from django.contrib.auth.models import User
from django.db import connection
from django.test import TestCase

from nodulant_server.actions.transfer import import_job
from nodulant_server.models import Member, Workshop
from nodulant_server.roles import acting_as
from tests import fixtures as f

of_sqlite = skipUnless(connection.vendor == "sqlite", "what is asked here is SQLite's")
ROLES = {"ada": "owner", "bram": "helper", "inspector": "reader"}


class Shop(TestCase):
    """The demo job, its people, and short ways to ask the API."""

    @classmethod
    def setUpTestData(cls):
        cls.people, cls.workshop = {}, Workshop.objects.create(name="Test shop")
        for name, role in ROLES.items():
            cls.people[name] = User.objects.create_user(name, password=f"{name}-secret")
            Member.objects.create(workshop=cls.workshop, user=cls.people[name], role=role)
        cls.owner = acting_as(cls.people["ada"])
        cls.job = import_job(cls.owner, f.job())
        cls.option = cls.job.options.order_by("id")[0]

    def setUp(self):
        self.client.force_login(self.people["ada"])

    def become(self, name):
        self.client.force_login(self.people[name])

    def send(self, method, path, body=None):
        """Ask with JSON; the answer and its data."""
        call = getattr(self.client, method)
        data = json.dumps(body) if body is not None else None
        response = (
            call(f"/api{path}", data, content_type="application/json") if data is not None else call(f"/api{path}")
        )
        kind = response.headers.get("Content-Type", "")
        return response, json.loads(response.content) if "json" in kind and response.content else None

    def design(self):
        """The newest design as a document."""
        return self.send("get", f"/options/{self.option.pk}")[1]["design"]

    def refused(self, response, status, code):
        """Assert a problem document of that kind; returns it."""
        data = json.loads(response.content)
        self.assertEqual(response.status_code, status, data)
        self.assertEqual(response.headers["Content-Type"], "application/problem+json")
        self.assertEqual((data["status"], data["code"]), (status, code))
        self.assertTrue(data["title"])
        return data
