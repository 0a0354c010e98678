"""A project out as JSON and in again: everything is there, nothing is overwritten, what is wrong is named by its path."""

from __future__ import annotations

import copy
import json
from random import Random
from typing import Any
from uuid import UUID

from jsonschema import Draft202012Validator

from api.tests.api import ApiCase
from blocks.models import Quilt
from cutting.models import CutPlan, Stock
from demo.tests.data import put_demo
from exchange.project import schema
from measuring.models import ReadingRow
from piecing.units import KINDS
from projects.models import Project


def _bare(data: Any) -> Any:
    """Without the keys that a copy has of its own."""
    text = json.dumps(data)
    for kind in ("blocks", "stock"):
        for n, row in enumerate(data[kind]):
            text = text.replace(row["id"], f"{kind} {n}")
    return json.loads(text)


class ExchangeTest(ApiCase):
    @classmethod
    def setUpTestData(cls) -> None:
        put_demo()

    def test_every_demo_project_comes_back_as_it_was(self) -> None:
        Draft202012Validator.check_schema(schema())
        self.assertEqual(self.ask("get", "exchange/project.schema.json")["title"], "entretoile-project/1")
        for project in list(Project.objects.all()):
            with self.subTest(project.name):
                out = self.ask("get", f"projects/{project.pk}/export")
                # While it is there it keeps its cloth.
                self.ask("delete", f"projects/{project.pk}")
                made = self.ask("post", "exchange/projects", out, expect=201)
                again = self.ask("get", f"projects/{made['id']}/export")
                self.assertNotEqual(made["id"], str(project.pk))
                self.assertEqual({**_bare(again), "name": ""}, {**_bare(out), "name": ""})
        self.assertEqual(Project.objects.count(), 6)

    def test_a_reading_of_a_day_that_never_was_comes_in_without_it(self) -> None:
        row = ReadingRow.objects.filter(block__isnull=False, deleted_at=None).first()
        assert row is not None
        assert row.block is not None
        ReadingRow.objects.filter(pk=row.pk).update(day="2026-02-30")
        project = row.block.project
        before = ReadingRow.objects.count()
        out = self.ask("get", f"projects/{project.pk}/export")
        self.ask("delete", f"projects/{project.pk}")
        made = self.ask("post", "exchange/projects", out, expect=201)
        self.assertNotIn("2026-02-30", str(self.ask("get", f"projects/{made['id']}/export")))
        self.assertGreater(ReadingRow.objects.count(), before)

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

    def round_trip(self, key: str) -> tuple[Any, Any]:
        out = self.ask("get", f"projects/{key}/export")
        Draft202012Validator(schema()).validate(out)
        # While it is there it keeps its cloth.
        self.ask("delete", f"projects/{key}")
        made = self.ask("post", "exchange/projects", out, expect=201)
        return out, self.ask("get", f"projects/{made['id']}/export")

    def test_what_is_cut_laid_and_put_away_comes_along(self) -> None:
        project = Project.objects.get(archived_at=None, name__startswith="Lantern")
        path = f"projects/{project.pk}"
        self.ask("patch", path, {"changes": {"name": "N" * 120}})
        cloth = str(Stock.objects.filter(fabric__project=project).values_list("pk", flat=True)[0])
        laid = {
            "gap": 0.0,
            "proven": True,
            "pieces": [["unit0", "a", "4", "4", 2, "square", True, 1, False]],
            "missing": [],
            "cloths": [
                {
                    "cloth": [f"{cloth}#0", "a", "40", "36", "yardage", ""],
                    "used": "4",
                    "strips": [[1, "0", "4", [["unit0", "0", "0", "4", "4"], ["unit0", "4", "0", "4", "4"]]]],
                }
            ],
        }
        extra = [["a", "5/2", "9/2", 7, "from a list"]]
        CutPlan.objects.update_or_create(project=project, defaults={"laid": laid, "done": [1], "extra": extra})
        scraps = {"role": "a", "order": 0, "seed": 3, "corners": True, "stock": {"a": 4}, "fixed": {"2": "b"}}
        Quilt.objects.filter(project=project).update(scraps={**scraps, "laid": [[0, 1, "b"]], "alike": [], "said": []})
        self.ask("post", f"{path}/archived")
        out, again = self.round_trip(str(project.pk))
        self.assertEqual(again["name"], out["name"])
        self.assertEqual({**_bare(again), "name": ""}, {**_bare(out), "name": ""})
        self.assertTrue(again["archived"])
        self.assertEqual((again["cutting"]["done"], again["cutting"]["extra"]), ([1], extra))
        self.assertNotEqual(again["cutting"]["laid"]["cloths"][0]["cloth"][0], f"{cloth}#0", "the copy's own cloth")
        for broken in ({**laid, "pieces": [["unit0"]]}, {**laid, "cloths": [{"cloth": []}]}, {"pieces": 3}):
            with self.subTest(str(broken)[:40]):
                spoilt = {**out, "cutting": {**out["cutting"], "laid": broken}}
                self.assertEqual(self.ask("post", "exchange/projects", spoilt, expect=422)["code"], "project_refused")

    def test_any_project_comes_back_the_same(self) -> None:
        """Projects made by chance: out, in and out again is the same."""
        for seed in range(4):
            with self.subTest(seed):
                out, again = self.round_trip(self.by_chance(Random(seed)))
                self.assertEqual({**_bare(again), "name": ""}, {**_bare(out), "name": ""})

    def by_chance(self, chance: Random) -> str:
        key = str(self.new_project()["id"])
        path, sizes = f"projects/{key}", ("2 1/2", "3", "95 mm", "4 7/8")
        blocks: list[str] = []
        for _ in range(10):
            what = chance.choice(["unit", "block", "turn", "quilt", "stock", "fabric", "reading", "settings"])
            if what == "unit":
                self.ask(
                    "post", f"{path}/units", {"id": self.name(chance), "kind": chance.choice(sorted(KINDS))}, expect=201
                )
            elif what == "block":
                blocks.append(self.name(chance))
                self.ask(
                    "put", f"{path}/blocks/{blocks[-1]}", {"start": chance.choice(["pinwheel", "shoo_fly", "lantern"])}
                )
            elif what == "turn" and blocks:
                edit = {"do": "turn_whole", "quarters": chance.randint(1, 3)}
                self.ask("post", f"blocks/{chance.choice(blocks)}/edits", {"edit": edit})
            elif what == "quilt":
                changes = {"columns": str(chance.randint(1, 9)), "sash": chance.choice(["0", "1 1/2", "25 mm"])}
                self.ask("patch", f"{path}/quilt", {"changes": changes})
            elif what == "fabric":
                self.ask(
                    "put", f"{path}/fabrics/{self.name(chance)}", {"changes": {"name": f"Rope {chance.random():.3f}"}}
                )
            elif what == "stock":
                fabric = chance.choice(self.ask("get", path)["fabrics"])["id"]
                changes = {"kind": "scrap", "across": chance.choice(sizes), "along": "20", "count": "2", "name": "left"}
                self.ask("put", f"fabrics/{fabric}/stock/{self.name(chance)}", {"changes": changes})
            elif what == "reading":
                unit = self.ask("get", path)["units"][0]["id"]
                reading = {"kind": "width", "value": chance.choice(sizes), "note": "by chance"}
                self.ask("put", f"units/{unit}/readings/{self.name(chance)}", {"changes": reading})
            elif what == "settings":
                self.ask("patch", path, {"changes": {"fold": chance.choice(["0", "1/64", "0.5 mm"]), "measure": "mm"}})
        return key

    def name(self, chance: Random) -> str:
        return str(UUID(int=chance.getrandbits(128), version=4))
