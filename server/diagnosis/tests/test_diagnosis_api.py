"""A block measured, judged, tried and kept, over the wire."""

from __future__ import annotations

from itertools import product
from typing import Any
from uuid import UUID, uuid4

from django.test import TestCase
from rest_framework.test import APIClient

from blocks.models import Block
from blocks.translate import find_in, pattern_of
from demo.tests.data import put_demo
from diagnosis.models import SavedDiagnosis
from diagnosis.subjects import Subject
from measuring.models import ReadingRow
from measuring.translate import typed_readers
from piecing.blocks import editing
from piecing.blocks.file_format import pattern_data
from piecing.blocks.pattern import UnitPlacement
from piecing.diagnosis.causes import parameters_of, shape_of
from piecing.diagnosis.equations import equation_of
from piecing.diagnosis.reading_kinds import ReadingKind
from piecing.diagnosis.readings import Reading
from piecing.lengths import Measure, inches

HST = "half_square_triangle 7/2 x 7/2"


class DiagnosisCase(TestCase):
    key: UUID

    @classmethod
    def setUpTestData(cls) -> None:
        put_demo()
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
        ReadingRow.objects.all().delete()

    def put(self, status: int = 200, **changes: Any) -> Any:
        key = uuid4()
        body = {"changes": {k: str(v) for k, v in changes.items()}, "seen": {}}
        return self.ask("put", f"{self.path}/readings/{key}", body, status)


