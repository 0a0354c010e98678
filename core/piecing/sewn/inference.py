"""Causes from readings: linear-Gaussian, with single causes that change the sizes at a stroke weighed as rival models.

The unknowns are the causes and the errors of every unit and seam around them; a reading is one linear equation in both.
Source: docs/theory.md, section 14.7.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations
from math import exp, log, sqrt

import numpy as np
from numpy.typing import NDArray

from ..lengths import Length, inches
from ..oversize import QuilterRecord
from ..wording import Said
from .causes import LEADING, Parameter, SewnCause, parameters_of, scatter_of
from .model import SewnModel, Vector
from .places import batch_name
from .readings import PLAIN, Equation, RawSizes, SewnKind, SewnReading, equation_of

__all__ = ["INTERVAL_90", "Hypothesis", "Inference", "Odd", "Prior", "infer", "prior_of"]

INTERVAL_90 = 1.6448536269514722
_ODD = 3.6
"""Standard deviations, by all other readings, from which a reading is asked about."""
_BELIEVED = 0.75
_ALONE = 1 / 8
"""Inches that a confirmed reading may be off by itself."""
_SEEN_WIDENS = 3.0
_DAY = 1 / 128
"""Between the mean stitching distances of two days at one machine."""
_SET_UP = 1 / 64
"""Between the seam of the record and that of today, once the machine is set up anew."""
_SMALL = 1 / 100
"""Standard deviation in inches of a leading cause that is none: a setting as well as hands set it."""
_LARGE = 0.1
"""How often a leading cause is one."""
_DRAWS = 8000
_SURE_OF_SCATTER = 20.0
"""Readings that the assumed scatter is worth."""


@dataclass(frozen=True)
class Prior:
    """Mean and standard deviation of each parameter, inches; ``small`` that of a leading cause when it is one of those that
    do not matter; ``wanted`` is what each should be."""

    mean: Vector
    sd: Vector
    small: Vector
    wanted: Vector


def prior_of(
    model: SewnModel,
    *,
    stitch: Length | None = None,
    fold: Length | None = None,
    record: QuilterRecord | None = None,
) -> Prior:
    """Before any reading: around the planned stitching distance and the measured or usual fold; or, with a record of enough
    seams, around the quilter's own."""
    params = parameters_of(model)
    mean = np.array([p.prior_mean for p in params])
    sd = np.array([p.prior_sd for p in params])
    wanted = np.zeros(len(params))
    at = {p.cause: n for n, p in enumerate(params) if p.batch < 0}
    seam, folded = at[SewnCause.SEAM], at[SewnCause.FOLD]
    if fold is not None and float(fold) > 0:
        mean[folded] = float(fold)
    wanted[folded] = mean[folded]
    offset = float(stitch - model.allowance) if stitch is not None else 0.0
    mean[seam] = wanted[seam] = offset
    if record is not None and record.readings >= 3:
        mean[seam] = record.take_up_mean - float(model.allowance) - mean[folded] / 2
        sd[seam] = sqrt(record.take_up_sd**2 / record.readings + _SET_UP**2)
    return Prior(mean, sd, np.minimum(sd, _SMALL), wanted)


def _seen(model: SewnModel, prior: Prior, readings: Sequence[SewnReading]) -> Prior:
    """What only the eye saw makes its causes more likely to be large: waves speak of stretch, a bow of seams that drift."""
    kinds = {r.kind for r in readings}
    wider = np.ones(len(prior.sd))
    for n, p in enumerate(parameters_of(model)):
        if SewnKind.WAVY in kinds and p.cause is SewnCause.STRETCH:
            wider[n] = _SEEN_WIDENS
        if SewnKind.BOWED in kinds and p.cause in (SewnCause.START, SewnCause.END):
            wider[n] = _SEEN_WIDENS
    return prior if (wider == 1).all() else Prior(prior.mean, prior.sd * wider, prior.small * wider, prior.wanted)


@dataclass(frozen=True)
class Hypothesis:
    """A single cause that changes everything at a stroke. ``probability`` is among all of them and none."""

    code: str
    said: Said
    why: Said
    probability: float


