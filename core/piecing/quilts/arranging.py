"""An arrangement of measured blocks in which neighbours differ least, and how far from the least possible it is.

Source: docs/theory, section 18.2.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import exp
from random import Random

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import linear_sum_assignment

from ..errors import CountOutOfRange

__all__ = ["BlockArrangement", "arranged", "least_possible", "unlikeness"]

Floats = NDArray[np.float64]
_MOST = 900
_ROUNDS = 40
_MOVES, _FEWEST = 120_000, 12_000
_WARM, _COLD = 1 / 24, 1 / 20_000
"""Inches that a worse exchange may cost and be taken a third of the time, first and last."""


@dataclass(frozen=True)
class BlockArrangement:
    """``places`` row by row hold the number of the block that lies there; ``unlike`` is the sum, in inches, of what neighbours differ along
    the edge that joins them, ``before`` as they were, ``least`` what no arrangement can go below."""

    places: tuple[tuple[int, ...], ...]
    unlike: float
    before: float
    least: float


def unlikeness(widths: Floats, heights: Floats) -> float:
    """Of a grid (rows, columns): blocks side by side are joined along their heights, blocks one above the other along their
    widths. Inches."""
    return float(np.abs(np.diff(heights, axis=1)).sum() + np.abs(np.diff(widths, axis=0)).sum())


def least_possible(
    widths: Sequence[float] | Floats, heights: Sequence[float] | Floats, rows: int, columns: int
) -> float:
    """No arrangement is below it: along a row the differences add up to at least the range of its heights, and the ranges of rows of
    so many are smallest when each holds heights that follow one another in order; columns likewise."""
    return _ranges(np.sort(heights), columns) + _ranges(np.sort(widths), rows)


def _ranges(ordered: Floats, each: int) -> float:
    groups = ordered.reshape(-1, each)
    return float((groups[:, -1] - groups[:, 0]).sum())


def arranged(
    widths: Sequence[float], heights: Sequence[float], rows: int, columns: int, seed: int = 1869
) -> BlockArrangement:
    """Blocks of these sizes, inches, in the order in which they lie now. Raises ``CountOutOfRange`` unless they fill the rows.

    Begun from rows of like heights and columns of like widths, found by assignments in turn; then pairs are exchanged as long as
    any helps, and sets of places assigned anew. A few beginnings, the best kept.
    """
    w, h = np.asarray(widths, dtype=float), np.asarray(heights, dtype=float)
    if len(w) != rows * columns or not 1 <= len(w) <= _MOST:
        raise CountOutOfRange(
            "The quilt takes {all}; measured are {n}.",
            field="rows",
            all=rows * columns,
            n=len(w),
        )
    rng = np.random.default_rng(seed)
    now = np.arange(len(w)).reshape(rows, columns)
    best, least = now, least_possible(w, h, rows, columns)
    draw = Random(seed)
    for begin in (_by_rows(w, h, rows, columns), _by_columns(w, h, rows, columns), _by_both(w, h, rows, columns), now):
        found = _exchanged(_annealed(_exchanged(begin, w, h, rng), w, h, draw), w, h, rng)
        if _cost(found, w, h) < _cost(best, w, h) - 1e-12:
            best = found
    return BlockArrangement(
        tuple(tuple(int(x) for x in row) for row in best), _cost(best, w, h), _cost(now, w, h), least
    )


def _cost(at: NDArray[np.int64], w: Floats, h: Floats) -> float:
    return unlikeness(w[at], h[at])


def _by_rows(w: Floats, h: Floats, rows: int, columns: int) -> NDArray[np.int64]:
    """Rows of heights in order, each sorted by width."""
    groups = np.argsort(h, kind="stable").reshape(rows, columns)
    return np.array([g[np.argsort(w[g], kind="stable")] for g in groups])


def _by_columns(w: Floats, h: Floats, rows: int, columns: int) -> NDArray[np.int64]:
    groups = np.argsort(w, kind="stable").reshape(columns, rows)
    return np.array([g[np.argsort(h[g], kind="stable")] for g in groups]).T


def _by_both(w: Floats, h: Floats, rows: int, columns: int) -> NDArray[np.int64]:
    """Each row has a height and each column a width in the order of the quantiles; blocks are assigned to places so that they lie
    as near to both as can be, and the heights and widths follow them, in turn."""
    wanted_h = np.quantile(h, (np.arange(rows) + 0.5) / rows)
    wanted_w = np.quantile(w, (np.arange(columns) + 0.5) / columns)
    at: NDArray[np.int64] = np.arange(len(w)).reshape(rows, columns)
    for _ in range(12):
        price = np.abs(h[:, None, None] - wanted_h[None, :, None]) + np.abs(w[:, None, None] - wanted_w[None, None, :])
        block, place = linear_sum_assignment(price.reshape(len(w), -1))
        filled = np.empty(len(w), dtype=np.int64)
        filled[place] = block
        new = filled.reshape(rows, columns)
        if (new == at).all():
            break
        at = new
        wanted_h, wanted_w = np.median(h[at], axis=1), np.median(w[at], axis=0)
    return at


def _exchanged(at: NDArray[np.int64], w: Floats, h: Floats, rng: np.random.Generator) -> NDArray[np.int64]:
    """Places of no two neighbours are assigned anew all at once, exactly; then another such set, until nothing helps. A third of all
    places, picked so that none touch."""
    rows, columns = at.shape
    at, still = at.copy(), 0
    colours = _apart(rows, columns)
    sets = list(colours)
    cost = _cost(at, w, h)
    for _ in range(_ROUNDS * len(sets)):
        chosen = sets[int(rng.integers(len(sets)))]
        at = _assigned(at, chosen, w, h)
        new = _cost(at, w, h)
        still = 0 if new < cost - 1e-12 else still + 1
        cost = new
        if still > 3 * len(sets):
            break
    return at


def _annealed(at: NDArray[np.int64], w: Floats, h: Floats, draw: Random) -> NDArray[np.int64]:
    """Pairs exchanged at random, worse ones taken less and less often (Kirkpatrick and others 1983); the best met on the way."""
    rows, columns = at.shape
    places, across, down = [int(x) for x in at.ravel()], h.tolist(), w.tolist()
    count, cost = len(places), 0.0
    best, least = list(places), 0.0
    moves = min(_MOVES, max(_FEWEST, 1_500 * count)) if count > 1 else 0

    def beside(p: int) -> float:
        y, x = divmod(p, columns)
        b, total = places[p], 0.0
        if x:
            total += abs(across[b] - across[places[p - 1]])
        if x < columns - 1:
            total += abs(across[b] - across[places[p + 1]])
        if y:
            total += abs(down[b] - down[places[p - columns]])
        if y < rows - 1:
            total += abs(down[b] - down[places[p + columns]])
        return total

    for n in range(moves):
        p, q = int(draw.random() * count), int(draw.random() * count)
        before = beside(p) + beside(q)
        places[p], places[q] = places[q], places[p]
        change = beside(p) + beside(q) - before
        if change <= 0 or draw.random() < exp(-change / (_WARM * (_COLD / _WARM) ** (n / moves))):
            cost += change
            if cost < least - 1e-12:
                best, least = list(places), cost
        else:
            places[p], places[q] = places[q], places[p]
    return np.array(best).reshape(rows, columns)


def _apart(rows: int, columns: int) -> list[NDArray[np.int64]]:
    """Sets of places of which none are neighbours: the two colours of a chequerboard, and their meetings with halves of it."""
    y, x = np.divmod(np.arange(rows * columns), columns)
    found = [np.nonzero((x + y) % 2 == c)[0] for c in (0, 1)]
    for half in ((x + 2 * y) % 5, (x // 2 + y) % 3):
        for k in range(int(half.max()) + 1):
            places = np.nonzero(half == k)[0]
            taken: list[int] = []
            for p in places:
                if all(abs(p % columns - q % columns) + abs(p // columns - q // columns) > 1 for q in taken):
                    taken.append(int(p))
            found.append(np.array(taken))
    return [f for f in found if len(f) > 1]


def _assigned(at: NDArray[np.int64], places: NDArray[np.int64], w: Floats, h: Floats) -> NDArray[np.int64]:
    """The blocks that lie there, exchanged among themselves as is best: since none of the places touch, what one of them costs does not
    hang on the others."""
    rows, columns = at.shape
    blocks = at.ravel()[places]
    price = np.zeros((len(blocks), len(places)))
    for n, p in enumerate(places):
        y, x = divmod(int(p), columns)
        for dy, dx, size in ((0, -1, h), (0, 1, h), (-1, 0, w), (1, 0, w)):
            if 0 <= y + dy < rows and 0 <= x + dx < columns:
                price[:, n] += np.abs(size[blocks] - size[at[y + dy, x + dx]])
    block, place = linear_sum_assignment(price)
    new = at.ravel().copy()
    new[places[place]] = blocks[block]
    return new.reshape(rows, columns)
