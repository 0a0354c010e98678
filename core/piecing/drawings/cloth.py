"""Each cloth with its strips in the order of cutting, numbered and sized, to cut from.

Source: docs/theory, section 13.6.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction

from ..cutting.plan import ClothPlan, CutStrip
from ..cutting.stock import Cloth, ClothKind
from ..geometry.drawing import Drawing, Sketch
from ..geometry.plane import Point, rectangle
from ..lengths import ZERO, Length
from ..messages import Listing, Message
from ..trimming import Cutter, Ruler

__all__ = ["StripSaid", "cloth_picture", "first_said", "strip_said"]


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
    return sketch.to_drawing(
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


def first_said(cloth: Cloth) -> Message | None:
    """What comes before the first strip; nothing for what is sold cut to size."""
    if cloth.kind in (ClothKind.SQUARE, ClothKind.STRIP):
        return None
    return Message(
        "First square up the edge: a line of the ruler along the selvedge or a cut side, and off with a sliver. Strips are counted "
        "from there."
    )


def strip_said(strip: CutStrip, rulers: Sequence[Ruler], cloth: Cloth) -> StripSaid:
    """What to set, what to cut from it, and which ruler owned is wide enough and reaches across the ``cloth``, folded or not."""
    one = strip.placed[0] if len(strip.placed) == 1 else None
    if one is not None and (one.width, one.height) == (cloth.across, cloth.along):
        return StripSaid(
            Message(
                "Take it as it is: one {letter} of {w} by {h}{further}.",
                letter=one.piece.key,
                w=one.width,
                h=one.height,
                further=_FURTHER.get(one.piece.gives, ""),
            ),
            Message("Nothing is cut off."),
        )
    across = cloth.across
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
            further=_FURTHER.get(gives, ""),
        )
        for (letter, wide, high, gives), count in piles.items()
    ]
    said = Message("Cut a strip {depth} deep; from it {pieces}.", depth=strip.depth, pieces=Listing(words, "; "))
    return StripSaid(said, _ruler_said(strip.depth, rulers, across))


_FURTHER = {2: ", then once on the diagonal", 4: ", then on both diagonals"}


_FOLDS = 2
"""The most that cloth is folded for a cut: four layers."""


def _ruler_said(depth: Length, rulers: Sequence[Ruler], across: Length) -> Message:
    """The smallest ruler that shows the strip's width and reaches along the whole cut, with as few folds as may be; else two
    rulers side by side; else the mat."""
    for folds in range(_FOLDS + 1):
        long = across * Fraction(1, 2**folds)
        fits = [r for r in rulers if r.reach >= depth and max(r.width, r.height) >= long]
        if fits:
            best = min(fits, key=lambda r: (r.border > ZERO, float(r.width) * float(r.height)))
            laid = Message(
                "With {name}, the cloth {folds, plural, =0 {unfolded} one {folded once: {long} to cut} other {folded twice: {long} "
                "to cut, four layers}}.",
                name=best.name,
                folds=folds,
                long=long,
            )
            if best.border == ZERO or best.border >= depth:
                return laid
            return Message(
                "{laid} It has {border} before its first mark: cutting along that edge, set its mark {mark}.",
                laid=laid,
                border=best.border,
                mark=depth - best.border,
            )
    along = max(rulers, key=lambda r: float(max(r.width, r.height)), default=None)
    if along is None:
        return Message("No ruler is put down as owned: measure {depth} on the mat.", depth=depth)
    beside = [r for r in rulers if r is not along and r.reach + along.reach >= depth]
    if beside:
        other = min(beside, key=lambda r: float(r.reach))
        return Message(
            "No ruler you own is {depth} wide: lay {other} beside {name}, edge to edge, and cut along {name}.",
            depth=depth,
            other=other.name,
            name=along.name,
        )
    return Message(
        "No ruler you own is {depth} wide: lay the cloth's edge on a line of the mat, and cut along {name} where the mat shows "
        "{depth}.",
        depth=depth,
        name=along.name,
    )