@dataclass(frozen=True, slots=True)
class Odd:
    """A reading that the others do not bear out: what they make of it, how far off it is, and a guess at the slip."""

    index: int
    expected: float
    expected_sd: float
    away: float
    said: Said


@dataclass(frozen=True)
class Inference:
    """``mean``, ``covariance`` and ``draws`` (draws, parameters) of the parameters; ``narrowed`` is what is left of each one's prior
    spread, were all of them large; ``residuals`` and ``fitted`` for every reading in its order (zero for
    plain ones). ``errors`` is the most likely error of every unit and seam. ``unsteady`` tells by how much readings scatter
    more than assumed (1 when not)."""

    model: SewnModel
    prior: Prior
    readings: tuple[SewnReading, ...]
    equations: tuple[Equation | None, ...]
    mean: Vector
    covariance: NDArray[np.float64]
    draws: NDArray[np.float64]
    narrowed: Vector
    errors: Vector
    fitted: Vector
    residuals: Vector
    odd: tuple[Odd, ...]
    hypotheses: tuple[Hypothesis, ...]
    unsteady: float

    @property
    def parameters(self) -> tuple[Parameter, ...]:
        return parameters_of(self.model)

    @property
    def believed(self) -> Hypothesis | None:
        """The discrete cause that is more likely than all else together."""
        return next((h for h in self.hypotheses if h.code != "none" and h.probability >= _BELIEVED), None)

    def sd(self, n: int) -> float:
        return float(sqrt(max(0.0, self.covariance[n, n])))

    def interval(self, n: int) -> tuple[float, float]:
        """Holds the parameter nine times in ten."""
        low, high = np.quantile(self.draws[:, n], (0.05, 0.95))
        return float(low), float(high)


@dataclass(frozen=True)
class _System:
    """Readings as one linear system; ``columns`` of errors that any of them speaks of."""

    value: Vector
    design: NDArray[np.float64]
    noise: Vector
    start: Vector
    precision: Vector
    columns: NDArray[np.int64]


def _system(
    model: SewnModel, prior: Prior, readings: Sequence[SewnReading], equations: Sequence[Equation], scale: float
) -> _System:
    n, scatter = len(readings), scatter_of(model) * scale
    of_errors = np.array([e.of_errors for e in equations]).reshape(n, model.errors)
    columns = np.nonzero(of_errors.any(axis=0))[0]
    days = sorted({r.day for r in readings})
    seam = next(k for k, p in enumerate(parameters_of(model)) if p.cause is SewnCause.SEAM)
    of_causes = np.array([e.of_causes for e in equations]).reshape(n, len(prior.mean))
    by_day = (
        np.array([[of_causes[k, seam] * (r.day == d) for d in days] for k, r in enumerate(readings)])
        if len(days) > 1
        else np.zeros((n, 0))
    )
    design = np.hstack([of_causes, of_errors[:, columns], by_day])
    precision = np.concatenate([1 / prior.sd**2, 1 / scatter[columns] ** 2, np.full(by_day.shape[1], 1 / _DAY**2)])
    start = np.concatenate([prior.mean, np.zeros(len(columns) + by_day.shape[1])])
    value = np.array([r.read - e.nominal for r, e in zip(readings, equations, strict=True)])
    # Read again and right, yet far from all others: then it is that one piece that is off, and the rest are not judged by it.
    own = np.array([_ALONE**2 if r.confirmed else 0.0 for r in readings])
    noise = np.array([e.noise for e in equations]) * scale**2 + own
    return _System(value - design @ start, design, noise, start, precision, columns)


@dataclass(frozen=True)
class _Solved:
    """``weighed`` is K⁻¹ times the residuals of the prior, ``diagonal`` that of K⁻¹, K the readings' own covariance."""

    update: Vector
    covariance: NDArray[np.float64]
    weighed: Vector
    diagonal: Vector
    system: _System

    def through(self, x: Vector) -> Vector:
        """K⁻¹ x."""
        s = self.system
        y = x / s.noise
        return np.asarray(y - s.design @ (self.covariance @ (s.design.T @ y)) / s.noise)


