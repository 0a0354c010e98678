"""Rows to core values: what a lot is made to, the fabrics as the bench knows them, and how the map presses a unit's seams."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from fractions import Fraction
from typing import Any

from blocks.joining import found_map
from blocks.models import Block
from blocks.translate import colourways_of, find_in, pattern_of, values_of
from cutting.translate import now_of
from piecing.errors import PiecingError
from piecing.handling.from_map import SeamWays, ways_of_units
from piecing.lengths import Length
from piecing.planning.plan import plan
from piecing.planning.unit_plan import UnitPlan
from piecing.units import UnitSpec
from piecing.units.method import Cuts
from projects.models import PlannedUnit, Project

__all__ = ["Letters", "letters_of", "made_as", "names_of", "plan_as", "same_unit", "seam_ways"]

_MOST_UNITS = 80
"""Blocks with more units than this are not asked how they are pressed while a unit is sewn: the map takes too long."""
Letters = dict[tuple[str, Length, Length, int], str]


def names_of(project: Project) -> dict[str, str]:
    return {f.role: f.name for f in project.fabrics.all()}


def letters_of(project: Project) -> Letters:
    """Letters of the piles as Cut shows them, by fabric role, size, and how often they are cut further."""
    return {p.entry.key: p.entry.letter for p in now_of(project)}


def _exact(value: Length) -> str:
    return str(value.rational)


def made_as(planned: UnitPlan) -> dict[str, Any]:
    """What a lot is made to, exactly: the unit, its fabrics, the method and every cut size."""
    return {
        **unit_as(planned.spec),
        "method": planned.method.name,
        "cuts": {name: str(size) for name, size in _sizes(planned.cuts)},
    }


def unit_as(spec: UnitSpec) -> dict[str, Any]:
    """The unit and its fabrics, however it is made."""
    return {
        "kind": spec.kind,
        "width": _exact(spec.width),
        "height": _exact(spec.height),
        "fabrics": list(spec.part_fabrics),
        "corners": [_exact(c) for c in spec.corners],
        "strip": _exact(spec.strip),
    }


def _sizes(cuts: Cuts) -> Iterable[tuple[str, Fraction]]:
    """Sizes that follow from others hold roots; they are kept to the last place that cloth could know."""
    for name, size in cuts.items():
        yield name, Length.near(float(size)).rational


def same_unit(kept: dict[str, Any], spec: UnitSpec) -> bool:
    """Whether what a lot was made to gives this unit in these fabrics, however it is made."""
    return all(kept.get(k) == v for k, v in unit_as(spec).items())


def plan_as(now: UnitPlan, kept: dict[str, Any]) -> UnitPlan:
    """The plan that a lot was begun with. Raises what planning refuses."""

    def length(text: str) -> Length:
        return Length.of(Fraction(text))

    a, b, c, d = map(length, kept["corners"])
    spec = UnitSpec(
        kept["kind"],
        length(kept["width"]),
        length(kept["height"]),
        tuple(kept["fabrics"]),
        (a, b, c, d),
        length(kept["strip"]),
    )
    cuts = Cuts((name, length(size)) for name, size in kept["cuts"].items())
    return plan(replace(now.choices, spec=spec, method=kept["method"], cuts=cuts))


def seam_ways(unit: PlannedUnit, spec: UnitSpec) -> SeamWays:
    """How the pressing maps of the blocks that want a unit press its seams; nothing where no map can be made."""
    project, found = unit.project, SeamWays()
    find, values = find_in(project.workroom), values_of(project)
    for block in Block.objects.filter(pk__in=list(unit.of_blocks), deleted_at=None):
        try:
            pattern = pattern_of(block, find)
            if len(pattern.places) > _MOST_UNITS:
                continue
            pressed = found_map(block, pattern, values)[1].pressed
            for way in colourways_of(block):
                found = found.more(ways_of_units(pattern, pressed, spec, block.finished, dict(way.roles)))
        except PiecingError:
            continue
    return found
