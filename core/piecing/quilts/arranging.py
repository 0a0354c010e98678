"""An arrangement of measured blocks in which neighbours differ least, and how far from the least possible it is.

Blocks may stand in straight rows, on point (seen along their own sides), staggered or wherever a hand laid them: what counts is which lie
side by side with a whole side in common, across a sash or without one. Source: docs/theory, section 18.2.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise
from math import exp
from random import Random

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import linear_sum_assignment

from ..errors import CountOutOfRange
from .choices import QuiltChoices, Setting, block_spots

__all__ = ["BlockArrangement", "BlockPlace", "arrange_blocks", "joined_along", "places_of"]

Floats = NDArray[np.float64]
Numbers = NDArray[np.int64]
_MOST = 900
_ROUNDS = 40
_MOVES, _FEWEST = 120_000, 12_000
_WARM, _COLD = 1 / 24, 1 / 20_000
"""Inches that a worse exchange may cost and be taken a third of the time, first and last."""
_NEVER = 1e6
"""Price of a block in a place for another kind."""
_CLOSE = 1e-6


@dataclass(frozen=True, slots=True)
class BlockPlace:
    """Where one block lies, in any unit, seen so that blocks stand upright; ``kind`` which blocks may lie there; ``turned``: a quarter, so
    that what it measures across lies up and down."""

    left: float
    top: float
    width: float
    height: float
    kind: int = 0
    turned: bool = False


@dataclass(frozen=True)
class BlockArrangement:
    """``blocks`` (places,) holds the number of the block that lies in each; ``unlike`` is the sum, in inches, of what neighbours differ along
    the edge that joins them, ``before`` as they were, ``least`` what no arrangement can go below."""

    blocks: tuple[int, ...]
    unlike: float
    before: float
    least: float


def places_of(c: QuiltChoices, kinds: Sequence[int], turned: Sequence[bool]) -> tuple[BlockPlace, ...]:
    """Places of a quilt set by rule, in the order of ``block_spots``, each for which kind and whether turned a quarter. On point they are seen
    along the blocks' own sides: what a block measures across runs up to the right. Sashes leave no gap here."""
    found = []
    for (x, y), kind, across in zip(block_spots(c), kinds, turned, strict=True):
        if c.setting is Setting.ON_POINT:
            left, top = (x - y) / 2, (x + y) / 2
        else:
            drop = float(c.stagger) if c.setting is Setting.STAGGERED and x % 2 else 0.0
            left, top = x, y + drop
        found.append(BlockPlace(left, top, 1, 1, kind, across))
    return tuple(found)


def joined_along(places: Sequence[BlockPlace], *, across: bool) -> list[list[int]]:
    """Numbers of places that follow one another ``across``, else down, each with a whole side in common with the next: no more than a sash,
    narrower than they are themselves, lies between. Every place is in one such line, alone if it has no neighbour."""
    bands: dict[tuple[int, int], list[int]] = {}
    for n, p in enumerate(places):
        begin, size = (p.top, p.height) if across else (p.left, p.width)
        bands.setdefault((round(begin / _CLOSE), round(size / _CLOSE)), []).append(n)
    lines: list[list[int]] = []
    for band in bands.values():
        ends = {
            n: (p.left, p.left + p.width) if across else (p.top, p.top + p.height)
            for n, p in ((n, places[n]) for n in band)
        }
        band.sort(key=lambda n: ends[n])
        line = [band[0]]
        for a, b in pairwise(band):
            sash = ends[b][0] - ends[a][1]
            if sash < min(ends[a][1] - ends[a][0], ends[b][1] - ends[b][0]) - _CLOSE:
                line.append(b)
            else:
                lines.append(line)
                line = [b]
        lines.append(line)
    along = [(p.top, p.left) if across else (p.left, p.top) for p in places]
    return sorted(lines, key=lambda line: along[line[0]])


