"""Readings taken down, changed, deleted and taken back; each beside its target."""

from __future__ import annotations

from uuid import uuid4

from common.tests.api import ApiCase
from readings.models import ReadingRow


class ReadingCase(ApiCase):
    def setUp(self) -> None:
        self.project = self.new_project()
        self.unit = self.project["units"][0]["id"]

    def path(self, key: str) -> str:
        return f"units/{self.unit}/readings/{key}"


class TakingDownTest(ReadingCase):
    def test_a_width_beside_its_target(self) -> None:
        (row,) = self.take_down(self.unit, "unit_width", "3 15/16")["readings"]
        self.assertEqual(row["said"], "1⁄16″ short")
        self.assertTrue(row["off"])
        self.assertEqual((row["rung"], row["target"]["text"]), ("trimmed", "4"))

    def test_in_any_notation(self) -> None:
        for typed in ("3-15/16", '3 15/16"', "3.9375", "100.0125 mm", "10.00125cm"):
            check = self.take_down(self.unit, "unit_width", typed)
            self.assertEqual(check["readings"][-1]["value"]["exact"], "63/16", typed)

    def test_every_kind_has_a_target_to_read_against(self) -> None:
        targets = {t["kind"]: t["target"]["text"] for t in self.ask("get", f"units/{self.unit}/check")["targets"]}
        self.assertEqual(
            targets,
            {
                "unit_width": "4",
                "unit_height": "4",
                "raw_size": "4 9/64",
                "row_length": "11",
                "stitch_distance": "1/4",
                "strip_test": "1/4",
            },
        )

    def test_a_row_needs_its_count_and_a_strip_test_both_widths(self) -> None:
        problem = self.take_down(self.unit, "row_length", "11", expect=422)
        self.assertEqual(self.codes(problem), {"row_units": "row_count_missing"})
        problem = self.take_down(self.unit, "strip_test", "1", expect=422)
        self.assertEqual(self.codes(problem), {"whole": "strip_test_incomplete"})
        problem = self.take_down(self.unit, "strip_test", "3 1/2", whole="1", expect=422)
        self.assertEqual(problem["code"], "strip_test_impossible")
        check = self.take_down(self.unit, "strip_test", "31/32", whole="3 7/16")
        self.assertEqual(check["readings"][0]["read"]["text"], "17/64")

    def test_what_a_kind_does_not_have_is_dropped(self) -> None:
        row = self.take_down(self.unit, "unit_width", "4", row_units="3", whole="9")["readings"][0]
        self.assertEqual((row["row_units"], row["whole"]), (None, None))

    def test_what_cannot_be_read(self) -> None:
        for kind, value, code in (
            ("unit_width", "", "length_not_understood"),
            ("unit_width", "0", "size_out_of_range"),
            ("unit_width", "-4", "length_out_of_range"),
            ("unit_width", "4 ft", "length_not_understood"),
            ("girth", "4", "unknown_choice"),
        ):
            with self.subTest((kind, value)):
                self.assertEqual(self.take_down(self.unit, kind, value, expect=422)["code"], code)
        self.assertEqual(ReadingRow.objects.count(), 0)

    def test_sending_the_same_reading_twice_leaves_one(self) -> None:
        key = str(uuid4())
        for _ in range(2):
            self.ask("put", self.path(key), {"changes": {"kind": "unit_width", "value": "4"}})
        self.assertEqual(ReadingRow.objects.count(), 1)


class ChangingTest(ReadingCase):
    def setUp(self) -> None:
        super().setUp()
        self.key = self.take_down(self.unit, "row_length", "10 3/4", row_units="3")["readings"][0]["id"]

    def test_a_change_names_what_was_seen(self) -> None:
        change = {"changes": {"value": "10 7/8"}, "seen": {"value": "10 3/4"}}
        (row,) = self.ask("put", self.path(self.key), change)["readings"]
        self.assertEqual((row["value"]["text"], row["row_units"]), ("10 7/8", 3))
        stale = {"changes": {"value": "11"}, "seen": {"value": "10 3/4"}}
        problem = self.ask("put", self.path(self.key), stale, expect=409)
        self.assertEqual(problem["errors"][0]["values"]["here"], "10 7/8")

    def test_a_change_is_checked_whole(self) -> None:
        problem = self.ask("put", self.path(self.key), {"changes": {"row_units": "1"}}, expect=422)
        self.assertEqual(problem["code"], "row_count_missing")

    def test_deleted_and_taken_back_in_its_place(self) -> None:
        self.take_down(self.unit, "unit_width", "4")
        self.assertEqual(len(self.ask("delete", self.path(self.key))["readings"]), 1)
        kept = self.ask("post", f"{self.path(self.key)}/restore")["readings"]
        self.assertEqual(kept[0]["id"], self.key)

    def test_a_deleted_reading_is_not_changed_unseen(self) -> None:
        self.ask("delete", self.path(self.key))
        change = {"changes": {"value": "11"}, "seen": {"value": "10 3/4"}}
        self.assertEqual(self.ask("put", self.path(self.key), change, expect=404)["code"], "not_here")

    def test_another_units_reading_is_not_here(self) -> None:
        other = self.new_project("Wake")["units"][0]["id"]
        self.ask("delete", f"units/{other}/readings/{uuid4()}", expect=404)
        self.ask("delete", f"units/{other}/readings/{self.key}", expect=404)
        body = {"changes": {"kind": "unit_width", "value": "4"}}
        self.ask("put", f"units/{other}/readings/{self.key}", body, expect=404)
        self.assertEqual(len(self.ask("get", f"units/{self.unit}/check")["readings"]), 1)
