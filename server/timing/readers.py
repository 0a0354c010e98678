"""What is typed of minutes, times of the clock and days to come."""

from __future__ import annotations

import re
from datetime import date, datetime, time, timedelta
from typing import Any

from django.utils import timezone
from rest_framework import serializers

from api.patches import Reader
from api.readers import maybe_whole_reader, note_reader, one_of_reader, yes_no_reader
from piecing.days import day_words, read_day
from piecing.errors import DayImpossible, TimeNotUnderstood
from setups.commands import day_reader

from .models import RHYTHMS, STAGES

__all__ = ["clock_reader", "free_readers", "minutes_reader", "moment_reader", "schedule_readers", "time_readers"]

_CLOCK = re.compile(
    r"\s*(?P<hour>\d{1,2})\s*(?:[:.h]\s*(?P<minute>\d{2}))?\s*(?:(?P<half>[ap])\.?\s?m\.?)?\s*", re.I | re.ASCII
)
_MINUTES = re.compile(
    r"\s*(?:(\d{1,3})\s*(?:h|hours?|:)\s*)?(?:(\d{1,4}(?:[.,]\d{1,2})?)\s*(?:m|min|minutes?)?)?\s*", re.I | re.ASCII
)
_MOST_MINUTES = 24 * 60
_AHEAD = timedelta(days=3_660)


def clock_reader() -> Reader:
    """A time of the clock: 19:30, 19.30, 19h30, 19 or 7:30 pm."""

    def read(value: Any) -> time:
        found = _CLOCK.fullmatch(value.isoformat()[:5] if isinstance(value, time) else str(value))
        if found:
            hour, minute, half = int(found["hour"]), int(found["minute"] or 0), (found["half"] or "").lower()
            if half and 1 <= hour <= 12:
                hour = hour % 12 + (12 if half == "p" else 0)
                half = ""
            if not half and hour < 24 and minute < 60:
                return time(hour, minute)
        raise TimeNotUnderstood("A time is written 19:30, or 7:30 pm.")

    return Reader(read)


def minutes_reader() -> Reader:
    """Minutes, at most a day of them: 35, 35 min, 1:20, 1 h 20. Nothing: not known."""

    def read(value: Any) -> float | None:
        text = "" if value is None else str(value).strip()
        if not text:
            return None
        found = _MINUTES.fullmatch(text)
        minutes = 60 * int(found[1] or 0) + float((found[2] or "0").replace(",", ".")) if found else 0.0
        if not 0 < minutes <= _MOST_MINUTES:
            raise TimeNotUnderstood("Give minutes, such as 35, or 1:20 for an hour and twenty; at most a day.")
        return minutes

    return Reader(read)


def moment_reader() -> Reader:
    """A moment by the browser's clock, with its zone; not later than tomorrow."""

    def read(value: Any) -> datetime | None:
        if value in (None, ""):
            return None
        try:
            at = datetime.fromisoformat(str(value).replace("Z", "+00:00"))
        except ValueError:
            at = None
        if at is None or at.tzinfo is None or at.year < 1990:
            raise TimeNotUnderstood("A moment is written 2026-11-27T19:30:00+00:00.")
        if at > timezone.now() + timedelta(days=1):
            raise DayImpossible("{day} has not come yet. Give the day on which it was done.", day=day_words(at.date()))
        return at

    return Reader(read)


def _day_to_come(value: Any) -> date | None:
    if value in (None, ""):
        return None
    day = read_day(str(value), timezone.localdate(), to_come=True)
    if not timezone.localdate() - _AHEAD < day < timezone.localdate() + _AHEAD:
        raise DayImpossible("{day} is more than ten years away. Look at the year again.", day=day_words(day))
    return day


def time_readers() -> dict[str, Reader]:
    """Of a stretch of work: ``day`` sets when it began, at noon, where it was not timed."""
    day = day_reader()
    return {
        "stage": one_of_reader(STAGES, "stage"),
        "day": Reader(lambda v: day(v).isoformat()),
        "minutes": minutes_reader(),
        "count": maybe_whole_reader(99_999, "How many"),
        "note": note_reader(200),
    }


def free_readers() -> dict[str, Reader]:
    def weekday(value: Any) -> int:
        if str(value) not in "0123456" or len(str(value)) != 1:
            raise DayImpossible("A week has seven days, Monday to Sunday.")
        return int(value)

    return {
        "weekday": Reader(weekday, lambda: serializers.IntegerField(min_value=0, max_value=6)),
        "begins": clock_reader(),
        "ends": clock_reader(),
    }


def schedule_readers() -> dict[str, Reader]:
    return {
        "planned": yes_no_reader,
        "rhythm": one_of_reader(RHYTHMS, "rhythm"),
        "first": Reader(_day_to_come),
    }
