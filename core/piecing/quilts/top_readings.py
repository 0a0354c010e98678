"""Readings of a top, from raw edge to raw edge: what each should be, which of them are gone by, and their mean.

Source: docs/theory, section 18.4.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass

from ..errors import CountOutOfRange
from ..lengths import ZERO, Length, inches
from ..messages import Message
from .choices import QuiltChoices

__all__ = [
    "THREE",
    "KnownLengths",
    "TopLength",
    "TopReading",
    "TopStep",
    "check_top_length",
    "mean_of",
    "misread",
    "reading",
    "three_lengths",
    "used_values",
]

THREE = 3
"""So many lengths have a mean that cloth is cut by."""
_LONGEST = inches(250)
_FAR, _FAR_AT_LEAST = 20, inches(1)
"""Blocks all sewn too deep make a top a twentieth smaller at the utmost: what is further off was misread."""


@dataclass(frozen=True, slots=True)
class TopLength:
    """What was measured, and what was planned there when it was."""

    value: Length
    planned: Length


KnownLengths = Mapping[str, TopLength]
"""What was measured, by the names of the places."""


@dataclass(frozen=True, slots=True)
class TopReading:
    """One place where the top is measured: ``key`` its name, ``planned`` what it should be by the plan alone, ``expected`` what it should be
    by all that was measured before it, ``value`` what it was; ``stale`` when the quilt has been planned otherwise since: it is shown, and
    not used. ``note`` says what it should be where its neighbours should be something else; ``finished`` is what is easily read in its place:
    the size between seams."""

    key: str
    where: Message
    planned: Length
    expected: Length
    value: Length | None = None
    stale: bool = False
    note: Message | None = None
    finished: Length | None = None

    @property
    def used(self) -> bool:
        """Whether it is gone by."""
        return self.value is not None and not self.stale and not self.far

    @property
    def far(self) -> bool:
        """So far from what it should be, or just the finished size, that it was misread; nothing is cut by it."""
        if self.value is None or self.stale:
            return False
        return self.value == self.finished or abs(self.value - self.expected) > max(_FAR_AT_LEAST, self.expected / _FAR)


@dataclass(frozen=True, slots=True)
class TopStep:
    """One stage at which the top is measured; ``said`` what follows from what was measured."""

    key: str
    title: Message
    how: Message
    readings: tuple[TopReading, ...]
    said: tuple[Message, ...] = ()


def check_top_length(value: Length) -> None:
    """Raises ``CountOutOfRange`` for what no top measures."""
    if not ZERO < value <= _LONGEST:
        raise CountOutOfRange(
            "A top measures up to {most}. Check whether inches or millimetres are meant.", field="value", most=_LONGEST
        )


def reading(
    key: str, where: Message, planned: Length, expected: Length, known: KnownLengths, note: Message | None = None
) -> TopReading:
    """The place with what is known of it."""
    found = known.get(key)
    if found is None:
        return TopReading(key, where, planned, expected, note=note)
    return TopReading(key, where, planned, expected, found.value, found.planned != planned, note)


def used_values(readings: Iterable[TopReading]) -> list[Length]:
    """Those that are gone by."""
    return [r.value for r in readings if r.used and r.value is not None]


def misread(readings: Iterable[TopReading]) -> Iterator[Message]:
    """What is to be looked at again."""
    for r in readings:
        if r.value is not None and r.far:
            yield Message(
                "{value} is the finished size; raw edge to raw edge it should be {expected}. Look at it again: nothing is cut by it."
                if r.value == r.finished
                else "{value} is far from {expected}. Look at it again: nothing is cut by it.",
                value=r.value,
                expected=r.expected,
            )


def three_lengths(
    key: str, edges: tuple[str, str], planned: Length, expected: Length, known: KnownLengths
) -> tuple[TopReading, ...]:
    """Three places along which something is measured: near one edge, through the middle, near the other."""
    places = (
        Message("Near the {edge}", edge=edges[0]),
        Message("Through the middle"),
        Message("Near the {edge}", edge=edges[1]),
    )
    return tuple(reading(f"{key} {n}", where, planned, expected, known) for n, where in enumerate(places, 1))


def mean_of(c: QuiltChoices, values: list[Length]) -> Length:
    """By the marks of the ruler."""
    return (sum(values, ZERO) / len(values)).round_near(c.ruler_step)
