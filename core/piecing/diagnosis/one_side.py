"""Units trimmed at one side alone to another size: readings of which one side is right and the other is not.

Source: docs/theory, section 14.7.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from math import log

import numpy as np

from ..lengths import Length
from ..messages import Message
from .causes import Cause, Parameter, parameters_of, touched_by
from .equations import Equation
from .mistake import ODDS, TOLD, Edge, Mistake, MistakeKind, off_alike, tells_of
from .model import BlockModel, Vector
from .places import UnitBatch, batch_name
from .reading_kinds import SIZES, ReadingKind
from .readings import Reading

__all__ = ["mistakes_of_one_side"]

_SIDE = 3 / 64
"""Inches from which one side alone may be trimmed off, as the ruler lay on that side: less is the hand's own scatter."""
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


def mistakes_of_one_side(
    model: BlockModel, batch: UnitBatch, readings: Sequence[Reading], equations: Sequence[Equation | None]
) -> Iterator[Mistake]:
    """Units of which one side was trimmed at a wrong mark and the other at the right one: both sides have to be read for that, or the
    one that has the tip, and as much off above the tip."""
    n = parameters_of(model).index(Parameter(Cause.TRIM, batch.number))
    own = [(r, e) for r, e in zip(readings, equations, strict=True) if e is not None and tells_of(r, e, n)]
    above = [
        (r, e)
        for r, e in zip(readings, equations, strict=True)
        if e is not None and batch.tip is not None and _above_tip(model, batch, r, e)
    ]
    for side in SIZES:
        size, other = (off_alike([(r, e) for r, e in own if (r.kind is side) is one]) for one in (True, False))
        if size is None or abs(float(size)) < _SIDE:
            continue
        tipped = batch.tip is not None and (side is ReadingKind.HEIGHT) == (abs(batch.tip[1]) > abs(batch.tip[0]))
        cleared = off_alike(above) if tipped else None
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
        log(ODDS["side"]),
        errors={k: v * float(size) for k, v in errors.items()},
        batch=batch.number,
        edge=edge,
    )


def _above_tip(model: BlockModel, batch: UnitBatch, reading: Reading, equation: Equation | None) -> bool:
    tip = parameters_of(model).index(Parameter(Cause.TIP, batch.number))
    return reading.kind is ReadingKind.CLEARANCE and equation is not None and abs(float(equation.of_causes[tip])) > TOLD


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
        if r.kind in SIZES:
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
