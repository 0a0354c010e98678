"""Borders pieced of units or blocks, fitted to what they go round.

A row of pitch a goes round w by h when both are whole numbers of pitches. Where they are not, either the unit takes another
depth that goes into both, or a plain strip inside the row makes the length up: beside w it shows (n a - w) / 2 on each side.
Source: docs/theory, section 12.10.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from enum import StrEnum
from fractions import Fraction
from functools import lru_cache

from ..blocks.pattern import UPRIGHT, BlockPlacement, Content, Orientation, Pattern, Place, UnitPlacement
from ..errors import QuiltImpossible
from ..lengths import ZERO, Length, inches
from ..messages import Message
from ..units import kind_of

__all__ = ["FittedRow", "PiecedRow", "RowFit", "Runs", "fitted_row"]

MOST_IN_ROW = 98
"""Units along one side at most."""
_LEAST_SPACER = inches("1/2")
"""A plain strip that shows less is hard to sew straight, and looks like a mistake."""
_LEAST_DEPTH = inches("1/2")
_MOST_DEPTH = inches(30)


class RowFit(StrEnum):
    """``SPACER``: a plain strip inside the row makes up the length. ``ADAPT``: the unit takes the nearest size that goes in."""

    SPACER = "spacer"
    ADAPT = "adapt"


class Runs(StrEnum):
    """``ROUND``: one way round the quilt. ``MIRRORED``: from the middle of every side to both ends."""

    ROUND = "round"
    MIRRORED = "mirrored"


@dataclass(frozen=True, slots=True)
class PiecedRow:
    """What a border is pieced of: ``units`` by turns, as they lie along the top; ``corner`` as it lies at the upper left, or a
    plain square where there is none.
    """

    units: tuple[Content, ...]
    orientation: Orientation = UPRIGHT
    fit: RowFit = RowFit.SPACER
    runs: Runs = Runs.ROUND
    corner: Content | None = None
    corner_orientation: Orientation = UPRIGHT

    @property
    def ratio(self) -> Fraction:
        """How long a unit is along the row, for a depth of one. Raises ``QuiltImpossible`` where units differ in it."""
        found = {_ratio(u, self.orientation) for u in self.units}
        if len(found) != 1:
            raise QuiltImpossible(
                "The units of one border are of one shape. Choose another second one.", field="pieced"
            )
        return found.pop()


def _ratio(content: Content, orientation: Orientation) -> Fraction:
    if isinstance(content, BlockPlacement):
        own = content.pattern.width / content.pattern.height
    else:
        own = 1 / kind_of(content.kind).default_height(Length.of(1)).rational
    return 1 / own if orientation.across else own


@dataclass(frozen=True, slots=True)
class FittedRow:
    """A pieced border at its size. ``beside`` and ``above`` are what the plain strip inside it shows at the sides and at top and
    bottom; nothing where it fits by itself. ``sides`` and ``ends`` are sewn twice each, the second one turned half round;
    ``ends`` hold the corners.
    """

    depth: Length
    pitch: Length
    across: int
    down: int
    beside: Length
    above: Length
    sides: Pattern
    ends: Pattern
    notes: tuple[Message, ...]


def fitted_row(row: PiecedRow, depth: Length, width: Length, height: Length, step: Length, plain: str) -> FittedRow:
    """``row`` about ``depth`` deep round ``width`` by ``height``. ``step`` is the ruler's; ``plain`` the fabric of corner squares.

    Raises ``QuiltImpossible`` (its field the part of the border it is about) for a row that cannot go round.
    """
    if not depth.is_rational or not _LEAST_DEPTH <= depth <= _MOST_DEPTH:
        raise QuiltImpossible(
            "Units of a border finish {least} to {most} deep.", field="width", least=_LEAST_DEPTH, most=_MOST_DEPTH
        )
    ratio, notes = row.ratio, []
    # From the middle outward, both halves are alike only with an even number.
    even = 2 if row.runs is Runs.MIRRORED else len(row.units)
    if row.fit is RowFit.ADAPT:
        found = _fitting_depth(depth, ratio * even, width, height, step)
        if found is not None:
            if found != depth:
                notes.append(Message("Units {now} deep go round evenly; {before} do not.", now=found, before=depth))
            depth = found
        else:
            notes.append(
                Message(
                    "No size near {depth} that the ruler shows goes evenly into {w} and {h}; a plain strip makes up for it.",
                    depth=depth,
                    w=width,
                    h=height,
                )
            )
    pitch = depth * ratio
    across, beside = _spacing(pitch, even, width)
    down, above = _spacing(pitch, even, height)
    if max(across, down) > MOST_IN_ROW:
        raise QuiltImpossible(
            "Along one side there would be {n}; {most} are the most. Take larger units.",
            field="width",
            n=max(across, down),
            most=MOST_IN_ROW,
        )
    if beside > ZERO or above > ZERO:
        notes.append(_spacer_said(beside, above))
    return FittedRow(
        depth,
        pitch,
        across,
        down,
        beside,
        above,
        _sides(row, depth, pitch, down),
        _ends(row, depth, pitch, across, plain),
        tuple(notes),
    )


def _spacer_said(beside: Length, above: Length) -> Message:
    if beside == above:
        return Message("A plain strip inside it shows {a} all round.", a=beside)
    if beside == ZERO:
        return Message("A plain strip inside it shows {a} at top and bottom.", a=above)
    if above == ZERO:
        return Message("A plain strip inside it shows {a} at both sides.", a=beside)
    return Message("A plain strip inside it shows {a} at both sides, {b} at top and bottom.", a=beside, b=above)


def _spacing(pitch: Length, even: int, length: Length) -> tuple[int, Length]:
    """Units along a side, and what a plain strip must show at each of its ends so that they reach."""
    group = pitch * even
    n = group.whole_into(length)
    if n and group * n == length:
        return n * even, ZERO
    n += 1
    while (group * n - length) / 2 < _LEAST_SPACER:
        n += 1
    return n * even, (group * n - length) / 2


def _fitting_depth(depth: Length, ratio: Fraction, width: Length, height: Length, step: Length) -> Length | None:
    """The depth nearest to the one asked for, on the ruler's steps, of which both sides take a whole number; none within a
    third of it, or where a side has a root in it."""
    if not (width.is_rational and height.is_rational):
        return None
    reach, found = depth / 3, []
    d = (depth - reach).round_up(step)
    while d <= depth + reach:
        pitch = d * ratio
        if all((side.rational / pitch.rational).denominator == 1 for side in (width, height)):
            found.append(d)
        d = d + step
    return min(found, key=lambda f: (abs(f - depth), f), default=None)


def _turns(row: PiecedRow, n: int, count: int, quarter: int) -> tuple[Content, Orientation]:
    content, lie = row.units[n % len(row.units)], row.orientation
    if row.runs is Runs.MIRRORED:
        if n >= count // 2:
            lie = lie.then(Orientation(0, True))
        content = row.units[min(n, count - 1 - n) % len(row.units)]
    return content, lie.turned(quarter)


@lru_cache(maxsize=256)
def _sides(row: PiecedRow, depth: Length, pitch: Length, count: int) -> Pattern:
    """The left one, from the top down: it runs on from the bottom one, so what is first there lies lowest here."""
    places = []
    for n in range(count):
        content, lie = _turns(row, count - 1 - n, count, 3)
        places.append(Place(0, n, content, lie))
    return Pattern("Border", (depth.rational,), (pitch.rational,) * count, tuple(places))


@lru_cache(maxsize=256)
def _ends(row: PiecedRow, depth: Length, pitch: Length, count: int, plain: str) -> Pattern:
    """The top one, from the left, with a corner at each end."""
    corner = row.corner or UnitPlacement("plain_square", (plain,))
    if _ratio(corner, UPRIGHT) != 1:
        raise QuiltImpossible("What turns the corner is square. Choose another corner.", field="corner")
    first = row.corner_orientation
    # Round the quilt a corner is turned with its side; in a mirror it is seen in one.
    last = first.then(Orientation(0, True)) if row.runs is Runs.MIRRORED else first.turned(1)
    places = [Place(0, 0, corner, first)]
    for n in range(count):
        content, lie = _turns(row, n, count, 0)
        places.append(Place(n + 1, 0, content, lie))
    places.append(Place(count + 1, 0, corner, last))
    tracks = (depth.rational, *(pitch.rational,) * count, depth.rational)
    return Pattern("Border", tracks, (depth.rational,), tuple(places))


@lru_cache(maxsize=256)
def renamed(pattern: Pattern, name: str) -> Pattern:
    """The strip under the name of its border."""
    return replace(pattern, name=name)
