"""Work under way: what is cut stays cut, whatever changes; only the difference is planned; and each step can be taken back."""

from __future__ import annotations

from collections import Counter
from threading import Event
from typing import Any
from unittest.mock import patch
from uuid import UUID, uuid4

from django.test import TransactionTestCase

from api.tests.api import ApiCase
from cutting import commands, jobs
from cutting.models import Stock
from piecing.cutting.ledger import plan_of_the_rest
from workrooms.selectors import current_workroom


class LedgerCase(TransactionTestCase):
    """48 half-square triangles in pairs: 24 squares of 4 1/2 of each fabric; a yard of each in stock."""

    new_project = ApiCase.new_project

    def ask(self, method: str, path: str, body: Any = None, *, expect: int = 200) -> Any:
        return ApiCase.ask(self, method, path, body, expect=expect)  # type: ignore[arg-type]

    def setUp(self) -> None:
        self.project = self.new_project()  # type: ignore[misc]
        self.path = f"projects/{self.project['id']}"
        self.unit = self.project["units"][0]["id"]
        self.fabrics = {f["role"]: f["id"] for f in self.project["fabrics"]}
        self.units(count=48)
        for role in "ab":
            self.stock(role, along="36")

    def units(self, **changes: Any) -> None:
        self.ask("patch", f"units/{self.unit}", {"changes": changes, "seen": {}})

    def stock(self, role: str, **changes: Any) -> Any:
        body = {"changes": {"across": "40", **changes}, "seen": {}}
        return self.ask("put", f"fabrics/{self.fabrics[role]}/stock/{uuid4()}", body)

    def sheet(self) -> Any:
        return self.ask("get", f"{self.path}/cutting")

    def plan(self) -> Any:
        commands.begin_plan(current_workroom(), self.project["id"], "least", along=False, wait=True)
        sheet = self.sheet()
        self.assertEqual(sheet["plan"]["flaws"], [])
        return sheet

    def strips(self, sheet: Any, role: str = "") -> list[int]:
        cloths = sheet["plan"]["cloths"] if sheet["plan"] else []
        return [s["number"] for c in cloths for s in c["strips"] if not role or c["fabric"] == role]

    def tick(self, number: int, done: bool = True, expect: int = 200, plan: str | None = None) -> Any:
        name = self.sheet()["plan"]["name"] if plan is None else plan
        return self.ask(
            "post", f"{self.path}/cutting/strips", {"number": number, "done": done, "plan": name}, expect=expect
        )

    def pile(self, letter: str, sheet: Any = None) -> dict[str, Any]:
        found: dict[str, Any] = next(p for p in (sheet or self.sheet())["piles"] if p["letter"] == letter)
        return found

    def counted(self, letter: str, expect: int = 200, **changes: int) -> Any:
        return self.ask("patch", f"{self.path}/cutting/piles/{letter}", {"changes": changes, "seen": {}}, expect=expect)

    def cloth(self) -> float:
        """Square inches in stock."""
        return sum(float(s.across) * float(s.along) * s.count for s in Stock.objects.filter(deleted_at=None))


