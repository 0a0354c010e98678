"""What is held likely before any reading: of every cause, of slips of the pen, and of how steady these hands are.

Source: docs/theory, sections 14.3 and 14.7.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import sqrt

import numpy as np

from ..lengths import Length
from ..planning.room import QuilterRecord
from .causes import FOLD_USUAL, SOURCES, Cause, Source, parameters_of
from .habits import FEWEST
from .model import BlockModel, Vector
from .reading_kinds import ReadingKind
from .readings import Reading

__all__ = [
    "CAUSES",
    "HANDS",
    "ONE_SEAM",
    "ONE_UNIT",
    "OWN",
    "RULER",
    "SLIPS",
    "SOME_SEAMS",
    "TWO_SETTINGS",
    "Held",
    "Prior",
    "Steadiness",
    "after_seeing",
    "prior_of",
]


@dataclass(frozen=True, slots=True)
class Held:
    """Of one cause: its standard deviation in inches when it is none to speak of, when it is one, how often it is one, and
    what it is on the mean then, where it lies on one side: cloth is drawn out, not in."""

    small: float
    large: float
    often: float
    mean: float = 0.0


CAUSES = {
    Cause.SEAM: Held(1 / 180, 0.045, 0.20),
    Cause.START: Held(1 / 200, 0.05, 0.04),
    Cause.END: Held(1 / 200, 0.05, 0.04),
    Cause.FOLD: Held(1 / 80, 1 / 40, 0.05),
    Cause.TRIM: Held(1 / 200, 0.045, 0.13),
    Cause.SHIFT: Held(1 / 200, 0.045, 0.13),
    Cause.TIP: Held(1 / 200, 0.045, 0.13),
    Cause.CUT: Held(1 / 128, 0.08, 0.09),
    Cause.STRETCH: Held(1 / 200, 0.05, 0.03, 0.09),
}
ONE_SEAM = Held(0.0, 1 / 16, 0.06)
"""``often``: that a seam is one, shared between the ways it can stray."""
SOME_SEAMS = Held(0.0, 1 / 16, 0.04)
"""``often``: that one row was sewn otherwise than the rest, or the seams between the rows otherwise than those within them; shared
between these groups."""
ONE_UNIT = Held(0.0, 1 / 16, 0.03)
SLIPS = (Held(0.0, 3 / 32, 0.02), Held(0.0, 0.7, 0.02), Held(0.0, 10.0, 0.008))
"""Of one reading: a mark miscounted, a figure mistaken, a number turned about."""
OWN = (Held(0.0, 1 / 8, 0.2), Held(0.0, 0.7, 0.05), Held(0.0, 10.0, 0.02))
"""Of a reading taken again and found right: that one piece is off by itself, by however much."""
RULER = 1 / 135
"""Of an error common to everything read with one ruler, inches: its lines, and how its edge is laid."""
DAY = 1 / 128
"""Between the mean stitching distances of two days at one machine."""
TWO_SETTINGS = 1 / 16
"""The same where the readings themselves say that the guide was moved between them."""
_SET_UP = 1 / 150
_OFF_DAY = 0.2
_FOLD_MEASURED = 1 / 160
_WAVY, _BOWED = 0.3, 0.12


@dataclass(frozen=True, slots=True)
class Steadiness:
    """How much more or less than steady hands these vary, by source, and how often such hands are met."""

    factors: tuple[float, float, float, float]
    often: float

    def of(self, source: Source) -> float:
        """How much wider than usual a source scatters; 1 is usual."""
        return self.factors[SOURCES.index(source)]


HANDS = (
    Steadiness((1.0, 1.0, 1.0, 1.0), 0.405),
    Steadiness((0.6, 0.6, 0.6, 0.6), 0.16),
    Steadiness((1.6, 1.6, 1.6, 1.6), 0.13),
    Steadiness((2.5, 2.5, 2.5, 2.5), 0.03),
    Steadiness((1.6, 1.0, 1.0, 1.0), 0.06),
    Steadiness((1.0, 1.6, 1.6, 1.0), 0.08),
    Steadiness((1.0, 1.0, 1.0, 2.0), 0.04),
    Steadiness((2.5, 1.0, 1.0, 1.6), 0.02),
    Steadiness((1.0, 2.5, 2.5, 1.0), 0.03),
    Steadiness((1.0, 4.0, 4.0, 1.0), 0.01),
    Steadiness((4.0, 4.0, 4.0, 4.0), 0.005),
    Steadiness((0.6, 1.0, 1.0, 1.0), 0.03),
)
"""Hands that people have: what is learned of one source is mostly true of the others. ``often`` adds up to one."""


@dataclass(frozen=True)
class Prior:
    """Of each common cause, in its order: ``mean``, ``small`` and ``large`` standard deviations in inches, ``shift`` what
    is added to the mean when it is large, ``odds`` (a
    logarithm) that it is large; ``paid`` is the fold that the planned stitching distance pays for. ``hands`` says how likely each
    kind of hands is, in the order of ``HANDS``; ``recorded`` that what is held of the seam was measured, in the quilter's records."""

    mean: Vector
    small: Vector
    large: Vector
    shift: Vector
    odds: Vector
    offset: float
    paid: float
    hands: tuple[float, ...] = tuple(h.often for h in HANDS)
    recorded: bool = False


