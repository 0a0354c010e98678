"""Patterns: written and read back, laid down to their units, changed, sized, and what they refuse."""

from __future__ import annotations

import random
from collections.abc import Iterable
from dataclasses import replace
from fractions import Fraction
from itertools import product
from typing import Any
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from piecing.blocks import editing
from piecing.blocks.editing import Side, Symmetry
from piecing.blocks.file_format import pattern_data, pattern_from
from piecing.blocks.library import library_data, library_keys, library_pattern
from piecing.blocks.pattern import BlockPlacement, Cell, Orientation, Pattern, Place, UnitPlacement, layout_of
from piecing.blocks.sizing import sizes, tracks_from_text
from piecing.errors import (
    BlockHoldsItself,
    LayoutIncomplete,
    NestedBlockDoesNotFit,
    PatternNotUnderstood,
    PiecingError,
    PlaceTaken,
    SizeOutOfRange,
    TracksDoNotAddUp,
    UnitBent,
    UnitDoesNotFit,
    UnknownBlock,
)
from piecing.geometry.plane import area
from piecing.lengths import Length, inches, mm
from piecing.units import KINDS, kind_of
from tests.blocks import BOX, grid, none, patterns

LIES = [Orientation(t, m) for t, m in product(range(4), (False, True))]


def _cell_at(cells: Iterable[Cell], x: Fraction, y: Fraction) -> Cell:
    (found,) = (c for c in cells if c.left < x < c.right and c.top < y < c.bottom)
    return found


class LieTest(TestCase):
    def test_lies_are_the_eight_symmetries_of_a_square(self) -> None:
        def seen(orientation: Orientation, p: tuple[int, int]) -> tuple[int, int]:
            x, y = (-p[0], p[1]) if orientation.mirrored else p
            for _ in range(orientation.turn):
                x, y = y, -x
            return x, y

        for inner, outer in product(LIES, LIES):
            for p in ((1, 2), (-2, 1)):
                self.assertEqual(seen(inner.then(outer), p), seen(outer, seen(inner, p)))
        for orientation in LIES:
            self.assertEqual(orientation.then(orientation.undone), Orientation())


class WrittenTest(TestCase):
    @given(patterns())
    def test_what_is_written_is_read_back(self, pattern: Pattern) -> None:
        self.assertEqual(pattern_from(pattern_data(pattern), none), pattern)

    def test_the_library_is_written_in_the_format_it_publishes(self) -> None:
        self.assertGreaterEqual(len(library_keys()), 30)
        for key in library_keys():
            pattern = library_pattern(key)
            self.assertEqual(pattern_from(pattern_data(pattern), library_data), pattern, key)
            self.assertEqual(pattern.empty, (), key)

    def test_the_library_uses_every_kind_and_every_grid(self) -> None:
        kinds = {c.unit.kind for k in library_keys() for c in layout_of(library_pattern(k)).cells}
        self.assertEqual(kinds, set(KINDS))
        grids = {len(library_pattern(k).columns) for k in library_keys()}
        self.assertLessEqual({2, 3, 4, 5}, grids)
        nested = [k for k in library_keys() if any(c.nested for c in layout_of(library_pattern(k)).cells)]
        self.assertGreaterEqual(len(nested), 5)

    def test_what_cannot_be_read_names_its_path(self) -> None:
        good = pattern_data(library_pattern("lantern"))
        for change, path in (
            ({"columns": "three"}, "columns"),
            ({"columns": [1, "1/0", 1]}, "columns.1"),
            ({"rows": [1, -1, 1]}, "rows.1"),
            ({"units": []}, "units"),
            ({"units": {"lower": {"kind": "strip"}}}, "units.lower"),
            ({"units": {**good["units"], "A": {"kind": "half_square_triangle", "fabrics": "abc"}}}, "units.A.fabrics"),
            ({"units": {**good["units"], "A": {"kind": "corner_triangle", "corners": [0, 0]}}}, "units.A.corners"),
            ({"units": {**good["units"], "A": {"kind": "strip_split_square", "strip": "7"}}}, "units.A.strip"),
            ({"layout": ["A0 B0 A1"]}, "layout"),
            ({"layout": ["A0 < <", "< A0 A0", "A0 A0 A0"]}, "layout"),
        ):
            with self.subTest(path), self.assertRaises(PatternNotUnderstood) as refused:
                pattern_from({**good, **change}, none)
            self.assertEqual(refused.exception.field, path)

    def test_a_block_never_holds_itself_at_any_depth(self) -> None:
        shelf: dict[str, Any] = {
            "one": {**BOX, "units": {"A": {"block": "two"}}},
            "two": {**BOX, "units": {"A": {"block": "three"}}},
            "three": {**BOX, "units": {"A": {"block": "one"}}},
        }
        with self.assertRaises(BlockHoldsItself):
            pattern_from(shelf["one"], shelf.get, "one")
        with self.assertRaises(UnknownBlock):
            pattern_from({**BOX, "units": {"A": {"block": "nobody"}}}, shelf.get)
        shelf["three"] = {**BOX, "units": {"A": {"kind": "plain_square", "fabrics": "a"}}}
        self.assertEqual(len(layout_of(pattern_from(shelf["one"], shelf.get, "one")).cells), 1)


