"""Readings that can still be taken of a block, before they are weighed.

Source: docs/theory, section 14.8.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from dataclasses import replace

from ..lengths import Length, inches
from .causes import Cause
from .inference import Inference
from .model import FeatureKind
from .places import CornerTip
from .reading_kinds import DIAGONALS, NEEDS_RAW, OF_THE_BLOCK, ReadingKind
from .readings import Reading

__all__ = ["candidates", "of_any"]

_MOST_SINGLES = 3


def candidates(found: Inference, *, joined: bool = True) -> list[Reading]:
    """Readings that can still be taken: of each batch, of the seams, of those seams and units that may be off by themselves,
    and, when the block is joined, of the block. Pieces that were trimmed or joined since show no cut or raw size any more."""
    model, one = found.model, Length.of(1)
    options: list[Reading] = []
    later = joined or any(r.kind not in NEEDS_RAW and (r.batch or r.unit) for r in found.readings)
    for b in model.places.batches:
        kinds = [ReadingKind.WIDTH]
        if b.spec.width != b.spec.height:
            kinds.append(ReadingKind.HEIGHT)
        sides = model.places.tip_sides(b)
        if len(sides) > 1:
            options += [Reading(ReadingKind.CLEARANCE, one, batch=b.key, corner=side) for side in sides]
        elif sides:
            kinds.append(ReadingKind.CLEARANCE)
        if not b.plain:
            kinds.append(ReadingKind.DIAGONAL_RISING)
            # One that is drawn out grows along one diagonal; both legs of a goose, and so both its diagonals, are drawn alike.
            kinds += [] if b.tips else [ReadingKind.DIAGONAL_FALLING]
            kinds += [] if later else [ReadingKind.CUT, ReadingKind.RAW_WIDTH, ReadingKind.RAW_HEIGHT]
        options += [Reading(k, one, batch=b.key) for k in kinds]
        if b.corners:
            tip = _least_measured(found, b.number)
            unit = model.places.cells[tip.cell].key
            options.append(Reading(ReadingKind.MISS, one, unit=unit, corner=f"{tip.down} {tip.across}"))
    options += [Reading(ReadingKind.STITCH, one, spot=spot) for spot in ("start", "middle", "end")]
    options.append(Reading(ReadingKind.STRIP_TEST, one, whole=inches("7/2")))
    options += _of_singles(found)
    return options + (_of_the_block(found) if joined else [])


def of_any(found: Inference, *, joined: bool = True) -> list[Reading]:
    """The same of a row of units typed by hand: of any of them, of any seam, and of any such row; diagonals from corner to corner are not
    among them."""
    places = found.model.places
    options = [
        replace(r, unit="", corner="", batch=places.batch_of(r.unit, r.batch))
        for r in candidates(found, joined=joined)
        if r.kind not in (*DIAGONALS, *OF_THE_BLOCK) and not r.seam and (not r.unit or r.kind is ReadingKind.MISS)
    ]
    row = Reading(ReadingKind.ROW, Length.of(1), batch=places.batches[0].key, count=len(places.cells))
    return [*dict.fromkeys(options), *([row] if joined else [])]


def _of_the_block(found: Inference) -> list[Reading]:
    """Of rows and columns through their middle, and of each batch's tips and corners, the one measured least; two crossings."""
    model, one = found.model, Length.of(1)
    taken = Counter(r.feature for r in found.readings if r.feature)
    best: dict[tuple[str, int], tuple[int, int]] = {}
    for n, f in enumerate(model.features):
        if f.kind in (FeatureKind.ROW, FeatureKind.COLUMN) and f.edge != "middle":
            continue
        group = model.places.cells[f.cell].batch if f.cell >= 0 and f.kind is not FeatureKind.CROSSING else 0
        key = (f.kind.value, group)
        best[key] = min(best.get(key, (10**6, 0)), (taken[f.key], n))
    return [Reading(ReadingKind(kind), one, feature=model.features[n].key) for (kind, _), (_, n) in best.items()]


def _of_singles(found: Inference) -> Iterator[Reading]:
    """Of seams and units that may stray by themselves: the very spot."""
    one, model = Length.of(1), found.model
    taken = Counter(r.seam for r in found.readings)
    singles = sorted((e for e in found.estimates if e.parameter.single), key=lambda e: -e.leads)
    for e in singles[:_MOST_SINGLES]:
        p = e.parameter
        if p.cause is Cause.ONE_SEAM:
            spot = "middle" if p.spot == "whole" else p.spot
            yield Reading(ReadingKind.STITCH, one, seam=model.places.seams[p.place].name, spot=spot)
        elif p.cause is Cause.SOME_SEAMS:
            names = [model.places.seams[n].name for n in model.places.seam_groups[p.place].seams]
            yield Reading(ReadingKind.STITCH, one, seam=min(names, key=lambda n: taken[n]), spot="middle")
        elif p.spot in ("size", "width", "height"):
            unit = model.places.cells[p.place]
            wide = (p.spot != "height") != unit.orientation.across
            yield Reading(ReadingKind.WIDTH if wide else ReadingKind.HEIGHT, one, unit=unit.key)


def _least_measured(found: Inference, batch: int) -> CornerTip:
    """A corner of the unit of a batch whose diagonal was measured least often: one unit again tells little of the batch."""
    places = found.model.places
    taken = Counter(r.unit for r in found.readings if r.kind is ReadingKind.MISS)
    tips = [t for t in places.corner_tips if places.cells[t.cell].batch == batch]
    return min(tips, key=lambda t: (taken[places.cells[t.cell].key], t.cell))
