"""From readings to causes, how sure, and what to do."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ..lengths import Length, inches
from ..oversize import QuilterRecord
from ..planning import Choices, UnitPlan
from ..planning import plan as bare_plan
from ..units import UnitSpec
from .explain import Finding, findings
from .inference import Estimate, Posterior, infer
from .mending import Advice, for_the_rest, for_this_row
from .model import CAUSES, CUT_SCATTER, SEAM_SCATTER, Cause, Observation, observe, prior_for
from .readings import Comparison, Reading, ReadingKind, compare
from .verdict import Contribution, NextReading, Status, Verdict, judge, sure_in_words

__all__ = [
    "Advice",
    "Cause",
    "Comparison",
    "Contribution",
    "Diagnosis",
    "Estimate",
    "Evidence",
    "Finding",
    "NextReading",
    "Reading",
    "ReadingKind",
    "Status",
    "Verdict",
    "compare",
    "diagnose",
    "record_from",
    "sure_in_words",
]

_APART = 3.0
"""Standard deviations from which a reading is asked about."""
_FEWEST_FOR_RECORD = 3


@dataclass(frozen=True, slots=True)
class Evidence:
    """One reading, what each cause alone would make of it, what all of them do, and what is left (inches)."""

    reading: Reading
    value: float
    nominal: float
    alone: tuple[tuple[Cause, float], ...]
    together: float
    apart: bool

    @property
    def left_over(self) -> float:
        return self.value - self.together


@dataclass(frozen=True, slots=True)
class Diagnosis:
    findings: tuple[Finding, ...]
    verdict: Verdict
    evidence: tuple[Evidence, ...]
    this_row: tuple[Advice, ...]
    the_rest: tuple[Advice, ...]


def diagnose(
    plan: UnitPlan,
    readings: Sequence[Reading],
    *,
    resolution: Length = inches("1/32"),
    rng: np.random.Generator | None = None,
) -> Diagnosis:
    """Estimate the causes from any set of readings of one unit kind, judge them, and say what to do.

    ``resolution`` is the ruler's finest mark; ``rng`` only weighs which cause leads (seeded when not given,
    so that the same readings give the same words).
    """
    observations = [observe(r, plan, resolution) for r in readings]
    posterior = infer(prior_for(plan), observations)
    verdict = judge(plan, observations, posterior, resolution, rng or np.random.default_rng(1852))
    return Diagnosis(
        findings(posterior, observations),
        verdict,
        tuple(_evidence(o, posterior) for o in observations),
        for_this_row(plan, posterior, verdict),
        for_the_rest(plan, posterior, verdict),
    )


def _evidence(o: Observation, posterior: Posterior) -> Evidence:
    effects = o.response * posterior.mean
    alone = tuple((c, o.nominal + float(effects[i])) for i, c in enumerate(CAUSES) if o.response[i])
    together = o.nominal + float(effects.sum())
    return Evidence(o.reading, o.value, o.nominal, alone, together, abs(o.value - together) > _APART * o.noise)


def record_from(
    allowance: Length, readings: Sequence[Reading], resolution: Length = inches("1/32")
) -> QuilterRecord | None:
    """The quilter's own seam out of seam readings and strip tests taken at one seam allowance.

    None with fewer than three of them. The unit that is planned plays no part in these two equations.
    """
    size = allowance * 10
    any_unit = UnitSpec("half_square_triangle", size, size, ("a", "b"))
    plan = bare_plan(Choices(any_unit, "pair", seam_allowance=allowance))
    about_seam = [r for r in readings if r.kind in (ReadingKind.STITCH_DISTANCE, ReadingKind.STRIP_TEST)]
    if len(about_seam) < _FEWEST_FOR_RECORD:
        return None
    posterior: Posterior = infer(prior_for(plan), [observe(r, plan, resolution) for r in about_seam])
    mean, sd = posterior.along(np.array([1.0, 0.5, 0.0, 0.0]))
    return QuilterRecord(float(allowance) + mean, float(np.hypot(sd, SEAM_SCATTER)), CUT_SCATTER, len(about_seam))
