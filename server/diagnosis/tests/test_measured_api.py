"""Finished blocks as they really measure, through the API: readings of the one pool, one size for all, an arrangement, the quilt."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from api.tests.api import ApiCase
from measuring.models import ReadingRow


class MeasuredTest(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.project = self.new_project()["id"]
        self.block = str(uuid4())
        body = {
            "changes": {"finished": "10 1/2", "colourways": [{"count": 4, "roles": {}}]},
            "seen": {},
            "start": "lantern",
        }
        self.ask("put", f"projects/{self.project}/blocks/{self.block}", body)

    def read(self, number: int, width: str, height: str = "") -> None:
        for kind, value in (("block_width", width), ("block_height", height or width)):
            body = {"changes": {"kind": kind, "nth": str(number), "value": value}, "seen": {}}
            self.ask("put", f"blocks/{self.block}/measured/{uuid4()}", body)

    def sheet(self) -> Any:
        return self.ask("get", f"projects/{self.project}/measured")

    def test_one_size_for_all(self) -> None:
        (kind,) = self.sheet()["kinds"]
        self.assertEqual((kind["width"]["text"], len(kind["ones"]), kind["sizes"]), ("11", 4, None))
        for n, side in enumerate(("11", "11 1/16", "10 7/8", "11"), 1):
            self.read(n, side)
        (kind,) = self.sheet()["kinds"]
        self.assertEqual(kind["measured"], [1, 2, 3, 4])
        self.assertEqual(kind["sizes"]["planned"]["counts"], {"as_it_is": 2, "trim": 1, "again": 1})
        self.assertEqual(
            [f["fate"] for f in kind["sizes"]["planned"]["fates"]],
            ["as_it_is", "trim", "again", "as_it_is"],
        )
        self.assertEqual(kind["sizes"]["smallest"]["width"]["text"], "10 7/8")

    def test_where_each_lies_and_what_the_quilt_measures(self) -> None:
        self.ask("patch", f"projects/{self.project}/quilt", {"changes": {"columns": "2", "rows": "2"}, "seen": {}})
        self.read(1, "11")
        sheet = self.sheet()
        self.assertIn("all 4 of the quilt are measured; 1 are", sheet["waiting"])
        for n, side in ((2, "11 1/8"), (3, "11 1/8"), (4, "11")):
            self.read(n, side)
        sheet = self.sheet()
        self.assertEqual(sorted(n for row in sheet["places"] for n in row), [1, 2, 3, 4])
        # Two alike in each row: the rows agree, one step of an eighth in each column.
        self.assertEqual((sheet["unlike"]["text"], sheet["before"]["text"]), ("1/4", "1/2"))
        # An eighth cut off would cost points, a sixteenth can be eased in: all to 11 1/16.
        self.assertEqual(sheet["quilt"]["width"]["text"], "21 1/8")

    def test_they_are_readings_like_any_other(self) -> None:
        for n in range(1, 5):
            self.read(n, "10 7/8")
        self.assertEqual(ReadingRow.objects.filter(kind__startswith="block_").count(), 8)
        found = self.ask("get", f"blocks/{self.block}/diagnosis")
        self.assertEqual(len(found["readings"]), 8)
        self.assertIn("seams", str(found["verdict"]))

    def test_taken_away_it_is_not_measured(self) -> None:
        self.read(1, "11")
        one = self.sheet()["kinds"][0]["ones"][0]
        self.ask("delete", f"blocks/{self.block}/measured/{one['width_reading']}")
        self.assertEqual(self.sheet()["kinds"][0]["measured"], [])

    def test_nonsense(self) -> None:
        body = {"changes": {"kind": "block_width", "nth": "1", "value": "wide"}, "seen": {}}
        self.ask("put", f"blocks/{self.block}/measured/{uuid4()}", body, expect=422)
        self.read(1, "3")
        self.assertIn("Look at the figures again", self.sheet()["refusal"])
        empty = self.new_project("Wake")["id"]
        self.assertEqual(self.ask("get", f"projects/{empty}/measured")["kinds"], [])
