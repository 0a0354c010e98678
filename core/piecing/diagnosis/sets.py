"""The likely sets of things that went wrong, by every kind of hands that would show in the readings.

Source: docs/theory, section 14.7.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from heapq import nsmallest
from math import log

import numpy as np

from .causes import SOURCES, Parameter, sources_of
from .evidence import Background, Weighed, search
from .model import Vector
from .priors import HANDS, Steadiness
from .system import System

__all__ = ["LikelySet", "hands_of", "likely_sets", "likely_singles"]

_MOST_SETS = 32
_MOST_SINGLES, _RARE, _UNLIKELY = 10, 0.01, 7.0


@dataclass(frozen=True)
class LikelySet:
    """One set of candidates, by their numbers, under kind ``hands`` of hands, with its share of the probability.

    ``inverse`` (readings, readings) is the inverse covariance of the readings under it, ``left`` (readings,) what is left of them and
    ``weighed`` the one times the other; ``noise`` (readings, readings) is the covariance of what is neither a cause nor an error under
    it. ``variance`` (common causes,) is that of each before any reading, ``singles`` that of each
    single seam or unit in it; ``shift`` (common causes,) is added to the mean of each, and ``struck`` what mistakes at a stroke add.
    """

    hands: int
    of: frozenset[int]
    weight: float
    inverse: Vector
    weighed: Vector
    left: Vector
    noise: Vector
    variance: Vector
    singles: dict[Parameter, float]
    shift: Vector
    struck: Vector


def likely_sets(system: System) -> list[LikelySet]:
    """Each with its probability, the likeliest first; none where nothing was read."""
    if not system.count:
        return []
    kinds, hands = _kinds(system), system.prior.hands
    by = {h: Background(system.residual, system.base(HANDS[h]), system.candidates) for h in {0, *kinds}}
    first = search(by[0])
    begin = [of for of, _ in first.likeliest(3)]
    best = max(first.score.values()) + log(hands[0])
    scored: list[tuple[float, int, int, frozenset[int]]] = []
    for h in kinds:
        found: Weighed = first
        if h:
            top = max(by[h].score(of) for of in begin[:2])
            if top + log(kinds[h]) < best - _UNLIKELY:
                continue
            found = search(by[h], begin=begin, most=4)
        scored += [(-s - log(kinds[h]), h, n, of) for n, (of, s) in enumerate(found.likeliest(_MOST_SETS))]
    scored = nsmallest(_MOST_SETS, scored)
    scored = [x for x in scored if x[0] < scored[0][0] + 7]
    weights = np.exp(scored[0][0] - np.array([x[0] for x in scored]))
    weights /= weights.sum()
    return [_likely(system, by[h], h, of, float(w)) for (_, h, _, of), w in zip(scored, weights, strict=True)]


def likely_singles(sets: Sequence[LikelySet]) -> list[Parameter]:
    """Single seams and units that stray in some likely set, the likeliest first; the others stay in the scatter."""
    chances: dict[Parameter, float] = {}
    for s in sets:
        for p in s.singles:
            chances[p] = chances.get(p, 0.0) + s.weight
    ranked = sorted(chances, key=lambda p: (-chances[p], p.key))
    return [p for n, p in enumerate(ranked) if n < _MOST_SINGLES and chances[p] > _RARE]


def hands_of(system: System, sets: Sequence[LikelySet]) -> tuple[tuple[Steadiness, float], ...]:
    """Every kind of hands with its probability, the likeliest first."""
    if not sets:
        return tuple(zip(HANDS, system.prior.hands, strict=True))
    found = {h: sum(s.weight for s in sets if s.hands == h) for h in {s.hands for s in sets}}
    return tuple((HANDS[h], w) for h, w in sorted(found.items(), key=lambda x: -x[1]))


def _kinds(system: System) -> dict[int, float]:
    """Kinds of hands that would show in these readings, each with how often it and those just like it are met."""
    touched = np.zeros(len(SOURCES), dtype=bool)
    if len(system.columns):
        touched[np.unique(sources_of(system.model)[system.columns])] = True
    touched |= system.loose.any(axis=0)
    found: dict[tuple[float, ...], int] = {}
    often: dict[int, float] = {}
    for n, h in enumerate(HANDS):
        shown = tuple(f if t else 1.0 for f, t in zip(h.factors, touched, strict=True))
        first = found.setdefault(shown, n)
        often[first] = often.get(first, 0.0) + system.prior.hands[n]
    return often


def _likely(system: System, background: Background, hands: int, of: frozenset[int], weight: float) -> LikelySet:
    variance, shift, struck = system.prior.small**2, np.zeros(system.common), np.zeros(system.common)
    singles: dict[Parameter, float] = {}
    for k in of:
        c = system.what[k]
        if c.mistake >= 0:
            made = system.mistakes[c.mistake]
            for j in made.parameters:
                struck[j] += made.size
        elif c.parameter is not None and c.parameter.single:
            singles[c.parameter] = c.variance
        elif c.parameter is not None:
            j = system.parameters.index(c.parameter)
            variance[j] = system.prior.large[j] ** 2
            shift[j] = c.mean
    noise = system.noise(HANDS[hands], of)
    return LikelySet(hands, of, weight, *background.under(of), noise, variance, singles, shift, struck)
