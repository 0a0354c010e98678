"""Strips worth cutting: columns priced by a knapsack, the linear choice among them, and a bound on every plan.

Source: docs/theory, section 13.2 (Gilmore and Gomory's two-stage cutting).
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np

from ..solver import linear
from .strips import Bin, Counts, Item, Packed, PackedStrip, counts_in, depths_of, segments_in, trim_strips

__all__ = ["Column", "Master", "as_laid", "cost_of", "dive", "single", "tops"]


@dataclass(frozen=True, slots=True)
class Column:
    bin: int
    depth: int
    counts: Counts
    segments: tuple[tuple[int, bool, int], ...]


def best_column(items: Sequence[Item], duals: np.ndarray, width: int, depth: int) -> tuple[float, Column | None]:
    """The most valuable strip of a depth at these prices: a knapsack, each way of lying at most as often as wanted."""
    packs: list[tuple[int, bool, int, int, int]] = []  # item, turned, stacked, how many segments, length
    for n, turned, k, along in segments_in(items, depth, width):
        most, size = min(items[n].count // k, width // along), 1
        while most > 0 and duals[n] > 1e-12:
            take = min(size, most)
            packs.append((n, turned, k, take, take * along))
            most, size = most - take, size * 2
    if not packs:
        return 0.0, None
    best = np.zeros(width + 1)
    taken = np.zeros((len(packs), width + 1), dtype=bool)
    for row, (n, _, k, take, along) in enumerate(packs):
        if along > width:
            continue
        better = best[: width + 1 - along] + duals[n] * k * take
        taken[row, along:] = better > best[along:] + 1e-12
        best[along:] = np.where(taken[row, along:], better, best[along:])
    at, segments = width, []
    for row in range(len(packs) - 1, -1, -1):
        if taken[row, at]:
            n, turned, k, take, along = packs[row]
            segments += [(n, turned, k)] * take
            at -= along
    column = Column(-1, depth, counts_in(items, segments), tuple(sorted(segments)))
    return float(best[width]), column


def _never() -> bool:
    return False


class Master:
    """The linear choice of strips: what each piece's next copy is worth, and a bound on any plan's cost."""

    def __init__(self, items: Sequence[Item], bins: Sequence[Bin]) -> None:
        self.items, self.bins = items, bins
        self.columns: list[Column] = []
        # A piece left out costs more than any strip it could lie in.
        self.missing = 4 * max((b.cost(b.depth) + b.opening for b in bins), default=1)
        self._known: set[tuple[int, int, Counts]] = set()
        self._shares = np.zeros(0)
        self.proof = (0.0, np.zeros(len(items)), np.zeros(len(bins)))
        """The bound proven, with the prices of a piece and of a step of each cloth's depth that prove it."""

    def add(self, column: Column) -> bool:
        """Takes a strip into the choice; ``False`` when it is known already or holds nothing."""
        key = (column.bin, column.depth, column.counts)
        if key in self._known or not any(column.counts):
            return False
        self._known.add(key)
        self.columns.append(column)
        return True

    def solve(self) -> tuple[float, np.ndarray, np.ndarray]:
        """Cost, price of each piece, price of a step of each cloth's depth."""
        items, bins, columns = self.items, self.bins, self.columns
        width = len(columns) + len(items)
        cost = np.array([bins[c.bin].cost(c.depth) for c in columns] + [self.missing] * len(items), dtype=float)
        linprog, lil_matrix = linear()
        rows = lil_matrix((len(items) + len(bins), width))
        for k, c in enumerate(columns):
            for n, count in enumerate(c.counts):
                if count:
                    rows[n, k] = -count
            rows[len(items) + c.bin, k] = c.depth
        for n in range(len(items)):
            rows[n, len(columns) + n] = -1
        limits = [-i.count for i in items] + [b.depth * b.count for b in bins]
        found = linprog(cost, A_ub=rows.tocsr(), b_ub=limits, method="highs")
        duals = -found.ineqlin.marginals
        self._shares = np.asarray(found.x[: len(columns)])
        return float(found.fun), duals[: len(items)], duals[len(items) :]

    def shares(self) -> np.ndarray:
        """How often each strip is cut in the linear choice."""
        self.solve()
        return self._shares

    def grow(self, rounds: int = 80, ended: Callable[[], bool] = _never) -> float:
        """Columns until none is worth adding, or it is ``ended``; returns the bound proven."""
        depths = depths_of(self.items)
        wanted = np.array([i.count for i in self.items], dtype=float)
        room = np.array([b.depth * b.count for b in self.bins], dtype=float)
        for _ in range(rounds):
            _, prices, rooms = self.solve()
            added, over = False, 1.0
            for b, bin_ in enumerate(self.bins):
                for depth in (d for d in depths if d <= bin_.depth):
                    if ended():
                        # A round left in the middle proves nothing; what was proven before stands.
                        return self.proof[0]
                    value, column = best_column(self.items, prices, bin_.width, depth)
                    cost = (bin_.price + rooms[b]) * depth + bin_.strip
                    over = max(over, value / cost if cost > 1e-12 else 1.0)
                    if column and value > cost * (1 + 1e-7):
                        added |= self.add(Column(b, depth, column.counts, column.segments))
            # Prices lowered until no strip is worth more than it costs bound every plan from below (Farley 1990).
            bound = float(wanted @ prices) / over - float(room @ rooms)
            if bound > self.proof[0]:
                self.proof = (bound, prices / over, rooms)
            if not added:
                break
        return self.proof[0]


