"""What the readings say: of every cause, of single seams and units, of slips and mistakes, and of the hands themselves.

Source: docs/theory, section 14.7.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from heapq import nsmallest
from math import log, sqrt

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtr

from ..lengths import Length, inches
from ..messages import Message
from .causes import SOURCES, Cause, Parameter, parameters_of, scatter_of, shape_of, singles_of, sources_of, touched_by
from .evidence import Candidates, Weighed, density, search
from .mistakes import Mistake, Seen, headline, mistakes_of, seen_of
from .model import BlockModel, Vector
from .priors import (
    DAY,
    HANDS,
    ONE_SEAM,
    ONE_UNIT,
    OWN,
    RULER,
    SLIPS,
    SOME_SEAMS,
    Held,
    Prior,
    Steadiness,
    after_seeing,
    prior_of,
)
from .readings import (
    NEEDS_RAW,
    OF_A_UNIT,
    OF_ANY_BLOCK,
    OF_THE_BLOCK,
    PLAIN,
    Equation,
    RawSizes,
    Reading,
    ReadingKind,
    equation_of,
)

__all__ = ["NOTHING", "Estimate", "Inference", "Outlier", "Prior", "infer", "prior_of"]

NOTHING = 0.017
"""Inches; a cause smaller than this is the hands' own scatter."""
_MOST_ALIKE, _MOST_READINGS = 12, 160
_MOST_SETS, _DRAWS = 32, 900
_AT_ONCE = 1_000_000
"""How many errors are drawn in one go: a bound on the memory, not on the blocks."""
_UNREAD = 0.5
"""How much less often a cause is large of which nothing was read."""
_MOST_SINGLES, _RARE, _UNLIKELY = 10, 0.01, 7.0
_ASIDE = 0.5
"""Probability from which a reading is set aside."""
_UNMEASURED = 1 / 20
"""Inches either side, nine times in ten, from which nothing is known of a cause."""
_FOLD_TELLS = 1.8
"""A fold is in every seam of every block: half of 1/52 that is not paid for is worth saying."""
_THREAD = 1 / 64
_OF_SEAMS = (ReadingKind.STITCH, ReadingKind.STRIP_TEST, *OF_THE_BLOCK, *OF_ANY_BLOCK)
_WEIGHTS = {
    Cause.START: 0.7,
    Cause.END: 0.7,
    Cause.STRETCH: 0.5,
    Cause.SOME_SEAMS: 0.8,
    Cause.ONE_SEAM: 0.6,
    Cause.ONE_UNIT: 0.6,
}
"""How much of a cause's size counts when it is asked which one leads: what it does to the block beside a seam all along."""


@dataclass(frozen=True, slots=True)
class Outlier:
    """A reading set aside: what the others make of it (inches, with its spread), how far off it is, and a guess at the slip."""

    index: int
    expected: float
    expected_sd: float
    away: float
    probability: float
    said: Message


@dataclass(frozen=True, slots=True)
class Estimate:
    """One cause by the readings alone, as if nothing had been held likely of it: inches beyond what is wanted, and an interval
    that holds its true size nine times in ten. ``large`` is the probability that it is more than scatter."""

    parameter: Parameter
    size: float
    low: float
    high: float
    large: float
    leads: float

    @property
    def measured(self) -> bool:
        """Whether the readings say anything of it."""
        return self.high - self.low < 2 * _UNMEASURED

    @property
    def looked_at(self) -> bool:
        """Whether any reading touches it at all."""
        return self.high - self.low < 2.0

    @property
    def sure_of_side(self) -> bool:
        """Whether the whole 90% interval lies on one side of nothing."""
        return self.low * self.high > 0