class TickingTest(LedgerCase):
    def test_a_tick_fills_the_pile_and_taking_it_off_empties_it(self) -> None:
        sheet = self.plan()
        self.assertEqual((self.pile("A")["wanted"], self.pile("A")["left"], sheet["left"]), (24, 24, 48))
        first = self.strips(sheet, "a")[0]
        ticked = self.tick(first)
        # Eight squares of 4 1/2 lie in a strip 40 in. long.
        self.assertEqual((self.pile("A", ticked)["cut"], self.pile("A", ticked)["left"]), (8, 16))
        self.assertEqual(ticked["plan"]["changed"], [])
        self.assertEqual(self.pile("A", self.tick(first, False))["left"], 24)

    def test_ticked_twice_counts_once(self) -> None:
        first = self.strips(self.plan())[0]
        self.tick(first)
        self.assertEqual(self.pile("A", self.tick(first))["cut"], 8)

    def test_planning_again_keeps_what_is_cut_and_plans_the_rest_from_what_is_left(self) -> None:
        first = self.strips(self.plan(), "a")[0]
        self.tick(first)
        before = self.cloth()
        sheet = self.plan()
        self.assertEqual((self.pile("A", sheet)["cut"], self.pile("A", sheet)["left"]), (8, 16))
        # A strip of 40 by 4 1/2 is gone from the yard; its end of 4 in. came back as a scrap.
        self.assertAlmostEqual(before - self.cloth(), 40 * 4.5 - 4 * 4.5)
        self.assertIn(("rest of yardage", "31 1/2"), [(s["name"], s["along"]["text"]) for s in sheet["stock"]])
        self.assertEqual(sum(len(c["letters"]) for c in sheet["plan"]["cloths"]), 16 + 24)

    def test_five_blocks_more_plan_only_the_difference(self) -> None:
        sheet = self.plan()
        for n in self.strips(sheet):
            self.tick(n)
        self.units(count=68)
        sheet = self.sheet()
        self.assertEqual(sheet["plan"]["changed"], [f"Pile {x}: 10 pieces more to cut." for x in "AB"])
        sheet = self.plan()
        self.assertEqual((self.pile("A", sheet)["cut"], self.pile("A", sheet)["left"], sheet["left"]), (24, 10, 20))
        self.assertEqual(sum(len(c["letters"]) for c in sheet["plan"]["cloths"]), 20)

    def test_a_fabric_swapped_half_way_leaves_its_pieces_for_other_use(self) -> None:
        sheet = self.plan()
        for n in self.strips(sheet, "a"):
            self.tick(n)
        third = str(uuid4())
        self.ask("put", f"{self.path}/fabrics/{third}", {"changes": {"role": "c", "name": "Tar"}, "seen": {}})
        self.fabrics["c"] = third
        self.units(part_fabrics=["c", "b"])
        self.stock("c", along="36")
        sheet = self.sheet()
        self.assertEqual((self.pile("A", sheet)["over"], self.pile("C", sheet)["left"]), (24, 24))
        kept = self.ask("post", f"{self.path}/cutting/piles/A/scraps")
        self.assertIn(
            ("from pile A", 24, "4 1/2"), [(s["name"], s["count"], s["across"]["text"]) for s in kept["stock"]]
        )
        self.assertEqual((self.pile("A", kept)["over"], self.pile("A", kept)["given"]), (0, 24))
        back = self.ask("post", f"{self.path}/cutting/undo")
        self.assertEqual((self.pile("A", back)["over"], back["undo"]), (24, ""))
        self.assertNotIn("from pile A", [s["name"] for s in back["stock"]])

    def test_pieces_too_many_are_cut_smaller_before_any_cloth_is(self) -> None:
        sheet = self.plan()
        for n in self.strips(sheet):
            self.tick(n)
        self.units(finished="3")
        sheet = self.plan()
        self.assertEqual(
            {c["name"] for c in sheet["plan"]["cloths"]}, {f"pieces of pile {x} no longer wanted" for x in "AB"}
        )
        first = self.strips(sheet)[0]
        ticked = self.tick(first)
        self.assertEqual((self.pile("A", ticked)["over"], self.pile("A", ticked)["given"]), (23, 1))
        self.assertEqual(self.pile("C", ticked)["cut"], 1)

    def test_spoiled_pieces_are_wanted_again(self) -> None:
        for n in self.strips(self.plan()):
            self.tick(n)
        self.assertEqual(self.pile("A", self.counted("A", spoiled=3))["left"], 3)
        self.assertEqual(self.plan()["left"], 3)

    def test_all_of_it_and_back(self) -> None:
        before = (self.plan(), self.cloth())
        sheet = self.ask("post", f"{self.path}/cutting/cut")
        self.assertEqual((sheet["plan"], sheet["left"], sheet["undo"]), (None, 0, "before all of it was marked as cut"))
        self.ask("post", f"{self.path}/cutting", {}, expect=422)
        back = self.ask("post", f"{self.path}/cutting/undo")
        self.assertEqual((back["left"], self.cloth(), self.strips(back)), (48, before[1], self.strips(before[0])))
        self.ask("post", f"{self.path}/cutting/undo", expect=422)

    def test_going_back_takes_back_what_was_put_down_and_nothing_that_was_entered_since(self) -> None:
        first = self.strips(self.plan(), "a")[0]
        self.tick(first)
        self.plan()
        self.counted("A", spoiled=2)
        self.stock("a", along="10", name="found")
        back = self.ask("post", f"{self.path}/cutting/undo")
        self.assertEqual((self.pile("A", back)["cut"], self.pile("A", back)["spoiled"]), (8, 2))
        self.assertEqual(sorted(s["name"] for s in back["stock"]), ["", "", "found"])

    def test_ticks_of_the_newer_plan_are_not_lost_by_going_back(self) -> None:
        self.tick(self.strips(self.plan(), "a")[0])
        self.tick(self.strips(self.plan(), "a")[0])
        self.assertIn("would lose them", self.ask("post", f"{self.path}/cutting/undo", expect=422)["detail"])
        self.assertEqual(self.pile("A")["cut"], 16)

    def test_a_project_file_takes_pieces_spoiled_from_strips_that_are_only_ticked(self) -> None:
        first = self.strips(self.plan(), "a")[0]
        self.tick(first)
        self.counted("A", spoiled=3)
        copy = self.ask("post", "exchange/projects", self.ask("get", f"{self.path}/export"), expect=201)
        piles = self.ask("get", f"projects/{copy['id']}/cutting")["piles"]
        self.assertEqual([(p["cut"], p["spoiled"]) for p in piles if p["letter"] == "A"], [(8, 3)])
        self.assertIn("put down as spoiled", self.tick(first, False, expect=422)["detail"])

    def test_going_back_while_the_rest_is_looked_for_is_not_overtaken_by_it(self) -> None:
        sheet = self.plan()
        self.tick(self.strips(sheet, "a")[0])
        begun, go_on = Event(), Event()

        def slow(*args: Any) -> Any:
            begun.set()
            go_on.wait(20)
            return plan_of_the_rest(*args)

        with patch.object(commands, "plan_of_the_rest", slow):
            self.ask("post", f"{self.path}/cutting", {})
            self.assertTrue(begun.wait(10))
            back = self.ask("post", f"{self.path}/cutting/undo")
            go_on.set()
            job = jobs.job_of(UUID(self.project["id"]))
            assert job is not None
            assert job.thread is not None
            job.thread.join(20)
        now = self.sheet()
        self.assertEqual((now["plan"]["name"], now["job"]["failed"]), (back["plan"]["name"], ""))
        self.assertEqual((self.pile("A", now)["cut"], self.strips(now)), (8, self.strips(sheet)))

    def test_what_to_buy_is_for_what_is_left(self) -> None:
        for n in self.strips(self.plan(), "a"):
            self.tick(n)
        self.assertEqual([p["fabric"] for p in self.ask("get", f"{self.path}/buying")["purchases"]], ["b"])


