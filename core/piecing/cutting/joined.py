"""Which lengths of binding strip to cut from the cloth there is. Source: docs/theory, section 13.10."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from ..lengths import ZERO, Length, inches
from ..quilts.joined import Strips, enough, leave_out, short_of, strips_settled
from .plan import shelf_plan
from .stock import Cloth, WantedPiece

__all__ = ["strips_for"]

_NARROW = inches(16)
"""A rest narrower than this is cut lengthwise for binding; from wider cloth strips are cut across, as all others are."""
_SHORTEST = 4
"""A strip shorter than this many times its width is not worth its join."""


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
    rest = short_of(needed, found, width)
    for length, there in sorted(_runs(width, others, cloths), reverse=True):
        n = min(there, enough(rest, length, width)) if rest > ZERO else 0
        if n:
            found[length] = found.get(length, 0) + n
            rest = rest - (length - width) * n
    found = strips_settled(needed, width, found, usual)
    # A strip to buy may be so long that one or two short ones are no longer needed.
    leave_out(found, needed, width)
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
