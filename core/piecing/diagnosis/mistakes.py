"""Mistakes made at a stroke: a wrong mark, finished for unfinished size, a border counted; and those that only the eye finds.

Source: docs/theory, section 14.7.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from enum import StrEnum
from itertools import repeat
from math import log

import numpy as np

from ..lengths import Length, inches, mm
from ..messages import Message
from .causes import Cause, Parameter, parameters_of, touched_by
from .model import BlockModel, Vector
from .places import UnitBatch, batch_name
from .readings import ACROSS_SEAMS, Equation, Reading, ReadingKind

__all__ = ["BELIEVED", "Edge", "Mistake", "MistakeKind", "Seen", "headline", "mistakes_of", "seen_of"]

BELIEVED = 0.75
"""Probability from which a mistake is the headline."""
_STEPS = (inches("1/8"), inches("1/4"), inches("1/2"), inches(1))
"""Between marks that are taken one for another."""
_FAR, _ALIKE = 3 / 16, 1 / 16
"""Inches: a unit that is off by so much was trimmed at another mark; readings that differ by less may be of the same one."""
_BORDERS = (inches("1/2"), inches("1/4"))
_ODDS = {"finished": 0.010, "mark": 0.006, "border": 0.006, "side": 0.002}
_SIDE = 3 / 64
"""Inches from which one side alone may be trimmed off, as the ruler lay on that side: less is the hand's own scatter."""
_OF_CUTTING = 0.5
"""How often pieces are cut at a wrong mark, beside units that are trimmed at one: they are measured before they are sewn."""
_TOLD = 1e-9
_OF_ONE = (ReadingKind.CUT, ReadingKind.WIDTH, ReadingKind.HEIGHT)
_WHOLE_LENGTHS = (
    ReadingKind.CUT,
    ReadingKind.WIDTH,
    ReadingKind.HEIGHT,
    ReadingKind.RAW_WIDTH,
    ReadingKind.RAW_HEIGHT,
    *ACROSS_SEAMS,
)


class MistakeKind:
    FINISHED = "finished_for_unfinished"
    MARK = "wrong_mark"
    BORDER = "ruler_border"
    SIDE = "one_side"


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
class _Group:
    """Units trimmed alike, or the pieces of one kind cut alike: numbers of their causes, what they are called, a word to know them by,
    and how much likelier than half it is that a wrong mark was of this group."""

    numbers: tuple[int, ...]
    name: Message
    which: str
    sized: str = "trimmed"
    cut: bool = False
    share: float = 0.5


def _tells(reading: Reading, equation: Equation | None, number: int) -> bool:
    """Whether a reading is of the very thing: a row that is short may be so for its seams."""
    return equation is not None and reading.kind in _OF_ONE and abs(float(equation.of_causes[number])) > _TOLD


def _groups(model: BlockModel, readings: Sequence[Reading], equations: Sequence[Equation | None]) -> Iterator[_Group]:
    """All units, where more than one kind of them was measured; each kind that was; the pieces of each kind."""
    of = [(n, p) for n, p in enumerate(parameters_of(model)) if p.cause in (Cause.TRIM, Cause.CUT) and p.batch >= 0]
    told = {n for n, p in of if any(map(_tells, readings, equations, repeat(n)))}
    trims = tuple(n for n, p in of if p.cause is Cause.TRIM)
    if len(told.intersection(trims)) > 1:
        plain = all(b.plain for b in model.places.batches)
        yield _Group(trims, Message("all units"), "all", "cut" if plain else "trimmed", share=1.0)
    for n, p in of:
        if n in told:
            cut = p.cause is Cause.CUT
            alone = len(trims) == 1 and not cut
            which = f"cut-{p.batch}" if cut else f"{p.batch}"
            who, sized = Message("{who}", who=batch_name(model.places, p.batch)), model.places.batches[p.batch].sized
            yield _Group((n,), who, which, sized, cut, 1.0 if alone else 0.5)


