"""Finished blocks as they really measure, through the API: readings of the one pool, one size for all, an arrangement, the quilt."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from api.tests.api import ApiCase
from blocks.models import Block
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
        self.assertEqual(sorted(n for row in sheet["places"] for n in row), ["1", "2", "3", "4"])
        # Two alike in each row: the rows agree, one step of an eighth in each column.
        self.assertEqual((sheet["unlike"]["text"], sheet["before"]["text"]), ("1/4", "1/2"))
        # An eighth cut off would cost points, a sixteenth can be eased in: all to 11 1/16.
        self.assertEqual(sheet["quilt"]["width"]["text"], "21 1/8")

    def quilt(self, **changes: Any) -> None:
        self.ask("patch", f"projects/{self.project}/quilt", {"changes": changes, "seen": {}})

    def test_on_point_rows_are_as_the_quilt_is_seen(self) -> None:
        """Two by two with one between. Joined are 3-2-1 up to the right, along their heights, and 0-2-4 down to the right, along their
        widths: the tall ones go up to the right, the wide ones down, and what is neither lies in the middle or at a corner."""
        self.ask(
            "put",
            f"projects/{self.project}/blocks/{self.block}",
            {"changes": {"colourways": [{"count": 5, "roles": {}}]}, "seen": {}},
        )
        self.quilt(setting="on_point", columns="2", rows="2")
        for n, (w, h) in enumerate(
            (("11", "11"), ("11 1/8", "11"), ("11", "11 1/8"), ("11", "11 1/8"), ("11 1/8", "11")), 1
        ):
            self.read(n, w, h)
        sheet = self.sheet()
        self.assertEqual([len(row) for row in sheet["places"]], [2, 1, 2])
        self.assertEqual(sorted(n for row in sheet["places"] for n in row), ["1", "2", "3", "4", "5"])
        (top_left, top_right), (middle,), (low_left, low_right) = sheet["places"]
        size = {"1": (0, 0), "2": (1, 0), "3": (0, 1), "4": (0, 1), "5": (1, 0)}
        unlike = sum(abs(size[a][1] - size[b][1]) for a, b in ((low_left, middle), (middle, top_right)))
        unlike += sum(abs(size[a][0] - size[b][0]) for a, b in ((top_left, middle), (middle, low_right)))
        # In eighths, as it is stated.
        self.assertEqual(sheet["unlike"]["text"], {0: "0", 1: "1/8", 2: "1/4"}[unlike])

    def test_blocks_in_two_colourways_keep_their_places(self) -> None:
        ways = [{"count": 2, "roles": {}}, {"count": 2, "roles": {"a": "b", "b": "a"}}]
        self.ask("put", f"projects/{self.project}/blocks/{self.block}", {"changes": {"colourways": ways}, "seen": {}})
        self.quilt(columns="2", rows="2")
        for n, side in ((1, "11"), (2, "11 1/8"), (3, "11 1/8"), (4, "11")):
            self.read(n, side)
        sheet = self.sheet()
        (kind,) = sheet["kinds"]
        self.assertIn("1 to 2 as planned; from 3 on ", kind["numbering"])
        # By turns: the first colours lie at the upper left and the lower right.
        (a, b), (c, d) = sheet["places"]
        self.assertEqual((sorted((a, d)), sorted((b, c))), (["1", "2"], ["3", "4"]))

    def test_laid_by_hand(self) -> None:
        self.quilt(columns="2", rows="2", sash="1")
        for n, side in ((1, "11"), (2, "11 1/8"), (3, "11 1/8"), (4, "11")):
            self.read(n, side)
        straight = self.sheet()
        self.quilt(setting="by_hand")
        by_hand = self.sheet()
        self.assertEqual(by_hand["unlike"], straight["unlike"])
        self.assertEqual([len(row) for row in by_hand["places"]], [2, 2])

    def test_nothing_is_said_of_a_quilt_that_is_not_put_together(self) -> None:
        self.assertIn("once the quilt is put together", self.sheet()["waiting"])

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


class TopTest(ApiCase):
    """Two by two blocks of 10 1/2, edge to edge, a border of 2: 21 1/2 before it from raw edge to raw edge, 25 1/2 with its sides on."""

    def setUp(self) -> None:
        super().setUp()
        self.project, self.block = self.new_project()["id"], str(uuid4())
        body = {"changes": {"finished": "10 1/2"}, "seen": {}, "start": "lantern"}
        self.ask("put", f"projects/{self.project}/blocks/{self.block}", body)
        self.quilt(columns="2", rows="2", borders=[{"width": "2", "fabric": "a", "corners": "overlapped"}])

    def quilt(self, **changes: Any) -> None:
        self.ask("patch", f"projects/{self.project}/quilt", {"changes": changes, "seen": {}})

    def put(self, place: str, value: str, seen: str | None = None, status: int = 200) -> Any:
        body = {"changes": {"value": value}, "seen": {} if seen is None else {"value": seen}}
        return self.ask("put", f"projects/{self.project}/measured/{place}", body, expect=status)

    def down(self) -> Any:
        steps = self.ask("get", f"projects/{self.project}/measured")["top"]
        return next(s for s in steps if s["key"] == "border 1 down")

    def test_three_lengths_are_kept_and_the_border_is_cut_to_their_mean(self) -> None:
        for n, value in enumerate(("21 5/8", "21 3/4", "21 7/8"), 1):
            self.put(f"border 1 down {n}", value)
        down = self.down()
        self.assertEqual([r["value"]["text"] for r in down["readings"]], ["21 5/8", "21 3/4", "21 7/8"])
        self.assertEqual([r["planned"]["text"] for r in down["readings"]], ["21 1/2"] * 3)
        self.assertIn("21\u00a03⁄4″", down["said"][0])
        self.put("border 1 down 2", "")
        self.assertEqual((self.down()["readings"][1]["value"], self.down()["said"]), (None, []))

    def test_another_plan_sets_it_aside_and_the_old_plan_brings_it_back(self) -> None:
        self.put("border 1 down 1", "21 5/8")
        self.quilt(sash="1")
        self.assertEqual([r["stale"] for r in self.down()["readings"]], [True, False, False])
        self.quilt(sash="0")
        self.assertEqual([r["stale"] for r in self.down()["readings"]], [False] * 3)
        # Without a border there is no such place; what was measured there can be taken away all the same.
        self.quilt(borders=[])
        self.assertIn(
            "not measured there any more", self.put("border 2 down 1", "20", status=422)["errors"][0]["message"]
        )
        self.put("border 1 down 1", "")

    def test_of_a_quilt_laid_by_hand_the_top_alone_tells_what_it_will_measure(self) -> None:
        """21 1/2 inside the border down, 25 1/2 with its sides on across: 21 + 4 down, and 25 across."""
        self.quilt(setting="by_hand")
        sheet = self.ask("get", f"projects/{self.project}/measured")
        self.assertEqual([s["key"] for s in sheet["top"]], ["border 1 down", "border 1 across"])
        for n in (1, 2, 3):
            self.put(f"border 1 down {n}", "21 1/2")
        self.assertIsNone(self.ask("get", f"projects/{self.project}/measured")["quilt"])
        for n in (1, 2, 3):
            self.put(f"border 1 across {n}", "25 3/8")
        told = self.ask("get", f"projects/{self.project}/measured")["quilt"]
        self.assertEqual((told["width"]["text"], told["height"]["text"]), ("24 7/8", "25"))
        self.assertEqual(told["by"], "By what you measured of the top")

    def laid_by_hand(self) -> None:
        """Three blocks of 10 1/2, two and one in rows of 25: 4 between the two and 1 between the rows."""
        body = {"numbers": {self.block: 3}, "width": "25", "gap": "1", "fabric": "c"}
        self.ask("post", f"projects/{self.project}/quilt/sampler", body)

    def strips(self) -> dict[str, Any]:
        """What is measured before strips between blocks are cut, by what it is called."""
        steps = self.ask("get", f"projects/{self.project}/measured")["top"]
        return {s["title"].replace("\u00a0", " "): s for s in steps if s["key"].startswith("strips")}

    def pieces(self) -> dict[tuple[str, str], int]:
        piles = self.ask("get", f"projects/{self.project}/cutting")["piles"]
        return {(p["width"]["text"], p["height"]["text"]): p["left"] for p in piles if p["fabric"] == "c" and p["left"]}

    def test_strips_between_blocks_laid_by_hand_are_cut_to_what_they_join(self) -> None:
        self.laid_by_hand()
        found = self.strips()
        between = next(s for s in found.values() if s["readings"][0]["planned"]["text"] == "11")
        before = self.pieces()
        self.assertIn("strip", self.ask("get", f"projects/{self.project}/cutting")["last"])
        for reading, value in zip(between["readings"], ("10 7/8", "10 7/8", "11"), strict=True):
            self.put(reading["key"], value)
        # 32 3/4 in all; a third is 10 11/12, by eighths 10 7/8.
        (said,) = next(s for s in self.strips().values() if s["key"] == between["key"])["said"]
        self.assertIn("10 7⁄8", said.replace("\u00a0", " "))
        now = self.pieces()
        changed = {k: now.get(k, 0) - before.get(k, 0) for k in {*now, *before} if now.get(k, 0) != before.get(k, 0)}
        # One strip of 4 1/2 is not 11 long any more, but 10 7/8.
        self.assertEqual(sorted(changed.values()), [-1, 1], changed)
        self.assertIn("10 7/8", {side for size, by in changed.items() if by == 1 for side in size})
        # It goes with the project file, and the steps of joining tell it.
        centre = Block.objects.get(project_id=self.project, part="centre")
        steps = self.ask("get", f"blocks/{centre.pk}/bench")["steps"]
        told = " ".join(t for step in steps for t in step["said"]).replace("\u00a0", " ")
        self.assertIn("is 10 7⁄8″ long, as you measured", told)
        written = self.ask("get", f"projects/{self.project}/export")
        copy = self.ask("post", "exchange/projects", written, expect=201)
        again = self.ask("get", f"projects/{copy['id']}/export")
        self.assertEqual(again["quilt"]["top"], written["quilt"]["top"])

    def test_what_was_measured_of_strips_is_put_by_when_they_are_planned_otherwise(self) -> None:
        self.laid_by_hand()
        between = next(s for s in self.strips().values() if s["readings"][0]["planned"]["text"] == "11")
        for reading in between["readings"]:
            self.put(reading["key"], "10 7/8")
        cut = self.pieces()
        body = {"changes": {"finished": "9"}, "seen": {}, "start": ""}
        self.ask("put", f"projects/{self.project}/blocks/{self.block}", body)
        self.laid_by_hand()
        self.assertFalse(any("10 7/8" in size for size in self.pieces()))
        self.assertTrue(any("10 7/8" in size for size in cut))

    def test_what_cannot_be_is_refused_and_two_windows_are_asked(self) -> None:
        for nonsense in ("long", "0", "-3", "251", "1e400", "\x00"):
            self.assertEqual(self.put("row 1", nonsense, status=422)["errors"][0]["field"], "value", nonsense)
        self.put("row 1", "21 1/2", seen="")
        self.assertEqual(self.put("row 1", "21 5/8", seen="", status=409)["code"], "changed_elsewhere")
        self.put("row 1", "21 1/2", seen="")

    def test_it_goes_with_the_project_file_in_either_measure(self) -> None:
        self.put("row 1", "21 5/8")
        self.ask("patch", f"projects/{self.project}", {"changes": {"measure": "mm"}, "seen": {}})
        written = self.ask("get", f"projects/{self.project}/export")
        self.assertEqual(written["quilt"]["top"], {"row 1": {"value": '173/8"', "planned": '43/2"'}})
        copy = self.ask("post", "exchange/projects", written, expect=201)
        again = self.ask("get", f"projects/{copy['id']}/export")
        self.assertEqual(again["quilt"]["top"], written["quilt"]["top"])
