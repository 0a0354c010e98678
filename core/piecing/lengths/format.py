"""How lengths are set for a quilter: as fractions of an inch or in millimetres, for fields and for reading.

Works on the exact number of inches behind a length, so that it stands below ``Length`` itself.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from fractions import Fraction
from typing import Protocol

from .surd import Surd

__all__ = ["MM_PER_INCH", "MOST_DECIMALS", "AlongSeam", "Exact", "Measure", "Style"]

MM_PER_INCH = Fraction(127, 5)
MOST_DECIMALS = 6
_TENTH_MM = 1 / (MM_PER_INCH * 10)


class Exact(Protocol):
    """What holds an exact number of inches."""

    @property
    def value(self) -> Surd:
        """The exact number."""


class Measure(StrEnum):
    """What the quilter's rulers are marked in."""

    INCHES = "in"
    MILLIMETRES = "mm"


@dataclass(frozen=True, slots=True)
class Style:
    """How lengths are set for this quilter: the measure, and how fine a fraction is shown.

    ``text`` is for fields: ``parse_length`` reads the very same length back. ``pretty`` is for reading: what lies on no mark of
    ``finest`` to the inch is told by the nearest of the ``marks`` that a ruler has, or to a tenth of a millimetre.
    """

    measure: Measure = Measure.INCHES
    finest: int = 64
    marks: int = 32

    def text(self, length: Exact) -> str:
        """Text that ``parse_length`` reads back exactly, if the length can be typed at all; signed when negative.

        ``3 7/8`` or ``98.425 mm``; a length of the other measure keeps its own unit, such as ``6 mm`` among inches.
        Lengths with a root in them, which nobody types, come out rounded.
        """
        size, sign = _size_and_sign(length.value)
        if not size.is_rational:
            return self._near(size, sign)
        value, metric = size.p, size.p * MM_PER_INCH
        inch_mark = "" if self.measure is Measure.INCHES else '"'
        if self.measure is Measure.MILLIMETRES and (told := _decimal(metric, 3)):
            return f"{sign}{told} mm"
        if self.finest % value.denominator == 0:
            return f"{sign}{_mixed_number(value)}{inch_mark}"
        if self.measure is Measure.INCHES and (told := _decimal(value, MOST_DECIMALS)):
            return f"{sign}{told}"
        if told := _decimal(metric, MOST_DECIMALS):
            return f"{sign}{told} mm"
        if told := _decimal(value, MOST_DECIMALS):
            return f"{sign}{told}{inch_mark}"
        return f"{sign}{_mixed_number(value)}{inch_mark}" if value.denominator < 10**5 else self._near(size, sign)

    def pretty(self, length: Exact) -> str:
        """For reading: fraction slash U+2044, an inch mark, a no-break space."""
        text = self._near(*_size_and_sign(length.value), fine=self.shows_exactly(length))
        plain = text.replace("/", "⁄").replace(" ", "\u00a0").replace("-", "−")
        return plain if self.measure is Measure.MILLIMETRES else plain + "″"

    def shows_exactly(self, length: Exact) -> bool:
        """Whether the pretty text stands for the length itself and not for its neighbour."""
        return length.value.is_rational and (length.value.p / self._grid(self.finest)).denominator == 1

    def _grid(self, marks: int) -> Fraction:
        return _TENTH_MM if self.measure is Measure.MILLIMETRES else Fraction(1, marks)

    def _near(self, size: Surd, sign: str, *, fine: bool = True) -> str:
        grid = self._grid(self.finest if fine else self.marks)
        near = (size / grid + Surd(Fraction(1, 2))).floor() * grid
        sign = sign if near else ""
        if self.measure is Measure.MILLIMETRES:
            return f"{sign}{_decimal(near * MM_PER_INCH, 1)} mm"
        return f"{sign}{_mixed_number(near)}"


@dataclass(frozen=True, slots=True)
class AlongSeam:
    """So much along a seam, as a hand measures it: ``halves`` of an inch, one to four; in millimetres to the nearest five."""

    halves: int

    def set_in(self, style: Style | None) -> str:
        """In words, or in millimetres."""
        if style is not None and style.measure is Measure.MILLIMETRES:
            return f"{5 * round(self.halves * MM_PER_INCH / 10)}\u00a0mm"
        return _ALONG_SEAM[self.halves]


_ALONG_SEAM = {1: "half inch", 2: "an inch", 3: "an inch and a half", 4: "two inches"}


def _size_and_sign(value: Surd) -> tuple[Surd, str]:
    return (-value, "-") if value.sign() < 0 else (value, "")


def _mixed_number(value: Fraction) -> str:
    """``3 7/8``, ``7/8`` or ``3``."""
    whole, part = divmod(value, 1)
    if not part:
        return str(whole)
    return f"{whole} {part}" if whole else str(part)


def _decimal(value: Fraction, places: int) -> str:
    """The number as a finite decimal of at most so many places; empty when it has none."""
    scaled = value * 10**places
    if scaled.denominator != 1:
        return ""
    whole, part = divmod(scaled.numerator, 10**places)
    return f"{whole}.{part:0{places}d}".rstrip("0").rstrip(".")