def _struck(group: _Group, both: Length, far: Iterable[Length], of: Vector, sign: int, how: str) -> Iterator[Mistake]:
    """What one group may be off at a stroke, too small or too large."""
    yield Mistake(
        f"{MistakeKind.FINISHED}-{group.which}-{how}",
        MistakeKind.FINISHED,
        sign * float(both),
        Message(
            "pieces for the {who} cut {size} too {how}: two seam allowances forgotten, or added twice"
            if group.cut
            else "{who} {sized} {size} too {how}: finished and unfinished size mixed up",
            who=group.name,
            sized=group.sized,
            size=both,
            how=how,
        ),
        Message("The error is exactly two seam allowances, on every one of them."),
        of * sign * float(both),
        log(_ODDS["finished"] * (_OF_CUTTING if group.cut else 1)),
        group.numbers,
    )
    for step in dict.fromkeys((*_STEPS, *far)):
        if step == both:
            continue
        yield Mistake(
            f"{MistakeKind.MARK}-{group.which}-{float(step)}-{how}",
            MistakeKind.MARK,
            sign * float(step),
            Message(
                "pieces for the {who} cut at the wrong mark of the ruler, {size} too {how}"
                if group.cut
                else "{who} {sized} to the wrong mark of the ruler, {size} too {how}",
                who=group.name,
                sized=group.sized,
                size=step,
                how=how,
            ),
            Message(
                "The error is a whole step between marks, on every one of them."
                if step in _STEPS
                else "The error is the same on every one of them, and no hand strays so far."
            ),
            of * sign * float(step),
            log(_ODDS["mark"] * group.share * (_OF_CUTTING if group.cut else 1)),
            group.numbers,
        )


def mistakes_of(
    model: BlockModel, readings: Sequence[Reading], equations: Sequence[Equation | None]
) -> tuple[Mistake, ...]:
    """Every mistake that would show in these readings."""
    return tuple(m for m in _all(model, readings, equations) if np.abs(m.change).max(initial=0.0) > 0)


def _all(model: BlockModel, readings: Sequence[Reading], equations: Sequence[Equation | None]) -> Iterator[Mistake]:
    for group in _groups(model, readings, equations):
        numbers = list(group.numbers)
        of = np.array([0.0 if e is None else float(e.of_causes[numbers].sum()) for e in equations])
        for sign, how in ((-1, "small"), (1, "large")):
            yield from _struck(group, model.allowance * 2, _far_off(readings, equations, group, sign), of, sign, how)
    for b in model.places.batches:
        yield from _of_one_side(model, b, readings, equations)
    yield from _borders(readings)


_BORDER_SAID = {
    "all": "everything reads {size} too {how}: the ruler's border was counted",
    "units": "every unit reads {size} too {how}: the ruler's border was counted",
}
_BORDER_WHY = {
    "all": "The error is the same on a unit as on a whole row, which no cutting or sewing does.",
    "units": "What they were joined to is as long as true units make it.",
    "lengths": "The error is the same on every length that was read, and no hand strays so far.",
}


def _borders(readings: Sequence[Reading]) -> Iterator[Mistake]:
    """A border counted at every length, when lengths of two kinds were read; or at the units alone, as when these were read with a
    ruler of their own."""
    direct = np.array([float(r.kind in _WHOLE_LENGTHS) for r in readings])
    units = np.array([float(r.kind in (ReadingKind.WIDTH, ReadingKind.HEIGHT)) for r in readings])
    everything, at_units = ("all", direct, _ODDS["border"]), ("units", units, _ODDS["border"] / 2)
    kinds = {r.kind for r in readings if r.kind in _WHOLE_LENGTHS}
    if len(kinds) < 2:
        return
    joined = 0 < len(kinds.intersection(ACROSS_SEAMS)) < len(kinds)
    for which, of, odds in (everything, at_units) if 0 < units.sum() < direct.sum() else (everything,):
        for border in _BORDERS:
            for sign, how in ((1, "long"), (-1, "short")):
                yield Mistake(
                    f"{MistakeKind.BORDER}-{which}-{float(border)}-{how}",
                    MistakeKind.BORDER,
                    sign * float(border),
                    Message(_BORDER_SAID[which], size=border, how=how),
                    Message(_BORDER_WHY[which if joined or which == "units" else "lengths"]),
                    of * sign * float(border),
                    log(odds),
                )