def as_laid(
    master: Master, items: Sequence[Item], strips: Sequence[tuple[int, int, PackedStrip]], bound: float
) -> Packed:
    """A plan as it stands, with what is missing from it."""
    left = tuple(i.count - sum(counts_in(items, s.segments)[n] for _, _, s in strips) for n, i in enumerate(items))
    total = cost_of(master, items, strips)
    return Packed(tuple(strips), left, total, min(bound, total), False)


def cost_of(master: Master, items: Sequence[Item], strips: Sequence[tuple[int, int, PackedStrip]]) -> int:
    """Of strips laid, pieces left out included."""
    laid = [sum(k for _, _, s in strips for m, _, k in s.segments if m == n) for n in range(len(items))]
    short = sum(max(0, i.count - k) for i, k in zip(items, laid, strict=True))
    return sum(master.bins[b].cost(s.depth) for b, _, s in strips) + master.missing * short


def dive(
    master: Master, items: Sequence[Item], bins: Sequence[Bin], ended: Callable[[], bool] = _never
) -> list[tuple[int, int, PackedStrip]]:
    """A whole-number plan from the linear one: what it takes whole times is cut, the rest is chosen anew."""
    left = [i.count for i in items]
    used: dict[tuple[int, int], int] = {}
    found: list[tuple[int, int, PackedStrip]] = []
    columns = list(master.columns)
    for _ in range(4 * len(items) + 40):
        if not any(left) or ended():
            break
        rest = [Item(i.wide, i.deep, n, i.turns) for i, n in zip(items, left, strict=True)]
        small = Master(rest, bins)
        for c in columns:
            small.add(_clipped(c, items, left))
        small.grow(6, ended)
        shares = small.shares()
        picks = [(k, int(x + 1e-6)) for k, x in enumerate(shares) if x >= 1 - 1e-6]
        if not picks:
            if not len(shares) or max(shares) < 1e-6:
                break
            picks = [(int(np.argmax(shares)), 1)]
        before = len(found)
        for k, times in picks:
            c = small.columns[k]
            for _ in range(times):
                spot = _room_for(c, bins, used)
                if spot is None:
                    break
                used[spot] = used.get(spot, 0) + c.depth
                found.append((*spot, PackedStrip(c.bin, c.depth, c.segments)))
                left = [max(0, n - k) for n, k in zip(left, c.counts, strict=True)]
        if len(found) == before:
            break
        columns = small.columns
    return list(trim_strips(items, found))


def _clipped(c: Column, items: Sequence[Item], left: Sequence[int]) -> Column:
    """A strip without what is cut already, as deep as the rest needs."""
    room, segments = list(left), []
    for n, turned, k in c.segments:
        use = min(k, room[n])
        if use:
            segments.append((n, turned, use))
            room[n] -= use
    depth = max((items[n].ways[int(t)][1] * k for n, t, k in segments), default=c.depth)
    return Column(c.bin, depth, counts_in(items, segments), tuple(segments))


def _room_for(c: Column, bins: Sequence[Bin], used: dict[tuple[int, int], int]) -> tuple[int, int] | None:
    spots = ((c.bin, n) for n in range(bins[c.bin].count))
    return next((s for s in spots if used.get(s, 0) + c.depth <= bins[c.bin].depth), None)


def single(master: Master, n: int, item: Item, bins: Sequence[Bin]) -> None:
    """Strips of one kind of piece alone, either way it lies."""
    for b, bin_ in enumerate(bins):
        for turned, (along, deep) in enumerate(item.ways):
            fit = min(item.count, bin_.width // along)
            if fit and deep <= bin_.depth:
                counts = tuple(fit if k == n else 0 for k in range(len(master.items)))
                master.add(Column(b, deep, counts, ((n, bool(turned), 1),) * fit))


def tops(master: Master, items: Sequence[Item]) -> None:
    """Shortened copies of every strip, so that the last pieces need not fill one."""
    for c in list(master.columns):
        for n in {s[0] for s in c.segments}:
            rest = tuple(s for s in c.segments if s[0] != n)
            if rest:
                deep = max(items[k].ways[int(t)][1] * m for k, t, m in rest)
                master.add(Column(c.bin, deep, counts_in(items, rest), rest))
