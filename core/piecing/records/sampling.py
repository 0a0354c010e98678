"""How many units of a lot to measure for how much certainty: acceptance by variables with the quilter's own spread.

Lieberman and Resnikoff 1955, as in ISO 3951: known spread, two risks, two shares off. Source: docs/theory, section 16.4.
"""

from __future__ import annotations

from dataclasses import dataclass
from math import ceil

from scipy.special import ndtr, ndtri

from ..lengths import Length
from ..messages import Message

__all__ = ["CERTAINTIES", "SamplingPlan", "sampling_plan", "share_off"]

CERTAINTIES = (0.8, 0.9, 0.95)
GOOD, BAD = 0.01, 0.10
"""Shares of units off by more than is borne: a lot to be taken, and one to be found out."""
DOUBTED = 0.05
"""How often a good lot is doubted all the same."""


@dataclass(frozen=True, slots=True)
class SamplingPlan:
    """Measure ``count`` of a lot, one in ``every``; the lot is taken when their mean lies within ``within`` inches of what is
    wanted. ``hopeless`` when the hands' own scatter puts too many off wherever the mean lies."""

    count: int
    every: int
    certainty: float
    within: float
    hopeless: bool
    said: Message


def share_off(mean: float, spread: float, borne: float) -> float:
    """The share of units further than ``borne`` from what is wanted, where they lie about ``mean`` with ``spread``; inches."""
    if spread <= 0:
        return float(abs(mean) > borne)
    return float(ndtr((-borne - mean) / spread) + 1 - ndtr((borne - mean) / spread))


def sampling_plan(lot: int, spread: float, borne: Length, certainty: float = 0.9) -> SamplingPlan:
    """For a lot of so many units of a ``spread`` in inches (of units and of reading them), where more than ``borne`` off is not.

    n = ((z_a + z_b) / (z_good - z_bad))^2 units of a long run, n / (1 + (n - 1)/N) of a lot of N; the mean of them may lie
    ``borne - k spread`` off, k = (z_good z_b + z_bad z_a) / (z_a + z_b).
    """
    z_a, z_b = float(ndtri(1 - DOUBTED)), float(ndtri(certainty))
    z_good, z_bad = float(ndtri(1 - GOOD)), float(ndtri(1 - BAD))
    endless = ((z_a + z_b) / (z_good - z_bad)) ** 2
    count = min(lot, max(2, ceil(endless / (1 + (endless - 1) / max(1, lot)) - 1e-9)))
    k = (z_good * z_b + z_bad * z_a) / (z_a + z_b)
    within = float(borne) - k * spread
    hopeless = within <= 0
    every = max(1, lot // max(1, count))
    share = {0.8: 8, 0.9: 9, 0.95: 19}.get(certainty, round(certainty * 10))
    of = 20 if certainty == 0.95 else 10
    if hopeless:
        said = Message(
            "Your units vary so much that some are off by more than {borne} wherever their middle lies: measure every one.",
            borne=borne,
        )
    else:
        said = Message(
            "Measure {count} of {lot}, one in {every}. If one in ten were off by more than {borne}, that would show in {share} of {of} such "
            "lots.",
            count=count,
            lot=lot,
            every=every,
            borne=borne,
            share=share,
            of=of,
        )
    return SamplingPlan(
        lot if hopeless else count, 1 if hopeless else every, certainty, max(0.0, within), hopeless, said
    )
