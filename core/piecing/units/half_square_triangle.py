"""Half-square triangle: two right triangles of different fabrics, joined on their long edges.

Source: docs/theory.md, section 4.1.
"""

from __future__ import annotations

from dataclasses import dataclass

from ..geometry.plane import Line
from ..geometry.sewing import Piece, cut, sew, square
from ..lengths import Length
from ..seams import Seam
from ..surd import Surd
from .method import Batch

__all__ = ["PAIR", "PairMethod"]


@dataclass(frozen=True, slots=True)
class PairMethod:
    """Two squares right sides together, sewn both sides of one diagonal and cut on it: two units."""

    kind: str = "half_square_triangle"
    name: str = "pair"
    batch: Batch = Batch((("a", 1), ("b", 1)), units=2)

    def raw(self, cut: Length, take_up: Length) -> Length:
        """R = C - √2 e: the seam eats e square to the diagonal, hence √2 e along each side."""
        return cut - take_up.times_root2()

    def cut_for(self, raw: Length, take_up: Length) -> Length:
        return raw + take_up.times_root2()

    def rule_size(self, finished: Length, allowance: Length, generosity: int) -> Length:
        """F + 4s trims a little (F + 1 at a quarter inch), F + 6s generously (F + 1 1/2)."""
        return finished + allowance * (2 + 2 * generosity)

    def trimmings(self, cut: Length, target: Length, take_up: Length) -> Surd:
        """C² - U² - 2(√2 U e - e²): cloth cut, less the square kept, less its two layers of allowance."""
        layer = target.times_root2().area_with(take_up) - take_up.area_with(take_up)
        return cut.area_with(cut) - target.area_with(target) - layer * 2

    def sew(self, cut: float, seam: Seam, take_up_at_end: float | None = None) -> Piece:
        return sew_pair(cut, float(seam.take_up), take_up_at_end)


def sew_pair(side: float, take_up: float, take_up_at_end: float | None = None) -> Piece:
    """The triangle pair left of the diagonal, sewn and opened: fabric b upper left, a lower right."""
    diagonal = Line((0.0, 0.0), (side, side))
    below, _ = cut(square(side, "a"), diagonal.reversed())
    facing, _ = cut(square(side, "b"), diagonal.reversed())
    return sew(below, facing, diagonal.reversed(), take_up, take_up_at_end).at_origin()


PAIR = PairMethod()
