"""The top as it measures: blocks brought to a size, rows measured before they are joined, borders cut to the mean of three lengths.

Every length measured is from raw edge to raw edge, with both allowances. Source: docs/theory, section 18.4.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, replace

from ..lengths import ZERO, Length
from ..messages import Listing, Message
from ..tolerances import LEAST_FRAME, UNEVEN
from .borders import Round, part_pieces
from .choices import Corners, PlainPiece, QuiltChoices, Setting, raw_size
from .sizes import ROW_SASH, QuiltSizes, centre_of, put_together
from .strips_between import StripsBetween, StripsCut, measured_strips
from .top_readings import (
    THREE,
    KnownLengths,
    TopLength,
    TopReading,
    TopStep,
    check_top_length,
    mean_of,
    misread,
    reading,
    three_lengths,
    used_values,
)
from .top_rows import measured_rows

__all__ = [
    "KnownLengths",
    "LastMeasured",
    "TopAsMeasured",
    "TopLength",
    "TopReading",
    "TopStep",
    "brought_to",
    "check_top_length",
    "cut_last_said",
    "top_as_measured",
]

_ACROSS, _DOWN = "blocks across", "blocks down"


@dataclass(frozen=True, slots=True)
class LastMeasured:
    """Where the top was measured last, one way: ``border`` the number of the border before which it was, 0 for rows or columns, and how many
    ``seams`` are crossed that way from there outward."""

    border: int
    seams: int


@dataclass(frozen=True, slots=True)
class TopAsMeasured:
    """``steps`` say what to measure, in the order in which it is sewn, and what follows; ``sizes`` are those of the quilt with all of it.
    ``across`` and ``down`` are ``None`` where nothing larger than a block was measured that way. ``strips`` between blocks laid by hand are
    cut to what they join."""

    steps: tuple[TopStep, ...]
    sizes: QuiltSizes
    across: LastMeasured | None = None
    down: LastMeasured | None = None
    strips: tuple[StripsCut, ...] = ()

    @property
    def begun(self) -> bool:
        """Whether anything was measured that is gone by."""
        return any(used_values(s.readings) for s in self.steps)


def cut_last_said(pieces: Iterable[str], strips: int) -> Message | None:
    """What is cut last: plain ``pieces`` by their names, and so many ``strips`` between blocks."""
    names: list[Message] = [Message("{piece}", piece=p) for p in pieces]
    if strips:
        names.append(Message("{n, plural, one {the strip} other {the # strips}} between blocks", n=strips))
    if not names:
        return None
    return Message(
        "Cut last, once what they are sewn to is measured: {names}. Until then they stand here as planned.",
        names=Listing(names, "; "),
    )


def brought_to(planned: QuiltSizes, known: KnownLengths, width: Length, height: Length) -> KnownLengths:
    """What is ``known``, and that blocks are brought to this size, raw edge to raw edge, where it is not known what they were."""
    c = planned.choices
    told = {
        _ACROSS: TopLength(width, raw_size(c, c.block_width)),
        _DOWN: TopLength(height, raw_size(c, c.block_height)),
    }
    return told | {k: v for k, v in known.items() if k not in told or v.planned == told[k].planned}


def top_as_measured(planned: QuiltSizes, known: KnownLengths, between: Sequence[StripsBetween] = ()) -> TopAsMeasured:
    """The top with what is ``known`` of it; ``between`` are the strips between blocks of a centre laid by hand. What should be measured, and
    what is cut, goes at every stage with what was measured before it; a pieced border stays as it is planned, and what lies inside it is
    brought to it."""
    c, steps, strips = planned.choices, list[TopStep](), list[StripsCut]()
    for step, cut in measured_strips(c, between, known):
        steps.append(step)
        strips += [cut] if cut else []
    if c.setting is not Setting.BY_HAND:
        step, c = _blocks(planned, known)
        steps.append(step)
    centre, across, down = centre_of(c), None, None
    rows = measured_rows(planned, c, centre, known)
    if rows is not None:
        steps.append(rows.step)
        centre, last = rows.centre, LastMeasured(0, 2 * len(planned.rounds))
        across, down = last if rows.across else None, last if rows.down else None
    wider, higher = centre.width - planned.centre_width, centre.height - planned.centre_height
    rounds = []
    for before in planned.rounds:
        now, found = _round(c, before, wider, higher, known)
        steps += found
        rounds.append(now)
        wider, higher = now.wide - before.wide, now.high - before.high
        outward = 2 * (len(planned.rounds) - now.number)
        if now.across_known:
            across = LastMeasured(now.number, outward + (0 if _is_overlapped(now) else 2))
        if now.down_known:
            down = LastMeasured(now.number, outward + 2)
    sizes = put_together(c, centre, tuple(rounds))
    notes = planned.notes
    if (sizes.width, sizes.height) != (planned.width, planned.height):
        plan = Message("By what you measured. The plan has {w} × {h}.", w=planned.width, h=planned.height)
        notes = (plan, *notes)
    return TopAsMeasured(tuple(steps), replace(sizes, parts=planned.parts, notes=notes), across, down, tuple(strips))


def _blocks(planned: QuiltSizes, known: KnownLengths) -> tuple[TopStep, QuiltChoices]:
    """What blocks were brought to, and the quilt's choices with blocks of that size."""
    c, s2 = planned.choices, planned.choices.seam_allowance * 2
    wide, high, square = raw_size(c, c.block_width), raw_size(c, c.block_height), c.setting is Setting.ON_POINT
    across = reading(_ACROSS, Message("Both ways") if square else Message("Across"), wide, wide, known)
    across = replace(across, finished=wide - s2)
    down = across if square else replace(reading(_DOWN, Message("Down"), high, high, known), finished=high - s2)
    now = c
    for found in used_values([across]):
        now = replace(now, block_width=found - s2)
    for found in used_values([down]):
        now = replace(now, block_height=found - s2)
    readings = (across,) if square else (across, down)
    how = Message("What all of them were trimmed to. Should be {wide} × {high}.", wide=wide, high=high)
    said = (*misread(readings), *_otherwise(c, now))
    return TopStep("blocks", Message("Blocks, before they are joined"), how, readings, said), now


