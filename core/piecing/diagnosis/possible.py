"""Blocks that the readings leave possible, drawn one by one, and which cause leads in each.

Source: docs/theory, sections 14.7 and 14.8.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import sqrt

import numpy as np
from numpy.typing import NDArray

from .causes import Cause, Parameter, parameters_of, scatter_of, shape_of, sources_of, touched_by
from .model import BlockModel, Vector
from .priors import HANDS, Prior
from .sets import LikelySet
from .system import System

__all__ = ["NOTHING", "WEIGHTS", "PossibleBlocks", "leading_in", "possible_blocks"]

NOTHING = 0.017
"""Inches; a cause smaller than this is the hands' own scatter."""
_DRAWS = 900
_AT_ONCE = 1_000_000
"""How many errors are drawn in one go: a bound on the memory, not on the blocks."""
_BEFORE = 5_000_000
"""How many errors are drawn in all before anything was read, when no verdict hangs on them: of the largest blocks a third as many
blocks are drawn as otherwise."""
_UNREAD = 0.5
"""How much less often a cause is large of which nothing was read."""
_FOLD_TELLS = 1.8
"""A fold is in every seam of every block: half of 1/52 that is not paid for is worth saying."""
WEIGHTS = {
    Cause.START: 0.7,
    Cause.END: 0.7,
    Cause.STRETCH: 0.5,
    Cause.SOME_SEAMS: 0.8,
    Cause.ONE_SEAM: 0.6,
    Cause.ONE_UNIT: 0.6,
}
"""How much of a cause's size counts when it is asked which one leads: what it does to the block beside a seam all along."""


@dataclass(frozen=True)
class PossibleBlocks:
    """``causes`` (blocks, parameters) and ``errors`` (blocks, errors) in inches, and ``large`` (blocks, parameters) which of the
    causes are large in each."""

    causes: Vector
    errors: NDArray[np.float32]
    large: NDArray[np.bool_]


