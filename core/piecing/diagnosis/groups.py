"""Causes taken together that say the same of the same place: a unit small as a whole or across, a seam deep all along or at one end.

Source: docs/theory, section 14.8.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from .causes import Cause
from .estimates import Estimate
from .inference import Inference

__all__ = ["CauseGroup", "cause_groups"]

_ONE_SIDE = 0.95
"""Share of possible blocks in which a single unit that leads lies on one side."""


@dataclass(frozen=True, slots=True)
class CauseGroup:
    """Causes that say the same of the same place, by their ``numbers``: how likely one of them leads, and which; ``sided`` whether it is
    sure on which side of nothing they lie, ``one_way`` whether it would be if one of them led."""

    numbers: tuple[int, ...]
    chance: float
    large: float
    best: Estimate
    sided: bool
    one_way: bool


def cause_groups(found: Inference) -> list[CauseGroup]:
    """All causes by what they are of, those first that are likeliest to lead."""
    of: dict[tuple[Cause, int, int], list[int]] = {}
    for n, p in enumerate(found.parameters):
        of.setdefault((p.cause, p.batch, p.place), []).append(n)
    groups = []
    for numbers in of.values():
        chance = sum(found.chance(n) for n in numbers)
        best = _likeliest(found, [found.estimates[n] for n in numbers])
        # A fold is never less than none: which way it lies says nothing.
        one_way = best.sure_of_side or (best.parameter.cause is not Cause.FOLD and _one_sided(found, numbers))
        sided = best.sure_of_side or (best.parameter.cause is Cause.ONE_UNIT and one_way)
        large = max(found.estimates[n].large for n in numbers)
        groups.append(CauseGroup(tuple(numbers), chance, large, best, sided, one_way))
    return sorted(groups, key=lambda g: -g.chance)


def _one_sided(found: Inference, numbers: Sequence[int]) -> bool:
    """Whether causes of one place, each of which would excuse the other (a unit's width, its size), lie on the same side wherever one
    of them leads."""
    sizes = np.concatenate([found.draws[found.leading == n, n] for n in numbers])
    return len(sizes) > 0 and max((sizes > 0).mean(), (sizes < 0).mean()) >= _ONE_SIDE


def _likeliest(found: Inference, same: Sequence[Estimate]) -> Estimate:
    """Of what may be so of one place the likeliest; of a seam read at one spot only, that it is so all along, unless less likely."""
    best = max(same, key=lambda e: (e.leads, e.large))
    if best.parameter.cause is not Cause.ONE_SEAM:
        return best
    name = found.model.places.seams[best.parameter.place].name
    spots = {r.spot for n in found.weighed if (r := found.readings[n]).seam == name}
    whole = [e for e in same if e.parameter.spot == "whole" and len(spots) < 2 and e.leads > best.leads / 2]
    return whole[0] if whole else best
