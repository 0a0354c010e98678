"""What a quilt is pieced of beside its blocks: pieced borders, parts of blocks, a centre laid by hand. Numbers counted by hand."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from api.tests.api import ApiCase
from blocks.following import follow_blocks
from blocks.models import Block
from projects.models import Project

GOOSE = {"kind": "flying_goose", "fabrics": "abb"}
HALF_SQUARE = {"kind": "half_square_triangle", "fabrics": "ab"}


class QuiltCase(ApiCase):
    """Three by four Lantern blocks finishing 10 1/2, edge to edge: 31 1/2 by 42."""

    def setUp(self) -> None:
        self.project = self.new_project()
        self.path = f"projects/{self.project['id']}"
        self.key = str(uuid4())
        self.put(start="lantern", finished="10 1/2", colourways=[{"count": 12, "roles": {}}])
        self.quilt(columns=3, rows=4, begun=True)

    def put(self, start: str = "", key: str = "", expect: int = 200, **changes: Any) -> Any:
        body = {"start": start, "changes": changes, "seen": {}}
        return self.ask("put", f"{self.path}/blocks/{key or self.key}", body, expect=expect)

    def quilt(self, expect: int = 200, **changes: Any) -> Any:
        return self.ask("patch", f"{self.path}/quilt", {"changes": changes, "seen": {}}, expect=expect)

    def border(self, width: str, unit: dict[str, Any], expect: int = 200, **more: Any) -> Any:
        row = {"units": [unit], **more}
        border = {"width": width, "fabric": "c", "corners": "overlapped", "corner_fabric": "c", "pieced": row}
        return self.quilt(borders=[border], expect=expect)

    def wanted(self, path: str = "") -> dict[tuple[str, str], int]:
        """Units of blocks: how many of each kind and size."""
        units = self.ask("get", path or self.path)["units"]
        return {(u["kind"], u["width_shown"]["text"]): u["count"] + u["mirrored"] for u in units if u["blocks"]}

    def parts(self) -> dict[str, tuple[str, int, int]]:
        """Name, units and number of each part, by what it is."""
        return {
            b.part: (
                b.pattern["name"],
                sum(line.count(" ") + 1 for line in b.pattern["layout"]),
                b.colourways[0]["count"],
            )
            for b in Block.objects.filter(deleted_at=None).exclude(part="")
        }


class PartsTest(QuiltCase):
    def test_geese_that_fit_by_themselves(self) -> None:
        """Pointing along, each takes 1 1/2: 21 go into 31 1/2 and 28 into 42."""
        sheet = self.border("3", GOOSE, turn=1)
        self.assertEqual(
            self.parts(),
            {"border 1 sides": ("Border, sides", 28, 2), "border 1 ends": ("Border, top and bottom", 23, 2)},
        )
        self.assertEqual(self.wanted()["flying_goose", "3"], 2 * (21 + 28))
        self.assertEqual(self.wanted()["plain_square", "3"], 4)
        sizes = sheet["quilt"]["sizes"]
        self.assertEqual((sizes["width"]["text"], sizes["height"]["text"]), ("37 1/2", "48"))
        self.assertEqual([p["name"] for p in sizes["pieces"]], ["binding strip"])

    def test_a_plain_strip_makes_up_the_length(self) -> None:
        """Of 2 in. half-squares 17 reach over 31 1/2 with 1 1/4 beside it (16 would leave 1/4); 21 go into 42."""
        sheet = self.border("2", HALF_SQUARE)
        self.assertEqual(self.wanted()["half_square_triangle", "2"], 2 * (17 + 21))
        sizes = sheet["quilt"]["sizes"]
        pieces = {p["name"]: (p["cut_width"]["text"], p["cut_height"]["text"], p["count"]) for p in sizes["pieces"]}
        self.assertEqual(pieces["border, plain strip at the sides"], ("1 3/4", "43", 2))
        self.assertNotIn("border, plain strip above and below", pieces)
        self.assertEqual((sizes["width"]["text"], sizes["height"]["text"]), ("38", "46"))
        self.assertIn(
            "A plain strip inside it shows 1 1⁄4″ at both sides.", [n.replace("\xa0", " ") for n in sizes["notes"]]
        )

    def test_the_unit_adapted_to_the_length(self) -> None:
        """Both 31 1/2 and 42 are whole numbers of 1 3/4 (18 and 24): nearest to 2, with 1 1/2 and 2 1/4 no nearer."""
        self.border("2", HALF_SQUARE, fit="adapt")
        self.assertEqual(self.wanted()["half_square_triangle", "1 3/4"], 2 * (18 + 24))

    def test_what_follows_when_the_quilt_changes_half_way(self) -> None:
        self.border("3", GOOSE, turn=1)
        before = {b.part: b.pk for b in Block.objects.exclude(part="")}
        self.quilt(rows=5)
        self.assertEqual(self.wanted()["flying_goose", "3"], 2 * (21 + 35))
        self.assertEqual({b.part: b.pk for b in Block.objects.exclude(part="")}, before)
        self.put(finished="9")  # 27 by 45: 18 and 30
        self.assertEqual(self.wanted()["flying_goose", "3"], 2 * (18 + 30))
        self.quilt(borders=[])
        self.assertNotIn(("flying_goose", "3"), self.wanted())
        self.assertEqual(self.parts(), {})

    def test_a_plain_piece_typed_is_followed_where_strips_change_with_it(self) -> None:
        """Sashes of 3 between three by four add 6 and 9: 37 1/2 and 51 take 25 and 34 geese of 1 1/2 each. Whatever is typed, to follow
        the blocks once more, all of it, changes nothing."""
        self.border("3", GOOSE, turn=1)
        self.quilt(sash="3")
        self.assertEqual(self.wanted()["flying_goose", "3"], 2 * (25 + 34))
        for changes in (
            {"cornerstones": True},
            {"sash": "1 1/2", "sash_round": True},
            {"binding_strip": "2 1/2", "backing_over": "5"},
            {"sash_fabric": "b", "setting_fabric": "a"},
            {"sash": "0"},
        ):
            self.quilt(**changes)
            before = self.wanted(), self.parts()
            follow_blocks(Project.objects.get(pk=self.project["id"]))
            self.assertEqual((self.wanted(), self.parts()), before, changes)
        self.assertEqual(self.wanted()["flying_goose", "3"], 2 * (21 + 28))

    def test_a_change_of_the_quilt_answers_blocks_only_where_it_may_number_them(self) -> None:
        self.assertIsNone(self.quilt(sash="1")["blocks"])
        self.assertIsNone(self.quilt(columns=4)["blocks"])
        by_hand = self.quilt(setting="by_hand")
        self.assertEqual([b["part"] for b in by_hand["blocks"]], ["", "centre"])
        self.assertEqual(self.ask("get", f"{self.path}/blocks")["blocks"], by_hand["blocks"])
        # It may lie in the centre as often as before, but that is the centre's to say.
        self.assertIsNotNone(self.quilt(binding_strip="2 1/2")["blocks"])
        self.assertIsNotNone(self.quilt(setting="straight")["blocks"])

    def test_blocks_as_a_border_and_half_square_corners(self) -> None:
        """Lantern blocks of 10 1/2 round themselves: 3 and 4 on each side, and 4 half-squares turn the corners."""
        self.border("10 1/2", {"block": self.key}, corner=HALF_SQUARE)
        self.assertEqual(self.parts()["border 1 ends"][1:], (5, 2))
        self.assertEqual(self.wanted()["half_square_triangle", "10 1/2"], 4)
        self.assertEqual(self.wanted()["quarter_square_triangle", "3 1/2"], 4 * (12 + 14))

    def test_what_cannot_go_round(self) -> None:
        for width, unit, more, field in (
            ("1/4", HALF_SQUARE, {}, "borders.0.width"),
            ("1/2", GOOSE, {"turn": 1}, "borders.0.width"),
            ("2", {"kind": "unknown", "fabrics": "ab"}, {}, "borders.0.pieced.units.0.kind"),
            ("2", HALF_SQUARE, {"fit": "glue"}, "borders.0.pieced"),
            ("2", HALF_SQUARE, {"corner": GOOSE}, "borders.0.corner"),
        ):
            with self.subTest(width=width, unit=unit, more=more):
                problem = self.border(width, unit, expect=422, **more)
                self.assertTrue(problem["errors"][0]["field"].startswith(field), problem["errors"])
        self.assertEqual(self.parts(), {})

    def test_a_part_is_changed_in_the_quilt_alone(self) -> None:
        self.border("3", GOOSE, turn=1)
        part = Block.objects.get(part="border 1 sides")
        self.put(key=str(part.pk), expect=422, finished="9")
        self.ask("delete", f"blocks/{part.pk}", expect=422)
        self.put(key=str(part.pk), order="columns")
        self.assertEqual(Block.objects.get(pk=part.pk).order, "columns")

    def test_parts_are_laid_nowhere(self) -> None:
        """A border of itself, a centre that holds its border: neither can be asked for, and everything still answers."""
        self.border("3", GOOSE, turn=1)
        strip = str(Block.objects.get(part="border 1 sides").pk)
        self.border("3", {"block": strip}, expect=422)
        self.quilt(setting="by_hand")
        centre = str(Block.objects.get(part="centre").pk)
        self.border("3", {"block": centre}, expect=422)
        for key in (strip, centre):
            edit = {"do": "place", "spots": [[0, 0]], "content": {"block": key}}
            self.ask("post", f"blocks/{centre}/edits", {"edit": edit}, expect=422)
            self.ask("post", f"blocks/{self.key}/edits", {"edit": edit}, expect=422)
        self.ask("get", f"{self.path}/blocks")
        self.ask("get", f"{self.path}/counts")

    def test_millimetres_in_an_inch_project(self) -> None:
        """50 mm is 250/127 in.: of half-squares so deep 17 reach over 31 1/2, 22 over 42, each with what is left beside it."""
        sheet = self.border("50 mm", HALF_SQUARE)
        self.assertEqual(self.parts()["border 1 ends"][1], 17 + 2)
        self.assertTrue(all(p["cut_width"]["text"].find("/64") < 0 for p in sheet["quilt"]["sizes"]["pieces"]))

    def test_too_many_blocks_and_too_large_a_quilt(self) -> None:
        for changes, said in (
            ({"columns": 50, "rows": 40}, "900"),
            ({"columns": 61}, "60"),
            ({"columns": 30, "rows": 30}, "200"),
        ):
            problem = self.quilt(expect=422, **changes)
            self.assertIn(said, problem["errors"][0]["message"])

    def test_staggered_by_a_third_with_parts_of_blocks(self) -> None:
        """One column of three lies lower: of 3 whole blocks, a third below and two thirds above. In all as much as 12 blocks."""
        self.quilt(setting="staggered", stagger="1/3", half_blocks=True)
        self.assertEqual(
            {part.split()[0]: held for part, held in self.parts().items()},
            {"head": ("Lantern, lower part", 3, 1), "foot": ("Lantern, upper part", 6, 1)},
        )
        self.put(colourways=[{"count": 11, "roles": {}}])
        self.assertEqual(self.wanted()["half_square_triangle", "3 1/2"], 48)
        problem = self.quilt(stagger="1/2", expect=422)
        self.assertIn("runs through", problem["errors"][0]["message"])
        self.quilt(half_blocks=False)
        self.assertEqual(self.parts(), {})
        for typed in ("0", "1/1", "3/2", "1/0", "half"):
            self.quilt(stagger=typed, expect=422)

    def test_parts_lie_as_the_blocks_whose_turn_it_is(self) -> None:
        """Of three rows the foot is at the turn of a second block, half round: its upper part is the block's lower end, turned."""
        self.quilt(rows=3, setting="staggered", stagger="1/3", half_blocks=True, every_second="half")
        foot = Block.objects.get(part__startswith="foot", deleted_at=None).pattern
        block = Block.objects.get(pk=self.key).pattern
        turned = [
            [w[0] + str((int(w[1]) + 2) % 4) for w in reversed(line.split())] for line in reversed(block["layout"])
        ]
        kinds = lambda pattern, line: [(pattern["units"][w[0]]["kind"], w[1]) for w in line]  # noqa: E731
        self.assertEqual(
            [kinds(foot, line.split()) for line in foot["layout"]], [kinds(block, line) for line in turned[:2]]
        )

    def test_a_copy_and_a_file_keep_their_parts(self) -> None:
        self.border("10 1/2", {"block": self.key}, corner=HALF_SQUARE)
        now = self.wanted()
        copy = str(uuid4())
        self.ask("post", f"{self.path}/duplicates", {"id": copy}, expect=201)
        self.assertEqual(self.wanted(f"projects/{copy}"), now)
        keys = {str(b.pk) for b in Block.objects.filter(project_id=copy)}
        held = {
            u["block"]
            for b in Block.objects.filter(project_id=copy)
            for u in b.pattern["units"].values()
            if "block" in u
        }
        self.assertLessEqual(held, keys)
        file = self.ask("get", f"{self.path}/export")
        taken = self.ask("post", "exchange/projects", file, expect=201)
        self.assertEqual(self.wanted(f"projects/{taken['id']}"), now)
        self.assertEqual(Block.objects.filter(project_id=taken["id"]).exclude(part="").count(), 2)


