"""Machine set-ups and their tests, hands over time, days left out, lots watched, what diagnoses came to: through the API."""

from __future__ import annotations

from datetime import timedelta
from itertools import pairwise
from typing import Any
from unittest.mock import Mock, patch
from uuid import uuid4

from django.db import IntegrityError, transaction
from django.utils import timezone

from api.tests.api import ApiCase
from keeping.purge import purge
from measuring.models import ReadingRow
from measuring.selectors import record_for
from piecing.lengths import inches
from records import forecasts
from setups.models import SetUp
from workrooms.selectors import current_workroom

QUARTER = inches("1/4")


class RecordsCase(ApiCase):
    def set_up(self, machine: str = "The grey one", expect: int = 200, **more: Any) -> dict[str, Any]:
        key = str(uuid4())
        came_from = more.pop("came_from", None)
        body = {"changes": {"machine": machine, **more}, "seen": {}, "came_from": came_from}
        sheet = self.ask("put", f"set-ups/{key}", body, expect=expect)
        return next((s for s in sheet["set_ups"] if s["id"] == key), sheet) if expect == 200 else sheet

    def sewn(self, set_up: str, middle: str, whole: str, expect: int = 200, **more: Any) -> Any:
        changes = {"kind": "strip_test", "value": middle, "whole": whole, "wanted": "1 1/2", **more}
        return self.ask("put", f"set-ups/{set_up}/tests/{uuid4()}", {"changes": changes, "seen": {}}, expect=expect)


class SetUpTest(RecordsCase):
    def test_a_change_begins_a_new_one_and_one_is_in_use(self) -> None:
        first = self.set_up(needle="80", guide="1/4", thread="cotton 50")
        self.assertTrue(first["in_use"])
        self.assertEqual(first["guide_step"]["text"], "1/64")
        later = self.ask(
            "put",
            f"set-ups/{uuid4()}",
            {"changes": {"needle": "70"}, "seen": {}, "came_from": first["id"]},
        )["set_ups"]
        now, before = (next(s for s in later if s["in_use"] is flag) for flag in (True, False))
        self.assertEqual((now["needle"], now["thread"], now["came_from"]), ("70", "cotton 50", first["id"]))
        self.assertEqual(before["needle"], "80")
        back = self.ask("post", f"set-ups/{first['id']}/use")["set_ups"]
        self.assertEqual([s["id"] for s in back if s["in_use"]], [first["id"]])

    def test_never_two_in_use(self) -> None:
        self.set_up()
        self.set_up("The green one")
        self.assertEqual(SetUp.objects.filter(in_use=True).count(), 1)
        with self.assertRaises(IntegrityError), transaction.atomic():
            SetUp.objects.update(in_use=True)

    def test_taken_away_and_brought_back(self) -> None:
        first = self.set_up()
        second = self.set_up(came_from=first["id"], foot="open")
        self.sewn(second["id"], "1", "3 1/2")
        left = self.ask("delete", f"set-ups/{second['id']}")["set_ups"]
        self.assertEqual([(s["id"], s["in_use"]) for s in left], [(first["id"], True)])
        back = self.ask("post", f"set-ups/{second['id']}/restore")["set_ups"]
        self.assertEqual([(s["tested"], s["in_use"]) for s in back if s["id"] == second["id"]], [(1, True)])

    def test_let_go_for_good_its_tests_go_and_readings_of_projects_stay(self) -> None:
        first = self.set_up()
        project = self.new_project()
        self.take_down(project["units"][0]["id"], "stitch", "9/32", spot="middle")
        self.sewn(first["id"], "1", "3 1/2")
        self.ask("delete", f"set-ups/{first['id']}")
        purge()
        (row,) = ReadingRow.objects.all()
        self.assertEqual((row.kind, row.set_up), ("stitch", None))

    def test_nonsense(self) -> None:
        for wrong in (
            {"machine": ""},
            {"machine": "\u200b"},
            {"machine": "Grey", "guide": "a bit"},
            {"machine": "Grey", "guide_step": "0"},
            {"machine": "Grey", "pressing": "up"},
            {"machine": "Grey", "began": (timezone.localdate() + timedelta(days=40)).isoformat()},
            {"machine": "Grey", "began": "2026-02-31"},
        ):
            with self.subTest(wrong):
                self.set_up(**wrong, expect=422)
        self.assertFalse(SetUp.objects.exists())
        self.ask("post", f"set-ups/{uuid4()}/use", expect=404)


