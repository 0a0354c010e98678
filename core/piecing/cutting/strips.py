"""Strips across a cloth, and which to cut: columns priced by a knapsack, a linear bound, a whole-number choice.

A strip has a depth; in it lie pieces side by side, the lesser ones stacked when several fit the depth, all trimmed to size
afterwards. Everything is in whole steps. Source: docs/theory.md, section 13.2 (Gilmore and Gomory's two-stage cutting).
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from math import ceil
from typing import Any

import numpy as np
from scipy.optimize import linprog
from scipy.sparse import lil_matrix

from ..solver import Answered, Stop, cp, solve

__all__ = ["Bin", "Item", "Packed", "Strip", "packed", "shelves"]

Counts = tuple[int, ...]


@dataclass(frozen=True, slots=True)
class Item:
    """``count`` pieces, each ``wide`` by ``deep`` as it lies, or turned when ``turns``."""

    wide: int
    deep: int
    count: int
    turns: bool

    @property
    def ways(self) -> tuple[tuple[int, int], ...]:
        """Length along a strip and depth, either way it may lie."""
        return (
            ((self.wide, self.deep), (self.deep, self.wide))
            if self.turns and self.wide != self.deep
            else ((self.wide, self.deep),)
        )


@dataclass(frozen=True, slots=True)
class Bin:
    """``count`` cloths alike: strips are ``width`` long, and ``depth`` of them fit below each other.

    ``price`` is what a step of depth costs, ``strip`` what one more strip costs, ``opening`` what using the cloth at all
    costs.
    """

    width: int
    depth: int
    count: int
    price: int
    strip: int = 0
    opening: int = 0

    def cost(self, depth: int) -> int:
        """Of one strip."""
        return self.price * depth + self.strip


@dataclass(frozen=True, slots=True)
class Strip:
    """``segments``: item, whether turned, and how many are stacked in one segment, side by side from the left."""

    bin: int
    depth: int
    segments: tuple[tuple[int, bool, int], ...]


@dataclass(frozen=True)
class Packed:
    """``strips`` by cloth (a bin and which of its cloths); ``missing`` pieces by item; cost and its proven bound."""

    strips: tuple[tuple[int, int, Strip], ...]
    missing: Counts
    cost: int
    bound: float
    optimal: bool


@dataclass(frozen=True, slots=True)
class _Column:
    bin: int
    depth: int
    counts: Counts
    segments: tuple[tuple[int, bool, int], ...]


def _segments(items: Sequence[Item], depth: int, width: int) -> list[tuple[int, bool, int, int]]:
    """What can lie in a strip of a depth: item, turned, stacked, length along it."""
    found = []
    for n, item in enumerate(items):
        for turned, (along, deep) in enumerate(item.ways):
            if deep <= depth and along <= width:
                most = min(depth // deep, item.count)
                found += [(n, bool(turned), k, along) for k in {1, most} if k >= 1]
    return found


def _priced(items: Sequence[Item], duals: np.ndarray, width: int, depth: int) -> tuple[float, _Column | None]:
    """The most valuable strip of a depth at these prices: a knapsack, each way of lying at most as often as wanted."""
    packs: list[tuple[int, bool, int, int, int]] = []  # item, turned, stacked, how many segments, length
    for n, turned, k, along in _segments(items, depth, width):
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
    column = _Column(-1, depth, _counts(items, segments), tuple(sorted(segments)))
    return float(best[width]), column


def shelves(items: Sequence[Item], bins: Sequence[Bin]) -> list[tuple[int, int, Strip]]:
    """First fit by decreasing height: the plain plan that anything better is held against. Pieces that fit nowhere are left."""
    pieces = sorted(
        (
            (max(i.ways, key=lambda w: w[1] <= w[0]) if i.turns else i.ways[0], n)
            for n, i in enumerate(items)
            for _ in range(i.count)
        ),
        key=lambda p: (-p[0][1], -p[0][0]),
    )
    open_strips: list[list[int]] = []
    laid: list[list[tuple[int, bool, int]]] = []
    used: dict[tuple[int, int], int] = {}
    same, first, cloth = (0, 0, 0), 0, [0] * len(bins)
    for (along, deep), n in pieces:
        # Where the last piece of this size found no room, this one finds none either.
        if same != (along, deep, n):
            same, first, cloth = (along, deep, n), 0, [0] * len(bins)
        turned = items[n].turns and (along, deep) != items[n].ways[0]
        while first < len(open_strips) and not (along <= open_strips[first][3] and deep <= open_strips[first][2]):
            first += 1
        if first == len(open_strips):
            spot = _first_room(bins, used, cloth, along, deep)
            if spot is None:
                continue
            used[spot] = used.get(spot, 0) + deep
            open_strips.append([*spot, deep, bins[spot[0]].width])
            laid.append([])
        open_strips[first][3] -= along
        laid[first].append((n, turned, 1))
    return [
        (b, c, Strip(b, deep, tuple(segments))) for (b, c, deep, _), segments in zip(open_strips, laid, strict=True)
    ]


def _first_room(
    bins: Sequence[Bin], used: dict[tuple[int, int], int], cloth: list[int], along: int, deep: int
) -> tuple[int, int] | None:
    """The first cloth with depth left; ``cloth`` remembers where to go on looking."""
    for b, bin_ in enumerate(bins):
        if along > bin_.width:
            continue
        while cloth[b] < bin_.count and used.get((b, cloth[b]), 0) + deep > bin_.depth:
            cloth[b] += 1
        if cloth[b] < bin_.count:
            return b, cloth[b]
    return None


def _counts(items: Sequence[Item], segments: Sequence[tuple[int, bool, int]]) -> Counts:
    counts = [0] * len(items)
    for n, _, k in segments:
        counts[n] += k
    return tuple(counts)


def _depths(items: Sequence[Item]) -> list[int]:
    return sorted({deep for i in items for _, deep in i.ways}, reverse=True)


class _Master:
    """The linear choice of strips: what each piece's next copy is worth, and a bound on any plan's cost."""

    def __init__(self, items: Sequence[Item], bins: Sequence[Bin]) -> None:
        self.items, self.bins = items, bins
        self.columns: list[_Column] = []
        # A piece left out costs more than any strip it could lie in.
        self.missing = 4 * max((b.cost(b.depth) + b.opening for b in bins), default=1)
        self._known: set[tuple[int, int, Counts]] = set()
        self._shares = np.zeros(0)

    def add(self, column: _Column) -> bool:
        key = (column.bin, column.depth, column.counts)
        if key in self._known or not any(column.counts):
            return False
        self._known.add(key)
        self.columns.append(column)
        return True

    def solved(self) -> tuple[float, np.ndarray, np.ndarray]:
        """Cost, price of each piece, price of a step of each cloth's depth."""
        items, bins, columns = self.items, self.bins, self.columns
        width = len(columns) + len(items)
        cost = np.array([bins[c.bin].cost(c.depth) for c in columns] + [self.missing] * len(items), dtype=float)
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
        self.solved()
        return self._shares

    def grow(self, rounds: int = 80) -> float:
        """Columns until none is worth adding; returns the bound proven."""
        bound, depths = 0.0, _depths(self.items)
        wanted = np.array([i.count for i in self.items], dtype=float)
        room = np.array([b.depth * b.count for b in self.bins], dtype=float)
        for _ in range(rounds):
            _, prices, rooms = self.solved()
            added, over = False, 1.0
            for b, bin_ in enumerate(self.bins):
                for depth in (d for d in depths if d <= bin_.depth):
                    value, column = _priced(self.items, prices, bin_.width, depth)
                    cost = (bin_.price + rooms[b]) * depth + bin_.strip
                    over = max(over, value / cost if cost > 1e-12 else 1.0)
                    if column and value > cost * (1 + 1e-7):
                        added |= self.add(_Column(b, depth, column.counts, column.segments))
            # Prices lowered until no strip is worth more than it costs bound every plan from below (Farley 1990).
            bound = max(bound, float(wanted @ prices) / over - float(room @ rooms))
            if not added:
                break
        return bound


