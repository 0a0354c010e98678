"""Blocks over the API: laid out, kept, counted, joined, pressed, set into a quilt; and what is refused."""

from __future__ import annotations

import json
from typing import Any
from uuid import uuid4

from api.tests.api import ApiCase
from blocks.models import Block, OwnBlock
from piecing.blocks.library import library_keys

EMPTY = {"name": "New block", "columns": [1, 1, 1], "rows": [1, 1, 1], "units": {}, "layout": [". . ."] * 3}


class BlockCase(ApiCase):
    def setUp(self) -> None:
        self.project = self.new_project()
        self.path = f"projects/{self.project['id']}"

    def put(self, start: str = "", key: str = "", expect: int = 200, **changes: Any) -> Any:
        self.key = key or str(uuid4())
        body = {"start": start, "changes": changes}
        return self.ask("put", f"{self.path}/blocks/{self.key}", body, expect=expect)

    def look(
        self, pattern: Any, edit: Any = None, finished: str = "10 1/2", block: str | None = None, expect: int = 200
    ) -> Any:
        body = {"pattern": pattern, "finished": finished, "edit": edit, "block": block}
        return self.ask("post", f"{self.path}/look", body, expect=expect)

    def quilt(self, expect: int = 200, **changes: Any) -> Any:
        return self.ask("patch", f"{self.path}/quilt", {"changes": changes, "seen": {}}, expect=expect)


class LibraryTest(BlockCase):
    def test_every_arrangement_is_there_with_its_picture(self) -> None:
        listed = self.ask("get", "library")
        self.assertEqual([b["key"] for b in listed], list(library_keys()))
        self.assertTrue(all(b["picture"]["marks"] for b in listed))

    def test_every_arrangement_becomes_a_block_that_can_be_sewn(self) -> None:
        for key in library_keys()[:38]:
            sheet = self.put(key)
            self.assertIsNone(sheet["blocks"][-1]["view"]["cannot"], key)

    def test_ones_own_is_kept_once_listed_and_put_away(self) -> None:
        self.put("lantern")
        own = str(uuid4())
        for _ in range(2):
            listed = self.ask("put", f"library/{own}", {"block": self.key})
        self.assertEqual([b["name"] for b in listed if b["own"]], ["Lantern"])
        self.put(own)
        self.assertEqual(Block.objects.get(pk=self.key).pattern["name"], "Lantern")
        self.assertFalse(any(b["own"] for b in self.ask("delete", f"library/{own}")))
        self.assertEqual(OwnBlock.objects.count(), 1)
        again = self.ask("put", f"library/{own}", {"block": self.key})
        self.assertFalse(any(b["own"] for b in again), "a call that comes twice brings nothing back")
        back = self.ask("post", f"library/{own}/restore")
        self.assertEqual([b["key"] for b in back if b["own"]], [own])
        for how, path in (("delete", ""), ("post", "/restore")):
            self.ask(how, f"library/{uuid4()}{path}", expect=404)


