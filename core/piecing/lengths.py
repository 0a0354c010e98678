"""Exact lengths: parse what people write, round to a ruler's step, set as fractions.

A ``Length`` is an exact number of inches (see ``surd``); millimetres convert exactly, 1 in. = 25.4 mm.
Measured data are lengths too: a reading of 3 15/16 is exactly 63/16 in., its uncertainty lives elsewhere.
"""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Iterable
from dataclasses import dataclass
from enum import StrEnum
from fractions import Fraction

from .errors import InexactLength, LengthNotUnderstood, LengthOutOfRange
from .surd import ROOT2, Surd

__all__ = [
    "LONGEST",
    "ZERO",
    "Area",
    "Length",
    "Measure",
    "Style",
    "inches",
    "mm",
    "parse_length",
    "parse_step",
]

_MM_PER_INCH = Fraction(127, 5)
_OVER_ROOT2 = Surd(0, Fraction(1, 2))
_MOST_DECIMALS = 6


class Measure(StrEnum):
    """What the quilter's rulers are marked in."""

    INCHES = "in"
    MILLIMETRES = "mm"


@dataclass(frozen=True, slots=True)
class Length:
    """An exact length in inches. Refuses floats by name (``InexactLength``)."""

    value: Surd

    @classmethod
    def of(cls, number: Fraction | int) -> Length:
        if not isinstance(number, Fraction | int) or isinstance(number, bool):
            raise InexactLength(
                "A length is exact: {given} is a {kind}, give a whole number or a fraction.",
                given=repr(number),
                kind=type(number).__name__,
            )
        return cls(Surd(number))

    @classmethod
    def near(cls, inches: float) -> Length:
        """An estimate as a length, to the nearest 1/8192 in.; for results of measurement, never for exact data."""
        return cls(Surd(Fraction(round(inches * 8192), 8192)))

    def __add__(self, other: Length) -> Length:
        return Length(self.value + other.value)

    def __sub__(self, other: Length) -> Length:
        return Length(self.value - other.value)

    def __neg__(self) -> Length:
        return Length(-self.value)

    def __mul__(self, times: Fraction | int) -> Length:
        return Length(self.value * times)

    __rmul__ = __mul__

    def __truediv__(self, by: Fraction | int) -> Length:
        return Length(self.value / by)

    def __lt__(self, other: Length) -> bool:
        return self.value < other.value

    def __le__(self, other: Length) -> bool:
        return self.value <= other.value

    def __gt__(self, other: Length) -> bool:
        return other.value < self.value

    def __ge__(self, other: Length) -> bool:
        return other.value <= self.value

    def __abs__(self) -> Length:
        return -self if self.value.sign() < 0 else self

    def __float__(self) -> float:
        return float(self.value)

    def area_with(self, other: Length) -> Surd:
        """The rectangle of the two, in square inches, exactly."""
        return self.value * other.value

    def times_root2(self) -> Length:
        """The diagonal of a square of this side."""
        return Length(self.value * ROOT2)

    def over_root2(self) -> Length:
        """The side of a square of this diagonal."""
        return Length(self.value * _OVER_ROOT2)

    @property
    def sign(self) -> int:
        return self.value.sign()

    @property
    def is_rational(self) -> bool:
        return self.value.is_rational

    @property
    def rational(self) -> Fraction:
        """Inches as a fraction; ``InexactLength`` when √2 is in it."""
        if not self.value.is_rational:
            raise InexactLength("This length holds the square root of two; round it to a ruler's step first.")
        return self.value.p

    def round_up(self, step: Length) -> Length:
        """The smallest multiple of ``step`` (rational, > 0) not below this length."""
        return step * step.whole_times(self, up=True)

    def whole_times(self, other: Length, *, up: bool = False) -> int:
        """How many whole times this rational length goes into ``other``; the next number when ``up``."""
        times = other.value / self.rational
        return times.ceil() if up else times.floor()

    def round_down(self, step: Length) -> Length:
        """The largest multiple of ``step`` not above this length."""
        return step * step.whole_times(self)

    def whole_into(self, whole: Length) -> int:
        """How many times this length, root or not, goes into ``whole``; both above zero."""
        times = int(float(whole) / float(self) + 1e-9)
        # The float only guesses; exact comparison decides.
        while self * (times + 1) <= whole:
            times += 1
        while times and self * times > whole:
            times -= 1
        return times

    def round_near(self, step: Length) -> Length:
        """The multiple of ``step`` nearest to this length (halves go up)."""
        return step * (self.value / step.rational + Surd(Fraction(1, 2))).floor()

    def on_step(self, step: Length) -> bool:
        """Whether a ruler of this step shows the length exactly."""
        return self.is_rational and (self.rational / step.rational).denominator == 1

    @property
    def exact(self) -> str:
        """The length itself in inches, such as ``31/8`` or ``9/2 - 1/4*sqrt2``."""
        if self.is_rational:
            return str(self.value.p)
        root = f"{abs(self.value.q)}*sqrt2"
        return f"{self.value.p} {'-' if self.value.q < 0 else '+'} {root}"

    def set_in(self, style: Style | None) -> str:
        """The length as this quilter reads it."""
        return (style or Style()).pretty(self)

    def __repr__(self) -> str:
        return f"Length({self.value!r})"


