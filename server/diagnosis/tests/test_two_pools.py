"""A database of the version with two pools of readings is carried into this one: nothing is lost, every place keeps its name."""

from __future__ import annotations

import os
import re
import sqlite3
import subprocess
import sys
import tempfile
from contextlib import closing
from pathlib import Path
from unittest import TestCase

from django.conf import settings

_DUMP = Path(__file__).parent / "data" / "two_pools.sql"


class TwoPoolsTest(TestCase):
    """Run as a start of the program does it: in a process of its own, on a copy of that day's demo data."""

    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.file = Path(folder.name) / "entretoile.sqlite3"
        with closing(sqlite3.connect(self.file)) as database:
            # Constraints of that day use Django's own function.
            database.create_function("REGEXP", 2, lambda pattern, text: re.search(pattern, str(text)) is not None)
            database.executescript(_DUMP.read_text("utf-8"))
            self.units = database.execute("SELECT count(*) FROM readings_readingrow").fetchone()[0]
            self.blocks = database.execute("SELECT count(*) FROM sewn_measured").fetchone()[0]
            self.values = sorted(
                v
                for table in ("readings_readingrow", "sewn_measured")
                for (v,) in database.execute(f"SELECT value FROM {table}")
            )
        command = [sys.executable, str(Path(settings.HOME) / "server" / "manage.py"), "migrate", "-v", "0"]
        env = {**os.environ, "ENTRETOILE_DATA": folder.name}
        subprocess.run(command, check=True, env=env, capture_output=True)

    def test_every_reading_and_kept_diagnosis_is_there_and_has_its_place(self) -> None:
        with closing(sqlite3.connect(self.file)) as database:
            rows = database.execute(
                "SELECT kind, value, unit_id, block_id, at_unit, seam, feature, mark, batch FROM measuring_reading"
            ).fetchall()
            self.assertEqual(len(rows), self.units + self.blocks)
            self.assertEqual(sorted(r[1] for r in rows), self.values)
            self.assertEqual(sum(r[2] is not None for r in rows), self.units)
            self.assertFalse([r for r in rows if r[7] == "?"])
            named = {r[4] or r[5] or r[6] for r in rows if r[3]}
            self.assertTrue(
                {"c1r1", "c3r1", "row 1 seam 1", "row 1, top", "diagonal c2r1 bottom right"} <= named, named
            )
            placed = [r for r in rows if r[3] and (r[4] or r[5] or r[6])]
            self.assertTrue(all(r[7] for r in placed))
            saved = database.execute("SELECT said, block_id FROM diagnosis_saveddiagnosis").fetchall()
            self.assertEqual(len(saved), 1)
            self.assertIn("headline", saved[0][0])
            tables = {name for (name,) in database.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
            self.assertFalse(tables & {"readings_readingrow", "sewn_measured", "sewn_kept"})
