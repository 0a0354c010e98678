"""Sizes as the quilter says them: on her ruler's marks, with a thread over or under, never a 64th.

Source: docs/theory, section 14.8.
"""

from __future__ import annotations

from dataclasses import dataclass

from ..lengths import Length, Measure, Style, inches, mm
from ..tolerances import THREAD

__all__ = [
    "CERTAIN",
    "LIKELY",
    "SURENESS",
    "GuideMove",
    "GuideSetting",
    "Roughly",
    "SizeRead",
    "SlipGuess",
    "sure_in_words",
]

CERTAIN, LIKELY = 0.95, 0.75
"""Probabilities from which something is said to be certain, and likely."""

SURENESS = ("certain", "likely", "open")
"""The words there are for how sure something is, the surest first."""

_BY_A_HALF = 0.14
"""Millimetres beside a half or a whole one that nobody sets a guide to."""


@dataclass(frozen=True, slots=True)
class Roughly:
    """An estimated size in inches, its sign left out: to the nearest 1/32, or half a millimetre; "a thread" when smaller."""

    size: float

    def set_in(self, style: Style | None) -> str:
        """On the ruler's marks of a measure, to half a millimetre or a thirty-second."""
        style, size = style or Style(), abs(self.size)
        if style.measure is Measure.MILLIMETRES:
            halves = max(1, round(size * 25.4 * 2))
            return style.pretty(mm(1) * halves / 2)
        if size < 1.5 * THREAD:
            return "a thread"
        return style.pretty(Length.near(size).round_near(inches("1/32")))


@dataclass(frozen=True, slots=True)
class GuideSetting:
    """A distance to sew or trim at, in inches: a mark of the ruler, with a thread over or under it where that is nearer."""

    size: float

    def set_in(self, style: Style | None) -> str:
        """As a guide can be set in a measure: to half a millimetre or, where it lies on none, a tenth; or to sixteenths and a thread."""
        style = style or Style()
        if style.measure is Measure.MILLIMETRES:
            return style.pretty(mm(1) * _tenths(self.size) / 10)
        mark, threads = _mark_and_threads(self.size)
        if not threads:
            return style.pretty(mark)
        return f"a thread {'over' if threads > 0 else 'under'} {style.pretty(mark)}"


@dataclass(frozen=True, slots=True)
class SizeRead:
    """A length as it was read, told as it stands on the ruler; a 64th between two marks is a thread beside one of them."""

    size: Length

    def set_in(self, style: Style | None) -> str:
        """As the measure sets any length, but for odd 64ths."""
        style = style or Style()
        value = self.size.value
        between = style.measure is Measure.INCHES and value.is_rational and value.p.denominator == 64
        return GuideSetting(float(self.size)).set_in(style) if between else style.pretty(self.size)


@dataclass(frozen=True, slots=True)
class GuideMove:
    """How far a guide is moved from one setting to another, inches, its sign left out: what the two are said as differ by just that."""

    now: float
    to: float

    @property
    def size(self) -> float:
        """Inches, above zero when it comes nearer to the needle."""
        return self.now - self.to

    def set_in(self, style: Style | None) -> str:
        """In tenths of a millimetre, or on the ruler's marks."""
        if style is None or style.measure is not Measure.MILLIMETRES:
            apart = abs(_as_said(self.now) - _as_said(self.to))
            return "a thread" if apart < 1.5 * THREAD else GuideSetting(apart).set_in(style)
        return style.pretty(mm(1) * max(1, abs(_tenths(self.now) - _tenths(self.to))) / 10)


@dataclass(frozen=True, slots=True)
class SlipGuess:
    """What slip of the pen makes a reading so many inches off, as the end of a sentence: a full stop where none comes to mind."""

    off: float

    def set_in(self, style: Style | None) -> str:
        """By the marks that are miscounted on a ruler of this measure."""
        if self.off > 1.5:
            return ": is a figure mistyped, or two of them turned about?"
        metric = style is not None and style.measure is Measure.MILLIMETRES
        for size, what in _SLIPS_METRIC if metric else _SLIPS:
            if abs(self.off - size) < 1 / 24:
                return what
        return "."


_SLIPS = (
    (1.0, ": a whole inch apart."),
    (1 / 2, ": half an inch apart, as when a border is counted."),
    (1 / 4, ": a quarter apart, as when 3/8 is written for 5/8."),
    (1 / 8, ": an eighth apart, as when a mark is miscounted."),
)
_SLIPS_METRIC = (
    (20 / 25.4, ": two centimetres apart."),
    (10 / 25.4, ": a whole centimetre apart."),
    (5 / 25.4, ": half a centimetre apart, as when its longer mark is taken for a whole one."),
)


def _mark_and_threads(size: float) -> tuple[Length, int]:
    """A thread beside a sixteenth, over it (1) or under (-1), is said as such; everything else is a mark of thirty-seconds (0)."""
    near = Length.near(size).round_near(inches("1/16"))
    off = size - float(near)
    if abs(off) < THREAD / 2:
        return near, 0
    if abs(off) < 1.5 * THREAD:
        return near, 1 if off > 0 else -1
    return Length.near(size).round_near(inches("1/32")), 0


def _as_said(size: float) -> float:
    """Inches of a setting as it is said."""
    mark, threads = _mark_and_threads(size)
    return float(mark) + threads * THREAD


def _tenths(size: float) -> int:
    """Tenths of a millimetre; of what lies by a half one the half: no estimate tells more."""
    halves = round(size * 25.4 * 2)
    return 5 * halves if abs(size * 25.4 - halves / 2) < _BY_A_HALF else round(size * 254)


def sure_in_words(probability: float) -> str:
    """One scale of words for every probability shown."""
    certain, likely, unsure = SURENESS
    return certain if probability >= CERTAIN else likely if probability >= LIKELY else unsure