class MeasuredTest(DiagnosisCase):
    def test_without_readings_nothing_is_judged_and_the_first_is_proposed(self) -> None:
        self.clear()
        sheet = self.ask("get", f"{self.path}/diagnosis")
        self.assertEqual(sheet["verdict"]["status"], "no_readings")
        self.assertTrue(sheet["next"][0]["said"])
        self.assertEqual(sheet["faults"], [])
        kinds = [b["kind"] for b in sheet["places"]["batches"]]
        self.assertEqual(kinds, ["half_square_triangle", "quarter_square_triangle", "plain_square"])

    def numbered(self, sheet: Any) -> tuple[list[int], list[int]]:
        """The numbers on the drawing and those of the list."""
        drawn = sorted(int(d["label"]) for d in sheet["drawing"]["dimensions"] if d["label"].isdigit())
        return drawn, sorted(f["number"] for f in sheet["faults"])

    def test_the_drawing_bears_the_numbers_of_the_list(self) -> None:
        """Units of which one side is off, or both, are faults of the block."""
        one_side, both = (("width", "3 15/16"), ("height", "4")), (("width", "3 3/4"), ("height", "3 3/4"))
        for taken in (one_side, both):
            self.clear()
            for kind, value in taken * 4:
                sheet = self.put(kind=kind, value=value, batch=HST)
            with self.subTest(taken):
                drawn, listed = self.numbered(sheet)
                self.assertEqual(drawn, listed[: len(drawn)])
                self.assertEqual(sheet["verdict"]["status"], "mistake")
                self.assertTrue(listed)

    def test_a_side_is_picked_and_a_width_has_none(self) -> None:
        self.clear()
        sheet = self.ask("get", f"{self.path}/diagnosis")
        corner = next(f for f in sheet["places"]["features"] if f["kind"] == "corner_tip")
        self.assertEqual([x["code"] for x in corner["landings"]], ["across", "down"])
        put = self.put(kind="corner_tip", value="1/16", lands="down", feature=corner["key"])
        self.assertEqual(
            (put["readings"][0]["text"], put["readings"][0]["lands"]), ("1/16", corner["landings"][1]["said"])
        )
        self.assertEqual(ReadingRow.objects.get().value, -inches("1/16"))
        problem = self.put(422, kind="corner_tip", value="1/16", lands="sideways", feature=corner["key"])
        self.assertIn("Say on which side", problem["errors"][0]["message"])
        problem = self.put(422, kind="width", value="-4", batch=HST)
        self.assertIn("above zero", problem["errors"][0]["message"])
        self.assertEqual(ReadingRow.objects.count(), 1)

    def test_seams_pressed_open_fold_half_as_much(self) -> None:
        """Two open seams across the row give back half a fold each: the row that a fold of 1/32 short is expected."""
        self.clear()
        self.block.project.fold = inches("1/32")
        self.block.project.save()
        before = Subject(self.block.project, block=self.block).scene.model
        upright = [s.name for s in before.places.seams if s.upright and s.start[0] > 0]
        body = {"changes": {"sewn_open": [*upright, "a seam of another block"]}, "seen": {}}
        project = self.block.project_id
        self.ask("put", f"/api/projects/{project}/blocks/{self.key}", body)
        sheet = self.ask("get", f"{self.path}/diagnosis")
        opened = [s["name"] for s in sheet["places"]["seams"] if s["pressed_open"]]
        self.assertEqual(sorted(opened), sorted(upright))
        after = Subject(self.block.project, block=Block.objects.get(pk=self.key)).scene.model
        n = after.find("row 1, middle") or 0
        fold = {c.cause.value: k for k, c in enumerate(parameters_of(after))}["fold"]
        one, other = ((m.matrix @ shape_of(m))[n, fold] for m in (before, after))
        # Three units in a row: two seams between them, each side of each loses half of the fold.
        self.assertAlmostEqual(one, -2.0)
        self.assertAlmostEqual(other, -1.0)
        self.ask("put", f"/api/projects/{project}/blocks/{self.key}", {"changes": {"sewn_open": 7}, "seen": {}}, 422)

    def test_a_reading_of_another_block_is_refused_in_words(self) -> None:
        for typed in (
            {"kind": "row", "value": "11", "feature": "row 9, top"},
            {"kind": "stitch", "value": "1/4", "seam": "row 99 seam 1", "spot": "middle"},
            {"kind": "clearance", "value": "1/4", "batch": HST},
            {"kind": "width", "value": "4", "at_unit": "c77r1"},
        ):
            with self.subTest(**typed):
                problem = self.put(422, **typed)
                self.assertEqual(problem["errors"][0]["code"], "reading_misplaced")

    def test_readings_that_lost_their_place_are_named_and_not_used(self) -> None:
        self.clear()
        self.put(kind="width", value="4", at_unit="c1r1")
        self.put(kind="width", value="4", at_unit="c3r3")
        self.put(kind="row", value="11", feature="row 1, middle")
        # Another unit is laid in the first place: what was read there is of something else now.
        self.lay_plain_square()
        sheet = self.ask("get", f"{self.path}/diagnosis")
        self.assertEqual([r["kind"] for r in sheet["readings"]], ["width"])
        self.assertEqual(len(sheet["misplaced"]), 2)
        self.assertIn("no longer in the block", sheet["misplaced"][0]["why"])

    def lay_plain_square(self) -> None:
        """As laying out does it: the pattern edited, then written."""
        pattern = pattern_of(self.block, find_in(self.block.project.workroom))
        edited = editing.placed(pattern, [(0, 0)], UnitPlacement("plain_square", ("a",)))
        Block.objects.filter(pk=self.block.pk).update(pattern=pattern_data(edited))

    def test_what_is_read_on_a_unit_counts_for_the_block_and_seams_for_both(self) -> None:
        self.clear()
        unit = self.block.project.units.get(kind="half_square_triangle")
        path = f"/api/units/{unit.pk}"
        for kind, value in (("width", "4 1/32"), ("stitch", "9/32"), ("row", "10 3/4")):
            body = {"changes": {"kind": kind, "value": value}, "seen": {}}
            self.ask("put", f"{path}/readings/{uuid4()}", body)
        here, there = (self.ask("get", f"{p}/diagnosis") for p in (self.path, path))
        self.assertEqual((len(here["readings"]), here["elsewhere"]), (0, 3))
        self.assertEqual((len(there["readings"]), there["elsewhere"]), (3, 0))
        working = self.ask("get", f"{self.path}/diagnosis/working")
        self.assertEqual(len(working["readings"]), 3)
        self.assertTrue(there["ladders"])
        self.assertIsNotNone(next(r for r in there["readings"] if r["kind"] == "width")["pin"])
        self.put(kind="stitch", value="5/16", seam="row 1 seam 1")
        self.assertEqual(self.ask("get", f"{path}/diagnosis")["elsewhere"], 1)

    def test_four_typed_in_a_second_are_all_kept_and_one_sent_twice_is_one(self) -> None:
        self.clear()
        keys = [uuid4() for _ in range(4)]
        for key in [*keys, keys[0], keys[0]]:
            body = {"changes": {"kind": "width", "value": "4", "batch": HST}, "seen": {}}
            sheet = self.ask("put", f"{self.path}/readings/{key}", body)
        self.assertEqual(len(sheet["readings"]), 4)

    def test_the_readings_of_another_subject_are_not_here(self) -> None:
        key = ReadingRow.objects.filter(block=self.block).first().pk  # type: ignore[union-attr]
        unit = self.block.project.units.first()
        assert unit is not None
        self.ask("delete", f"/api/units/{unit.pk}/readings/{key}", status=404)
        self.ask("get", f"/api/quilts/{unit.pk}/diagnosis", status=404)

    def test_changed_deleted_restored(self) -> None:
        self.clear()
        key = uuid4()
        path = f"{self.path}/readings/{key}"
        self.ask("put", path, {"changes": {"kind": "width", "value": "4", "batch": HST}, "seen": {}})
        sheet = self.ask("put", path, {"changes": {"value": "4 1/16"}, "seen": {"value": "4"}})
        self.assertEqual(sheet["readings"][0]["text"], "4 1/16")
        self.assertEqual(self.ask("delete", path)["readings"], [])
        self.assertEqual(len(self.ask("post", f"{path}/restore")["readings"]), 1)

    def test_a_mistyped_reading_is_asked_about_until_it_is_confirmed(self) -> None:
        self.clear()
        for value in ("4", "4 1/32", "3 31/32", "4"):
            self.put(kind="width", value=value, batch=HST)
        sheet = self.put(kind="width", value="3 1/2", batch=HST)
        odd = [r for r in sheet["readings"] if r["odd"]]
        self.assertEqual([r["text"] for r in odd], ["3 1/2"])
        self.assertIn("half an inch apart", odd[0]["odd"])
        path = f"{self.path}/readings/{odd[0]['id']}"
        sheet = self.ask("put", path, {"changes": {"confirmed": "true"}, "seen": {}})
        self.assertEqual([r for r in sheet["readings"] if r["odd"]], [])
        sheet = self.ask("put", path, {"changes": {"confirmed": ""}, "seen": {}})
        self.assertEqual(len([r for r in sheet["readings"] if r["odd"]]), 1)


