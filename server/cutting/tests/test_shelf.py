"""Stock belongs to the workroom: a project reserves it, and no cloth is ever counted by two."""

from __future__ import annotations

from random import Random
from typing import Any
from uuid import UUID, uuid4

from django.db.models import Sum

from api.tests.api import ApiCase
from cutting import commands
from cutting.models import Stock
from cutting.tests.test_ledger import LedgerCase
from keeping.purge import purge
from workrooms.selectors import current_workroom


class ShelfCase(ApiCase):
    def setUp(self) -> None:
        self.one, self.other = self.new_project(), self.new_project()

    def fabric(self, project: Any, role: str = "a") -> str:
        return str(next(f["id"] for f in project["fabrics"] if f["role"] == role))

    def stock(self, project: Any, expect: int = 200, **changes: Any) -> str:
        key = str(uuid4())
        body = {"changes": {"across": "40", "along": "36", **changes}, "seen": {}}
        self.ask("put", f"fabrics/{self.fabric(project)}/stock/{key}", body, expect=expect)
        return key

    def put(self, key: str, project: Any, count: int = 1, expect: int = 200) -> Any:
        body = {"count": count, "rest": str(uuid4())}
        return self.ask("post", f"fabrics/{self.fabric(project)}/shelf/{key}", body, expect=expect)

    def back(self, key: str, count: int = 1, expect: int = 200) -> Any:
        return self.ask("post", f"stock/{key}/shelved", {"count": count, "rest": str(uuid4())}, expect=expect)

    def shelf(self) -> list[tuple[str, str, int]]:
        return [(c["cloth"], c["kind"], c["count"]) for c in self.ask("get", "shelf")["cloths"]]

    def held(self, project: Any) -> list[int]:
        return [s["count"] for s in self.ask("get", f"projects/{project['id']}/cutting")["stock"]]


class ShelfTest(ShelfCase):
    def test_a_cloth_goes_from_one_project_over_the_shelf_to_another(self) -> None:
        key = self.stock(self.one, count="3", kind="fat_quarter")
        self.assertEqual(self.back(key, 2)["stock"][0]["count"], 1)
        self.assertEqual(self.shelf(), [("Dark", "fat_quarter", 2)])
        lying = self.ask("get", "shelf")["cloths"][0]["id"]
        sheet = self.put(lying, self.other, 1)
        self.assertEqual([s["count"] for s in sheet["stock"]], [1])
        self.assertEqual(
            (self.held(self.one), self.held(self.other), self.shelf()), ([1], [1], [("Dark", "fat_quarter", 1)])
        )

    def test_what_another_project_reserved_meanwhile_is_refused_by_name(self) -> None:
        key = self.stock(self.one)
        self.back(key)
        self.put(key, self.other)
        problem = self.put(key, self.one, expect=422)
        self.assertIn(self.other["name"], problem["errors"][0]["message"])
        self.assertEqual((self.held(self.one), self.held(self.other)), ([], [1]))
        # The window in which it still stood in the first project's stock is told too.
        body = {"changes": {"count": "5"}, "seen": {}}
        self.assertEqual(
            self.ask("put", f"fabrics/{self.fabric(self.one)}/stock/{key}", body, expect=404)["code"], "not_here"
        )

    def test_more_than_there_is(self) -> None:
        key = self.stock(self.one, count="2")
        self.back(key, 3, expect=422)
        self.back(key, 2)
        self.put(key, self.other, 5, expect=422)
        self.put(str(uuid4()), self.other, expect=404)
        self.assertEqual(self.shelf(), [("Dark", "yardage", 2)])

    def test_cloth_is_entered_changed_removed_and_taken_back_on_the_shelf(self) -> None:
        key = str(uuid4())
        change = lambda expect=200, **c: self.ask("put", f"shelf/{key}", {"changes": c, "seen": {}}, expect=expect)  # noqa: E731
        change(cloth="Rope", kind="fat_quarter", across="20", across_most="22", count="4")
        self.assertEqual(self.shelf(), [("Rope", "fat_quarter", 4)])
        change(422, across="broad")
        change(422, across_most="10")
        change(422, cloth="\u200b")
        change(count="3")
        self.ask("delete", f"shelf/{key}")
        self.assertEqual(self.shelf(), [])
        self.ask("post", f"shelf/{key}/restore")
        self.assertEqual(self.shelf(), [("Rope", "fat_quarter", 3)])
        self.put(key, self.one, 3)
        self.assertEqual(change(404, count="9")["code"], "not_here")

    def test_what_a_deleted_project_had_is_free_and_survives_it(self) -> None:
        key = self.stock(self.one, count="2")
        self.ask("delete", f"projects/{self.one['id']}")
        row = self.ask("get", "shelf")["cloths"][0]
        self.assertEqual((row["cloth"], row["freed_by"]), ("Dark", self.one["name"]))
        self.put(key, self.other, 1)
        self.ask("post", f"projects/{self.one['id']}/restore")
        self.assertEqual((self.held(self.one), self.held(self.other), self.shelf()), ([1], [1], []))
        self.ask("delete", f"projects/{self.one['id']}")
        purge()
        self.assertEqual(self.shelf(), [("Dark", "yardage", 1)])

    def test_a_copy_of_a_project_takes_no_cloth_that_the_first_one_has(self) -> None:
        self.stock(self.one, count="2")
        copy = self.ask("post", "exchange/projects", self.ask("get", f"projects/{self.one['id']}/export"), expect=201)
        self.assertEqual((self.held(self.one), self.held(copy)), ([2], []))
        file = self.ask("get", f"projects/{self.one['id']}/export")
        self.ask("delete", f"projects/{self.one['id']}")
        again = self.ask("post", "exchange/projects", file, expect=201)
        self.assertEqual((self.held(again), self.shelf()), ([2], []))

    def test_a_hundred_moves_by_chance_lose_and_double_nothing(self) -> None:
        chance = Random(4)
        for project in (self.one, self.other):
            self.stock(project, count="30")
        for _ in range(100):
            row = chance.choice(list(Stock.objects.filter(deleted_at=None).select_related("fabric")))
            n = chance.randint(1, row.count)
            if row.fabric is None:
                self.put(str(row.pk), chance.choice((self.one, self.other)), n)
            else:
                self.back(str(row.pk), n)
            self.assertEqual(Stock.objects.filter(deleted_at=None).aggregate(n=Sum("count"))["n"], 60)
        total = sum(self.held(self.one)) + sum(self.held(self.other)) + sum(n for _, _, n in self.shelf())
        self.assertEqual(total, 60)


