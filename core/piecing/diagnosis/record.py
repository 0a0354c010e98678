"""The quilter's own seam, from everything that was read of her seams.

Source: docs/theory, section 14.12.
"""

from __future__ import annotations

from collections.abc import Sequence
from fractions import Fraction
from functools import lru_cache
from math import pi, sqrt

import numpy as np
from scipy.special import ndtri

from ..blocks.pattern import Pattern, Place, UnitPlacement, laid
from ..lengths import Length, inches
from ..planning.room import WANTED_SHARE, QuilterRecord
from .causes import SCATTER, Source
from .inference import Inference, infer
from .model import BlockModel, model_of
from .places import block_geometry
from .readings import CUT_SCATTER, Reading, ReadingKind

__all__ = ["FEWEST", "record_of", "spread_at_worse_end"]

FEWEST = 3
"""Seams and strip tests behind a record."""


def record_of(
    allowance: Length, readings: Sequence[Reading], resolution: Length = inches("1/32")
) -> QuilterRecord | None:
    """Mean and spread of the take-up, inches, from seam readings and strip tests taken at one seam allowance.

    None with fewer than three of them. The spread is that of one seam to the next, of its ends, and of what is not known of
    the mean: a unit is trimmed where its seam is at its worst. Which block they were read on plays no part.
    """
    kinds = (ReadingKind.STITCH, ReadingKind.STRIP_TEST)
    some = [Reading(r.kind, r.value, spot=r.spot, whole=r.whole, day=r.day) for r in readings if r.kind in kinds]
    return _record(allowance, tuple(some), resolution) if len(some) >= FEWEST else None


@lru_cache(maxsize=32)
def _record(allowance: Length, some: tuple[Reading, ...], resolution: Length) -> QuilterRecord:
    found = infer(_any_seam(allowance), some, resolution=resolution)
    taken = found.draws[:, 0] + found.draws[:, 3] / 2
    seams = float(np.var(taken)) + (SCATTER["mean"] * _unsteady(found, Source.SEAMS)) ** 2
    spread = spread_at_worse_end(seams, SCATTER["end"] * _unsteady(found, Source.ALONG))
    return QuilterRecord(float(allowance) + float(taken.mean()), spread, CUT_SCATTER, len(some))


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
    return model_of(block_geometry(laid(pattern), allowance * 40), allowance)
