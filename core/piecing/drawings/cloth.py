"""Each cloth with its strips in the order of cutting, numbered and sized, to cut from.

Source: docs/theory, section 13.6.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..cutting.plan import ClothPlan, CutStrip
from ..geometry.drawing import Drawing, Sketch
from ..geometry.plane import Point, rectangle
from ..lengths import Length
from ..messages import Listing, Message
from ..trimming import Cutter, Ruler

__all__ = ["StripSaid", "cloth_picture", "strip_said"]


def cloth_picture(plan: ClothPlan, cutter: Cutter = Cutter.RIGHT) -> Drawing:
    """The cloth with the first strip at the cutter's end; mirrored for a left-handed one."""
    sketch, across, along = Sketch(), float(plan.cloth.across), float(plan.cloth.along)
    shown = min(along, float(plan.used) * 1.08 + across * 0.04)
    mirror = cutter is Cutter.LEFT

    def at(x: float, y: float, wide: float, high: float) -> tuple[Point, ...]:
        left = across - x - wide if mirror else x
        return rectangle(wide, high, (left, shown - y - high))

    sketch.polygon("under", rectangle(across, shown), plan.cloth.fabric)
    for s in plan.strips:
        for p in s.placed:
            sketch.polygon("face", at(float(p.x), float(p.y), float(p.width), float(p.height)), plan.cloth.fabric)
        foot = float(s.y + s.depth)
        sketch.line("blade", (0.0, shown - foot), (across, shown - foot))
    return sketch.drawn(
        (0.0, 0.0, across, shown),
        Message(
            "{n, plural, one {one strip} other {# strips}} across {cloth}, {used} of it used.",
            n=len(plan.strips),
            cloth=plan.cloth.name or "the cloth",
            used=plan.used,
        ),
    )


@dataclass(frozen=True, slots=True)
class StripSaid:
    """A strip in words, and with what ruler."""

    said: Message
    ruler: Message


def strip_said(strip: CutStrip, rulers: Sequence[Ruler]) -> StripSaid:
    """What to set, what to cut from it, and which ruler owned is wide enough."""
    piles: dict[tuple[str, Length, Length, int], int] = {}
    for p in strip.placed:
        key = (p.piece.key, p.width, p.height, p.piece.gives)
        piles[key] = piles.get(key, 0) + 1
    words = [
        Message(
            "{n} {letter} of {w}{further}" if wide == high else "{n} {letter} of {w} by {h}{further}",
            n=count,
            letter=letter,
            w=wide,
            h=high,
            further={2: ", then once on the diagonal", 4: ", then on both diagonals"}.get(gives, ""),
        )
        for (letter, wide, high, gives), count in piles.items()
    ]
    said = Message("Cut a strip {depth} deep; from it {pieces}.", depth=strip.depth, pieces=Listing(words, "; "))
    fits = [r for r in rulers if max(r.width, r.height) >= strip.depth]
    broad = [r for r in rulers if min(r.width, r.height) >= strip.depth]
    best = min(broad or fits, key=lambda r: float(r.width) * float(r.height), default=None)
    if best is None:
        ruler = Message(
            "No ruler you own is {depth} wide: measure on the mat, or lay two rulers side by side.", depth=strip.depth
        )
    elif not broad:
        ruler = Message("With {name}, its long way across the strip.", name=best.name)
    else:
        ruler = Message("With {name}.", name=best.name)
    return StripSaid(said, ruler)
