"""How good a plan of few strips can be at best: every strip that a cheaper plan could use is listed, and every plan of them.

A plan that costs no more than ``h`` uses only strips whose reduced costs, at prices that prove a bound ``b``, add up to at
most ``h - b``, the price of pieces cut beyond those wanted included. Those strips are few enough to list, and so are the
sets of pieces that can be left after each strip. ``h`` rises from the bound until a plan is found or the time is out; each
``h`` without a plan raises the bound. Source: docs/theory, section 13.2.
"""

from __future__ import annotations

import time
from collections.abc import Sequence
from dataclasses import dataclass
from math import ceil
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ..solver import Stop
from .pricing import Column, Master
from .strips import Item, Packed, PackedStrip, counts_in, depths_of, segments_in, trim_strips

__all__ = ["columns_within", "narrowed"]

_MOST_COLUMNS = 40_000
_MOST_AT_ONCE = 400_000
_SLACK = 1e-6
_STEP = 0.015
"""Share of the bound by which the search widens at a time: small enough that each part is quickly searched."""


def narrowed(master: Master, known: Packed, seconds: float, stop: Stop | None = None) -> Packed:
    """The plan known, or the cheapest one there is, with a bound that holds for every plan of such strips.

    For one cloth alone, with nothing missing from the plan known.
    """
    items, bin_ = master.items, master.bins[0]
    until = time.monotonic() + seconds
    most = known.cost - bin_.opening
    best, low = known, ceil(known.bound - bin_.opening - _SLACK)
    while low < most and time.monotonic() < until and not (stop and stop.asked):
        high = min(most - 1, low + int(_STEP * low))
        columns = columns_within(master, high, until)
        found = None if columns is None else _search(master, columns, high, until)
        if found is None:
            break
        if not found.strips:
            low = high + 1
            continue
        low = sum(bin_.cost(s.depth) for s in found.strips)
        # What is cheapest may still be too deep for the cloth: then its cost is a bound, and no plan.
        if sum(s.depth for s in found.strips) <= bin_.depth:
            best = Packed(
                trim_strips(items, [(0, 0, s) for s in found.strips]), known.missing, low + bin_.opening, 0.0, True
            )
        break
    bound = max(known.bound, min(best.cost, low + bin_.opening))
    return Packed(best.strips, best.missing, best.cost, bound, best.cost - bound < 1 - _SLACK)


def columns_within(master: Master, high: int, until: float = float("inf")) -> list[Column] | None:
    """Every strip that a plan costing at most ``high`` could use, those left out in which one more piece fits.

    None when there are too many to list, or when the time is out.
    """
    bound, prices, room = master.proof
    items, bin_ = master.items, master.bins[0]
    found: list[Column] = []
    for depth in (d for d in depths_of(items) if d <= bin_.depth):
        least = (bin_.price + float(room[0])) * depth + bin_.strip - (high - bound) - _SLACK
        ways = sorted(segments_in(items, depth, bin_.width), key=lambda s: -prices[s[0]] * s[2] / s[3])
        listed = _all_columns(items, bin_.width, ways, prices, least)
        if listed is None or len(listed) + len(found) > _MOST_COLUMNS or time.monotonic() > until:
            return None
        for times in listed:
            segments = [ways[g][:3] for g in np.nonzero(times)[0] for _ in range(times[g])]
            found.append(Column(0, depth, counts_in(items, segments), tuple(sorted(segments))))
    return found