def _otherwise(planned: QuiltChoices, c: QuiltChoices) -> Iterator[Message]:
    """What is cut otherwise than planned to go with the blocks; of what is measured once more it is told then."""
    sizes = {p.name: (p.cut_width, p.cut_height) for p in centre_of(planned).pieces}
    for p in centre_of(c).pieces:
        if sizes.get(p.name) != (p.cut_width, p.cut_height) and not p.name.startswith(ROW_SASH):
            yield Message("Cut the {piece} {wide} × {long}.", piece=p.name, wide=p.cut_width, long=p.cut_height)


def _is_overlapped(r: Round) -> bool:
    return r.row is None and r.border.corners is Corners.OVERLAPPED


def _round(
    c: QuiltChoices, r: Round, wider: Length, higher: Length, known: KnownLengths
) -> tuple[Round, tuple[TopStep, TopStep]]:
    """The border ``r``, as planned, round a top so much ``wider`` and ``higher`` than planned."""
    overlapped, s2 = _is_overlapped(r), c.seam_allowance * 2
    inside = r.border.width * 2 if overlapped else ZERO
    wide, high = r.width + inside, r.height
    down = three_lengths(
        f"border {r.number} down", ("left edge", "right edge"), raw_size(c, high), raw_size(c, high + higher), known
    )
    across = three_lengths(
        f"border {r.number} across", ("upper edge", "lower edge"), raw_size(c, wide), raw_size(c, wide + wider), known
    )
    means = [mean_of(c, v) - s2 if len(v := used_values(x)) == THREE else None for x in (across, down)]
    now = _brought(
        r,
        r.width + wider if means[0] is None else means[0] - inside,
        r.height + higher if means[1] is None else means[1],
    )
    now = replace(now, across_known=means[0] is not None, down_known=means[1] is not None)
    called = r.name if r.name[-1].isdigit() else f"the {r.name}"
    first = Message("Before {border}, from top to bottom", border=called)
    second = Message(
        "With the sides of {border} on, from side to side" if overlapped else "Before {border}, from side to side",
        border=called,
    )
    sides, ends = _sides_said(c, now)
    return now, (
        TopStep(f"border {r.number} down", first, _how(c, high + higher), down, (*_looked_at(down), *sides)),
        TopStep(f"border {r.number} across", second, _how(c, wide + wider), across, (*_looked_at(across), *ends)),
    )


