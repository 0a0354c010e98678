"""Whoever does only what the acts say makes the unit: every way of every kind, with and without a fold."""

from __future__ import annotations

from fractions import Fraction
from unittest import TestCase

from piecing.blocks.geometry import cell_middle, placed_parts
from piecing.blocks.library import library_keys, library_pattern
from piecing.blocks.pattern import BlockPlacement, Orientation, Pattern, Place, layout_of
from piecing.geometry.plane import Line, centroid, sides_of
from piecing.geometry.sewing import Needle, Piece, trim, turned_over
from piecing.handling.joining_steps import JoinStep, join_steps
from piecing.joining.order import Order, orders
from piecing.lengths import ZERO, inches
from piecing.planning.plan import plan
from piecing.planning.unit_plan import Choices, UnitPlan, comes_in_two_hands
from piecing.units import kind_of
from piecing.units.acts import Align, LayPage
from piecing.units.simulate import orient

from .follower import follow, squared
from .joiner import join
from .samples import ALL_WAYS, sample


def seen(piece: Piece) -> list[tuple[object, ...]]:
    """Every patch that shows, corner by corner, to the ten-thousandth of an inch."""
    return sorted(
        (f.fabric, *sorted((round(x, 4) + 0.0, round(y, 4) + 0.0) for x, y in f.outline)) for f in piece.faces
    )


def trimmed(p: UnitPlan, unit: Piece, *, as_drawn: bool) -> list[tuple[object, ...]]:
    """The unit trimmed to its target; one of the other hand is looked at in the mirror."""
    if not as_drawn:
        unit = turned_over(unit, Line((0.0, 0.0), (0.0, 1.0))).at_origin()
    box = kind_of(p.spec.kind).box(p.spec, unit, float(p.allowance))
    done, _ = trim(unit, *sides_of(box))
    return seen(done.shifted(-box[0][0], -box[0][1]))


class FollowerTest(TestCase):
    def made_by(self, p: UnitPlan) -> None:
        choices = p.choices
        needle = Needle.of(float(choices.seam.stitch), float(choices.seam.fold))
        sizes = {n: float(v) for n, v in p.cuts.items()}
        out = follow(p.simulated.making.moments, sizes, float(choices.seam_allowance), needle)
        self.assertEqual(len(out), p.batch.units)
        drawn = 0
        for unit in out:
            turned, as_drawn = orient(squared(unit)[0], p.spec, float(choices.seam_allowance))
            drawn += as_drawn
            # Without a hand it may still be made from its other side first.
            ways = [seen(p.simulated.trimmed)]
            if not comes_in_two_hands(p.spec):
                ways.append(seen(turned_over(p.simulated.trimmed, Line((0.0, 0.0), (0.0, 1.0))).at_origin()))
            self.assertIn(trimmed(p, turned, as_drawn=as_drawn), ways)
        self.assertEqual(drawn if comes_in_two_hands(p.spec) else len(out), p.simulated.as_drawn)

    def test_every_way_of_every_kind(self) -> None:
        for fold in (ZERO, inches("1/32")):
            for method, spec in ALL_WAYS:
                with self.subTest(kind=method.kind, method=method.name, fold=str(fold)):
                    self.made_by(plan(Choices(spec, method.name, fold=fold)))

    def test_other_fabrics(self) -> None:
        rings = [
            ("quarter_square_triangle", "abcd"),
            ("quarter_square_triangle", "aabc"),
            ("flying_goose", "abc"),
            ("corner_triangle", "abcde"),
            ("square_in_square", "abcde"),
            ("banded_hourglass", "abcd"),
            ("pieced_half", "abcde"),
            ("four_patch", "abcd"),
        ]
        for kind, fabrics in rings:
            spec = sample(kind, part_fabrics=fabrics)
            for method in (m for m, s in ALL_WAYS if s.kind == kind):
                with self.subTest(kind=kind, method=method.name, fabrics=fabrics):
                    self.made_by(plan(Choices(spec, method.name)))

    def test_geese_of_any_ratio_from_templates(self) -> None:
        """Steep and flat ones: the ends no longer lie flush, and how far one stands out is told."""
        told = set()
        for width, height in ((6, 4), (5, 2), (4, 4), (6, 3)):
            for fold in (ZERO, inches("1/32")):
                spec = sample("flying_goose", inches(width)).sized(inches(width), inches(height))
                p = plan(Choices(spec, "templates", fold=fold))
                self.made_by(p)
                told |= {m.act.align for m in p.simulated.making.moments if isinstance(m.act, LayPage)}
        self.assertIn(Align.BEYOND, told)


class JoinerTest(TestCase):
    def test_blocks_that_lie_mirrored_in_a_block(self) -> None:
        """The same smaller block upright, turned and mirrored: the mirrored one is joined as a block of its own."""
        inner = library_pattern("pinwheel")
        lies = (Orientation(), Orientation(1), Orientation(0, True), Orientation(3, True))
        places = tuple(Place(n % 2, n // 2, BlockPlacement("pinwheel", inner), lie) for n, lie in enumerate(lies))
        pattern = Pattern("Four", (Fraction(1),) * 2, (Fraction(1),) * 2, places)
        steps = self.joined_right(pattern, Order.ROWS)
        self.assertEqual({s.key.split()[1:3][1] for s in steps if "block" in s.key}, {"1", "2"})

    def joined_right(self, pattern: Pattern, order: Order) -> tuple[JoinStep, ...]:
        size, s = inches(12), inches("1/4")
        steps = join_steps(pattern, order, size, s, inches("1/8"))
        piece = join(steps, pattern, size, s)
        layout, part = layout_of(pattern), layout_of(pattern).part(size)
        for cell in layout.cells:
            x, y = cell_middle(layout, cell, float(part))
            for p in placed_parts(cell.spec(part), cell.orientation):
                cx, cy = centroid(p.outline)
                self.assertEqual(piece.fabric_at((x + cx + 0.25, y + cy + 0.25)), p.role)
        return steps

    def test_every_library_block(self) -> None:
        """Joined as the steps say, every fabric shows where the picture has it, and the block has its size."""
        for n, key in enumerate(library_keys()):
            pattern = library_pattern(key)
            ways = sorted({o.order for o in orders(pattern)})
            order = ways[n % len(ways)]  # Each way comes round often enough: by every way it would take twice as long.
            with self.subTest(block=key, order=order.value):
                self.joined_right(pattern, order)