def possible_blocks(
    system: System, sets: Sequence[LikelySet], params: Sequence[Parameter], rng: np.random.Generator
) -> PossibleBlocks:
    """Causes and errors of blocks that are possible after all, from every set as many as it is likely.

    Each is drawn as if nothing had been read and then moved by what the readings say of the difference (Matheron's
    rule): exact for a joint normal, and the unmeasured keeps its own scatter.
    """
    if not sets:
        return _before(system, params, rng)
    counts = _largest_remainders(np.array([s.weight for s in sets]), _DRAWS)
    causes, large = np.empty((_DRAWS, len(params))), np.empty((_DRAWS, len(params)), dtype=bool)
    errors = np.empty((_DRAWS, system.model.errors), dtype=np.float32)
    order, at = np.random.default_rng(int(rng.integers(2**32))).permutation(_DRAWS), 0
    some = max(1, _AT_ONCE // system.model.errors)
    for s, count in zip(sets, counts, strict=True):
        root = np.asarray(np.linalg.cholesky(s.noise + np.eye(system.count) * 1e-12), dtype=np.float64)
        for n in (min(some, int(count) - k) for k in range(0, int(count), some)):
            rows = order[at : at + n]
            causes[rows], errors[rows], large[rows] = _of_set(system, s, n, params, root, rng)
            at += n
    return PossibleBlocks(causes, errors, large)


def _before(system: System, params: Sequence[Parameter], rng: np.random.Generator) -> PossibleBlocks:
    """Nothing was read yet."""
    prior, model = system.prior, system.model
    n = min(_DRAWS, max(_DRAWS // 3, _BEFORE // model.errors))
    often = 1 / (1 + np.exp(-prior.odds))
    large = rng.random((n, len(params))) < often
    sd = np.where(large, prior.large, prior.small)
    causes = prior.mean + large * prior.shift + rng.standard_normal((n, len(params))) * sd
    errors = rng.standard_normal((n, model.errors), dtype=np.float32)
    errors *= scatter_of(model).astype(np.float32)
    shape, some = shape_of(model).T.astype(np.float32), max(1, _AT_ONCE // model.errors)
    for k in range(0, n, some):
        errors[k : k + some] += causes[k : k + some].astype(np.float32) @ shape
    return PossibleBlocks(causes, errors, large)


def _of_set(
    system: System, s: LikelySet, n: int, params: Sequence[Parameter], noise: Vector, rng: np.random.Generator
) -> tuple[Vector, NDArray[np.float32], NDArray[np.bool_]]:
    """``n`` blocks of one set; ``noise`` is a root of the covariance of what is neither a cause nor an error."""
    model, prior, common, z = system.model, system.prior, system.common, rng.standard_normal
    # What was not read may be a cause all the same, though people measure where something looks wrong.
    often = _UNREAD / (1 + np.exp(-prior.odds))
    unread = system.silent & (rng.random((n, common)) < often)
    variance = np.where(unread, prior.large**2, s.variance)
    sd = scatter_of(model) * np.array(HANDS[s.hands].factors)[sources_of(model)]
    causes = z((n, common)) * np.sqrt(variance)
    errors = z((n, model.errors), dtype=np.float32)
    errors *= sd.astype(np.float32)
    alone = {p: z(n) * sqrt(x) for p, x in s.singles.items()}
    columns = {p: system.reads(p) for p in s.singles}
    touching, reached = system.touching, system.columns
    read = causes @ system.of_causes.T + errors[:, reached] @ touching.T + z((n, system.count)) @ noise.T
    for p, x in alone.items():
        read += x[:, None] * columns[p]
    pull = (s.left - read) @ s.inverse
    causes += (pull @ system.of_causes) * variance
    # Only errors that some reading touches are moved by what the readings say.
    errors[:, reached] += (pull @ touching) * sd[reached] ** 2
    found, large = np.zeros((n, len(params))), np.zeros((n, len(params)), dtype=bool)
    found[:, :common] = prior.mean + s.shift + s.struck + unread * prior.shift + causes
    large[:, :common] = unread
    for k in s.of:
        c = system.what[k]
        if c.mistake >= 0:
            for error, made in system.mistakes[c.mistake].errors.items():
                errors[:, error] += made
        if c.parameter in params:
            large[:, params.index(c.parameter)] = True
    errors += found[:, :common].astype(np.float32) @ shape_of(model).T.astype(np.float32)
    for single, x in alone.items():
        off = x + (pull @ columns[single]) * s.singles[single]
        for error, by in touched_by(model, single).items():
            errors[:, error] += off * by
        if single in params:
            found[:, params.index(single)] = off
    return found, errors, large


def leading_in(
    model: BlockModel, prior: Prior, params: Sequence[Parameter], possible: PossibleBlocks, erased: set[int]
) -> tuple[NDArray[np.int64], Vector]:
    """(blocks,) the cause that does most in each, -1 where none does anything to speak of; (blocks, parameters) what each does,
    in inches of a seam all along. What is left of ``erased`` batches of what they were cut to does nothing."""
    common = parameters_of(model)
    seam, fold = common.index(Parameter(Cause.SEAM)), common.index(Parameter(Cause.FOLD))
    sizes = np.abs(possible.causes)
    sizes[:, len(common) :] *= possible.large[:, len(common) :]
    # What each fabric loses beside what was allowed for: to the stitching, and to a fold that no scant seam pays for. They
    # go together, and the larger of the two answers for both.
    unpaid = (possible.causes[:, fold] - prior.paid) / 2
    stitched = possible.causes[:, seam] - prior.offset
    lost = stitched + unpaid
    folded = (lost > 0) & (unpaid > stitched)
    sizes[:, seam] = np.where(folded, 0.0, np.abs(lost))
    sizes[:, fold] = np.where(folded, _FOLD_TELLS * lost, 0.0)
    for n, p in enumerate(params):
        sizes[:, n] *= WEIGHTS.get(p.cause, 1.0)
        if p.cause is Cause.CUT and p.batch in erased:
            sizes[:, n] = 0.0
    return np.where(sizes.max(axis=1) > NOTHING, np.argmax(sizes, axis=1), -1), sizes


def _largest_remainders(weights: Vector, total: int) -> NDArray[np.int64]:
    """``total`` shared out by weight, by largest remainders."""
    exact = weights * total
    counts = np.floor(exact).astype(np.int64)
    rest = np.argsort(-(exact - counts))[: total - int(counts.sum())]
    counts[rest] += 1
    return counts