class JudgedTest(DiagnosisCase):
    def test_the_demo_block_asks_for_the_reading_that_finds_the_other_cause(self) -> None:
        sheet = self.ask("get", f"{self.path}/diagnosis")
        self.assertEqual(sheet["verdict"]["leading"]["cause"], "seam")
        asked = sheet["next"][0]
        self.assertEqual((asked["kind"], asked["needed"]), ("miss", True))
        self.assertTrue(asked["outcomes"])
        scene = Subject(self.block.project, block=self.block).scene
        for unit in ("c1r1", "c3r1", "c1r3", "c3r3"):
            corner = next(c["corners"][0]["corner"] for c in sheet["places"]["cells"] if c["key"] == unit)
            # All slipped the same way as they are made; on which side that shows depends on how each is turned.
            e = equation_of(Reading(ReadingKind.MISS, inches(1), unit=unit, corner=corner), scene.model, inches("1/32"))
            slip = next(n for n, p in enumerate(parameters_of(scene.model)) if p.key == "shift-0")
            lands = "across" if e.of_causes[slip] > 0 else "down"
            settled = self.put(kind="miss", value="3/32", at_unit=unit, corner=corner, lands=lands)
        named = {settled["verdict"][k]["cause"] for k in ("leading", "beside") if settled["verdict"][k]}
        self.assertEqual(named, {"seam", "shift"})
        self.assertIn("move_guide", [r["code"] for r in settled["the_batch"]])

    def test_a_remedy_is_tried_beside_the_block_as_it_is(self) -> None:
        sheet = self.ask("get", f"{self.path}/diagnosis")
        self.assertIsNone(sheet["before"])
        remedy = next(r for r in sheet["this_block"] if r["can_try"] and r["possible"])
        self.assertEqual(sheet["first"], next(r["title"] for r in sheet["this_block"] if r["possible"]))
        tried = self.ask("get", f"{self.path}/diagnosis?tried={remedy['code']}&factor=8")
        self.assertEqual(tried["tried"], remedy["code"])
        self.assertLess(len(tried["faults"]), len(sheet["faults"]))
        self.assertNotEqual(tried["drawing"]["marks"], tried["before"]["marks"])
        self.assertEqual(self.ask("get", f"{self.path}/diagnosis")["tried"], "")
        self.assertEqual(remedy["quilt_minutes"], 12 * remedy["minutes"])

    def test_every_reading_shows_its_working_and_it_adds_up(self) -> None:
        sheet = self.ask("get", f"{self.path}/diagnosis")
        # Of the twenty seams read in one lot, alike in all, the newest are weighed.
        total = len(sheet["readings"]) + sheet["elsewhere"]
        working = self.ask("get", f"{self.path}/diagnosis/working")
        self.assertTrue(total - 12 < len(working["readings"]) < total)
        for w in working["readings"]:
            self.assertIn("docs/theory", w["section"])
            self.assertTrue(w["equation"])
        self.assertTrue(any(s["parts"] for s in working["shares"]))

    def test_the_working_of_what_cannot_be_sewn_or_is_not_there(self) -> None:
        self.ask("get", f"/api/blocks/{uuid4()}/diagnosis/working", status=404)
        pattern = {**self.block.pattern, "layout": [". " + row[2:] for row in self.block.pattern["layout"]]}
        Block.objects.filter(pk=self.block.pk).update(pattern=pattern)
        problem = self.ask("get", f"{self.path}/diagnosis/working", status=422)
        self.assertIn("empty", problem["errors"][0]["message"])

    def test_kept_and_compared_with_what_turned_out(self) -> None:
        key = uuid4()
        path = f"{self.path}/saved/{key}"
        sheet = self.ask("put", path)
        self.ask("put", path)
        self.assertEqual((len(sheet["saved"]), SavedDiagnosis.objects.filter(block__isnull=False).count()), (1, 1))
        self.assertTrue(sheet["saved"][0]["said"]["readings"])
        changed = {"changes": {"turned_out": "right", "later": "the ruler lay off the seam"}, "seen": {}}
        kept = self.ask("patch", path, changed)["saved"][0]
        self.assertEqual((kept["turned_out"], kept["later"]), ("right", "the ruler lay off the seam"))
        self.ask("patch", path, {"changes": {"turned_out": "maybe"}, "seen": {}}, 422)
        self.assertEqual(self.ask("patch", path, {"changes": {"deleted": True}, "seen": {}})["saved"], [])
        self.assertEqual(self.ask("patch", path, {"changes": {"deleted": False}, "seen": {}})["saved"], [kept])
        self.ask("patch", f"{self.path}/saved/{uuid4()}", {"changes": {}, "seen": {}}, 404)

    def test_what_is_kept_as_advised_is_what_is_done_first(self) -> None:
        sheet = self.ask("put", f"{self.path}/saved/{uuid4()}")
        self.assertTrue(sheet["first"])
        self.assertEqual(sheet["saved"][-1]["said"]["this_block"][0], sheet["first"])
        self.clear()
        for _ in range(2):
            self.put(kind="width", value="4", batch=HST)
        key = uuid4()
        sheet = self.ask("put", f"{self.path}/saved/{key}")
        self.assertEqual((sheet["verdict"]["status"], sheet["first"]), ("unsettled", ""))
        self.assertIn("leave", [r["code"] for r in sheet["this_block"]])
        said = next(k["said"] for k in sheet["saved"] if k["id"] == str(key))
        self.assertEqual(said["this_block"], [])


