"""Places and readings of a block in words.

Source: docs/theory, section 14.6.
"""

from __future__ import annotations

from dataclasses import dataclass

from ..messages import Message, MidSentence
from .causes import Cause, Parameter
from .model import BlockModel, FeatureKind
from .places import batch_name
from .reading_kinds import OF_A_UNIT, OF_THE_BLOCK, READING_WORDS, SEWN, SIDED, ReadingKind
from .readings import Reading
from .words import Roughly

__all__ = ["Landing", "against", "feature_name", "landings", "place_said", "reading_said"]

_EDGES = {"top": "upper edge", "bottom": "lower edge", "middle": "through the middle"}


def _plain(reading: Reading, model: BlockModel) -> bool:
    """Whether it was read of a piece without a seam."""
    places = model.places
    unit = places.unit(reading.unit) if reading.unit else None
    return any(b.plain and (b.number == unit.batch if unit else b.key == reading.batch) for b in places.batches)


def place_said(model: BlockModel, p: Parameter) -> str:
    """Which seam, seams or unit a cause is of by itself; empty for one that all have in common."""
    places = model.places
    if not p.single:
        return ""
    if p.cause is Cause.SOME_SEAMS:
        return places.seam_groups[p.place].where
    return places.seams[p.place].name if p.cause is Cause.ONE_SEAM else places.cells[p.place].name


def reading_said(reading: Reading, model: BlockModel) -> Message:
    """What was measured and where."""
    where, k = _where(reading, model), reading.kind
    if k is ReadingKind.ROW and reading.count:
        return Message("a row of {count}", count=reading.count)
    if k in OF_THE_BLOCK:
        return where
    if k is ReadingKind.MISS:
        what = Message("diagonal past the {corner} corner", corner=reading.corner or "first")
    elif k is ReadingKind.CLEARANCE and reading.corner:
        what = Message("{side} tip to raw edge", side=reading.corner)
    elif k is ReadingKind.STITCH:
        what = Message("raw edge to stitching, {spot}", spot=reading.spot or "middle")
    else:
        words = READING_WORDS[k]
        title = words.plain if words.plain and _plain(reading, model) else words.title
        what = Message("{what}", what=MidSentence(Message("{title}", title=title)))
    return Message("{where}: {what}", where=where, what=what) if where.template else what


def against(kind: ReadingKind, off: float) -> Message:
    """A reading beside what it should be, ``off`` inches beyond it."""
    if abs(off) < 1 / 64:
        return Message("as it should be")
    more, less = ("wide", "narrow") if kind in SEWN else ("over", "short")
    if kind in SIDED:
        return Message("{size} off", size=Roughly(off))
    return Message("{size} {way}", size=Roughly(off), way=more if off > 0 else less)


@dataclass(frozen=True, slots=True)
class Landing:
    """One of the two sides that a sided reading may lie on: how it is picked, in words; ``sign`` is its side in the model."""

    code: str
    said: Message
    sign: int


def landings(kind: ReadingKind, corner: str = "", *, upright: bool = False) -> tuple[Landing, ...]:
    """The sides of a kind of reading; ``corner`` ("bottom left") for diagonals, ``upright`` for a crossing's seam. None for
    kinds that lie on no side."""
    if kind is ReadingKind.TIP_GAP:
        return Landing("floats", Message("it floats short of the seam"), 1), Landing(
            "cut", Message("it is cut off"), -1
        )
    if kind in (ReadingKind.MISS, ReadingKind.CORNER_GAP):
        down, across = corner.split() if corner else ("lower or upper", "left or right")
        return (
            Landing("across", Message("it lands on the {side} side", side=across), 1),
            Landing("down", Message("it lands on the {side} side", side=down), -1),
        )
    if kind is ReadingKind.CROSSING:
        first, second = ("left", "right") if upright else ("upper", "lower")
        return (
            Landing("first", Message("the {side} side reaches further", side=first), 1),
            Landing("second", Message("the {side} side reaches further", side=second), -1),
        )
    return ()


def _where(reading: Reading, model: BlockModel) -> Message:
    places = model.places
    if reading.kind in OF_THE_BLOCK:
        n = model.find(reading.feature)
        return Message("{name}", name=reading.feature) if n is None else feature_name(model, n)
    if reading.kind is ReadingKind.STITCH and reading.seam:
        return Message("{name}", name=reading.seam)
    if reading.unit:
        unit = places.unit(reading.unit)
        return Message("{name}", name=unit.name if unit else reading.unit)
    if reading.kind in OF_A_UNIT and reading.batch:
        batch = places.batch(reading.batch)
        return Message("one of the {name}", name=batch_name(places, batch.number) if batch else reading.batch)
    return Message("")


def feature_name(model: BlockModel, n: int) -> Message:
    """A place to measure on a joined block."""
    f = model.features[n]
    match f.kind:
        case FeatureKind.ROW | FeatureKind.COLUMN:
            edge = _EDGES.get(f.edge, f"{f.edge} edge")
            return Message("{what} {n}, {edge}", what=f.kind.value, n=f.row + 1, edge=edge)
        case FeatureKind.EDGE_TIP:
            return Message("{unit}: tip at its {edge}", unit=model.places.cells[f.cell].name, edge=f.edge)
        case FeatureKind.CORNER_TIP:
            return Message("{unit}: diagonal at its {edge} corner", unit=model.places.cells[f.cell].name, edge=f.edge)
        case FeatureKind.CROSSING:
            return Message("{seam}, crossing {n}", seam=model.places.seams[f.seam].name, n=f.nth)
