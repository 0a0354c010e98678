"""The bench over the API: steps, lots, what is put down and taken back, spoiled units and their replacement."""

from __future__ import annotations

import random
from typing import Any
from uuid import uuid4

from api.tests.api import ApiCase


class BenchTest(ApiCase):
    """Twenty half-square triangles 3 1/2 in pairs: ten goes, in lots of four."""

    def setUp(self) -> None:
        self.project = self.new_project()
        self.path = f"projects/{self.project['id']}"
        self.unit = str(self.project["units"][0]["id"])
        self.change(f"units/{self.unit}", {"count": "20"})
        self.change(f"units/{self.unit}/bench", {"lot_goes": "4"})

    def bench(self) -> Any:
        return self.ask("get", f"units/{self.unit}/bench")

    def put(self, key: str = "", expect: int = 200, **body: Any) -> Any:
        body = {"subject": "units", "of": self.unit, "stage": "sew", **body}
        return self.ask("put", f"{self.path}/done/{key or uuid4()}", body, expect=expect)

    def back(self, key: str, expect: int = 200) -> Any:
        return self.ask("delete", f"{self.path}/done/{key}", expect=expect)

    def through(self, lot: int) -> list[str]:
        """A whole lot sewn and pressed; the names of what was put down."""
        keys = []
        for step in self.bench()["runs"][0]["steps"]:
            keys.append(str(uuid4()))
            self.put(keys[-1], lot=lot, step=step["key"], stage=step["stage"])
        return keys

    def test_steps_and_lots(self) -> None:
        bench = self.bench()
        (run,) = bench["runs"]
        self.assertEqual([s["key"].split()[0] for s in run["steps"]], ["take", "mark", "lay", "sew", "cut", "open"])
        self.assertEqual(
            [(lot["number"], lot["goes"], lot["units"]) for lot in run["lots"]], [(1, 4, 8), (2, 4, 8), (3, 2, 4)]
        )
        lay = run["steps"][2]
        self.assertIn("Light square on the Dark square", lay["said"][0])
        self.assertEqual([w["code"] for w in lay["wrong"]], ["wrong_sides"])
        self.assertTrue(lay["wrong"][0]["after_drawing"]["marks"])
        self.assertTrue(bench["sew_cautions"] and bench["press_cautions"] and bench["trim_cautions"])

    def test_a_lot_through_its_steps(self) -> None:
        keys = self.through(1)
        tally = self.bench()["tally"]
        self.assertEqual((tally["sewn"], tally["pressed"], tally["to_make"]), (8, 8, 20))
        self.back(keys[-1])
        tally = self.bench()["tally"]
        self.assertEqual((tally["sewn"], tally["pressed"]), (8, 0))
        self.put(keys[-1], lot=1, step="open diagonal", stage="press")
        self.assertEqual(self.bench()["tally"]["pressed"], 8)

    def test_a_step_put_down_by_two_is_done_until_both_take_it_back(self) -> None:
        one, other = str(uuid4()), str(uuid4())
        for key in (one, one, other):
            self.put(key, lot=1, step="take")
        self.back(one)
        self.assertEqual(self.bench()["runs"][0]["lots"][0]["done"], [{"step": "take", "keys": [other]}])
        self.back(other)
        self.assertFalse(self.bench()["runs"][0]["lots"][0]["begun"])

    def test_trimmed_counts_no_further_than_sewn(self) -> None:
        refused = self.put(stage="trimmed", count=1, expect=422)
        self.assertEqual(self.codes(refused), {"count": "more_than_made"})
        self.through(1)
        key = str(uuid4())
        self.put(key, stage="trimmed", count=8)
        self.put(stage="trimmed", count=1, expect=422)
        self.put(stage="trimmed", count=-9, expect=422)
        self.assertEqual(self.bench()["tally"]["trimmed"], 8)
        self.put(key, stage="trimmed", count=8)
        self.assertEqual(self.bench()["tally"]["trimmed"], 8)
        self.back(key)
        self.assertEqual(self.bench()["tally"]["trimmed"], 0)

    def test_spoiled_units_ask_for_their_replacement(self) -> None:
        """Twenty take 10 squares of each; all cut. Three spoiled: 23 to make is 12 goes, so two squares more of each."""
        piles = self.ask("get", f"{self.path}/cutting")["piles"]
        for p in piles:
            self.change(f"{self.path}/cutting/piles/{p['letter']}", {"cut": "10"})
        self.assertEqual({p["left"] for p in self.ask("get", f"{self.path}/cutting")["piles"]}, {0})
        self.put(stage="spoiled", count=1, expect=422)
        self.through(1)
        key = str(uuid4())
        self.put(key, stage="spoiled", count=3)
        self.assertEqual({p["left"] for p in self.ask("get", f"{self.path}/cutting")["piles"]}, {2})
        lots = self.bench()["runs"][0]["lots"]
        self.assertEqual(
            [(lot["number"], lot["goes"], lot["begun"]) for lot in lots], [(1, 4, True), (2, 4, False), (3, 4, False)]
        )
        self.back(key)
        self.assertEqual({p["left"] for p in self.ask("get", f"{self.path}/cutting")["piles"]}, {0})

    def test_a_plan_changed_under_a_running_lot(self) -> None:
        """What was begun goes on as it was begun; other cloth makes it another unit, which does not count."""
        self.put(lot=1, step="take")
        self.change(f"units/{self.unit}", {"method": "eight"})
        now, earlier = self.bench()["runs"]
        self.assertTrue(earlier["earlier"] and earlier["counts"])
        self.assertEqual([s["key"] for s in earlier["steps"]][-1], "open diagonal")
        self.assertEqual([lot["number"] for lot in now["lots"]], [2])
        for step in earlier["steps"]:
            self.put(lot=1, step=step["key"], stage=step["stage"])
        self.assertEqual(self.bench()["tally"]["sewn"], 8)
        self.put(lot=1, step="sew diagonals", expect=422)
        self.ask("put", f"{self.path}/fabrics/{uuid4()}", {"changes": {"role": "c", "name": "Third"}, "seen": {}})
        self.change(f"units/{self.unit}", {"part_fabrics": ["a", "c"]})
        bench = self.bench()
        self.assertEqual((bench["tally"]["sewn"], bench["runs"][1]["counts"]), (0, False))
        self.assertIn("does not count", bench["runs"][1]["said"])
        # One count wherever it is told, and one numbering on screen and paper.
        (unit,) = self.ask("get", f"{self.path}/bench")["units"]
        self.assertEqual(unit["tally"], bench["tally"])
        coming = [lot["number"] for lot in bench["runs"][0]["lots"] if not lot["begun"]]
        (ticket,) = self.ask("get", f"{self.path}/ticket")["units"]
        self.assertEqual([lot["number"] for lot in ticket["lots"]], coming)

    def test_five_more_wanted_and_other_lots(self) -> None:
        """Lots begun keep number and size; only what is left is parted anew."""
        self.put(lot=2, step="take")
        self.change(f"units/{self.unit}", {"count": "25"})
        self.change(f"units/{self.unit}/bench", {"lot_goes": "5"})
        lots = self.bench()["runs"][0]["lots"]
        self.assertEqual(
            [(lot["number"], lot["goes"], lot["begun"]) for lot in lots], [(2, 4, True), (3, 5, False), (4, 4, False)]
        )

    def test_bad_input(self) -> None:
        self.assertEqual(self.codes(self.put(lot=1, step="iron the cat", expect=422)), {"step": "unknown_choice"})
        self.put(lot=9, step="take", expect=404)
        self.put(lot=0, step="take", expect=400)
        self.put(lot=1, step="take", of=str(uuid4()), expect=404)
        self.put("0", lot=1, step="take", expect=404)
        self.back(str(uuid4()), expect=404)
        self.change(f"units/{self.unit}/bench", {"lot_goes": "lots"}, expect=422)
        self.change(f"units/{self.unit}/bench", {"marking": "chalk"}, expect=422)
        other = self.new_project("Other")
        key = str(uuid4())
        self.put(key, lot=1, step="take")
        self.ask("delete", f"projects/{other['id']}/done/{key}", expect=404)
        body = {"subject": "units", "of": self.unit, "stage": "sew", "lot": 1, "step": "take"}
        self.ask("put", f"projects/{other['id']}/done/{uuid4()}", body, expect=404)

    def test_marking_schools(self) -> None:
        """Two windows that choose differently are told; the words follow the school."""
        self.change(f"units/{self.unit}/bench", {"marking": "lines"}, {"marking": "centre"})
        said = " ".join(s for step in self.bench()["runs"][0]["steps"] for s in step["said"])
        self.assertIn("Sew on one drawn line.", said)
        self.change(f"units/{self.unit}/bench", {"marking": "guide"}, {"marking": "centre"}, expect=409)

    def test_a_walk_by_chance_loses_nothing(self) -> None:
        """Eighty things put down and taken back in any order by three people: what is done is what is live."""
        rng, steps = random.Random(3), [s["key"] for s in self.bench()["runs"][0]["steps"]]
        stages = {s["key"]: s["stage"] for s in self.bench()["runs"][0]["steps"]}
        live: dict[str, tuple[int, str]] = {}
        for _ in range(80):
            if live and rng.random() < 0.45:
                key = rng.choice(list(live))
                self.back(key)
                del live[key]
            else:
                key, lot, step = str(uuid4()), rng.choice((1, 2)), rng.choice(steps)
                begun = {n for n, _ in live.values()}
                if lot not in begun and lot == 2 and 1 not in begun:
                    lot = 1
                self.put(key, lot=lot, step=step, stage=stages[step])
                live[key] = (lot, step)
        lots = {
            lot["number"]: {d["step"] for d in lot["done"]} for lot in self.bench()["runs"][0]["lots"] if lot["begun"]
        }
        told: dict[int, set[str]] = {}
        for lot, step in live.values():
            told.setdefault(lot, set()).add(step)
        self.assertEqual(lots, told)

    def test_where_to_go_on(self) -> None:
        """Sew until all are pressed, then trim, then measure; the stages count."""
        nxt = self.ask("get", f"{self.path}/bench")["next"]
        self.assertEqual((nxt["stage"], nxt["of"]), ("sew", self.unit))
        for lot in (1, 2, 3):
            self.through(lot)
        bench = self.ask("get", f"{self.path}/bench")
        self.assertEqual(bench["next"]["stage"], "trim")
        self.assertEqual(
            {(s["stage"], s["done"], s["of"]) for s in bench["stages"]},
            {("cut", 0, 20), ("sew", 20, 20), ("press", 20, 20), ("trim", 0, 20), ("join", 0, 0)},
        )
        self.put(stage="trimmed", count=20)
        self.assertIsNone(self.ask("get", f"{self.path}/bench")["next"])
        (line,) = [p for p in self.ask("get", "projects")["lines"] if p["id"] == self.project["id"]]
        self.assertEqual((line["trimmed"], line["to_trim"]), (20, 20))


