"""Backing pieced from panels, and binding from strips. Source: docs/theory, section 12.8."""

from __future__ import annotations

from dataclasses import dataclass

from ..lengths import ZERO, Length, inches
from ..messages import Message
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


_JOIN_LOSS = inches(12)
"""Binding over and above the way round: for the last join and the corners."""


@dataclass(frozen=True, slots=True)
class Backing:
    """Panels of the cloth's usable width; ``along`` when the seams run up and down the quilt. ``length`` is to buy. With a
    ``strip``, cut so wide, one panel is parted lengthwise and the strip sewn between, joined from ``strip_lengths`` lengths
    across the cloth.
    """

    along: bool
    panels: int
    panel_length: Length
    length: Length
    width: Length
    height: Length
    strip: Length = ZERO
    strip_lengths: int = 0

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
    """How it is joined: panels, their length, and which way the seams run on the quilt."""
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
    """Pieced with seams along the quilt's height, across it, or of one length with a strip; the way chosen first, then those that
    take less cloth. One length with a strip is among them where the quilt is wider than the cloth, and the strip is not.
    """
    wide, high = width + c.backing_over * 2, height + c.backing_over * 2
    found = []
    for along, over, length in ((True, wide, high), (False, high, wide)):
        panels = 1
        while c.usable * panels - _BACKING_SEAM * 2 * (panels - 1) < over:
            panels += 1
        found.append(Backing(along, panels, length, length * panels, wide, high))
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
            key=lambda w: (w[0] is not c.backing_way, last.get(w[0], 0), float(w[1].length), not w[1].along),
        )
    )


def _with_strip(c: QuiltChoices, wide: Length, high: Length) -> Backing | None:
    """Two seams take two allowances each from the parted length and from the strip between."""
    strip = (wide - c.usable + _BACKING_SEAM * 4).round_up(c.ruler_step)
    if wide <= c.usable or strip > c.usable:
        return None
    lengths = 1
    while c.usable * lengths - _BACKING_SEAM * 2 * (lengths - 1) < high:
        lengths += 1
    return Backing(True, 1, high, high + strip * lengths, wide, high, strip, lengths)


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
