"""How well a reading would part a true block from one with something off, and what may be off from what looks like it.

While nothing leads, a block is held to be true or to have one cause that comes to a 1/32 or a 1/16. What was read makes each of these more or
less likely, by densities of joint normals; two of them lie as far apart in a reading still to be taken as their densities there do not
overlap (Bhattacharyya 1943). Source: docs/theory, section 14.8.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from .causes import SOURCES, Cause
from .equations import Equation
from .inference import Inference
from .model import Vector
from .possible import WEIGHTS
from .priors import CAUSES, Steadiness
from .readings import Reading
from .system import LinearReadings

__all__ = ["partings"]

_SIZES = (1 / 32, 1 / 16)
"""Inches of a seam all along that a cause comes to."""
_TRUE = 0.5
"""How likely the block is held to be true beforehand, beside the causes as often as they are met."""
_SELDOM = 0.5
_SELDOM_ALONE = (Cause.START, Cause.END, Cause.FOLD, Cause.STRETCH)
"""What shows beside something else, and goes for it, is looked for by so much less (bench sewers: asked for as often as it is met, 3 in 100 fewer
of the others are named within ten readings; not at all, three in ten of the blocks whose seams drift by 1/16 are called true)."""
_ONE_SIDED = (Cause.FOLD, Cause.STRETCH)


@dataclass(frozen=True)
class _Supposed:
    """Blocks supposed to be true, or to have one cause: ``causes`` (supposed, causes) in inches, ``which`` (supposed,) numbers the cause, -1 for
    none, and ``odds`` (supposed,) are logarithms."""

    causes: Vector
    which: NDArray[np.int64]
    odds: Vector


def _suppositions(found: Inference) -> _Supposed:
    common = [e.parameter for e in found.estimates[: found.common]]
    causes, which, odds = [np.zeros(len(common))], [-1], [_TRUE]
    for n, p in enumerate(common):
        often = CAUSES[p.cause].often * (_SELDOM if p.cause in _SELDOM_ALONE else 1.0)
        sides = (1.0,) if p.cause in _ONE_SIDED else (-1.0, 1.0)
        for size in _SIZES:
            for side in sides:
                causes.append(side * size / WEIGHTS.get(p.cause, 1.0) * np.eye(len(common))[n])
                which.append(n)
                odds.append(often / len(sides) / len(_SIZES))
    return _Supposed(np.array(causes), np.array(which), np.log(odds))


def partings(found: Inference, readings: Sequence[Reading], equations: Sequence[Equation]) -> Vector:
    """(readings,): of each of ``readings`` that may be taken, by its equation, the chance that two blocks drawn from what is supposed are unlike
    in what is off and would be told apart by it."""
    taken = [n for n in found.weighed if n not in found.aside]
    rows = [*(found.readings[n] for n in taken), *readings]
    linear = LinearReadings(
        found.model, found.prior, rows, [*(found.equations[n] for n in taken), *equations], range(len(rows))
    )
    hands = Steadiness(tuple(found.factors[s.value] for s in SOURCES), 1.0)  # type: ignore[arg-type]
    covariance, known = linear.base(hands), len(taken)
    supposed = _suppositions(found)
    effects = supposed.causes @ linear.of_causes.T
    left = linear.residual[:known] - effects[:, :known]
    with_taken = covariance[known:, :known]
    # What the readings so far foretell of each new one under each supposition, and how widely.
    pull = np.linalg.solve(covariance[:known, :known], np.column_stack([left.T, with_taken.T]))
    of_left, of_new = pull[:, : len(left)], pull[:, len(left) :]
    chances = supposed.odds - np.einsum("hr,rh->h", left, of_left) / 2
    chances = np.exp(chances - chances.max())
    chances /= chances.sum()
    expected = effects[:, known:] + (with_taken @ of_left).T
    variance = np.diagonal(covariance)[known:] - np.einsum("nr,rn->n", with_taken, of_new)
    apart = 1 - np.exp(-((expected[:, None] - expected) ** 2) / (8 * variance))
    unlike = np.outer(chances, chances) * (supposed.which[:, None] != supposed.which)
    return np.asarray(np.einsum("ij,ijr->r", unlike, apart))