class LayingOutTest(BlockCase):
    def test_a_block_is_built_place_by_place(self) -> None:
        half = {"kind": "half_square_triangle", "fabrics": "ab"}
        view = self.look(EMPTY, {"do": "place", "spots": [[0, 0]], "content": half})
        view = self.look(
            view["pattern"], {"do": "place", "spots": [[1, 0], [1, 1]], "content": {"kind": "plain_square"}}
        )
        self.assertEqual(len(view["empty"]), 6)
        self.assertEqual(view["cannot"]["code"], "layout_incomplete")
        self.assertIn("row 1, column 3", view["cannot"]["message"])
        view = self.look(view["pattern"], {"do": "symmetry", "symmetry": "quarter_turns"})
        self.assertEqual((view["empty"], view["cannot"]), ([], None))
        self.assertEqual(view["pattern"]["layout"], ["A0 B0 A1", "B3 B0 B1", "A3 B2 A2"])

    def test_every_change_is_taken(self) -> None:
        pattern = self.look(EMPTY, {"do": "place", "spots": [[0, 0]], "content": {"kind": "strip"}})["pattern"]
        for edit in (
            {"do": "turn", "spots": [[0, 0]]},
            {"do": "mirror", "spots": [[0, 0]]},
            {"do": "move", "from": [0, 0], "to": [1, 1]},
            {"do": "repeat", "from": [1, 1], "spots": [[0, 2], [2, 0]]},
            {"do": "paint", "spots": [[1, 1]], "part": 0, "role": "c"},
            {"do": "exchange", "one": "a", "other": "b"},
            {"do": "grid", "columns": 4, "rows": 3},
            {"do": "span", "from": [1, 1], "across": 2, "down": 1},
            {"do": "tracks", "columns": "2 1 1 2", "rows": "1 1 1"},
            {"do": "turn_whole"},
            {"do": "mirror_whole"},
            {"do": "rename", "name": "Gangway"},
            {"do": "clear", "spots": [[1, 1]]},
        ):
            with self.subTest(edit["do"]):
                changed = self.look(pattern, edit)["pattern"]
                self.assertNotEqual(changed, pattern)
                pattern = changed
        self.assertEqual(pattern["name"], "Gangway")

    def test_sizes_off_the_ruler_are_told_with_the_nearest_that_are_not(self) -> None:
        self.put("lantern", finished="10")
        sizes = self.look(Block.objects.get().pattern, finished="10")["sizes"]
        self.assertEqual([t["finished"]["exact"] for t in sizes["off_step"]], ["10/3"] * 6)
        near = {n["finished"]["text"]: n["step"]["text"] for n in sizes["nearest"]}
        self.assertEqual(near["10 1/2"], "1/2")
        self.assertEqual(sizes["block"]["unfinished"]["text"], "10 1/2")

    def test_bad_layouts_are_refused_with_the_reason(self) -> None:
        for pattern, code in (
            ("no object", "pattern_not_understood"),
            ({**EMPTY, "columns": []}, "pattern_not_understood"),
            ({**EMPTY, "columns": [1, 0, 1]}, "pattern_not_understood"),
            ({**EMPTY, "layout": [". ."] * 3}, "pattern_not_understood"),
            ({**EMPTY, "layout": ["Z9 . ."] * 3}, "pattern_not_understood"),
            ({**EMPTY, "format": "entretoile-block/9"}, "pattern_not_understood"),
            ({**EMPTY, "units": {"A": {"block": "nobody"}}}, "unknown_block"),
            ({**EMPTY, "units": {"A": {"kind": "round"}}}, "pattern_not_understood"),
            (
                {
                    "columns": [1, 2],
                    "rows": [1],
                    "units": {"A": {"kind": "plain_square", "fabrics": "a"}},
                    "layout": [". A0"],
                },
                "unit_does_not_fit",
            ),
            (
                {"columns": [1], "rows": [1], "units": {"A": {"block": "wake"}}, "layout": ["A0"]},
                "nested_block_does_not_fit",
            ),
        ):
            with self.subTest(code=code, pattern=str(pattern)[:60]):
                self.assertEqual(self.look(pattern, expect=422)["code"], code)

    def test_tracks_given_as_sizes_have_to_add_up(self) -> None:
        problem = self.look(EMPTY, {"do": "tracks", "columns": "3 1/2, 3 1/2, 4"}, expect=422)
        self.assertEqual(problem["code"], "tracks_do_not_add_up")
        self.assertEqual(problem["errors"][0]["values"]["total"], "11")
        view = self.look(EMPTY, {"do": "tracks", "columns": "3 1/2, 3, 4"})
        self.assertEqual(view["columns"], "7 6 8")

    def test_a_block_never_holds_itself(self) -> None:
        self.put("four_patch_block")
        first, pattern = self.key, Block.objects.get().pattern
        nested = {**pattern, "units": {**pattern["units"], "A": {"block": first}}}
        self.assertEqual(self.look(nested, block=first, expect=422)["code"], "block_holds_itself")
        self.put("four_patch_block", pattern=nested)
        second = self.key
        loop = {**pattern, "units": {**pattern["units"], "A": {"block": second}}}
        problem = self.put("", key=first, pattern=loop, expect=422)
        self.assertEqual(problem["code"], "block_holds_itself")

    def test_edits_that_make_no_sense(self) -> None:
        for edit in (
            {"do": "fly"},
            {"do": "turn", "spots": [[9, 9]]},
            {"do": "turn", "spots": "all"},
            {"do": "grid", "columns": 199, "rows": 1},
            {"do": "paint", "spots": [[0, 0]], "role": "AB"},
            {"do": "span", "from": [0, 0], "across": 2, "down": 1},
            {"do": "symmetry", "symmetry": "sevenfold"},
        ):
            with self.subTest(edit=edit):
                self.look(EMPTY, edit, expect=422)
        self.look(EMPTY, finished="wide", expect=422)
        self.look(EMPTY, finished="400", expect=422)


