"""The application in this process, on a data folder of its own: every call timed without a network between."""

from __future__ import annotations

import os
import resource
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from typing import Any

__all__ = ["Answer", "InProcess", "in_process"]


@dataclass(frozen=True)
class Answer:
    """Milliseconds and kilobytes of one call, and what it said."""

    status: int
    took: float
    size: float
    body: Any


class InProcess:
    """Asks the application; a limit that was reached (422) is an answer, any other refusal ends it."""

    def __init__(self) -> None:
        from rest_framework.test import APIClient

        self.http = APIClient(SERVER_NAME="127.0.0.1")

    def ask(self, how: str, path: str, body: Any = None) -> Answer:
        began = time.perf_counter()
        answer = getattr(self.http, how)(f"/api/{path}", body, format="json")
        took = (time.perf_counter() - began) * 1000
        said = answer.json() if answer.content and "json" in answer.headers.get("Content-Type", "") else None
        if answer.status_code >= 400 and answer.status_code != 422:
            raise RuntimeError(f"{how} {path}: {answer.status_code} {answer.content[:300]!r}")
        return Answer(answer.status_code, took, len(answer.content) / 1000, said)

    def memory(self) -> float:
        """Megabytes held at the most so far."""
        return resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024


@contextmanager
def in_process() -> Iterator[InProcess]:
    """Sets Django up once, on a database of its own in a place that is gone afterwards, as the server that people run does."""
    import django
    from django.core.management import call_command
    from django.db import connections

    with tempfile.TemporaryDirectory() as data:
        os.environ["ENTRETOILE_DATA"] = data
        os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
        django.setup()
        call_command("migrate", verbosity=0)

        from api.collector import collect_seldom
        from cutting import apart

        collect_seldom()
        apart.begin()
        yield InProcess()
        connections.close_all()