def packed(
    items: Sequence[Item], bins: Sequence[Bin], seconds: float = 4.0, *, tidy: bool = True, stop: Stop | None = None
) -> Packed:
    """Strips for every piece at the least cost known, with the bound proven.

    ``tidy`` asks, among plans that cost the same, for the fewest strips and the fewest depths. Pieces that fit nowhere, or
    for which no cloth is left, are counted as missing.
    """
    master = _Master(items, bins)
    plain = shelves(items, bins)
    for b, _, s in plain:
        master.add(_Column(b, s.depth, _counts(items, s.segments), s.segments))
    for n, item in enumerate(items):
        _single(master, n, item, bins)
    bound = master.grow() if items and bins else 0.0
    dived = _dived(master, items, bins) if items and bins else []
    for b, _, s in dived:
        master.add(_Column(b, s.depth, _counts(items, s.segments), s.segments))
    if _cost(master, items, dived) < _cost(master, items, plain):
        plain = dived
    if sum(b.count for b in bins) > _MOST_CLOTHS:
        return _as_laid(master, items, plain, bound)
    _tops(master, items)
    few = len(bins) == 1 and bins[0].count == 1 and len(plain) <= _FEW
    found = _chosen(master, plain, bound, seconds * (0.15 if few else 1.0), tidy=tidy and not few, stop=stop)
    if few and not any(found.missing) and len(found.strips) <= _FEW:
        return _strip_by_strip(items, bins[0], found, seconds * 0.85, tidy=tidy, stop=stop)
    return found