class KeepingTest(BlockCase):
    def test_a_block_is_kept_changed_hidden_and_taken_back(self) -> None:
        self.put("lantern", colourways=[{"count": 12, "roles": {}}, {"count": "3", "roles": {"a": "b", "b": "a"}}])
        sheet = self.put("", key=self.key, finished="12")
        (block,) = sheet["blocks"]
        self.assertEqual(block["finished"]["text"], "12")
        self.assertEqual([w["count"] for w in block["colourways"]], [12, 3])
        self.assertEqual(self.ask("delete", f"blocks/{self.key}")["blocks"], [])
        self.assertEqual(len(self.ask("post", f"blocks/{self.key}/restore")["blocks"]), 1)

    def test_another_window_is_not_overwritten(self) -> None:
        self.put("lantern")
        self.put("", key=self.key, finished="12")
        body = {"changes": {"finished": "15"}, "seen": {"finished": "10 1/2"}}
        clash = self.ask("put", f"{self.path}/blocks/{self.key}", body, expect=409)
        self.assertEqual(clash["errors"][0]["values"]["here"], "12")

    def test_fabrics_a_block_asks_for_are_made(self) -> None:
        self.put("lantern")
        project = self.ask("get", self.path)
        self.assertEqual([f["role"] for f in project["fabrics"]], ["a", "b", "c"])

    def test_a_copy_of_a_project_has_its_blocks_and_quilt(self) -> None:
        self.put("lantern")
        self.quilt(columns=5)
        copy = self.ask("post", f"{self.path}/duplicates", {"id": str(uuid4())}, expect=201)
        sheet = self.ask("get", f"projects/{copy['id']}/blocks")
        self.assertEqual((len(sheet["blocks"]), sheet["quilt"]["columns"]), (1, 5))
        self.assertNotEqual(sheet["blocks"][0]["id"], self.key)


class LookingTest(BlockCase):
    def test_the_other_looks_of_a_place(self) -> None:
        self.put("lantern")
        ways = self.ask("post", f"blocks/{self.key}/looking", {"column": 1, "row": 0, "across": 3})
        self.assertEqual(
            [a["said"] for a in ways["alternatives"]],
            ["as it lies", "turned a quarter to the right", "turned half round", "turned a quarter to the left"],
        )
        self.assertEqual(len(ways["many"]["marks"]), 9 * 25 + 4)
        self.ask("post", f"blocks/{self.key}/looking", {"across": 60}, expect=400)

    def test_the_turned_unit_is_found(self) -> None:
        self.put("lantern")
        meant = Block.objects.get().pattern
        seen = self.look(meant, {"do": "turn", "spots": [[2, 2]]})["pattern"]
        found = self.ask("post", f"blocks/{self.key}/turned", {"seen": seen})
        self.assertEqual([(f["column"], f["row"], f["what"]) for f in found["faults"]], [(2, 2, "turned")])
        self.assertIn("fault", [m["role"] for m in found["picture"]["marks"]])

    def test_a_block_that_lies_turned_is_told_as_such(self) -> None:
        self.put("leaf")
        seen = self.look(Block.objects.get().pattern, {"do": "mirror", "spots": [[0, 0]]})["pattern"]
        whole = self.look(seen, {"do": "turn_whole"})["pattern"]
        found = self.ask("post", f"blocks/{self.key}/turned", {"seen": whole})
        self.assertEqual((found["whole"], len(found["faults"])), (1, 1))

    def test_quarter_turns_of_oblong_blocks_are_refused(self) -> None:
        self.put("wake")
        self.ask("post", f"blocks/{self.key}/looking", {"every_second": "quarter"}, expect=422)


class SewingTest(BlockCase):
    def test_joining_ends_at_the_unfinished_block(self) -> None:
        self.put("lantern", finished="10 1/2")
        joined = self.ask("get", f"blocks/{self.key}/joining")
        self.assertEqual(joined["steps"][-1]["width"]["text"], "11")
        self.assertEqual(joined["order"], joined["orders"][0]["order"])
        self.put("", key=self.key, order="columns")
        self.assertEqual(self.ask("get", f"blocks/{self.key}/joining")["order"], "columns")

    def test_asked_as_it_is_chosen_nothing_is_kept(self) -> None:
        """The same answer as when it is kept first, and what is kept stays."""
        self.put("lantern")
        before = {what: self.ask("get", f"blocks/{self.key}/{what}") for what in ("joining", "pressing")}
        asked = self.ask("get", f"blocks/{self.key}/joining?order=columns")
        wishes = {"to_dark": False, "repeats": True, "layers": 9}
        pressed = self.ask("get", f"blocks/{self.key}/pressing?order=columns&wishes={json.dumps(wishes)}")
        self.assertEqual((asked["order"], pressed["order"]), ("columns", "columns"))
        for what, answer in before.items():
            self.assertEqual(self.ask("get", f"blocks/{self.key}/{what}"), answer)
        self.put("", key=self.key, order="columns", pressing=wishes)
        self.assertEqual(self.ask("get", f"blocks/{self.key}/joining"), asked)
        self.assertEqual(self.ask("get", f"blocks/{self.key}/pressing"), pressed)

    def test_what_cannot_be_read_of_a_choice_is_said(self) -> None:
        self.put("lantern")
        for asked in ("order=round", "wishes=[1]", "wishes={", "wishes=" + "[" * 5_000, 'wishes={"layers":"many"}'):
            with self.subTest(asked[:30]):
                problem = self.ask("get", f"blocks/{self.key}/pressing?{asked}", expect=422)
                self.assertTrue(problem["errors"][0]["message"])

    def test_pressing_is_solved_and_checked(self) -> None:
        self.put("lantern")
        pressed = self.ask("get", f"blocks/{self.key}/pressing")
        self.assertTrue(pressed["optimal"] and pressed["sound"])
        self.assertEqual(pressed["nested"], pressed["pairs"])
        crossing = next(c for c in pressed["crossings"] if c["plain"])
        self.put("", key=self.key, pressing={"spun": [[crossing["x"], crossing["y"]]], "repeats": True, "layers": "9"})
        spun = self.ask("get", f"blocks/{self.key}/pressing")
        self.assertTrue(any(c["spun"] for c in spun["crossings"]))
        self.assertTrue(any("then" in s["way"] for s in spun["seams"]))
        self.assertEqual(spun["edge_nested"], spun["edge_pairs"])

    def test_an_empty_place_stops_what_needs_the_whole_block(self) -> None:
        self.put("")
        for what in ("joining", "pressing"):
            self.assertEqual(self.ask("get", f"blocks/{self.key}/{what}", expect=422)["code"], "layout_incomplete")
        counts = self.ask("get", f"{self.path}/counts")
        self.assertEqual(counts["refusal"]["code"], "layout_incomplete")