class LaidTest(TestCase):
    def test_nested_blocks_cover_their_place_exactly(self) -> None:
        for key in library_keys():
            pattern = library_pattern(key)
            cells = layout_of(pattern).cells
            self.assertEqual(sum(c.width * c.height for c in cells), pattern.width * pattern.height, key)
            for n, place in enumerate(pattern.places):
                left, top, wide, high = pattern.box(place)
                held = layout_of(pattern).cells_of(n)
                self.assertEqual(min(c.left for c in held), left)
                self.assertEqual(max(c.bottom for c in held), top + high)
                self.assertEqual(max(c.right for c in held), left + wide)

    def test_many_blocks_in_a_block_lie_as_each_one_laid_by_hand(self) -> None:
        """Each point of a picture of sixteen, carried back into the smaller block by turning it by hand, shows what lies there."""
        rng = random.Random(5)
        for key in ("lantern", "goose_cross", "goose_pair"):
            held = library_pattern(key)
            if held.width != held.height:
                continue
            ways = [BlockPlacement(key, held, fabrics) for fabrics in ((), (("a", "b"), ("b", "a")), (("a", "c"),))]
            places = [
                Place(2 * c, 2 * r, rng.choice(ways), rng.choice(LIES), across=2, down=2)
                for c, r in product(range(4), range(4))
            ]
            whole = layout_of(Pattern("Sixteen", (Fraction(3, 2),) * 8, (Fraction(3, 2),) * 8, tuple(places)))
            self.assertEqual(sum(n for _, n in whole.shapes), len(whole.cells))
            part = inches("1/2")
            for made, cell in zip(whole.specs(part), whole.cells, strict=True):
                self.assertEqual(made, cell.spec(part))
            for _ in range(60):
                c, r = rng.randrange(4), rng.randrange(4)
                u, v = (Fraction(rng.randrange(1, 997), 997) for _ in range(2))
                place = whole.pattern.places[r * 4 + c]
                assert isinstance(place.content, BlockPlacement)
                there = _cell_at(whole.cells, (c + u) * 3, (r + v) * 3)
                x, y = u - Fraction(1, 2), v - Fraction(1, 2)
                for _ in range(place.orientation.turn):
                    x, y = y, -x
                if place.orientation.mirrored:
                    x = -x
                half = Fraction(1, 2)
                own = _cell_at(layout_of(held).cells, (x + half) * held.width, (y + half) * held.height)
                roles = dict(place.content.fabrics)
                self.assertEqual(there.unit.kind, own.unit.kind)
                self.assertEqual(there.unit.part_fabrics, tuple(roles.get(f, f) for f in own.unit.part_fabrics))
                self.assertEqual(there.orientation, own.orientation.then(place.orientation))

    def test_a_unit_that_lies_turned_in_a_place_alike_is_another(self) -> None:
        two = layout_of(grid(["A0 <", "A1 <"], {"A": {"kind": "rectangle", "fabrics": "a"}}))
        upright, turned = two.specs(inches(1))
        self.assertEqual((upright.width, upright.height), (inches(2), inches(1)))
        self.assertEqual((turned.width, turned.height), (inches(1), inches(2)))
        self.assertEqual([n for _, n in two.shapes], [1, 1])

    def test_a_layout_is_one_object_however_its_legend_is_named(self) -> None:
        data = pattern_data(library_pattern("lantern"))
        renamed = {f"{n}z": u for n, u in data["units"].items()}
        layout = [" ".join(w[0] + "z" + w[1:] if w[0].isupper() else w for w in r.split()) for r in data["layout"]]
        other = {**data, "units": renamed, "layout": layout}
        self.assertIs(pattern_from(other, library_data), pattern_from(data, library_data))
        self.assertIsNot(pattern_from({**data, "name": "Lamp"}, library_data), pattern_from(data, library_data))

    def test_units_and_blocks_have_to_fit_their_place(self) -> None:
        half = {"A": {"kind": "half_square_triangle", "fabrics": "ab"}}
        with self.assertRaises(UnitDoesNotFit):
            layout_of(grid(["A0 ."], half, columns=[2, 1], rows=[1]))
        with self.assertRaises(NestedBlockDoesNotFit):
            layout_of(grid(["A0"], {"A": {"block": "goose_cross"}}, columns=[2], rows=[1]))

    def test_places_neither_overlap_nor_leave_the_grid(self) -> None:
        unit = UnitPlacement("plain_square", ("a",))
        tracks = (Fraction(1),) * 2
        for places in ((Place(0, 0, unit, across=2), Place(1, 0, unit)), (Place(2, 0, unit),), (Place(0, -1, unit),)):
            with self.assertRaises(PlaceTaken):
                Pattern("bad", tracks, tracks, places)

    def test_empty_places_are_counted_and_named(self) -> None:
        with self.assertRaises(LayoutIncomplete) as refused:
            grid(["A0 .", ". ."], {"A": {"kind": "plain_square", "fabrics": "a"}}).complete()
        self.assertIn("3 places", str(refused.exception))
        self.assertIn("row 1, column 2; row 2, column 1; row 2, column 2", str(refused.exception))


