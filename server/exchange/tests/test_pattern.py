"""One block as JSON, out and in, with the blocks in it; what is refused leaves nothing behind."""

from __future__ import annotations

from copy import deepcopy
from typing import Any
from uuid import uuid4

from jsonschema import Draft202012Validator

from api.tests.api import ApiCase
from blocks.models import Block
from exchange.pattern import pattern_schema


class PatternFileTest(ApiCase):
    def setUp(self) -> None:
        self.project = self.new_project()
        self.path = f"projects/{self.project['id']}"
        self.inner, self.key = str(uuid4()), str(uuid4())
        self.put(self.inner, "pinwheel", finished="4")
        self.put(self.key, "", finished="8")
        layout = {"columns": [1, 1], "rows": [1, 1], "layout": ["A0 B0", "B0 A1m"]}
        units = {"A": {"block": self.inner, "fabrics": {"a": "c"}}, "B": {"kind": "plain_square", "fabrics": "b"}}
        self.put(self.key, "", pattern={"name": "Two wheels", "units": units, **layout})

    def put(self, key: str, start: str, **changes: Any) -> None:
        self.ask("put", f"{self.path}/blocks/{key}", {"start": start, "changes": changes, "seen": {}})

    def taken(self, data: Any, expect: int = 201, project: str = "") -> str:
        key = str(uuid4())
        self.ask("put", f"{project or self.path}/blocks/{key}/import", data, expect=expect)
        return key

    def test_out_and_in_is_the_same(self) -> None:
        file = self.ask("get", f"blocks/{self.key}/export")
        self.assertEqual(list(Draft202012Validator(pattern_schema()).iter_errors(file)), [])
        self.assertEqual(list(file["carried"]), [self.inner])
        other = f"projects/{self.new_project()['id']}"
        key = self.taken(file, project=other)
        again = self.ask("get", f"blocks/{key}/export")
        (carried,) = again["carried"]
        self.assertNotEqual(carried, self.inner)

        def by_name(one: dict[str, Any], inner: str) -> Any:
            return deepcopy(one) | {
                "carried": list(one["carried"].values()),
                "pattern": str(one["pattern"]).replace(inner, "inner"),
            }

        self.assertEqual(by_name(again, carried), by_name(file, self.inner))
        # Its inner block is no block of the project: it came along.
        self.assertEqual(len(self.ask("get", f"{other}/blocks")["blocks"]), 1)

    def test_asked_twice_it_is_taken_once(self) -> None:
        file = self.ask("get", f"blocks/{self.key}/export")
        key = self.taken(file)
        self.ask("put", f"{self.path}/blocks/{key}/import", file, expect=201)
        self.assertEqual(Block.objects.filter(deleted_at=None, part="").count(), 3)

    def test_what_is_wrong_is_told_by_its_path_and_nothing_is_kept(self) -> None:
        file = self.ask("get", f"blocks/{self.key}/export")
        before = Block.objects.count()
        for broken, said in (
            ({**file, "format": "entretoile-pattern/9"}, "$.format"),
            ({**file, "finished": "wide"}, "$.carried"),
            ({**file, "pattern": {**file["pattern"], "layout": ["A0 B0", "B0 Z0"]}}, "$.pattern"),
            ({**file, "pattern": {**file["pattern"], "columns": [1] * 101}}, "$.pattern.columns"),
            ({**file, "pattern": {**file["pattern"], "columns": [0, 1]}}, "$.pattern.columns[0]"),
            ({**file, "extra": 1}, "$"),
            ([], "$"),
        ):
            with self.subTest(said=said):
                key = str(uuid4())
                problem = self.ask("put", f"{self.path}/blocks/{key}/import", broken, expect=422)
                self.assertTrue(problem["errors"][0]["field"].startswith(said), problem["errors"])
        self.assertEqual(Block.objects.count(), before)

    def test_a_block_in_itself(self) -> None:
        file = self.ask("get", f"blocks/{self.key}/export")
        file["carried"][self.inner]["units"] = {"A": {"block": self.inner, "fabrics": {}}}
        file["carried"][self.inner]["layout"] = ["A0 A0", "A0 A0"]
        self.taken(file, expect=422)

    def test_a_project_with_long_strips_is_taken_in_again(self) -> None:
        self.put(self.key, "", colourways=[{"count": 12, "roles": {}}])
        row = {"units": [{"kind": "half_square_triangle", "fabrics": "ab"}]}
        border = {"width": "1", "fabric": "c", "corners": "overlapped", "corner_fabric": "c", "pieced": row}
        changes = {"columns": 3, "rows": 4, "begun": True, "borders": [border]}
        self.put(self.inner, "", finished="8")
        self.ask("patch", f"{self.path}/quilt", {"changes": changes, "seen": {}})
        file = self.ask("get", f"{self.path}/export")
        self.assertGreater(max(len(b["pattern"]["rows"]) for b in file["blocks"]), 24)
        self.ask("post", "exchange/projects", file, expect=201)