def _solved(s: _System) -> _Solved:
    weighted = s.design / s.noise[:, None]
    covariance = np.linalg.inv(np.diag(s.precision) + s.design.T @ weighted)
    update = covariance @ (weighted.T @ s.value)
    plain = s.value / s.noise
    weighed = plain - weighted @ (covariance @ (s.design.T @ plain))
    diagonal = 1 / s.noise - ((weighted @ covariance) * weighted).sum(axis=1)
    return _Solved(update, np.asarray(covariance, dtype=np.float64), weighed, np.maximum(diagonal, 1e-12), s)


def infer(
    model: SewnModel,
    readings: Sequence[SewnReading],
    prior: Prior | None = None,
    *,
    resolution: Length = inches("1/32"),
    raw: Mapping[int, RawSizes] | None = None,
    rng: np.random.Generator | None = None,
) -> Inference:
    """What the readings say of every cause; ``rng`` only draws from what they leave open (seeded when not given). Raises ``ReadingMisplaced`` for one that this block has no place for."""
    prior = _seen(model, prior or prior_of(model), readings)
    equations = tuple(None if r.kind in PLAIN else equation_of(r, model, resolution, raw) for r in readings)
    numbers = [n for n, e in enumerate(equations) if e is not None]
    rivals = _rivals(model, readings, equations)
    _, odd, chosen, weights, solved, scale = _weighed(model, prior, readings, equations, numbers, rivals)
    width = len(prior.mean)
    fitted = np.zeros(len(readings))
    errors = np.zeros(model.errors)
    wide, spread = prior.mean, np.diag(prior.sd**2)
    if solved is not None:
        state = solved.system.start + solved.update
        wide, spread = state[:width], solved.covariance[:width, :width]
    mean, covariance, draws = _Mixture(model, prior, spread).answer(wide, rng or np.random.default_rng(1852))
    if solved is not None:
        count = len(solved.system.columns)
        cross = solved.covariance[width : width + count, :width]
        errors[solved.system.columns] = state[width : width + count] + cross @ np.linalg.solve(spread, mean - wide)
    for n in numbers:
        e = equations[n]
        assert e is not None
        fitted[n] = e.nominal + float(e.of_causes @ mean + e.of_errors @ errors) + float(chosen[n])
    for r in rivals:
        if r.change is chosen and r.parameter >= 0:
            # What was done at a stroke is as true of the block as what grew by degrees.
            mean, draws = mean.copy(), draws.copy()
            mean[r.parameter] += r.by
            draws[:, r.parameter] += r.by
    residuals = np.array([r.read - fitted[n] if equations[n] is not None else 0.0 for n, r in enumerate(readings)])
    return Inference(
        model,
        prior,
        tuple(readings),
        equations,
        mean,
        (covariance + covariance.T) / 2,
        draws,
        np.sqrt(np.maximum(np.diagonal(spread), 0.0)) / prior.sd,
        errors,
        fitted,
        residuals,
        tuple(sorted(odd, key=lambda o: o.index)),
        weights,
        scale,
    )