class SeamTestsTest(RecordsCase):
    def setUp(self) -> None:
        self.grey = self.set_up(guide="1/4")

    def test_where_the_guide_should_stand(self) -> None:
        """Strips of 1 1/2 whose seams take 19/64: the middle one reads 29/32, all three 3 5/16. Three sixty-fourths nearer."""
        self.assertEqual(self.ask("get", "records")["search"]["stand"], "nothing")
        search = self.sewn(self.grey["id"], "29/32", "3 5/16")["search"]
        self.assertEqual((search["stand"], search["steps"], search["setting"]["exact"]), ("move", -3, "13/64"))
        moved = {"changes": {"guide": "13/64"}, "seen": {"guide": "1/4"}}
        self.ask("put", f"set-ups/{self.grey['id']}", moved)
        sheet = self.sewn(self.grey["id"], "1", "3 1/2")
        self.assertEqual(sheet["search"]["stand"], "confirmed")
        newest = sheet["set_ups"][0]["tests"]
        self.assertEqual({t["guide"]["exact"] for t in newest}, {"1/4", "13/64"})

    def test_what_was_read_before_the_guide_moved_speaks_of_now(self) -> None:
        """Six tests that take 19/64 with the guide at 1/4; the guide then goes 3/64 nearer: her seam is a quarter inch now."""
        for _ in range(6):
            self.sewn(self.grey["id"], "29/32", "3 5/16")
        record = record_for(current_workroom(), QUARTER)
        assert record is not None
        self.assertAlmostEqual(record.take_up_mean, 19 / 64, delta=1 / 100)
        self.ask("put", f"set-ups/{self.grey['id']}", {"changes": {"guide": "13/64"}, "seen": {}})
        record = record_for(current_workroom(), QUARTER)
        assert record is not None
        self.assertAlmostEqual(record.take_up_mean, 1 / 4, delta=1 / 100)

    def test_nothing_is_promised_from_fewer_than_four(self) -> None:
        for n in range(4):
            self.assertIsNone(record_for(current_workroom(), QUARTER), n)
            self.sewn(self.grey["id"], "1", "3 1/2")
        self.assertIsNotNone(record_for(current_workroom(), QUARTER))

    def test_a_bad_day_is_left_out_and_taken_back(self) -> None:
        today = timezone.localdate()
        bad = (today - timedelta(days=3)).isoformat()
        for n in range(8):
            self.sewn(self.grey["id"], "1", "3 1/2", day=(today - timedelta(days=10 + n)).isoformat())
        for _ in range(4):
            self.sewn(self.grey["id"], "7/8", "3 1/4", day=bad)

        def seam() -> dict[str, Any]:
            return next(h for h in self.ask("get", "records/hands")["habits"] if h["habit"] == "seam")

        wide = seam()
        hands = self.ask("put", f"records/days/{bad}")
        self.assertEqual(hands["days_out"], [bad])
        self.assertLess(seam()["mean"], wide["mean"] - 1 / 200)
        self.assertNotIn(bad, [p["day"] for p in seam()["run"]])
        self.assertEqual(self.ask("delete", f"records/days/{bad}")["days_out"], [])
        self.assertEqual(seam()["mean"], wide["mean"])
        for wrong in ("2026-13-01", "soon", "1066-10-14"):
            self.ask("put", f"records/days/{wrong}", expect=422)

    def test_nonsense(self) -> None:
        ahead = (timezone.localdate() + timedelta(days=9)).isoformat()
        for wrong in (
            {"value": "3 1/2", "whole": "1"},
            {"value": "1", "whole": "30"},
            {"value": "1", "whole": ""},
            {"value": "", "whole": "3 1/2"},
            {"value": "1", "whole": "3 1/2", "day": ahead},
            {"value": "1", "whole": "3 1/2", "kind": "row"},
            {"kind": "stitch", "value": "0", "whole": ""},
        ):
            with self.subTest(wrong):
                body = {"changes": {"kind": "strip_test", **wrong}, "seen": {}}
                self.ask("put", f"set-ups/{self.grey['id']}/tests/{uuid4()}", body, expect=422)
        self.assertFalse(ReadingRow.objects.exists())

    def test_sent_twice_it_is_there_once_and_can_be_taken_back(self) -> None:
        path = f"set-ups/{self.grey['id']}/tests/{uuid4()}"
        body = {"changes": {"kind": "stitch", "value": "9/32", "spot": "middle"}, "seen": {}}
        self.ask("put", path, body)
        sheet = self.ask("put", path, body)
        self.assertEqual(sheet["set_ups"][0]["tested"], 1)
        self.assertEqual(self.ask("delete", path)["set_ups"][0]["tested"], 0)
        self.assertEqual(self.ask("post", f"{path}/restore")["set_ups"][0]["tested"], 1)

    def test_out_as_a_sheet_and_in_again(self) -> None:
        self.sewn(self.grey["id"], "29/32", "3 5/16", note="=damp day", day="2026-09-02")
        self.ask(
            "put",
            f"set-ups/{self.grey['id']}/tests/{uuid4()}",
            {"changes": {"kind": "stitch", "value": "9/32", "spot": "end", "day": "2026-09-03"}, "seen": {}},
        )
        sheet = self.client.get("/api/records/tests.csv").content.decode()
        self.assertIn("'=damp day", sheet)
        again = self.ask("post", "records/tests.csv", {"text": sheet})
        self.assertEqual((again["added"], len(again["refused"])), (0, 2))
        ReadingRow.objects.all().delete()
        self.assertEqual(self.ask("post", "records/tests.csv", {"text": sheet})["added"], 2)
        self.assertEqual(self.client.get("/api/records/tests.csv").content.decode(), sheet)

    def test_a_sheet_of_another_program(self) -> None:
        """Unknown columns, another order, a machine nobody knows, words for figures: what can be read is taken."""
        text = "\ufeffDay;Whole;Middle;Who\n2026-09-01;3 1/2;1;me\n2026-09-01;soon;1;me\n"
        answer = self.ask("post", "records/tests.csv", {"text": text})
        self.assertEqual((answer["added"], [r["line"] for r in answer["refused"]]), (1, [3]))
        other = self.ask("post", "records/tests.csv", {"text": "day,machine,middle,whole\n2026-09-01,Blue,1,3 1/2"})
        self.assertIn("No machine of this name", other["refused"][0]["reason"])