_MOST_CLOTHS = 60
"""Cloths above which the linear plan taken whole, or the plain one, is the answer: choosing among all would take too long."""


def _as_laid(master: _Master, items: Sequence[Item], strips: Sequence[tuple[int, int, Strip]], bound: float) -> Packed:
    left = tuple(i.count - sum(_counts(items, s.segments)[n] for _, _, s in strips) for n, i in enumerate(items))
    total = _cost(master, items, strips)
    return Packed(tuple(strips), left, total, min(bound, total), False)


_FEW = 12
"""Strips up to which they are also chosen one by one, which proves more than choosing among known strips does."""


def _strip_by_strip(
    items: Sequence[Item], bin_: Bin, known: Packed, seconds: float, *, tidy: bool, stop: Stop | None
) -> Packed:
    """Every strip a choice of its own: its depth, and how much of what lies in it. Begun at the plan known."""
    model, depths = cp().CpModel(), sorted(_depths(items))
    segments = _segments(items, max(depths), bin_.width)
    deep = [items[n].ways[int(t)][1] * k for n, t, k, _ in segments]
    most = len(known.strips) + (1 if bin_.strip == 0 else 0)
    isdepth = [[model.new_bool_var("") for _ in depths] for _ in range(most)]
    lies = [
        [model.new_int_var(0, min(items[n].count // k, bin_.width // along), "") for n, _, k, along in segments]
        for _ in range(most)
    ]
    down = []
    for strip, row in zip(isdepth, lies, strict=True):
        model.add_at_most_one(strip)
        down.append(sum(d * v for d, v in zip(depths, strip, strict=True)))
        for g, v in enumerate(row):
            n, _, k, along = segments[g]
            limit = min(items[n].count // k, bin_.width // along)
            model.add(v <= limit * sum(z for d, z in zip(depths, strip, strict=True) if d >= deep[g]))
        model.add(sum(s[3] * v for s, v in zip(segments, row, strict=True)) <= bin_.width * sum(strip))
    for one, other in pairwise(down):
        model.add(one >= other)
    for n, item in enumerate(items):
        laid = sum(s[2] * row[g] for row in lies for g, s in enumerate(segments) if s[0] == n)
        model.add(laid >= item.count)
    used = sum(sum(strip) for strip in isdepth)
    cost = bin_.price * sum(down) + bin_.strip * used + bin_.opening
    model.add(sum(down) <= bin_.depth)
    model.add(cost <= known.cost)
    model.add(cost >= ceil(known.bound - 1e-6))
    _hint_strips(model, isdepth, lies, depths, segments, known)
    model.minimize(cost)
    answer = solve(model, seconds * (0.88 if tidy else 1.0), linear=2, workers=2, stop=stop)
    if not answer.found:
        return known
    best, bound = answer.objective, max(known.bound, float(answer.bound))
    if tidy:
        kinds = [model.new_bool_var("") for _ in depths]
        for strip in isdepth:
            for kind, v in zip(kinds, strip, strict=True):
                model.add_implication(v, kind)
        _go_on(model, answer, [v for row in (*isdepth, *lies) for v in row])
        model.add(cost <= best)
        model.minimize(4 * sum(kinds) + used)
        neater = solve(model, seconds * 0.12, linear=1, workers=4, stop=stop)
        optimal = answer.optimal
        answer = neater if neater.found else answer
    else:
        optimal = answer.optimal
    found = []
    for strip, row in zip(isdepth, lies, strict=True):
        chosen = [d for d, v in zip(depths, strip, strict=True) if answer.value(v)]
        held = [(s[0], s[1], s[2]) for s, v in zip(segments, row, strict=True) for _ in range(answer.value(v))]
        if chosen and held:
            found.append((0, 0, Strip(0, chosen[0], tuple(held))))
    return Packed(_trimmed(items, found), known.missing, best, min(bound, best), optimal)


def _hint_strips(
    model: Any,
    isdepth: Sequence[Sequence[Any]],
    lies: Sequence[Sequence[Any]],
    depths: Sequence[int],
    segments: Sequence[tuple[int, bool, int, int]],
    known: Packed,
) -> None:
    ordered = sorted((s for _, _, s in known.strips), key=lambda s: -s.depth)
    names = {(n, t, k): g for g, (n, t, k, _) in enumerate(segments)}
    for r, (strip, row) in enumerate(zip(isdepth, lies, strict=True)):
        s = ordered[r] if r < len(ordered) else None
        counts: dict[int, int] = {}
        for segment in s.segments if s else ():
            g = names.get(segment)
            if g is not None:
                counts[g] = counts.get(g, 0) + 1
        for d, v in zip(depths, strip, strict=True):
            model.add_hint(v, s is not None and s.depth == d)
        for g, v in enumerate(row):
            model.add_hint(v, counts.get(g, 0))


def _cost(master: _Master, items: Sequence[Item], strips: Sequence[tuple[int, int, Strip]]) -> int:
    """Of strips laid, pieces left out included."""
    laid = [sum(k for _, _, s in strips for m, _, k in s.segments if m == n) for n in range(len(items))]
    short = sum(max(0, i.count - k) for i, k in zip(items, laid, strict=True))
    return sum(master.bins[b].cost(s.depth) for b, _, s in strips) + master.missing * short


def _dived(master: _Master, items: Sequence[Item], bins: Sequence[Bin]) -> list[tuple[int, int, Strip]]:
    """A whole-number plan from the linear one: what it takes whole times is cut, the rest is chosen anew."""
    left = [i.count for i in items]
    used: dict[tuple[int, int], int] = {}
    found: list[tuple[int, int, Strip]] = []
    columns = list(master.columns)
    for _ in range(4 * len(items) + 40):
        if not any(left):
            break
        rest = [Item(i.wide, i.deep, n, i.turns) for i, n in zip(items, left, strict=True)]
        small = _Master(rest, bins)
        for c in columns:
            small.add(_clipped(c, items, left))
        small.grow(6)
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
                found.append((*spot, Strip(c.bin, c.depth, c.segments)))
                left = [max(0, n - k) for n, k in zip(left, c.counts, strict=True)]
        if len(found) == before:
            break
        columns = small.columns
    return list(_trimmed(items, found))


def _clipped(c: _Column, items: Sequence[Item], left: Sequence[int]) -> _Column:
    """A strip without what is cut already, as deep as the rest needs."""
    room, segments = list(left), []
    for n, turned, k in c.segments:
        use = min(k, room[n])
        if use:
            segments.append((n, turned, use))
            room[n] -= use
    depth = max((items[n].ways[int(t)][1] * k for n, t, k in segments), default=c.depth)
    return _Column(c.bin, depth, _counts(items, segments), tuple(segments))


def _room_for(c: _Column, bins: Sequence[Bin], used: dict[tuple[int, int], int]) -> tuple[int, int] | None:
    spots = ((c.bin, n) for n in range(bins[c.bin].count))
    return next((s for s in spots if used.get(s, 0) + c.depth <= bins[c.bin].depth), None)


def _single(master: _Master, n: int, item: Item, bins: Sequence[Bin]) -> None:
    """Strips of one kind of piece alone, either way it lies."""
    for b, bin_ in enumerate(bins):
        for turned, (along, deep) in enumerate(item.ways):
            fit = min(item.count, bin_.width // along)
            if fit and deep <= bin_.depth:
                counts = tuple(fit if k == n else 0 for k in range(len(master.items)))
                master.add(_Column(b, deep, counts, ((n, bool(turned), 1),) * fit))


def _tops(master: _Master, items: Sequence[Item]) -> None:
    """Shortened copies of every strip, so that the last pieces need not fill one."""
    for c in list(master.columns):
        for n in {s[0] for s in c.segments}:
            rest = tuple(s for s in c.segments if s[0] != n)
            if rest:
                deep = max(items[k].ways[int(t)][1] * m for k, t, m in rest)
                master.add(_Column(c.bin, deep, _counts(items, rest), rest))


def _chosen(
    master: _Master, plain: list[tuple[int, int, Strip]], bound: float, seconds: float, tidy: bool, stop: Stop | None
) -> Packed:
    items, bins, columns = master.items, master.bins, master.columns
    model = cp().CpModel()
    cloths = [(b, n) for b, bin_ in enumerate(bins) for n in range(bin_.count)]
    take = {
        (k, c): model.new_int_var(0, _most(columns[k], bins[c[0]], items), "")
        for k in range(len(columns))
        for c in cloths
        if columns[k].bin == c[0]
    }
    missing = [model.new_int_var(0, i.count, "") for i in items]
    for n, item in enumerate(items):
        model.add(
            sum(columns[k].counts[n] * v for (k, _), v in take.items() if columns[k].counts[n]) + missing[n]
            >= item.count
        )
    opened, depth = {}, {}
    for c in cloths:
        bin_ = bins[c[0]]
        depth[c] = sum(columns[k].depth * v for (k, cc), v in take.items() if cc == c)
        opened[c] = model.new_bool_var("")
        model.add(depth[c] <= bin_.depth * opened[c])
        if c[1]:
            model.add(depth[c] <= depth[c[0], c[1] - 1])
    strips = {c: sum(v for (_, cc), v in take.items() if cc == c) for c in cloths}
    cost = sum(
        bins[c[0]].price * depth[c] + bins[c[0]].strip * strips[c] + bins[c[0]].opening * opened[c] for c in cloths
    ) + master.missing * sum(missing)
    _begin(model, take, columns, plain, items)
    model.minimize(cost)
    answer = solve(model, seconds * (0.7 if tidy else 1.0), linear=2, workers=4, stop=stop)
    best, optimal = answer.objective, answer.optimal
    if tidy and answer.found:
        _go_on(model, answer, [*take.values(), *missing, *opened.values()])
        depths = {d: model.new_bool_var("") for d in {c.depth for c in columns}}
        for (k, _), v in take.items():
            model.add(v == 0).only_enforce_if(~depths[columns[k].depth])
        model.add(cost <= best)
        model.minimize(4 * sum(depths.values()) + sum(take.values()))
        neater = solve(model, seconds * 0.3, linear=1, workers=4, stop=stop)
        answer = neater if neater.found else answer
    if not answer.found:
        return _as_laid(master, items, plain, bound)
    chosen = [
        (c[0], c[1], Strip(c[0], columns[k].depth, columns[k].segments))
        for (k, c), v in take.items()
        for _ in range(answer.value(v))
    ]
    return Packed(_trimmed(items, chosen), tuple(answer.value(m) for m in missing), best, min(bound, best), optimal)


def _most(c: _Column, b: Bin, items: Sequence[Item]) -> int:
    wanted = max(-(-items[n].count // k) for n, k in enumerate(c.counts) if k)
    return min(b.depth // c.depth, wanted)


def _begin(
    model: object,
    take: dict[tuple[int, tuple[int, int]], object],
    columns: Sequence[_Column],
    plain: Sequence[tuple[int, int, Strip]],
    items: Sequence[Item],
) -> None:
    known = {(c.bin, c.depth, c.counts): k for k, c in enumerate(columns)}
    wanted: dict[tuple[int, tuple[int, int]], int] = {}
    for b, n, s in plain:
        key = (known[b, s.depth, _counts(items, s.segments)], (b, n))
        wanted[key] = wanted.get(key, 0) + 1
    for key, v in take.items():
        model.add_hint(v, wanted.get(key, 0))  # type: ignore[attr-defined]


def _go_on(model: object, answer: Answered, variables: Sequence[object]) -> None:
    model.clear_hints()  # type: ignore[attr-defined]
    for v in variables:
        model.add_hint(v, answer.value(v))  # type: ignore[attr-defined]


def _trimmed(items: Sequence[Item], strips: Sequence[tuple[int, int, Strip]]) -> tuple[tuple[int, int, Strip], ...]:
    """Pieces beyond those wanted are left out of the strips; deepest strips first."""
    left = [i.count for i in items]
    found = []
    for b, c, s in sorted(strips, key=lambda t: (t[0], t[1], -t[2].depth)):
        kept = []
        for n, turned, k in s.segments:
            use = min(k, left[n])
            if use:
                kept.append((n, turned, use))
                left[n] -= use
        if kept:
            found.append((b, c, Strip(b, s.depth, tuple(kept))))
    return tuple(found)