class EditingTest(TestCase):
    @given(patterns())
    def test_turns_and_mirrors_of_the_whole_come_back(self, pattern: Pattern) -> None:
        self.assertEqual(editing.whole_turned(pattern, 4), pattern)
        self.assertEqual(editing.whole_mirrored(editing.whole_mirrored(pattern)), pattern)
        turned = editing.whole_turned(pattern)
        self.assertEqual((turned.width, turned.height), (pattern.height, pattern.width))

    @given(patterns(), st.sampled_from(list(Symmetry)))
    def test_filling_by_symmetry_gives_its_own_image(self, pattern: Pattern, symmetry: Symmetry) -> None:
        # What lies in one quarter of the grid has no two images in one place, so the whole must be its own image.
        half = len(pattern.columns) // 2
        corner = replace(pattern, places=tuple(p for p in pattern.places if p.column < half and p.row < half))
        filled = editing.filled(corner, symmetry)
        sideways = editing.whole_mirrored(filled)
        images = {
            Symmetry.QUARTER_TURNS: [editing.whole_turned(filled, q) for q in (1, 2, 3)],
            Symmetry.HALF_TURN: [editing.whole_turned(filled, 2)],
            Symmetry.SIDEWAYS: [sideways],
            Symmetry.UP_AND_DOWN: [editing.whole_turned(sideways, 2)],
            Symmetry.FOUR_WAYS: [sideways, editing.whole_turned(sideways, 2), editing.whole_turned(filled, 2)],
        }[symmetry]
        for image in images:
            self.assertEqual(image, filled)
        self.assertEqual(len(filled.places), len(corner.places) * (len(images) + 1))

    def test_one_corner_makes_the_star(self) -> None:
        corner = grid(
            ["B0 A0 .", ". C0 .", ". . ."],
            {
                "A": {"kind": "half_square_triangle", "fabrics": "ab"},
                "B": {"kind": "plain_square", "fabrics": "b"},
                "C": {"kind": "plain_square", "fabrics": "a"},
            },
        )
        star = editing.filled(corner, Symmetry.QUARTER_TURNS)
        self.assertEqual(pattern_data(star)["layout"], ["A0 B0 A1", "B3 C0 B1", "A3 B2 A2"])

    def test_moving_changes_places_and_copies_keep_their_lie(self) -> None:
        pattern = library_pattern("friendship_star")
        moved = editing.moved(pattern, (0, 0), (1, 0))
        self.assertEqual(moved.at(0, 0).content, pattern.at(1, 0).content)  # type: ignore[union-attr]
        self.assertEqual(editing.moved(moved, (0, 0), (1, 0)), pattern)
        copied = editing.repeated_to(pattern, (1, 0), [(1, 2), (0, 0)])
        self.assertEqual(copied.at(1, 2).orientation, pattern.at(1, 0).orientation)  # type: ignore[union-attr]

    def test_a_quarter_in_an_oblong_place_is_a_half_turn(self) -> None:
        pattern = library_pattern("goose_pair")
        self.assertEqual(editing.turned(pattern, [(0, 0)]).at(0, 0).orientation, Orientation(2))  # type: ignore[union-attr]

    def test_a_goose_stands_on_its_end_and_points_four_ways(self) -> None:
        """In a place one wide and two high it is twice as wide as high still, as it is made; turned, its place turns with it."""
        goose = UnitPlacement("flying_goose", ("a", "b", "b"))
        bare = grid([". . .", ". . .", ". . ."], {})
        pattern = editing.spanned(editing.placed(bare, [(0, 0)], UnitPlacement("plain_square", ("a",))), (0, 0), 2, 2)
        pattern = editing.cleared(pattern, [(0, 0)])
        upright = editing.placed(pattern, [(0, 0)], UnitPlacement("rectangle", ("a",)))
        stood = editing.placed(editing.spanned(upright, (0, 0), 1, 2), [(0, 0)], goose)
        for _ in range(4):
            place = stood.at(0, 0)
            assert place is not None
            self.assertEqual({place.across, place.down}, {1, 2})
            (cell,) = layout_of(stood).cells
            spec = cell.spec(inches(3))
            self.assertEqual((spec.width, spec.height), (inches(6), inches(3)))
            stood = editing.turned(stood, [(0, 0)])
        self.assertEqual(stood.at(0, 0), place.__class__(0, 0, goose, Orientation(1), 1, 2))
        ways = set()
        for _ in range(4):
            ways.add(stood.at(0, 0).orientation.turn)  # type: ignore[union-attr]
            stood = editing.turned(stood, [(0, 0)])
        self.assertEqual(ways, {0, 1, 2, 3})

    def test_a_square_unit_grows_both_ways_and_tracks_that_were_alike_stay_alike(self) -> None:
        pattern = grid(["A0 . .", ". . .", ". . ."], {"A": {"kind": "half_square_triangle", "fabrics": "ab"}})
        grown = editing.spanned(pattern, (0, 0), 2, 1)
        self.assertEqual((grown.at(0, 0).across, grown.at(0, 0).down), (2, 2))  # type: ignore[union-attr]
        back = editing.spanned(grown, (0, 0), 2, 1)
        self.assertEqual((back.at(0, 0).across, back.at(0, 0).down), (1, 1))  # type: ignore[union-attr]
        tracks = (Fraction(12), Fraction(2), Fraction(12))
        framed = editing.retracked(pattern, tracks, pattern.rows, Side.COLUMNS)
        self.assertEqual((framed.columns, framed.rows), (tracks, tracks))
        with self.assertRaises(PiecingError):
            editing.retracked(pattern, tracks, (Fraction(3), Fraction(1), Fraction(1)))

    def test_a_goose_takes_two_places_and_is_bent_only_when_asked(self) -> None:
        goose = UnitPlacement("flying_goose", ("a", "b", "b"))
        bare = grid([". .", ". ."], {})
        laid_across = editing.placed(bare, [(0, 0)], goose)
        self.assertEqual([(p.across, p.down) for p in laid_across.places], [(2, 1)])
        # At the right edge there is room below: it stands there, and is still twice as wide as high as it is made.
        standing = editing.placed(bare, [(1, 0)], goose)
        self.assertEqual([(p.across, p.down, p.orientation.across) for p in standing.places], [(1, 2, True)])
        editing.not_bent(bare, standing)
        plain = UnitPlacement("plain_square", ("a",))
        full = editing.placed(bare, [(1, 0), (0, 1), (1, 1)], plain)
        bent = editing.placed(full, [(0, 0)], goose)
        with self.assertRaisesRegex(UnitBent, "row 1, column 1 the flying goose would be bent"):
            editing.not_bent(full, bent)
        # Once it was asked for it stays so, whatever else is changed, wherever it then lies.
        editing.not_bent(bent, editing.cleared(bent, [(1, 1)]))
        for moved in (editing.whole_turned(bent), editing.whole_mirrored(bent), editing.moved(bent, (0, 0), (1, 1))):
            editing.not_bent(bent, moved)
        star = library_pattern("sawtooth_star")
        tracks = tuple(Fraction(n) for n in (1, 2, 2, 1))
        with self.assertRaises(UnitBent):
            editing.not_bent(star, editing.retracked(star, tracks, star.rows, Side.COLUMNS))

    def test_plain_cloth_takes_the_shape_of_its_place(self) -> None:
        corner, plain = {"kind": "half_square_triangle", "fabrics": "ab"}, {"kind": "plain_square", "fabrics": "a"}
        shoo = grid(["A0 B0 A1", "B0 B0 B0", "A3 B0 A2"], {"A": corner, "B": plain})
        tracks = (Fraction(12), Fraction(2), Fraction(12))
        made = editing.retracked(shoo, tracks, shoo.rows, Side.COLUMNS)

        def kinds(pattern: Pattern, *spots: tuple[int, int]) -> list[str]:
            return [p.content.kind for s in spots if (p := pattern.at(*s)) and isinstance(p.content, UnitPlacement)]

        self.assertEqual(made.rows, tracks)
        self.assertEqual(
            kinds(made, (1, 0), (0, 1), (1, 1), (0, 0)),
            ["rectangle", "rectangle", "plain_square", "half_square_triangle"],
        )
        back = editing.retracked(made, shoo.columns, made.rows, Side.COLUMNS)
        self.assertEqual(kinds(back, (1, 0), (0, 1)), ["plain_square"] * 2)
        # Dragged over its neighbour, a square of cloth becomes a rectangle and takes no row more.
        row = grid(["B0 B0", "B0 B0"], {"B": plain})
        merged = editing.stretched(row, (0, 0), 2, 1)
        self.assertEqual((len(merged.places), *kinds(merged, (0, 0), (0, 1))), (3, "rectangle", "plain_square"))
        split = editing.stretched(merged, (0, 0), 1, 1)
        self.assertEqual(kinds(split, (0, 0), (1, 0)), ["plain_square"] * 2)
        # What is moved leaves cloth elsewhere as it is called.
        named = grid(["R0 B0", ". ."], {"R": {"kind": "rectangle", "fabrics": "a"}, "B": plain})
        self.assertEqual(kinds(editing.moved(named, (1, 0), (1, 1)), (0, 0)), ["rectangle"])
        # Exchanged with a rectangle, each is what its new place makes of it.
        moved = editing.moved(merged, (0, 0), (0, 1))
        self.assertEqual(kinds(moved, (0, 0), (0, 1)), ["rectangle", "plain_square"])

    def test_spans_and_grids(self) -> None:
        pattern = grid(["A0 .", ". ."], {"A": {"kind": "rectangle", "fabrics": "a"}})
        self.assertEqual(editing.spanned(pattern, (0, 0), 2, 1).empty, ((0, 1), (1, 1)))
        with self.assertRaises(PlaceTaken):
            editing.spanned(pattern, (1, 1), 2, 1)
        self.assertEqual(len(editing.regridded(pattern, 4, 3).empty), 11)
        self.assertEqual(editing.regridded(pattern, 1, 1).empty, ())

    def test_the_twin_of_the_twin(self) -> None:
        pattern = library_pattern("paws")
        twin = editing.exchanged(pattern, "a", "b")
        self.assertNotEqual(twin, pattern)
        self.assertEqual(
            [c.unit for c in layout_of(editing.exchanged(twin, "a", "b")).cells],
            [c.unit for c in layout_of(pattern).cells],
        )