def _all_columns(
    items: Sequence[Item],
    width: int,
    ways: Sequence[tuple[int, bool, int, int]],
    prices: NDArray[np.float64],
    least: float,
) -> NDArray[np.int16] | None:
    """How often each segment lies in each strip worth at least ``least``, (strips, segments); None when there are too many.

    Segment by segment, and what cannot reach ``least`` with the best of those ahead is dropped.
    """
    worth = [float(prices[n]) * k for n, _, k, _ in ways]
    ahead = _knapsacks(items, ways, worth, width)
    taken = np.zeros((1, len(ways)), dtype=np.int16)
    rooms, values = np.array([width]), np.zeros(1)
    own = np.array([[k if n == m else 0 for m in range(len(items))] for n, _, k, _ in ways], dtype=np.int16)
    counts = np.array([i.count for i in items], dtype=np.int16)
    for at, (n, _, k, along) in enumerate(ways):
        spare = counts[n] - taken @ own[:, n]
        parts = []
        for times in range(min(items[n].count // k, width // along) + 1):
            fits = np.nonzero((spare >= times * k) & (rooms >= times * along))[0]
            room, value = rooms[fits] - times * along, values[fits] + times * worth[at]
            good = value + ahead[at + 1][room] >= least
            more = taken[fits[good]]
            more[:, at] = times
            parts.append((more, room[good], value[good]))
        taken, rooms, values = (np.concatenate(x) for x in zip(*parts, strict=True))
        if len(taken) > _MOST_AT_ONCE:
            return None
    laid = taken @ own
    full = np.ones(len(taken), dtype=bool)
    for n, _, k, along in ways:
        full &= (laid[:, n] + k > counts[n]) | (rooms < along)
    taken, laid = taken[full], laid[full]
    return taken[np.unique(laid, axis=0, return_index=True)[1]] if len(taken) else taken


def _knapsacks(
    items: Sequence[Item], ways: Sequence[tuple[int, bool, int, int]], worth: Sequence[float], width: int
) -> NDArray[np.float64]:
    """The most that the segments from each one on can be worth, by room left."""
    ahead = np.zeros((len(ways) + 1, width + 1))
    for at in range(len(ways) - 1, -1, -1):
        n, _, k, along = ways[at]
        ahead[at] = ahead[at + 1]
        for times in range(1, min(items[n].count // k, width // along) + 1):
            taken = ahead[at + 1][: width + 1 - times * along] + times * worth[at]
            ahead[at][times * along :] = np.maximum(ahead[at][times * along :], taken)
    return ahead


@dataclass(frozen=True)
class _Found:
    strips: list[PackedStrip]


def _search(master: Master, columns: Sequence[Column], high: int, until: float) -> _Found | None:
    """The cheapest plan of these strips that costs at most ``high``; no strips when there is none, None when the time is out.

    Strip by strip, the next one always holding the first piece still wanted: of all ways to the same pieces left, the
    cheapest is kept.
    """
    if not columns:
        return _Found([])
    bound, prices, room = master.proof
    bin_ = master.bins[0]
    counts = np.array([c.counts for c in columns], dtype=np.int16)
    order = np.argsort((counts > 0).sum(axis=0))
    reduced = np.array([(bin_.price + float(room[0])) * c.depth + bin_.strip for c in columns]) - counts @ prices
    counts, prices = counts[:, order], prices[order]
    wanted = np.array([i.count for i in master.items], dtype=np.int16)[order]
    radix = np.cumprod([1, *(int(n) + 1 for n in wanted[:-1])], dtype=np.int64)
    budget = high - bound + _SLACK
    left, spent = wanted[None, :], np.zeros(1)
    layers: list[tuple[NDArray[np.int64], NDArray[np.int64]]] = []
    best: tuple[int, int] | None = None
    while len(left):
        parts = []
        first = np.argmax(left > 0, axis=1)
        for n in range(len(wanted)):
            here, fits = np.nonzero(first == n)[0], np.nonzero((counts[:, n] > 0) & (reduced <= budget))[0]
            if not len(here) or not len(fits):
                continue
            for some in np.array_split(here, 1 + len(here) * len(fits) // _MOST_AT_ONCE):
                if time.monotonic() > until:
                    return None
                parts.append(_one_strip_more(left, spent, some, fits, counts, reduced, prices, budget))
        if not sum(len(p[1]) for p in parts):
            break
        left, spent, came, cut = _cheapest_each([np.concatenate(x) for x in zip(*parts, strict=True)], radix)
        layers.append((came, cut))
        done = np.nonzero(~left.any(axis=1))[0]
        if len(done):
            best, budget = (len(layers) - 1, int(done[0])), float(spent[done[0]]) - _SLACK
        # Rows keep their place, for the way back: those that lead nowhere cheaper are only priced out.
        spent = np.where(left.any(axis=1) & (spent <= budget), spent, np.inf)
        if not np.isfinite(spent).any():
            break
    return _Found([] if best is None else _way_back(columns, layers, best))


def _one_strip_more(
    left: NDArray[np.int16],
    spent: NDArray[np.float64],
    some: NDArray[np.int64],
    fits: NDArray[np.int64],
    counts: NDArray[np.int16],
    reduced: NDArray[np.float64],
    prices: NDArray[np.float64],
    budget: float,
) -> tuple[NDArray[Any], ...]:
    """What is left, what it has cost above the bound, where it came from and the strip cut, within the budget."""
    row, column = np.nonzero(spent[some][:, None] + reduced[fits][None, :] <= budget)
    came, cut = some[row], fits[column]
    rest = left[came] - counts[cut]
    total = spent[came] + reduced[cut] - np.minimum(rest, 0) @ prices
    within = total <= budget
    return np.maximum(rest[within], 0), total[within], came[within], cut[within]


def _cheapest_each(parts: list[NDArray[Any]], radix: NDArray[np.int64]) -> tuple[NDArray[Any], ...]:
    """For each set of pieces left, the cheapest way to it."""
    left, spent, came, cut = parts
    code = left @ radix
    order = np.lexsort((spent, code))
    firsts = order[np.concatenate([[True], np.diff(code[order]) != 0])]
    return left[firsts], spent[firsts], came[firsts], cut[firsts]


def _way_back(
    columns: Sequence[Column], layers: Sequence[tuple[NDArray[np.int64], NDArray[np.int64]]], best: tuple[int, int]
) -> list[PackedStrip]:
    layer, row = best
    strips = []
    for came, cut in reversed(layers[: layer + 1]):
        c = columns[int(cut[row])]
        strips.append(PackedStrip(0, c.depth, c.segments))
        row = int(came[row])
    return strips
