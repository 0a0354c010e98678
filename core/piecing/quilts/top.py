"""The top as it measures: rows sewn and measured before they are joined, and borders cut to the mean of three lengths.

Every length here is from raw edge to raw edge, with both allowances. Source: docs/theory, section 18.4.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from ..errors import CountOutOfRange
from ..lengths import ZERO, Length, finest_mark, inches
from ..messages import Message
from ..tolerances import EASED, LEAST_FRAME, UNEVEN
from .borders import Round, mitre_over
from .choices import Corners, QuiltChoices, Setting, strip_cut
from .sizes import QuiltSizes

__all__ = ["TopLength", "TopReading", "TopStep", "check_top_length", "top_steps"]

_THREE, _LONGEST = 3, inches(250)


@dataclass(frozen=True, slots=True)
class TopLength:
    """What was measured, and what was planned there when it was."""

    value: Length
    planned: Length


@dataclass(frozen=True, slots=True)
class TopReading:
    """One place where the top is measured: ``key`` its name, ``planned`` what it should be, ``value`` what it was; ``stale`` when the quilt has
    been planned otherwise since: it is shown, and not used."""

    key: str
    where: Message
    planned: Length
    value: Length | None = None
    stale: bool = False


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


def top_steps(sizes: QuiltSizes, known: Mapping[str, TopLength]) -> tuple[TopStep, ...]:
    """What to measure as the top grows, in the order in which it is sewn, and what is cut to it. ``known`` by the names of the places."""
    steps = [*_rows(sizes, known)]
    for r in sizes.rounds:
        steps += _round(sizes.choices, r, known)
    return tuple(steps)


def _reading(key: str, where: Message, planned: Length, known: Mapping[str, TopLength]) -> TopReading:
    found = known.get(key)
    if found is None:
        return TopReading(key, where, planned)
    return TopReading(key, where, planned, found.value, stale=found.planned != planned)


def _used(readings: tuple[TopReading, ...]) -> list[Length]:
    return [r.value for r in readings if r.value is not None and not r.stale]


def _mean(values: list[Length], step: Length) -> Length:
    return (sum(values, ZERO) / len(values)).round_near(step)


def _rows(sizes: QuiltSizes, known: Mapping[str, TopLength]) -> Iterator[TopStep]:
    c = sizes.choices
    if c.setting is not Setting.STRAIGHT or c.rows < 2:
        return
    planned = (sizes.centre_width + c.seam_allowance * 2).round_near(finest_mark(c.ruler_step))
    readings = tuple(_reading(f"row {n}", Message("Row {n}", n=n), planned, known) for n in range(1, c.rows + 1))
    how = Message("Each row of blocks, sewn and pressed, along its middle. Should be {planned}.", planned=planned)
    yield TopStep("rows", Message("Rows, before they are joined"), how, readings, tuple(_of_rows(c, readings)))


def _of_rows(c: QuiltChoices, readings: tuple[TopReading, ...]) -> Iterator[Message]:
    values = _used(readings)
    if len(values) < 2:
        return
    # What one block can be eased, a row can be as often as it has blocks. A row further off is looked into, not gone by.
    limit, middle = EASED * c.columns, sorted(values)[len(values) // 2]
    mean = _mean([v for v in values if abs(float(v - middle)) <= limit], c.ruler_step)
    if c.sash > ZERO and not c.cornerstones and len(values) == len(readings):
        yield Message(
            "Cut the sashes between rows {wide} × {long}, the mean of the rows.",
            wide=strip_cut(c, c.sash),
            long=mean,
        )
    off = [(r, r.value - mean) for r in readings if r.value is not None and not r.stale]
    off = [(r, by) for r, by in off if abs(float(by)) > EASED]
    for r, by in off:
        yield Message(
            "{row} is {by} {way} than {mean}: ease it in, a little at every block."
            if abs(float(by)) <= limit
            else "{row} is {by} {way} than {mean}, more than can be eased. Before it is joined, look at its seams and at each of its blocks.",
            row=r.where,
            by=abs(by),
            way="longer" if by > ZERO else "shorter",
            mean=mean,
        )
    if not off:
        yield Message("They are alike, as near as they need be.")


@dataclass(frozen=True, slots=True)
class _Pair:
    """Both pairs of sides of one border as measured: the mean of three, or None while not all are."""

    across: Length | None
    down: Length | None


def _round(c: QuiltChoices, r: Round, known: Mapping[str, TopLength]) -> tuple[TopStep, TopStep]:
    s2, mark = c.seam_allowance * 2, finest_mark(c.ruler_step)
    overlapped = r.row is None and r.border.corners is Corners.OVERLAPPED
    wide = ((r.wide if overlapped else r.width) + s2).round_near(mark)
    high = (r.height + s2).round_near(mark)
    down = _three(f"border {r.number} down", ("left edge", "right edge"), high, known)
    across = _three(f"border {r.number} across", ("upper edge", "lower edge"), wide, known)
    means = _Pair(*(_mean(v, c.ruler_step) if len(v := _used(x)) == _THREE else None for x in (across, down)))
    first = Message("Before {border}, from top to bottom", border=r.name)
    second = Message(
        "With the sides of {border} on, from side to side" if overlapped else "Before {border}, from side to side",
        border=r.name,
    )
    sides, ends = _cut_for(c, r, means)
    return (
        TopStep(f"border {r.number} down", first, _how(high), down, (*_apart(down), *sides)),
        TopStep(f"border {r.number} across", second, _how(wide), across, (*_apart(across), *ends)),
    )


def _three(key: str, edges: tuple[str, str], planned: Length, known: Mapping[str, TopLength]) -> tuple[TopReading, ...]:
    places = (
        Message("Near the {edge}", edge=edges[0]),
        Message("Through the middle"),
        Message("Near the {edge}", edge=edges[1]),
    )
    return tuple(_reading(f"{key} {n}", where, planned, known) for n, where in enumerate(places, 1))


def _how(planned: Length) -> Message:
    return Message("The top lies flat and is not pulled. Should be {planned}.", planned=planned)


def _apart(readings: tuple[TopReading, ...]) -> Iterator[Message]:
    values = _used(readings)
    if len(values) < 2 or max(values) - min(values) <= Length.near(UNEVEN):
        return
    yield Message(
        "They differ by {by}: before anything is cut, look whether an edge was stretched or a row or column strays. Borders of one length "
        "bring both edges to it.",
        by=max(values) - min(values),
    )


def _cut_for(c: QuiltChoices, r: Round, m: _Pair) -> tuple[list[Message], list[Message]]:
    """What to cut for the sides, and for the top and bottom, as far as it is known."""
    if r.row is not None:
        return _strips_inside(c, r, m)
    over = r.border.width * 2 + mitre_over(c) if r.border.corners is Corners.MITRED else ZERO
    strip = strip_cut(c, r.border.width)
    sides = [Message("Cut both sides {wide} × {long}.", wide=strip, long=m.down + over)] if m.down else []
    ends = (
        [Message("Cut the top and the bottom {wide} × {long}.", wide=strip, long=m.across + over)] if m.across else []
    )
    return sides, ends


def _strips_inside(c: QuiltChoices, r: Round, m: _Pair) -> tuple[list[Message], list[Message]]:
    """Of a pieced border: what the plain strips inside it must be for the row to fit round what was measured. A strip cut s wide adds
    s less two allowances on each side."""
    s2 = c.seam_allowance * 2
    wide, high = (size + s2 for size in r.inner)
    sides: list[Message] = []
    ends: list[Message] = []
    for found, measured, target, other, where in (
        (sides, m.across, wide, m.down, "at the sides"),
        (ends, m.down, high, wide, "above and below"),
    ):
        if measured is None or other is None:
            continue
        shows = (target - measured) / 2
        if float(shows) >= LEAST_FRAME:
            found.append(
                Message(
                    "Cut the plain strips {where} {wide} × {long}: then the pieced row fits.",
                    where=where,
                    wide=strip_cut(c, shows),
                    long=other,
                )
            )
        else:
            found.append(_unfilled(target - measured))
    return sides, ends


def _unfilled(short: Length) -> Message:
    """Where no strip fits between: the row is sewn on as it is."""
    if short == ZERO:
        return Message("The pieced row fits as it is.")
    return Message(
        "The top is {by} {way} than the pieced row beside it, too little for a strip: {do}.",
        by=abs(short),
        way="shorter" if short > ZERO else "longer",
        do="take in a thread at some seams of the row" if short > ZERO else "ease the top in along the row",
    )
