"""Backing pieced from panels, and binding from strips. Source: docs/theory, section 12.8."""

from __future__ import annotations

from dataclasses import dataclass

from ..errors import QuiltImpossible
from ..lengths import ZERO, Length, inches
from ..messages import Listing, Message
from ..prints import Direction
from .choices import BackingWay, PlainPiece, QuiltChoices
from .joined import strips_settled

__all__ = [
    "BINDING",
    "Backing",
    "Binding",
    "backing_said",
    "backings_of",
    "binding_of",
    "binding_piece",
    "binding_said",
    "sleeve_piece",
]


BINDING = "binding strip"
"""What the pile of its strips is called."""

_BACKING_SEAM = inches("1/2")
_NARROWEST = inches(2)
"""Cloth between its selvedges: two allowances of the backing, and as much again."""
_LONGEST_REPEAT = inches(72)


_JOIN_LOSS = inches(12)
"""Binding over and above the way round: for the last join and the corners."""


@dataclass(frozen=True, slots=True)
class Backing:
    """Panels of the cloth's usable width; ``along`` when the seams run up and down the quilt. ``length`` is to buy. With a
    ``strip``, cut so wide, one panel is parted lengthwise and the strip sewn between, joined from ``strip_lengths`` lengths
    across the cloth, or cut from a second one along it (``upright``). Each panel begins ``every`` after the last; ``matched``: its
    print goes on across the seams; ``turned``: it lies on its side.
    """

    along: bool
    panels: int
    panel_length: Length
    length: Length
    width: Length
    height: Length
    every: Length
    strip: Length = ZERO
    strip_lengths: int = 0
    upright: bool = False
    matched: bool = False
    turned: bool = False

    @property
    def seam(self) -> Length:
        """What is sewn to join it."""
        if self.strip > ZERO:
            return self.panel_length * 2 + self.strip * (self.strip_lengths - 1)
        return self.panel_length * (self.panels - 1)


@dataclass(frozen=True, slots=True)
class Binding:
    strips: int
    strip: Length
    round_about: Length
    length: Length


def binding_of(c: QuiltChoices, width: Length, height: Length) -> Binding:
    """Strips joined on the diagonal: each join costs one strip's width."""
    about = (width + height) * 2
    wanted = about + _JOIN_LOSS
    strips = sum(strips_settled(wanted, c.binding_strip, {}, c.usable).values())
    return Binding(strips, c.binding_strip, about, wanted)


def binding_said(c: QuiltChoices) -> Message:
    """How it goes round a corner."""
    return Message(
        "At each corner stop {s} before the edge, fold the strip away from the quilt and back along the next edge, and go on: the fold "
        "is the mitre.",
        s=c.seam_allowance,
    )


def binding_piece(c: QuiltChoices, binding: Binding) -> PlainPiece:
    """The strips that the binding is joined from, as a pile to cut."""
    return PlainPiece(
        BINDING,
        c.binding_fabric,
        c.binding_strip,
        c.usable,
        c.binding_strip,
        c.usable,
        binding.strips,
        joined=True,
    )


def backing_said(b: Backing) -> Message:
    """How it is joined: panels, their length, which way the seams run on the quilt, and how its print is kept."""
    said = [_joined_said(b)]
    lengths = 2 if b.upright else b.panels
    if lengths > 1 and b.every > b.panel_length:
        said.append(
            Message(
                "Each length begins {every} after the one before it, at the same place of the print.",
                every=b.every,
            )
        )
    if b.matched and b.panels > 1:
        said.append(
            Message("Fold an edge under, lay it on the next so that the print goes on, and sew along the fold.")
        )
    if b.turned:
        said.append(Message("Its print lies on its side."))
    return said[0] if len(said) == 1 else Message("{said}", said=Listing(said, " "))


def _joined_said(b: Backing) -> Message:
    if b.upright:
        return Message(
            "2 lengths of {length}, selvedges cut off first. One is cut through lengthwise off the middle; a strip cut {strip} wide along "
            "the selvedge of the other is sewn between.",
            length=b.panel_length,
            strip=b.strip,
        )
    if b.strip > ZERO:
        return Message(
            "One length of {length}, cut through lengthwise off the middle, selvedges cut off first; a strip cut {strip} wide is "
            "sewn between, joined from {n, plural, one {one length} other {# lengths}} across the cloth.",
            length=b.panel_length,
            strip=b.strip,
            n=b.strip_lengths,
        )
    if b.panels == 1:
        return Message("One length of {length} is wide enough; nothing is joined.", length=b.panel_length)
    joins = b.panels - 1
    if b.along:
        return Message(
            "{panels} lengths of {length} side by side: {joins, plural, one {one seam} other {# seams}} running up and down the "
            "quilt, selvedges cut off first.",
            panels=b.panels,
            length=b.panel_length,
            joins=joins,
        )
    return Message(
        "{panels} lengths of {length}, one above the other: {joins, plural, one {one seam} other {# seams}} running across the "
        "quilt, selvedges cut off first.",
        panels=b.panels,
        length=b.panel_length,
        joins=joins,
    )