ZERO = Length.of(0)
LONGEST = Length.of(10_000)


def inches(number: Fraction | int | str) -> Length:
    """``inches("3/8")``, ``inches(4)``: a literal length for code and tests."""
    return Length.of(Fraction(number) if isinstance(number, str) else number)


def mm(number: Fraction | int | str) -> Length:
    """A literal length given in millimetres, converted exactly."""
    return Length.of(Fraction(number) / _MM_PER_INCH)


_TENTH_MM = mm("1/10")
_UNIT_WORDS = {
    "": None,
    '"': "in",
    "″": "in",
    "”": "in",
    "''": "in",
    "in": "in",
    "in.": "in",
    "inch": "in",
    "inches": "in",
    "mm": "mm",
    "mm.": "mm",
    "cm": "cm",
    "cm.": "cm",
}
_NUMBER = re.compile(
    r"""(?:(?P<whole>\d+)[ \-]+)?(?P<num>\d+)\s*/\s*(?P<den>\d+)   # 3 7/8, 3-7/8, 7/8
      | (?P<dec>\d+[.,]\d+|[.,]\d+|\d+[.,]?)                       # 3.875, 3,875, .5, 3
    """,
    re.VERBOSE,
)
_SIZES = {"in": Fraction(1), "mm": 1 / _MM_PER_INCH, "cm": 10 / _MM_PER_INCH}


def _plain(text: str) -> str:
    """Typographic spellings brought to plain ones: ⅞ to 7/8, ⁄ to /, odd spaces to spaces."""
    out = []
    for ch in text.strip():
        folded = unicodedata.normalize("NFKC", ch) if unicodedata.category(ch) == "No" else ch
        if "⁄" in folded:
            out.append(" " + folded.replace("⁄", "/"))
        else:
            out.append({"⁄": "/", "–": "-", "−": "-", "‑": "-"}.get(ch, ch))
    return re.sub(r"\s+", " ", "".join(out)).strip().lower()


_LONGEST_TEXT = 80


def parse_length(text: str, measure: Measure = Measure.INCHES, *, signed: bool = False) -> Length:
    """Read a length as people write it.

    Takes ``3 7/8``, ``3-7/8``, ``3 7/8"``, ``3.875``, ``98 mm``, ``9.8cm`` and ``3⅞``. A bare decimal
    or whole number is in ``measure``; a bare fraction is always inches. Raises ``LengthNotUnderstood``
    (with the reason in words) or ``LengthOutOfRange`` (negative, or beyond 10,000 in.).
    """
    plain = _plain(text)
    if not plain:
        raise LengthNotUnderstood(text, "nothing was typed.")
    if len(plain) > _LONGEST_TEXT:
        raise LengthNotUnderstood(f"{text[:12]}…", "it is far too long for a length.")
    negative = plain.startswith("-")
    body = plain[1:].strip() if negative else plain
    found = _NUMBER.match(body)
    if not found:
        raise LengthNotUnderstood(text, f"it begins with “{body[:12]}”, which is no number.")
    rest = body[found.end() :].strip()
    unit = _unit(text, rest)
    value = _value(text, found)
    size = _SIZES[unit or ("in" if found["den"] else measure.value)]
    if negative and not signed:
        raise LengthOutOfRange("“{text}” is below zero. A length here is zero or more.", text=text)
    if value * size > LONGEST.rational:
        raise LengthOutOfRange("“{text}” is longer than anything here can be (10,000 in.).", text=text)
    return Length.of(-value * size if negative else value * size)


def _unit(text: str, rest: str) -> str | None:
    if rest in _UNIT_WORDS:
        return _UNIT_WORDS[rest]
    if re.search(r"\d", rest):
        if re.search(r"[a-z\"″]", rest):
            raise LengthNotUnderstood(text, "it mixes two measures or holds two numbers. Give one length in one unit.")
        raise LengthNotUnderstood(text, f"“{rest}” is left over after the number.")
    raise LengthNotUnderstood(text, f"“{rest}” is no unit known here (in, mm or cm).")


