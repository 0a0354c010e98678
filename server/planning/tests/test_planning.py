"""The Plan and Trim screens' data."""

from __future__ import annotations

from typing import Any

from common.tests.api import ApiCase

_TYPED = {
    "measure": "in",
    "size_basis": "unit",
    "finished": "3 1/2",
    "block_finished": "",
    "units_across": "3",
    "count": "48",
    "school": "little",
    "own_margin": "",
    "cut": "",
    "seam_allowance": "1/4",
    "stitch": "",
    "fold": "0",
    "ruler_step": "1/8",
}


class PlanCase(ApiCase):
    def plan(self, expect: int = 200, **typed: str) -> Any:
        return self.ask("post", "plan", _TYPED | typed, expect=expect)


class PlanTest(PlanCase):
    def test_the_lantern_unit(self) -> None:
        p = self.plan()["plan"]
        self.assertEqual((p["cut"]["text"], p["target"]["text"], p["finished"]["text"]), ("4 1/2", "4", "3 1/2"))
        self.assertEqual(p["raw"]["exact"], "9/2 - 1/4*sqrt2")
        self.assertTrue(p["raw"]["about"])
        self.assertEqual([(c["role"], c["count"]) for c in p["pieces"]], [("a", 24), ("b", 24)])

    def test_a_blocks_size_is_shared_out_and_the_unused_field_is_not_read(self) -> None:
        p = self.plan(size_basis="block", block_finished="10 1/2", finished="nonsense")["plan"]
        self.assertEqual(p["finished"]["text"], "3 1/2")
        self.plan(block_finished="nonsense")

    def test_schools_side_by_side(self) -> None:
        offers = {o["school"]: o for o in self.plan()["offers"]}
        self.assertEqual(offers["exact"]["plan"]["cut"]["text"], "4 3/8")
        self.assertEqual(offers["generous"]["plan"]["cut"]["text"], "5")
        self.assertIn("how much should come off", offers["own_margin"]["refusal"])
        self.assertIn("not enough readings", offers["records"]["refusal"])

    def test_a_school_without_its_figure_is_said_beside_the_others(self) -> None:
        answer = self.plan(school="own_margin")
        self.assertIsNone(answer["plan"])
        self.assertEqual((answer["refusal"]["code"], answer["refusal"]["field"]), ("no_margin_given", "own_margin"))
        self.assertEqual(len(answer["offers"]), 5)

    def test_a_cut_too_small_names_the_smallest_that_works(self) -> None:
        refusal = self.plan(cut="4 1/4")["refusal"]
        self.assertEqual((refusal["field"], refusal["values"]["smallest"]), ("cut", "4 3/8"))

    def test_every_unreadable_field_at_once(self) -> None:
        problem = self.plan(
            finished="3 7/0", count="0", seam_allowance="", ruler_step="9", fold="1/1234567", expect=422
        )
        self.assertEqual(set(self.codes(problem)), {"finished", "count", "seam_allowance", "ruler_step", "fold"})

    def test_sizes_no_quilter_means(self) -> None:
        for typed in ({"finished": "0"}, {"finished": "400"}, {"seam_allowance": "0"}, {"fold": "1"}, {"stitch": "2"}):
            with self.subTest(typed):
                self.assertEqual(len(self.plan(expect=422, **typed)["errors"]), 1)

    def test_pictures_and_ladder_say_the_same_figures(self) -> None:
        answer = self.plan()
        self.assertEqual([r["name"] for r in answer["ladder"]["rungs"]], ["cut", "raw", "trimmed", "finished"])
        labels = {d["label"] for name in ("cut", "sewn", "trimmed") for d in answer["pictures"][name]["dimensions"]}
        self.assertLessEqual({"4\u00a01⁄2″", "4\u00a09⁄64″", "4″", "3\u00a01⁄2″"}, labels)

    def test_what_the_seam_costs(self) -> None:
        cost = self.plan(units_across="8")["seam_cost"]
        self.assertEqual((cost["seams"], cost["slip"]["text"], cost["cost"]["text"]), (7, "1/32", "7/16"))

    def test_in_millimetres(self) -> None:
        answer = self.plan(measure="mm", finished="90", seam_allowance="6", ruler_step="1", fold="0")
        self.assertEqual(answer["plan"]["cut"]["text"], "114 mm")
        self.assertEqual(answer["plan"]["target"]["pretty"], "102\u00a0mm")
        self.assertIn("cm²", answer["plan"]["cloth"])

    def test_ones_own_seam_tells_how_many_can_be_trimmed(self) -> None:
        unit = self.new_project()["units"][0]["id"]
        self.assertIsNone(self.plan()["plan"]["room_percent"])
        for value in ("9/32", "9/32", "1/4"):
            self.take_down(unit, "stitch_distance", value)
        answer = self.plan()
        self.assertTrue(0 < answer["plan"]["room_percent"] <= 100)
        records = next(o for o in answer["offers"] if o["school"] == "records")
        self.assertGreaterEqual(records["plan"]["room_percent"], 99)
        other = self.plan(seam_allowance="3/8")
        self.assertIsNone(other["plan"]["room_percent"], "seams at another allowance say nothing of this one")


class TrimTest(PlanCase):
    def setUp(self) -> None:
        self.unit = self.new_project()["units"][0]["id"]

    def test_both_ways_in_steps_with_drawings(self) -> None:
        recipes = self.ask("get", f"units/{self.unit}/trim")["recipes"]
        self.assertEqual([(r["code"], len(r["steps"])) for r in recipes], [("opened", 4), ("closed", 4)])
        for recipe in recipes:
            for step in recipe["steps"]:
                self.assertTrue(step["drawing"]["marks"] and step["drawing"]["alt"])

    def test_your_records_reach_the_trim_screen(self) -> None:
        self.change(f"units/{self.unit}", {"school": "records"})
        self.assertEqual(self.ask("get", f"units/{self.unit}/trim", expect=422)["code"], "records_too_few")
        for _ in range(3):
            other = self.new_project()["units"][0]["id"]
            self.take_down(other, "stitch_distance", "1/4")
        self.ask("get", f"units/{self.unit}/trim")
