"""Lengths as people write them."""

from __future__ import annotations

import re
import unicodedata
from fractions import Fraction

from ..errors import LengthNotUnderstood, LengthOutOfRange
from ..messages import Message
from ..tolerances import THREAD
from .format import MM_PER_INCH, MOST_DECIMALS, Measure
from .length import LONGEST, Length

__all__ = ["parse_length", "parse_step"]

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
    "yd": "yd",
    "yd.": "yd",
    "yds": "yd",
    "yard": "yd",
    "yards": "yd",
    "m": "m",
    "m.": "m",
    "metre": "m",
    "metres": "m",
    "meter": "m",
    "meters": "m",
}
_NUMBER = re.compile(
    r"""(?:(?P<whole>\d+)[ \-]+)?(?P<num>\d+)\s*/\s*(?P<den>\d+)   # 3 7/8, 3-7/8, 7/8
      | (?P<dec>\d+[.,]\d+|[.,]\d+|\d+[.,]?)                       # 3.875, 3,875, .5, 3
    """,
    re.VERBOSE | re.ASCII,
)
_SIZES = {"in": Fraction(1), "mm": 1 / MM_PER_INCH, "cm": 10 / MM_PER_INCH, "yd": Fraction(36), "m": 1000 / MM_PER_INCH}
"""Inches; cloth is bought by the yard and the metre, and written down so."""


_BESIDE = Fraction(THREAD)
_BY_A_THREAD = re.compile(
    r"""^(?:an?\s)?(?P<before>scant|threads?\s(?:under|over))\s(?P<after_it>.*\d.*)$
      | ^(?P<before_it>.*\d.*?)\s(?P<after>scant|(?:less|minus|and|plus)\sa\sthread|a\sthread\s(?:under|over))$
    """,
    re.VERBOSE,
)
"""What a hand adds to a mark or takes off it; a scant quarter is a thread under a quarter."""
_MORE = ("over", "and", "plus")


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

    Takes ``3 7/8``, ``3-7/8``, ``3 7/8"``, ``3.875``, ``3⅞``, ``98 mm``, ``9.8cm``, ``2 1/2 yd``, ``1.5 m``, ``scant 1/4`` and
    ``a thread over 3/16`` (1/64 in. beside the mark). A bare decimal or whole number is in ``measure``; a bare fraction is always
    inches. Raises ``LengthNotUnderstood`` (with the reason in words) or ``LengthOutOfRange`` (negative, or beyond 10,000 in.).
    """
    plain = _plain(text)
    if not plain:
        raise LengthNotUnderstood(text, "nothing was typed.")
    if len(plain) > _LONGEST_TEXT:
        raise LengthNotUnderstood(f"{text[:12]}…", "it is far too long for a length.")
    plain, thread = _apart_from_thread(plain)
    negative = plain.startswith("-")
    body = plain[1:].strip() if negative else plain
    found = _NUMBER.match(body)
    if not found:
        raise LengthNotUnderstood(text, Message("it begins with “{start}”, which is no number.", start=body[:12]))
    rest = body[found.end() :].strip()
    unit = _unit(text, rest)
    value = _value(text, found)
    inches = value * _SIZES[unit or ("in" if found["den"] else measure.value)] + thread
    if negative and not signed:
        raise LengthOutOfRange("“{text}” is below zero. A length here is zero or more.", text=text)
    if inches < 0:
        raise LengthOutOfRange("“{text}” is below zero. A length here is zero or more.", text=text)
    if inches > LONGEST.rational:
        raise LengthOutOfRange("“{text}” is longer than anything here can be (10,000 in.).", text=text)
    return Length.of(-inches if negative else inches)


def _apart_from_thread(plain: str) -> tuple[str, Fraction]:
    """A length and what "scant" or "a thread over" adds to it, inches."""
    found = _BY_A_THREAD.match(plain)
    if found is None:
        return plain, Fraction(0)
    words = found["before"] or found["after"]
    return found["after_it"] or found["before_it"], _BESIDE if any(w in words for w in _MORE) else -_BESIDE


def _unit(text: str, rest: str) -> str | None:
    if rest in _UNIT_WORDS:
        return _UNIT_WORDS[rest]
    if re.search(r"\d", rest):
        if re.search(r"[a-z\"″]", rest):
            raise LengthNotUnderstood(text, "it mixes two measures or holds two numbers. Give one length in one unit.")
        raise LengthNotUnderstood(text, Message("“{rest}” is left over after the number.", rest=rest))
    raise LengthNotUnderstood(text, Message("“{rest}” is no unit known here (in, mm, cm, yd or m).", rest=rest))


def _value(text: str, found: re.Match[str]) -> Fraction:
    if found["den"]:
        if int(found["den"]) == 0:
            raise LengthNotUnderstood(text, "a fraction cannot have 0 below the line.")
        if len(found["den"]) > 5 or len(found["num"]) > 6:
            raise LengthNotUnderstood(text, "the fraction is finer than any ruler.")
        whole = int(found["whole"] or 0)
        part = Fraction(int(found["num"]), int(found["den"]))
        if whole and part >= 1:
            raise LengthNotUnderstood(
                text, Message("{part} after a whole number must be less than 1.", part=f"{found['num']}/{found['den']}")
            )
        return whole + part
    decimal = found["dec"].replace(",", ".")
    if len(decimal.partition(".")[2]) > MOST_DECIMALS:
        raise LengthNotUnderstood(text, "it has more than 6 decimals, finer than any ruler.")
    return Fraction(decimal if decimal[-1] != "." else decimal[:-1])


FINEST_STEP = Length.of(Fraction(1, 64))
"""The finest mark on a ruler; half a millimetre is a little more."""
_COARSEST_STEP = Length.of(1)


def parse_step(text: str, measure: Measure = Measure.INCHES) -> Length:
    """A ruler's step: from 1/64 in., the finest mark that is made, to 1 in. Raises ``LengthOutOfRange``."""
    step = parse_length(text, measure)
    if not FINEST_STEP <= step <= _COARSEST_STEP:
        raise LengthOutOfRange(
            "“{text}” is no ruler's step. Give one between {least} and {most}.",
            text=text,
            least=FINEST_STEP,
            most=_COARSEST_STEP,
        )
    return step
