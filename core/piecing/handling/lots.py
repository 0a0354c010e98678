"""Chain piecing in lots: how many goes each, the thread they take, and before which one a bobbin is wound.

A lot that was begun keeps its number and its size; only what is left is parted anew. Source: docs/theory, section 15.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from ..errors import CountOutOfRange
from ..joining.thread import PER_SEAM
from ..lengths import Length

__all__ = ["MOST_IN_A_LOT", "LotPlan", "goes_left", "part_in_lots", "usual_lot", "wound_before"]

MOST_IN_A_LOT = 200
"""Goes of the method in one lot at most."""
_USUAL_UNITS = 16


@dataclass(frozen=True, slots=True)
class LotPlan:
    """A lot of so many ``goes`` of a method; ``seam`` is all that is sewn in it."""

    number: int
    goes: int
    seam: Length

    @property
    def thread(self) -> Length:
        """Upper and lower thread together."""
        return self.seam * PER_SEAM


def usual_lot(per_go: int) -> int:
    """How many goes make a handy lot when none is chosen: sixteen units or so."""
    return max(1, _USUAL_UNITS // max(1, per_go))


def goes_left(wanted: int, per_go: int, made: int) -> int:
    """How many more goes are to make when so many units are made, or begun, already."""
    return max(0, -(-(wanted - made) // per_go))


def part_in_lots(goes: int, size: int, seam: Length, *, after: int = 0) -> tuple[LotPlan, ...]:
    """So many goes parted into lots of ``size``, the last one smaller, numbered on from ``after``; ``seam`` is that of one go.

    Raises ``CountOutOfRange`` for a size that no lot has.
    """
    if not 1 <= size <= MOST_IN_A_LOT:
        raise CountOutOfRange(
            "A lot has 1 to {most} goes, not {given}.", field="lot_goes", most=MOST_IN_A_LOT, given=size
        )
    sizes = [min(size, goes - begun) for begun in range(0, goes, size)]
    return tuple(LotPlan(after + n, s, seam * s) for n, s in enumerate(sizes, 1))


def wound_before(lots: Sequence[LotPlan] | Iterable[LotPlan], bobbin: Length) -> tuple[int, ...]:
    """The numbers of the lots before which a fresh bobbin is put in, so that none runs out within a lot that one bobbin can
    do. The first one is begun with a full bobbin. The lower thread is half of all of it."""
    found: list[int] = []
    left = float(bobbin)
    for n, lot in enumerate(lots):
        need = float(lot.seam) * PER_SEAM / 2
        if n and need > left + 1e-9:
            found.append(lot.number)
            left = float(bobbin)
        left -= need
        while left < 0:
            # It takes more than a whole bobbin: another one is put in on the way.
            left += float(bobbin)
    return tuple(found)
