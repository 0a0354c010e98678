"""Backing pieced from panels, and binding from strips. Source: docs/theory, section 12.8."""

from __future__ import annotations

from dataclasses import dataclass

from ..lengths import Length, inches
from ..messages import Message
from .choices import PlainPiece, QuiltChoices
from .joined import strips_settled

__all__ = ["BINDING", "Backing", "Binding", "backing_said", "backings_of", "binding_of", "binding_piece"]


BINDING = "binding strip"
"""What the pile of its strips is called."""

_BACKING_SEAM = inches("1/2")


_JOIN_LOSS = inches(12)
"""Binding over and above the way round: for the last join and the corners."""


@dataclass(frozen=True, slots=True)
class Backing:
    """Panels of the cloth's usable width; ``along`` when the seams run up and down the quilt. ``length`` is to buy."""

    along: bool
    panels: int
    panel_length: Length
    length: Length
    width: Length
    height: Length


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
    """Pieced with seams along the quilt's height, or across it; the one that takes less cloth first."""
    wide, high = width + c.backing_over * 2, height + c.backing_over * 2
    found = []
    for along, over, length in ((True, wide, high), (False, high, wide)):
        panels = 1
        while c.usable * panels - _BACKING_SEAM * 2 * (panels - 1) < over:
            panels += 1
        found.append(Backing(along, panels, length, length * panels, wide, high))
    return tuple(sorted(found, key=lambda b: (float(b.length), not b.along)))
