"""Places and readings of a block in words.

Source: docs/theory.md, section 14.6.
"""

from __future__ import annotations

from ..wording import Said
from .model import BlockModel, FeatureKind
from .places import batch_name
from .readings import OF_A_UNIT, OF_THE_BLOCK, Reading, ReadingKind

__all__ = ["feature_name", "reading_said", "seam_said"]

_EDGES = {"top": "upper edge", "bottom": "lower edge", "middle": "through the middle"}
_KINDS = {
    ReadingKind.CUT: "a piece as cut",
    ReadingKind.WIDTH: "trimmed width",
    ReadingKind.HEIGHT: "trimmed height",
    ReadingKind.RAW_WIDTH: "raw width",
    ReadingKind.RAW_HEIGHT: "raw height",
    ReadingKind.DIAGONAL_RISING: "diagonal, rising",
    ReadingKind.DIAGONAL_FALLING: "diagonal, falling",
    ReadingKind.CLEARANCE: "tip to raw edge",
    ReadingKind.STRIP_TEST: "strip test",
    ReadingKind.WAVY: "lies wavy",
    ReadingKind.BOWED: "a row is bowed",
    ReadingKind.SHADOW: "dark cloth shows through",
    ReadingKind.FRAYED: "edges fray",
    ReadingKind.PICTURE_WRONG: "the picture is wrong",
    ReadingKind.RIGHT_WHEN_TURNED: "the picture is right when a unit is turned",
    ReadingKind.SEAM_INSIDE_OUT: "an allowance shows on the front",
    ReadingKind.TWO_ALIKE: "two units are alike where mirrored ones are wanted",
}


def seam_said(name: str) -> str:
    """A seam with its article."""
    return name if name.startswith("the ") else f"the seam {name}"


def reading_said(reading: Reading, model: BlockModel) -> Said:
    """What was measured and where."""
    where, k = _where(reading, model), reading.kind
    if k in OF_THE_BLOCK:
        return where
    if k is ReadingKind.MISS:
        what = Said("diagonal past the {corner} corner", corner=reading.corner or "first")
    elif k is ReadingKind.STITCH:
        what = Said("raw edge to stitching, {spot}", spot=reading.spot or "middle")
    else:
        what = Said(_KINDS[k])
    return Said("{where}: {what}", where=where, what=what) if where.template else what


def _where(reading: Reading, model: BlockModel) -> Said:
    places = model.places
    if reading.kind in OF_THE_BLOCK:
        n = model.find(reading.feature)
        return Said("{name}", name=reading.feature) if n is None else feature_name(model, n)
    if reading.kind is ReadingKind.STITCH and reading.seam:
        return Said("{name}", name=reading.seam)
    if reading.unit:
        unit = places.unit(reading.unit)
        return Said("{name}", name=unit.name if unit else reading.unit)
    if reading.kind in OF_A_UNIT and reading.batch:
        batch = places.batch(reading.batch)
        return Said("one of the {name}", name=batch_name(places, batch.number) if batch else reading.batch)
    return Said("")


def feature_name(model: BlockModel, n: int) -> Said:
    """A place to measure on a joined block."""
    f = model.features[n]
    match f.kind:
        case FeatureKind.ROW | FeatureKind.COLUMN:
            edge = _EDGES.get(f.edge, f"{f.edge} edge")
            return Said("{what} {n}, {edge}", what=f.kind.value, n=f.row + 1, edge=edge)
        case FeatureKind.EDGE_TIP:
            return Said("{unit}: tip at its {edge}", unit=model.places.cells[f.cell].name, edge=f.edge)
        case FeatureKind.CORNER_TIP:
            return Said("{unit}: diagonal at its {edge} corner", unit=model.places.cells[f.cell].name, edge=f.edge)
        case FeatureKind.CROSSING:
            return Said("{seam}, crossing {n}", seam=model.places.seams[f.seam].name, n=f.nth)
