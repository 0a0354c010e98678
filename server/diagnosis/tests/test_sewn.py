"""A block measured, judged, tried and kept, over the wire."""

from __future__ import annotations

from io import StringIO
from typing import Any
from uuid import UUID, uuid4

from django.core.management import call_command
from django.test import TestCase
from rest_framework.test import APIClient

from blocks.models import Block
from sewn.models import Kept, Measured


class SewnCase(TestCase):
    key: UUID

    @classmethod
    def setUpTestData(cls) -> None:
        call_command("lantern_deck", verbosity=0, stdout=StringIO())
        cls.key = Block.objects.get(pattern__name="Lantern").pk

    def setUp(self) -> None:
        self.http = APIClient()
        self.block = Block.objects.get(pk=self.key)
        self.path = f"/api/blocks/{self.block.pk}"

    def ask(self, how: str, path: str, body: Any = None, status: int = 200) -> Any:
        answer = getattr(self.http, how)(path, body, format="json")
        self.assertEqual(answer.status_code, status, answer.content[:600])
        return answer.json()

    def clear(self) -> None:
        Measured.objects.all().delete()

    def put(self, status: int = 200, **changes: Any) -> Any:
        key = uuid4()
        body = {"changes": {k: str(v) for k, v in changes.items()}, "seen": {}}
        return self.ask("put", f"{self.path}/measured/{key}", body, status)


class MeasuredTest(SewnCase):
    def test_without_readings_nothing_is_judged_and_the_first_is_proposed(self) -> None:
        self.clear()
        sheet = self.ask("get", f"{self.path}/sewn")
        self.assertEqual(sheet["verdict"]["status"], "no_readings")
        self.assertTrue(sheet["next"][0]["said"])
        self.assertEqual(sheet["faults"], [])
        kinds = [b["kind"] for b in sheet["places"]["batches"]]
        self.assertEqual(kinds, ["half_square_triangle", "quarter_square_triangle", "plain_square"])

    def test_a_gap_may_lie_below_zero_and_a_width_may_not(self) -> None:
        self.clear()
        sheet = self.ask("get", f"{self.path}/sewn")
        corner = next(f for f in sheet["places"]["features"] if f["kind"] == "corner_tip")
        put = self.put(kind="corner_tip", value="-1/16", feature=corner["key"])
        self.assertEqual(put["readings"][0]["text"], "-1/16")
        problem = self.put(422, kind="width", value="-4", batch=0)
        self.assertIn("above zero", problem["errors"][0]["message"])
        self.assertEqual(Measured.objects.count(), 1)

    def test_a_reading_of_another_block_is_refused_in_words(self) -> None:
        for typed in (
            {"kind": "row", "value": "11", "feature": "row:9:top"},
            {"kind": "stitch", "value": "1/4", "seam": 99, "spot": "middle"},
            {"kind": "clearance", "value": "1/4", "batch": 0},
            {"kind": "width", "value": "4", "cell": 77},
        ):
            with self.subTest(**typed):
                problem = self.put(422, **typed)
                self.assertEqual(problem["errors"][0]["code"], "reading_misplaced")

    def test_readings_that_lost_their_place_are_named_and_not_used(self) -> None:
        self.clear()
        Measured.objects.create(block=self.block, kind="width", value="4", cell=200)
        self.put(kind="width", value="4", batch=0)
        sheet = self.ask("get", f"{self.path}/sewn")
        self.assertEqual((len(sheet["misplaced"]), len(sheet["readings"])), (1, 1))
        self.assertIn("Pick it", sheet["misplaced"][0]["why"])

    def test_changed_deleted_restored(self) -> None:
        self.clear()
        key = uuid4()
        path = f"{self.path}/measured/{key}"
        self.ask("put", path, {"changes": {"kind": "width", "value": "4", "batch": "0"}, "seen": {}})
        sheet = self.ask("put", path, {"changes": {"value": "4 1/16"}, "seen": {"value": "4"}})
        self.assertEqual(sheet["readings"][0]["text"], "4 1/16")
        self.assertEqual(self.ask("delete", path)["readings"], [])
        self.assertEqual(len(self.ask("post", f"{path}/restore")["readings"]), 1)

    def test_a_mistyped_reading_is_asked_about_until_it_is_confirmed(self) -> None:
        self.clear()
        for value in ("4", "4 1/32", "3 31/32", "4"):
            self.put(kind="width", value=value, batch=0)
        sheet = self.put(kind="width", value="3 3/4", batch=0)
        odd = [r for r in sheet["readings"] if r["odd"]]
        self.assertEqual([r["text"] for r in odd], ["3 3/4"])
        self.assertIn("a quarter apart", odd[0]["odd"])
        sheet = self.ask("put", f"{self.path}/measured/{odd[0]['id']}", {"changes": {"confirmed": "true"}, "seen": {}})
        self.assertEqual([r for r in sheet["readings"] if r["odd"]], [])


