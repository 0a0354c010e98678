"""From estimates to a judgement: what makes the row short, how sure that is, what would settle it.

Source: docs/theory.md, section 9.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from math import erf, sqrt

import numpy as np

from ..lengths import Length, inches
from ..planning import UnitPlan
from ..wording import Said
from .inference import INTERVAL_90, Posterior
from .model import CAUSES, Cause, Observation, observe, row_response
from .readings import Reading, ReadingKind

__all__ = ["EASED", "SETTLED", "Contribution", "NextReading", "Status", "Verdict", "judge", "sure_in_words"]

SETTLED = 0.75
"""Probability from which a cause is named."""
EASED = 1 / 16
"""Inches that pins ease in over a row; below this nothing needs mending."""
_DRAWS = 4000
_NONE = 1 / 128


class Status(StrEnum):
    NO_READINGS = "no_readings"
    TRUE = "true"
    SETTLED = "settled"
    SEVERAL = "several"
    UNSETTLED = "unsettled"


@dataclass(frozen=True, slots=True)
class Contribution:
    """What one cause adds to the row's length, in inches, with its 90% interval and its share of the whole."""

    cause: Cause
    mean: float
    low: float
    high: float
    share: float | None
    leads: float


@dataclass(frozen=True, slots=True)
class NextReading:
    """The reading that would narrow the doubt between two causes most."""

    kind: ReadingKind
    said: Said
    between: tuple[Cause, Cause]
    doubt_now: float
    doubt_after: float


@dataclass(frozen=True, slots=True)
class Verdict:
    """``observed`` is the measured row deviation (None when no row was measured), ``expected`` the causes' sum.

    ``leading`` is the cause named, ``beside`` a second one that is as certain and pulls the same way (``SEVERAL``:
    both are sure, which does more is not). In a row that comes out ``TRUE``, ``leading`` is one that others cancel.
    """

    status: Status
    row_units: int
    expected: float
    expected_sd: float
    observed: float | None
    contributions: tuple[Contribution, ...]
    leading: Cause | None
    beside: Cause | None
    sure: float
    next_reading: NextReading | None

    @property
    def deviation(self) -> float:
        """Row length minus target, inches: as measured, else as the causes add up."""
        return self.expected if self.observed is None else self.observed

    @property
    def said(self) -> Said:
        """The row's deviation with its sign in words; below half a hair it counts as none."""
        if abs(self.deviation) < _NONE:
            return Said("as it should be")
        return Said("{size} short" if self.deviation < 0 else "{size} long", size=Length.near(abs(self.deviation)))

    @property
    def reach(self) -> float:
        """Inches either side of zero that hold every contribution's interval: half the width of a picture of them."""
        ends = [abs(x) for c in self.contributions for x in (c.low, c.high)]
        return max([*ends, abs(self.deviation), EASED]) * 1.05

    @property
    def unexplained(self) -> float | None:
        return None if self.observed is None else self.observed - self.expected


def sure_in_words(probability: float) -> str:
    """One scale of words for every probability shown."""
    for floor, words in ((0.95, "almost certainly"), (0.8, "very likely"), (0.6, "probably")):
        if probability >= floor:
            return words
    return "perhaps"


def judge(
    plan: UnitPlan,
    observations: Sequence[Observation],
    posterior: Posterior,
    resolution: Length,
    rng: np.random.Generator,
) -> Verdict:
    """Weigh the causes on a row: the longest one measured, else one of four units."""
    rows = [o for o in observations if o.reading.kind is ReadingKind.ROW_LENGTH]
    units = max((o.reading.row_units or 0 for o in rows), default=4)
    measured = [o.value - o.nominal for o in rows if o.reading.row_units == units]
    observed = float(np.mean(measured)) if measured else None
    response = row_response(units)
    mean, sd = posterior.along(response)
    leads = _leads(posterior, response, mean if observed is None else observed, rng)
    contributions = _contributions(posterior, response, leads)
    ranked = sorted(contributions, key=lambda c: -c.leads)
    within = _probability_between(-EASED, EASED, mean, sd)
    if not observations:
        status = Status.NO_READINGS
    elif within >= SETTLED and (observed is None or abs(observed) <= EASED):
        status = Status.TRUE
    elif ranked[0].leads >= SETTLED:
        status = Status.SETTLED
    else:
        status = Status.SEVERAL if all(_surely_pulls(c, observed or mean) for c in ranked[:2]) else Status.UNSETTLED
    first, second = ranked[0].cause, ranked[1].cause
    leading = {Status.SETTLED: first, Status.SEVERAL: first, Status.TRUE: _cancelled(contributions)}.get(status)
    beside = {Status.SEVERAL: second}.get(status)
    wanting = status in (Status.UNSETTLED, Status.NO_READINGS)
    return Verdict(
        status,
        units,
        mean,
        sd,
        observed,
        contributions,
        leading,
        beside,
        ranked[0].leads if status is not Status.TRUE else within,
        _next_reading(plan, posterior, response, (first, second), resolution, units) if wanting else None,
    )


