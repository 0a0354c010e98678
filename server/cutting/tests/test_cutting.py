"""Stock and cutting plans over the API."""

from __future__ import annotations

from threading import Event
from typing import Any
from uuid import uuid4

from django.test import TransactionTestCase
from django.utils import timezone

from api.tests.api import ApiCase
from cutting import commands, jobs
from cutting.models import CutPlan, Stock
from projects.selectors import get_project
from workrooms.selectors import current_workroom


class StockTest(ApiCase):
    def setUp(self) -> None:
        self.project = self.new_project()
        self.path = f"projects/{self.project['id']}"
        self.fabrics = {f["role"]: f["id"] for f in self.project["fabrics"]}

    def put(self, role: str = "a", key: str = "", expect: int = 200, **changes: Any) -> Any:
        self.key = key or str(uuid4())
        body = {"changes": changes, "seen": {}}
        return self.ask("put", f"fabrics/{self.fabrics[role]}/stock/{self.key}", body, expect=expect)

    def test_cloth_is_entered_changed_removed_and_taken_back(self) -> None:
        sheet = self.put(kind="fat_quarter", across="20 1/2", along="18", count="3", name="from the locker")
        self.assertEqual([(s["across"]["text"], s["count"]) for s in sheet["stock"]], [("20 1/2", 3)])
        sheet = self.put(key=self.key, count="2")
        self.assertEqual(sheet["stock"][0]["count"], 2)
        self.assertEqual(self.ask("delete", f"stock/{self.key}")["stock"], [])
        self.assertEqual(len(self.ask("post", f"stock/{self.key}/restore")["stock"]), 1)

    def test_what_no_cloth_can_be(self) -> None:
        self.put(across="0", expect=422)
        self.put(across="-3", expect=422)
        self.put(along="broad", expect=422)
        self.put(kind="sail", expect=422)
        self.put(count="many", expect=422)
        self.assertEqual(Stock.objects.count(), 0)

    def test_piles_have_letters_and_say_what_for(self) -> None:
        piles = self.ask("get", f"{self.path}/cutting")["piles"]
        self.assertEqual(
            [(p["letter"], p["fabric"], p["wanted"], p["width"]["text"]) for p in piles],
            [("A", "a", 2, "4 1/2"), ("B", "b", 2, "4 1/2")],
        )

    def test_nothing_in_stock_is_said(self) -> None:
        self.assertEqual(self.ask("post", f"{self.path}/cutting", {}, expect=422)["code"], "nothing_to_cut")
        self.ask("post", f"{self.path}/cutting/cut", expect=422)

    def test_what_the_stock_is_enough_for(self) -> None:
        self.ask("put", f"{self.path}/blocks/{uuid4()}", {"start": "pinwheel", "changes": {"finished": "7"}})
        self.assertEqual(
            [b["said"] for b in self.ask("get", f"{self.path}/possible")["blocks"]],
            ["No block of Pinwheel, if it is all used for them."],
        )
        for role in "ab":
            self.put(role, across="40", along="9")
        # Two strips of eight squares of 4 1/2 of each fabric: 32 units, four a block.
        self.assertEqual(self.ask("get", f"{self.path}/possible")["blocks"][0]["least"], 8)

    def test_what_to_buy(self) -> None:
        buying = self.ask("get", f"{self.path}/buying")
        self.assertEqual(
            [(p["fabric"], p["bare"]["text"], p["buy"]["text"]) for p in buying["purchases"]],
            [("a", "4 1/2", "13 1/2"), ("b", "4 1/2", "13 1/2")],
        )

    def test_allowances_for_shrinkage_and_wrong_cuts(self) -> None:
        bare = self.ask("get", f"{self.path}/buying?shrinkage=0&wrong_cuts=0&bobbin=20")
        self.assertEqual(bare["purchases"][0]["buy"]["text"], "4 1/2")
        self.ask("get", f"{self.path}/buying?shrinkage=99", expect=400)


