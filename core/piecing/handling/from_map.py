"""How a block's pressing map presses the seams within its units, told by the two fabrics that lie on either side.

Source: docs/theory, section 15.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

from ..blocks.geometry import cell_middle, placed_parts
from ..blocks.pattern import Cell, Layout, Pattern, layout_of
from ..geometry.plane import Point, holds
from ..joining.pressing import Press, Pressed, arrow_of
from ..lengths import Length
from ..units import UnitSpec

__all__ = ["OPEN", "SeamWays", "ways_of_units"]

OPEN = "open"
_BESIDE = 0.02
"""How far beside a seam its cloth is looked at, as a share of the unit's shorter side."""
_PART = Length.of(1)


@dataclass(frozen=True)
class SeamWays:
    """For each pair of fabrics: how many seams go toward which of the two, or open."""

    ways: dict[frozenset[str], Counter[str]] = field(default_factory=dict)

    def of(self, one: str, other: str) -> Counter[str]:
        """The ways of the seams between two fabrics; empty when the map has none."""
        return self.ways.get(frozenset((one, other)), Counter())

    def more(self, other: SeamWays) -> SeamWays:
        """Both taken together."""
        both = {k: Counter(v) for k, v in self.ways.items()}
        for k, v in other.ways.items():
            both[k] = both.get(k, Counter()) + v
        return SeamWays(both)


def ways_of_units(
    pattern: Pattern, pressed: Sequence[Pressed], spec: UnitSpec, finished: Length, roles: Mapping[str, str]
) -> SeamWays:
    """The seams within the units of one block that are made to ``spec``, of either hand; ``roles`` are the fabrics of a colourway
    by those of the pattern."""
    layout, found = layout_of(pattern), SeamWays()
    part = layout.part(finished)
    for cell in layout.cells:
        own = cell.spec(part)
        dyed = tuple(roles.get(r, r) for r in own.part_fabrics)
        if (own.kind, own.width, own.height, dyed) != (spec.kind, spec.width, spec.height, spec.part_fabrics):
            continue
        left, top = float(cell.left), float(layout.pattern.height - cell.top)
        right, foot = float(cell.right), float(layout.pattern.height - cell.bottom)
        for p in pressed:
            x, y = p.seam.middle
            if p.seam.inner and left < x < right and foot < y < top:
                _count(found, layout, cell, p, roles)
    return found


def _count(found: SeamWays, layout: Layout, cell: Cell, p: Pressed, roles: Mapping[str, str]) -> None:
    off = float(min(cell.width, cell.height)) * _BESIDE
    # Beside the middle of the seam another one may run into it: looked at a third of the way along.
    (x, y), (dx, dy), third = p.seam.start, p.seam.direction, p.seam.length * 0.3
    at = (x + dx * third, y + dy * third)
    sides = [
        _fabric(layout, cell, (at[0] + n * off * p.seam.left[0], at[1] + n * off * p.seam.left[1])) for n in (1, -1)
    ]
    if None in sides:
        return
    one, other = (roles.get(str(s), str(s)) for s in sides)
    arrow = arrow_of(p.seam, p.way)
    way = OPEN if arrow is None else one if p.way is Press.LEFT else other
    found.ways.setdefault(frozenset((one, other)), Counter())[way] += 1


def _fabric(layout: Layout, cell: Cell, at: Point) -> str | None:
    x, y = cell_middle(layout, cell, 1.0)
    here = (at[0] - x, at[1] - y)
    return next((q.role for q in placed_parts(cell.spec(_PART), cell.orientation) if holds(q.outline, here)), None)