def _how(c: QuiltChoices, finished: Length) -> Message:
    return Message("The top lies flat and is not pulled. Should be {expected}.", expected=raw_size(c, finished))


def _looked_at(readings: tuple[TopReading, ...]) -> Iterator[Message]:
    yield from misread(readings)
    values = used_values(readings)
    if len(values) < 2 or max(values) - min(values) <= Length.near(UNEVEN):
        return
    yield Message(
        "They differ by {by}: before anything is cut, look whether an edge was stretched or a row or column strays. Borders of one length "
        "bring both edges to it.",
        by=max(values) - min(values),
    )


def _brought(r: Round, width: Length, height: Length) -> Round:
    """The border round a top of this size: a plain one grows with it. Of a pieced one the row stays, and the plain strips inside it make up
    what is wanting: a strip cut s wide adds s less two allowances on each side."""
    if r.row is None:
        rim = r.border.width * 2
        return replace(r, width=width, height=height, wide=width + rim, high=height + rim)
    row_wide, row_high = r.inner
    strips = [(row - top) / 2 for row, top in ((row_wide, width), (row_high, height))]
    beside, above = (s if float(s) >= LEAST_FRAME else ZERO for s in strips)
    return replace(r, width=width, height=height, row=replace(r.row, beside=beside, above=above))


def _sides_said(c: QuiltChoices, r: Round) -> tuple[list[Message], list[Message]]:
    """What to cut for the sides, and for the top and the bottom, as far as it is known."""
    pieces = list[PlainPiece]()
    part_pieces(c, (r,), pieces)
    by_name = {p.name: p for p in pieces}
    if r.row is None:
        sides, ends = _size(by_name[r.sides]), _size(by_name[r.ends])
        return (
            [Message("Cut both sides {wide} × {long}.", **sides)] if r.down_known else [],
            [Message("Cut the top and the bottom {wide} × {long}.", **ends)] if r.across_known else [],
        )
    if not (r.across_known and r.down_known):
        return [], []
    return (
        [_strip_inside(by_name.get(r.sides), "at the sides", r.inner[0] - r.width)],
        [_strip_inside(by_name.get(r.ends), "above and below", r.inner[1] - r.height)],
    )


def _size(piece: PlainPiece) -> dict[str, Length]:
    return {"wide": piece.cut_width, "long": piece.cut_height}


def _strip_inside(piece: PlainPiece | None, where: str, short: Length) -> Message:
    if piece is None:
        return _unfilled_said(short)
    return Message(
        "Cut the plain strips {where} {wide} × {long}: then the pieced row fits.", where=where, **_size(piece)
    )


def _unfilled_said(short: Length) -> Message:
    """Where no strip fits between: the row is sewn on as it is."""
    if short == ZERO:
        return Message("The pieced row fits as it is.")
    return Message(
        "The top is {by} {way} than the pieced row beside it, too little for a strip: {do}.",
        by=abs(short),
        way="shorter" if short > ZERO else "longer",
        do="take in a thread at some seams of the row" if short > ZERO else "ease the top in along the row",
    )