class TrianglesTest(LedgerCase):
    """Geese of loose triangles: 9 of 4 in. want 9 quarters of squares 5 1/4: three squares give 12, three are odd."""

    def setUp(self) -> None:
        super().setUp()
        Stock.objects.all().delete()
        self.units(kind="flying_goose", method="loose_triangles", finished="4", count="9")

    def quarters(self, gives: int = 4) -> Any:
        return next(p for p in self.ask("get", f"{self.path}/cutting")["piles"] if p["gives"] == gives)

    def test_bought_triangles_are_neither_cut_nor_bought_again(self) -> None:
        side, role = self.quarters()["width"]["text"], self.quarters()["fabric"]
        self.assertEqual((self.quarters()["wanted"], self.quarters()["ready"]), (3, 0))
        sheet = self.stock(role, kind="quarter_triangle", across=side, count="5")
        self.assertEqual((self.quarters()["wanted"], self.quarters()["ready"]), (1, 5))
        self.assertFalse(sheet["stock"][0]["is_cloth"])
        self.stock(role, kind="quarter_triangle", across=side, count="4")
        self.assertEqual(self.quarters()["wanted"], 0)
        buying = self.ask("get", f"{self.path}/buying")
        self.assertNotIn(role, [p["fabric"] for p in buying["purchases"]])
        # They are no cloth: nothing is cut from them.
        self.ask("post", f"{self.path}/cutting", {}, expect=422)

    def test_odd_ones_are_put_by_and_taken_back(self) -> None:
        letter = self.quarters()["letter"]
        self.assertEqual(self.quarters()["odd"], 0)
        self.ask("post", f"{self.path}/cutting/piles/{letter}/triangles", expect=422)
        self.ask("patch", f"{self.path}/cutting/piles/{letter}", {"changes": {"cut": "3"}, "seen": {}})
        self.assertEqual(self.quarters()["odd"], 3)
        sheet = self.ask("post", f"{self.path}/cutting/piles/{letter}/triangles")
        self.assertEqual(
            [(s["kind"], s["count"], s["name"]) for s in sheet["stock"]],
            [("quarter_triangle", 3, f"from pile {letter}")],
        )
        self.assertEqual((self.quarters()["odd"], self.quarters()["left"], self.quarters()["over"]), (0, 0, 0))
        # Three more geese: the odd ones are theirs.
        self.ask("patch", f"units/{self.unit}", {"changes": {"count": "12"}, "seen": {}})
        self.assertEqual((self.quarters()["ready"], self.quarters()["left"]), (3, 0))
        self.ask("patch", f"units/{self.unit}", {"changes": {"count": "9"}, "seen": {}})
        back = self.ask("post", f"{self.path}/cutting/undo")
        self.assertEqual((back["stock"], self.quarters()["odd"]), ([], 3))

    def test_a_plan_whose_cloth_was_given_away_says_so_and_takes_nothing_from_elsewhere(self) -> None:
        for role in "ab":
            self.stock(role, across="40", along="36")
        commands.begin_plan(current_workroom(), UUID(self.project["id"]), "least", along=False, wait=True)
        sheet = self.ask("get", f"{self.path}/cutting")
        self.assertEqual(sheet["plan"]["changed"], [])
        gone = sheet["stock"][0]["id"]
        sheet = self.ask("post", f"stock/{gone}/shelved", {"count": 1, "rest": str(uuid4())})
        self.assertIn("no longer in the stock", " ".join(sheet["plan"]["changed"]))
        self.ask("post", f"{self.path}/cutting/cut")
        self.assertEqual(Stock.objects.get(pk=gone).count, 1)
