"""``manage.py restore FILE``: everything as it is in a copy; what there is now is put aside first."""

from __future__ import annotations

import sqlite3
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser

from keeping.copies import Unusable, restore
from keeping.serving import served_at


class Command(BaseCommand):
    help = "Puts a copy back in place of everything there is."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file")

    def handle(self, **options: Any) -> None:
        where = served_at()
        if where is not None:
            raise CommandError(f"Entretoile is running at {where}. Stop it first, or restore from its Settings.")
        try:
            restore(Path(options["file"]).absolute())
        except Unusable as problem:
            raise CommandError(problem.detail) from None
        except (sqlite3.Error, OSError) as error:
            raise CommandError(f"Nothing was put back: {error}. Make room on the disk and try again.") from None
        self.stdout.write(
            f"Everything is as it was in {options['file']}. What there was before is in the folder “copies”."
        )