class SomeSeamsTest(DiagnosisCase):
    """Lantern is sewn in rows: of its two long seams both read 5/16, those within its rows 1/4."""

    def test_they_are_named_in_verdict_remedy_and_working(self) -> None:
        self.clear()
        for seam in ("the seam below row 1", "the seam below row 2"):
            self.put(kind="stitch", value="5/16", seam=seam)
        for n in (1, 2, 3):
            self.put(kind="stitch", value="1/4", seam=f"row {n} seam 1")
        for n in (1, 2, 3):
            sheet = self.put(kind="column", value="10 3/4", feature=f"column {n}, middle")
        self.assertEqual(sheet["verdict"]["leading"]["cause"], "some_seams")
        self.assertIn("the seams between the rows are 1⁄16″ wide", sheet["verdict"]["said"])
        self.assertIn("Sew the seams between the rows again", sheet["this_block"][0]["title"])
        self.assertEqual(sheet["the_batch"], [])
        (lead,) = [x for x in sheet["verdict"]["leads"] if x["parameter"]["cause"] == "some_seams"][:1]
        self.assertEqual(lead["where"], "between the rows")
        self.assertEqual({x["where"] for x in sheet["verdict"]["leads"] if x["parameter"]["cause"] == "seam"}, {""})


class WhatIfTest(DiagnosisCase):
    def test_what_a_seam_costs(self) -> None:
        tried = self.ask("post", f"{self.path}/what-if", {"causes": {"seam": 1 / 32}, "factor": 4})
        self.assertEqual((tried["seams_across"], tried["across"]["text"]), (2, "1/8"))
        self.assertEqual(tried["width"], "1⁄8″ short")
        # Three blocks across with sashing between: 3 x 1/8 and four seams more.
        self.assertEqual(tried["quilt_across"]["text"], "5/8")
        self.assertIsNone(tried["of_many"])
        # Of a fold each fabric loses half.
        self.assertEqual(self.ask("post", f"{self.path}/what-if", {"causes": {"fold": 1 / 16}})["width"], "1⁄8″ short")
        self.assertEqual(self.ask("post", f"{self.path}/what-if", {"causes": {}})["height"], "right")

    def test_many_blocks(self) -> None:
        tried = self.ask("post", f"{self.path}/what-if", {"causes": {"shift-0": 0.0625}, "blocks": 4000})
        many = tried["of_many"]
        self.assertEqual(sum(many["histogram"]), 4000)
        self.assertGreater(many["corners_off"], 0.1)
        self.assertIsNone(many["tips_cut"])
        self.assertTrue(any(r["school"] == "exact" and r["share"] is not None for r in tried["rooms"]))

    def test_causes_this_block_has_not_are_passed_over_and_large_ones_refused(self) -> None:
        tried = self.ask("post", f"{self.path}/what-if", {"causes": {"tip-7": 0.1}})
        self.assertEqual(tried["faults"], [])
        self.ask("post", f"{self.path}/what-if", {"causes": {"seam": 3}}, 400)
        self.ask("post", f"{self.path}/what-if", {"causes": {}, "blocks": 10_000_000}, 400)

    def test_a_layout_with_empty_places_is_refused_in_words(self) -> None:
        pattern = {**self.block.pattern, "layout": [". " + row[2:] for row in self.block.pattern["layout"]]}
        Block.objects.filter(pk=self.block.pk).update(pattern=pattern)
        problem = self.ask("get", f"{self.path}/diagnosis", status=422)
        self.assertIn("empty", problem["errors"][0]["message"])