class RefusedTest(LedgerCase):
    def test_a_strip_of_an_older_plan_or_of_none(self) -> None:
        old = self.plan()["plan"]["name"]
        self.plan()
        self.assertIn("made anew since", self.tick(1, plan=old, expect=422)["detail"])
        self.tick(999, expect=422)
        self.assertEqual(self.pile("A")["cut"], 0)

    def test_more_spoiled_than_cut_and_fewer_than_ticked(self) -> None:
        self.tick(self.strips(self.plan(), "a")[0])
        self.assertIn("8 pieces were cut", self.counted("A", spoiled=9, expect=422)["detail"])
        self.assertIn("strips that are ticked", self.counted("A", cut=3, expect=422)["detail"])
        self.counted("A", cut=-1, expect=422)
        self.counted("Z", cut=1, expect=404)

    def test_two_windows_counting_at_once_are_asked_which(self) -> None:
        self.plan()
        self.counted("A", cut=4)
        body = {"changes": {"cut": 6}, "seen": {"cut": 0}}
        self.ask("patch", f"{self.path}/cutting/piles/A", body, expect=409)

    def test_a_pile_whose_unit_was_removed_after_cutting_is_still_there(self) -> None:
        for n in self.strips(self.plan(), "a"):
            self.tick(n)
        self.ask("post", f"{self.path}/units", {"id": str(uuid4()), "kind": "plain_square"}, expect=201)
        self.ask("delete", f"units/{self.unit}")
        self.assertEqual((self.pile("A")["wanted"], self.pile("A")["over"]), (0, 24))

    def test_what_cannot_be_cut_for_yet_is_said(self) -> None:
        body = {"start": "", "changes": {"finished": "9"}, "seen": {}}
        self.ask("put", f"{self.path}/blocks/{uuid4()}", body)
        self.assertIn("places of the block are empty", self.sheet()["waiting"][0])

    def test_a_cloth_of_no_kind_there_is(self) -> None:
        nonsense: tuple[Any, ...] = ({}, [], "carpet", None, 7)
        for kind in nonsense:
            body = {"changes": {"kind": kind, "across": "40", "along": "9"}, "seen": {}}
            for path in (f"fabrics/{self.fabrics['a']}/stock/{uuid4()}", f"shelf/{uuid4()}"):
                self.assertEqual(self.ask("put", path, body, expect=422)["errors"][0]["field"], "kind", (kind, path))

    def test_cloth_gone_from_the_stock_meanwhile_is_said(self) -> None:
        self.plan()
        for s in Stock.objects.all():
            self.ask("delete", f"stock/{s.pk}")
        ticked = self.tick(1)
        self.assertEqual(self.pile("A", ticked)["cut"], 8)
        self.assertIn("no cloth in stock", self.ask("post", f"{self.path}/cutting", {}, expect=422)["detail"])


