"""The database that a shop has since the first release: nothing of it is lost, and everybody keeps what they may.

``older_database/fb60c4c.database.gz`` was made by that commit itself: one job, three people, a draft, a signed step.
"""

import gzip
import json
import os
import subprocess
import sys
import tempfile
from pathlib import Path

from django.conf import settings
from django.test import SimpleTestCase

from tests.server.base import of_sqlite

OLD = Path(settings.ROOT) / "tests/older_database/fb60c4c.database.gz"
LOOK = """
import json, django; django.setup()
from django.contrib.auth import authenticate
from django.contrib.auth.models import User
from django.core.management import call_command
from django.db import connection
from django.test import Client
call_command("migrate", verbosity=0)
from nodulant_server.models import Draft, Job, LogEntry
from nodulant_server.roles import acting_as
told = {n: acting_as(User.objects.get(username=n)) for n in ("nell", "olaf", "pia")}
job = Job.objects.get()
client = Client(HTTP_HOST="127.0.0.1")
client.force_login(User.objects.get(username="nell"))
head = client.get(f"/api/jobs/{job.pk}").json()
option = client.get(f"/api/options/{head['options'][0]['id']}").json()
body = json.dumps({"job_id": job.pk, "design": option["design"]})
figures = client.post("/api/evaluate", body, content_type="application/json")
with connection.cursor() as cursor:
    cursor.execute("PRAGMA foreign_key_check")
    broken = cursor.fetchall()
print(json.dumps({
    "roles": {n: a.role for n, a in told.items()}, "shops": [a.workshop.name for a in told.values()],
    "signs": User.objects.get(username="nell").check_password("nell-kept-word"),
    "options": [(o["name"], o["head"]) for o in head["options"]], "log": len(head["log"]), "shop_number": head["shop_number"],
    "draft": len(Draft.objects.get().document["operations"]), "others": len(option["others"]), "own": option["draft"] is not None,
    "groups": len(figures.json()["groups"]), "status": figures.status_code, "broken": broken,
}))
"""


@of_sqlite
class Upgrade(SimpleTestCase):
    def test_all_of_it_is_there_after_migrating(self):
        with tempfile.TemporaryDirectory() as folder:
            (Path(folder) / "nodulant.sqlite3").write_bytes(gzip.decompress(OLD.read_bytes()))
            own = {n: v for n, v in os.environ.items() if not n.startswith(("DJANGO_", "NODULANT_"))}
            environment = {**own, "DJANGO_SETTINGS_MODULE": "nodulant_server.settings", "NODULANT_DATA": folder}
            environment["PYTHONPATH"] = os.pathsep.join(sys.path)
            ran = subprocess.run([sys.executable, "-c", LOOK], env=environment, capture_output=True, text=True)
        self.assertEqual(ran.returncode, 0, ran.stderr)
        found = json.loads(ran.stdout.splitlines()[-1])
        self.assertEqual(found["roles"], {"nell": "owner", "olaf": "helper", "pia": "reader"})
        self.assertEqual(found["shops"], ["The shop"] * 3)
        self.assertTrue(found["signs"])
        self.assertEqual([number for _, number in found["options"]], [2, 1, 1])
        self.assertEqual((found["log"], found["draft"], found["shop_number"]), (1, 1, 1))
        self.assertTrue(found["own"] or found["others"], "the draft is offered")
        self.assertEqual((found["status"], found["broken"]), (200, []))
        self.assertGreater(found["groups"], 5)
