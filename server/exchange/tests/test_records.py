"""The records as JSON, out and in: what comes back is what went out, what is there already stays, rubbish is told."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from jsonschema import Draft202012Validator

from api.tests.api import ApiCase
from demo.tests.data import put_demo
from exchange.records import records_schema
from journal.models import LogEntry
from measuring.models import ReadingRow
from setups.models import SetUp
from timing.models import FreeTime, WorkTime


class RecordsFileTest(ApiCase):
    @classmethod
    def setUpTestData(cls) -> None:
        put_demo()

    def setUp(self) -> None:
        super().setUp()
        self.out = self.ask("get", "exchange/records")

    def take(self, data: Any, expect: int = 200) -> Any:
        return self.ask("post", "exchange/records", data, expect=expect)

    def test_it_follows_its_schema_and_holds_everything(self) -> None:
        Draft202012Validator(records_schema()).validate(self.out)
        self.assertEqual(
            {k: len(v) for k, v in self.out.items() if k in ("set_ups", "free", "log")},
            {"set_ups": 3, "free": 3, "log": 7},
        )
        self.assertGreater(len(self.out["tests"]), 25)

    def test_wiped_and_taken_in_again_it_is_the_same(self) -> None:
        for model in (SetUp, WorkTime, FreeTime, LogEntry):
            model.objects.all().delete()
        ReadingRow.objects.filter(project=None).delete()
        done = self.take(self.out)
        self.assertEqual((done["refused"], done["known"]), ([], 0))
        again = self.ask("get", "exchange/records")
        for part, rows in self.out.items():
            by_id = (
                (lambda rs: sorted(rs, key=lambda r: r["id"]))
                if part not in ("format", "days_out")
                else (lambda rs: rs)
            )
            self.assertEqual(by_id(again[part]), by_id(rows), part)

    def test_taken_in_twice_nothing_is_doubled(self) -> None:
        done = self.take(self.out)
        self.assertEqual(sum(done["added"].values()), 0)
        self.assertEqual(self.ask("get", "exchange/records"), self.out)

    def test_single_rows_that_cannot_be_taken_are_told(self) -> None:
        test = {**self.out["tests"][0], "id": str(uuid4()), "value": "a bit"}
        minutes = {**self.out["minutes"][0], "id": str(uuid4()), "project": "Nobody's"}
        good = {**self.out["free"][0], "id": str(uuid4())}
        late = {**good, "id": str(uuid4()), "begins": "23:00", "ends": "01:00"}
        done = self.take(
            {"format": "entretoile-records/1", "tests": [test], "minutes": [minutes], "free": [good, late]}
        )
        self.assertEqual(done["added"], {"free": 1})
        self.assertEqual([r.split(":")[0] for r in done["refused"]], ["tests 1", "minutes 1", "free 2"])

    def test_what_is_no_such_file(self) -> None:
        nonsense: tuple[Any, ...] = (
            {},
            [],
            {"format": "entretoile-project/1"},
            {"format": "entretoile-records/1", "tests": {}},
            {"format": "entretoile-records/1", "log": [{"id": "1", "kind": "note", "day": "2026-11-01"}]},
            {"format": "entretoile-records/1", "somebody": "else's"},
        )
        for wrong in nonsense:
            with self.subTest(str(wrong)[:60]):
                problem = self.take(wrong, expect=422)
                self.assertEqual(problem["code"], "records_refused")
