"""Free evenings: the hours that are usually free, less what a calendar holds.

Days and times are as the clock on the wall shows them. Source: docs/theory, section 17.3.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date, datetime, time, timedelta

from ..errors import DayImpossible

__all__ = ["SHORTEST", "Stretch", "Weekly", "free_stretches"]

SHORTEST = 15
"""Minutes: a shorter time is not worth sitting down for."""


@dataclass(frozen=True, slots=True)
class Weekly:
    """Free every week on this day (0 for Monday), from and to a time of the clock. Raises ``DayImpossible`` unless it ends
    after it begins."""

    weekday: int
    begins: time
    ends: time

    def __post_init__(self) -> None:
        if not 0 <= self.weekday <= 6:
            raise DayImpossible("A week has seven days, Monday to Sunday.", field="weekday")
        if self.ends <= self.begins:
            raise DayImpossible(
                "It ends before it begins. Give a time that ends on the same day, such as 19:30 to 21:00.", field="ends"
            )


@dataclass(frozen=True, slots=True, order=True)
class Stretch:
    """From one moment to another, by the clock on the wall."""

    begins: datetime
    ends: datetime

    @property
    def minutes(self) -> float:
        """How long it is."""
        return (self.ends - self.begins).total_seconds() / 60


def free_stretches(weekly: Sequence[Weekly], busy: Iterable[Stretch], now: datetime, last: date) -> list[Stretch]:
    """Every free stretch from ``now`` to the end of the ``last`` day, in order, those that touch made one, each 15 minutes at
    least."""
    taken, found = sorted(busy), []
    day = now.date()
    while day <= last:
        today = sorted(
            Stretch(datetime.combine(day, w.begins), datetime.combine(day, w.ends))
            for w in weekly
            if w.weekday == day.weekday()
        )
        for stretch in _join(today):
            found += _without(Stretch(max(stretch.begins, now), stretch.ends), taken)
        day += timedelta(days=1)
    return [s for s in found if s.minutes >= SHORTEST]


def _join(stretches: Sequence[Stretch]) -> list[Stretch]:
    found: list[Stretch] = []
    for s in stretches:
        if found and s.begins <= found[-1].ends:
            found[-1] = Stretch(found[-1].begins, max(found[-1].ends, s.ends))
        else:
            found.append(s)
    return found


def _without(stretch: Stretch, taken: Sequence[Stretch]) -> list[Stretch]:
    found, begins = [], stretch.begins
    for t in taken:
        if t.ends <= begins or t.begins >= stretch.ends:
            continue
        if t.begins > begins:
            found.append(Stretch(begins, t.begins))
        begins = t.ends
    if begins < stretch.ends:
        found.append(Stretch(begins, stretch.ends))
    return found
