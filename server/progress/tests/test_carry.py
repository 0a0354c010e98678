"""What is done at the bench goes out and in with its project; copies of a plan begin anew."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from api.tests.api import ApiCase


class CarryTest(ApiCase):
    def setUp(self) -> None:
        self.project = self.new_project()
        self.path = f"projects/{self.project['id']}"
        self.unit = str(self.project["units"][0]["id"])
        self.change(f"units/{self.unit}", {"count": "20"})
        self.change(f"units/{self.unit}/bench", {"lot_goes": "4", "marking": "lines"})
        for step in self.steps(self.unit):
            self.put(stage=step["stage"], step=step["key"])
        self.put(stage="trimmed", count=5)
        self.put(stage="spoiled", count=1)

    def put(self, **body: Any) -> None:
        told = {"subject": "units", "of": self.unit, "lot": 1, **body}
        self.ask("put", f"{self.path}/done/{uuid4()}", told)

    def steps(self, unit: str) -> Any:
        return self.ask("get", f"units/{unit}/bench")["runs"][0]["steps"]

    def seen(self, unit: str) -> tuple[Any, ...]:
        bench = self.ask("get", f"units/{unit}/bench")
        lots = [
            (lot["number"], lot["goes"], lot["begun"], sorted(d["step"] for d in lot["done"]))
            for lot in bench["runs"][0]["lots"]
        ]
        return bench["marking"], bench["lot_goes"], bench["tally"], lots

    def test_out_and_in_again(self) -> None:
        data = self.ask("get", f"{self.path}/export")
        self.assertEqual(data["bench"]["counted"], [[5, 1]])
        again = self.ask("post", "exchange/projects", data, expect=201)
        self.assertEqual(self.seen(again["units"][0]["id"]), self.seen(self.unit))
        self.assertEqual(self.ask("get", f"projects/{again['id']}/export")["bench"], data["bench"])

    def test_a_file_from_before_has_none(self) -> None:
        data = self.ask("get", f"{self.path}/export")
        del data["bench"]
        again = self.ask("post", "exchange/projects", data, expect=201)
        self.assertEqual(self.seen(again["units"][0]["id"])[2]["sewn"], 0)

    def test_what_a_file_may_not_say(self) -> None:
        """A unit that is not there, a lot twice, a stage of its own: refused whole, and nothing is kept."""
        data = self.ask("get", f"{self.path}/export")
        lot = data["bench"]["lots"][0]
        count = self.ask("get", "projects")["count"]
        for wrong in (
            [{**lot, "unit": 7}],
            [lot, lot],
            [{**lot, "block": 0}],
            [{**lot, "done": [["iron", "take"]]}],
            [{**lot, "goes": 0}],
            [{**lot, "made_as": {"width": "wide"}}],
        ):
            bad = {**data, "bench": {**data["bench"], "lots": wrong}}
            self.ask("post", "exchange/projects", bad, expect=422)
        self.assertEqual(self.ask("get", "projects")["count"], count)

    def test_a_copy_of_the_plan_begins_anew(self) -> None:
        key = str(uuid4())
        copy = self.ask("post", f"{self.path}/duplicates", {"id": key}, expect=201)
        tally = self.seen(copy["units"][0]["id"])[2]
        self.assertEqual((tally["sewn"], tally["trimmed"], tally["spoiled"], tally["to_make"]), (0, 0, 0, 20))

    def test_a_unit_taken_out_and_put_back_keeps_its_work(self) -> None:
        before = self.seen(self.unit)
        self.ask("delete", f"units/{self.unit}")
        self.ask("post", f"units/{self.unit}/restore")
        self.assertEqual(self.seen(self.unit), before)