class ByHandTest(QuiltCase):
    """The same quilt, laid by hand from there."""

    def centre(self) -> Block:
        return Block.objects.get(part="centre", deleted_at=None)

    def edit(self, expect: int = 200, **edit: Any) -> Any:
        return self.ask("post", f"blocks/{self.centre().pk}/edits", {"edit": edit}, expect=expect)

    def test_by_hand_it_goes_on_from_what_was_set(self) -> None:
        before = self.wanted()
        sheet = self.quilt(setting="by_hand")
        self.assertEqual(self.wanted(), before)
        sizes = sheet["quilt"]["sizes"]
        self.assertEqual((sizes["width"]["text"], sizes["height"]["text"]), ("31 1/2", "42"))
        self.assertEqual(Block.objects.get(pk=self.key).colourways, [{"count": 12, "roles": {}}])

    def test_numbers_follow_what_lies_there(self) -> None:
        self.quilt(setting="by_hand")
        self.edit(do="place", spots=[[0, 0]], content={"kind": "plain_square", "fabrics": "c"})
        self.assertEqual(Block.objects.get(pk=self.key).colourways, [{"count": 11, "roles": {}}])
        self.assertEqual(self.wanted()["half_square_triangle", "3 1/2"], 44)
        self.assertEqual(self.wanted()["plain_square", "10 1/2"], 1)
        # In other colours: a colourway of its own; mirrored: made for this place.
        self.edit(do="place", spots=[[1, 0]], content={"block": self.key, "fabrics": {"a": "b", "b": "a"}})
        ways = Block.objects.get(pk=self.key).colourways
        self.assertEqual(sorted(w["count"] for w in ways), [1, 10])
        self.assertEqual(sum(n for (kind, _), n in self.wanted().items() if kind == "half_square_triangle"), 44)

    def test_a_block_in_the_quilt_takes_fabrics_of_its_own(self) -> None:
        """One of its fabrics in place of another, in this place alone; given back, it is as the others again."""
        self.quilt(setting="by_hand")
        sheet = self.ask("get", f"{self.path}/blocks")
        centre = next(b for b in sheet["blocks"] if b["part"] == "centre")
        there = centre["view"]["lying"][centre["view"]["spots"][0]["lies"]]
        self.assertEqual((there["parts"], there["part_fabrics"]), (["a", "b", "c"], ["a", "b", "c"]))
        self.edit(do="paint", spots=[[0, 0]], part=1, role="c")
        ways = Block.objects.get(pk=self.key).colourways
        self.assertEqual(ways, [{"count": 11, "roles": {}}, {"count": 1, "roles": {"b": "c"}}])
        self.edit(do="paint", spots=[[0, 0]], part=1, role="b")
        self.assertEqual(Block.objects.get(pk=self.key).colourways, [{"count": 12, "roles": {}}])

    def test_there_and_back(self) -> None:
        self.quilt(setting="by_hand")
        self.edit(do="clear", spots=[[0, 0]])
        self.quilt(setting="straight")
        self.assertEqual(self.parts(), {})
        self.quilt(setting="by_hand")
        self.assertEqual(self.centre().pattern["layout"][0].split()[0], ".")

    def test_sashes_and_cornerstones_are_laid(self) -> None:
        self.quilt(sash="2", cornerstones=True)
        sheet = self.quilt(setting="by_hand")
        self.assertEqual(sheet["quilt"]["sizes"]["width"]["text"], "35 1/2")
        # 2 x 3 cornerstones; 2 x 4 sashes beside, 3 x 3 above and below blocks.
        self.assertEqual(self.wanted()["plain_square", "2"], 6)
        units = self.ask("get", self.path)["units"]
        strips = sum(u["count"] for u in units if u["kind"] == "rectangle" and u["blocks"])
        self.assertEqual(strips, 8 + 9)

    def test_on_point_is_told_what_to_do_first(self) -> None:
        self.quilt(setting="on_point")
        problem = self.quilt(setting="by_hand", expect=422)
        self.assertIn("straight", problem["errors"][0]["message"])

    def sampler(self, expect: int = 200, **body: Any) -> Any:
        asked = {"numbers": {self.key: 3}, "width": "24", "gap": "1", "fabric": "c", **body}
        return self.ask("post", f"{self.path}/quilt/sampler", asked, expect=expect)

    def test_a_sampler(self) -> None:
        """Two of 10 1/2 beside each other on 25 leave 4 between; the third has both small ones beside it."""
        small = str(uuid4())
        self.put(key=small, start="pinwheel", finished="6")
        sheet = self.sampler(numbers={self.key: 3, small: 2}, width="25")
        self.assertEqual(sheet["quilt"]["sizes"]["width"]["text"], "25")
        # Rows of 10 1/2 (two), of 10 1/2 (one, and both of 6), a strip of 1 between.
        self.assertEqual(sheet["quilt"]["sizes"]["height"]["text"], "22")
        counts = {str(b.pk): sum(w["count"] for w in b.colourways) for b in Block.objects.filter(part="")}
        self.assertEqual(counts, {self.key: 3, small: 2})
        self.assertEqual(self.wanted()["half_square_triangle", "3"], 2 * 4)
        # A block resized lies there as it did, made for its place; laid anew it takes its own size.
        self.put(key=small, finished="8")
        self.assertEqual(Block.objects.get(pk=small).colourways[0]["count"], 0)
        self.assertEqual(self.wanted()["half_square_triangle", "3"], 2 * 4)
        self.sampler(numbers={self.key: 3, small: 2})
        self.assertEqual(Block.objects.get(pk=small).colourways[0]["count"], 2)

    def test_samplers_that_cannot_be(self) -> None:
        for body, field in (
            ({"width": "9"}, "width"),
            ({"numbers": {}}, "blocks"),
            ({"numbers": {self.key: 2000}}, "blocks"),
            ({"gap": "1/8"}, "gap"),
            ({"width": "wide"}, "width"),
            ({"width": ""}, "width"),
            ({"numbers": {self.key: "many"}}, "numbers"),
            ({"numbers": {self.key: 30}, "width": "10 1/2"}, "columns"),
        ):
            with self.subTest(body=body):
                problem = self.sampler(expect=422, **body)
                self.assertEqual(problem["errors"][0]["field"], field, problem)
        self.assertFalse(Block.objects.filter(part="centre").exists())

    def sashing(self, expect: int = 200, **body: Any) -> Any:
        three = [{"width": "1/2", "fabric": "c"}, {"width": "1", "fabric": "a"}, {"width": "1/2", "fabric": "c"}]
        asked = {"columns": 3, "rows": 4, "across": three, "down": three, "crossing": "chequered", "cornerstone": "b"}
        return self.ask("post", f"{self.path}/quilt/sashing", {**asked, "outside": False, **body}, expect=expect)

    def test_sashing_of_three_strips(self) -> None:
        """Twelve of 10 1/2 with 2 in. between: 31 1/2 + 4 by 42 + 6, and six nine-patches where sashes cross."""
        sheet = self.sashing()
        sizes = sheet["quilt"]["sizes"]
        self.assertEqual((sizes["width"]["text"], sizes["height"]["text"]), ("35 1/2", "48"))
        self.assertEqual(self.wanted()["plain_square", "1"], 6)
        self.assertEqual(self.wanted()["plain_square", "1/2"], 24)
        self.assertEqual(sum(w["count"] for w in Block.objects.get(pk=self.key).colourways), 12)
        # Laid by hand now, it is laid anew with fewer blocks, and strips between columns only.
        sheet = self.sashing(columns=2, rows=2, down=[], outside=True)
        sizes = sheet["quilt"]["sizes"]
        self.assertEqual((sizes["width"]["text"], sizes["height"]["text"]), ("27", "21"))
        self.assertEqual(sum(w["count"] for w in Block.objects.get(pk=self.key).colourways), 4)
        # Set in rows again, it has the rows and columns that it had.
        quilt = self.quilt(setting="straight")["quilt"]
        self.assertEqual((quilt["columns"], quilt["rows"], quilt["sash_round"]), (3, 4, False))

    def test_sashing_that_cannot_be(self) -> None:
        thin = [{"width": "1/8", "fabric": "a"}]
        for body, field in (
            ({"across": [], "down": []}, "across"),
            ({"down": thin}, "down"),
            ({"across": [{"width": "wide", "fabric": "a"}]}, "across"),
            ({"down": [{"width": "", "fabric": "a"}]}, "down"),
            ({"columns": "x"}, "columns"),
            ({"rows": "0"}, "rows"),
            ({"columns": 40, "rows": 40}, "columns"),
        ):
            with self.subTest(body=body):
                problem = self.sashing(expect=422, **body)
                self.assertEqual(problem["errors"][0]["field"], field, problem)
        self.assertFalse(Block.objects.filter(part="centre").exists())

    def test_settings_side_by_side(self) -> None:
        found = self.ask("get", f"{self.path}/quilt/beside")
        self.assertEqual(found[0]["said"], "as it is now")
        self.assertEqual(found[0]["blocks"], 12)
        self.assertGreater(len(found), 4)
        for one in found[1:]:
            changes = {k: one[k] for k in ("setting", "columns", "rows", "sash_round", "cornerstones")}
            sheet = self.quilt(**changes, sash=one["sash"]["text"])
            self.assertEqual(sheet["quilt"]["sizes"]["width"]["text"], one["width"]["text"])
            self.assertEqual(sheet["quilt"]["sizes"]["blocks"], one["blocks"])
