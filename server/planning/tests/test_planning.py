"""The Plan and Trim screens' data."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from api.tests.api import TYPED, ApiCase


class PlanCase(ApiCase):
    def plan(self, expect: int = 200, **typed: Any) -> Any:
        return self.ask("post", "plan", TYPED | typed, expect=expect)


class WordsTest(PlanCase):
    def test_words_answer_for_every_kind_and_way_the_kinds_name(self) -> None:
        words, kinds = self.ask("get", "words"), self.ask("get", "kinds")
        for kind in kinds:
            self.assertTrue(words["kinds"][kind["name"]]["many"])
            for method in kind["methods"]:
                self.assertTrue(words["methods"][f"{kind['name']}/{method}"]["name"])
        self.assertEqual(words["methods"]["flying_goose/four"]["name"], "Four at a time")
        self.assertEqual(words["methods"]["half_square_triangle/four"]["name"], "Four from a pair")
        self.assertEqual(words["readings"]["row"]["on"], "feature")


class PlanTest(PlanCase):
    def test_the_lantern_unit(self) -> None:
        p = self.plan()["plan"]
        sizes = (p["cuts"]["square"]["text"], p["target"]["text"], p["finished"]["text"])
        self.assertEqual(sizes, ("4 1/2", "4", "3 1/2"))
        self.assertEqual(p["raw"]["exact"], "9/2 - 1/4*sqrt2")
        self.assertTrue(p["raw"]["about"])
        self.assertEqual([(c["role"], c["count"]) for c in p["pieces"]], [("a", 24), ("b", 24)])

    def test_a_blocks_size_is_shared_out_and_the_unused_field_is_not_read(self) -> None:
        p = self.plan(size_basis="block", block_finished="10 1/2", finished="nonsense")["plan"]
        self.assertEqual(p["finished"]["text"], "3 1/2")
        self.plan(block_finished="nonsense")

    def test_schools_side_by_side(self) -> None:
        offers = {o["school"]: o for o in self.plan()["offers"]}
        self.assertEqual(offers["exact"]["plan"]["cuts"]["square"]["text"], "4 3/8")
        self.assertEqual(offers["generous"]["plan"]["cuts"]["square"]["text"], "5")
        self.assertIn("how much should come off", offers["own_margin"]["refusal"])
        self.assertIn("not enough readings", offers["records"]["refusal"])

    def test_a_school_without_its_figure_is_said_beside_the_others(self) -> None:
        answer = self.plan(school="own_margin")
        self.assertIsNone(answer["plan"])
        self.assertEqual((answer["refusal"]["code"], answer["refusal"]["field"]), ("no_margin_given", "own_margin"))
        self.assertEqual(len(answer["offers"]), 5)

    def test_a_cut_too_small_names_the_smallest_that_works(self) -> None:
        refusal = self.plan(cuts={"square": "4 1/4"})["refusal"]
        self.assertEqual((refusal["field"], refusal["values"]["smallest"]), ("cuts.square", "4 3/8"))

    def test_every_unreadable_field_at_once(self) -> None:
        problem = self.plan(
            finished="3 7/0", count="no", seam_allowance="", ruler_step="9", fold="1/1234567", expect=422
        )
        self.assertEqual(set(self.codes(problem)), {"finished", "count", "seam_allowance", "ruler_step", "fold"})

    def test_sizes_no_quilter_means(self) -> None:
        for typed in ({"finished": "0"}, {"finished": "400"}, {"seam_allowance": "0"}, {"fold": "1"}, {"stitch": "2"}):
            with self.subTest(typed):
                self.assertEqual(len(self.plan(expect=422, **typed)["errors"]), 1)

    def test_pictures_and_ladder_say_the_same_figures(self) -> None:
        answer = self.plan()
        self.assertEqual([r["name"] for r in answer["ladders"][0]["rungs"]], ["cut", "raw", "trimmed", "finished"])
        drawn = answer["pictures"]
        drawings = [drawn["sewn"], drawn["trimmed"], *(s["drawing"] for s in drawn["stages"])]
        labels = {d["label"] for drawing in drawings for d in drawing["dimensions"]}
        self.assertLessEqual({"4\u00a01⁄2″", "4\u00a05⁄32″", "4″", "3\u00a01⁄2″"}, labels)

    def test_what_the_seam_costs(self) -> None:
        cost = self.plan(units_across="8")["seam_cost"]
        self.assertEqual((cost["seams"], cost["slip"]["text"], cost["cost"]["text"]), (7, "1/32", "7/16"))

    def test_in_millimetres(self) -> None:
        answer = self.plan(measure="mm", finished="90", seam_allowance="6", ruler_step="1", fold="0")
        self.assertEqual(answer["plan"]["cuts"]["square"]["text"], "114 mm")
        self.assertEqual(answer["plan"]["target"]["pretty"], "102\u00a0mm")
        self.assertIn("cm²", answer["plan"]["cloth"])

    def test_ones_own_seam_tells_how_many_can_be_trimmed(self) -> None:
        unit = self.new_project()["units"][0]["id"]
        self.assertIsNone(self.plan()["plan"]["room_percent"])
        for value in ("9/32", "9/32", "1/4", "9/32"):
            self.take_down(unit, "stitch", value)
        answer = self.plan()
        self.assertTrue(0 < answer["plan"]["room_percent"] <= 100)
        records = next(o for o in answer["offers"] if o["school"] == "records")
        self.assertGreaterEqual(records["plan"]["room_percent"], 99)
        other = self.plan(seam_allowance="3/8")
        self.assertIsNone(other["plan"]["room_percent"], "seams at another allowance say nothing of this one")


class EveryKindTest(PlanCase):
    def test_every_kind_can_be_begun_planned_trimmed_and_compared(self) -> None:
        project = self.new_project()
        for kind in self.ask("get", "kinds"):
            key = str(uuid4())
            added = self.ask("post", f"projects/{project['id']}/units", {"id": key, "kind": kind["name"]}, expect=201)
            unit = next(u for u in added["units"] if u["id"] == key)
            with self.subTest(kind["name"]):
                self.assertEqual(len(unit["part_fabrics"]), len(kind["parts"]))
                self.assertTrue(unit["picture"]["marks"])
                trim = self.ask("get", f"units/{key}/trim")
                self.assertTrue(trim["recipes"][0]["steps"])
                self.ask("get", f"units/{key}/diagnosis")
                typed = {f"corner_{n}": unit[f"corner_{n}"]["text"] for n in range(4)} | {
                    "strip": unit["strip"]["text"]
                }
                choices = TYPED | {
                    "kind": kind["name"],
                    "method": unit["method"],
                    "part_fabrics": unit["part_fabrics"],
                    **typed,
                }
                planned = self.ask("post", "plan", choices)
                self.assertTrue(planned["plan"]["pieces"] and planned["ladders"])
                ways = self.ask("post", "compare", choices)["ways"]
                self.assertEqual(len(ways), 5 * len(kind["methods"]))

    def test_fields_of_other_kinds_are_not_read(self) -> None:
        self.plan(strip="nonsense", corner_0="nonsense", height="nonsense")
        problem = self.plan(
            kind="strip_split_square", method="strip", part_fabrics=["a", "a", "b"], strip="nonsense", expect=422
        )
        self.assertEqual(self.codes(problem), {"strip": "length_not_understood"})

    def test_what_a_kind_refuses(self) -> None:
        goose: dict[str, Any] = {
            "kind": "flying_goose",
            "method": "four",
            "part_fabrics": ["a", "b", "b"],
            "finished": "6",
            "height": "2",
        }
        self.assertEqual(self.plan(**goose, expect=422)["code"], "ratio_not_possible")
        corners: dict[str, Any] = {
            "kind": "corner_triangle",
            "method": "flipped_corners",
            "part_fabrics": list("abbbb"),
        }
        sizes: dict[str, Any] = {"corner_0": "3", "corner_1": "2", "corner_2": "0", "corner_3": "0"}
        self.assertEqual(self.plan(**corners, **sizes, expect=422)["code"], "corners_overlap")
        strip: dict[str, Any] = {
            "kind": "strip_split_square",
            "method": "strip",
            "part_fabrics": ["a", "a", "b"],
            "strip": "5",
        }
        self.assertEqual(self.plan(**strip, expect=422)["code"], "strip_does_not_fit")
        self.assertEqual(self.plan(method="by_magic", expect=422)["code"], "unknown_choice")
        self.plan(kind="octagon", expect=400)

    def test_hands_are_counted(self) -> None:
        split: dict[str, Any] = {
            "kind": "split_quarter_square_triangle",
            "method": "unit_and_square",
            "part_fabrics": ["a", "b", "c"],
        }
        p = self.plan(**split, count="24")["plan"]
        self.assertEqual((p["made_as_drawn"], p["made_mirrored"], p["handed"]), (24, 24, True))
        self.assertIn("half_of_each_hand", [n["code"] for n in p["notes"] if n["serious"]])
        self.assertEqual(self.plan(**split, count="12", mirrored="12")["plan"]["spare"], 0)

    def test_a_ring_that_does_not_fit_the_kind_is_replaced_by_the_usual_one(self) -> None:
        answer = self.plan(kind="flying_goose", method="four", part_fabrics=["a"], finished="4")
        self.assertEqual({p["role"] for p in answer["plan"]["pieces"]}, {"a", "b"})


class CompareTest(PlanCase):
    def compare(self, expect: int = 200, **typed: Any) -> Any:
        return self.ask("post", "compare", TYPED | typed, expect=expect)

    def test_the_recommended_way_comes_first_with_its_reason(self) -> None:
        answer = self.compare()
        first = answer["ways"][0]
        self.assertEqual(first["drawbacks"], [])
        self.assertIn("to trim", answer["reason"])
        self.assertEqual(first["ruler"], "Small square")
        self.assertIsNone(first["at_hand"])

    def test_pieces_at_hand(self) -> None:
        ways = self.compare(at_hand="40 of 5 x 5")["ways"]
        self.assertEqual((ways[0]["method"], ways[0]["at_hand"], ways[0]["largest"]["text"]), ("pair", 80, "4"))
        problem = self.compare(at_hand="a drawer full", expect=422)
        self.assertEqual(self.codes(problem), {"at_hand": "holding_not_understood"})

    def test_without_a_ruler_that_will_do(self) -> None:
        for ruler in self.ask("get", "workroom")["rulers"]:
            self.ask("delete", f"rulers/{ruler['id']}")
        self.assertIsNone(self.compare()["ways"][0]["ruler"])
        self.ask("put", f"rulers/{uuid4()}", {"changes": {"name": "Tiny", "width": "3", "height": "3"}})
        self.assertEqual(self.compare()["ways"][0]["ruler"], "")


class TrimTest(PlanCase):
    def setUp(self) -> None:
        self.unit = self.new_project()["units"][0]["id"]

    def test_both_ways_in_steps_with_drawings(self) -> None:
        recipes = self.ask("get", f"units/{self.unit}/trim")["recipes"]
        self.assertEqual([(r["code"], len(r["steps"])) for r in recipes], [("opened", 4), ("closed", 4), ("folded", 4)])
        for recipe in recipes:
            for step in recipe["steps"]:
                self.assertTrue(step["drawing"]["marks"] and step["drawing"]["alt"])

    def test_your_records_reach_the_trim_screen(self) -> None:
        self.change(f"units/{self.unit}", {"school": "records"})
        self.assertEqual(self.ask("get", f"units/{self.unit}/trim", expect=422)["code"], "records_too_few")
        for _ in range(4):
            other = self.new_project()["units"][0]["id"]
            self.take_down(other, "stitch", "1/4")
        self.ask("get", f"units/{self.unit}/trim")

    def test_the_hand_that_cuts_and_the_rulers_owned_decide_the_recipe(self) -> None:
        self.change("workroom", {"cutter": "left"})
        trim = self.ask("get", f"units/{self.unit}/trim")
        self.assertEqual(trim["cutter"], "left")
        self.assertIn("left side", trim["recipes"][0]["steps"][1]["how"])
        self.change(f"units/{self.unit}", {"finished": "18"})
        self.assertEqual(self.ask("get", f"units/{self.unit}/trim")["recipes"][0]["code"], "folded")

    def test_raw_units_measured_say_what_margin_there_really_is(self) -> None:
        self.assertIsNone(self.ask("get", f"units/{self.unit}/trim")["margin_read"])
        for value in ("4 1/8", "4 1/16"):
            self.take_down(self.unit, "raw_width", value)
        trim = self.ask("get", f"units/{self.unit}/trim")
        self.assertEqual((trim["margin_read"]["text"], trim["raw_readings"]), ("3/64", 2))

    def test_what_a_true_unit_shows(self) -> None:
        self.change(f"units/{self.unit}", {"kind": "flying_goose"})
        expectation = self.ask("get", f"units/{self.unit}/trim")["expectation"]
        self.assertIn("looks wrong and is right", expectation["reassures"])
        self.assertEqual(
            expectation["marks"][0],
            {
                "name": "tip of the goose",
                "side": "top",
                "distance": {"exact": "1/4", "text": "1/4", "pretty": "1⁄4″", "about": False},
            },
        )
