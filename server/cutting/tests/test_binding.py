"""The binding is joined from what there is, in strips of any length; backing, batting and thread stand with what is to buy."""

from __future__ import annotations

from fractions import Fraction
from math import ceil
from typing import Any
from uuid import uuid4

from django.test import TransactionTestCase

from api.tests.api import ApiCase
from cutting import commands
from workrooms.selectors import current_workroom


class BindingTest(TransactionTestCase):
    """Nine pinwheels of 10, 30 by 30: 120 round and a foot, 132 of strips 2 1/4 wide, from a fabric that nothing else is cut of."""

    def ask(self, method: str, path: str, body: Any = None, *, expect: int = 200) -> Any:
        return ApiCase.ask(self, method, path, body, expect=expect)  # type: ignore[arg-type]

    def setUp(self) -> None:
        key = str(uuid4())
        block = {"start": "pinwheel", "finished": "10", "count": "9"}
        body = {"id": key, "name": "Pinwheels", "fabrics": ["Tar", "Fog", "Buoy"], "block": block}
        project = self.ask("post", "beginnings", {**body, "quilt": {"binding_fabric": "c"}}, expect=201)
        self.key, self.path = project["id"], f"projects/{project['id']}"
        self.fabrics = {f["role"]: f["id"] for f in project["fabrics"]}

    def stock(self, role: str, **changes: Any) -> Any:
        body = {"changes": changes, "seen": {}}
        return self.ask("put", f"fabrics/{self.fabrics[role]}/stock/{uuid4()}", body)

    def plan(self) -> Any:
        commands.begin_plan(current_workroom(), self.key, "least", along=False, wait=True)
        sheet = self.ask("get", f"{self.path}/cutting")
        self.assertEqual(sheet["plan"]["flaws"], [])
        return sheet

    def piles(self, sheet: Any) -> list[tuple[str, int, int]]:
        mine = [p for p in sheet["piles"] if p["fabric"] == "c"]
        return sorted((p["height"]["text"], p["wanted"], p["cut"]) for p in mine)

    def test_from_fat_quarters(self) -> None:
        """20 and 17 3/4 for each further one: eight strips make 144 1/4, seven 126 1/2. A fat quarter of 18 gives eight."""
        self.assertEqual(self.piles(self.ask("get", f"{self.path}/cutting")), [("40", 4, 0)])
        self.stock("c", kind="fat_quarter")
        sheet = self.plan()
        self.assertEqual(self.piles(sheet), [("20", 8, 0)])
        self.assertFalse([m for m in sheet["plan"]["missing"] if m["fabric"] == "c"])
        self.assertIn("8 strips of 20″", sheet["binding"])
        self.assertIn("7 joins", sheet["binding"])

    def test_what_the_other_way_of_cutting_costs_stands_beside(self) -> None:
        for role in "abc":
            self.stock(role, across="40", along="36")
        least, fewest = self.plan()["plan"]["costs"]
        self.assertTrue(least.startswith("Least fabric: "))
        self.assertTrue(fewest.startswith("Fewest strips: "))

    def test_half_of_it_cut_and_the_rest_from_yardage(self) -> None:
        """Three strips of 20 are cut by hand: 55 1/2. 76 1/2 more by 37 3/4 each are three of 40;
        the fat quarter is gone. With those, one of 20 is enough: 131 without, 148 3/4 with it."""
        sheet = self.stock("c", kind="fat_quarter")
        self.plan()
        letter = next(p["letter"] for p in self.ask("get", f"{self.path}/cutting")["piles"] if p["fabric"] == "c")
        self.ask("patch", f"{self.path}/cutting/piles/{letter}", {"changes": {"cut": "3"}, "seen": {}})
        self.ask("delete", f"stock/{sheet['stock'][0]['id']}")
        self.stock("c", across="40", along="9")
        again = self.plan()
        self.assertEqual(self.piles(again), [("20", 1, 3), ("40", 3, 0)])
        self.assertEqual(again["plan"]["changed"], [])

    def test_a_larger_quilt_keeps_the_strips_that_were_chosen(self) -> None:
        """12 blocks are 30 by 40: 152 wanted, eight strips of 20 make 144 1/4, one of 40 is added."""
        self.stock("c", kind="fat_quarter")
        self.plan()
        self.ask("patch", f"{self.path}/quilt", {"changes": {"rows": "4"}, "seen": {}})
        sheet = self.ask("get", f"{self.path}/cutting")
        self.assertEqual(self.piles(sheet), [("20", 8, 0), ("40", 1, 0)])
        self.assertTrue(sheet["plan"]["changed"])

    def test_backing_batting_and_thread(self) -> None:
        """4 over on each side: 38 by 38, one length of 38 from cloth 40 wide; with 3 in a hundred 39.2, one yard and an eighth.
        Thread by hand: nine blocks of four units, joined by two seams of 5 1/2 and one of 10 1/2; rows by two of 10 1/2 each,
        and two of 30 1/2; the binding 120 and three joins of 3.18."""
        buying = self.ask("get", f"{self.path}/buying")
        self.assertEqual((buying["backing"]["width"]["text"], buying["backing"]["asked"]), ("38", "1 1⁄8 yd"))
        self.assertEqual(buying["backing_fabric"], "b")
        sewn = {s["said"]: float(Fraction(s["length"]["exact"])) for s in buying["seams"]}
        self.assertEqual(sewn["joining 9 blocks of Pinwheel"], ceil(9 * (2 * 5.5 + 10.5)))
        quilt = next(v for k, v in sewn.items() if k.startswith("joining the quilt"))
        self.assertEqual(quilt, 6 * 10.5 + 2 * 30.5)
        self.assertEqual(sewn["sewing the binding on, and its joins"], ceil(120 + 3 * 2.25 * 2**0.5))
        # Each is told up to the inch, all of them together once.
        over = sum(sewn.values()) - float(Fraction(buying["seam"]["exact"]))
        self.assertTrue(-1 < over < len(sewn), over)

    def test_a_backing_whose_print_is_kept(self) -> None:
        """Twenty of 10, 40 by 50, 4 over: 48 by 58. Across takes two of 48; a print with a direction two of 58, and where it comes round
        every 25 the second begins 75 after the first."""
        self.ask("patch", f"{self.path}/quilt", {"changes": {"columns": "4", "rows": "5"}, "seen": {}})
        self.assertEqual(self.backing(), ("96", 48))
        self.ask("patch", f"fabrics/{self.fabrics['b']}", {"changes": {"direction": "one_way"}, "seen": {}})
        self.assertEqual(self.backing(), ("116", 58))
        self.ask("patch", f"{self.path}/quilt", {"changes": {"backing_repeat": "25"}, "seen": {}})
        self.assertEqual(self.backing(), ("133", 58))
        refused = self.ask(
            "patch", f"{self.path}/quilt", {"changes": {"backing_repeat_across": "41"}, "seen": {}}, expect=422
        )
        self.assertEqual(refused["errors"][0]["field"], "backing_repeat_across")
        self.assertEqual(self.backing(), ("133", 58))

    def backing(self) -> tuple[str, float]:
        """How much cloth, and the seam of it: the quilt and what is to buy say the same."""
        first = self.ask("get", f"{self.path}/blocks")["quilt"]["sizes"]["backing"][0]
        buying = self.ask("get", f"{self.path}/buying")
        self.assertEqual(buying["backing"]["said"], first["said"])
        self.assertEqual(buying["backing"]["bare"]["text"], first["length"]["text"])
        seams = {s["said"]: float(Fraction(s["length"]["exact"])) for s in buying["seams"]}
        return first["length"]["text"], seams["joining the backing"]
