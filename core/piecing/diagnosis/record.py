"""The quilter's own seam, from everything that was read of her seams.

Source: docs/theory, section 14.12.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from functools import lru_cache
from math import hypot, pi, sqrt

import numpy as np
from scipy.special import ndtri

from ..blocks.pattern import Pattern, Place, UnitPlacement, layout_of
from ..lengths import Length, inches
from ..planning.room import WANTED_SHARE, QuilterRecord
from .causes import SCATTER, Source
from .equations import CUT_SCATTER
from .habits import FEWEST, HALF_LIFE, Figure, Habit
from .inference import Inference, infer
from .model import BlockModel, Vector, model_of
from .placing import block_geometry
from .priors import HANDS
from .reading_kinds import SEWN
from .readings import Reading

__all__ = ["SeamHands", "aged", "record_of", "seam_hands", "spread_at_worse_end"]

_WANDERS = 1 / 100
"""Inches: how far a quilter's mean seam wanders in ``HALF_LIFE`` days by itself; further by the root of the time."""
_NEW_SET_UP, _OTHER_MACHINE = 1 / 150, 1 / 64
"""Inches: how far it moves with another needle, foot or thread; and on another machine."""


@dataclass(frozen=True)
class SeamHands:
    """What the readings of her seams say, in inches beyond the allowance: the record that cloth is cut by, and the mean and the
    spread of each habit."""

    record: QuilterRecord
    figures: dict[Habit, Figure]


def aged(age: float, *, same_set_up: bool = True, same_machine: bool = True) -> float:
    """How far, in inches, the mean seam of a day so many days ago may lie from today's."""
    set_up = 0.0 if same_set_up else _NEW_SET_UP if same_machine else _OTHER_MACHINE
    return hypot(_WANDERS * sqrt(max(0.0, age) / HALF_LIFE), set_up)


def record_of(
    allowance: Length,
    readings: Sequence[Reading],
    resolution: Length = inches("1/32"),
    cut_sd: float = CUT_SCATTER,
) -> QuilterRecord | None:
    """Mean and spread of the take-up, inches, from seam readings and strip tests taken at one seam allowance.

    None with fewer than four of them. The spread is that of one seam to the next, of its ends, and of what is not known of
    the mean: a unit is trimmed where its seam is at its worst. Which block they were read on plays no part. ``cut_sd`` is the
    spread of her cutting, where that is known.
    """
    found = seam_hands(allowance, readings, resolution)
    return None if found is None else replace(found.record, cut_sd=cut_sd)


def seam_hands(allowance: Length, readings: Sequence[Reading], resolution: Length = inches("1/32")) -> SeamHands | None:
    """The same, with the mean and spread of her seam, her fold, and what her seams do at their start and end."""
    some = [
        Reading(r.kind, r.value, spot=r.spot, whole=r.whole, day=r.day, apart=r.apart)
        for r in readings
        if r.kind in SEWN
    ]
    return _seam_hands(allowance, tuple(some), resolution) if len(some) >= FEWEST else None


@lru_cache(maxsize=32)
def _seam_hands(allowance: Length, some: tuple[Reading, ...], resolution: Length) -> SeamHands:
    found = infer(_any_seam(allowance), some, resolution=resolution)
    taken = found.draws[:, 0] + found.draws[:, 3] / 2
    seams = SCATTER["mean"] * _unsteady(found, Source.SEAMS)
    along = SCATTER["end"] * _unsteady(found, Source.ALONG)
    spread = spread_at_worse_end(float(np.var(taken)) + seams**2, along)
    record = QuilterRecord(
        float(allowance) + float(taken.mean()),
        spread,
        CUT_SCATTER,
        len(some),
        mean_sd=float(taken.std()),
        hands=_kinds(found),
    )
    worth = sum(1 / (1 + (r.apart / _WANDERS) ** 2) for r in some)

    def figure(draws: Vector, name: str, source: Source, count: float) -> Figure:
        low, high = np.quantile(draws, (0.05, 0.95))
        least, most = (SCATTER[name] * f for f in _reach(found, source))
        middle = SCATTER[name] * _unsteady(found, source)
        return Figure(
            float(draws.mean()), float(low), float(high), middle, least, most, len(some), count, SCATTER[name]
        )

    ends = [sum(1.0 for r in some if r.spot == spot) for spot in ("start", "end")]
    both = len({r.kind for r in some}) == 2
    figures = {Habit.SEAM: figure(taken, "mean", Source.SEAMS, worth)}
    if both:
        figures[Habit.FOLD] = figure(found.draws[:, 3], "fold", Source.SEAMS, worth / 2)
    for n, habit in enumerate((Habit.START, Habit.END)):
        if ends[n]:
            figures[habit] = figure(found.draws[:, 1 + n], "end", Source.ALONG, ends[n])
    return SeamHands(record, figures)


def _kinds(found: Inference) -> tuple[float, ...]:
    """How likely each kind of hands is. Kinds that these readings cannot tell apart keep their own shares."""
    shown = (Source.SEAMS, Source.ALONG)
    weighed: dict[tuple[float, ...], float] = {}
    often: dict[tuple[float, ...], float] = {}
    for hands in HANDS:
        key = tuple(hands.of(s) for s in shown)
        often[key] = often.get(key, 0.0) + hands.often
    for hands, weight in found.hands:
        key = tuple(hands.of(s) for s in shown)
        weighed[key] = weighed.get(key, 0.0) + weight
    return tuple(h.often / often[key] * weighed.get(key, 0.0) for h in HANDS for key in [tuple(h.of(s) for s in shown)])


def _reach(found: Inference, source: Source) -> tuple[float, float]:
    """Between which factors of steady hands' spread these lie, nine times in ten."""
    ranked = sorted((hands.of(source), weight) for hands, weight in found.hands)
    total, low, high, before = sum(w for _, w in ranked), ranked[0][0], ranked[-1][0], 0.0
    for factor, weight in ranked:
        before += weight / total
        if before <= 0.05:
            low = factor
        if before >= 0.95:
            high = factor
            break
    return low, high


def _unsteady(found: Inference, source: Source) -> float:
    """How much more than steady hands these vary; hands that may be unsteadier count for more, since cloth is cut for them."""
    return sqrt(sum(weight * hands.of(source) ** 2 for hands, weight in found.hands))


def spread_at_worse_end(seams: float, end: float) -> float:
    """The spread of one normal that reaches as far, 99 times in 100, as a seam of variance ``seams`` at the worse of its two
    ends, each of which strays by ``end``: the larger of two normals lies end / sqrt(pi) above their mean and its variance is
    (1 - 1 / pi) of theirs (Clark 1961)."""
    one_in_hundred = float(ndtri(WANTED_SHARE))
    return end / sqrt(pi) / one_in_hundred + sqrt(seams + (1 - 1 / pi) * end**2)


def _any_seam(allowance: Length) -> BlockModel:
    """Two plain squares and the seam between them."""
    square = UnitPlacement("plain_square", ("a",))
    pattern = Pattern("seam", (Fraction(1), Fraction(1)), (Fraction(1),), (Place(0, 0, square), Place(1, 0, square)))
    return model_of(block_geometry(layout_of(pattern), allowance * 40), allowance)