class ByHandTest(DiagnosisCase):
    def test_sizes_typed_by_hand_without_a_project(self) -> None:
        readings = [{"kind": "stitch", "value": v, "spot": "middle"} for v in ("5/16", "5/16", "5/16", "9/32")]
        readings += [{"kind": "width", "value": "4"}] * 3 + [{"kind": "cut", "value": "4 1/2"}] * 2
        readings += [{"kind": "miss", "value": "0"}] * 2
        typed = {"finished": "3 1/2", "readings": readings}
        sheet = self.ask("post", "/api/diagnosis", typed)
        self.assertEqual(sheet["verdict"]["leading"]["cause"], "seam")
        self.assertEqual(len(self.ask("post", "/api/diagnosis/working", typed)["readings"]), len(readings))
        self.ask("post", "/api/diagnosis/working", {**typed, "finished": "wide"}, 422)

    def test_every_field_that_cannot_be_read_is_named(self) -> None:
        body = {
            "finished": "wide",
            "readings": [{"kind": "width", "value": "4"}, {"kind": "width", "value": "x"}, {"kind": "?"}],
        }
        problem = self.ask("post", "/api/diagnosis", body, 422)
        self.assertEqual([e["field"] for e in problem["errors"]], ["finished", "readings.1", "readings.2"])

    def test_whatever_stands_in_a_field_of_a_reading(self) -> None:
        """Read or refused at its line; what only a kept reading has (its lot, its note) is left out."""
        fields = [*typed_readers(Measure.INCHES), "lot", "nth", "note"]
        for kind in ("stitch", "row", "miss", "right_when_turned"):
            odd: list[Any] = [None, "x", "12", []]
            for field, value in product(fields, odd):
                line = {"kind": kind, "value": "1/4", field: value}
                body = {"finished": "3 1/2", "readings": [line]}
                answer = self.client.post("/api/diagnosis", body, content_type="application/json")
                with self.subTest(line):
                    self.assertIn(answer.status_code, (200, 422))
                    if answer.status_code == 422:
                        self.assertIn(answer.json()["errors"][0]["field"], ("readings.0", "finished"))

    def test_sizes_that_cannot_be_are_refused_in_words(self) -> None:
        for body, said in (
            ({"finished": "0"}, "finishes between"),
            ({"finished": "400"}, "finishes between"),
            ({"finished": "3 1/2", "seam_allowance": "2"}, "to 1″;"),
        ):
            with self.subTest(body):
                self.assertIn(said, self.ask("post", "/api/diagnosis", body, 422)["errors"][0]["message"])

    def test_one_reading_and_five_thousand(self) -> None:
        one = self.ask("post", "/api/diagnosis", {"finished": "3 1/2", "readings": [{"kind": "width", "value": "4"}]})
        self.assertEqual(one["verdict"]["status"], "unsettled")
        typed = {"finished": "3 1/2", "readings": [{"kind": "width", "value": "4"}] * 5000}
        self.assertEqual(self.ask("post", "/api/diagnosis", typed)["verdict"]["status"], "unsettled")
        self.assertLess(len(self.ask("post", "/api/diagnosis/working", typed)["readings"]), 200)


