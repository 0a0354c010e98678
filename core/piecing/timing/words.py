"""Minutes and days as one says them."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from typing import Any

from ..days import day_words

__all__ = ["Day", "Minutes"]

_DAYS = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")


@dataclass(frozen=True, slots=True)
class Minutes:
    """A time to be said: to the minute below twenty, to five up to three hours, to the quarter of an hour beyond."""

    minutes: float

    def rounded_minutes(self) -> int:
        """As it is said, in minutes; never less than one."""
        step = 1 if self.minutes < 20 else 5 if self.minutes < 180 else 15
        return max(1, step * round(self.minutes / step))

    def set_in(self, style: Any, /) -> str:
        """The same in either measure."""
        del style
        hours, minutes = divmod(self.rounded_minutes(), 60)
        told = []
        if hours:
            told.append("1 hour" if hours == 1 else f"{hours:,} hours")
        if minutes:
            told.append("1 minute" if minutes == 1 else f"{minutes} minutes")
        return " ".join(told)

    def __str__(self) -> str:
        return self.set_in(None)


@dataclass(frozen=True, slots=True)
class Day:
    """A day to be said: Tuesday 1 December, with the year where it is not this one."""

    day: date
    today: date

    def set_in(self, style: Any, /) -> str:
        """The same in either measure."""
        del style
        return f"{_DAYS[self.day.weekday()]} {day_words(self.day, year=self.day.year != self.today.year)}"

    def __str__(self) -> str:
        return self.set_in(None)
