"""``manage.py prepare``: the data folder made ready to be served; what is wrong with it said in two sentences."""

from __future__ import annotations

import sqlite3
from shlex import quote
from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError, CommandParser

from keeping.copies import Unusable, copies, daily_copy, database, examine, put_aside, unwritten_migrations
from piecing.days import day_words


class Command(BaseCommand):
    help = "Looks the database over, copies it before it is changed, and brings it up to this version."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--anew", action="store_true", help="begin with an empty database where one is missing")

    def handle(self, **options: Any) -> None:
        try:
            self._prepare(anew=options["anew"])
        except Unusable as problem:
            raise CommandError(f"{problem.detail}\n{_way_back()}") from None
        except (sqlite3.Error, OSError) as error:
            raise CommandError(
                f"The data folder {database().parent} cannot be written: {error}.\n"
                "Make room on its disk, or let this program write there, and start again."
            ) from None

    def _prepare(self, *, anew: bool) -> None:
        marker = database().parent / "keeps"
        if database().exists():
            examine(database())
        elif marker.exists() and not anew:
            raise Unusable(
                f"The database {database().name} that was in {database().parent} is gone. Nothing was begun in its place."
            )
        if unwritten_migrations():
            put_aside("migration")
            call_command("migrate", verbosity=0, interactive=False)
        marker.touch(mode=0o600)
        daily_copy()


def _way_back() -> str:
    found = copies()
    if not found:
        return "There is no copy here. To begin with an empty database: python server/manage.py prepare --anew"
    newest = found[0]
    return f"The last good copy is of {day_words(newest.made)}, {newest.made:%H:%M}: make restore FILE={quote(str(newest.path))}"