@dataclass(frozen=True)
class Inference:
    """``parameters`` are the common causes and then the single seams and units that may be off. ``draws`` (draws, parameters)
    and ``sewn`` (draws, errors) are blocks that these readings leave possible, the unmeasured scatter of every unit and seam
    included; ``leading`` (draws,) numbers the cause that leads in each, -1 where
    none does, and ``sizes`` (draws, parameters) says what each does;
    ``lone`` are readings taken again and found right that differ from the rest: that one piece is off by itself.
    ``looked`` (draws,) whether nothing is large there of which nothing was read. ``block`` (errors,) is their
    mean, ``mean`` (parameters,) that of the causes. ``hands`` weighs every kind of hands. ``weighed`` are the indices of the
    readings used, in their order."""

    model: BlockModel
    prior: Prior
    readings: tuple[Reading, ...]
    equations: tuple[Equation | None, ...]
    weighed: tuple[int, ...]
    parameters: tuple[Parameter, ...]
    estimates: tuple[Estimate, ...]
    mean: Vector
    draws: NDArray[np.float64]
    sewn: NDArray[np.float32]
    leading: NDArray[np.int64]
    sizes: NDArray[np.float64]
    looked: NDArray[np.bool_]
    block: Vector
    fitted: Vector
    odd: tuple[Outlier, ...]
    lone: tuple[Outlier, ...]
    mistake: tuple[Mistake, Message, float] | None
    seen: tuple[Seen, ...]
    hands: tuple[tuple[Steadiness, float], ...]

    @property
    def common(self) -> int:
        """How many parameters are of batches and of all seams; those of single places come after them."""
        return len(parameters_of(self.model))

    @property
    def measured(self) -> bool:
        """Whether any reading was used."""
        return bool(self.weighed)

    @property
    def expected(self) -> bool:
        """Whether what is said of seams, rows and tips rests on records and on what is usual: nothing was read of any of them."""
        return not any(self.readings[n].kind in _OF_SEAMS for n in self.weighed)

    @cached_property
    def off(self) -> Vector:
        """(readings,): inches that each reads beyond its mark; 0 for one that says nothing of sizes."""
        marks = [r.read if e is None else e.nominal for r, e in zip(self.readings, self.equations, strict=True)]
        return np.array([r.read - m for r, m in zip(self.readings, marks, strict=True)], dtype=float)

    @property
    def aside(self) -> frozenset[int]:
        """The numbers of the readings that are set aside."""
        return frozenset(o.index for o in self.odd)

    @cached_property
    def residuals(self) -> Vector:
        """What each reading says beyond what was fitted, in inches, shape (readings,); 0 for one that was not used."""
        return np.array(
            [
                r.read - f if self.equations[n] is not None else 0.0
                for n, (r, f) in enumerate(zip(self.readings, self.fitted, strict=True))
            ]
        )

    @cached_property
    def factors(self) -> dict[str, float]:
        """By source: how much more than steady hands these vary, on the whole."""
        return {s.value: float(np.exp(sum(w * log(h.of(s)) for h, w in self.hands))) for s in SOURCES}

    @cached_property
    def unsteady(self) -> float:
        """Probability that units or seams vary by one and a half times what steady hands do, or more."""
        return float(sum(w for h, w in self.hands if max(h.factors[:3]) >= 1.5))

    def read_off(self, response: Vector) -> Vector:
        """(draws,): what a figure that answers so to the errors, shape (errors,), is in every possible block, beyond true."""
        reached = np.nonzero(response)[0]
        return np.asarray(self.sewn[:, reached].astype(np.float64) @ response[reached])

    def estimate(self, p: Parameter) -> Estimate:
        """The estimate of one parameter. Raises ``ValueError`` for one that the model has not."""
        return self.estimates[self.parameters.index(p)]

    @property
    def nearly_none(self) -> float:
        """Chance that nothing leads, or nothing but a fold of which no more than a thread is not paid for."""
        lost = self.draws[:, 0] - self.prior.offset + (self.draws[:, 3] - self.prior.paid) / 2
        return float(((self.leading < 0) | ((self.leading == 3) & (lost < _THREAD))).mean())

    def chance(self, n: int) -> float:
        """That cause ``n`` leads; -1: that none does."""
        return float((self.leading == n).mean())


def infer(
    model: BlockModel,
    readings: Sequence[Reading],
    prior: Prior | None = None,
    *,
    resolution: Length = inches("1/32"),
    raw: Mapping[int, RawSizes] | None = None,
    rng: np.random.Generator | None = None,
) -> Inference:
    """Everything the readings say; ``rng`` only draws from what they leave open (seeded when not given).

    Raises ``ReadingMisplaced`` for a reading that this block has no place for.
    """
    prior = after_seeing(model, prior or prior_of(model), readings)
    equations = tuple(None if r.kind in PLAIN else equation_of(r, model, resolution, raw) for r in readings)
    weighed = _weighed(readings, equations)
    return _Work(model, prior, tuple(readings), equations, weighed, rng or np.random.default_rng(1852)).answer()