class _Mixture:
    """Each leading cause is most often small and now and then large: every choice of large ones is a linear model of its own.

    ``spread`` is the covariance of the answer with all of them large. What the readings alone say of the parameters is that
    answer without its prior. None of it depends on what was read, but for ``pull``.
    """

    def __init__(self, model: SewnModel, prior: Prior, spread: NDArray[np.float64]) -> None:
        params = parameters_of(model)
        self.prior, self.count = prior, len(params)
        contenders = [n for n, p in enumerate(params) if p.cause in LEADING]
        self._precision = np.linalg.inv(spread)
        said = self._precision - np.diag(1 / prior.sd**2)
        most = 3 if len(contenders) <= 6 else 2
        choices = [c for k in range(most + 1) for c in combinations(contenders, k)]
        # The last one has all of them large: what the rivals are first weighed by, and no part of the mixture.
        inverse = np.tile(1 / prior.sd**2, (len(choices) + 1, 1))
        odds = np.full(len(choices) + 1, -np.inf)
        for k, large in enumerate(choices):
            inverse[k, contenders] = 1 / prior.small[contenders] ** 2
            inverse[k, list(large)] = 1 / prior.sd[list(large)] ** 2
            odds[k] = len(large) * log(_LARGE) + (len(contenders) - len(large)) * log(1 - _LARGE)
        self._inverse, self._odds = inverse, odds
        self._total = said[None] + np.einsum("kp,pq->kpq", inverse, np.eye(self.count))
        self.covariances = np.linalg.inv(self._total)
        self._volume = (np.log(inverse).sum(axis=1) - np.linalg.slogdet(self._total)[1]) / 2

    def means(self, wide: Vector) -> NDArray[np.float64]:
        """(choices, parameters) when the answer with all large is ``wide``."""
        pull = self._precision @ wide - self.prior.mean / self.prior.sd**2
        return np.asarray(np.einsum("kpq,kq->kp", self.covariances, pull[None] + self._inverse * self.prior.mean))

    def evidence(self, means: NDArray[np.float64]) -> Vector:
        """Logarithm of each choice's evidence, all beyond a figure that is common to them; the last one without its odds."""
        fit = np.einsum("kp,kpq,kq->k", means, self._total, means) - (self._inverse * self.prior.mean**2).sum(axis=1)
        return np.asarray(self._volume + fit / 2)

    def excess(self, wide: Vector) -> float:
        """By how much the mixture explains readings better than all large do, as a logarithm."""
        found = self.evidence(self.means(wide))
        return float(np.logaddexp.reduce(found[:-1] + self._odds[:-1]) - found[-1])

    def answer(self, wide: Vector, rng: np.random.Generator) -> tuple[Vector, NDArray[np.float64], NDArray[np.float64]]:
        """Mean, covariance and draws."""
        means = self.means(wide)
        evidence = self.evidence(means) + self._odds
        weights = np.exp(evidence - evidence.max())
        weights /= weights.sum()
        mean = weights @ means
        apart = means - mean
        covariance = np.einsum("k,kpq->pq", weights, self.covariances)
        covariance += np.einsum("k,kp,kq->pq", weights, apart, apart)
        counts = rng.multinomial(_DRAWS, weights)
        parts = []
        for k in map(int, np.nonzero(counts)[0]):
            root = np.linalg.cholesky(self.covariances[k] + np.eye(self.count) * 1e-14)
            parts.append(means[k] + rng.standard_normal((counts[k], self.count)) @ root.T)
        return mean, covariance, rng.permutation(np.concatenate(parts))


@dataclass(frozen=True)
class _Rival:
    """A discrete cause as a change of the readings: ``change`` (readings,), and log prior odds against none.

    ``parameter`` and ``by`` say what it is of the block itself; -1 when only the readings are wrong.
    """

    code: str
    said: Said
    why: Said
    change: Vector
    odds: float
    parameter: int = -1
    by: float = 0.0


def _rivals(model: SewnModel, readings: Sequence[SewnReading], equations: Sequence[Equation | None]) -> list[_Rival]:
    both = 2 * float(model.allowance)
    found: list[_Rival] = []
    trims = [(n, p.batch) for n, p in enumerate(parameters_of(model)) if p.cause is SewnCause.TRIM]

    def add(code: str, said: Said, why: Said, of: Vector, prior: float, parameter: int = -1, by: float = 0.0) -> None:
        if np.abs(of).max(initial=0.0) > 0:
            found.append(_Rival(code, said, why, of, log(prior), parameter, by))

    for n, batch in trims:
        name = batch_name(model.places, batch)
        of = np.array([0.0 if e is None else e.of_causes[n] for e in equations])
        for by, how in ((-both, "small"), (both, "large")):
            add(
                f"finished_for_unfinished:{batch}:{how}",
                Said(
                    f"{name} trimmed {{size}} too {how}: finished and unfinished size mixed up", size=Length.near(both)
                ),
                Said("The error is exactly two seam allowances, on every one of them."),
                of * by,
                0.01,
                n,
                by,
            )
        for by in (1 / 8, 1 / 4):
            for sign, how in ((-1, "small"), (1, "large")):
                if abs(by - both) > 1e-9:
                    add(
                        f"wrong_mark:{batch}:{sign * by:+.3f}",
                        Said(f"{name} trimmed to the wrong mark, {{size}} too {how}", size=Length.near(by)),
                        Said("The error is a whole step between marks, on every one of them."),
                        of * sign * by,
                        0.004,
                        n,
                        sign * by,
                    )
    direct = np.array([float(_by_ruler(r)) for r in readings])
    for border in (1 / 2, 1 / 4):
        for sign, how in ((1, "long"), (-1, "short")):
            add(
                f"ruler_border:{sign * border:+.2f}",
                Said(f"Everything reads {{size}} too {how}: the ruler's border was counted", size=Length.near(border)),
                Said("The error is the same on a unit as on a whole row, which no cutting or sewing does."),
                direct * sign * border,
                0.006,
            )
    return found