class SheetsTest(ApiCase):
    def setUp(self) -> None:
        self.project = self.new_project()
        self.path = f"projects/{self.project['id']}"

    def send(self, name: str, text: str, expect: int = 200) -> Any:
        return self.ask("post", f"{self.path}/{name}.csv", {"text": text}, expect=expect)

    def test_stock_goes_out_and_comes_back(self) -> None:
        text = "fabric;kind;across;along;count;name\nDark;fat quarter;50,8 cm;18;3;=SUM(A1)\nb;scrap;8;6 1/2;1;\n"
        told = self.send("stock", "\ufeff" + text)
        self.assertEqual((told["added"], told["refused"]), (2, []))
        out = self.client.get(f"/api/{self.path}/stock.csv").content.decode()
        self.assertIn("Dark,fat_quarter,20,18,3,'=SUM(A1)", out)
        again = self.send("stock", out)
        self.assertEqual((again["added"], Stock.objects.filter(name="=SUM(A1)").count()), (2, 2))

    def test_bad_lines_are_named_and_good_ones_taken(self) -> None:
        told = self.send(
            "stock",
            "fabric,kind,across,along\nDark,yardage,40,36\nSail,yardage,40,36\nDark,canvas,40,36\nDark,yardage,wide,36\nDark,yardage,0,36",
        )
        self.assertEqual((told["added"], [r["line"] for r in told["refused"]]), (1, [3, 4, 5, 6]))
        self.assertIn("no fabric of this project", told["refused"][0]["reason"])
        self.send("stock", "\x00\x01PNG\x02", expect=400)
        self.assertEqual(self.send("stock", "\x89PNG\x1a\x02")["added"], 0)
        self.ask("post", f"{self.path}/stock.csv", {"text": "x" * 2_100_000}, expect=413)

    def test_a_cut_list_is_added_to_the_piles(self) -> None:
        told = self.send("cut-list", "fabric\twidth\theight\tcount\tname\nDark\t3 1/2\t9\t4\tpocket")
        self.assertEqual(told["added"], 1)
        piles = self.ask("get", f"{self.path}/cutting")["piles"]
        self.assertIn(("pocket", 4), [(p["name"], p["wanted"]) for p in piles])
        self.assertIn("pocket", self.client.get(f"/api/{self.path}/cut-list.csv").content.decode())

    def test_lists_and_stock_hold_no_more_than_a_file_takes_back(self) -> None:
        lines = "\n".join("a,2,3,1,piece" for _ in range(1_500))
        self.send("cut-list", "fabric,width,height,count,name\n" + lines)
        self.assertEqual(
            self.send("cut-list", "fabric,width,height,count,name\n" + lines, expect=422)["code"], "count_out_of_range"
        )
        cloths = "\n".join("a,scrap,8,6" for _ in range(300))
        self.send("stock", "fabric,kind,across,along\n" + cloths)
        self.send("stock", "fabric,kind,across,along\n" + cloths, expect=422)
        out = self.ask("get", f"{self.path}/export")
        self.ask("delete", self.path)
        again = self.ask("get", f"projects/{self.ask('post', 'exchange/projects', out, expect=201)['id']}/export")
        self.assertEqual((len(again["cutting"]["extra"]), len(again["stock"])), (1_500, 300))

    def test_what_there_is_enough_for_follows_every_change(self) -> None:
        """What was worked out is kept for as long as nothing of the project changes, and no longer."""
        self.ask("put", f"{self.path}/blocks/{uuid4()}", {"start": "pinwheel", "changes": {"finished": "7"}})
        count = lambda: self.ask("get", f"{self.path}/possible")["blocks"][0]["least"]  # noqa: E731
        self.assertEqual(count(), 0)
        self.send("stock", "fabric,kind,across,along\na,yardage,40,9\nb,yardage,40,9")
        self.assertEqual(count(), 8)
        self.change(self.path, {"seam_allowance": "1/2"})
        self.assertLess(count(), 8)
        stock = self.ask("get", f"{self.path}/cutting")["stock"][0]["id"]
        self.ask("delete", f"stock/{stock}")
        self.assertEqual(count(), 0)


