"""Copies of everything: written while in use, read through, restored, and refused when they cannot stand in."""

from __future__ import annotations

import sqlite3
from contextlib import closing
from datetime import date, timedelta
from io import BytesIO, StringIO
from pathlib import Path
from tempfile import mkdtemp
from unittest.mock import patch
from uuid import uuid4

from django.core.files.uploadedfile import SimpleUploadedFile
from django.core.management import call_command
from django.core.management.base import CommandError
from django.test import TransactionTestCase

from journal.commands import put_entry
from journal.models import LogEntry, Photo
from keeping import copies
from keeping.serving import AlreadyServed, hold_folder, served_at
from keeping.tests.other import served_elsewhere
from projects.commands import create_project
from projects.models import Project
from timing.commands import put_free, put_time
from timing.models import FreeTime, WorkTime
from workrooms.selectors import current_workroom


class CopiesTest(TransactionTestCase):
    def setUp(self) -> None:
        for old in copies.copies():
            old.path.unlink()
        self.scratch = Path(mkdtemp())
        create_project(current_workroom(), uuid4(), "Kept")

    def names(self) -> set[str]:
        return set(Project.objects.values_list("name", flat=True))

    def test_a_copy_is_one_file_that_another_program_can_read(self) -> None:
        made = copies.make_copy(self.scratch / "all.sqlite3")
        self.assertEqual([p.name for p in self.scratch.iterdir()], ["all.sqlite3"])
        with closing(sqlite3.connect(made)) as db:
            self.assertEqual(db.execute("SELECT name FROM projects_project").fetchall(), [("Kept",)])

    def test_restored_everything_is_as_it_was_and_what_there_was_is_put_aside(self) -> None:
        made = copies.make_copy(self.scratch / "all.sqlite3")
        create_project(current_workroom(), uuid4(), "Later")
        copies.restore(made)
        self.assertEqual(self.names(), {"Kept"})
        aside = copies.copies()
        self.assertEqual([c.name.startswith("before-restore-") for c in aside], [True])
        copies.restore(aside[0].path)
        self.assertEqual(self.names(), {"Kept", "Later"})

    def test_photos_minutes_and_evenings_are_in_the_one_file(self) -> None:
        room, key = current_workroom(), uuid4()
        put_entry(room, key, {"kind": "note", "text": "the first bunk"}, {})
        Photo.objects.create(entry_id=key, image=b"\xff\xd8 a photo", width=4, height=3, caption="seams")
        project = Project.objects.get(name="Kept")
        put_time(room, uuid4(), {"stage": "sew", "minutes": "35"}, {}, project.pk)
        put_free(room, uuid4(), {"weekday": 1, "begins": "19:30", "ends": "21:00"}, {})
        made = copies.make_copy(self.scratch / "all.sqlite3")
        for model in (LogEntry, WorkTime, FreeTime):
            model.objects.all().delete()
        copies.restore(made)
        self.assertEqual(
            (bytes(Photo.objects.get().image), Photo.objects.get().caption), (b"\xff\xd8 a photo", "seams")
        )
        self.assertEqual((WorkTime.objects.get().minutes, FreeTime.objects.get().weekday), (35, 1))

    def test_what_cannot_stand_in_is_refused_and_nothing_changes(self) -> None:
        good = copies.make_copy(self.scratch / "good.sqlite3").read_bytes()
        newer, other = self.scratch / "newer.sqlite3", self.scratch / "other.sqlite3"
        newer.write_bytes(good)
        with closing(sqlite3.connect(newer)) as db, db:
            db.execute(
                "INSERT INTO django_migrations (app, name, applied) VALUES ('blocks', '9999_later', '2030-01-01')"
            )
        with closing(sqlite3.connect(other)) as db, db:
            db.execute("CREATE TABLE songs (name)")
        cases = {
            "no file": (self.scratch / "none.sqlite3", "There is no file none.sqlite3."),
            "text": (self.put("text", b"not a database, only some words" * 40), "damaged"),
            "cut off": (self.put("half", good[: len(good) // 2]), "damaged"),
            "scribbled over": (self.put("torn", good[:8192] + bytes(range(256)) * 64 + good[24576:]), "damaged"),
            "another program's": (other, "holds no workroom"),
            "a newer version's": (newer, "newer version"),
        }
        for what, (path, said) in cases.items():
            with self.subTest(what):
                with self.assertRaises(copies.Unusable) as refused:
                    copies.restore(path)
                self.assertIn(said, refused.exception.detail)
                self.assertEqual(self.names(), {"Kept"})
        self.assertEqual(copies.copies(), [])

    def put(self, name: str, data: bytes) -> Path:
        path = self.scratch / name
        path.write_bytes(data)
        return path

    def test_the_oldest_copy_can_be_gone_back_to(self) -> None:
        """It would be the one to go for the copy that is made first."""
        for _ in range(copies.KEPT_OF_A_KIND):
            copies.put_aside("restore")
        create_project(current_workroom(), uuid4(), "Later")
        copies.restore(copies.copies()[-1].path)
        self.assertEqual(self.names(), {"Kept"})

    def test_what_cannot_be_put_aside_is_not_written_over(self) -> None:
        made = copies.make_copy(self.scratch / "all.sqlite3")
        create_project(current_workroom(), uuid4(), "Later")
        full = sqlite3.OperationalError("database or disk is full")
        with patch("keeping.copies.make_copy", side_effect=full), self.assertRaises(sqlite3.OperationalError):
            copies.restore(made)
        with patch("keeping.copies._overwrite", side_effect=full), self.assertRaises(sqlite3.OperationalError):
            copies.restore(made)
        self.assertEqual(self.names(), {"Kept", "Later"})

    def test_a_damaged_database_is_set_away_and_the_copy_takes_its_place(self) -> None:
        path = self.scratch / "entretoile.sqlite3"
        made = copies.make_copy(self.scratch / "all.sqlite3")
        path.write_bytes(b"torn" * 5_000)
        with patch("keeping.copies.database", lambda: path), patch("keeping.copies.call_command"):
            copies.restore(made)
        self.assertEqual((self.scratch / "entretoile.sqlite3.damaged").read_bytes()[:4], b"torn")
        copies.examine(path)

    def test_the_last_seven_days_are_kept_and_one_copy_a_day_is_made(self) -> None:
        first = date(2026, 11, 1)
        made = [copies.daily_copy(first + timedelta(days=n)) for n in range(9)]
        self.assertNotIn(None, made)
        self.assertIsNone(copies.daily_copy(first + timedelta(days=8)))
        self.assertEqual(
            sorted(c.name for c in copies.copies()),
            [f"daily-2026-11-0{n}.sqlite3" for n in range(3, 10)],
        )

    def test_what_was_deleted_is_let_go_of_for_good_after_a_copy(self) -> None:
        gone, kept = Project.objects.get(), create_project(current_workroom(), uuid4(), "Stays")
        first = {"id": str(uuid4()), "kind": "half_square_triangle"}
        self.client.post(f"/api/projects/{kept.pk}/units", first, content_type="application/json")
        more = {"id": str(uuid4()), "kind": "flying_goose"}
        self.client.post(f"/api/projects/{kept.pk}/units", more, content_type="application/json")
        self.client.delete(f"/api/units/{more['id']}")
        self.client.delete(f"/api/projects/{gone.pk}")
        self.assertEqual(self.client.get("/api/deleted").json(), {"count": 2})
        self.assertEqual(self.client.delete("/api/deleted").json(), {"count": 0})
        kept = Project.objects.get(pk=kept.pk)
        self.assertEqual((self.names(), kept.units.count(), kept.fabrics.count()), ({"Stays"}, 1, 2))
        self.assertEqual(self.client.post(f"/api/projects/{gone.pk}/restore").status_code, 404)
        self.assertNotIn(b"Kept", copies.database().read_bytes())
        aside = next(c for c in copies.copies() if c.name.startswith("before-purge"))
        copies.restore(aside.path)
        self.assertEqual(self.names(), {"Kept", "Stays"})

    def test_out_and_in_over_the_wire(self) -> None:
        answer = self.client.get("/api/backup")
        everything = b"".join(answer.streaming_content)  # type: ignore[attr-defined]
        self.assertTrue(everything.startswith(b"SQLite format 3"))
        create_project(current_workroom(), uuid4(), "Later")
        back = self.client.post("/api/backup", {"file": BytesIO(everything)})
        self.assertEqual(back.status_code, 200, back.content)
        self.assertEqual(self.names(), {"Kept"})
        name = back.json()[0]["name"]
        self.assertEqual(self.client.post(f"/api/copies/{name}/restore").status_code, 200)
        self.assertEqual(self.names(), {"Kept", "Later"})
        refused = self.client.post("/api/backup", {"file": SimpleUploadedFile("x", b"nothing")})
        self.assertEqual((refused.status_code, refused.json()["code"]), (422, "copy_unusable"))
        for full in (sqlite3.OperationalError("database or disk is full"), OSError(28, "No space left on device")):
            with patch("keeping.copies.make_copy", side_effect=full):
                answer = self.client.post(f"/api/copies/{name}/restore")
            self.assertEqual((answer.status_code, answer.json()["code"]), (507, "disk_full"))
        self.assertEqual(self.client.post("/api/copies/..%2Ftest.sqlite3/restore").status_code, 404)
        self.assertEqual(self.client.post("/api/copies/daily-2020-01-01.sqlite3/restore").status_code, 404)


class OneServerTest(TransactionTestCase):
    def test_a_folder_is_held_once_and_free_again_when_its_server_ends(self) -> None:
        self.assertIsNone(served_at())
        with served_elsewhere("http://127.0.0.1:8321/"):
            self.assertEqual(served_at(), "http://127.0.0.1:8321/")
            with self.assertRaisesMessage(AlreadyServed, "http://127.0.0.1:8321/"):
                hold_folder("http://127.0.0.1:8400/")
        self.assertIsNone(served_at())

    def test_the_server_itself_is_not_in_its_own_way(self) -> None:
        with hold_folder("http://127.0.0.1:8321/"):
            self.assertIsNone(served_at())
            with self.assertRaisesMessage(AlreadyServed, "http://127.0.0.1:8321/"):
                hold_folder("http://127.0.0.1:8400/")
        self.assertIsNone(served_at())


class PrepareTest(TransactionTestCase):
    """What is said at the start, in a folder of its own."""

    def setUp(self) -> None:
        self.folder = Path(mkdtemp()) / "her data"
        self.folder.mkdir()
        self.path = self.folder / "entretoile.sqlite3"
        with closing(sqlite3.connect(copies.make_copy(self.path))):
            pass
        patched = patch("keeping.copies.database", lambda: self.path)
        patched.start()
        self.addCleanup(patched.stop)
        patched = patch("keeping.management.commands.prepare.database", lambda: self.path)
        patched.start()
        self.addCleanup(patched.stop)

    def said(self, *flags: str) -> str:
        try:
            call_command("prepare", *flags, stdout=StringIO())
        except CommandError as problem:
            return str(problem)
        return ""

    def test_all_is_well_and_a_copy_is_made(self) -> None:
        self.assertEqual(self.said(), "")
        self.assertEqual(len(copies.copies()), 1)

    def test_what_is_wrong_is_told_with_the_way_back(self) -> None:
        self.said()
        good = self.path.read_bytes()
        copy = copies.copies()[0].path
        cases = {
            "gone": (None, "is gone. Nothing was begun in its place."),
            "damaged": (b"\x00" * 30_000, "damaged"),
            "cut off": (good[:5000], "damaged"),
        }
        for what, (content, told) in cases.items():
            with self.subTest(what):
                self.path.unlink(missing_ok=True)
                if content is not None:
                    self.path.write_bytes(content)
                said = self.said()
                self.assertIn(told, said)
                self.assertIn(f"make restore FILE='{copy}'", said, "a folder's name may hold a space")
                self.assertNotIn("Traceback", said)
                self.assertEqual(self.path.exists(), content is not None, "nothing is begun anew without a word")

    def test_without_a_copy_it_says_how_to_begin_anew(self) -> None:
        self.said()
        for copy in copies.copies():
            copy.path.unlink()
        self.path.unlink()
        self.assertIn("prepare --anew", self.said())