class JudgedTest(SewnCase):
    def test_the_demo_block_is_not_settled_until_the_reading_asked_for_is_taken(self) -> None:
        sheet = self.ask("get", f"{self.path}/sewn")
        self.assertEqual(sheet["verdict"]["status"], "unsettled")
        asked = sheet["next"][0]
        self.assertEqual(asked["kind"], "miss")
        self.assertGreater(len(asked["outcomes"]), 1)
        fields = {k: asked[k] for k in ("kind", "cell", "corner", "batch")}
        settled = self.put(value="1/16", **fields)
        self.assertEqual(settled["verdict"]["status"], "several")
        named = {settled["verdict"][k]["key"] for k in ("leading", "beside")}
        self.assertEqual(named, {"seam", "shift:0"})
        advised = [r["code"] for r in settled["the_batch"]]
        self.assertTrue({"move_guide", "shift:0"} <= set(advised), advised)

    def test_a_remedy_is_tried_on_the_drawing_before_it_is_done(self) -> None:
        sheet = self.ask("get", f"{self.path}/sewn")
        remedy = next(
            r for r in sheet["this_block"] if r["can_try"] and r["possible"] and r["left"] < len(sheet["faults"])
        )
        tried = self.ask("get", f"{self.path}/sewn?tried={remedy['code']}&factor=8")
        self.assertEqual(tried["tried"], remedy["code"])
        self.assertLess(len(tried["faults"]), len(sheet["faults"]))
        self.assertNotEqual(tried["drawing"]["marks"], sheet["drawing"]["marks"])
        self.assertEqual(self.ask("get", f"{self.path}/sewn")["tried"], "")

    def test_every_reading_shows_its_working_and_it_adds_up(self) -> None:
        sheet = self.ask("get", f"{self.path}/sewn")
        self.assertEqual(len(sheet["workings"]), len(sheet["readings"]))
        for w in sheet["workings"]:
            self.assertIn("theory.md", w["section"])
            self.assertTrue(w["equation"])

    def test_kept_and_compared_with_what_turned_out(self) -> None:
        key = uuid4()
        path = f"{self.path}/kept/{key}"
        sheet = self.ask("put", path)
        self.ask("put", path)
        self.assertEqual((len(sheet["kept"]), Kept.objects.count()), (1, 1))
        self.assertTrue(sheet["kept"][0]["said"]["readings"])
        changed = {"changes": {"turned_out": "right", "later": "the ruler lay off the seam"}, "seen": {}}
        kept = self.ask("patch", path, changed)["kept"][0]
        self.assertEqual((kept["turned_out"], kept["later"]), ("right", "the ruler lay off the seam"))
        self.ask("patch", path, {"changes": {"turned_out": "maybe"}, "seen": {}}, 422)
        self.assertEqual(self.ask("patch", path, {"changes": {"deleted": True}, "seen": {}})["kept"], [])
        self.ask("patch", f"{self.path}/kept/{uuid4()}", {"changes": {}, "seen": {}}, 404)


class WhatIfTest(SewnCase):
    def test_what_a_seam_costs(self) -> None:
        tried = self.ask("post", f"{self.path}/what-if", {"causes": {"seam": 1 / 32}, "factor": 4})
        self.assertEqual((tried["seams_across"], tried["across"]["text"]), (2, "-1/8"))
        self.assertEqual(tried["width"]["text"], "-1/8")
        # Three blocks across with sashing between: 3 x 1/8 and four seams more.
        self.assertEqual(tried["quilt_across"]["text"], "-5/8")
        self.assertIsNone(tried["of_many"])

    def test_many_blocks(self) -> None:
        tried = self.ask("post", f"{self.path}/what-if", {"causes": {"shift:0": 0.0625}, "blocks": 4000})
        many = tried["of_many"]
        self.assertEqual(sum(many["histogram"]), 4000)
        self.assertGreater(many["corners_off"], 0.25)
        self.assertIsNone(many["tips_cut"])
        self.assertTrue(any(r["school"] == "exact" and r["share"] is not None for r in tried["rooms"]))

    def test_causes_this_block_has_not_are_passed_over_and_large_ones_refused(self) -> None:
        tried = self.ask("post", f"{self.path}/what-if", {"causes": {"tip:7": 0.1}})
        self.assertEqual(tried["faults"], [])
        self.ask("post", f"{self.path}/what-if", {"causes": {"seam": 3}}, 400)
        self.ask("post", f"{self.path}/what-if", {"causes": {}, "blocks": 10_000_000}, 400)

    def test_a_layout_with_empty_places_is_refused_in_words(self) -> None:
        pattern = {**self.block.pattern, "layout": [". " + row[2:] for row in self.block.pattern["layout"]]}
        Block.objects.filter(pk=self.block.pk).update(pattern=pattern)
        problem = self.ask("get", f"{self.path}/sewn", status=422)
        self.assertIn("empty", problem["errors"][0]["message"])


