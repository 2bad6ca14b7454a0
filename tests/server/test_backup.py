"""Copies while people write: each equals a moment between two saves, is whole, and comes back."""

import sqlite3
import tempfile
import threading
from contextlib import closing
from pathlib import Path

from django.core.management import call_command
from django.core.management.base import CommandError
from django.test import SimpleTestCase, override_settings

from nodulant_server.backup import BackupRefused, backup, listed, restore, verified
from tests.server.base import of_sqlite

SCHEMA = "CREATE TABLE nodulant_server_designrevision (id INTEGER PRIMARY KEY, pair INTEGER, half INTEGER)"


@of_sqlite
class Copies(SimpleTestCase):
    databases = {"default"}

    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        self.live = self.folder / "live.sqlite3"
        with closing(sqlite3.connect(self.live)) as db:
            db.execute("PRAGMA journal_mode=WAL")
            db.execute(SCHEMA)
            db.commit()
        named = override_settings(DATABASES={"default": {"NAME": str(self.live)}})
        named.enable()
        self.addCleanup(named.disable)

    def write(self, pair):
        """One save is two rows: no copy may hold half of it."""
        with closing(sqlite3.connect(self.live, timeout=20)) as db, db:
            for half in (0, 1):
                db.execute("INSERT INTO nodulant_server_designrevision (pair, half) VALUES (?, ?)", (pair, half))

    def rows(self, file):
        with closing(sqlite3.connect(file)) as db:
            return db.execute("SELECT pair, half FROM nodulant_server_designrevision ORDER BY id").fetchall()

    def test_under_four_writers_every_copy_is_a_moment_between_two_saves(self):
        acknowledged, stop = [[] for _ in range(4)], threading.Event()

        def writer(k):
            n = 0
            while not stop.is_set():
                self.write(k * 100_000 + n)
                acknowledged[k].append(n)
                n += 1

        threads = [threading.Thread(target=writer, args=(k,)) for k in range(4)]
        for t in threads:
            t.start()
        seen = []
        for _ in range(4):
            before = [len(own) for own in acknowledged]
            file, count = backup(self.folder / "copies")
            seen.append((before, file, count))
        stop.set()
        for t in threads:
            t.join()
        for before, file, count in seen:
            rows = self.rows(file)
            self.assertEqual((len(rows), len(rows) % 2), (count, 0))
            for k in range(4):
                own = [pair % 100_000 for pair, half in rows if pair // 100_000 == k and half == 0]
                self.assertEqual(own, list(range(len(own))), "nothing in between is missing")
                self.assertGreaterEqual(len(own), before[k], "what was acknowledged before is there")

    def test_a_copy_comes_back_and_what_was_there_is_kept(self):
        self.write(1)
        file, _ = backup(self.folder / "copies")
        self.write(2)
        before, count = restore(file)
        self.assertEqual((count, len(self.rows(self.live)), len(self.rows(before))), (2, 2, 4))

    def test_it_comes_back_into_an_empty_folder(self):
        self.write(1)
        file, _ = backup(self.folder / "copies")
        self.live.unlink()
        self.assertEqual(restore(file), (None, 2))
        self.assertEqual(len(self.rows(self.live)), 2)

    def test_a_truncated_copy_is_refused_and_nothing_is_touched(self):
        for n in range(3000):
            self.write(n) if n < 3 else None
        file, _ = backup(self.folder / "copies")
        data = file.read_bytes()
        for broken in (data[: len(data) // 2], b"not a database at all", b""):
            file.write_bytes(broken)
            with self.subTest(len(broken)):
                with self.assertRaises(BackupRefused):
                    restore(file)
                with self.assertRaises(CommandError):
                    call_command("restore", file)
        self.assertEqual(len(self.rows(self.live)), 6)

    def test_the_newest_are_kept(self):
        for _ in range(5):
            backup(self.folder / "copies", kept=3)
        self.assertEqual(len(listed(self.folder / "copies")), 3)
        self.assertEqual(verified(listed(self.folder / "copies")[0]), 0)