class HandsTest(RecordsCase):
    def test_an_empty_record(self) -> None:
        self.assertEqual(self.ask("get", "records/hands")["habits"], [])
        self.assertEqual(self.ask("get", "records"), self.ask("get", "records"))
        self.assertIsNone(self.ask("get", "records")["search"])
        self.assertEqual([c["right"] for c in self.ask("get", "records/diagnoses")["calibrations"]], [0, 0, 0])

    def test_cutting_and_trimming_by_hand(self) -> None:
        """Units to be 4 trimmed to 4 1/32 six times; strips to be 1 1/2 that were 1 7/16: seams of 7/32 in 1 and 3 5/16 + ..."""
        unit = self.new_project()["units"][0]["id"]
        for _ in range(6):
            self.take_down(unit, "width", "4 1/32")
        grey = self.set_up(guide="1/4")
        for _ in range(6):
            self.sewn(grey["id"], "15/16", "3 5/16")
        by = {h["habit"]: h for h in self.ask("get", "records/hands")["habits"]}
        self.assertAlmostEqual(by["trimming"]["mean"], 1 / 32)
        self.assertIn("trimmed 1⁄32″ too large", by["trimming"]["said"])
        self.assertEqual((by["trimming"]["sure"], by["trimming"]["readings"]), ("likely", 6))
        # Whole less twice the middle: 3 5/16 - 1 7/8 = 1 7/16, a sixteenth less than was to be cut.
        self.assertAlmostEqual(by["cutting"]["mean"], -1 / 16)
        self.assertIn("cut 1⁄16″ too small", by["cutting"]["said"])

    def test_what_is_read_in_a_project_belongs_to_the_machine_in_use(self) -> None:
        grey = self.set_up(guide="1/4")
        unit = self.new_project()["units"][0]["id"]
        self.take_down(unit, "stitch", "9/32", spot="middle")
        row = ReadingRow.objects.get()
        self.assertEqual((str(row.set_up_id), row.guide), (grey["id"], QUARTER))

    def test_a_kept_diagnosis_counts_once_it_is_known_how_it_turned_out(self) -> None:
        unit = self.new_project()["units"][0]["id"]
        for v in ("9/32", "5/16", "9/32", "5/16", "9/32", "5/16"):
            self.take_down(unit, "stitch", v, spot="middle")
        for v in ("10 5/8", "10 21/32"):
            self.take_down(unit, "row", v, count="3")
        saved = uuid4()
        found = self.ask("put", f"units/{unit}/saved/{saved}")
        self.assertIn(found["verdict"]["status"], ("settled", "several"))
        waiting = self.ask("get", "records/diagnoses")
        self.assertEqual(sum(c["waiting"] for c in waiting["calibrations"]), 1)
        self.change(f"units/{unit}/saved/{saved}", {"turned_out": "right"})
        known = self.ask("get", "records/diagnoses")
        self.assertEqual(sum(c["right"] for c in known["calibrations"]), 1)
        self.assertEqual(known["kept"][0]["project_name"], "Lantern")


