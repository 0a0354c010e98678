"""How much to buy: the length of cloth a plan takes, with shrinkage and a wrong cut, in the shop's steps.

Source: docs/theory, section 13.5.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction

from ..errors import ClothImpossible
from ..lengths import ZERO, Length, Measure, inches, mm
from ..messages import Message
from ..quilts.backing import Backing, backing_said
from ..quilts.joined import joined_length, strips_settled
from .plan import bolt_length, shelf_cloths
from .stock import Cloth, ClothKind, WantedPiece

__all__ = ["BackingPurchase", "Pack", "Purchase", "Shop", "backing_purchase", "purchases", "shop_said", "shop_step"]

_LONG = inches(1_500)


@dataclass(frozen=True, slots=True)
class Shop:
    """How cloth is sold, and what is allowed for: ``shrinkage`` a share, ``wrong_cuts`` strips cut again, each as deep as the
    deepest that pieces need."""

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
    """For one fabric: ``bare`` is what the plan takes of cloth ``usable`` wide, ``buy`` what to ask for in the shop.

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


@dataclass(frozen=True, slots=True)
class BackingPurchase:
    """Cloth for the back of the quilt: ``bare`` is what its panels take, ``buy`` what to ask for, ``said`` how it is joined.

    ``width`` and ``height`` are what it measures when it is joined; the batting is as large.
    """

    width: Length
    height: Length
    bare: Length
    buy: Length
    said: Message


def backing_purchase(best: Backing, shop: Shop) -> BackingPurchase:
    """Cloth for a backing pieced so."""
    buy = (best.length * (1 / (1 - shop.shrinkage))).round_up(shop.step)
    return BackingPurchase(best.width, best.height, best.length, buy, backing_said(best))


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
    bare, proven = bolt_length(pieces, Cloth("bolt", fabric, shop.usable, _LONG), seconds)
    again = max((_strip_again(p) for p in pieces), default=ZERO)
    buy = ((bare + again * shop.wrong_cuts) * (1 / (1 - shop.shrinkage))).round_up(shop.step)
    sold = (
        (ClothKind.FAT_QUARTER, *shop.fat_quarter),
        (ClothKind.SQUARE, shop.square, shop.square),
        (ClothKind.SQUARE, shop.small_square, shop.small_square),
        (ClothKind.STRIP, shop.usable, shop.strip),
    )
    packs = (_pack(pieces, fabric, *pack) for pack in sold)
    return Purchase(fabric, bare, buy, tuple(p for p in packs if p), proven)


def _strip_again(piece: WantedPiece) -> Length:
    """The depth of a strip across the cloth that makes good a piece cut wrong. One longer than the cloth is wide, a border say, is
    joined from such strips, unless its print or the grain asked for lets it lie only one way."""
    if not piece.turns or piece.along_cloth:
        return piece.height
    return min(piece.width, piece.height)


def _pack(pieces: Sequence[WantedPiece], fabric: str, kind: ClothKind, across: Length, along: Length) -> Pack | None:
    """How many of these cloths do, by laying pieces first fit: an upper figure. None when a piece fits on none."""
    pieces = _joined_from(pieces, max(across, along))
    for p in pieces:
        fits = (p.width <= across and p.height <= along) or (p.turns and p.height <= across and p.width <= along)
        if not fits:
            return None
    most = min(20_000, sum(p.count for p in pieces))
    needed = shelf_cloths(pieces, [Cloth("pack", fabric, across, along, kind, most)])
    return None if needed is None else Pack(kind, needed, across, along)


def _joined_from(pieces: Sequence[WantedPiece], longest: Length) -> list[WantedPiece]:
    """The pieces, those that are joined from strips of any length cut as long as this cloth gives them."""
    found = []
    for p in pieces:
        if p.joined and p.height > longest > p.width * 2:
            whole = joined_length({p.height: p.count}, p.width)
            n = sum(strips_settled(whole, p.width, {}, longest).values())
            found.append(replace(p, height=longest, count=n))
        else:
            found.append(p)
    return found
