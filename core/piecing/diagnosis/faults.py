"""What one sees on a sewn block: tips cut off or floating, diagonals past their corner, steps, edges short or long.

Source: docs/theory, section 14.4.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ..messages import Message
from ..tolerances import EASED, SEEN
from .model import BlockModel, Feature, FeatureKind, Vector
from .words import Roughly

__all__ = ["EASED", "SEEN", "Fault", "all_off", "faults_of", "faults_seen", "places_seen"]

_LEAST = {
    FeatureKind.EDGE_TIP: SEEN,
    FeatureKind.CORNER_TIP: SEEN,
    FeatureKind.CROSSING: SEEN,
    FeatureKind.ROW: EASED,
    FeatureKind.COLUMN: EASED,
}


@dataclass(frozen=True, slots=True)
class Fault:
    """``size`` is the deviation in inches with its sign; ``eased`` whether pins take it up."""

    number: int
    feature: Feature
    size: float
    said: Message
    eased: bool


def faults_of(model: BlockModel, deviations: Vector) -> tuple[Fault, ...]:
    """Every fault that is seen: tips, then crossings, then edges, the worst of each kind first."""
    order = list(_LEAST)
    seen = [
        (model.features[n], float(deviations[n]))
        for n in (max(group, key=lambda k: abs(deviations[k])) for group in places_seen(model))
        if abs(deviations[n]) >= _LEAST[model.features[n].kind] - 1e-9
    ]
    seen.sort(key=lambda s: (order.index(s[0].kind), -abs(s[1])))
    return tuple(
        Fault(
            n,
            f,
            d,
            said_of(model, f, d),
            f.kind in (FeatureKind.CROSSING, FeatureKind.ROW, FeatureKind.COLUMN) and abs(d) <= EASED,
        )
        for n, (f, d) in enumerate(seen, 1)
    )


@lru_cache(maxsize=64)
def places_seen(model: BlockModel) -> tuple[tuple[int, ...], ...]:
    """The features by what one sees as one place: a row or column along both its edges and its middle is one."""
    groups: dict[object, list[int]] = {}
    for n, f in enumerate(model.features):
        track = f.kind in (FeatureKind.ROW, FeatureKind.COLUMN)
        groups.setdefault((f.kind, f.row) if track else n, []).append(n)
    return tuple(tuple(g) for g in groups.values())


def faults_seen(model: BlockModel, deviations: Vector) -> NDArray[np.int64]:
    """(draws,) from (draws, features): how many places are off by more than pins ease in, tips by what is seen."""
    return np.asarray(_each(model, _times(model, deviations) >= 1).astype(np.int64))


def all_off(model: BlockModel, deviations: Vector) -> Vector:
    """(draws,) from (draws, features): all that ``faults_seen`` counts, each as often as what is borne goes into it."""
    times = _times(model, deviations)
    return _each(model, np.where(times >= 1, times, 0.0))


def _times(model: BlockModel, deviations: Vector) -> Vector:
    """How often what is borne there goes into each deviation: just as much is a fault of a tip, and is eased elsewhere."""
    tips = (FeatureKind.EDGE_TIP, FeatureKind.CORNER_TIP)
    least = np.array([SEEN - 1e-9 if f.kind in tips else EASED + 1e-9 for f in model.features])
    return np.asarray(np.abs(deviations) / least)


def _each(model: BlockModel, values: NDArray[Any]) -> Vector:
    """(draws,) from (draws, features): the most at each place, added up."""
    return np.asarray(
        sum((values[:, list(g)].max(axis=1).astype(float) for g in places_seen(model)), np.zeros(len(values)))
    )


def said_of(model: BlockModel, f: Feature, deviation: float) -> Message:
    """A figure of the block in words: how far off it is, and on which side."""
    size, less, true = Roughly(deviation), deviation < 0, abs(deviation) < SEEN / 4
    match f.kind:
        case FeatureKind.EDGE_TIP:
            return Message(
                "{unit}: the tip at its {edge} touches the seam"
                if true
                else "{unit}: the tip at its {edge} is cut off by {size}"
                if less
                else "{unit}: the tip at its {edge} floats {size} short of the seam",
                unit=model.places.cells[f.cell].name,
                edge=f.edge,
                size=size,
            )
        case FeatureKind.CORNER_TIP:
            down, across = f.edge.split()
            name = model.places.cells[f.cell].name
            if true:
                return Message("{unit}: the diagonal meets its {edge} corner", unit=name, edge=f.edge)
            return Message(
                "{unit}: the diagonal runs into the {seam} seam, {size} from its {edge} corner",
                unit=name,
                seam=down if less else across,
                size=size,
                edge=f.edge,
            )
        case FeatureKind.CROSSING:
            sides = ("left", "right") if model.places.seams[f.seam].upright else ("upper", "lower")
            return Message(
                "{seam}, crossing {n}: the seams meet"
                if true
                else "{seam}, crossing {n}: the {longer} side reaches {size} further",
                seam=model.places.seams[f.seam].name,
                n=f.nth,
                longer=sides[less],
                size=size,
            )
        case _:
            edge = {"top": "upper edge", "bottom": "lower edge", "middle": "through the middle"}.get(
                f.edge, f"{f.edge} edge"
            )
            return Message(
                "{what} {n}, {edge}: as it should be"
                if true
                else "{what} {n}, {edge}: {size} short"
                if less
                else "{what} {n}, {edge}: {size} long",
                what=f.kind.value,
                n=f.row + 1,
                edge=edge,
                size=size,
            )
