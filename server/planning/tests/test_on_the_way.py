"""What lies between pieces and unit, told in Plan, Trim and ticket in the same words and with the fabrics' own names."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from api.tests.api import TYPED, ApiCase

HOURGLASS = {"kind": "quarter_square_triangle", "method": "two_half_square_triangles_trimmed"}
TRIM = "On the way, the half-square triangles measure about 4\u00a05⁄8″: trim them to 4\u00a01⁄2″, the seam through both corners."


class OnTheWayTest(ApiCase):
    def setUp(self) -> None:
        self.project = self.new_project()
        self.path = f"projects/{self.project['id']}"
        for name in ("Buoy", "Slackwater"):
            self.ask("put", f"{self.path}/fabrics/{uuid4()}", {"changes": {"name": name}, "seen": {}})
        self.unit = str(uuid4())
        self.ask("post", f"{self.path}/units", {"id": self.unit, "kind": HOURGLASS["kind"]}, expect=201)
        changes = {"method": HOURGLASS["method"], "part_fabrics": "abcd", "finished": "3 1/2", "count": "12"}
        self.ask("patch", f"units/{self.unit}", {"changes": changes, "seen": {}})

    def plan(self, **typed: Any) -> list[str]:
        names = {f["role"]: f["name"] for f in self.ask("get", self.path)["fabrics"]}
        asked = {**TYPED, **HOURGLASS, "part_fabrics": list("abcd"), "names": names, **typed}
        return list(self.ask("post", "plan", asked)["on_the_way"])

    def test_the_plan_names_the_fabrics(self) -> None:
        self.assertEqual(
            self.plan(),
            [
                "Pair Dark with Slackwater and Light with Buoy.",
                "Then what is Dark and Slackwater with what is Light and Buoy.",
                TRIM,
            ],
        )

    def test_two_fabrics_and_units_made_already(self) -> None:
        said = self.plan(part_fabrics=list("abab"), count="12", ready="5")
        self.assertEqual(said, ["5 units are there already, so 7 of 12 are to make.", TRIM])

    def test_trim_says_the_size_between(self) -> None:
        self.assertEqual(self.ask("get", f"units/{self.unit}/trim")["on_the_way"], [TRIM])

    def test_the_ticket_says_both_and_in_the_order_of_the_work(self) -> None:
        tickets = self.ask("get", f"{self.path}/ticket")["units"]
        ticket = next(t for t in tickets if t["pairs"])
        self.assertEqual(ticket["pairs"][0], "Pair Dark with Slackwater and Light with Buoy.")
        said = [s for step in ticket["steps"] for s in step["said"]]
        self.assertIn("They measure about 4\xa05⁄8″. Trim each to 4\xa01⁄2″.", said)

    def test_names_are_only_ever_values(self) -> None:
        said = self.plan(names={"a": "Buoy {red}", "b": "B", "c": "C", "d": "D"})
        self.assertIn("Buoy {red} with D", said[0])
        self.ask("post", "plan", {**TYPED, "names": {"a": "x" * 300}}, expect=400)