_WAYS = {
    ReadingKind.WIDTH: {-1: "narrow", 1: "wide"},
    ReadingKind.HEIGHT: {-1: "short", 1: "tall"},
}
_EDGES = {
    Edge.ANY: "{who} {sized} {size} too {way}",
    Edge.FOOT: "{who} {sized} {size} too {way}, at the foot",
    Edge.TIP: "{who} {sized} {size} too {way}, above the tip",
}
_OTHER = {ReadingKind.WIDTH: "height", ReadingKind.HEIGHT: "width"}


def _of_one_side(
    model: BlockModel, batch: UnitBatch, readings: Sequence[Reading], equations: Sequence[Equation | None]
) -> Iterator[Mistake]:
    """Units of which one side was trimmed at a wrong mark and the other at the right one: both sides have to be read for that, or the
    one that has the tip, and as much off above the tip."""
    n = parameters_of(model).index(Parameter(Cause.TRIM, batch.number))
    own = [(r, e) for r, e in zip(readings, equations, strict=True) if e is not None and _tells(r, e, n)]
    above = [
        (r, e)
        for r, e in zip(readings, equations, strict=True)
        if e is not None and batch.tip is not None and _above_tip(model, batch, r, e)
    ]
    for side in (ReadingKind.WIDTH, ReadingKind.HEIGHT):
        size, other = (_off_alike([(r, e) for r, e in own if (r.kind is side) is one]) for one in (True, False))
        if size is None or abs(float(size)) < _SIDE:
            continue
        tipped = batch.tip is not None and (side is ReadingKind.HEIGHT) == (abs(batch.tip[1]) > abs(batch.tip[0]))
        cleared = _off_alike(above) if tipped else None
        as_much = cleared is not None and abs(float(cleared - size)) < _SIDE / 2
        if other is None:
            right = bool(own) and all(r.kind is side for r, _ in own) and as_much
        else:
            right = abs(float(other)) < _SIDE
        if not right:
            continue
        # Trimmed at its foot it keeps what lies above its tip; trimmed there, it has so much less.
        edges = (Edge.TIP,) if other is None else (Edge.FOOT, Edge.TIP) if tipped and above else (Edge.ANY,)
        for edge in edges:
            yield _one_side(model, batch, side, size, edge, readings, equations, read=other is not None)


def _one_side(
    model: BlockModel,
    batch: UnitBatch,
    side: ReadingKind,
    size: Length,
    edge: Edge,
    readings: Sequence[Reading],
    equations: Sequence[Equation | None],
    *,
    read: bool,
) -> Mistake:
    """``read``: whether the other side was, too."""
    errors = _off_one_side(model, batch, side, above=edge is Edge.TIP)
    of = _read_of(model, batch, side, readings, equations, errors, above=edge is Edge.TIP)
    way = _WAYS[side][1 if size.sign > 0 else -1]
    return Mistake(
        f"{MistakeKind.SIDE}-{batch.number}-{float(abs(size))}-{way}-{edge.value}",
        MistakeKind.SIDE,
        float(size),
        Message(_EDGES[edge], who=batch_name(model.places, batch.number), sized=batch.sized, size=abs(size), way=way),
        Message("It is the same on every one of them, and their {other} is right.", other=_OTHER[side])
        if read
        else Message("It is the same on every one of them, and from their foot to the tip they are right."),
        of * float(size),
        log(_ODDS["side"]),
        errors={k: v * float(size) for k, v in errors.items()},
        batch=batch.number,
        edge=edge,
    )


