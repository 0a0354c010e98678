"""From what one sees to what to measure: a few pictures and plain questions, ending in readings.

Every picture is a block sewn with the error it stands for, drawn larger than it is. Source: docs/theory, section 14.11.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from .reading_kinds import ReadingKind

__all__ = ["Symptom", "end_of", "symptoms"]


@dataclass(frozen=True)
class Symptom:
    """One answer to "what do you see": in plain words, with the block and errors of its picture.

    ``further`` are the answers to the next question; without any, ``measure`` lists the readings that tell causes apart and
    ``because`` says what they tell.
    """

    code: str
    said: str
    block: str
    causes: Mapping[str, float]
    question: str = ""
    further: tuple[Symptom, ...] = ()
    measure: tuple[ReadingKind, ...] = ()
    because: str = ""
    observe: ReadingKind | None = None
    turned: bool = False

    def walk(self) -> Iterator[Symptom]:
        """This symptom and all it branches into, each before its branches."""
        yield self
        for f in self.further:
            yield from f.walk()


K = ReadingKind
_EDGE = (K.CLEARANCE, K.STITCH, K.WIDTH, K.STRIP_TEST)
_CORNER = (K.MISS, K.STITCH, K.WIDTH, K.HEIGHT)
_SIZE = (K.WIDTH, K.STITCH, K.STRIP_TEST, K.ROW)

_TREE = (
    Symptom(
        "points",
        "My points are cut off, or stop short",
        "sawtooth_star",
        {"seam": 1 / 16},
        "Where is the point?",
        (
            Symptom(
                "edge_tip_cut",
                "In the middle of a side, and its tip is gone",
                "sawtooth_star",
                {"seam": 1 / 16},
                measure=_EDGE,
                because="A seam too wide cuts every such tip by the same; a tip trimmed too near the edge is cut though the "
                "seam is true. The clearance before joining tells them apart.",
            ),
            Symptom(
                "edge_tip_floats",
                "In the middle of a side, and it stops short of the seam",
                "sawtooth_star",
                {"tip-1": 1 / 12},
                measure=_EDGE,
                because="A narrow seam, or too much left above the tip: measure both.",
            ),
            Symptom(
                "corner_tip",
                "A diagonal that misses the corner of its unit",
                "pinwheel",
                {"shift-0": 1 / 12},
                measure=_CORNER,
                because="A seam too wide everywhere leaves these sharp. They break when units were trimmed off the diagonal, "
                "or when the two seams at the corner differ.",
            ),
        ),
    ),
    Symptom(
        "size",
        "The block or a row is too small, or too large",
        "lantern",
        {"seam": 1 / 16},
        "How far off is it?",
        (
            Symptom(
                "small",
                "A little short, more with every seam",
                "lantern",
                {"seam": 1 / 16},
                measure=_SIZE,
                because="Wide seams take length without touching the units; units trimmed small are short by themselves; a "
                "fold not paid for shows only in a strip test.",
            ),
            Symptom(
                "large",
                "A little long",
                "lantern",
                {"seam": -1 / 16},
                measure=_SIZE,
                because="Narrow seams, or units trimmed large: one unit and one seam tell.",
            ),
            Symptom(
                "exactly",
                "By exactly a half or a quarter",
                "lantern",
                {"trim-0": -1 / 4, "trim-1": -1 / 4, "trim-2": -1 / 4},
                measure=(K.WIDTH, K.HEIGHT, K.ROW),
                because="An error of just two seam allowances is finished size for unfinished; one that is the same on a unit "
                "as on a row is the ruler's border.",
            ),
        ),
    ),
    Symptom(
        "crossings",
        "Seams that should meet are stepped",
        "lantern",
        {"trim-1": -1 / 12},
        "At which crossings?",
        (
            Symptom(
                "all_crossings",
                "At most of them, more and more along the row",
                "lantern",
                {"trim-1": -1 / 12},
                measure=(K.WIDTH, K.CROSSING, K.ROW),
                because="Units of one kind are larger than those of another: measure one of each.",
            ),
            Symptom(
                "one_end",
                "Only toward one end of the seams",
                "lantern",
                {"end": 1 / 10},
                measure=(K.STITCH, K.ROW, K.CROSSING),
                because="The seam wanders: measure it at its start, its middle and its end.",
            ),
        ),
    ),
    Symptom(
        "not_flat",
        "It does not lie flat, or a row bends",
        "lantern",
        {"end": 1 / 10},
        "Which of these?",
        (
            Symptom(
                "bowed",
                "A row bends: one edge is longer than the other",
                "lantern",
                {"end": 1 / 10},
                measure=(K.ROW, K.STITCH),
                because="Both edges of the row, and the seam at its start and end: either seams drift, or many parts were "
                "joined one after another.",
                observe=K.BOWED,
            ),
            Symptom(
                "wavy",
                "Units are wavy and not square",
                "pinwheel",
                {"stretch-0": 1 / 4},
                measure=(K.DIAGONAL_RISING, K.DIAGONAL_FALLING, K.WIDTH, K.HEIGHT),
                because="Stretched bias shows in unequal diagonals.",
                observe=K.WAVY,
            ),
        ),
    ),
    Symptom(
        "picture",
        "The picture is wrong, sizes are right",
        "pinwheel",
        {},
        "Turn the unit in your hand: does it come right?",
        (
            Symptom(
                "turned",
                "Yes, it lies turned",
                "pinwheel",
                {},
                because="Unpick it, turn it and sew it in again. Nothing else is wrong.",
                observe=K.RIGHT_WHEN_TURNED,
                turned=True,
            ),
            Symptom(
                "hand",
                "No, whichever way I turn it",
                "split_whirl",
                {},
                because="It is of the other hand: a mirror image. It belongs in a place that asks for one, or is made again "
                "from loose triangles.",
                observe=K.PICTURE_WRONG,
                turned=True,
            ),
        ),
        turned=True,
    ),
    Symptom(
        "no_room",
        "Units are too small to trim on four sides",
        "pinwheel",
        {"trim-0": -1 / 8},
        measure=(K.CUT, K.RAW_WIDTH, K.STITCH),
        because="A piece as cut, a unit as sewn and its seam: small raw units with good seams mean pieces cut small.",
    ),
)


def symptoms() -> tuple[Symptom, ...]:
    """The first question's answers."""
    return _TREE


def end_of(code: str) -> Symptom | None:
    """The symptom with this code; ``None`` for one that there is not."""
    return next((s for first in _TREE for s in first.walk() if s.code == code), None)
