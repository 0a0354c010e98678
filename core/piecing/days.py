"""Days as people write and say them. Not "today": what is typed may wait in a browser until tomorrow, and is another day then."""

from __future__ import annotations

import re
from datetime import date, timedelta

from .errors import DayImpossible

__all__ = ["day_words", "read_day"]

_MONTHS = ("January", "February", "March", "April", "May", "June", "July", "August", "September", "October", "November", "December")  # fmt: skip
_NAME = r"(?P<name>[a-z]{3,9})\.?"
_WAYS = tuple(
    re.compile(way, re.ASCII)
    for way in (
        r"(?P<year>\d{4})-(?P<month>\d{2})-(?P<day>\d{2})",
        r"(?P<day>\d{1,2})\.\s?(?P<month>\d{1,2})\.\s?(?P<year>\d{4})?",
        rf"(?P<day>\d{{1,2}})\.?\s{_NAME},?(?:\s(?P<year>\d{{4}}))?",
        rf"{_NAME}\s(?P<day>\d{{1,2}})(?:st|nd|rd|th)?,?(?:\s(?P<year>\d{{4}}))?",
    )
)
_SLASHED = re.compile(r"(?P<month>\d{1,2})/(?P<day>\d{1,2})(?:/(?P<year>\d{4}))?", re.ASCII)


def day_words(day: date, *, year: bool = True) -> str:
    """A day as one says it: 25 November 2026."""
    return f"{day.day} {_MONTHS[day.month - 1]}" + (f" {day.year}" if year else "")


def read_day(text: str, today: date, *, to_come: bool = False) -> date:
    """A day: ``2026-11-25``, ``25.11.2026``, ``25 Nov``, ``November 25, 2026``, ``11/25/2026``. Without a year it is the last one that has come, up to tomorrow, or the next one ``to_come``, from yesterday on.

    Raises ``DayImpossible`` for one that does not exist, and for ``11/12/2026``, which two people read as two days.
    """
    plain = re.sub(r"\s+", " ", text).strip().lower()
    found = next((m for way in (*_WAYS, _SLASHED) if (m := way.fullmatch(plain))), None)
    if found is None:
        raise DayImpossible("A day is written 2026-11-25, or 25 Nov.", given=text[:20])
    parts = found.groupdict()
    month = _month(parts["name"]) if "name" in parts else int(parts["month"])
    ways = [(month, int(parts["day"]))]
    if found.re is _SLASHED:
        ways.append((ways[0][1], month))
    years = [int(parts["year"])] if parts["year"] else _years(today, to_come)
    latest, earliest = today + timedelta(days=1), today - timedelta(days=1)
    days = set()
    for month, day in ways:
        those = [d for y in years if (d := _day(y, month, day))]
        fitting = [d for d in those if (d >= earliest if to_come else d <= latest)]
        days.update((fitting or those)[:1])
    if not days:
        raise DayImpossible("There is no such day as “{given}”. Write it 25 Nov 2026 or 2026-11-25.", given=text[:20])
    if len(days) > 1:
        raise DayImpossible("“{given}” may be two days. Write it 25 Nov 2026 or 2026-11-25.", given=text[:20])
    return days.pop()


def _years(today: date, to_come: bool) -> list[int]:
    """Those that a day without one may be of, the likeliest first; as many as lie between two leap years."""
    return list(range(today.year - 1, today.year + 9) if to_come else range(today.year + 1, today.year - 9, -1))


def _month(name: str) -> int:
    return next((n for n, m in enumerate(map(str.lower, _MONTHS), 1) if name in (m, m[:3], m[:4])), 0)


def _day(year: int, month: int, day: int) -> date | None:
    try:
        return date(year, month, day)
    except ValueError:
        return None
