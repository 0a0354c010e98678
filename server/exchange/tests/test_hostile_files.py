"""Files that nobody wrote by hand on purpose: each value in turn is something else. It is refused with its path, or taken in and every
page of what was made of it opens."""

from __future__ import annotations

import copy
import json
import os
from collections.abc import Iterator
from itertools import cycle
from typing import Any
from uuid import uuid4

from django.db import transaction
from drf_spectacular.generators import SchemaGenerator

from api.tests.api import ApiCase
from demo.tests.data import put_demo
from projects.models import Project
from setups.models import SetUp
from timing.models import FreeTime, WorkTime

_EVERY = bool(os.environ.get("ENTRETOILE_EVERY_VALUE"))
"""All values at all places take minutes; otherwise every third place has one of them."""
_VALUES: tuple[Any, ...] = (
    "\u200b", 5, None, [], {}, "9" * 5000, 10**400, 1e308, "2026-02-31T10:00:00Z", "٣", True, "²", -1, "1/0", [[]], "\x00",
)  # fmt: skip
_LANTERN, _WAKE = (f"5e0a6f3c-3f57-4f0e-9a43-0d6f6f1a000{n}" for n in (1, 2))
_RECORDS = (SetUp, WorkTime, FreeTime)


def _leaves(held: Any, path: tuple[Any, ...] = ()) -> Iterator[tuple[Any, ...]]:
    """Where values stand, and what is empty."""
    parts = held.items() if isinstance(held, dict) else enumerate(held) if isinstance(held, list) else ()
    inner = [p for k, v in parts for p in _leaves(v, (*path, k))]
    yield from inner or [path]


def _spoilt(good: Any) -> Iterator[tuple[str, Any]]:
    """One of each kind of place, with one value that does not belong there."""
    rotating = cycle(_VALUES)
    places = {tuple("*" if isinstance(p, int) else p for p in path): path for path in _leaves(good)}
    for path in list(places.values())[:: 1 if _EVERY else 3]:
        for value in _VALUES if _EVERY else (next(rotating),):
            data = copy.deepcopy(good)
            held = data
            for p in path[:-1]:
                held = held[p]
            held[path[-1]] = value
            yield f"{'.'.join(map(str, path))} = {value!r:.30}", data


class HostileFilesTest(ApiCase):
    pages: list[str]

    @classmethod
    def setUpTestData(cls) -> None:
        put_demo()
        document = SchemaGenerator().get_schema(request=None, public=True)
        gets = [p.removeprefix("/api/") for p, ways in document["paths"].items() if "get" in ways]
        cls.pages = [
            p for p in gets if p.count("{") == p.count("{key}") <= 1 and not p.startswith(("backup", "copies"))
        ]

    def take_in(self, path: str, data: Any) -> Any:
        send = self.client.put if path.startswith("projects") else self.client.post
        answer = send(f"/api/{path}", json.dumps(data), "application/json")
        self.assertIn(answer.status_code, (200, 201, 400, 422), answer.content[:300])
        if answer.status_code >= 400:
            self.assertEqual(answer["Content-Type"], "application/problem+json")
            return None
        return answer.json()

    def open_all(self, project: str = "") -> None:
        """Every page of a project, of its blocks and its units, or those of no project."""
        row = Project.objects.get(pk=project) if project else None
        keys: dict[str, list[Any]] = {"projects": [], "blocks": [], "units": []}
        if row is not None:
            keys = {
                "projects": [project],
                "blocks": [b.pk for b in row.blocks.all()],
                "units": [u.pk for u in row.units.all()],
            }
        for page in self.pages:
            of = keys.get(page.split("/")[0], []) if "{key}" in page else [""] if row is None else []
            for key in of:
                answer = self.client.get(f"/api/{page.replace('{key}', str(key))}")
                self.assertLess(answer.status_code, 500, (page, answer.content[:300]))

    def try_all(self, path: str, good: Any, *, of_project: bool) -> None:
        for said, data in (("as it was", good), *_spoilt(good)):
            with self.subTest(said), transaction.atomic():
                made = self.take_in(path.replace("{new}", str(uuid4())), data)
                if data is good:
                    self.assertIsNotNone(made, "else everything is refused for another reason")
                if made is not None:
                    self.open_all(made["id"] if of_project else "")
                transaction.set_rollback(True)

    def test_a_project(self) -> None:
        for project in Project.objects.filter(pk__in=(_LANTERN, _WAKE) if _EVERY else (_LANTERN,)):
            good = self.ask("get", f"projects/{project.pk}/export")
            self.ask("delete", f"projects/{project.pk}")
            with self.subTest(project.name):
                self.try_all("exchange/projects", good, of_project=True)

    def test_a_block(self) -> None:
        project = Project.objects.get(pk=_LANTERN)
        good = self.ask("get", f"blocks/{project.blocks.all()[0].pk}/export")
        self.try_all(f"projects/{project.pk}/blocks/{{new}}/import", good, of_project=True)

    def test_records(self) -> None:
        good = self.ask("get", "exchange/records")
        for model in _RECORDS:
            model.objects.all().delete()
        self.try_all("exchange/records", good, of_project=False)
