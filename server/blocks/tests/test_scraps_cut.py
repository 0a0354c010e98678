"""Scraps that are laid out are counted, planned, cut and bought; taken up, everything is as before."""

from __future__ import annotations

import subprocess
from typing import Any
from uuid import uuid4

from api.tests.api import ApiCase


class ScrapsCutTest(ApiCase):
    """Four pinwheels of 8, two by two: sixteen units of Tar and Fog; then four of Buoy and four of Oilskin in place of Tar in half
    of them. Two from a pair of squares: eight squares each of Tar and Fog before; two of Buoy, two of Oilskin, four of Tar after."""

    def setUp(self) -> None:
        self.key = str(uuid4())
        block = {"start": "pinwheel", "finished": "8", "count": "4"}
        body = {"id": self.key, "name": "Wheels", "fabrics": ["Tar", "Fog", "Buoy", "Oilskin"], "block": block}
        self.ask("post", "beginnings", {**body, "quilt": {}}, expect=201)
        self.path = f"projects/{self.key}"

    def lay(self, expect: int = 200, **more: Any) -> Any:
        stock = {"a": "8", "c": "4", "d": "4"}
        return self.ask("post", f"{self.path}/scraps", {"role": "a", "stock": stock, **more}, expect=expect)

    def squares(self) -> dict[str, int]:
        piles = self.ask("get", f"{self.path}/cutting")["piles"]
        found = dict.fromkeys("abcd", 0)
        for p in piles:
            if "triangle" in p["name"].lower():
                found[p["fabric"]] += p["wanted"]
        return found

    def test_laid_out_counted_cut_and_taken_up_again(self) -> None:
        before = self.squares()
        self.assertEqual(before, {"a": 8, "b": 8, "c": 0, "d": 0})
        self.lay()
        self.assertEqual(self.squares(), {"a": 4, "b": 8, "c": 2, "d": 2})
        counts = self.ask("get", f"{self.path}/counts")
        self.assertEqual(counts["total"], 16)
        self.assertEqual({p["fabric"] for p in self.ask("get", f"{self.path}/buying")["purchases"]}, set("abcd"))
        self.ask("delete", f"{self.path}/scraps")
        self.assertEqual(self.squares(), before)

    def test_a_changed_quilt_takes_them_up(self) -> None:
        self.lay()
        self.ask("patch", f"{self.path}/quilt", {"changes": {"columns": "4", "rows": "1"}, "seen": {}})
        self.assertEqual(self.squares(), {"a": 8, "b": 8, "c": 0, "d": 0})

    def test_methods_and_work_stay_with_the_units_that_are_left(self) -> None:
        unit = self.ask("get", self.path)["units"][0]
        self.ask("patch", f"units/{unit['id']}", {"changes": {"method": "loose_triangles"}, "seen": {}})
        self.lay()
        same = next(u for u in self.ask("get", self.path)["units"] if u["id"] == unit["id"])
        self.assertEqual((same["method"], same["count"]), ("loose_triangles", 8))

    def test_matched_sets(self) -> None:
        sheet = self.lay(sets=True)
        self.assertTrue(sheet["quilt"]["scraps"]["sets"])
        self.assertEqual(self.squares(), {"a": 4, "b": 8, "c": 2, "d": 2})

    def test_matched_pairs_are_counted_cut_mapped_and_kept(self) -> None:
        """Two blocks of Tar and Fog, two of Buoy and Oilskin: four squares of each."""
        self.lay(role="ab", stock={"ab": "2", "cd": "2"}, fixed={"0": "cd"})
        self.assertEqual(self.squares(), {"a": 4, "b": 4, "c": 4, "d": 4})
        kept = self.ask("get", f"{self.path}/blocks")["quilt"]["scraps"]
        self.assertEqual(
            (kept["role"], kept["stock"], kept["sets"], kept["alike"]), ("ab", {"ab": 2, "cd": 2}, True, [])
        )
        answer = self.client.get(f"/api/{self.path}/papers/scraps.pdf")
        printed = subprocess.run(
            ["pdftotext", "-layout", "-", "-"], input=answer.content, capture_output=True, check=True
        ).stdout.decode()
        for line in ("Tar with Fog, 2 blocks", "Buoy with Oilskin, 2 blocks", "Block 1: all 2"):
            self.assertIn(line, printed)
        exported = self.ask("get", f"{self.path}/export")
        other = self.ask("post", "exchange/projects", exported, expect=201)
        self.path = f"projects/{other['id']}"
        self.assertEqual(self.squares(), {"a": 4, "b": 4, "c": 4, "d": 4})

    def test_pairs_that_are_none(self) -> None:
        for wrong in (
            {"role": "aa", "stock": {"cd": "4"}},
            {"role": "ab", "stock": {"c": "4"}},
            {"role": "a", "stock": {"cd": "4"}},
            {"role": "ab", "stock": {"cc": "4"}},
            {"role": "ab", "stock": {"cd": "1", "ab": "2"}},
            {"role": "ab", "stock": {}},
        ):
            with self.subTest(wrong):
                self.assertIn("errors", self.lay(expect=422, **wrong))
        self.lay(role="abc", stock={"abc": "4"}, expect=400)

    def test_asked_for_nothing(self) -> None:
        problem = self.lay(stock={}, expect=422)
        self.assertIn("16 places ask for as many", problem["errors"][0]["message"])
        self.lay(stock={"c": "0"}, expect=422)

    def test_the_map_on_paper(self) -> None:
        def text() -> str:
            answer = self.client.get(f"/api/{self.path}/papers/scraps.pdf")
            self.assertEqual(answer.status_code, 200)
            return subprocess.run(
                ["pdftotext", "-layout", "-", "-"], input=answer.content, capture_output=True, check=True
            ).stdout.decode()

        self.assertIn("No scraps are laid out yet", text())
        self.lay()
        printed = text()
        for line in ("Tar, 8 units", "Buoy, 4 units", "Oilskin, 4 units", "Block 4: "):
            self.assertIn(line, printed)