class SymptomsTest(DiagnosisCase):
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


class SheetsTest(DiagnosisCase):
    def post(self, text: str, status: int = 200) -> Any:
        return self.ask("post", f"{self.path}/readings.csv", {"text": text}, status)

    def test_out_and_in_again(self) -> None:
        self.clear()
        sheet = self.ask("get", f"{self.path}/diagnosis")
        corner = next(f["key"] for f in sheet["places"]["features"] if f["kind"] == "corner_tip")
        self.put(kind="corner_tip", value="1/16", lands="down", feature=corner)
        self.put(kind="width", value="4 1/32", at_unit="c3r1", note="=2+2")
        text = self.http.get(f"{self.path}/readings.csv").content.decode()
        self.assertNotIn(",-", text)
        self.assertIn("'=2+2", text)
        before = [(r["text"], r["said"], r["lands"]) for r in self.ask("get", f"{self.path}/diagnosis")["readings"]]
        self.clear()
        self.assertEqual(self.post(text)["added"], 2)
        after = [(r["text"], r["said"], r["lands"]) for r in self.ask("get", f"{self.path}/diagnosis")["readings"]]
        self.assertEqual(after, before)

    def test_good_lines_go_in_and_broken_ones_are_named(self) -> None:
        self.clear()
        done = self.post(
            f"\ufeffkind;value;batch\nwidth;4,03125;{HST}\nwidth;broad;{HST}\nrow;11;{HST}\nheight;4;{HST}\n"
        )
        self.assertEqual((done["added"], [r["line"] for r in done["refused"]]), (2, [3, 4]))

    def test_five_thousand_and_no_more(self) -> None:
        self.clear()
        head = "kind,value,batch\n"
        self.assertEqual(self.post(head + f"width,4,{HST}\n" * 4_900)["added"], 4_900)
        done = self.post(head + f"width,4,{HST}\n" * 150)
        self.assertEqual((done["added"], len(done["refused"])), (100, 50))
        sheet = self.ask("get", f"{self.path}/diagnosis")
        self.assertEqual(len(sheet["readings"]) + sheet["earlier"], 5_000)


class StockTest(DiagnosisCase):
    def test_units_made_again_are_asked_of_the_stock(self) -> None:
        self.clear()
        for unit in ("c1r1", "c3r1", "c1r3", "c3r3"):
            self.put(kind="width", value="3 29/32", at_unit=unit)
            self.put(kind="height", value="3 29/32", at_unit=unit)
        sheet = self.ask("get", f"{self.path}/diagnosis")
        again = next(r for r in sheet["this_block"] if r["code"].startswith("make_again"))
        self.assertIn("The stock holds them (Buoy, Fog)", again["stock"])
        self.assertTrue(again["pieces"])