def arrange_blocks(
    widths: Sequence[float],
    heights: Sequence[float],
    places: Sequence[BlockPlace],
    kinds: Sequence[int] | None = None,
    seed: int = 1869,
) -> BlockArrangement:
    """Blocks of these sizes, inches, and ``kinds`` (all the same where none are given), those of each kind in the order in which they lie
    now. Raises ``CountOutOfRange`` unless they fill the places.

    Begun from rows of like heights and columns of like widths, found by assignments in turn; then pairs are exchanged as long as
    any helps, and sets of places assigned anew. A few beginnings, the best kept.
    """
    of = np.zeros(len(widths), dtype=np.int64) if kinds is None else np.asarray(kinds, dtype=np.int64)
    wanted = np.array([p.kind for p in places], dtype=np.int64)
    if not 1 <= len(places) <= _MOST or sorted(of.tolist()) != sorted(wanted.tolist()):
        raise CountOutOfRange(
            "The quilt takes {all}; measured are {n}.",
            field="rows",
            all=len(places),
            n=len(widths),
        )
    work = _Work(np.array([widths, heights], dtype=float), of, wanted, places)
    rng, draw = np.random.default_rng(seed), Random(seed)
    now = work.as_they_are()
    best = now
    for begin in (work.by_lines(1), work.by_lines(0), work.by_both(now), now):
        found = work.exchanged(work.annealed(work.exchanged(begin, rng), draw), rng)
        if work.cost(found) < work.cost(best) - 1e-12:
            best = found
    return BlockArrangement(tuple(map(int, best)), work.cost(best), work.cost(now), work.least())


