"""``manage.py backup [FILE]``: everything into one file, also while the program runs."""

from __future__ import annotations

import sqlite3
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.utils import timezone

from keeping.copies import Unusable, database, make_copy


class Command(BaseCommand):
    help = "Writes everything into one file and reads it through."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file", nargs="?", default="")

    def handle(self, **options: Any) -> None:
        usual = database().parent / f"entretoile-{timezone.now():%Y-%m-%d-%H%M%S}.sqlite3"
        target = Path(options["file"] or usual).absolute()
        try:
            made = make_copy(target)
        except Unusable as problem:
            raise CommandError(problem.detail) from None
        except (sqlite3.Error, OSError) as error:
            raise CommandError(f"Nothing was written to {target}: {error}. Choose another place.") from None
        self.stdout.write(f"Everything is in {made} ({made.stat().st_size / 1e6:.1f} MB), and was read through.")