def _above_tip(model: BlockModel, batch: UnitBatch, reading: Reading, equation: Equation | None) -> bool:
    tip = parameters_of(model).index(Parameter(Cause.TIP, batch.number))
    return (
        reading.kind is ReadingKind.CLEARANCE and equation is not None and abs(float(equation.of_causes[tip])) > _TOLD
    )


def _off_one_side(model: BlockModel, batch: UnitBatch, side: ReadingKind, *, above: bool) -> dict[int, float]:
    """What an inch too much on that side makes of every error of the units of a batch."""
    errors: dict[int, float] = {}
    for cell in model.places.cells:
        if cell.batch == batch.number:
            across = (side is ReadingKind.WIDTH) != cell.orientation.across
            errors[model.of_unit(cell.number, "width" if across else "height")] = 1.0
    if above:
        errors |= touched_by(model, Parameter(Cause.TIP, batch.number))
    return errors


def _read_of(
    model: BlockModel,
    batch: UnitBatch,
    side: ReadingKind,
    readings: Sequence[Reading],
    equations: Sequence[Equation | None],
    errors: Mapping[int, float],
    *,
    above: bool,
) -> Vector:
    """(readings,): what an inch too much on that side makes of each of them. What was read on any unit of the batch knows no
    place in the block, and is told by its kind."""
    parameters = parameters_of(model)
    size = parameters.index(Parameter(Cause.TRIM, batch.number))
    tip = parameters.index(Parameter(Cause.TIP, batch.number)) if batch.tips else None
    numbers, by = list(errors), np.array(list(errors.values()))
    found = np.zeros(len(readings))
    for k, (r, e) in enumerate(zip(readings, equations, strict=True)):
        if e is None:
            continue
        if r.kind in (ReadingKind.WIDTH, ReadingKind.HEIGHT):
            found[k] = e.of_causes[size] if r.kind is side else 0.0
        elif np.abs(e.of_errors).max(initial=0.0) > 0:
            found[k] = float(e.of_errors[numbers] @ by)
        elif r.kind is ReadingKind.ROW:
            found[k] = e.of_causes[size] if side is ReadingKind.WIDTH else 0.0
        elif r.kind is ReadingKind.CLEARANCE and tip is not None:
            found[k] = e.of_causes[tip] if above else 0.0
        else:
            found[k] = e.of_causes[size] / 2
    return found


def _far_off(
    readings: Sequence[Reading], equations: Sequence[Equation | None], group: _Group, sign: int
) -> Iterator[Length]:
    """How far, by the readings of units or pieces themselves, they are off, where no hand strays so far and all of them are alike:
    whatever mark it was, it is said as it was read."""
    pairs = [(r, e) for r, e in zip(readings, equations, strict=True) if e is not None and r.value is not None]
    kinds = (ReadingKind.CUT,) if group.cut else (ReadingKind.WIDTH, ReadingKind.HEIGHT)
    own = [(r, e) for r, e in pairs if r.kind in kinds and _of_one(e, group.numbers)]
    size = _off_alike(own)
    # One figure alone, off by no step of a ruler, is a slip of the pen sooner than a mark.
    if size is None or len(own) < 2:
        return
    middle = float(size) * sign
    if middle >= _FAR and all(abs(middle - float(known)) > _ALIKE / 2 for known in _STEPS):
        yield abs(size)


