"""A project out as JSON and in again: everything is there, nothing is overwritten, what is wrong is named by its path."""

from __future__ import annotations

import copy
import json
from io import StringIO
from typing import Any

from django.core.management import call_command
from jsonschema import Draft202012Validator

from api.tests.api import ApiCase
from exchange.project import schema
from projects.models import Project


def _bare(data: Any) -> Any:
    """Without the keys that a copy has of its own."""
    text = json.dumps(data)
    for n, b in enumerate(data["blocks"]):
        text = text.replace(b["id"], f"block {n}")
    return json.loads(text)


class ExchangeTest(ApiCase):
    def setUp(self) -> None:
        call_command("lantern_deck", stdout=StringIO())

    def test_every_demo_project_comes_back_as_it_was(self) -> None:
        Draft202012Validator.check_schema(schema())
        self.assertEqual(self.ask("get", "exchange/project.schema.json")["title"], "entretoile-project/1")
        for project in list(Project.objects.all()):
            with self.subTest(project.name):
                out = self.ask("get", f"projects/{project.pk}/export")
                made = self.ask("post", "exchange/projects", out, expect=201)
                again = self.ask("get", f"projects/{made['id']}/export")
                self.assertNotEqual(made["id"], str(project.pk))
                self.assertEqual({**_bare(again), "name": ""}, {**_bare(out), "name": ""})
        self.assertEqual(Project.objects.count(), 6)

    def test_broken_and_newer_files_are_refused_whole(self) -> None:
        good = self.ask("get", f"projects/{Project.objects.first().pk}/export")  # type: ignore[union-attr]
        before = Project.objects.count()

        def spoilt(path: tuple[Any, ...], value: Any) -> Any:
            data = copy.deepcopy(good)
            held = data
            for p in path[:-1]:
                held = held[p]
            held[path[-1]] = value
            return data

        for path, value, told in (
            (("format",), "entretoile-project/2", "$.format"),
            (("measure",), "ells", "$.measure"),
            (("fabrics", 0, "colour"), "red", "$.fabrics[0].colour"),
            (("units", 0, "finished"), "broad", "$.units[0]"),
            (("units", 0, "kind"), "round", "$.units[0]"),
            (("blocks", 0, "pattern", "layout"), ["A9"], "$.blocks[0]"),
            (("blocks", 0, "finished"), "-4", "$.blocks[0]"),
            (("quilt",), {"columns": 0}, "$.quilt"),
        ):
            with self.subTest(told):
                problem = self.ask("post", "exchange/projects", spoilt(path, value), expect=422)
                self.assertEqual(problem["code"], "project_refused")
                self.assertTrue(problem["errors"][0]["field"].startswith(told), problem)
        self.ask("post", "exchange/projects", ["no", "object"], expect=422)
        self.assertEqual(Project.objects.count(), before)

    def test_blocks_in_blocks_come_along(self) -> None:
        project = self.new_project()
        path = f"projects/{project['id']}/blocks"
        inner, outer = "00000000-0000-4000-8000-00000000000a", "00000000-0000-4000-8000-00000000000b"
        self.ask("put", f"{path}/{inner}", {"start": "pinwheel"})
        pattern = {"columns": [1], "rows": [1], "units": {"A": {"block": inner}}, "layout": ["A0"]}
        self.ask("put", f"{path}/{outer}", {"start": "", "changes": {"pattern": pattern}})
        out = self.ask("get", f"projects/{project['id']}/export")
        made = self.ask("post", "exchange/projects", out, expect=201)
        blocks = self.ask("get", f"projects/{made['id']}/blocks")["blocks"]
        held = blocks[-1]["view"]["pattern"]["units"]["A"]["block"]
        self.assertIn(held, [b["id"] for b in blocks])
        self.assertNotEqual(held, inner)