class PlanTest(TransactionTestCase):
    """The plan is found in a thread of its own, so rows must really be in the database."""

    ask = ApiCase.ask
    new_project = ApiCase.new_project

    def setUp(self) -> None:
        self.project = self.new_project()  # type: ignore[misc]
        self.path = f"projects/{self.project['id']}"
        for f in self.project["fabrics"]:
            body = {"changes": {"across": "40", "along": "18", "name": f"half a yard of {f['role']}"}, "seen": {}}
            self.ask("put", f"fabrics/{f['id']}/stock/{uuid4()}", body)  # type: ignore[misc]

    def plan(self, goal: str = "least") -> Any:
        commands.begin_plan(current_workroom(), self.project["id"], goal, along=False, wait=True)
        return self.ask("get", f"{self.path}/cutting")["plan"]  # type: ignore[misc]

    def test_a_plan_is_found_sound_ticked_and_cut(self) -> None:
        plan = self.plan()
        self.assertEqual((plan["missing"], plan["flaws"], plan["proven"], plan["changed"]), ([], [], True, []))
        self.assertEqual(
            plan["cloths"][0]["strips"][0]["said"].replace("\u00a0", " "),
            "Cut a strip 4 1⁄2″ deep; from it 2 A of 4 1⁄2″.",
        )
        ticked = self.ask("post", f"{self.path}/cutting/strips", {"number": 1, "done": True})  # type: ignore[misc]
        self.assertTrue(ticked["plan"]["cloths"][0]["strips"][0]["done"])
        sheet = self.ask("post", f"{self.path}/cutting/cut")  # type: ignore[misc]
        self.assertIsNone(sheet["plan"])
        left = {s["name"]: (s["across"]["text"], s["along"]["text"]) for s in sheet["stock"]}
        self.assertEqual(left["rest of half a yard of a"], ("40", "13 1/2"))
        self.assertEqual(left["end of strip 1, half a yard of a"], ("31", "4 1/2"))

    def test_a_plan_goes_stale_when_the_units_change(self) -> None:
        self.plan()
        unit = self.project["units"][0]["id"]
        self.ask("patch", f"units/{unit}", {"changes": {"count": 40}, "seen": {}})  # type: ignore[misc]
        changed = self.ask("get", f"{self.path}/cutting")["plan"]["changed"]  # type: ignore[misc]
        self.assertEqual(changed, ["Pile A: 18 pieces more to cut.", "Pile B: 18 pieces more to cut."])

    def test_what_the_stock_does_not_give_is_missing(self) -> None:
        unit = self.project["units"][0]["id"]
        self.ask("patch", f"units/{unit}", {"changes": {"count": 400}, "seen": {}})  # type: ignore[misc]
        plan = self.plan()
        self.assertTrue(all(m["count"] > 0 for m in plan["missing"]))
        self.assertEqual(plan["flaws"], [])

    def test_stopping_keeps_what_was_found(self) -> None:
        unit = self.project["units"][0]["id"]
        self.ask("patch", f"units/{unit}", {"changes": {"count": 64}, "seen": {}})  # type: ignore[misc]
        self.ask("post", f"{self.path}/cutting", {"goal": "fewest"})  # type: ignore[misc]
        self.ask("delete", f"{self.path}/cutting")  # type: ignore[misc]
        job = jobs.job_of(get_project(current_workroom(), self.project["id"]).pk)
        assert job
        assert job.thread
        job.thread.join()
        self.assertEqual(CutPlan.objects.get().goal, "fewest")

    def test_one_that_was_interrupted_says_so_until_it_is_begun_again(self) -> None:
        CutPlan.objects.update_or_create(project_id=self.project["id"], defaults={"asked_at": timezone.now()})
        jobs._jobs.clear()
        self.assertIn("was interrupted", self.ask("get", f"{self.path}/cutting")["job"]["failed"])  # type: ignore[misc]
        self.plan()
        self.assertEqual(self.ask("get", f"{self.path}/cutting")["job"]["failed"], "")  # type: ignore[misc]
        self.assertIsNone(CutPlan.objects.get().asked_at)

    def test_two_at_a_time_and_not_without_end(self) -> None:
        hold, both, keys = Event(), Event(), [uuid4() for _ in range(22)]
        going: list[int] = []

        def held(_stop: object) -> str:
            going.append(1)
            if len(going) == 2:
                both.set()
            hold.wait(20)
            return ""

        try:
            begun = [jobs.start(key, 5.0, held) for key in keys]
            self.assertTrue(both.wait(10))
            self.assertEqual(sum(j.began is not None for j in begun), 2)
            self.assertEqual([j.share for j in begun if j.began is None], [0.0] * 20)
            with self.assertRaises(jobs.TooManyAtOnce):
                jobs.start(uuid4(), 5.0, lambda _stop: "")
        finally:
            hold.set()
        for job in begun:
            assert job.thread is not None
            job.thread.join(5)
        self.assertFalse(any(j.running for j in begun))
