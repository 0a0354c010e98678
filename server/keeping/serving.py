"""One server on one data folder: a lock that goes with the process, and where the one that holds it is."""

from __future__ import annotations

import fcntl
import os
from pathlib import Path
from typing import IO

from django.conf import settings

__all__ = ["AlreadyServed", "hold_folder", "served_at"]


class AlreadyServed(Exception):
    """Another server keeps this folder; the message says where."""


_mine: list[IO[str]] = []
"""Held by this process, which may do with the folder what another must not."""


def _lock() -> Path:
    return Path(settings.DATA) / "serving"


def hold_folder(where: str) -> IO[str]:
    """Keeps the folder for this process until the file returned is closed, or the process ends in whatever way.

    Raises ``AlreadyServed`` with the address of the server that has it.
    """
    held = open(_lock(), "a+")  # noqa: SIM115 - held open on purpose
    try:
        fcntl.flock(held, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except OSError:
        held.seek(0)
        other = held.read().strip()
        held.close()
        raise AlreadyServed(other) from None
    held.seek(0)
    held.truncate()
    held.write(where)
    held.flush()
    os.fsync(held.fileno())
    if where:
        _mine.append(held)
    return held


def served_at() -> str | None:
    """The address of another server on this folder, if one runs."""
    if any(not held.closed for held in _mine):
        return None
    try:
        hold_folder("").close()
    except AlreadyServed as other:
        return str(other)
    return None
