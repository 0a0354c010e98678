"""Copies of everything: one SQLite file with the workroom, its projects, stock, plans, readings, library and settings.

A copy is written with SQLite's own backup while the program runs, and read through as a whole before it counts. One is
made before every migration, restore and reset, and once a day; the last seven of each kind are kept.
"""

from __future__ import annotations

import os
import re
import sqlite3
import tempfile
import time
from collections.abc import Iterator
from contextlib import closing, suppress
from dataclasses import dataclass
from datetime import UTC, date, datetime
from pathlib import Path

from django.core.management import call_command
from django.db import connection, connections
from django.db.migrations.loader import MigrationLoader

from api.problems import ApiError

__all__ = [
    "Copy",
    "Unusable",
    "copies",
    "daily_copy",
    "database",
    "examine",
    "keep_daily",
    "make_copy",
    "put_aside",
    "restore",
    "unwritten_migrations",
]

KEPT_OF_A_KIND = 7
_NAME = re.compile(r"(daily|before-[a-z]+)-\d{4}-\d\d-\d\d(-\d{6}-\d{3})?\.sqlite3")


class Unusable(ApiError):
    """A file that cannot stand in for the database, and why."""

    status = 422
    code = "copy_unusable"
    title = "This is no copy that can be restored"


@dataclass(frozen=True)
class Copy:
    """One copy: its file, when it was made and how large it is, in bytes."""

    path: Path
    made: datetime
    size: int

    @property
    def name(self) -> str:
        return self.path.name


def database() -> Path:
    """The file that everything is kept in."""
    return Path(str(connection.settings_dict["NAME"]))


def _folder() -> Path:
    folder = database().parent / "copies"
    folder.mkdir(mode=0o700, exist_ok=True)
    return folder


def copies() -> list[Copy]:
    """The copies there are, newest first."""
    found = [p for p in _folder().iterdir() if _NAME.fullmatch(p.name)]
    made = [Copy(p, datetime.fromtimestamp(p.stat().st_mtime, UTC), p.stat().st_size) for p in found]
    return sorted(made, key=lambda c: c.made, reverse=True)


def make_copy(target: Path) -> Path:
    """Everything as it is now, into ``target``; the file stands there only once it was read through.

    Raises ``Unusable`` when the copy does not read back, ``sqlite3.Error`` or ``OSError`` when it cannot be written.
    """
    handle, scratch = tempfile.mkstemp(suffix=".part", dir=target.parent)
    os.close(handle)
    try:
        with closing(_reading(database())) as source, closing(sqlite3.connect(scratch)) as copy:
            source.backup(copy)
            # A copy is one file, whatever the database keeps beside itself.
            copy.execute("PRAGMA journal_mode=DELETE")
        examine(Path(scratch))
        with open(scratch, "rb+") as written:
            os.fsync(written.fileno())
        os.replace(scratch, target)
    finally:
        with suppress(FileNotFoundError):
            os.unlink(scratch)
    return target


def put_aside(occasion: str, needed: Path | None = None) -> Path | None:
    """A copy before a migration, a restore or a reset; ``None`` when there is nothing to copy yet.

    The oldest of its kind goes for it, but never the one ``needed``.
    """
    if not database().exists():
        return None
    now = datetime.now(UTC)
    made = make_copy(_folder() / f"before-{occasion}-{now:%Y-%m-%d-%H%M%S}-{now.microsecond // 1000:03}.sqlite3")
    _forget(f"before-{occasion}-", needed)
    return made


def daily_copy(today: date | None = None) -> Path | None:
    """Today's copy, unless there is one; the last seven days that had one are kept."""
    target = _folder() / f"daily-{today or datetime.now(UTC).date()}.sqlite3"
    if target.exists() or not database().exists():
        return None
    make_copy(target)
    _forget("daily-")
    return target


def keep_daily() -> None:
    """For a thread of the server: a copy each day, looked for every half hour; what goes wrong is tried again."""
    while True:
        with suppress(Unusable, sqlite3.Error, OSError):
            daily_copy()
        time.sleep(1_800)


def _forget(kind: str, needed: Path | None = None) -> None:
    for old in sorted((p for p in _folder().iterdir() if p.name.startswith(kind)), reverse=True)[KEPT_OF_A_KIND:]:
        if old != needed:
            old.unlink()


def _reading(path: Path) -> sqlite3.Connection:
    return sqlite3.connect(f"file:{path}?mode=ro", uri=True, timeout=10)


def examine(path: Path) -> None:
    """Raises ``Unusable``, in two sentences, for a file that is missing, damaged, of another program or of a newer one."""
    if not path.exists():
        raise Unusable(f"There is no file {path.name}. Choose one of the copies in the folder “copies”.")
    try:
        with closing(_reading(path)) as db:
            if db.execute("PRAGMA quick_check").fetchone() != ("ok",):
                raise sqlite3.DatabaseError("malformed")
            known = set(_applied_migrations(db))
    except sqlite3.DatabaseError as error:
        if "no such table" in str(error):
            raise Unusable("This file holds no workroom. It was written by another program.") from None
        raise Unusable(
            "This file is damaged: it cannot be read as a whole. Restore the newest copy that can be."
        ) from None
    if known - set(_disk_migrations()):
        raise Unusable("A newer version of this program wrote this file. Start that version, or restore an older copy.")
    if ("workrooms", "0001_initial") not in known:
        raise Unusable("This file holds no workroom. It was written by another program.")


def _applied_migrations(db: sqlite3.Connection) -> Iterator[tuple[str, str]]:
    yield from db.execute("SELECT app, name FROM django_migrations")


def _disk_migrations() -> set[tuple[str, str]]:
    return set(MigrationLoader(None, ignore_no_migrations=True).disk_migrations)


def unwritten_migrations() -> list[tuple[str, str]]:
    """Migrations that the database does not have yet."""
    if not database().exists():
        return sorted(_disk_migrations())
    with closing(_reading(database())) as db:
        return sorted(_disk_migrations() - set(_applied_migrations(db)))


def restore(path: Path) -> None:
    """Everything becomes as it is in a copy; what there was is put aside first, or nothing is changed.

    Page by page into the database that is open, so that a running server goes on with it. Raises ``Unusable`` for the copy,
    ``sqlite3.Error`` or ``OSError`` when what there is cannot be put aside or overwritten, such as on a full disk.
    """
    examine(path)
    connections.close_all()
    try:
        examine(database())
    except Unusable:
        # Nothing that could be copied as a database, or be written over as one: the file itself is put aside.
        _set_away()
    else:
        put_aside("restore", needed=path)
    _overwrite(path)
    call_command("migrate", verbosity=0, interactive=False)


def _set_away() -> None:
    """A database that cannot be read, and what SQLite keeps beside it, under another name in the same folder."""
    for beside in ("", "-wal", "-shm"):
        with suppress(FileNotFoundError):
            os.replace(f"{database()}{beside}", f"{database()}.damaged{beside}")


def _overwrite(path: Path) -> None:
    with closing(_reading(path)) as source, closing(sqlite3.connect(database(), timeout=30)) as target:
        source.backup(target)
        target.execute("PRAGMA journal_mode=WAL")