def _weighed(readings: Sequence[Reading], equations: Sequence[Equation | None]) -> tuple[int, ...]:
    """The newest of them, and the newest of those taken alike: more of the same would tell next to nothing and take long."""
    taken: dict[tuple[str, ...], int] = {}
    kept: list[int] = []
    for n in reversed(range(len(readings))):
        if equations[n] is None or len(kept) >= _MOST_READINGS:
            continue
        r = readings[n]
        alike = r.piece or (r.kind.value, r.batch, r.spot, r.corner, r.day)
        taken[alike] = taken.get(alike, 0) + 1
        if taken[alike] <= _MOST_ALIKE:
            kept.append(n)
    return tuple(reversed(kept))


@dataclass(frozen=True)
class _Set:
    """One set of candidates under one kind of hands, with its share of the probability."""

    hands: int
    of: frozenset[int]
    weight: float
    inverse: Vector
    weighed: Vector
    left: Vector


class _Work:
    """The linear system of the readings, and the way to the answer."""

    def __init__(
        self,
        model: BlockModel,
        prior: Prior,
        readings: tuple[Reading, ...],
        equations: tuple[Equation | None, ...],
        weighed: tuple[int, ...],
        rng: np.random.Generator,
    ) -> None:
        self.model, self.prior, self.readings, self.equations = model, prior, readings, equations
        self.used, self.rng = weighed, rng
        some = [e for n in weighed if (e := equations[n]) is not None]
        self.some = some
        self.count, self.common = len(some), len(prior.mean)
        self.of_causes = np.array([e.of_causes for e in some]).reshape(self.count, self.common)
        self.of_errors = np.array([e.of_errors for e in some]).reshape(self.count, model.errors)
        self.columns = np.nonzero(self.of_errors.any(axis=0))[0]
        self.touching = self.of_errors[:, self.columns]
        self.residual = np.array([readings[n].read for n in weighed]) - np.array([e.nominal for e in some])
        self.residual = self.residual - self.of_causes @ prior.mean
        self.mistakes = mistakes_of(model, [readings[n] for n in weighed], some)
        self.steady = self._steady()
        self._collect()

    def _steady(self) -> Vector:
        """Covariance that hands have no part in: the ruler's marks, once for each spot; the ruler; days; small causes."""
        by_ruler = np.array([e.by_ruler for e in self.some])
        steady = np.diag([e.hand for e in self.some]) + RULER**2 * np.outer(by_ruler, by_ruler)
        small = self.of_causes * self.prior.small
        steady += small @ small.T
        pieces = [self.readings[n].piece or (str(n),) for n in self.used]
        days = [self.readings[n].day for n in self.used]
        apart = [self.readings[n].apart for n in self.used]
        between_days = DAY**2 if len(set(days)) > 1 else 0.0
        seam = self.of_causes[:, [p.cause for p in parameters_of(self.model)].index(Cause.SEAM)]
        for a in range(self.count):
            for b in range(self.count):
                if pieces[a] == pieces[b]:
                    steady[a, b] += sqrt(self.some[a].mark * self.some[b].mark)
                if days[a] == days[b]:
                    steady[a, b] += (between_days + apart[a] * apart[b]) * seam[a] * seam[b]
        return np.asarray(steady)

    def _base(self, hands: Steadiness) -> Vector:
        """Covariance of the readings when nothing is large, by these hands."""
        factors = np.array(hands.factors) ** 2
        variance = scatter_of(self.model)[self.columns] ** 2 * factors[sources_of(self.model)[self.columns]]
        loose = np.array([e.loose for e in self.some]).reshape(self.count, len(SOURCES)) @ factors
        return np.asarray(self.steady + (self.touching * variance) @ self.touching.T + np.diag(loose))

    def _collect(self) -> None:
        """Every candidate that these readings can speak of."""
        params = parameters_of(self.model)
        columns: list[Vector] = []
        means: list[float] = []
        variance: list[float] = []
        odds: list[float] = []
        self.candidates_of: list[Parameter | None] = []
        self.slip_of: list[int] = []
        self.own_of: list[int] = []
        self.mistake_of: list[int] = []

        def add(
            column: Vector,
            v: float,
            o: float,
            p: Parameter | None = None,
            slip: int = -1,
            own: int = -1,
            mistake: int = -1,
            mean: float = 0.0,
        ) -> None:
            columns.append(column)
            means.append(mean)
            variance.append(v)
            odds.append(o)
            self.candidates_of.append(p)
            self.slip_of.append(slip)
            self.own_of.append(own)
            self.mistake_of.append(mistake)

        for n, p in enumerate(params):
            if np.abs(self.of_causes[:, n]).max(initial=0.0) > 1e-9:
                wider = float(self.prior.large[n] ** 2 - self.prior.small[n] ** 2)
                add(self.of_causes[:, n], wider, float(self.prior.odds[n]), p, mean=float(self.prior.shift[n]))
        singles = [(p, self._reads(p)) for p in singles_of(self.model, self.columns)]
        singles = [(p, c) for p, c in singles if np.abs(c).max(initial=0.0) > 1e-9 and self._told_of(p)]
        for p, c in singles:
            held, among = self._held(p)
            share = held.often / among
            add(c, held.large**2, log(share / (1 - share)), p)
        for k, n in enumerate(self.used):
            unit = np.zeros(self.count)
            unit[k] = 1.0
            if self.readings[n].confirmed:
                for held in OWN:
                    add(unit, held.large**2, log(held.often / (1 - held.often)), own=n)
                continue
            for held in SLIPS:
                # Of a strip test two readings are written down.
                add(unit, held.large**2, log(held.often / (1 - held.often)), slip=n)
        for m, mistake in enumerate(self.mistakes):
            add(mistake.change, 0.0, mistake.odds, mistake=m, mean=1.0)
        self.candidates = Candidates(
            np.array(columns).reshape(len(columns), self.count).T,
            np.array(means),
            np.array(variance),
            np.array(odds),
        )

    def _told_of(self, p: Parameter) -> bool:
        """Some seams are only spoken of once two of them were looked at: else they would excuse whatever lengths deny of seams."""
        if p.cause is not Cause.SOME_SEAMS:
            return True
        names = {self.model.places.seams[n].name for n in self.model.places.seam_groups[p.place].seams}
        read = {self.readings[n].seam for n in self.used if self.readings[n].kind is ReadingKind.STITCH}
        return len(read & names) > 1

    def _held(self, p: Parameter) -> tuple[Held, int]:
        """What is held of a single cause, and between how many that is shared."""
        if p.cause is Cause.SOME_SEAMS:
            return SOME_SEAMS, len(self.model.places.seam_groups)
        return (ONE_SEAM if p.cause is Cause.ONE_SEAM else ONE_UNIT), 4

    def _reads(self, p: Parameter) -> Vector:
        """(readings,): what an inch of a single cause does to each reading."""
        touched = touched_by(self.model, p)
        return np.asarray(self.of_errors[:, list(touched)] @ np.array(list(touched.values())))

    def answer(self) -> Inference:
        sets = self._sets() if self.count else []
        self.headline = self._headline(sets)
        params = (*parameters_of(self.model), *self._likely_singles(sets))
        draws, sewn, active = self._drawn(sets, params)
        leading, sizes = _leading(self.model, self.prior, params, draws, active, self._erased())
        return Inference(
            self.model,
            self.prior,
            self.readings,
            self.equations,
            self.used,
            params,
            self._estimates(sets, params, sizes, leading),
            draws.mean(axis=0),
            draws,
            sewn,
            leading,
            sizes,
            np.asarray(~(active[:, : self.common] & self._silent()).any(axis=1)),
            np.asarray(sewn.mean(axis=0, dtype=np.float64), dtype=np.float64),
            self._fitted(sets),
            self._aside(sets, self.slip_of, _asked),
            self._aside(sets, self.own_of, _alone),
            self.headline,
            seen_of(self.readings),
            self._hands(sets),
        )

    def _likely_singles(self, sets: Sequence[_Set]) -> list[Parameter]:
        """Single seams and units that stray in some likely set, the likeliest first; the others stay in the scatter."""
        chances: dict[Parameter, float] = {}
        for s in sets:
            for k in s.of:
                p = self.candidates_of[k]
                if p is not None and p.single:
                    chances[p] = chances.get(p, 0.0) + s.weight
        ranked = sorted(chances, key=lambda p: (-chances[p], p.key))
        return [p for n, p in enumerate(ranked) if n < _MOST_SINGLES and chances[p] > _RARE]

    def _sets(self) -> list[_Set]:
        """The likely sets of candidates under every kind of hands, with their probabilities."""
        kinds = self._kinds()
        bases = {h: self._base(HANDS[h]) for h in {0, *kinds}}
        first = search(self.residual, bases[0], self.candidates)
        begin = [of for of, _ in first.ranked(3)]
        best = max(first.score.values()) + log(self.prior.hands[0])
        scored: list[tuple[float, int, int, frozenset[int]]] = []
        for h in kinds:
            found: Weighed = first
            if h:
                top = max(density(self.residual, bases[h], self.candidates, of)[0] for of in begin[:2])
                if top + log(kinds[h]) < best - _UNLIKELY:
                    continue
                found = search(self.residual, bases[h], self.candidates, begin=begin, most=4)
            scored += [(-s - log(kinds[h]), h, n, of) for n, (of, s) in enumerate(found.ranked(_MOST_SETS))]
        scored = nsmallest(_MOST_SETS, scored)
        scored = [x for x in scored if x[0] < scored[0][0] + 7]
        weights = np.exp(scored[0][0] - np.array([x[0] for x in scored]))
        weights /= weights.sum()
        sets = []
        for (_, h, _, of), w in zip(scored, weights, strict=True):
            _, inverse, weighed, left = density(self.residual, bases[h], self.candidates, of)
            sets.append(_Set(h, of, float(w), inverse, weighed, left))
        return sets

    def _kinds(self) -> dict[int, float]:
        """Kinds of hands that would show in these readings, each with how often it and those just like it are met."""
        touched = np.zeros(len(SOURCES), dtype=bool)
        if len(self.columns):
            touched[np.unique(sources_of(self.model)[self.columns])] = True
        touched |= np.array([e.loose for e in self.some]).reshape(self.count, len(SOURCES)).any(axis=0)
        found: dict[tuple[float, ...], int] = {}
        often: dict[int, float] = {}
        for n, h in enumerate(HANDS):
            shown = tuple(f if t else 1.0 for f, t in zip(h.factors, touched, strict=True))
            first = found.setdefault(shown, n)
            often[first] = often.get(first, 0.0) + self.prior.hands[n]
        return often

    def _variances(self, s: _Set) -> tuple[Vector, dict[Parameter, float]]:
        """Prior variance of each common cause under a set, and of each single one in it."""
        params = parameters_of(self.model)
        v = self.prior.small**2
        v = v.copy()
        singles: dict[Parameter, float] = {}
        for k in s.of:
            p = self.candidates_of[k]
            if p is None:
                continue
            if p.single:
                singles[p] = self.candidates.variance[k]
            else:
                v[params.index(p)] = self.prior.large[params.index(p)] ** 2
        return v, singles

    def _silent(self) -> NDArray[np.bool_]:
        """(common causes,): those of which nothing was read."""
        return np.asarray(np.abs(self.of_causes).max(axis=0, initial=0.0) <= 1e-9)

    def _shift(self, s: _Set) -> Vector:
        """What is added to the mean of each common cause that is large under a set."""
        shift, params = np.zeros(self.common), parameters_of(self.model)
        for k in s.of:
            p = self.candidates_of[k]
            if p is not None and not p.single:
                shift[params.index(p)] = self.candidates.mean[k]
        return shift

    def _drawn(
        self, sets: Sequence[_Set], params: Sequence[Parameter]
    ) -> tuple[Vector, NDArray[np.float32], NDArray[np.bool_]]:
        """Causes and errors of blocks that are possible after all, and which of the causes are large in each.

        Each is drawn as if nothing had been read and then moved by what the readings say of the difference (Matheron's
        rule): exact for a joint normal, and the unmeasured keeps its own scatter.
        """
        if not sets:
            return self._before(params)
        counts = _shared(np.array([s.weight for s in sets]), _DRAWS)
        draws, active = np.empty((_DRAWS, len(params))), np.empty((_DRAWS, len(params)), dtype=bool)
        sewn = np.empty((_DRAWS, self.model.errors), dtype=np.float32)
        order, at = np.random.default_rng(int(self.rng.integers(2**32))).permutation(_DRAWS), 0
        some = max(1, _AT_ONCE // self.model.errors)
        for s, count in zip(sets, counts, strict=True):
            for n in (min(some, int(count) - k) for k in range(0, int(count), some)):
                rows = order[at : at + n]
                draws[rows], sewn[rows], active[rows] = self._of_set(s, n, params)
                at += n
        return draws, sewn, active

    def _before(self, params: Sequence[Parameter]) -> tuple[Vector, NDArray[np.float32], NDArray[np.bool_]]:
        n = _DRAWS
        often = 1 / (1 + np.exp(-self.prior.odds))
        active = self.rng.random((n, len(params))) < often
        sd = np.where(active, self.prior.large, self.prior.small)
        draws = self.prior.mean + active * self.prior.shift + self.rng.standard_normal((n, len(params))) * sd
        sewn = self.rng.standard_normal((n, self.model.errors), dtype=np.float32)
        sewn *= scatter_of(self.model).astype(np.float32)
        shape, some = shape_of(self.model).T.astype(np.float32), max(1, _AT_ONCE // self.model.errors)
        for k in range(0, n, some):
            sewn[k : k + some] += draws[k : k + some].astype(np.float32) @ shape
        return draws, sewn, active

    def _of_set(
        self, s: _Set, n: int, params: Sequence[Parameter]
    ) -> tuple[Vector, NDArray[np.float32], NDArray[np.bool_]]:
        v, singles = self._variances(s)
        # What was not read may be a cause all the same, though people measure where something looks wrong.
        silent = self._silent()
        often = _UNREAD / (1 + np.exp(-self.prior.odds))
        large = silent & (self.rng.random((n, self.common)) < often)
        variance = np.where(large, self.prior.large**2, v)
        factors = np.array(HANDS[s.hands].factors)
        sd = scatter_of(self.model) * factors[sources_of(self.model)]
        z = self.rng.standard_normal
        causes = z((n, self.common)) * np.sqrt(variance)
        errors = z((n, self.model.errors), dtype=np.float32)
        errors *= sd.astype(np.float32)
        alone = {p: z(n) * sqrt(x) for p, x in singles.items()}
        columns = {p: self._reads(p) for p in singles}
        noise = self._noise(s)
        read = causes @ self.of_causes.T + errors[:, self.columns] @ self.touching.T + z((n, self.count)) @ noise.T
        for p, x in alone.items():
            read += x[:, None] * columns[p]
        pull = (s.left - read) @ s.inverse
        causes += (pull @ self.of_causes) * variance
        # Only errors that some reading touches are moved by what the readings say.
        errors[:, self.columns] += (pull @ self.touching) * sd[self.columns] ** 2
        found = np.zeros((n, len(params)))
        active = np.zeros((n, len(params)), dtype=bool)
        found[:, : self.common] = self.prior.mean + self._shift(s) + large * self.prior.shift + causes
        for k in s.of:
            m = self.mistake_of[k]
            if m >= 0:
                for number in self.mistakes[m].parameters:
                    found[:, number] += self.mistakes[m].size
                for error, made in self.mistakes[m].errors.items():
                    errors[:, error] += made
        active[:, : self.common] = large
        sewn = errors
        sewn += found[:, : self.common].astype(np.float32) @ shape_of(self.model).T.astype(np.float32)
        for k in s.of:
            named = self.candidates_of[k]
            if named is not None and named in params:
                active[:, params.index(named)] = True
        for single, x in alone.items():
            off = x + (pull @ columns[single]) * singles[single]
            for error, by in touched_by(self.model, single).items():
                sewn[:, error] += off * by
            if single in params:
                found[:, params.index(single)] = off
        return found, sewn, active

    def _noise(self, s: _Set) -> Vector:
        """A root of the covariance of what is neither a cause nor an error: rulers, marks, days, slips, loose pieces."""
        small = self.of_causes * self.prior.small
        covariance = self.steady - small @ small.T
        factors = np.array(HANDS[s.hands].factors) ** 2
        covariance = covariance + np.diag(np.array([e.loose for e in self.some]) @ factors)
        for k in s.of:
            if self.candidates_of[k] is None and self.candidates.variance[k] > 0:
                column = self.candidates.columns[:, k]
                covariance = covariance + self.candidates.variance[k] * np.outer(column, column)
        return np.asarray(np.linalg.cholesky(covariance + np.eye(self.count) * 1e-12))

    def _erased(self) -> set[int]:
        """Batches whose pieces were trimmed or joined since they were cut: what they were cut to no longer matters."""
        joined = any(self.readings[n].kind in (*OF_THE_BLOCK, *OF_ANY_BLOCK) for n in self.used)
        found = set()
        for b in self.model.places.batches:
            for n in self.used:
                r = self.readings[n]
                unit = self.model.places.unit(r.unit) if r.unit else None
                here = r.batch == b.key or (unit is not None and unit.batch == b.number)
                if joined or (here and r.kind in OF_A_UNIT and r.kind not in NEEDS_RAW):
                    found.add(b.number)
        return found

    def _estimates(
        self, sets: Sequence[_Set], params: Sequence[Parameter], sizes: NDArray[np.float64], leading: NDArray[np.int64]
    ) -> tuple[Estimate, ...]:
        """Of each cause by the readings alone: under every set the generalised least squares of it, all else as held likely; of
        the seam with the readings of her records, where there are any."""
        found = []
        for j, p in enumerate(params):
            large, leads = float((sizes[:, j] > NOTHING).mean()), float((leading == j).mean())
            column = self.of_causes[:, j] if j < self.common else self._reads(p)
            nominal = float(self.prior.mean[j]) if j < self.common else 0.0
            if not sets or np.abs(column).max(initial=0.0) <= 1e-9:
                found.append(Estimate(p, nominal - self._wanted(p), -1.0, 1.0, large, leads))
                continue
            centre, spread, weights = [], [], []
            for s in sets:
                v, singles = self._variances(s)
                own = float(v[j]) if j < self.common else singles.get(p, 0.0)
                reach = float(column @ s.inverse @ column)
                shift = float(self._shift(s)[j]) if j < self.common else 0.0
                at = nominal + shift + self._struck(s, j) + float(column @ s.weighed) / reach
                variance = max(1 / reach - own, 1e-8)
                if self.prior.recorded and p.cause is Cause.SEAM:
                    # Her records are readings of the same seam, and say as much as their own spread allows.
                    at = (at * own + (nominal + shift) * variance) / (own + variance)
                    variance = own * variance / (own + variance)
                centre.append(at)
                spread.append(sqrt(variance))
                weights.append(s.weight)
            low, middle, high = _quantiles(np.array(centre), np.array(spread), np.array(weights))
            away = self._wanted(p)
            found.append(Estimate(p, middle - away, low - away, high - away, large, leads))
        return tuple(found)

    def _struck(self, s: _Set, j: int) -> float:
        """What a mistake at a stroke that is in a set adds to common cause ``j``."""
        made = [self.mistakes[m] for k in s.of if (m := self.mistake_of[k]) >= 0]
        return sum(m.size for m in made if j in m.parameters)

    def _wanted(self, p: Parameter) -> float:
        return self.prior.offset if p.cause is Cause.SEAM else self.prior.paid if p.cause is Cause.FOLD else 0.0

    def _fitted(self, sets: Sequence[_Set]) -> Vector:
        """What all that is believed makes of every reading, inches."""
        fitted = np.zeros(len(self.readings))
        if not sets:
            return fitted
        values = np.zeros(self.count)
        for s in sets:
            noise = self._noise(s)
            values += s.weight * (noise @ (noise.T @ s.weighed))
        for k, n in enumerate(self.used):
            fitted[n] = self.readings[n].read - values[k]
        return fitted

    def _aside(
        self, sets: Sequence[_Set], of: Sequence[int], said: Callable[[Reading, float], Message]
    ) -> tuple[Outlier, ...]:
        """Readings that likely are off by themselves: ``of`` says for each candidate of which reading it is, -1 for none."""
        found = []
        for k, n in enumerate(self.used):
            chance = sum(s.weight for s in sets if any(of[c] == n for c in s.of))
            if chance < _ASIDE:
                continue
            expected = variance = 0.0
            for s in sets:
                v = sum(self.candidates.variance[c] for c in s.of if of[c] == n)
                off = float(s.weighed[k] / s.inverse[k, k])
                expected += s.weight * (self.readings[n].read - off)
                variance += s.weight * max(1 / float(s.inverse[k, k]) - v, 1e-8)
            away = self.readings[n].read - expected
            found.append(Outlier(n, expected, sqrt(variance), away, chance, said(self.readings[n], expected)))
        return tuple(found)

    def _headline(self, sets: Sequence[_Set]) -> tuple[Mistake, Message, float] | None:
        chances = [
            sum(s.weight for s in sets if any(self.mistake_of[k] == m for k in s.of)) for m in range(len(self.mistakes))
        ]
        return headline(self.mistakes, chances)

    def _hands(self, sets: Sequence[_Set]) -> tuple[tuple[Steadiness, float], ...]:
        if not sets:
            return tuple(zip(HANDS, self.prior.hands, strict=True))
        found = {h: sum(s.weight for s in sets if s.hands == h) for h in {s.hands for s in sets}}
        return tuple((HANDS[h], w) for h, w in sorted(found.items(), key=lambda x: -x[1]))


def _shared(weights: Vector, total: int) -> NDArray[np.int64]:
    """``total`` shared out by weight, by largest remainders."""
    exact = weights * total
    counts = np.floor(exact).astype(np.int64)
    rest = np.argsort(-(exact - counts))[: total - int(counts.sum())]
    counts[rest] += 1
    return counts


_SHARES = np.array([0.05, 0.5, 0.95])


def _quantiles(centre: Vector, spread: Vector, weights: Vector) -> tuple[float, float, float]:
    """Of a mixture of normals at 5, 50 and 95 in 100, by bisection."""
    low = np.full(3, float((centre - 6 * spread).min()))
    high = np.full(3, float((centre + 6 * spread).max()))
    for _ in range(44):
        middle = (low + high) / 2
        below = ndtr((middle[:, None] - centre) / spread) @ weights < _SHARES
        low, high = np.where(below, middle, low), np.where(below, high, middle)
    first, half, last = (low + high) / 2
    return float(first), float(half), float(last)


def _leading(
    model: BlockModel,
    prior: Prior,
    params: Sequence[Parameter],
    draws: Vector,
    active: NDArray[np.bool_],
    erased: set[int],
) -> tuple[NDArray[np.int64], Vector]:
    """(draws,) the cause that does most in each, -1 where none does anything to speak of; (draws, parameters) what each does,
    in inches of a seam all along."""
    common = parameters_of(model)
    seam, fold = common.index(Parameter(Cause.SEAM)), common.index(Parameter(Cause.FOLD))
    sizes = np.abs(draws)
    sizes[:, len(common) :] *= active[:, len(common) :]
    # What each fabric loses beside what was allowed for: to the stitching, and to a fold that no scant seam pays for. They
    # go together, and the larger of the two answers for both.
    unpaid = (draws[:, fold] - prior.paid) / 2
    stitched = draws[:, seam] - prior.offset
    lost = stitched + unpaid
    folded = (lost > 0) & (unpaid > stitched)
    sizes[:, seam] = np.where(folded, 0.0, np.abs(lost))
    sizes[:, fold] = np.where(folded, _FOLD_TELLS * lost, 0.0)
    for n, p in enumerate(params):
        sizes[:, n] *= _WEIGHTS.get(p.cause, 1.0)
        if p.cause is Cause.CUT and p.batch in erased:
            sizes[:, n] = 0.0
    return np.where(sizes.max(axis=1) > NOTHING, np.argmax(sizes, axis=1), -1), sizes


def _asked(r: Reading, expected: float) -> Message:
    return Message(
        "The other readings make this {wanted}, and it reads {read}{slip} Read it again.",
        wanted=Length.near(expected).round_near(inches("1/32")),
        read=Length.near(r.read),
        slip=_slip(abs(r.read - expected)),
    )


def _alone(r: Reading, expected: float) -> Message:
    return Message(
        "Read again it is still {read}, and the other readings make it {wanted}: this one is off by itself.",
        wanted=Length.near(expected).round_near(inches("1/32")),
        read=Length.near(r.read),
    )


def _slip(off: float) -> str:
    if off > 1.5:
        return ": is a figure mistyped, or two of them turned about?"
    for size, what in (
        (1.0, ": a whole inch apart."),
        (1 / 2, ": half an inch apart, as when a border is counted."),
        (1 / 4, ": a quarter apart, as when 3/8 is written for 5/8."),
        (1 / 8, ": an eighth apart, as when a mark is miscounted."),
    ):
        if abs(off - size) < 1 / 24:
            return what
    return "."