class LotTest(RecordsCase):
    def setUp(self) -> None:
        self.unit = self.new_project()["units"][0]["id"]

    def measured(self, *values: str, kind: str = "stitch", every: int = 4) -> dict[str, Any]:
        for n, value in enumerate(values):
            self.take_down(
                self.unit, kind, value, spot="middle" if kind == "stitch" else "", lot="1", nth=str(1 + every * n)
            )
        sheet: dict[str, Any] = self.ask("get", f"units/{self.unit}/lot?kind={kind}&lot=1&units=48")
        return sheet

    def test_a_steady_lot_and_how_many_to_measure(self) -> None:
        sheet = self.measured("1/4", "1/4", "9/32", "1/4", "1/4", "1/4")
        self.assertEqual((sheet["state"], sheet["units"], len(sheet["rows"])), ("steady", 48, 6))
        self.assertEqual([p["certainty"] for p in sheet["plans"]], [0.8, 0.9, 0.95])

    def test_a_seam_that_runs_wider_is_dated(self) -> None:
        sheet = self.measured("1/4", "1/4", "1/4", "1/4", "1/4", "5/16", "5/16", "5/16", "5/16")
        self.assertEqual((sheet["state"], sheet["since"]), ("jump", 18))
        self.assertIn("Since about unit 18, the seam runs wider by 1⁄16″: 16 units are in doubt", sheet["said"])
        self.assertTrue(all(1 <= n <= 33 for n in sheet["measure"]))

    def test_a_lot_is_judged_by_what_was_known_before_it(self) -> None:
        """Twelve units trimmed in a steady hand before; a lot that strays widely does not widen what it is judged by."""
        for _ in range(12):
            self.take_down(self.unit, "width", "4")
        before = self.measured(kind="width")["plans"][1]["count"]
        sheet = self.measured("4", "4", "4", "4", "4 1/8", "4 1/8", "4 1/8", "4 1/8", kind="width")
        self.assertEqual((sheet["plans"][1]["count"], sheet["own"]), (before, True))
        self.assertIn(sheet["state"], ("jump", "drift"))
        self.assertEqual(sheet["next"], sheet["measure"][0])

    def test_what_was_measured_in_a_lot_is_in_the_one_pool(self) -> None:
        self.measured("4", "4", "4", kind="width")
        self.assertEqual(len(self.ask("get", f"units/{self.unit}/diagnosis")["readings"]), 3)

    def test_nothing_measured_and_nonsense(self) -> None:
        sheet = self.ask("get", f"units/{self.unit}/lot?kind=width&units=12")
        self.assertEqual((sheet["state"], sheet["rows"]), ("too_few", []))
        self.ask("get", f"units/{self.unit}/lot?kind=row", expect=400)
        self.ask("get", f"units/{self.unit}/lot?lot=-1", expect=400)
        self.ask("get", f"units/{uuid4()}/lot", expect=404)
        self.take_down(self.unit, "width", "4", expect=422, nth="first")