def backings_of(c: QuiltChoices, width: Length, height: Length) -> tuple[Backing, ...]:
    """Pieced with seams along the quilt's height, across it, or of one length with a strip; the way chosen first, then those that keep
    its print upright, then those that take less cloth. One length with a strip is among them where the quilt is wider than the
    cloth, and the strip is not. Raises ``QuiltImpossible`` for cloth too narrow to be joined, and for a print that does not come round.
    """
    wide, high = width + c.backing_over * 2, height + c.backing_over * 2
    added = _one_more_width(c)
    found = []
    for along, over, length in ((True, wide, high), (False, high, wide)):
        panels = _widths(c, over, added)
        every = c.backing_print.begun_every(length)
        whole = every * (panels - 1) + length
        turned = not along and c.backing_print.direction is not Direction.NONE
        matched = c.backing_print.meets
        found.append(Backing(along, panels, length, whole, wide, high, every, matched=matched, turned=turned))
    ways = {BackingWay.ALONG: found[0], BackingWay.ACROSS: found[1]}
    strip = _with_strip(c, wide, high)
    if strip is not None:
        ways[BackingWay.STRIP] = strip
    # A strip is sewn in because one likes it so or has no more cloth: it is proposed to nobody who did not ask.
    last = {BackingWay.STRIP: 1}
    return tuple(
        b
        for _, b in sorted(
            ways.items(),
            key=lambda w: (
                w[0] is not c.backing_way,
                w[1].turned,
                last.get(w[0], 0),
                float(w[1].length),
                not w[1].along,
            ),
        )
    )


def _widths(c: QuiltChoices, over: Length, added: Length) -> int:
    """How many widths of cloth reach so far, where each beside the first adds ``added``."""
    return 1 if over <= c.usable else 1 + added.whole_times(over - c.usable, up=True)


def _one_more_width(c: QuiltChoices) -> Length:
    """What one more width of cloth shows beside the last: two allowances less, and only whole repeats of a print that goes on."""
    if c.usable < _NARROWEST:
        raise QuiltImpossible(
            "Cloth is usable {least} across at least: its seams use up what is narrower.",
            field="usable",
            least=_NARROWEST,
        )
    of_print = c.backing_print
    for size, field in ((of_print.along, "backing_repeat"), (of_print.across, "backing_repeat_across")):
        if not ZERO <= size <= _LONGEST_REPEAT:
            raise QuiltImpossible(
                "A print comes round after {most} at most; 0 where it need not meet at the seams.",
                field=field,
                most=_LONGEST_REPEAT,
            )
    shown = of_print.shown_by_another(c.usable - _BACKING_SEAM * 2)
    if shown == ZERO:
        raise QuiltImpossible(
            "Between two seams the cloth shows {shows}, less than the {repeat} after which the print comes round: it cannot go on from "
            "one width to the next. Give 0, or wider cloth.",
            field="backing_repeat_across",
            shows=c.usable - _BACKING_SEAM * 2,
            repeat=of_print.across,
        )
    return shown


def _with_strip(c: QuiltChoices, wide: Length, high: Length) -> Backing | None:
    """Two seams take two allowances each from the parted length and from the strip between."""
    strip = (wide - c.usable + _BACKING_SEAM * 4).round_up(c.ruler_step)
    if wide <= c.usable or strip > c.usable:
        return None
    every = c.backing_print.begun_every(high)
    if c.backing_print.lies_one_way:
        return Backing(True, 1, high, every + high, wide, high, every, strip, 1, upright=True)
    lengths = _widths(c, high, c.usable - _BACKING_SEAM * 2)
    return Backing(True, 1, high, high + strip * lengths, wide, high, every, strip, lengths)


def sleeve_piece(c: QuiltChoices, width: Length) -> PlainPiece:
    """A hanging sleeve: a tube of the depth asked for, cut as long as the quilt is wide; its ends are turned in twice by half an
    inch, so it ends one inch short of either side.
    """
    depth = (c.sleeve * 2 + c.seam_allowance * 2).round_up(c.ruler_step)
    long = width.round_up(c.ruler_step)
    note = Message(
        "Turn each short end in twice by {hem} and stitch. Fold it lengthwise, right side out, and sew along; sew it to the back by "
        "hand below the binding, through the backing only.",
        hem=_BACKING_SEAM,
    )
    return PlainPiece(
        "hanging sleeve",
        c.backing_fabric,
        min(c.sleeve, long),
        max(c.sleeve, long),
        min(depth, long),
        max(depth, long),
        1,
        note=note,
        apart=True,
    )
