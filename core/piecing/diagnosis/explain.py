"""Causes in words: what an estimate of this size and sign says about the work."""

from __future__ import annotations

from ..lengths import Length
from ..wording import Said
from .model import Cause

__all__ = ["cause_said"]

_WORDS: dict[Cause, tuple[str, str]] = {
    Cause.SEAM: ("seams sewn {size} too narrow", "seams sewn {size} too wide"),
    Cause.FOLD: ("no fold to speak of", "each fold swallows {size}"),
    Cause.TRIM: ("units trimmed {size} too small", "units trimmed {size} too large"),
    Cause.CUT: ("pieces cut {size} too small", "pieces cut {size} too large"),
}
_NEAR = 1 / 128


def cause_said(cause: Cause, mean: float) -> Said:
    """A short clause for an estimated error of ``mean`` inches; below 1/128 in. it counts as true."""
    less, more = _WORDS[cause]
    if abs(mean) < _NEAR and cause is not Cause.FOLD:
        true = {Cause.SEAM: "seams sewn true", Cause.TRIM: "units trimmed true", Cause.CUT: "pieces cut true"}
        return Said(true[cause])
    return Said(more if mean > 0 else less, size=Length.near(abs(mean)))
