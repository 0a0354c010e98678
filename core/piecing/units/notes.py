"""What a plan has to say beyond its figures, and what single methods add to that."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Protocol

from ..lengths import Length, inches
from ..messages import Listing, Message
from . import flying_goose, square_in_square
from .method import Cuts, Method, Spare
from .spec import UnitSpec

__all__ = ["Note", "method_notes"]

_CLOSE = inches("1/64")


@dataclass(frozen=True, slots=True)
class Note:
    """Something the plan has to say: a stable ``code``; ``serious`` when it should stop the scissors."""

    code: str
    said: Message
    serious: bool = False


class _Planned(Protocol):
    """What is asked of a plan here."""

    @property
    def spec(self) -> UnitSpec: ...
    @property
    def cuts(self) -> Cuts: ...
    @property
    def spares(self) -> tuple[Spare, ...]: ...
    @property
    def raw_width(self) -> Length: ...
    @property
    def target_width(self) -> Length: ...
    @property
    def allowance(self) -> Length: ...
    @property
    def take_up(self) -> Length: ...


def method_notes(method: Method, p: _Planned) -> tuple[Note, ...]:
    """Notes that belong to one way of making a unit, and to the spare units that fall off it."""
    found = [_spare_units(p)] if p.spares else []
    if "flipped" in method.name:
        found.append(_thread_outside())
    if method is square_in_square.CORNER_TRIANGLES:
        found += _tips(p)
    if method is flying_goose.TWO_UNITS:
        found += _joined_width(p)
    if method is flying_goose.TEMPLATES and p.spec.width != p.spec.height * 2:
        found.append(_both_diagonals())
    return tuple(found)


def _spare_units(p: _Planned) -> Note:
    """All sizes of them in one sentence, the largest first."""
    sizes: dict[Length, int] = {}
    for s in p.spares:
        sizes[s.raw] = sizes.get(s.raw, 0) + s.count
    told = [
        Message("{n} that finish up to {finished}", n=n, finished=(raw - p.allowance * 2).round_down(inches("1/8")))
        for raw, n in sorted(sizes.items(), key=lambda s: -float(s[0]))
    ]
    return Note(
        "spare_small_units",
        Message(
            "The cut-off corners, sewn again {out} out and trimmed, give small half-square triangles: {sizes}.",
            sizes=Listing(told, last=" and "),
            out=inches("1/2"),
        ),
    )


def _thread_outside() -> Note:
    """The engine lays the fold on the line: that is where it lies when the stitching is a thread outside."""
    return Note(
        "thread_outside",
        Message(
            "Sew a thread outside the line, toward the corner: the fold takes the thread, and the corner reaches its edge."
        ),
    )


def _both_diagonals() -> Note:
    """Legs of unlike length: the two skies of a goose are mirror images, and a rectangle cut once gives two alike."""
    return Note(
        "both_diagonals",
        Message(
            "Cut half of the sky rectangles on the one diagonal and half on the other: the sky on the left and the one on the right "
            "are mirror images."
        ),
        serious=True,
    )


def _tips(p: _Planned) -> list[Note]:
    clearance = square_in_square.tip_clearance(p.spec, p.cuts, p.allowance, p.take_up)
    off = clearance - p.allowance
    if abs(off) < _CLOSE:
        return []
    said = Message(
        "A centre of {centre} leaves its tips {clearance} from the raw edge: they will float {off} short of the seam."
        if off.sign > 0
        else "A centre of {centre} leaves its tips {clearance} from the raw edge: the seam will cut {off} off them.",
        centre=p.cuts["centre"],
        clearance=clearance,
        off=abs(off),
    )
    serious = abs(off) > _CLOSE * 2
    return [Note("tips_off", said, serious)]


def _joined_width(p: _Planned) -> list[Note]:
    off = p.raw_width - p.target_width
    if abs(off) < _CLOSE:
        return []
    way = "narrow" if off.sign < 0 else "wide"
    return [
        Note(
            "joined_width",
            Message(
                "Joined with your seam the goose comes out {off} too {way}: nothing is trimmed after its middle seam.",
                off=abs(off),
                way=way,
            ),
            serious=True,
        )
    ]