def prior_of(
    model: BlockModel,
    *,
    stitch: Length | None = None,
    fold: Length | None = None,
    record: QuilterRecord | None = None,
) -> Prior:
    """Before any reading: around the planned stitching distance and the measured or usual fold; or, with a record of enough
    seams, around the quilter's own."""
    params = parameters_of(model)
    held = [CAUSES[p.cause] for p in params]
    mean = np.zeros(len(params))
    small = np.array([h.small for h in held])
    often = np.array([h.often for h in held])
    at = {p.cause: n for n, p in enumerate(params) if p.batch < 0}
    seam, folded = at[Cause.SEAM], at[Cause.FOLD]
    mean[folded] = FOLD_USUAL
    if fold is not None and float(fold) > 0:
        mean[folded], small[folded] = float(fold), _FOLD_MEASURED
    offset = float(stitch - model.allowance) if stitch is not None else 0.0
    mean[seam] = offset
    hands = tuple(h.often for h in HANDS)
    recorded = record is not None and record.readings >= FEWEST
    if record is not None and recorded:
        mean[seam] = record.take_up_mean - float(model.allowance) - mean[folded] / 2
        known = record.mean_sd or record.take_up_sd / sqrt(record.readings)
        # This block is sewn on a day of its own, perhaps with another needle; and what of the take-up is the fold is not known.
        small[seam] = sqrt(known**2 + _SET_UP**2 + DAY**2 + (small[folded] / 2) ** 2)
        if record.hands:
            # Hands may have an off day: what her record says of them is held to four parts in five.
            hands = tuple(_OFF_DAY * h.often + (1 - _OFF_DAY) * w for h, w in zip(HANDS, record.hands, strict=True))
    large = np.maximum(np.array([h.large for h in held]), small)
    shift = np.array([h.mean for h in held])
    return Prior(mean, small, large, shift, np.log(often / (1 - often)), offset, max(0.0, -2 * offset), hands, recorded)


def after_seeing(model: BlockModel, prior: Prior, readings: Sequence[Reading]) -> Prior:
    """What only the eye saw makes its causes more likely: waves speak of stretch, a bow of seams that drift."""
    kinds = {r.kind for r in readings}
    odds = prior.odds.copy()
    for n, p in enumerate(parameters_of(model)):
        if ReadingKind.WAVY in kinds and p.cause is Cause.STRETCH:
            odds[n] = np.log(_WAVY / (1 - _WAVY))
        if ReadingKind.BOWED in kinds and p.cause in (Cause.START, Cause.END):
            odds[n] = np.log(_BOWED / (1 - _BOWED))
    return replace(prior, odds=odds)