class QuiltTest(BlockCase):
    def test_the_quilt_is_sized_and_drawn(self) -> None:
        self.put("lantern", finished="10 1/2", colourways=[{"count": 12, "roles": {}}])
        quilt = self.quilt(columns=3, rows=4, sash="1 1/2", cornerstones=True, borders=[{"width": "4", "fabric": "a"}])[
            "quilt"
        ]
        sizes = quilt["sizes"]
        # 3 blocks and 2 sashes, then a border on either side
        self.assertEqual(sizes["centre_width"]["text"], "34 1/2")
        self.assertEqual(sizes["width"]["text"], "42 1/2")
        self.assertEqual(sizes["unfinished_width"]["text"], "43")
        self.assertEqual({p["name"]: p["count"] for p in sizes["pieces"]}["cornerstone"], 6)
        self.assertTrue(quilt["picture"]["marks"])

    def test_what_cannot_be_a_quilt_is_refused_and_nothing_changes(self) -> None:
        self.put("wake")
        self.assertEqual(self.quilt(setting="on_point", expect=422)["errors"][0]["field"], "setting")
        self.assertEqual(self.quilt(columns=0, expect=422)["errors"][0]["field"], "columns")
        self.quilt(borders=[{"width": "0", "fabric": "a"}], expect=422)
        self.quilt(sash="-1", expect=422)
        self.assertEqual(self.ask("get", f"{self.path}/blocks")["quilt"]["setting"], "straight")

    def test_a_role_without_a_fabric_is_named(self) -> None:
        self.put("lantern", colourways=[{"count": 2, "roles": {"a": "z"}}])
        refusal = self.ask("get", f"{self.path}/counts")["refusal"]
        self.assertEqual(refusal["code"], "role_without_fabric")
        self.assertIn("Z", refusal["message"])


class ScrapsTest(BlockCase):
    def setUp(self) -> None:
        super().setUp()
        self.put("nine_patch", colourways=[{"count": 4, "roles": {}}])
        self.quilt(columns=2, rows=2)

    def lay(self, expect: int = 200, **body: Any) -> Any:
        usual = {"role": "a", "stock": {"a": 10, "b": 10}, "order": 0, "seed": 3}
        return self.ask("post", f"{self.path}/scraps", usual | body, expect=expect)

    def test_units_are_laid_with_no_neighbours_alike(self) -> None:
        places = self.ask("get", f"{self.path}/scraps?role=a")["places"]
        self.assertEqual(len(places), 20)
        scraps = self.lay()["quilt"]["scraps"]
        self.assertEqual((scraps["alike"], scraps["laid"]), ([], True))
        taken_up = self.ask("delete", f"{self.path}/scraps")["quilt"]["scraps"]
        self.assertEqual((taken_up["laid"], taken_up["stock"]), (False, {"a": 10, "b": 10}))

    def test_what_is_in_the_way_is_said(self) -> None:
        self.assertEqual(self.lay(stock={"a": 3}, expect=422)["code"], "scraps_impossible")
        self.assertEqual(self.lay(role="q", expect=422)["errors"][0]["field"], "role")
        self.lay(fixed={"0": "z"}, expect=422)
        self.lay(stock={"a": "many"}, expect=422)
        self.lay(order=500, expect=400)
        scraps = self.lay(stock={"a": 19, "b": 1})["quilt"]["scraps"]
        self.assertTrue(scraps["alike"])
