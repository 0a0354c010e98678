"""An exact length, a whole or broken number of inches with or without the square root of two."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from ..errors import InexactLength
from .format import MM_PER_INCH, Measure, Style
from .surd import ROOT2, Surd

__all__ = ["LONGEST", "ZERO", "Length", "hair", "inches", "mm"]

_OVER_ROOT2 = Surd(0, Fraction(1, 2))


@dataclass(frozen=True, slots=True)
class Length:
    """An exact length in inches. Refuses floats by name (``InexactLength``)."""

    value: Surd

    @classmethod
    def of(cls, number: Fraction | int) -> Length:
        """So many inches. Raises ``InexactLength`` for a float, which no ruler shows exactly."""
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
        """-1, 0 or 1."""
        return self.value.sign()

    @property
    def is_rational(self) -> bool:
        """Whether it holds no root, so that a ruler could show it."""
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
    return Length.of(Fraction(number) / MM_PER_INCH)


def hair(measure: Measure) -> Length:
    """A small slip people speak of in this measure: 1/32 in., or 1 mm."""
    return mm(1) if measure is Measure.MILLIMETRES else Length.of(Fraction(1, 32))
