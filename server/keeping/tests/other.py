"""Another server on the data folder, as far as the lock can tell."""

from __future__ import annotations

import fcntl
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from django.conf import settings

__all__ = ["served_elsewhere"]


@contextmanager
def served_elsewhere(where: str) -> Iterator[None]:
    with open(Path(settings.DATA) / "serving", "w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        lock.write(where)
        lock.flush()
        yield
