"""The demo data for tests: worked out once in a process, and put row by row into every database after that."""

from __future__ import annotations

from datetime import date, time
from io import StringIO
from typing import Any

from django.core.management import call_command
from django.db import connection
from django.db.transaction import atomic

__all__ = ["put_demo"]

_rows: dict[str, list[tuple[Any, ...]]] = {}


def put_demo() -> None:
    """As ``lantern_deck`` puts it into an empty workroom, without working it out again."""
    connection.ensure_connection()
    if not _rows:
        call_command("lantern_deck", verbosity=0, stdout=StringIO())
        with connection.cursor() as cursor:
            for table in connection.introspection.django_table_names(only_existing=True):
                cursor.execute(f'SELECT * FROM "{table}"')
                _rows[table] = [tuple(map(_as_kept, row)) for row in cursor.fetchall()]
        return
    with atomic():  # Rows refer to one another: whether all are there is asked at the end.
        raw = connection.connection.cursor()
        for table, rows in _rows.items():
            # A page of the test before may have asked for something as it closed, and so begun a workroom.
            raw.execute(f'DELETE FROM "{table}"')
            if rows:
                raw.executemany(f'INSERT INTO "{table}" VALUES ({", ".join("?" * len(rows[0]))})', rows)


def _as_kept(value: Any) -> Any:
    return str(value) if isinstance(value, date | time) else value
