"""Strips of any length joined on the diagonal to one long one, as a binding is.

Two strips laid across each other and sewn over the diagonal of where they cross lose one strip's width together. So
n strips of lengths l make

    l1 + ... + ln - (n - 1) strip

Source: docs/theory, section 13.10.
"""

from __future__ import annotations

from collections.abc import Mapping
from math import ceil

from ..errors import QuiltImpossible
from ..lengths import ZERO, Length
from ..messages import Listing, Message

__all__ = ["Strips", "enough", "joined_length", "leave_out", "short_of", "strips_said", "strips_settled"]

Strips = dict[Length, int]
"""How many strips of each length."""


def joined_length(strips: Mapping[Length, int], width: Length) -> Length:
    """What strips ``width`` wide make when they are joined on the diagonal; nothing when there is none."""
    count = sum(strips.values())
    whole = sum((length * n for length, n in strips.items()), ZERO)
    return whole - width * (count - 1) if count else ZERO


def enough(short: Length, length: Length, width: Length) -> int:
    """Strips of one length that give ``short`` more, each losing one width at its join."""
    return max(0, ceil(round(float(short) / float(length - width), 9)))


def short_of(needed: Length, strips: Mapping[Length, int], width: Length) -> Length:
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
    leave_out(found, needed, width)
    more = enough(short_of(needed, found, width), usual, width)
    if more:
        found[usual] = found.get(usual, 0) + more
    return found


def leave_out(found: Strips, needed: Length, width: Length) -> None:
    """Takes away the shortest strips that it reaches round without."""
    for length in sorted(found):
        while found[length]:
            if short_of(needed, {**found, length: found[length] - 1}, width) > ZERO:
                return
            found[length] -= 1
        del found[length]


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