class SizingTest(TestCase):
    def test_ten_inches_in_thirds_and_what_avoids_it(self) -> None:
        found = sizes(layout_of(library_pattern("lantern")), inches(10), inches("1/4"), inches("1/8"))
        self.assertEqual([t.finished for t in found.columns], [inches("10/3")] * 3)
        self.assertIn((inches("21/2"), inches("1/2")), [(n.finished, n.step) for n in found.nearest])
        self.assertEqual((found.block.unfinished, found.block.finished), (inches("21/2"), inches(10)))

    @given(st.sampled_from(library_keys()), st.integers(8, 400), st.sampled_from(["1/8", "1/4", "1/16"]))
    def test_every_size_proposed_puts_every_unit_on_its_step(self, key: str, eighths: int, step: str) -> None:
        layout = layout_of(library_pattern(key))
        for near in sizes(layout, inches(Fraction(eighths, 8)), inches("1/4"), inches(step)).nearest:
            part = layout.part(near.finished)
            for cell in layout.cells:
                self.assertTrue((part * cell.width).on_step(near.step), key)
                self.assertTrue((part * cell.height).on_step(near.step), key)

    def test_nothing_smaller_lies_between_the_proposals(self) -> None:
        layout, step = layout_of(library_pattern("five_patch_star")), inches("1/8")
        near = [n for n in sizes(layout, inches("81/8"), inches("1/4"), step).nearest if n.step == step]
        low, high = min(n.finished for n in near), max(n.finished for n in near)
        between = [inches(Fraction(n, 64)) for n in range(64 * 8, 64 * 12) if low < inches(Fraction(n, 64)) < high]
        fits = [b for b in between if all((layout.part(b) * c.width).on_step(step) for c in layout.cells)]
        self.assertEqual(fits, [])

    def test_a_square_in_a_square_says_how_it_is_trimmed(self) -> None:
        geese = {"G": {"kind": "flying_goose", "fabrics": "abb"}}
        for wide, told in ((2, False), (3, True)):
            pattern = grid(["G0"], geese, columns=[wide], rows=[1])
            odd = sizes(layout_of(pattern), inches(3 * wide), inches("1/4"), inches("1/8")).odd
            self.assertEqual(any("not twice as wide as high" in str(o.said) for o in odd), told, wide)
        odd = sizes(layout_of(library_pattern("diamonds")), inches(7), inches("1/4"), inches("1/8")).odd
        self.assertEqual(len(odd), 1)
        self.assertIn("trim to 4″ with each tip 1⁄4″", str(odd[0].said))

    def test_what_cannot_be_sewn_at_a_size_is_said(self) -> None:
        odd = sizes(layout_of(library_pattern("five_patch_star")), inches(1), inches("1/4"), inches("1/8")).odd
        self.assertTrue(all(o.serious for o in odd))
        for size in (inches("1/8"), inches(201)):
            with self.assertRaises(SizeOutOfRange):
                sizes(layout_of(library_pattern("lantern")), size, inches("1/4"), inches("1/8"))

    def test_tracks_as_parts_and_as_sizes(self) -> None:
        plain = grid(["A0 A0 A0"] * 3, {"A": {"kind": "plain_square", "fabrics": "a"}})

        def columns(typed: str, finished: Length) -> tuple[Fraction, ...]:
            given = tracks_from_text(plain, finished, typed, typed)
            return editing.in_least_parts(replace(plain, columns=given.columns, rows=given.rows)).columns

        self.assertEqual(columns("1 2 1", inches(8)), (1, 2, 1))
        self.assertEqual(columns("3 1/2, 1, 3 1/2", inches(8)), (7, 2, 7))
        for typed, said in (("3, 3, 3", "3″ too little"), ("5 + 5; 5", "3″ too much")):
            with self.assertRaises(TracksDoNotAddUp) as refused:
                columns(typed, inches(12))
            self.assertIn(said, str(refused.exception.said))
        self.assertEqual(columns("80 mm + 2 cm + 80 mm", mm(180)), (4, 1, 4))
        with self.assertRaises(TracksDoNotAddUp) as refused:
            columns("3, 3", inches(7))
        self.assertEqual(refused.exception.data["total"], inches(6))

    def test_sizes_typed_on_one_side_leave_the_other_as_it_measures(self) -> None:
        """Three columns and three rows of 4: each side as it was typed, whatever smallest part the other falls into."""
        plain = grid(["A0 A0 A0"] * 3, {"A": {"kind": "plain_square", "fabrics": "a"}})
        given = tracks_from_text(plain, inches(12), "5, 2, 5", "1 1 1")
        self.assertTrue(given.sized)
        self.assertEqual([inches(t) for t in given.columns], [inches(5), inches(2), inches(5)])
        self.assertEqual([inches(t) for t in given.rows], [inches(4)] * 3)
        given = tracks_from_text(plain, inches(12), "5, 2, 5", "3, 3, 3, 3")
        self.assertTrue(given.sized)
        self.assertEqual([inches(t) for t in given.rows], [inches(3)] * 4)

        oblong = grid(["A0 A0 A0"] * 2, {"A": {"kind": "rectangle", "fabrics": "a"}})
        given = tracks_from_text(oblong, inches(12), "", "5, 3")
        self.assertTrue(given.sized)
        self.assertEqual([inches(t) for t in (*given.rows, *given.columns)], [inches(n) for n in (5, 3, 4, 4, 4)])

    def test_a_block_grows_with_the_sizes_of_its_columns(self) -> None:
        plain = grid(["A0 A0 A0"] * 3, {"A": {"kind": "plain_square", "fabrics": "a"}})
        with self.assertRaisesRegex(TracksDoNotAddUp, "let the block finish 26″ across"):
            tracks_from_text(plain, inches("21/2"), "12, 2, 12")
        given = tracks_from_text(plain, inches(9), "12, 2, 12", grows=True)
        self.assertTrue(given.sized)
        self.assertEqual([inches(t) for t in given.columns], [inches(12), inches(2), inches(12)])
        self.assertEqual([inches(t) for t in given.rows], [inches(3)] * 3)
        corners = grid(
            ["A0 B0 A1"] * 3,
            {"A": {"kind": "half_square_triangle", "fabrics": "ab"}, "B": {"kind": "rectangle", "fabrics": "a"}},
        )
        corners = editing.cleared(corners, [(0, 1), (2, 1)])
        given = tracks_from_text(corners, inches("21/2"), "12, 2, 12", "1 1 1", grows=True)
        made = editing.retracked(corners, given.columns, given.rows, given.one)
        self.assertTrue(given.sized)
        self.assertEqual([inches(t) for t in made.rows], [inches(12), inches(2), inches(12)])
        self.assertEqual(editing.in_least_parts(made).columns, (6, 1, 6))
        for nonsense in ("0 0", "0, 0"):
            self.assertEqual(sum(tracks_from_text(plain, inches(9), nonsense, nonsense, grows=True).columns), 0)


class LibraryPictureTest(TestCase):
    def test_every_picture_covers_its_block_once(self) -> None:
        from piecing.drawings.block import block_picture

        for key in library_keys():
            pattern = library_pattern(key)
            drawing = block_picture(layout_of(pattern), inches(12))
            high = 12 * float(pattern.height / pattern.width)
            self.assertAlmostEqual(sum(abs(area(m.points)) for m in drawing.marks), 12 * high, places=6, msg=key)

    def test_kinds_lie_as_their_design_does(self) -> None:
        for kind in KINDS.values():
            self.assertEqual(len(kind_of(kind.name).usual), len(kind.parts))
