"""About how many blocks there is cloth for, before any plan of cuts is made. Source: docs/theory, section 13.5."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from functools import lru_cache

from ..blocks.counting import BlockOrder, Colourway, ordered_plans, unit_counts
from ..blocks.pattern import Pattern
from ..errors import PiecingError
from ..lengths import Length

__all__ = ["USED_OF_CLOTH", "cloth_of_block", "enough_for"]

USED_OF_CLOTH = 0.85
"""Of a cloth so much becomes pieces; the rest goes to squaring up and to strips that are not filled."""
_BATCH = 12
"""So many blocks are planned at once, so that what is over of one is used in the next."""


@lru_cache(maxsize=512)
def cloth_of_block(
    pattern: Pattern, finished: Length, allowance: Length, step: Length
) -> tuple[tuple[str, float], ...]:
    """Square inches cut of each fabric role for one block, its units made in their usual ways. Raises ``PiecingError`` for a block
    that cannot be cut at this size.
    """
    units = unit_counts([BlockOrder(pattern, finished, (Colourway(_BATCH),))])
    found: dict[str, float] = {}
    for one in ordered_plans(units, {}, seam_allowance=allowance, ruler_step=step):
        if one.plan is None:
            raise one.refusal or PiecingError("This cannot be cut.")
        for p in one.plan.pieces:
            found[p.role] = found.get(p.role, 0.0) + float(p.width) * float(p.height) * p.count / _BATCH
    return tuple(sorted(found.items()))


def enough_for(needs: Mapping[str, float], cloths: Iterable[float]) -> int:
    """How many blocks that take ``needs`` square inches of each role the cloths give, each role from one of them: the largest cloth
    for the role that takes most, which no other choice betters. Nothing where there are fewer cloths than roles.
    """
    wanted = sorted((n for n in needs.values() if n > 0), reverse=True)
    there = sorted(cloths, reverse=True)
    if not wanted or len(there) < len(wanted):
        return 0
    return min(int(USED_OF_CLOTH * cloth / need) for need, cloth in zip(wanted, there, strict=False))
