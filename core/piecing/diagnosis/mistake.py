"""A mistake made at a stroke: what it does to readings, and the units that may be trimmed, or pieces cut, at a wrong mark together.

Source: docs/theory, section 14.7.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from enum import StrEnum
from itertools import repeat

from ..lengths import Length, inches, mm
from ..messages import Message
from .causes import Cause, parameters_of
from .equations import Equation
from .model import BlockModel, Vector
from .places import batch_name
from .reading_kinds import SIZES, ReadingKind
from .readings import Reading

__all__ = [
    "ALIKE",
    "FAR",
    "ODDS",
    "OF_CUTTING",
    "STEPS",
    "TOLD",
    "AlikeGroup",
    "Edge",
    "Mistake",
    "MistakeKind",
    "far_off",
    "groups_of",
    "of_one",
    "off_alike",
    "tells_of",
]

STEPS = (inches("1/8"), inches("1/4"), inches("1/2"), inches(1))
"""Between marks that are taken one for another."""
FAR, ALIKE = 3 / 16, 1 / 16
"""Inches: a unit that is off by so much was trimmed at another mark; readings that differ by less may be of the same one."""
ODDS = {"finished": 0.010, "mark": 0.006, "border": 0.006, "side": 0.002}
OF_CUTTING = 0.5
"""How often pieces are cut at a wrong mark, beside units that are trimmed at one: they are measured before they are sewn."""
TOLD = 1e-9
_OF_ONE = (ReadingKind.CUT, *SIZES)


class MistakeKind:
    FINISHED = "finished_for_unfinished"
    MARK = "wrong_mark"
    BORDER = "ruler_border"
    SIDE = "one_side"
    INSIDE = "seam_to_seam"


class Edge(StrEnum):
    """Where a unit with a tip is trimmed off along its height: told by what is left above the tip."""

    ANY = "any"
    FOOT = "foot"
    TIP = "tip"


@dataclass(frozen=True)
class Mistake:
    """``change`` (readings,) is what it does to each reading, inches; ``size`` its own, with its sign; ``odds`` a logarithm.

    ``parameters`` are the numbers of the causes that it is of the block itself; none when only the readings are wrong. What is
    wrong with one side of the units of a ``batch`` is no common cause: ``errors`` says what it makes of theirs, inches.
    """

    code: str
    kind: str
    size: float
    said: Message
    why: Message
    change: Vector
    odds: float
    parameters: tuple[int, ...] = ()
    errors: Mapping[int, float] = field(default_factory=dict)
    batch: int = -1
    edge: Edge = Edge.ANY


@dataclass(frozen=True, slots=True)
class AlikeGroup:
    """Units trimmed alike, or the pieces of one kind cut alike: numbers of their causes, what they are called, a word to know them by,
    and how much likelier than half it is that a wrong mark was of this group."""

    numbers: tuple[int, ...]
    name: Message
    which: str
    sized: str = "trimmed"
    cut: bool = False
    share: float = 0.5


def tells_of(reading: Reading, equation: Equation | None, number: int) -> bool:
    """Whether a reading is of the very thing: a row that is short may be so for its seams."""
    return equation is not None and reading.kind in _OF_ONE and abs(float(equation.of_causes[number])) > TOLD


def groups_of(
    model: BlockModel, readings: Sequence[Reading], equations: Sequence[Equation | None]
) -> Iterator[AlikeGroup]:
    """All units, where more than one kind of them was measured; each kind that was; the pieces of each kind."""
    of = [(n, p) for n, p in enumerate(parameters_of(model)) if p.cause in (Cause.TRIM, Cause.CUT) and p.batch >= 0]
    told = {n for n, p in of if any(map(tells_of, readings, equations, repeat(n)))}
    trims = tuple(n for n, p in of if p.cause is Cause.TRIM)
    if len(told.intersection(trims)) > 1:
        plain = all(b.plain for b in model.places.batches)
        yield AlikeGroup(trims, Message("all units"), "all", "cut" if plain else "trimmed", share=1.0)
    for n, p in of:
        if n in told:
            cut = p.cause is Cause.CUT
            alone = len(trims) == 1 and not cut
            which = f"cut-{p.batch}" if cut else f"{p.batch}"
            who, sized = Message("{who}", who=batch_name(model.places, p.batch)), model.places.batches[p.batch].sized
            yield AlikeGroup((n,), who, which, sized, cut, 1.0 if alone else 0.5)


def far_off(
    readings: Sequence[Reading], equations: Sequence[Equation | None], group: AlikeGroup, sign: int
) -> Iterator[Length]:
    """How far, by the readings of units or pieces themselves, they are off, where no hand strays so far and all of them are alike:
    whatever mark it was, it is said as it was read."""
    pairs = [(r, e) for r, e in zip(readings, equations, strict=True) if e is not None and r.value is not None]
    kinds = (ReadingKind.CUT,) if group.cut else SIZES
    own = [(r, e) for r, e in pairs if r.kind in kinds and of_one(e, group.numbers)]
    size = off_alike(own)
    # One figure alone, off by no step of a ruler, is a slip of the pen sooner than a mark.
    if size is None or len(own) < 2:
        return
    middle = float(size) * sign
    if middle >= FAR and all(abs(middle - float(known)) > ALIKE / 2 for known in STEPS):
        yield abs(size)


def off_alike(own: Sequence[tuple[Reading, Equation]]) -> Length | None:
    """How far off all of these are, to the mark that they were read to; None where they differ."""
    off = sorted(r.read - e.nominal for r, e in own)
    if not off or off[-1] - off[0] > ALIKE:
        return None
    inch = all(r.value.on_step(inches("1/32")) for r, _ in own if r.value is not None)
    return Length.near(off[len(off) // 2]).round_near(inches("1/32") if inch else mm(1) / 2)


def of_one(e: Equation, numbers: Sequence[int]) -> bool:
    """Whether the equation is of one of these causes, once."""
    return abs(float(e.of_causes[list(numbers)].sum()) - 1) < 1e-9