CHANGES: tuple[tuple[str, Any], ...] = (
    ("units", {"count": 60}), ("tick", 1), ("plan", None), ("tick", 2), ("units", {"count": 20}), ("spoil", "A"),
    ("plan", None), ("tick", 1), ("units", {"finished": "3"}), ("plan", None), ("tick", 2), ("units", {"method": "four"}),
    ("plan", None), ("tick", 1), ("spoil", "B"), ("units", {"method": "pair"}), ("units", {"finished": "3 1/2"}), ("plan", None),
    ("all", None), ("units", {"count": 66}), ("plan", None), ("tick", 1), ("untick", 1), ("undo", None), ("plan", None),
    ("scraps", "A"), ("units", {"school": "generous"}), ("plan", None), ("units", {"part_fabrics": ["b", "a"]}), ("plan", None),
    ("tick", 3), ("units", {"count": 12}), ("plan", None),
)  # fmt: skip
"""Made one after another, half-way through the work."""


class ManyChangesTest(LedgerCase):
    def do(self, what: str, value: Any) -> None:
        match what:
            case "units":
                self.units(**value)
            case "plan" if self.sheet()["left"]:
                self.plan()
            case "tick" | "untick":
                for n in self.strips(self.sheet())[:value]:
                    self.tick(n, what == "tick")
            case "spoil" if self.pile(value)["cut"] > self.pile(value)["spoiled"] + self.pile(value)["given"]:
                self.counted(value, spoiled=self.pile(value)["spoiled"] + 1)
            case "all" if self.sheet()["plan"]:
                self.ask("post", f"{self.path}/cutting/cut")
            case "undo" if self.sheet()["undo"]:
                self.ask("post", f"{self.path}/cutting/undo")
            case "scraps" if self.pile(value)["over"]:
                self.ask("post", f"{self.path}/cutting/piles/{value}/scraps")

    def test_thirty_changes_half_way(self) -> None:
        """After each: no letter changes its meaning, every pile adds up, what is planned is what is left, no cloth appears."""
        self.stock("a", along="90")
        self.stock("b", along="90")
        meant: dict[str, Any] = {}
        cloth = self.cloth()
        for n, (what, value) in enumerate(CHANGES):
            with self.subTest(n, what=what, value=value):
                self.do(what, value)
                sheet = self.sheet()
                for p in sheet["piles"]:
                    self.assertEqual(p["cut"] + p["left"], p["wanted"] + p["spoiled"] + p["given"] + p["over"])
                    if p["cut"]:
                        kind = (p["fabric"], p["width"]["exact"], p["height"]["exact"], p["gives"])
                        self.assertEqual(meant.setdefault(p["letter"], kind), kind)
                if what == "plan" and sheet["plan"]:
                    placed = Counter(x["letter"] for c in sheet["plan"]["cloths"] for x in c["letters"])
                    short = {m["letter"]: m["count"] for m in sheet["plan"]["missing"]}
                    for p in sheet["piles"]:
                        self.assertEqual(placed[p["letter"]] + short.get(p["letter"], 0), p["left"], p["letter"])
                    self.assertEqual(sheet["plan"]["changed"], [])
                if what not in ("undo", "scraps"):
                    self.assertLessEqual(self.cloth(), cloth + 1e-9)
                cloth = self.cloth()


