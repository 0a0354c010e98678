"""Schools of oversizing: how much larger than bare need to cut, so that a unit can be trimmed true.

A school names a cut size; the cut is then rounded up to what the ruler shows. No school goes below
the bare size, so a higher school never leaves less margin. Source: docs/theory.md, section 5.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from math import sqrt

import numpy as np
from scipy.special import ndtr

from .errors import NoMarginGiven, RecordsTooFew
from .lengths import ZERO, Length
from .units.method import UnitMethod

__all__ = ["WANTED_SHARE", "QuilterRecord", "School", "record_cut", "room_share", "school_cut"]

_NODES, _WEIGHTS = np.polynomial.hermite_e.hermegauss(40)
WANTED_SHARE = 0.99
"""The share of units that should have something to trim on all four sides."""


class School(StrEnum):
    EXACT = "exact"
    LITTLE = "little"
    GENEROUS = "generous"
    OWN_MARGIN = "own_margin"
    RECORDS = "records"


@dataclass(frozen=True, slots=True)
class QuilterRecord:
    """A quilter's own seam and cutting, in inches: mean and spread of take-up, spread of cut size."""

    take_up_mean: float
    take_up_sd: float
    cut_sd: float
    readings: int


def room_share(method: UnitMethod, cut: Length, target: Length, record: QuilterRecord) -> float:
    """Share of units whose raw width and raw height both reach ``target``.

    One seam is common to both sides of a unit, the cutting error of either side its own: the seam is
    integrated by Gauss-Hermite quadrature (40 nodes), the two sides given it are independent normals.
    """
    take_ups = record.take_up_mean + record.take_up_sd * _NODES
    # The loss is linear in the take-up for every method, so two exact values give its slope.
    base = float(method.raw(cut, ZERO))
    slope = base - float(method.raw(cut, Length.of(1)))
    room = base - slope * take_ups - float(target)
    sides = ndtr(room / max(record.cut_sd, 1e-6)) ** 2
    return float(sides @ _WEIGHTS / sqrt(2 * np.pi))


def record_cut(method: UnitMethod, target: Length, record: QuilterRecord | None, step: Length) -> Length:
    """The smallest ruler-friendly cut at which at least 99 in 100 units have room on all four sides."""
    if record is None:
        raise RecordsTooFew(
            "There are not enough readings of your own seam yet. Measure three seams on the back, or sew a strip test.",
            field="school",
        )
    start = method.cut_for(target, Length.of(0)).round_up(step)
    cut = start
    while room_share(method, cut, target, record) < WANTED_SHARE:
        cut = cut + step
    return cut


def school_cut(
    school: School,
    method: UnitMethod,
    finished: Length,
    allowance: Length,
    take_up: Length,
    step: Length,
    *,
    own_margin: Length | None = None,
    record: QuilterRecord | None = None,
) -> Length:
    """The cut size of a school, on the ruler's step.

    Raises ``NoMarginGiven`` when the school is one's own margin and none is given, ``RecordsTooFew``
    when it is one's records and there are none.
    """
    target = finished + allowance * 2
    bare = method.cut_for(target, take_up).round_up(step)
    if school is School.EXACT:
        return bare
    if school is School.RECORDS:
        return record_cut(method, target, record, step)
    if school is School.OWN_MARGIN:
        if own_margin is None:
            raise NoMarginGiven("Say how much should come off each side, such as 1/16.", field="own_margin")
        return method.cut_for(target + own_margin * 2, take_up).round_up(step)
    generosity = 1 if school is School.LITTLE else 2
    return max(bare, method.rule_size(finished, allowance, generosity).round_up(step))
