"""Files kept with a job: once each, by hash, and out and in again with it in one ZIP."""

import hashlib
import io
import json
import zipfile
from unittest import mock

from django.test import SimpleTestCase

from nodulant.formats import bundle as bundle_format
from nodulant.formats.bundle import MOST_BYTES, MOST_FILES, read_bundle, write_bundle
from nodulant.formats.jobfile import JobFileRefused
from nodulant_server.actions import attachments
from nodulant_server.models import Attachment, Job
from tests import fixtures as f
from tests.server.base import Shop

PHOTO = b"\x89PNG\r\n\x1a\n" + bytes(range(256)) * 40


class Kept(Shop):
    def keep(self, content=PHOTO, name="rail.png", kind="image/png"):
        path = f"/api/jobs/{self.job.pk}/attachments?name={name}"
        return self.client.generic("POST", path, content, content_type=kind)

    def exported(self, pk=None):
        response = self.client.get(f"/api/jobs/{pk or self.job.pk}/export")
        return response, b"".join(response.streaming_content) if response.streaming else response.content

    def taken(self, data, kind="application/zip"):
        return self.client.generic("POST", "/api/jobs/import", data, content_type=kind)

    def test_a_file_is_kept_once_by_what_it_holds(self):
        first, again = self.keep().json(), self.keep(name="other.png").json()
        self.assertEqual(first, again)
        self.assertEqual(first["sha256"], hashlib.sha256(PHOTO).hexdigest())
        self.assertEqual([r["name"] for r in self.send("get", f"/jobs/{self.job.pk}/attachments")[1]], ["rail.png"])

    def test_it_comes_back_as_a_download_whatever_it_claims_to_be(self):
        page = b"<script>alert(1)</script>"
        row = self.keep(page, name="x.html", kind="text/html").json()
        response = self.client.get(f"/api/jobs/{self.job.pk}/attachments/{row['sha256']}")
        self.assertEqual((response.content, response.headers["Content-Type"]), (page, "application/octet-stream"))
        self.assertIn("attachment", response.headers["Content-Disposition"])

    def test_what_cannot_be_kept(self):
        self.refused(self.keep(b""), 422, "input")
        self.refused(self.keep(b"x" * (MOST_BYTES + 1)), 422, "input")
        self.become("inspector")
        self.refused(self.keep(), 403, "forbidden")

    def test_no_more_is_kept_than_can_come_back(self):
        self.keep(b"a" * 600)
        with mock.patch.object(attachments, "MOST_IN_ALL", 1000):
            self.assertIn("full", self.refused(self.keep(b"b" * 401), 422, "input")["title"])
            self.assertEqual(self.keep(b"b" * 400).status_code, 200)

    def test_a_job_with_files_leaves_as_a_zip_and_comes_back_whole(self):
        self.keep()
        self.keep(b"a drawing", name="frame é.dxf", kind="image/vnd.dxf")
        response, data = self.exported()
        self.assertIn(".nodulant.zip", response.headers["Content-Disposition"])
        came = self.taken(data)
        self.assertEqual(came.status_code, 200, came.content)
        first, second = read_bundle(io.BytesIO(data)), read_bundle(io.BytesIO(self.exported(came.json()["id"])[1]))
        self.assertEqual(first[1], second[1])
        self.assertEqual(first[0].options, second[0].options)
        self.assertEqual(first[0].surveys, second[0].surveys)

    def test_without_files_it_is_the_open_job_file(self):
        self.assertEqual(self.exported()[0].headers["Content-Type"], "application/json")

    def test_a_refused_bundle_writes_nothing(self):
        before = Job.objects.count(), Attachment.objects.count()
        for data in (b"", b"PK\x03\x04", b"{}", PHOTO):
            with self.subTest(data[:8]):
                self.refused(self.taken(data), 422, "job-file-refused")
        self.assertEqual((Job.objects.count(), Attachment.objects.count()), before)


class Bundles(SimpleTestCase):
    """The ZIP itself: nothing of it is believed."""

    def row(self, content, **change):
        told = {"sha256": hashlib.sha256(content).hexdigest(), "name": "x", "content_type": "", "at": "", "by": ""}
        return {**told, **change}

    def made(self, rows, files, job=None):
        out = io.BytesIO()
        with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as bundle:
            bundle.writestr("job.nodulant.json", f.DEMO.read_bytes() if job is None else job)
            bundle.writestr("attachments.json", json.dumps(rows))
            for name, content in files.items():
                bundle.writestr(f"attachments/{name}", content)
        out.seek(0)
        return out

    def refused(self, file):
        with self.assertRaises(JobFileRefused) as refused:
            read_bundle(file)
        return refused.exception

    def test_a_good_one(self):
        row = self.row(PHOTO)
        job, kept = read_bundle(self.made([row], {row["sha256"]: PHOTO}))
        self.assertEqual((len(kept), kept[0][1]), (1, PHOTO))
        out = io.BytesIO()
        write_bundle(out, job, [kept[0][0]], lambda sha256: PHOTO)
        self.assertEqual(read_bundle(io.BytesIO(out.getvalue())), (job, kept))

    def test_changed_missing_or_misnamed(self):
        row = self.row(PHOTO)
        self.assertIn("not what it was", self.refused(self.made([row], {row["sha256"]: PHOTO + b"x"})).message)
        self.assertIn("missing", self.refused(self.made([row], {})).message)
        self.refused(self.made([self.row(PHOTO, sha256="../../etc")], {}))
        self.refused(self.made([self.row(PHOTO, name="")], {}))
        self.refused(self.made("no list", {}))
        self.refused(self.made([], {}, job=b"{"))

    def test_more_than_it_claims_is_not_unpacked(self):
        zeros = b"\0" * (MOST_BYTES + 2)
        row = self.row(zeros)
        bundle = self.made([row], {row["sha256"]: zeros})
        self.assertLess(len(bundle.getvalue()), 200_000)
        self.assertIn("too large", self.refused(bundle).message)
        self.assertIn("too large", self.refused(self.made([], {}, job=b" " * (12 * 1024 * 1024))).message)

    def test_bombs_of_many_small_files_and_broken_packing(self):
        rows = [self.row(b"\0" * (1024 * 1024 + n)) for n in range(3)]
        files = {row["sha256"]: b"\0" * (1024 * 1024 + n) for n, row in enumerate(rows)}
        with mock.patch.object(bundle_format, "MOST_IN_ALL", 2 * 1024 * 1024):
            self.assertIn("too large together", self.refused(self.made(rows, files)).message)
        whole = bytearray(self.made([], {}).getvalue())
        whole[120:400] = b"\xff" * 280
        self.refused(io.BytesIO(bytes(whole)))

    def test_too_many(self):
        self.assertIn("too many", self.refused(self.made([self.row(b"x")] * (MOST_FILES + 1), {})).message)