class _Work:
    """``sizes`` (2, blocks): across and down as each block was measured. Side 0 of a place is joined to what lies above and below it, side 1
    to what lies beside it; ``shown`` (2, places) says which of a block's sizes lies there."""

    def __init__(self, sizes: Floats, of: Numbers, wanted: Numbers, places: Sequence[BlockPlace]) -> None:
        self.sizes, self.of, self.wanted, self.count = sizes, of, wanted, len(places)
        turned = np.array([p.turned for p in places])
        self.shown = np.array([turned, ~turned]).astype(np.int64)
        # Beside each other blocks are joined along their heights, one above the other along their widths.
        self.lines = (joined_along(places, across=False), joined_along(places, across=True))
        self.line_of = np.zeros((2, self.count), dtype=np.int64)
        self.beside: list[list[tuple[int, int]]] = [[] for _ in places]
        for side, lines in enumerate(self.lines):
            for n, line in enumerate(lines):
                self.line_of[side, line] = n
                for a, b in pairwise(line):
                    self.beside[a].append((b, side))
                    self.beside[b].append((a, side))
        self.pairs = [
            np.array([p for line in lines for p in pairwise(line)], dtype=np.int64).reshape(-1, 2)
            for lines in self.lines
        ]
        self.apart = list(self._apart())

    def as_they_are(self) -> Numbers:
        """The blocks of each kind in their order."""
        at = np.empty(self.count, dtype=np.int64)
        for kind in set(self.wanted.tolist()):
            at[self.wanted == kind] = np.nonzero(self.of == kind)[0]
        return at

    def sizes_along(self, at: Numbers, side: int) -> Floats:
        """(places,): what the block in each measures along a side."""
        return np.asarray(self.sizes[self.shown[side], at])

    def cost(self, at: Numbers) -> float:
        """Inches that neighbours differ in all."""
        total = 0.0
        for side, pairs in enumerate(self.pairs):
            values = self.sizes_along(at, side)
            total += float(np.abs(values[pairs[:, 0]] - values[pairs[:, 1]]).sum())
        return total

    def least(self) -> float:
        """No arrangement is below it: along a line the differences add up to at least the range of what lies in it, and k lines are least in
        all when each holds sizes that follow one another in order."""
        total = 0.0
        for side, lines in enumerate(self.lines):
            if len(set(self.shown[side].tolist())) > 1:
                continue  # Some show their width there and some their height: no order is the best of both.
            values = np.sort(self.sizes[self.shown[side][0]])
            if len({len(line) for line in lines}) == 1:
                groups = values.reshape(len(lines), -1)
                total += float((groups[:, -1] - groups[:, 0]).sum())
            else:
                gaps = np.sort(np.diff(values))
                total += float(gaps[: max(0, len(gaps) - len(lines) + 1)].sum())
        return total

    def by_lines(self, side: int) -> Numbers:
        """Lines of like sizes, one after the other, each sorted by the other size."""
        at = np.empty(self.count, dtype=np.int64)
        for kind in set(self.wanted.tolist()):
            blocks = [int(b) for b in np.nonzero(self.of == kind)[0]]
            blocks.sort(key=lambda b: float(self.sizes[side, b]))
            for line in self.lines[side]:
                here = [p for p in line if self.wanted[p] == kind]
                taken, blocks = blocks[: len(here)], blocks[len(here) :]
                at[here] = sorted(taken, key=lambda b: float(self.sizes[1 - side, b]))
        return at

    def by_both(self, now: Numbers) -> Numbers:
        """Each line has a size, first in the order of the quantiles; blocks are assigned to places so that they lie as near to both
        their lines' as can be, and the lines follow them, in turn."""
        wanted = [
            np.quantile(self.sizes[side], (np.arange(len(lines)) + 0.5) / len(lines))
            for side, lines in enumerate(self.lines)
        ]
        at = now
        for _ in range(12):
            price = np.where(self.of[:, None] == self.wanted[None, :], 0.0, _NEVER)
            for side in (0, 1):
                price += np.abs(self.sizes[self.shown[side]].T - wanted[side][self.line_of[side]])
            block, place = linear_sum_assignment(price)
            new = np.empty(self.count, dtype=np.int64)
            new[place] = block
            if (new == at).all():
                break
            at = new
            for side, lines in enumerate(self.lines):
                values = self.sizes_along(at, side)
                wanted[side] = np.array([np.median(values[line]) for line in lines])
        return at

    def exchanged(self, at: Numbers, rng: np.random.Generator) -> Numbers:
        """Places of no two neighbours are assigned anew all at once, exactly; then another such set, until nothing helps."""
        at, still, cost = at.copy(), 0, self.cost(at)
        for _ in range(_ROUNDS * len(self.apart)):
            at = self._assigned(at, self.apart[int(rng.integers(len(self.apart)))])
            new = self.cost(at)
            still = 0 if new < cost - 1e-12 else still + 1
            cost = new
            if still > 3 * len(self.apart):
                break
        return at

    def _apart(self) -> Iterator[Numbers]:
        """Sets of places for blocks of one kind of which none are neighbours, which together hold every place: taken greedily, in a few
        orders."""
        draw = Random(self.count)
        for turn in range(4):
            order = list(range(self.count))
            if turn:
                draw.shuffle(order)
            sets: list[set[int]] = []
            for p in order:
                near = {q for q, _ in self.beside[p]}
                fits = next((s for s in sets if self.wanted[next(iter(s))] == self.wanted[p] and not near & s), None)
                if fits is None:
                    sets.append({p})
                else:
                    fits.add(p)
            yield from (np.array(sorted(s)) for s in sets if len(s) > 1)

    def _assigned(self, at: Numbers, chosen: Numbers) -> Numbers:
        """The blocks that lie there, exchanged among themselves as is best: since none of the places touch, what one of them costs does
        not hang on the others."""
        blocks = at[chosen]
        price = np.zeros((len(blocks), len(chosen)))
        for n, p in enumerate(chosen):
            for q, side in self.beside[int(p)]:
                there = self.sizes[self.shown[side, q], at[q]]
                price[:, n] += np.abs(self.sizes[self.shown[side, p], blocks] - there)
        block, place = linear_sum_assignment(price)
        new = at.copy()
        new[chosen[place]] = blocks[block]
        return new

    def annealed(self, at: Numbers, draw: Random) -> Numbers:
        """Pairs exchanged at random, worse ones taken less and less often (Kirkpatrick and others 1983); the best met on the way."""
        lies = [int(x) for x in at]
        count, cost = self.count, 0.0
        # (side, place, block): what a block measures along a side of a place.
        seen = [[self.sizes[self.shown[side, p]].tolist() for p in range(count)] for side in (0, 1)]
        alike = {k: [int(p) for p in np.nonzero(self.wanted == k)[0]] for k in set(self.wanted.tolist())}
        among = [alike[int(k)] for k in self.wanted]
        near = [[(q, seen[side][p], seen[side][q]) for q, side in beside] for p, beside in enumerate(self.beside)]
        best, least = list(lies), 0.0
        moves = min(_MOVES, max(_FEWEST, 1_500 * count)) if count > 1 else 0

        def beside(p: int) -> float:
            b, total = lies[p], 0.0
            for q, here, there in near[p]:
                total += abs(here[b] - there[lies[q]])
            return total

        for n in range(moves):
            p = int(draw.random() * count)
            q = among[p][int(draw.random() * len(among[p]))]
            before = beside(p) + beside(q)
            lies[p], lies[q] = lies[q], lies[p]
            change = beside(p) + beside(q) - before
            if change <= 0 or draw.random() < exp(-change / (_WARM * (_COLD / _WARM) ** (n / moves))):
                cost += change
                if cost < least - 1e-12:
                    best, least = list(lies), cost
            else:
                lies[p], lies[q] = lies[q], lies[p]
        return np.array(best)
