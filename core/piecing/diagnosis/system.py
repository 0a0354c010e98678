"""The readings as a linear system: what they say beyond what is wanted, what hands and rulers add to them by chance, and everything
that may be wrong and would show in them.

Source: docs/theory, sections 14.3, 14.6 and 14.7.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from math import log

import numpy as np
from numpy.typing import NDArray

from .causes import SOURCES, Cause, Parameter, parameters_of, scatter_of, singles_of, sources_of, touched_by
from .equations import Equation
from .evidence import Candidates
from .mistake import Mistake
from .mistakes import mistakes_of
from .model import BlockModel, Vector
from .priors import DAY, ONE_SEAM, ONE_UNIT, OWN, RULER, SLIPS, SOME_SEAMS, TWO_SETTINGS, Held, Prior, Steadiness
from .reading_kinds import NEEDS_RAW, OF_A_UNIT, OF_ANY_BLOCK, OF_THE_BLOCK, ReadingKind
from .readings import Reading, two_settings

__all__ = ["Candidate", "LinearReadings", "System", "readings_weighed"]

_MOST_ALIKE, _MOST_READINGS = 12, 160


def readings_weighed(readings: Sequence[Reading], equations: Sequence[Equation | None]) -> tuple[int, ...]:
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


@dataclass(frozen=True, slots=True)
class Candidate:
    """One thing that may be wrong, and so shows in the readings: ``column`` (readings,) what an inch of it does to each, ``variance``
    and ``mean`` how large it is when it is so, ``odds`` a logarithm. It is a cause, or reading ``slip`` is a slip of the pen, or the
    piece of reading ``own`` is off by itself, or it is mistake ``mistake``."""

    column: Vector
    variance: float
    odds: float
    mean: float = 0.0
    parameter: Parameter | None = None
    slip: int = -1
    own: int = -1
    mistake: int = -1

    @property
    def of_a_reading(self) -> bool:
        """Whether it speaks of one reading alone, and of nothing that was sewn."""
        return self.parameter is None and self.mistake < 0


class LinearReadings:
    """Readings taken, or that may be, as what causes and single errors make of them, and their covariance while nothing is large.

    ``of_causes`` (readings, causes) and ``touching`` (readings, errors) say what an inch of each does to each reading, the errors being
    those numbered in ``columns``; ``steady`` (readings, readings) is the covariance that hands have no part in. ``used`` numbers those of
    ``readings`` that have an equation.
    """

    def __init__(
        self,
        model: BlockModel,
        prior: Prior,
        readings: Sequence[Reading],
        equations: Sequence[Equation | None],
        used: Sequence[int],
    ) -> None:
        self.model, self.prior, self.readings, self.used = model, prior, tuple(readings), tuple(used)
        self.parameters = parameters_of(model)
        some = [e for n in used if (e := equations[n]) is not None]
        self.some = some
        self.count, self.common = len(some), len(prior.mean)
        self.of_causes = np.array([e.of_causes for e in some]).reshape(self.count, self.common)
        self.of_errors = np.array([e.of_errors for e in some]).reshape(self.count, model.errors)
        self.columns = np.nonzero(self.of_errors.any(axis=0))[0]
        self.touching = self.of_errors[:, self.columns]
        self.loose = np.array([e.loose for e in some]).reshape(self.count, len(SOURCES))
        self.by_chance = self._by_chance()
        small = self.of_causes * prior.small
        self.steady: Vector = self.by_chance + small @ small.T

    @cached_property
    def residual(self) -> Vector:
        """(readings,): inches that each reads beyond what is wanted; says nothing of one that was not taken yet."""
        read = np.array([self.readings[n].read for n in self.used])
        return np.asarray(read - np.array([e.nominal for e in self.some]) - self.of_causes @ self.prior.mean)

    def base(self, hands: Steadiness) -> Vector:
        """Covariance of the readings when nothing is large, by these hands."""
        factors = np.array(hands.factors) ** 2
        variance = scatter_of(self.model)[self.columns] ** 2 * factors[sources_of(self.model)[self.columns]]
        return np.asarray(self.steady + (self.touching * variance) @ self.touching.T + np.diag(self.loose @ factors))

    def _by_chance(self) -> Vector:
        """The ruler's marks, once for each spot; the ruler; days."""
        by_ruler = np.array([e.by_ruler for e in self.some])
        found = np.diag([e.hand for e in self.some]) + RULER**2 * np.outer(by_ruler, by_ruler)
        rows = [self.readings[n] for n in self.used]
        marks = np.sqrt([e.mark for e in self.some])
        pieces = _numbers([r.piece or (str(n),) for n, r in zip(self.used, rows, strict=True)])
        found += np.outer(marks, marks) * (pieces[:, None] == pieces)
        days, apart = _numbers([r.day for r in rows]), np.array([r.apart for r in rows])
        between = DAY**2 if len(set(days)) > 1 else 0.0
        seam = self.of_causes[:, [p.cause for p in self.parameters].index(Cause.SEAM)]
        found += (between + np.outer(apart, apart)) * np.outer(seam, seam) * (days[:, None] == days)
        if two_settings(rows) is not None:
            # Which of them this block was sewn at only its lengths tell.
            dated = seam * [bool(r.day) for r in rows]
            found += TWO_SETTINGS**2 * np.outer(dated, dated) * (days[:, None] == days)
        return np.asarray(found)


