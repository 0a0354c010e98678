"""A project measured otherwise: settings become usual ones, sizes round ones on request, and nothing that is cut changes."""

from __future__ import annotations

from fractions import Fraction
from typing import Any
from uuid import uuid4

from api.tests.api import ApiCase
from piecing.lengths import Length


def mm_of(exact: str) -> Fraction:
    return Length.of(Fraction(exact)).rational * Fraction(254, 10)


class RoundingTest(ApiCase):
    """Nine stars of 12 in., four parts of 3 across: 76.2 mm, so 75, and 300 a block."""

    def setUp(self) -> None:
        self.key = str(uuid4())
        block = {"start": "sawtooth_star", "finished": "12", "count": "9"}
        quilt = {"sash": "2", "borders": [{"width": "4", "fabric": "a"}]}
        body = {"id": self.key, "name": "Stars", "fabrics": ["Tar", "Fog"], "block": block, "quilt": quilt}
        self.ask("post", "beginnings", body, expect=201)
        self.path = f"projects/{self.key}"

    def measure(self, measure: str) -> Any:
        return self.ask("patch", self.path, {"changes": {"measure": measure}, "seen": {}})

    def sizes(self) -> Any:
        sheet = self.ask("get", f"{self.path}/blocks")
        quilt = sheet["quilt"]
        fields = ("sash", "binding_strip", "backing_over", "usable", "oversize")
        return (
            mm_of(sheet["blocks"][0]["finished"]["exact"]),
            {f: mm_of(quilt[f]["exact"]) for f in fields},
            [b["width"] for b in quilt["borders"]],
        )

    def test_what_stood_as_usual_becomes_usual_and_sizes_are_offered(self) -> None:
        project = self.measure("mm")
        self.assertEqual(mm_of(project["seam_allowance"]["exact"]), 6)
        block, quilt, _ = self.sizes()
        self.assertEqual(block, Fraction(3048, 10))
        self.assertEqual((quilt["binding_strip"], quilt["usable"], quilt["oversize"]), (60, 1000, 10))
        off = " ".join(self.ask("get", f"{self.path}/standing")["off"]).replace("\u00a0", " ")
        self.assertIn("Sawtooth Star finishes 304.8 mm; 300 mm is round.", off)
        self.assertIn("In the quilt 50.8 mm stands; 50 mm is round", off)

    def test_made_round_and_back(self) -> None:
        self.measure("mm")
        project = self.ask("post", f"{self.path}/rounded")
        self.assertEqual({u["width_shown"]["text"] for u in project["units"]}, {"75 mm", "150 mm"})
        block, quilt, borders = self.sizes()
        self.assertEqual((block, quilt["sash"], borders), (300, 50, ["100 mm"]))
        self.assertEqual(self.ask("get", f"{self.path}/standing")["off"], [])
        for pile in self.ask("get", f"{self.path}/cutting")["piles"]:
            self.assertEqual(mm_of(pile["width"]["exact"]).denominator, 1, pile)
        self.measure("in")
        self.ask("post", f"{self.path}/rounded")
        self.assertEqual(self.sizes()[0] / Fraction(254, 10), 12)

    def test_taken_back_but_for_what_was_changed_since(self) -> None:
        unit = str(uuid4())
        self.ask("post", f"{self.path}/units", {"id": unit, "kind": "half_square_triangle"}, expect=201)
        self.measure("mm")
        before = self.sizes()
        self.ask("post", f"{self.path}/rounded")
        self.ask("patch", f"{self.path}/quilt", {"changes": {"sash": "45 mm"}, "seen": {}})
        self.ask("delete", f"{self.path}/rounded")
        block, quilt, borders = self.sizes()
        self.assertEqual((block, borders), (before[0], before[2]))
        self.assertEqual(quilt, {**before[1], "sash": 45})
        found = next(u for u in self.ask("get", self.path)["units"] if u["id"] == unit)
        self.assertEqual(found["finished"]["exact"], "7/2")
        self.ask("delete", f"{self.path}/rounded")
        self.assertEqual(self.sizes()[1]["sash"], 45)

    def test_a_unit_given_by_its_block_is_rounded_by_the_part(self) -> None:
        """10 1/2 in. over three is 88.9 mm: what is said is what happens, a block of 270 and a unit of 90."""
        unit = str(uuid4())
        self.ask("post", f"{self.path}/units", {"id": unit, "kind": "half_square_triangle"}, expect=201)
        changes = {"size_basis": "block", "block_finished": "10 1/2", "units_across": "3"}
        self.ask("patch", f"units/{unit}", {"changes": changes, "seen": {}})
        self.measure("mm")
        off = " ".join(self.ask("get", f"{self.path}/standing")["off"]).replace("\u00a0", " ")
        self.assertIn("Block of Half-square triangle finishes 266.7 mm; 270 mm is round.", off)
        self.ask("post", f"{self.path}/rounded")
        found = next(u for u in self.ask("get", self.path)["units"] if u["id"] == unit)
        self.assertEqual((found["block_finished"]["text"], found["width_shown"]["text"]), ("270 mm", "90 mm"))

    def test_once_cloth_is_cut_sizes_stay(self) -> None:
        letter = self.ask("get", f"{self.path}/cutting")["piles"][0]["letter"]
        self.ask("patch", f"{self.path}/cutting/piles/{letter}", {"changes": {"cut": "1"}, "seen": {}})
        project = self.measure("mm")
        self.assertEqual(project["seam_allowance"]["exact"], "1/4")
        self.assertEqual(self.ask("get", f"{self.path}/standing")["off"], [])
        self.ask("post", f"{self.path}/rounded", expect=422)
        self.assertEqual(self.sizes()[0], Fraction(3048, 10))

    def test_units_by_hand(self) -> None:
        unit = str(uuid4())
        self.ask("post", f"{self.path}/units", {"id": unit, "kind": "half_square_triangle"}, expect=201)
        self.ask("patch", f"units/{unit}", {"changes": {"finished": "3 1/2"}, "seen": {}})
        self.measure("mm")
        self.ask("post", f"{self.path}/rounded")
        found = next(u for u in self.ask("get", self.path)["units"] if u["id"] == unit)
        self.assertEqual(found["finished"]["text"], "90 mm")
