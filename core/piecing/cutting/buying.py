"""How much to buy: the length of cloth a plan takes, with shrinkage and a wrong cut, in the shop's steps.

Source: docs/theory, section 13.5.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from fractions import Fraction

from ..errors import ClothImpossible
from ..lengths import ZERO, Length, Measure, inches, mm
from ..messages import Message
from .plan import Goal, cutting_plan, shelf_plan
from .stock import Cloth, ClothKind, WantedPiece

__all__ = ["Pack", "Purchase", "Shop", "purchases", "shop_said", "shop_step"]

_LONG = inches(1_500)


@dataclass(frozen=True, slots=True)
class Shop:
    """How cloth is sold, and what is allowed for: ``shrinkage`` a share, ``wrong_cuts`` strips cut again."""

    usable: Length = inches(40)
    step: Length = inches("9/2")
    shrinkage: Fraction = Fraction(3, 100)
    wrong_cuts: int = 1
    fat_quarter: tuple[Length, Length] = (inches(20), inches(18))
    square: Length = inches(10)
    small_square: Length = inches(5)
    strip: Length = inches("5/2")


def shop_step(measure: Measure) -> Length:
    """An eighth of a yard, or ten centimetres."""
    return mm(100) if measure is Measure.MILLIMETRES else inches("9/2")


@dataclass(frozen=True, slots=True)
class Pack:
    """``count`` cloths of a kind sold ready cut, each ``across`` by ``along``."""

    kind: ClothKind
    count: int
    across: Length
    along: Length


@dataclass(frozen=True, slots=True)
class Purchase:
    """For one fabric: ``minimum_cuts`` is what the plan takes of cloth ``usable`` wide, ``buy`` what to ask for in the shop.

    ``instead`` is what would do in its place, each kind by itself; those that hold not every piece are left out.
    """

    fabric: str
    bare: Length
    buy: Length
    instead: tuple[Pack, ...]
    proven: bool


def shop_said(length: Length, measure: Measure) -> Message:
    """As one asks for it in the shop: yards in eighths, or metres."""
    if measure is Measure.MILLIMETRES:
        return Message("{metres} m", metres=f"{float(length) * 0.0254:.1f}")
    whole, eighths = divmod(-(-(length.rational / 36 * 8) // 1), 8)
    part = Fraction(int(eighths), 8)
    words = " ".join(str(x).replace("/", "⁄") for x in (int(whole), part) if x)
    return Message("{yards} yd", yards=words)


def purchases(pieces: Iterable[WantedPiece], shop: Shop, seconds: float = 4.0) -> tuple[Purchase, ...]:
    """What to buy of each fabric. Raises ``ClothImpossible`` when a piece is wider than cloth is sold, either way."""
    wanted = [p for p in pieces if p.count > 0]
    fabrics = sorted({p.fabric for p in wanted})
    return tuple(_one(f, [p for p in wanted if p.fabric == f], shop, seconds / max(1, len(fabrics))) for f in fabrics)


def _one(fabric: str, pieces: Sequence[WantedPiece], shop: Shop, seconds: float) -> Purchase:
    for p in pieces:
        narrow = min(p.width, p.height) if p.turns else p.width
        if narrow > shop.usable:
            raise ClothImpossible(
                "{name} is {size} wide, and cloth is {usable} wide at most. Join it from narrower pieces.",
                field="pieces",
                name=p.name or p.key,
                size=narrow,
                usable=shop.usable,
            )
    plan = cutting_plan(pieces, [Cloth("bolt", fabric, shop.usable, _LONG)], Goal.LEAST, seconds)
    bare = sum((c.used for c in plan.cloths), ZERO)
    deepest = max((s.depth for c in plan.cloths for s in c.strips), default=ZERO)
    buy = ((bare + deepest * shop.wrong_cuts) * (1 / (1 - shop.shrinkage))).round_up(shop.step)
    sold = (
        (ClothKind.FAT_QUARTER, *shop.fat_quarter),
        (ClothKind.SQUARE, shop.square, shop.square),
        (ClothKind.SQUARE, shop.small_square, shop.small_square),
        (ClothKind.STRIP, shop.usable, shop.strip),
    )
    packs = (_pack(pieces, fabric, *pack) for pack in sold)
    return Purchase(fabric, bare, buy, tuple(p for p in packs if p), plan.proven)


def _pack(pieces: Sequence[WantedPiece], fabric: str, kind: ClothKind, across: Length, along: Length) -> Pack | None:
    """How many of these cloths do, by laying pieces first fit: an upper figure. None when a piece fits on none."""
    for p in pieces:
        fits = (p.width <= across and p.height <= along) or (p.turns and p.height <= across and p.width <= along)
        if not fits:
            return None
    plan = shelf_plan(pieces, [Cloth("pack", fabric, across, along, kind, min(20_000, sum(p.count for p in pieces)))])
    return None if plan.missing else Pack(kind, len(plan.cloths), across, along)