def _off_alike(own: Sequence[tuple[Reading, Equation]]) -> Length | None:
    """How far off all of these are, to the mark that they were read to; None where they differ."""
    off = sorted(r.read - e.nominal for r, e in own)
    if not off or off[-1] - off[0] > _ALIKE:
        return None
    inch = all(r.value.on_step(inches("1/32")) for r, _ in own if r.value is not None)
    return Length.near(off[len(off) // 2]).round_near(inches("1/32") if inch else mm(1) / 2)


def _of_one(e: Equation, numbers: Sequence[int]) -> bool:
    return abs(float(e.of_causes[list(numbers)].sum()) - 1) < 1e-9


def headline(mistakes: Sequence[Mistake], probabilities: Sequence[float]) -> tuple[Mistake, Message, float] | None:
    """The mistake to say first, in words that name the other one which looks just the same in these readings; None when no
    group of the same size is believed."""
    best: tuple[Mistake, Message, float] | None = None
    for sign in (-1, 1):
        for size in sorted({abs(m.size) for m in mistakes}):
            alike = [(p, m) for m, p in zip(mistakes, probabilities, strict=True) if abs(m.size - sign * size) < 1e-9]
            total = sum(p for p, _ in alike)
            if total < BELIEVED or (best and total <= best[2]):
                continue
            alike.sort(key=lambda x: -x[0])
            first = alike[0][1]
            other = next((m for p, m in alike if m.kind != first.kind and p > 0.15 * total), None)
            kinds = {first.kind, other.kind if other else first.kind}
            said = first.said
            if other is not None and MistakeKind.BORDER in kinds:
                # The one that changes the block is the one to act on, once another ruler has said the same.
                first = other if first.kind == MistakeKind.BORDER else first
                said = Message(
                    "{first}, or a ruler's border counted (the same {size})", first=first.said, size=Length.near(size)
                )
            best = (first, said, min(1.0, total))
    return best


@dataclass(frozen=True, slots=True)
class Seen:
    """A mistake that only the eye finds, with how likely it is after what was seen."""

    code: str
    said: Message
    why: Message
    probability: float

    @property
    def noticed(self) -> bool:
        """Whether it is likely enough to be said, and answered."""
        return self.probability >= _NOTICED


_NOTICED = 0.5
_SEEN = {
    "turned_unit": (
        "A unit lies turned",
        "The picture is wrong and comes right when one unit is turned; sizes have nothing to do with it.",
    ),
    "wrong_hand": (
        "A unit of the wrong hand",
        "The picture is wrong, and no turn puts it right: it is a mirror image.",
    ),
    "two_alike": (
        "Two units alike where a pair of mirrored ones is wanted",
        "Their seams do not nest: both lie the same way.",
    ),
    "wrong_sides": (
        "Two pieces sewn wrong sides together",
        "The allowance shows on the front: unpick before pressing.",
    ),
    "joined_in_turn": ("Rows joined one after another", "A row's two edges differ in length: it bows."),
    "pressed_to_light": (
        "Pressed to the light side",
        "The dark allowance lies under the light cloth.",
    ),
    "blade": ("A dull or nicked blade", "Edges fray and readings scatter rather than shift."),
}
HEADLINES = ("turned_unit", "wrong_hand", "two_alike", "wrong_sides")
"""Those that are the whole of the matter: nothing about sizes is said above them."""


def seen_of(readings: Sequence[Reading]) -> tuple[Seen, ...]:
    """What the eye found, the likeliest first. It has nothing to do with sizes, and is weighed by itself."""
    seen = {r.kind for r in readings}
    odds: dict[str, float] = {}
    if ReadingKind.RIGHT_WHEN_TURNED in seen:
        odds["turned_unit"] = 40.0
    elif ReadingKind.TWO_ALIKE in seen:
        odds["two_alike"] = 20.0
    elif ReadingKind.PICTURE_WRONG in seen:
        odds["turned_unit"], odds["wrong_hand"] = 10.0, 8.0
    for kind, code, by in (
        (ReadingKind.SEAM_INSIDE_OUT, "wrong_sides", 40.0),
        (ReadingKind.BOWED, "joined_in_turn", 6.0),
        (ReadingKind.FRAYED, "blade", 6.0),
        (ReadingKind.SHADOW, "pressed_to_light", 6.0),
    ):
        odds |= {code: by} if kind in seen else {}
    total = sum(odds.values()) + 1.0
    found = [Seen(c, Message(_SEEN[c][0]), Message(_SEEN[c][1]), o / total) for c, o in odds.items()]
    return tuple(sorted(found, key=lambda s: -s.probability))
