"""Rows and columns for so many blocks, or for a quilt of about a size.

Source: docs/theory, section 12.8.
"""

from __future__ import annotations

from math import isqrt

from ..errors import QuiltImpossible
from ..lengths import ZERO, Length

__all__ = ["MOST_ACROSS", "fitted_to_number", "fitted_to_size"]

MOST_ACROSS = 60
"""Blocks across, and blocks down, of the largest quilt."""


def fitted_to_number(blocks: int) -> tuple[int, int]:
    """Columns and rows of exactly so many blocks, as near square as can be and not wider than high; a number that is no product
    is a runner of one row. Raises ``QuiltImpossible`` when that is longer than a quilt may be."""
    columns = next(n for n in range(isqrt(max(blocks, 1)), 0, -1) if blocks % n == 0)
    rows = blocks // columns
    if columns == 1:
        columns, rows = rows, 1
    if not blocks >= 1 or max(columns, rows) > MOST_ACROSS:
        raise QuiltImpossible(
            "{n, plural, one {One block makes} other {# blocks make}} no quilt of up to {most} across and down. Take a number that is a "
            "product, such as {near}.",
            field="count",
            n=blocks,
            most=MOST_ACROSS,
            near=max(1, blocks) // 6 * 6 or 6,
        )
    return columns, rows


def fitted_to_size(
    wide: Length, high: Length, block: Length, sash: Length = ZERO, rim: Length = ZERO
) -> tuple[int, int]:
    """Columns and rows of square blocks finishing ``block``, with ``sash`` between them and ``rim`` all round, whose quilt comes
    nearest to ``wide`` by ``high``; one at least. Raises ``QuiltImpossible`` for more than a quilt may have."""
    found = []
    for size in (wide, high):
        number = round(float(size - rim * 2 + sash) / float(block + sash))
        if number > MOST_ACROSS:
            raise QuiltImpossible(
                "That would be {n} of them across or down; {most} are the most. Take larger blocks.",
                field="wide",
                n=number,
                most=MOST_ACROSS,
            )
        found.append(max(1, number))
    return found[0], found[1]