def _value(text: str, found: re.Match[str]) -> Fraction:
    if found["den"]:
        if int(found["den"]) == 0:
            raise LengthNotUnderstood(text, "a fraction cannot have 0 below the line.")
        if len(found["den"]) > 5 or len(found["num"]) > 6:
            raise LengthNotUnderstood(text, "the fraction is finer than any ruler.")
        whole = int(found["whole"] or 0)
        part = Fraction(int(found["num"]), int(found["den"]))
        if whole and part >= 1:
            raise LengthNotUnderstood(text, f"{found['num']}/{found['den']} after a whole number must be less than 1.")
        return whole + part
    decimal = found["dec"].replace(",", ".")
    if len(decimal.partition(".")[2]) > _MOST_DECIMALS:
        raise LengthNotUnderstood(text, "it has more than 6 decimals, finer than any ruler.")
    return Fraction(decimal if decimal[-1] != "." else decimal[:-1])


def parse_step(text: str, measure: Measure = Measure.INCHES) -> Length:
    """A ruler's step: a length above zero and not above 1 in."""
    step = parse_length(text, measure)
    if not ZERO < step <= Length.of(1):
        raise LengthOutOfRange("“{text}” is no ruler's step. Give one between 1/64 in. and 1 in.", text=text)
    return step


@dataclass(frozen=True, slots=True)
class Area:
    """An area in square inches: exact, or to the nearest 1/8192 when it comes off the engine."""

    value: Surd

    @classmethod
    def near(cls, square_inches: float) -> Area:
        return cls(Length.near(square_inches).value)

    @classmethod
    def sum(cls, areas: Iterable[Area]) -> Area:
        total = Surd()
        for a in areas:
            total = total + a.value
        return cls(total)

    def set_in(self, style: Style | None) -> str:
        """To a tenth of a square inch, or whole square centimetres."""
        if style and style.measure is Measure.MILLIMETRES:
            return f"{float(self.value) * 6.4516:.0f}\u00a0cm²"
        return f"{float(self.value):.1f}\u00a0sq\u00a0in"


@dataclass(frozen=True, slots=True)
class Style:
    """How lengths are set for this quilter: the measure, and how fine a fraction is shown.

    ``text`` is for fields: ``parse_length`` reads the very same length back. ``pretty`` is for reading: rounded to
    the finest mark, or a tenth of a millimetre.
    """

    measure: Measure = Measure.INCHES
    finest: int = 64

    def text(self, length: Length) -> str:
        """Text that ``parse_length`` reads back exactly, if the length can be typed at all; signed when negative.

        ``3 7/8`` or ``98.425 mm``; a length of the other measure keeps its own unit, such as ``6 mm`` among inches.
        Lengths with a root in them, which nobody types, come out rounded.
        """
        size, sign = abs(length), "-" if length.sign < 0 else ""
        if not size.is_rational:
            return self._near(size, sign)
        value, metric = size.rational, size.rational * _MM_PER_INCH
        inch_mark = "" if self.measure is Measure.INCHES else '"'
        if self.measure is Measure.MILLIMETRES and (told := _decimal(metric, 3)):
            return f"{sign}{told} mm"
        if self.finest % value.denominator == 0:
            return f"{sign}{_mixed(value)}{inch_mark}"
        if self.measure is Measure.INCHES and (told := _decimal(value, _MOST_DECIMALS)):
            return f"{sign}{told}"
        if told := _decimal(metric, _MOST_DECIMALS):
            return f"{sign}{told} mm"
        if told := _decimal(value, _MOST_DECIMALS):
            return f"{sign}{told}{inch_mark}"
        return f"{sign}{_mixed(value)}{inch_mark}" if value.denominator < 10**5 else self._near(size, sign)

    def pretty(self, length: Length) -> str:
        """For reading: fraction slash U+2044, an inch mark, a no-break space."""
        text = self._near(abs(length), "-" if length.sign < 0 else "")
        plain = text.replace("/", "⁄").replace(" ", "\u00a0").replace("-", "−")
        return plain if self.measure is Measure.MILLIMETRES else plain + "″"

    def shows_exactly(self, length: Length) -> bool:
        """Whether the pretty text stands for the length itself and not for its neighbour."""
        return length.on_step(self._grid)

    @property
    def hair(self) -> Length:
        """A small slip people speak of in this measure: 1/32 in., or 1 mm."""
        return mm(1) if self.measure is Measure.MILLIMETRES else Length.of(Fraction(1, 32))

    @property
    def _grid(self) -> Length:
        return _TENTH_MM if self.measure is Measure.MILLIMETRES else Length.of(Fraction(1, self.finest))

    def _near(self, size: Length, sign: str) -> str:
        near = size.round_near(self._grid).rational
        sign = sign if near else ""
        if self.measure is Measure.MILLIMETRES:
            return f"{sign}{_decimal(near * _MM_PER_INCH, 1)} mm"
        return f"{sign}{_mixed(near)}"


def _mixed(value: Fraction) -> str:
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
