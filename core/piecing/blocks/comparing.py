"""Checking by eye, by computation: what else a place could look like, and which unit lies wrong.

Source: docs/theory, section 12.4.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace
from functools import lru_cache

from ..lengths import Length
from ..messages import Listing, Message
from .editing import whole_turned
from .geometry import cell_middle, placed_parts
from .pattern import Orientation, Pattern, Place, layout_of

__all__ = ["Alternative", "Finding", "Misplaced", "alternatives", "compare_patterns"]

_ONE = Length.of(1)
Signature = frozenset[tuple[str, frozenset[tuple[int, int]]]]

ORIENTATIONS = tuple(Orientation(turn, mirrored) for mirrored in (False, True) for turn in range(4))
_TURNED = {1: "a quarter to the right", 2: "half round", 3: "a quarter to the left"}


@lru_cache(maxsize=4096)
def _place_signature(place: Place, wide: object, high: object) -> Signature:
    """What one sees in a place, about its middle; equal for places that cannot be told apart."""
    alone = Pattern("place", (wide,), (high,), (replace(place, column=0, row=0, across=1, down=1),))  # type: ignore[arg-type]
    layout = layout_of(alone)
    seen = []
    for cell in layout.cells:
        x, y = cell_middle(layout, cell, 1.0)
        x, y = x - float(alone.width) / 2, y - float(alone.height) / 2
        for p in placed_parts(cell.spec(_ONE), cell.orientation):
            seen.append((p.role, frozenset((round((px + x) * 4096), round((py + y) * 4096)) for px, py in p.outline)))
    return frozenset(seen)


def _seen_signature(pattern: Pattern, place: Place) -> Signature:
    _, _, wide, high = pattern.box(place)
    return _place_signature(place, wide, high)


@dataclass(frozen=True, slots=True)
class Alternative:
    """How a unit would look lying another way; ``lie`` is what to set, ``as_it_is`` tells the present one,
    ``pattern`` is the whole block with it."""

    said: Message
    orientation: Orientation
    as_it_is: bool
    pattern: Pattern


def alternatives(pattern: Pattern, spot: tuple[int, int]) -> tuple[Alternative, ...]:
    """Every way in which what lies at a spot can look there, each way of looking once; empty for an empty place."""
    here = pattern.at(*spot)
    if here is None:
        return ()
    _, _, wide, high = pattern.box(here)
    found: dict[Signature, Alternative] = {}
    for step in ORIENTATIONS:
        if step.across and wide != high:
            continue
        orientation = here.orientation.then(step)
        other = replace(
            pattern, places=tuple(replace(p, orientation=orientation) if p is here else p for p in pattern.places)
        )
        place = next(p for p in other.places if (p.column, p.row) == (here.column, here.row))
        shown = _seen_signature(other, place)
        if shown not in found:
            found[shown] = Alternative(_step_said(step), orientation, step == Orientation(), other)
    return tuple(found.values())


def _step_said(step: Orientation) -> Message:
    if step == Orientation():
        return Message("as it lies")
    turned = Message("turned {how}", how=_TURNED[step.turn]) if step.turn else None
    said = [w for w in (Message("mirrored") if step.mirrored else None, turned) if w]
    return Message("{said}", said=Listing(said, " and "))


@dataclass(frozen=True, slots=True)
class Misplaced:
    """One place that is not as meant: ``what`` is turned, mirrored, fabrics, other, missing or extra."""

    column: int
    row: int
    what: str
    said: Message


@dataclass(frozen=True, slots=True)
class Finding:
    """``whole`` is how the whole lies against what was meant, in quarters; ``faults`` is then the shortest list."""

    faults: tuple[Misplaced, ...]
    whole: int
    said: Message


def compare_patterns(meant: Pattern, seen: Pattern) -> Finding:
    """Find the turned unit: what is on the table against what was meant, place by place.

    A whole block that lies turned is told as such: of its four turns the one with the fewest faults is kept.
    """
    tries = []
    for quarters in (0, 1, 2, 3):
        turned = whole_turned(seen, quarters)
        if (turned.columns, turned.rows) == (meant.columns, meant.rows):
            tries.append((quarters, tuple(_faults(meant, turned))))
    if not tries:
        return Finding((), 0, Message("These two have different grids; they cannot be compared place by place."))
    quarters, faults = min(tries, key=lambda t: (len(t[1]), t[0]))
    return Finding(faults, -quarters % 4, _summary(faults, -quarters % 4))


def _summary(faults: tuple[Misplaced, ...], whole: int) -> Message:
    if whole:
        return Message(
            "The block lies {how}; apart from that, {n, plural, =0 {every unit lies as meant} one {one unit does not lie as "
            "meant} other {# units do not lie as meant}}.",
            how=_TURNED[whole],
            n=len(faults),
        )
    return Message(
        "{n, plural, =0 {Every unit lies as meant} one {One unit does not lie as meant} other {# units do not lie as meant}}.",
        n=len(faults),
    )


def _faults(meant: Pattern, seen: Pattern) -> Iterable[Misplaced]:
    for place in meant.places:
        found = seen.at(place.column, place.row)
        fault = _fault(meant, seen, place, found)
        if fault:
            yield Misplaced(place.column, place.row, *fault)
    for extra in seen.places:
        if not any(meant.at(*s) for s in extra.spots):
            yield Misplaced(
                extra.column,
                extra.row,
                "extra",
                Message("{where}: nothing belongs here.", where=extra.name.capitalize()),
            )


def _fault(meant: Pattern, seen: Pattern, place: Place, found: Place | None) -> tuple[str, Message] | None:
    where = place.name.capitalize()
    if found is None:
        return "missing", Message("{where}: nothing lies here.", where=where)
    wanted = _seen_signature(meant, place)
    if (found.across, found.down) == (place.across, place.down):
        for step in ORIENTATIONS:
            _, _, wide, high = meant.box(place)
            if step.across and wide != high:
                continue
            if _seen_signature(seen, replace(found, orientation=found.orientation.then(step))) == wanted:
                return _step_fault(where, step)
        if _kinds(found) == _kinds(place):
            return "fabrics", Message("{where}: the right unit in other fabrics.", where=where)
    return "other", Message("{where}: another unit belongs here.", where=where)


def _step_fault(where: str, step: Orientation) -> tuple[str, Message] | None:
    if step == Orientation():
        return None
    if step.mirrored:
        return "mirrored", Message("{where}: this one is of the other hand; no turn puts it right.", where=where)
    return "turned", Message("{where}: turn it {how}.", where=where, how=_TURNED[step.turn])


def _kinds(place: Place) -> object:
    content = place.content
    return getattr(content, "kind", None) or getattr(content, "key", None)
