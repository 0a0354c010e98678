"""All pieces of one fabric onto its cloths: the plans found, the best of them, and how far it can be from the best there is."""

from __future__ import annotations

import time
from collections.abc import Sequence

from ..solver import Stop
from .choosing import chosen, strip_by_strip
from .pricing import Column, Master, as_laid, cost_of, dive, single, tops
from .proving import narrowed
from .strips import Bin, Item, Packed, counts_in, shelves

__all__ = ["pack_bins"]


def pack_bins(
    items: Sequence[Item], bins: Sequence[Bin], seconds: float = 4.0, *, tidy: bool = True, stop: Stop | None = None
) -> Packed:
    """Strips for every piece at the least cost known, with the bound proven.

    ``tidy`` asks, among plans that cost the same, for the fewest strips and the fewest depths. Pieces that fit nowhere, or
    for which no cloth is left, are counted as missing. Stopped, or a good deal over its time, it is the best found so far.
    """
    until = time.monotonic() + seconds * _PATIENCE

    def is_over() -> bool:
        return (stop is not None and stop.asked) or time.monotonic() > until

    master = Master(items, bins)
    plain = shelves(items, bins)
    for b, _, s in plain:
        master.add(Column(b, s.depth, counts_in(items, s.segments), s.segments))
    for n, item in enumerate(items):
        single(master, n, item, bins)
    bound = master.grow(ended=is_over) if items and bins else 0.0
    laid = dive(master, items, bins, is_over) if items and bins else []
    for b, _, s in laid:
        master.add(Column(b, s.depth, counts_in(items, s.segments), s.segments))
    if cost_of(master, items, laid) < cost_of(master, items, plain):
        plain = laid
    if sum(b.count for b in bins) > _MOST_CLOTHS or is_over():
        return as_laid(master, items, plain, bound)
    tops(master, items)
    few = len(bins) == 1 and bins[0].count == 1 and len(plain) <= _FEW
    found = chosen(master, plain, bound, seconds * (0.05 if few else 1.0), tidy=tidy and not few, stop=stop)
    if not few or any(found.missing) or len(found.strips) > _FEW:
        return found
    found = narrowed(master, found, seconds * 0.72, stop)
    if not found.optimal:
        found = strip_by_strip(items, bins[0], found, seconds * 0.12, tidy=False, stop=stop)
    return strip_by_strip(items, bins[0], found, seconds * 0.06, tidy=True, stop=stop) if tidy else found


_MOST_CLOTHS = 60
"""Cloths above which the linear plan taken whole, or the plain one, is the answer: choosing among all would take too long."""
_PATIENCE = 2.0
"""How many times its time the linear plan may take: it is what every other step begins with."""
_FEW = 12
"""Strips up to which they are also chosen one by one, and the bound is narrowed by listing every strip worth it."""
