"""Causes in words: what an estimate says about the work, and which readings it rests on."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..lengths import Length
from ..wording import Said
from .inference import Estimate, Posterior
from .model import Cause, Observation
from .readings import ReadingKind

__all__ = ["Finding", "cause_said", "findings"]

_WORDS: dict[Cause, tuple[str, str]] = {
    Cause.SEAM: ("seams sewn {size} too narrow", "seams sewn {size} too wide"),
    Cause.FOLD: ("no fold to speak of", "each fold swallows {size}"),
    Cause.TRIM: ("units trimmed {size} too small", "units trimmed {size} too large"),
    Cause.CUT: ("pieces cut {size} too small", "pieces cut {size} too large"),
}
_TRUE = {Cause.SEAM: "seams sewn true", Cause.TRIM: "units trimmed true", Cause.CUT: "pieces cut true"}
_NEAR = 1 / 128
_UNIT_SIZES = (ReadingKind.UNIT_WIDTH, ReadingKind.UNIT_HEIGHT)


@dataclass(frozen=True, slots=True)
class Finding:
    """A cause: its estimate, the clause that says it, and the readings that speak of it directly."""

    estimate: Estimate
    said: Said
    grounds: Said


def cause_said(cause: Cause, mean: float) -> Said:
    """A short clause for an estimated error of ``mean`` inches; below 1/128 in. it counts as true."""
    less, more = _WORDS[cause]
    if abs(mean) < _NEAR and cause in _TRUE:
        return Said(_TRUE[cause])
    return Said(more if mean > 0 else less, size=Length.near(abs(mean)))


def findings(posterior: Posterior, observations: Sequence[Observation]) -> tuple[Finding, ...]:
    """Every cause with its words, in the order of ``CAUSES``."""
    return tuple(
        Finding(e, cause_said(e.cause, e.mean), _grounds(e.cause, observations)) for e in posterior.estimates()
    )


def _grounds(cause: Cause, observations: Sequence[Observation]) -> Said:
    match cause:
        case Cause.SEAM:
            none = "Nothing was measured on the back, so only the rows speak of it."
            return _average(
                observations, (ReadingKind.STITCH_DISTANCE,), "On the back {mean}, wanted {wanted} ({count}).", none
            )
        case Cause.FOLD:
            none = "No strip test was taken, so the usual fold is assumed."
            return _average(
                observations, (ReadingKind.STRIP_TEST,), "Strip tests take up {mean}, wanted {wanted} ({count}).", none
            )
        case Cause.TRIM:
            none = "No trimmed unit was measured, so only the rows speak of it."
            return _average(observations, _UNIT_SIZES, "Units measure {mean}, wanted {wanted} ({count}).", none)
        case Cause.CUT:
            none = "No raw unit was measured."
            return _average(
                observations, (ReadingKind.RAW_SIZE,), "Raw units measure {mean}, {wanted} by the plan ({count}).", none
            )


def _average(observations: Sequence[Observation], kinds: tuple[ReadingKind, ...], some: str, none: str) -> Said:
    about = [o for o in observations if o.reading.kind in kinds]
    if not about:
        return Said(none)
    mean = sum(o.value for o in about) / len(about)
    count = "one reading" if len(about) == 1 else f"mean of {len(about)}"
    return Said(some, mean=Length.near(mean), wanted=Length.near(about[0].nominal), count=count)