class System(LinearReadings):
    """Those readings that were taken."""

    @cached_property
    def mistakes(self) -> tuple[Mistake, ...]:
        """What made at a stroke would show in them."""
        return mistakes_of(self.model, [self.readings[n] for n in self.used], self.some)

    @cached_property
    def silent(self) -> NDArray[np.bool_]:
        """(causes,): of which nothing was read."""
        return np.asarray(np.abs(self.of_causes).max(axis=0, initial=0.0) <= 1e-9)

    @cached_property
    def what(self) -> tuple[Candidate, ...]:
        """Everything that may be wrong and would show in them."""
        return tuple(self._candidates())

    @cached_property
    def candidates(self) -> Candidates:
        """The same in figures, in its order."""
        return Candidates(
            np.array([c.column for c in self.what]).reshape(len(self.what), self.count).T,
            np.array([c.mean for c in self.what]),
            np.array([c.variance for c in self.what]),
            np.array([c.odds for c in self.what]),
        )

    def noise(self, hands: Steadiness, of: frozenset[int]) -> Vector:
        """Covariance of what is neither a cause nor an error, under a set of candidates: rulers, marks, days, slips, loose pieces."""
        covariance = self.by_chance + np.diag(self.loose @ np.array(hands.factors) ** 2)
        for k in of:
            if self.what[k].of_a_reading:
                column = self.what[k].column
                covariance = covariance + self.what[k].variance * np.outer(column, column)
        return np.asarray(covariance)

    def reads(self, p: Parameter) -> Vector:
        """(readings,): what an inch of a single cause does to each reading."""
        touched = touched_by(self.model, p)
        return np.asarray(self.of_errors[:, list(touched)] @ np.array(list(touched.values())))

    def erased_batches(self) -> set[int]:
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

    def _candidates(self) -> Iterator[Candidate]:
        """Every candidate that these readings can speak of."""
        prior = self.prior
        for n, p in enumerate(self.parameters):
            if not self.silent[n]:
                wider = float(prior.large[n] ** 2 - prior.small[n] ** 2)
                yield Candidate(self.of_causes[:, n], wider, float(prior.odds[n]), float(prior.shift[n]), p)
        for p in singles_of(self.model, self.columns):
            column = self.reads(p)
            if np.abs(column).max(initial=0.0) > 1e-9 and self._told_of(p):
                held, among = self._prior_of_single(p)
                yield Candidate(column, held.large**2, _odds(held.often / among), parameter=p)
        for k, n in enumerate(self.used):
            unit = np.zeros(self.count)
            unit[k] = 1.0
            if self.readings[n].confirmed:
                for held in OWN:
                    yield Candidate(unit, held.large**2, _odds(held.often), own=n)
                continue
            for held in SLIPS:
                # Of a strip test two readings are written down.
                yield Candidate(unit, held.large**2, _odds(held.often), slip=n)
        for m, mistake in enumerate(self.mistakes):
            yield Candidate(mistake.change, 0.0, mistake.odds, 1.0, mistake=m)

    def _told_of(self, p: Parameter) -> bool:
        """Some seams are only spoken of once two of them were looked at, or where all of one way are told from all of the other by two
        lengths across each: else they would excuse whatever lengths deny of seams."""
        if p.cause is not Cause.SOME_SEAMS:
            return True
        seams, group = self.model.places.seams, self.model.places.seam_groups[p.place].seams
        names = {seams[n].name for n in group}
        read = {self.readings[n].seam for n in self.used if self.readings[n].kind is ReadingKind.STITCH}
        return len(read & names) > 1 or (
            self._both_ways and sum(s.upright is seams[group[0]].upright for s in seams) == len(group)
        )

    @cached_property
    def _both_ways(self) -> bool:
        """Whether two rows or more were measured, and two columns or more."""
        kinds = [self.readings[n].kind for n in self.used]
        across, down = (ReadingKind.ROW, ReadingKind.BLOCK_WIDTH), (ReadingKind.COLUMN, ReadingKind.BLOCK_HEIGHT)
        return all(sum(k in way for k in kinds) > 1 for way in (across, down))

    def _prior_of_single(self, p: Parameter) -> tuple[Held, int]:
        """What is held of a single cause, and between how many that is shared."""
        if p.cause is Cause.SOME_SEAMS:
            return SOME_SEAMS, len(self.model.places.seam_groups)
        return (ONE_SEAM if p.cause is Cause.ONE_SEAM else ONE_UNIT), 4


def _odds(often: float) -> float:
    return log(often / (1 - often))


def _numbers(names: Sequence[object]) -> NDArray[np.int64]:
    """The same number for the same name."""
    seen: dict[object, int] = {}
    return np.array([seen.setdefault(name, len(seen)) for name in names], dtype=np.int64)
