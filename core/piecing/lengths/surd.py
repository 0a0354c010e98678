"""Exact numbers of the form p + q·√2.

Every size in straight and diagonal piecing lies in this field, so sums, products and, above all,
comparisons ("does the raw unit reach its target?") need no tolerance. Source: docs/theory, section 1.
"""

from __future__ import annotations

from fractions import Fraction
from math import gcd, isqrt, lcm

__all__ = ["ROOT2", "Surd"]

_ROOT2 = 2**0.5


class Surd:
    """``p + q√2`` with rational ``p`` and ``q``; immutable, ordered, hashable. Floats are refused.

    Held as whole numbers ``(n + m√2)/d`` in lowest terms, which is several times quicker than two fractions.
    """

    __slots__ = ("_d", "_m", "_n")
    _n: int
    _m: int
    _d: int

    def __init__(self, p: Fraction | int = 0, q: Fraction | int = 0) -> None:
        if isinstance(p, float) or isinstance(q, float):
            raise TypeError("a Surd is exact: give int or Fraction, not float")
        d = lcm(p.denominator, q.denominator)
        _set(self, p.numerator * (d // p.denominator), q.numerator * (d // q.denominator), d)

    def __reduce__(self) -> tuple[type[Surd], tuple[Fraction, Fraction]]:
        return Surd, (self.p, self.q)

    @property
    def p(self) -> Fraction:
        """The rational part."""
        return Fraction(self._n, self._d)

    @property
    def q(self) -> Fraction:
        """The coefficient of √2."""
        return Fraction(self._m, self._d)

    @property
    def is_rational(self) -> bool:
        """Whether it holds no root of two."""
        return not self._m

    def __setattr__(self, name: str, value: object) -> None:
        raise AttributeError("a Surd does not change")

    def __add__(self, other: Surd) -> Surd:
        if self._d == other._d:
            return _make(self._n + other._n, self._m + other._m, self._d)
        return _make(
            self._n * other._d + other._n * self._d, self._m * other._d + other._m * self._d, self._d * other._d
        )

    def __sub__(self, other: Surd) -> Surd:
        return self + -other

    def __neg__(self) -> Surd:
        return _make(-self._n, -self._m, self._d)

    def __mul__(self, other: Surd | Fraction | int) -> Surd:
        if isinstance(other, Surd):
            return _make(
                self._n * other._n + 2 * self._m * other._m, self._n * other._m + self._m * other._n, self._d * other._d
            )
        return _make(self._n * other.numerator, self._m * other.numerator, self._d * other.denominator)

    __rmul__ = __mul__

    def __truediv__(self, other: Fraction | int) -> Surd:
        n, d = other.numerator, other.denominator
        if n < 0:
            n, d = -n, -d
        return _make(self._n * d, self._m * d, self._d * n)

    def sign(self) -> int:
        """-1, 0 or 1, exactly: n and m√2 are compared by their squares when they pull apart."""
        return _sign(self._n, self._m)

    def _above(self, other: Surd) -> int:
        return _sign(self._n * other._d - other._n * self._d, self._m * other._d - other._m * self._d)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Surd) and (self._n, self._m, self._d) == (other._n, other._m, other._d)

    def __lt__(self, other: Surd) -> bool:
        return self._above(other) < 0

    def __le__(self, other: Surd) -> bool:
        return self._above(other) <= 0

    def __hash__(self) -> int:
        return hash((self._n, self._m, self._d))

    def __bool__(self) -> bool:
        return bool(self._n or self._m)

    def __float__(self) -> float:
        return (self._n + self._m * _ROOT2) / self._d

    def floor(self) -> int:
        """The largest whole number not above it, exactly."""
        # floor(m√2) by whole-number roots; n + m√2 and n + floor(m√2) lie over the same whole d's.
        root = isqrt(2 * self._m * self._m)
        whole = root if self._m >= 0 else -root - 1
        return (self._n + whole) // self._d

    def ceil(self) -> int:
        """The smallest whole number not below it, exactly."""
        return -((-self).floor())

    def __repr__(self) -> str:
        return f"Surd({self.p})" if self.is_rational else f"Surd({self.p}, {self.q})"


def _sign(n: int, m: int) -> int:
    if n >= 0 and m >= 0:
        return 1 if n or m else 0
    if n <= 0 and m <= 0:
        return -1
    heavier = 1 if n * n > 2 * m * m else -1
    return heavier if n > 0 else -heavier


def _set(surd: Surd, n: int, m: int, d: int) -> Surd:
    common = gcd(n, m, d)
    if d == 0:
        raise ZeroDivisionError("a Surd cannot be divided by zero")
    object.__setattr__(surd, "_n", n // common)
    object.__setattr__(surd, "_m", m // common)
    object.__setattr__(surd, "_d", d // common)
    return surd


def _make(n: int, m: int, d: int) -> Surd:
    return _set(Surd.__new__(Surd), n, m, d)


ROOT2 = Surd(0, 1)