class ByHandTest(SewnCase):
    def test_sizes_typed_by_hand_without_a_project(self) -> None:
        readings = [{"kind": "stitch", "value": v, "spot": "middle"} for v in ("5/16", "5/16", "5/16", "9/32")]
        readings += [{"kind": "width", "value": "4"}] * 3 + [{"kind": "cut", "value": "4 1/2"}] * 2
        readings += [{"kind": "miss", "value": "0"}] * 2
        sheet = self.ask("post", "/api/diagnosis", {"finished": "3 1/2", "readings": readings})
        self.assertEqual(sheet["verdict"]["leading"]["cause"], "seam")
        self.assertEqual(len(sheet["workings"]), len(readings))

    def test_every_field_that_cannot_be_read_is_named(self) -> None:
        body = {
            "finished": "wide",
            "readings": [{"kind": "width", "value": "4"}, {"kind": "width", "value": "x"}, {"kind": "?"}],
        }
        problem = self.ask("post", "/api/diagnosis", body, 422)
        self.assertEqual([e["field"] for e in problem["errors"]], ["finished", "readings.1", "readings.2"])

    def test_sizes_that_cannot_be_are_refused_in_words(self) -> None:
        for body, said in (
            ({"finished": "0"}, "finishes between"),
            ({"finished": "400"}, "finishes between"),
            ({"finished": "3 1/2", "seam_allowance": "2"}, "at most 1 in."),
        ):
            with self.subTest(body):
                self.assertIn(said, self.ask("post", "/api/diagnosis", body, 422)["errors"][0]["message"])

    def test_one_reading_and_five_thousand(self) -> None:
        one = self.ask("post", "/api/diagnosis", {"finished": "3 1/2", "readings": [{"kind": "width", "value": "4"}]})
        self.assertEqual(one["verdict"]["status"], "unsettled")
        many = self.ask(
            "post", "/api/diagnosis", {"finished": "3 1/2", "readings": [{"kind": "width", "value": "4"}] * 5000}
        )
        self.assertEqual(len(many["workings"]), 5000)


class SymptomsTest(SewnCase):
    def test_every_end_says_what_to_measure_or_to_see(self) -> None:
        found = self.ask("get", "/api/symptoms")
        firsts = [s for s in found if not s["under"]]
        self.assertTrue(4 <= len(firsts) <= 7)
        for s in found:
            further = [f for f in found if f["under"] == s["code"]]
            with self.subTest(s["code"]):
                self.assertTrue(further or s["measure"] or s["observe"])
                self.assertTrue(s["picture"]["marks"])
                self.assertNotEqual(s["picture"]["marks"], s["true_picture"]["marks"])


class SheetsTest(SewnCase):
    def post(self, text: str, status: int = 200) -> Any:
        return self.ask("post", f"{self.path}/measured.csv", {"text": text}, status)

    def test_out_and_in_again(self) -> None:
        self.clear()
        sheet = self.ask("get", f"{self.path}/sewn")
        corner = next(f["key"] for f in sheet["places"]["features"] if f["kind"] == "corner_tip")
        self.put(kind="corner_tip", value="-1/16", feature=corner)
        self.put(kind="width", value="4 1/32", cell=2, note="=2+2")
        text = self.http.get(f"{self.path}/measured.csv").content.decode()
        self.assertNotIn(",-", text)
        self.assertIn("'=2+2", text)
        before = [(r["text"], r["said"]) for r in self.ask("get", f"{self.path}/sewn")["readings"]]
        self.clear()
        self.assertEqual(self.post(text)["added"], 2)
        after = [(r["text"], r["said"]) for r in self.ask("get", f"{self.path}/sewn")["readings"]]
        self.assertEqual(after, before)

    def test_good_lines_go_in_and_broken_ones_are_named(self) -> None:
        self.clear()
        done = self.post("\ufeffkind;value;batch\nwidth;4,03125;0\nwidth;broad;0\nrow;11;0\nheight;4;0\n")
        self.assertEqual((done["added"], [r["line"] for r in done["refused"]]), (2, [3, 4]))

    def test_five_thousand_and_no_more(self) -> None:
        self.clear()
        head = "kind,value,batch\n"
        self.assertEqual(self.post(head + "width,4,0\n" * 4_900)["added"], 4_900)
        done = self.post(head + "width,4,0\n" * 150)
        self.assertEqual((done["added"], len(done["refused"])), (100, 50))
        sheet = self.ask("get", f"{self.path}/sewn")
        self.assertEqual(len(sheet["readings"]), 5_000)


class StockTest(SewnCase):
    def test_units_made_again_are_asked_of_the_stock(self) -> None:
        self.clear()
        for cell in (0, 2, 6, 8):
            self.put(kind="width", value="3 7/8", cell=cell)
            self.put(kind="height", value="3 7/8", cell=cell)
        sheet = self.ask("get", f"{self.path}/sewn")
        again = next(r for r in sheet["this_block"] if r["code"].startswith("make_again"))
        self.assertIn("The stock holds them (Buoy, Fog)", again["stock"])
        self.assertTrue(again["pieces"])