class BlockBenchTest(ApiCase):
    def setUp(self) -> None:
        self.project = self.new_project()
        self.path = f"projects/{self.project['id']}"
        self.block = str(uuid4())
        body = {
            "start": "pinwheel",
            "changes": {"colourways": [{"count": 3, "roles": {}}], "finished": "8"},
            "seen": {},
        }
        self.ask("put", f"{self.path}/blocks/{self.block}", body)

    def put(self, key: str = "", expect: int = 200, **body: Any) -> Any:
        body = {"subject": "blocks", "of": self.block, "stage": "join", **body}
        return self.ask("put", f"{self.path}/done/{key or uuid4()}", body, expect=expect)

    def test_joined_block_by_block(self) -> None:
        bench = self.ask("get", f"blocks/{self.block}/bench")
        self.assertEqual((bench["count"], [lot["number"] for lot in bench["lots"]]), (3, [1, 2, 3]))
        last = bench["steps"][-1]
        self.assertEqual((last["width"]["text"], last["stage"]), ("8 1/2", "press"))
        self.assertTrue(bench["drawings"][last["back"]]["marks"])
        # Joining and pressing show one front, and all of pressing one back.
        presses = [s for s in bench["steps"] if s["stage"] == "press"]
        self.assertEqual(len({s["back"] for s in presses}), 1)
        self.assertEqual(len(bench["drawings"]), len(presses) + 1)
        for step in bench["steps"]:
            self.put(lot=1, step=step["key"], stage=step["stage"])
        self.assertEqual(self.ask("get", f"blocks/{self.block}/bench")["joined"], 1)
        stages = {s["stage"]: (s["done"], s["of"]) for s in self.ask("get", f"{self.path}/bench")["stages"]}
        self.assertEqual(stages["join"], (1, 3))

    def test_blocks_in_other_colours_are_told(self) -> None:
        self.assertEqual(self.ask("get", f"blocks/{self.block}/bench")["colourways"], [])
        names = {f["role"]: f["name"] for f in self.ask("get", self.path)["fabrics"]}
        ways = [{"count": 2, "roles": {}}, {"count": 1, "roles": {"a": "b", "b": "b"}}]
        self.ask("put", f"{self.path}/blocks/{self.block}", {"changes": {"colourways": ways}, "seen": {}})
        self.assertEqual(
            self.ask("get", f"blocks/{self.block}/bench")["colourways"],
            ["2 blocks in the colours drawn.", f"1 block with {names['b']} in place of {names['a']}."],
        )

    def test_the_units_seams_go_as_the_map_has_them(self) -> None:
        """The pinwheel's map spins its seams by colour: the recipe of the unit says what the map says."""
        unit = next(u for u in self.ask("get", self.path)["units"] if u["blocks"])
        steps = self.ask("get", f"units/{unit['id']}/bench")["runs"][0]["steps"]
        press = " ".join(steps[-1]["said"])
        self.assertIn("pressing map", press)

    def test_the_quilt(self) -> None:
        self.assertEqual(self.ask("get", f"{self.path}/bench/quilt")["steps"], [])
        self.assertIsNone(self.ask("get", f"{self.path}/ticket")["quilt"])
        self.change(f"{self.path}/quilt", {"columns": "3", "rows": "1"})
        quilt = self.ask("get", f"{self.path}/bench/quilt")
        self.assertEqual([s["key"] for s in quilt["steps"]], ["row 1"])
        told = self.ask("get", f"{self.path}/ticket")["quilt"]
        said = [(s["title"], s["said"], s["look"]) for s in quilt["steps"]]
        self.assertEqual([(s["title"], s["said"], s["look"]) for s in told["steps"]], said)
        self.assertIn("24 1⁄2″ by 8 1⁄2″", told["wanted"].replace("\u00a0", " "))
        self.ask("put", f"{self.path}/done/{uuid4()}", {"subject": "quilt", "stage": "join", "step": "row 1"})
        self.assertEqual(self.ask("get", f"{self.path}/bench/quilt")["done"][0]["step"], "row 1")
        self.ask(
            "put", f"{self.path}/done/{uuid4()}", {"subject": "quilt", "stage": "join", "step": "row 7"}, expect=422
        )

    def test_a_block_that_is_not_laid_out(self) -> None:
        empty = str(uuid4())
        self.ask("put", f"{self.path}/blocks/{empty}", {"start": "", "changes": {}, "seen": {}})
        self.ask("get", f"blocks/{empty}/bench", expect=422)


class TakenTest(ApiCase):
    """Twenty in pairs, lots of four: a lot takes four squares of each fabric."""

    def test_what_the_bench_took_and_nobody_cut(self) -> None:
        project = self.new_project()
        path, unit = f"projects/{project['id']}", str(project["units"][0]["id"])
        self.change(f"units/{unit}", {"count": "20"})
        self.change(f"units/{unit}/bench", {"lot_goes": "4"})
        body = {"subject": "units", "of": unit, "stage": "sew", "lot": 1, "step": "take"}
        bench = self.ask("put", f"{path}/done/{uuid4()}", body)
        self.assertEqual({(s["short"], s["cut"]) for s in bench["short"]}, {(4, 0)})
        for s in bench["short"]:
            self.change(f"{path}/cutting/piles/{s['letter']}", {"cut": str(s["cut"] + s["short"])}, {"cut": "0"})
        bench = self.ask("get", f"{path}/bench")
        self.assertEqual(bench["short"], [])
        self.assertIn({"stage": "cut", "done": 8, "of": 20}, bench["stages"])