class ExchangeTest(LedgerCase):
    def test_what_is_cut_stays_of_the_cloth_that_it_was_cut_from(self) -> None:
        """A strip of Dark is ticked, eight squares; Dark and Light change places: the eight are Dark's still, and no plan stands that
        names its strips by the letters of before."""
        sheet = self.plan()
        names = {f["role"]: f["name"] for f in self.ask("get", self.path)["fabrics"]}
        self.tick(self.strips(sheet, "a")[0])
        project = self.ask("post", f"{self.path}/fabrics/exchange", {"one": "a", "other": "b"})
        now = {f["role"]: f["name"] for f in project["fabrics"]}
        self.assertEqual((now["a"], now["b"]), (names["b"], names["a"]))
        after = self.sheet()
        self.assertIsNone(after["plan"])
        cut = {now[p["fabric"]]: p["cut"] for p in after["piles"] if p["cut"]}
        self.assertEqual(cut, {names["a"]: 8})
        wanted = {now[p["fabric"]]: p["left"] for p in after["piles"] if p["wanted"]}
        self.assertEqual(wanted, {names["a"]: 16, names["b"]: 24})


class MeasuredTopTest(LedgerCase):
    """Two by two blocks of 10 1/2 with a sash of 1 between and a border of 2: 22 finished, so 22 1/2 before the border."""

    def setUp(self) -> None:
        super().setUp()
        body = {"changes": {"finished": "10 1/2"}, "seen": {}, "start": "lantern"}
        self.ask("put", f"{self.path}/blocks/{uuid4()}", body)
        border = {"width": "2", "fabric": "b", "corners": "overlapped"}
        quilt = {"columns": "2", "rows": "2", "sash": "1", "sash_fabric": "b", "borders": [border]}
        self.ask("patch", f"{self.path}/quilt", {"changes": quilt, "seen": {}})
        self.stock("b", along="72")

    def measured(self, place: str, value: str) -> Any:
        body = {"changes": {"value": value}, "seen": {}}
        return self.ask("put", f"{self.path}/measured/{place}", body)

    def named(self, part: str) -> dict[tuple[str, str], dict[str, Any]]:
        """Piles by what they are for: their two sizes, and themselves."""
        found = [p for p in self.sheet()["piles"] if part in p["name"]]
        return {(p["width"]["text"], p["height"]["text"]): p for p in found}

    def test_borders_cut_as_planned_are_cut_to_what_the_top_measured(self) -> None:
        self.assertEqual(list(self.named("border, sides")), [("2 1/2", "23")])
        sheet = self.plan()
        for n in self.strips(sheet):
            self.tick(n)
        self.assertEqual(self.named("border, sides")["2 1/2", "23"]["cut"], 2)
        for n, value in enumerate(("22 1/4", "22 1/4", "22 3/8"), 1):
            self.measured(f"border 1 down {n}", value)
        # 22 7/24: by the eighth 22 1/4. The two that were cut are cut to it, and no cloth is.
        piles = self.named("border, sides")
        self.assertEqual((piles["2 1/2", "22 1/4"]["left"], piles["2 1/2", "23"]["over"]), (2, 2))
        sheet = self.plan()
        from_pieces = [c["name"] for c in sheet["plan"]["cloths"]]
        self.assertTrue(all("no longer wanted" in name for name in from_pieces), from_pieces)
        pieces = self.ask("get", f"{self.path}/blocks")["quilt"]["sizes"]["pieces"]
        sides = next(p for p in pieces if p["name"] == "border, sides")
        self.assertEqual((sides["cut_height"]["text"], sides["note"]), ("22 1/4", "As long as the top was measured."))
        steps = self.ask("get", f"{self.path}/bench/quilt")["steps"]
        said = next(s for s in steps if s["key"] == "border 1 sides")["said"]
        self.assertIn("2\u00a01⁄2″ × 22\u00a01⁄4″, as you measured", " ".join(said))

    def test_sashing_goes_with_what_the_blocks_were_trimmed_to(self) -> None:
        self.assertEqual(self.named("sashing beside")["1 1/2", "11"]["wanted"], 2)
        self.measured("blocks across", "10 7/8")
        self.measured("blocks down", "10 7/8")
        self.assertEqual(self.named("sashing beside")["1 1/2", "10 7/8"]["wanted"], 2)
        # Taken away again, all is as planned.
        self.measured("blocks across", "")
        self.measured("blocks down", "")
        self.assertEqual(self.named("sashing beside")["1 1/2", "11"]["wanted"], 2)
