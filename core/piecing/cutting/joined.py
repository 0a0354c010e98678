"""Binding from strips of any length, joined on the diagonal: which lengths to cut from the cloth there is.

Two strips laid across each other and sewn over the diagonal of where they cross lose one strip's width together. So
n strips of lengths l make

    l1 + ... + ln - (n - 1) strip

Source: docs/theory, section 13.10.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from math import ceil

from ..errors import QuiltImpossible
from ..lengths import ZERO, Length, inches
from ..messages import Listing, Message
from .plan import shelf_plan
from .stock import Cloth, WantedPiece

__all__ = ["Strips", "joined_length", "strips_for", "strips_said", "strips_settled"]

Strips = dict[Length, int]
"""How many strips of each length."""

_NARROW = inches(16)
"""A rest narrower than this is cut lengthwise for binding; from wider cloth strips are cut across, as all others are."""
_SHORTEST = 4
"""A strip shorter than this many times its width is not worth its join."""


def joined_length(strips: Mapping[Length, int], width: Length) -> Length:
    """What strips ``width`` wide make when they are joined on the diagonal; nothing when there is none."""
    count = sum(strips.values())
    whole = sum((length * n for length, n in strips.items()), ZERO)
    return whole - width * (count - 1) if count else ZERO


def _enough(short: Length, length: Length, width: Length) -> int:
    """Strips of one length that give ``short`` more, each losing one width at its join."""
    return max(0, ceil(round(float(short) / float(length - width), 9)))


def _short(needed: Length, strips: Mapping[Length, int], width: Length) -> Length:
    """What is missing, counted so that every further strip gives its length less one width."""
    return needed - joined_length(strips, width) if any(strips.values()) else needed - width


def strips_settled(needed: Length, width: Length, chosen: Mapping[Length, int], usual: Length) -> Strips:
    """The strips chosen earlier, brought to what is needed by now: the shortest ones left out as far as they can be, or as
    many of the ``usual`` length added as are short. Raises ``QuiltImpossible`` for a strip wider than long."""
    if usual <= width:
        raise QuiltImpossible(
            "A binding strip this wide leaves nothing of cloth {usable} wide.", field="binding_strip", usable=usual
        )
    found = {length: n for length, n in chosen.items() if n > 0 and length > width}
    _leave_out(found, needed, width)
    more = _enough(_short(needed, found, width), usual, width)
    if more:
        found[usual] = found.get(usual, 0) + more
    return found


def _leave_out(found: Strips, needed: Length, width: Length) -> None:
    """Takes away the shortest strips that it reaches round without."""
    for length in sorted(found):
        while found[length]:
            if _short(needed, {**found, length: found[length] - 1}, width) > ZERO:
                return
            found[length] -= 1
        del found[length]


def strips_for(
    needed: Length,
    width: Length,
    have: Mapping[Length, int],
    others: Sequence[WantedPiece],
    cloths: Sequence[Cloth],
    usual: Length,
) -> Strips:
    """Lengths to cut so that the binding comes out of the ``cloths`` of its fabric beside the ``others`` wanted of them.

    ``have`` are strips that lie there already; they are used first. The other pieces are laid first fit, so that what is left
    of every cloth is really there; from it come the longest strips, and from what no cloth gives, strips of the ``usual``
    length to buy. Raises ``QuiltImpossible`` as ``strips_settled`` does.
    """
    found = dict(have)
    rest = _short(needed, found, width)
    for length, there in sorted(_runs(width, others, cloths), reverse=True):
        n = min(there, _enough(rest, length, width)) if rest > ZERO else 0
        if n:
            found[length] = found.get(length, 0) + n
            rest = rest - (length - width) * n
    found = strips_settled(needed, width, found, usual)
    # A strip to buy may be so long that one or two short ones are no longer needed.
    _leave_out(found, needed, width)
    return found


def _runs(width: Length, others: Sequence[WantedPiece], cloths: Sequence[Cloth]) -> list[tuple[Length, int]]:
    """Length and number of the strips that what is left of the cloths gives: cut across, but lengthwise from a narrow rest."""
    used: dict[str, list[Length]] = {}
    for c in shelf_plan(others, cloths).cloths if others and cloths else ():
        used.setdefault(c.cloth.key.split("#")[0], []).append(c.used)
    left: list[tuple[Length, Length, int]] = []
    for cloth in cloths:
        opened = used.get(cloth.key, [])
        left += [(cloth.across, cloth.along - u, 1) for u in opened]
        left.append((cloth.across, cloth.along, cloth.count - len(opened)))
    runs: list[tuple[Length, int]] = []
    for across, along, count in left:
        length, deep = (along, across) if across < _NARROW and across < along else (across, along)
        if count > 0 and length >= width * _SHORTEST and deep >= width:
            runs.append((length, width.whole_into(deep) * count))
    return runs


def strips_said(strips: Mapping[Length, int], width: Length) -> Message:
    """In words: how many of which length, the joins, and what they make."""
    parts = [
        Message("{n, plural, one {one strip} other {# strips}} of {length}", n=n, length=length)
        for length, n in sorted(strips.items(), reverse=True)
    ]
    return Message(
        "Binding: {parts}, {width} wide; {joins, plural, =0 {no join} one {one join} other {# joins}} on the diagonal, "
        "{whole} in all.",
        parts=Listing(parts, " and "),
        width=width,
        joins=max(0, sum(strips.values()) - 1),
        whole=joined_length(strips, width),
    )