def _by_ruler(r: SewnReading) -> bool:
    return r.kind in (
        SewnKind.CUT,
        SewnKind.WIDTH,
        SewnKind.HEIGHT,
        SewnKind.RAW_WIDTH,
        SewnKind.RAW_HEIGHT,
        SewnKind.ROW,
        SewnKind.COLUMN,
    )


def _weighed(
    model: SewnModel,
    prior: Prior,
    readings: Sequence[SewnReading],
    equations: Sequence[Equation | None],
    numbers: list[int],
    rivals: list[_Rival],
) -> tuple[list[int], list[Odd], Vector, tuple[Hypothesis, ...], _Solved | None, float]:
    """Readings kept, those asked about, the change of the discrete cause believed, all of these weighed, and the solution."""
    none = np.zeros(len(readings))
    plain = _plain(readings)
    if not numbers:
        return [], [], none, _hypotheses(rivals, [], plain), None, 1.0
    kept, scale = list(numbers), 1.0
    solved, gains = _solve(model, prior, readings, equations, kept, rivals, none, scale)
    best = max(range(len(rivals)), key=lambda k: gains[k] + rivals[k].odds, default=None)
    change = none
    if best is not None and gains[best] + rivals[best].odds > log(_BELIEVED / (1 - _BELIEVED)):
        change = rivals[best].change
    odd: list[Odd] = []
    most = len(kept) // 3
    while True:
        solved, gains = _solve(model, prior, readings, equations, kept, rivals, change, scale)
        away = solved.weighed / np.sqrt(solved.diagonal)
        doubtful = [k for k in np.argsort(-np.abs(away)) if not readings[kept[k]].confirmed and abs(away[k]) > _ODD]
        if not doubtful or len(odd) >= most:
            break
        k = int(doubtful[0])
        n = kept.pop(k)
        off = float(solved.weighed[k] / solved.diagonal[k])
        odd.append(_asked(readings[n], n, off, float(1 / sqrt(solved.diagonal[k])), float(away[k])))
    if odd and change is none:
        # What looked like several odd readings may be one cause, and the other way round: weighed again without them.
        best = max(range(len(rivals)), key=lambda k: gains[k] + rivals[k].odds, default=None)
        if best is not None and gains[best] + rivals[best].odds > log(_BELIEVED / (1 - _BELIEVED)):
            change = rivals[best].change
            solved, _ = _solve(model, prior, readings, equations, kept, rivals, change, scale)
    spread = float(solved.system.value @ solved.weighed)
    scale = sqrt((_SURE_OF_SCATTER + spread) / (_SURE_OF_SCATTER + len(kept)))
    if scale > 1.1:
        solved, _ = _solve(model, prior, readings, equations, kept, rivals, change, scale)
    else:
        scale = 1.0
    _, gains = _solve(model, prior, readings, equations, kept, rivals, none, scale)
    return kept, odd, change, _hypotheses(rivals, gains, plain), solved, scale


