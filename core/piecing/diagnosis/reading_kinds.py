"""Every kind of reading: what it is called, what it is taken on, and just where the ruler lies.

Source: docs/theory, section 14.6.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from .model import BlockModel, FeatureKind

__all__ = [
    "ACROSS_SEAMS",
    "BY_RULER",
    "DIAGONALS",
    "NEEDS_RAW",
    "OF_ANY_BLOCK",
    "OF_A_UNIT",
    "OF_THE_BLOCK",
    "PLAIN",
    "RAW_SIZES",
    "READING_WORDS",
    "SEWN",
    "SIDED",
    "SIZES",
    "ReadOn",
    "ReadingKind",
    "ReadingWords",
    "kinds_offered",
]


class ReadingKind(StrEnum):
    CUT = "cut"
    WIDTH = "width"
    HEIGHT = "height"
    RAW_WIDTH = "raw_width"
    RAW_HEIGHT = "raw_height"
    DIAGONAL_RISING = "diagonal_rising"
    DIAGONAL_FALLING = "diagonal_falling"
    MISS = "miss"
    CLEARANCE = "clearance"
    STITCH = "stitch"
    STRIP_TEST = "strip_test"
    TIP_GAP = "edge_tip"
    CORNER_GAP = "corner_tip"
    ROW = "row"
    COLUMN = "column"
    CROSSING = "crossing"
    BLOCK_WIDTH = "block_width"
    BLOCK_HEIGHT = "block_height"
    WAVY = "wavy"
    BOWED = "bowed"
    SHADOW = "shadow"
    FRAYED = "frayed"
    PICTURE_WRONG = "picture_wrong"
    RIGHT_WHEN_TURNED = "right_when_turned"
    SEAM_INSIDE_OUT = "seam_inside_out"
    TWO_ALIKE = "two_alike"


class ReadOn(StrEnum):
    """What a reading is taken on: a unit, one of its corners, its tip, a seam, a place of the joined block, strips sewn for it;
    or it is only seen."""

    UNIT = "unit"
    CORNER = "corner"
    TIP = "tip"
    SEAM = "seam"
    FEATURE = "feature"
    NOTHING = "none"
    SEEN = "seen"


@dataclass(frozen=True, slots=True)
class ReadingWords:
    """What a reading is called, what it is taken on, and just where the ruler lies; ``plain`` what it is called of a piece that is cut
    and never trimmed, where that is something else."""

    title: str
    on: ReadOn
    where: str = ""
    plain: str = ""


READING_WORDS = {
    ReadingKind.CUT: ReadingWords(
        "A piece as cut", ReadOn.UNIT, "one side of a piece, cut edge to cut edge, before it is sewn"
    ),
    ReadingKind.RAW_WIDTH: ReadingWords(
        "Raw width", ReadOn.UNIT, "the unit sewn, pressed and not yet trimmed: across it as it is made"
    ),
    ReadingKind.RAW_HEIGHT: ReadingWords(
        "Raw height", ReadOn.UNIT, "the unit sewn, pressed and not yet trimmed: up and down it as it is made"
    ),
    ReadingKind.WIDTH: ReadingWords(
        "Trimmed width",
        ReadOn.UNIT,
        "raw edge to raw edge through its middle, across the unit as it is made, however it lies",
        "Width",
    ),
    ReadingKind.HEIGHT: ReadingWords(
        "Trimmed height",
        ReadOn.UNIT,
        "raw edge to raw edge through its middle, up and down the unit as it is made, however it lies",
        "Height",
    ),
    ReadingKind.DIAGONAL_RISING: ReadingWords(
        "Diagonal, rising", ReadOn.UNIT, "from its lower left to its upper right raw corner, not pulled"
    ),
    ReadingKind.DIAGONAL_FALLING: ReadingWords(
        "Diagonal, falling", ReadOn.UNIT, "from its upper left to its lower right raw corner, not pulled"
    ),
    ReadingKind.MISS: ReadingWords(
        "Diagonal past the corner",
        ReadOn.CORNER,
        "the ruler on the diagonal seam, drawn out to the raw edge: how far from the corner it passes, square to it",
    ),
    ReadingKind.CLEARANCE: ReadingWords(
        "Tip to raw edge", ReadOn.TIP, "before joining: from the tip straight to the raw edge it points at"
    ),
    ReadingKind.STITCH: ReadingWords(
        "Raw edge to stitching", ReadOn.SEAM, "on the back, allowance lifted flat: from the raw edge to the stitches"
    ),
    ReadingKind.STRIP_TEST: ReadingWords(
        "Strip test",
        ReadOn.NOTHING,
        "three strips of one width, sewn and pressed to one side: the middle one seam to seam, then all three",
    ),
    ReadingKind.ROW: ReadingWords(
        "Row", ReadOn.FEATURE, "joined, pressed and lying flat: raw edge to raw edge along the line shown"
    ),
    ReadingKind.COLUMN: ReadingWords(
        "Column", ReadOn.FEATURE, "joined, pressed and lying flat: raw edge to raw edge along the line shown"
    ),
    ReadingKind.TIP_GAP: ReadingWords(
        "Tip to its seam", ReadOn.FEATURE, "on the front after joining: from the tip to the seam it should touch"
    ),
    ReadingKind.CORNER_GAP: ReadingWords(
        "Diagonal to its corner",
        ReadOn.FEATURE,
        "on the front after joining: along the seam, from the corner to where the diagonal ends",
    ),
    ReadingKind.CROSSING: ReadingWords(
        "Step at a crossing",
        ReadOn.FEATURE,
        "on the front after joining: along the seam, from one seam end to the other",
    ),
    ReadingKind.BLOCK_WIDTH: ReadingWords(
        "One block across",
        ReadOn.NOTHING,
        "any of the blocks, joined, pressed and lying flat: raw edge to raw edge through its middle",
    ),
    ReadingKind.BLOCK_HEIGHT: ReadingWords(
        "One block down",
        ReadOn.NOTHING,
        "any of the blocks, joined, pressed and lying flat: raw edge to raw edge through its middle",
    ),
    ReadingKind.WAVY: ReadingWords("It lies wavy", ReadOn.SEEN),
    ReadingKind.BOWED: ReadingWords("A row is bowed", ReadOn.SEEN),
    ReadingKind.SHADOW: ReadingWords("Dark cloth shows through", ReadOn.SEEN),
    ReadingKind.FRAYED: ReadingWords("Edges fray", ReadOn.SEEN),
    ReadingKind.PICTURE_WRONG: ReadingWords("The picture is wrong", ReadOn.SEEN),
    ReadingKind.RIGHT_WHEN_TURNED: ReadingWords("It comes right when a unit is turned", ReadOn.SEEN),
    ReadingKind.SEAM_INSIDE_OUT: ReadingWords("An allowance shows on the front", ReadOn.SEEN),
    ReadingKind.TWO_ALIKE: ReadingWords("Two units alike where mirrored ones are wanted", ReadOn.SEEN),
}
PLAIN = (
    ReadingKind.WAVY,
    ReadingKind.BOWED,
    ReadingKind.SHADOW,
    ReadingKind.FRAYED,
    ReadingKind.PICTURE_WRONG,
    ReadingKind.RIGHT_WHEN_TURNED,
    ReadingKind.SEAM_INSIDE_OUT,
    ReadingKind.TWO_ALIKE,
)
"""Seen, not measured."""
SEWN = (ReadingKind.STITCH, ReadingKind.STRIP_TEST)
"""How seams were sewn."""
RAW_SIZES = (ReadingKind.RAW_WIDTH, ReadingKind.RAW_HEIGHT)
"""Of units as they come from the machine."""
NEEDS_RAW = (ReadingKind.CUT, *RAW_SIZES)
"""Taken before trimming: they speak of the way the unit is made."""
SIZES = (ReadingKind.WIDTH, ReadingKind.HEIGHT)
"""Of units as they are trimmed, both ways."""
DIAGONALS = (ReadingKind.DIAGONAL_RISING, ReadingKind.DIAGONAL_FALLING)
OF_A_UNIT = (
    *NEEDS_RAW,
    *SIZES,
    *DIAGONALS,
    ReadingKind.MISS,
    ReadingKind.CLEARANCE,
)
OF_THE_BLOCK = (
    ReadingKind.TIP_GAP,
    ReadingKind.CORNER_GAP,
    ReadingKind.ROW,
    ReadingKind.COLUMN,
    ReadingKind.CROSSING,
)
ACROSS_SEAMS = (ReadingKind.ROW, ReadingKind.COLUMN, ReadingKind.BLOCK_WIDTH, ReadingKind.BLOCK_HEIGHT)
"""Lengths of what is joined: they answer for its units and its seams."""
OF_ANY_BLOCK = {ReadingKind.BLOCK_WIDTH: FeatureKind.ROW, ReadingKind.BLOCK_HEIGHT: FeatureKind.COLUMN}
"""Of one block among those alike, whole."""
SIDED = (ReadingKind.MISS, ReadingKind.TIP_GAP, ReadingKind.CORNER_GAP, ReadingKind.CROSSING)
"""Those that may lie on either of two sides; below zero inside means the second of them. All others are above zero."""
BY_RULER = (
    *NEEDS_RAW,
    *SIZES,
    *DIAGONALS,
    ReadingKind.CLEARANCE,
    ReadingKind.STITCH,
    ReadingKind.ROW,
    ReadingKind.COLUMN,
    ReadingKind.BLOCK_WIDTH,
    ReadingKind.BLOCK_HEIGHT,
)
"""From an edge to a mark: an error of the ruler, or of how its edge is laid, is in each of them alike."""


def kinds_offered(model: BlockModel, *, of_row: bool = False) -> tuple[ReadingKind, ...]:
    """Every kind of reading that can be taken of this block, in the order of the work; of a loose row, no columns or crossings."""
    has = {f.kind.value for f in model.features} - ({"column", "crossing"} if of_row else set())
    batches = model.places.batches
    able = {
        ReadOn.TIP: any(b.tips for b in batches),
        ReadOn.CORNER: any(b.corners for b in batches),
        ReadOn.UNIT: True,
        ReadOn.SEAM: True,
        ReadOn.NOTHING: True,
        ReadOn.SEEN: True,
    }
    made = any(not b.plain for b in batches)
    return tuple(
        kind
        for kind, words in READING_WORDS.items()
        if (kind.value in has if words.on is ReadOn.FEATURE else able[words.on])
        and (made or kind not in NEEDS_RAW)
        and (kind not in OF_ANY_BLOCK or (not of_row and OF_ANY_BLOCK[kind].value in has))
    )