def _probability_between(low: float, high: float, mean: float, sd: float) -> float:
    def below(x: float) -> float:
        return 0.5 * (1 + erf((x - mean) / (sd * sqrt(2))))

    return below(high) - below(low)


def _leads(
    posterior: Posterior, response: np.ndarray, deviation: float, rng: np.random.Generator
) -> dict[Cause, float]:
    """Probability that each cause is the largest one pulling the way the row went."""
    draws = rng.multivariate_normal(posterior.mean, posterior.covariance, _DRAWS, method="cholesky")
    pulls = draws * response * (1.0 if deviation >= 0 else -1.0)
    winners = np.bincount(np.argmax(pulls[:, :3], axis=1), minlength=len(CAUSES)) / _DRAWS
    return {c: float(winners[i]) for i, c in enumerate(CAUSES)}


def _surely_pulls(c: Contribution, deviation: float) -> bool:
    """Whether even the near end of its interval pulls the way the row went."""
    return c.low > 0 if deviation >= 0 else c.high < 0


def _cancelled(contributions: tuple[Contribution, ...]) -> Cause | None:
    """The largest cause in a true row, if even its interval's near end is more than pins ease in."""
    largest = max(contributions, key=lambda c: abs(c.mean))
    near_end = min(abs(largest.low), abs(largest.high))
    return largest.cause if largest.low * largest.high > 0 and near_end > EASED / 2 else None


def _contributions(posterior: Posterior, response: np.ndarray, leads: dict[Cause, float]) -> tuple[Contribution, ...]:
    total = float(response @ posterior.mean)
    out = []
    for i, estimate in enumerate(posterior.estimates()):
        if not response[i]:
            continue
        mean, reach = float(response[i]) * estimate.mean, INTERVAL_90 * abs(float(response[i])) * estimate.sd
        share = mean / total if abs(total) > EASED / 4 else None
        out.append(Contribution(estimate.cause, mean, mean - reach, mean + reach, share, leads[estimate.cause]))
    return tuple(out)


_HOW = {
    ReadingKind.UNIT_WIDTH: Said("Measure one more trimmed unit across, raw edge to raw edge, before it is joined."),
    ReadingKind.STITCH_DISTANCE: Said("Turn the work over and measure from raw edge to stitching on one more seam."),
    ReadingKind.ROW_LENGTH: Said("Measure one joined row, pressed and lying flat, raw edge to raw edge."),
    ReadingKind.STRIP_TEST: Said(
        "Sew three strips of one width side by side, press, and measure the middle one and the whole."
    ),
}


def _next_reading(
    plan: UnitPlan,
    posterior: Posterior,
    response: np.ndarray,
    between: tuple[Cause, Cause],
    resolution: Length,
    units: int,
) -> NextReading:
    contrast = np.zeros(len(CAUSES))
    contrast[CAUSES.index(between[0])] = response[CAUSES.index(between[0])]
    contrast[CAUSES.index(between[1])] = -response[CAUSES.index(between[1])]
    now = posterior.along(contrast)[1]
    after = {}
    for kind in _HOW:
        equation = observe(_blank(kind, plan, units), plan, resolution)
        after[kind] = sqrt(posterior.variance_after(contrast, equation.response, equation.noise))
    best = min(after, key=lambda kind: after[kind])
    return NextReading(best, _HOW[best], between, now, after[best])


def _blank(kind: ReadingKind, plan: UnitPlan, units: int) -> Reading:
    """A reading of this kind at a harmless value: only its equation is wanted."""
    if kind is ReadingKind.STRIP_TEST:
        return Reading(kind, inches(1), whole=inches("7/2"))
    return Reading(kind, plan.target_width, row_units=units if kind is ReadingKind.ROW_LENGTH else None)
