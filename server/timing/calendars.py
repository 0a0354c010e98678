"""Evenings as iCalendar (RFC 5545): those of the plan that was kept, out; when one is busy, in.

Times go out without a zone, as the clock on the wall shows them. Of a calendar that comes in only times are kept.
"""

from __future__ import annotations

from collections.abc import Collection, Iterable, Iterator
from datetime import UTC, date, datetime, time, timedelta
from typing import Any
from uuid import UUID

import recurring_ical_events
from django.utils import timezone
from icalendar import Calendar, Event

from piecing.errors import CalendarNotUnderstood
from piecing.timing import Stretch

from .models import KeptSitting

__all__ = ["AHEAD", "busy_in", "calendar_of", "moment", "wall_clock"]

AHEAD = timedelta(days=400)
"""How far ahead a calendar is read, and free time is looked for."""
_MOST = 5_000
_LONGEST = 1_500_000


def wall_clock(at: datetime) -> str:
    return at.strftime("%Y-%m-%dT%H:%M")


def moment(text: str) -> datetime:
    """By the clock on the wall, without a zone."""
    return datetime.strptime(text, "%Y-%m-%dT%H:%M")


def calendar_of(rows: Iterable[KeptSitting], texts: dict[UUID, tuple[str, str]]) -> bytes:
    """One event a sitting, cancelled ones too, so that a calendar that has them already takes them out; ``texts`` are the summary
    and the description of each."""
    calendar = Calendar()
    calendar.add("prodid", "-//Entretoile//Sittings//EN")
    calendar.add("version", "2.0")
    calendar.add("method", "PUBLISH")
    for row in rows:
        event = Event()
        summary, description = texts[row.pk]
        event.add("uid", str(row.pk))
        event.add("dtstamp", row.kept_at.astimezone(UTC))
        event.add("dtstart", moment(row.begins))
        event.add("dtend", moment(row.ends))
        event.add("sequence", row.sequence)
        event.add("status", "CANCELLED" if row.cancelled else "CONFIRMED")
        event.add("summary", summary)
        event.add("description", description)
        calendar.add_component(event)
    return bytes(calendar.to_ical())


def busy_in(text: str, own: Collection[str], today: date) -> list[Stretch]:
    """When a calendar says one is busy, from today on, by the clock on the wall here. Events that are free or cancelled do not count,
    nor do sittings of one's ``own`` that the calendar took in. Raises ``CalendarNotUnderstood``."""
    if len(text) > _LONGEST:
        raise CalendarNotUnderstood("This calendar is larger than 1.5 MB. Save one with fewer years in it.")
    first, last = today, today + AHEAD
    found: list[Stretch] = []
    told: list[Any] = []
    try:
        calendars = Calendar.from_ical(text.lstrip("\ufeff \r\n\t"), multiple=True)
        for calendar in calendars:
            if calendar.name != "VCALENDAR":
                raise ValueError
            for event in recurring_ical_events.of(calendar, skip_bad_series=True).between(first, last):
                if str(event.get("UID", "")) in own or str(event.get("TRANSP", "")).upper() == "TRANSPARENT":
                    continue
                if str(event.get("STATUS", "")).upper() == "CANCELLED":
                    continue
                found += _stretch(event["DTSTART"].dt, event["DTEND"].dt if "DTEND" in event else None)
            found += [s for c in calendar.walk("VFREEBUSY") for s in _periods(c)]
            told += calendar.walk("VEVENT") + calendar.walk("VFREEBUSY")
            if len(found) > _MOST:
                raise CalendarNotUnderstood(
                    "This calendar has more than {most} times in the next year. Save one with fewer.", most=f"{_MOST:,}"
                )
    except CalendarNotUnderstood:
        raise
    except (ValueError, KeyError, IndexError, TypeError, AttributeError, OverflowError):
        raise CalendarNotUnderstood(
            "This is not a calendar in the iCalendar format. Save it from your calendar as a file that ends in .ics, and choose that."
        ) from None
    if not found and all(c.errors for c in told):
        raise CalendarNotUnderstood(
            "No time can be read in this calendar. Save it anew, with its events, and choose that file."
        )
    bounds = datetime.combine(first, time()), datetime.combine(last, time())
    return sorted(s for s in set(found) if s.ends > bounds[0] and s.begins < bounds[1])


def _periods(component: Any) -> Iterator[Stretch]:
    given = component.get("FREEBUSY", [])
    for prop in given if isinstance(given, list) else [given]:
        if str(prop.params.get("FBTYPE", "BUSY")).upper() == "FREE":
            continue
        for period in getattr(prop, "dts", [prop]):
            yield from _stretch(period.start, period.end)


def _stretch(begins: Any, ends: Any) -> Iterator[Stretch]:
    if ends is None:
        ends = begins if isinstance(begins, datetime) else begins + timedelta(days=1)
    since, until = _here(begins), _here(ends)
    if until > since:
        yield Stretch(since, until)


def _here(at: Any) -> datetime:
    """Without a zone it means the clock on the wall already; a day begins at midnight."""
    if not isinstance(at, datetime):
        return datetime.combine(at, time())
    return at if at.tzinfo is None else timezone.localtime(at).replace(tzinfo=None)
