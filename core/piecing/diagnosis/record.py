"""The quilter's own seam, from everything that was read of her seams.

Source: docs/theory.md, section 14.12.
"""

from __future__ import annotations

from collections.abc import Sequence
from fractions import Fraction
from functools import lru_cache
from math import sqrt

import numpy as np

from ..blocks.pattern import Pattern, Place, UnitHere, laid
from ..lengths import Length, inches
from ..oversize import QuilterRecord
from .causes import SCATTER
from .inference import infer
from .model import BlockModel, model_of
from .places import places_of
from .readings import CUT_SCATTER, Reading, ReadingKind

__all__ = ["FEWEST", "record_of"]

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
    own = (SCATTER["mean"] * found.factors["seams"]) ** 2 + (SCATTER["end"] * found.factors["along"]) ** 2
    spread = sqrt(float(np.var(taken)) + own)
    return QuilterRecord(float(allowance) + float(taken.mean()), spread, CUT_SCATTER, len(some))


def _any_seam(allowance: Length) -> BlockModel:
    """Two plain squares and the seam between them."""
    square = UnitHere("plain_square", ("a",))
    pattern = Pattern("seam", (Fraction(1), Fraction(1)), (Fraction(1),), (Place(0, 0, square), Place(1, 0, square)))
    return model_of(places_of(laid(pattern), allowance * 40), allowance)