def _solve(
    model: SewnModel,
    prior: Prior,
    readings: Sequence[SewnReading],
    equations: Sequence[Equation | None],
    kept: list[int],
    rivals: list[_Rival],
    change: Vector,
    scale: float,
) -> tuple[_Solved, list[float]]:
    """The solution with a discrete change taken off, and for each rival the logarithm of its evidence against none."""
    some = [equations[n] for n in kept]
    system = _system(model, prior, [readings[n] for n in kept], [e for e in some if e is not None], scale)
    shifted = _System(
        system.value - change[kept], system.design, system.noise, system.start, system.precision, system.columns
    )
    solved = _solved(shifted)
    width = len(prior.mean)
    mixture = _Mixture(model, prior, solved.covariance[:width, :width])
    answer = (shifted.start + solved.update)[:width]
    base = mixture.excess(answer)
    gains = []
    for r in rivals:
        d = (r.change - change)[kept]
        if not d.any():
            gains.append(0.0)
            continue
        by_all_large = float(d @ solved.weighed - d @ solved.through(d) / 2)
        moved = (solved.covariance @ (shifted.design.T @ (d / shifted.noise)))[:width]
        gains.append(by_all_large + mixture.excess(answer - moved) - base)
    return solved, gains


def _asked(r: SewnReading, index: int, off: float, sd: float, away: float) -> Odd:
    slip = _slip(abs(off))
    wanted = Length.near(r.read - off).round_near(inches("1/32"))
    said = Said(
        "The other readings make this {wanted}, and it reads {read}" + slip + " Read it again.",
        wanted=wanted,
        read=Length.near(r.read),
    )
    return Odd(index, r.read - off, sd, away, said)


def _slip(off: float) -> str:
    for size, what in (
        (1.0, ": a whole inch apart."),
        (1 / 2, ": half an inch apart, as when a border is counted."),
        (1 / 4, ": a quarter apart, as when 3/8 is written for 5/8."),
        (1 / 8, ": an eighth apart, as when a mark is miscounted."),
    ):
        if abs(off - size) < 1 / 24:
            return what
    return "."


def _plain(readings: Sequence[SewnReading]) -> dict[str, float]:
    """Discrete causes that only the eye finds, with their odds against none after what was seen."""
    seen = {r.kind for r in readings if r.kind in PLAIN}
    odds: dict[str, float] = {}
    if SewnKind.RIGHT_WHEN_TURNED in seen:
        # Seen right once turned: no mirror image can be.
        odds["turned_unit"], odds["wrong_hand"] = 40.0, 0.4
    elif SewnKind.PICTURE_WRONG in seen:
        odds["turned_unit"], odds["wrong_hand"] = 10.0, 8.0
    if SewnKind.BOWED in seen:
        odds["joined_in_turn"] = 6.0
    if SewnKind.FRAYED in seen:
        odds["blade"] = 6.0
    if SewnKind.SHADOW in seen:
        odds["pressed_to_light"] = 6.0
    return odds


_PLAIN_SAID = {
    "turned_unit": (
        "A unit lies turned",
        "The picture is wrong though sizes can be right; turning a unit puts it right.",
    ),
    "wrong_hand": (
        "A unit of the wrong hand",
        "The picture is wrong, and no turn puts it right: it is a mirror image.",
    ),
    "joined_in_turn": ("Rows joined one after another", "A row's two edges differ in length: it bows."),
    "pressed_to_light": (
        "Pressed to the light side",
        "The dark allowance lies under the light cloth. Press it to the dark, or trim the dark allowance a thread shorter.",
    ),
    "blade": ("A dull or nicked blade", "Edges fray and readings scatter rather than shift."),
}


def _hypotheses(rivals: list[_Rival], gains: Sequence[float], plain: Mapping[str, float]) -> tuple[Hypothesis, ...]:
    weights: list[tuple[str, Said, Said, float]] = [
        ("none", Said("None of these"), Said("The causes that grow by degrees explain the readings."), 0.0)
    ]
    weights += [(r.code, r.said, r.why, g + r.odds) for r, g in zip(rivals, gains, strict=False)]
    highest = max(w for *_, w in weights)
    total = sum(exp(w - highest) for *_, w in weights)
    found = [Hypothesis(c, s, y, exp(w - highest) / total) for c, s, y, w in weights]
    found = [h for h in found if h.code == "none" or h.probability > 0.005]
    # What only the eye finds has nothing to do with sizes, and is weighed by itself.
    among = sum(plain.values()) + 1.0
    for code, odds in plain.items():
        said, why = _PLAIN_SAID[code]
        found.append(Hypothesis(code, Said(said), Said(why), odds / among))
    return tuple(sorted(found, key=lambda h: -h.probability))