class ForecastTest(RecordsCase):
    def foretold(self) -> Any:
        """Asked for until nothing is left."""
        found = self.ask("get", "records/forecasts")
        while found["left"]:
            before, found = found, self.ask("get", "records/forecasts")
            self.assertLess(found["left"], before["left"])
        return found

    def test_one_answer_works_a_while_and_the_next_goes_on(self) -> None:
        forecasts._worked_out.cache_clear()
        with patch.object(forecasts, "_AT_A_TIME", 0.0):
            first = self.ask("get", "records/forecasts")
            second = self.ask("get", "records/forecasts")
            none = self.ask("get", "records/forecasts?finished=9")
        self.assertGreater(first["left"], 50)
        self.assertEqual(len(first["blocks"]) + first["left"], len(self.foretold()["blocks"]))
        self.assertLess(second["left"], first["left"])
        self.assertLess(none["left"], second["left"])
        self.assertEqual(self.foretold()["left"], 0)

    def test_what_is_worked_out_behind_is_there_when_it_is_asked_for(self) -> None:
        forecasts._worked_out.cache_clear()
        with patch.multiple(forecasts, _AFTER_START=0.0, _RESTS=0.0, connection=Mock()):
            forecasts.work_out_behind()
        with patch.object(forecasts, "forecast", side_effect=AssertionError("worked out again")):
            self.assertGreaterEqual(len(self.ask("get", "records/forecasts")["blocks"]), 60)

    def test_the_library_is_put_in_order_by_ones_own_hands(self) -> None:
        before = self.foretold()
        self.assertEqual((before["readings"], before["trimmed"]), (0, 0))
        worth = [b["blocks"] * (100 if b["tips"] is None else b["tips"]) for b in before["blocks"]]
        self.assertTrue(all(a >= b - 120 for a, b in pairwise(worth)), "but for rounding")
        grey = self.set_up(guide="1/4")
        for _ in range(8):
            self.sewn(grey["id"], "29/32", "3 5/16")
        after = {b["key"]: b for b in self.foretold()["blocks"]}
        wake = next(b for b in before["blocks"] if b["key"] == "wake")
        self.assertLess(after["wake"]["blocks"], wake["blocks"])
        found = self.ask("get", "records/forecasts/wake")
        self.assertIn("Set the guide", found["helps"][0]["said"])
        self.assertGreater(found["helps"][0]["blocks"], found["block"]["blocks"])

    def test_ones_own_arrangements_are_among_them_and_unknown_ones_are_not(self) -> None:
        project = self.new_project()
        block, own = str(uuid4()), str(uuid4())
        body = {"start": "pinwheel", "changes": {"finished": "8"}, "seen": {}}
        self.ask("put", f"projects/{project['id']}/blocks/{block}", body)
        self.ask("put", f"library/{own}", {"block": block})
        self.assertIn(own, [b["key"] for b in self.foretold()["blocks"]])
        self.ask("get", f"records/forecasts/{own}")
        self.ask("get", "records/forecasts/nowhere", expect=404)


class GoneTest(RecordsCase):
    """A unit is planned by her own records, and then they are gone: the machine sold, the day left out."""

    def test_only_that_unit_waits_and_says_why(self) -> None:
        project = self.new_project()
        key, unit = project["id"], project["units"][0]["id"]
        machine = self.set_up()
        for _ in range(5):
            self.sewn(machine["id"], "1", "3 1/2")
        self.change(f"units/{unit}", {"school": "records"})
        self.ask("delete", f"set-ups/{machine['id']}")
        for page in ("cutting", "standing", "bench", "counts", "buying", "time", "ticket", "measured", "story"):
            with self.subTest(page):
                self.ask("get", f"projects/{key}/{page}")
        waiting = self.ask("get", f"projects/{key}/standing")["waiting"]
        self.assertTrue(any("records" in w or "readings" in w for w in waiting), waiting)
        self.ask("get", "evenings")
        for one in (f"units/{unit}/bench", f"units/{unit}/trial"):
            self.assertEqual(self.ask("get", one, expect=422)["code"], "records_too_few")
        self.ask("post", f"set-ups/{machine['id']}/restore")
        self.assertEqual(self.ask("get", f"projects/{key}/standing")["waiting"], [])
