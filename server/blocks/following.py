"""The plan follows the blocks: a unit that blocks are made of stands in the plan because of them, and changes with them.

What is chosen for it (its method, its oversize, its own cuts) and what was measured on it stay with it when the block is
resized or a fabric exchanged. Units planned by hand stand beside them and are never touched.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from typing import Any

from django.utils import timezone

from piecing.blocks.counting import BlockOrder, Spares, UnitCount, ordered_plans, unit_counts
from piecing.errors import PiecingError
from piecing.lengths import Measure, usual
from piecing.planning.plan import plan
from piecing.units import kind_of
from piecing.units.method import Cuts
from piecing.units.spec import UnitSpec
from projects.models import Fabric, PlannedUnit, Project
from projects.translate import choices_of, spec_of

from .models import Block, Quilt
from .parts import follow_parts
from .quilt import quilt_of
from .translate import find_in, makings_of, orders_of, scrap_units_of, spares_of

__all__ = ["follow_blocks", "take_making"]

_MOST = 200
"""Kinds of unit that follow; a block of more different ones is a picture, not a plan."""


def follow_blocks(project: Project, quilt: Quilt | None = None, *, plain: bool = False) -> None:
    """Brings the units that stand in the plan because of blocks up to these. Blocks that cannot be counted yet (a place is
    empty, a role has no fabric) keep what they had. ``plain``: nothing changed but plain pieces, so that there is something to follow
    only where a border's strip or a part of a block changed with them."""
    quilt = quilt or quilt_of(project)
    parts = follow_parts(project, quilt)
    if plain and quilt.followed and not parts.changed:
        return
    blocks, roles = parts.blocks, _roles(project)
    orders, waiting = _orders(project, blocks, roles)
    scraps = scrap_units_of(quilt, project, blocks, find_in(project.workroom))
    wanted = list(unit_counts(orders, roles, scraps))[:_MOST] if orders else []
    linked = [u for u in project.units.filter(deleted_at=None) if u.of_blocks]
    if not quilt.followed:
        # Before units followed, their numbers were put into the plan by hand: those are the blocks' own.
        linked += _adopt(project, wanted)
    pairs = _matches(wanted, linked)
    spares = spares_of(quilt)
    for position, unit in enumerate(wanted):
        own = {key: [name, drawn, mirrored] for key, name, drawn, mirrored in unit.by_block}
        row = pairs.get(position) or _revive(project, unit) or PlannedUnit(project=project)
        carried = {k: v for k, v in row.of_blocks.items() if k in waiting}
        _put(row, unit.spec, {**own, **carried}, spares, quilt, unit, position)
    kept = {row.pk for row in pairs.values()}
    for row in linked:
        if row.pk not in kept:
            _leave(row, {k: v for k, v in row.of_blocks.items() if k in waiting}, spares)
    if blocks and not quilt.followed:
        quilt.followed = True
        quilt.save()


def _roles(project: Project) -> list[str]:
    return list(Fabric.objects.filter(project=project).values_list("role", flat=True))


def _orders(project: Project, blocks: Iterable[Block], roles: list[str]) -> tuple[list[BlockOrder], set[str]]:
    """Blocks that can be counted, and the keys of those that cannot yet."""
    find = find_in(project.workroom)
    orders, waiting = [], set()
    for block in blocks:
        try:
            (order,) = orders_of([block], find)
            unit_counts([order], roles)
            orders.append(order)
        except PiecingError:
            waiting.add(str(block.pk))
    return orders, waiting


def _adopt(project: Project, wanted: Iterable[UnitCount]) -> list[PlannedUnit]:
    specs = {u.spec for u in wanted}
    return [u for u in project.units.filter(deleted_at=None) if not u.of_blocks and spec_of(u) in specs]


def _size(spec: UnitSpec) -> tuple[object, ...]:
    return spec.width, spec.height


def _fabrics(spec: UnitSpec) -> tuple[str, ...]:
    return tuple(sorted(spec.part_fabrics))


_LIKENESSES: tuple[Callable[[UnitSpec, UnitSpec], bool], ...] = (
    lambda a, b: a == b,
    lambda a, b: a.kind == b.kind and _size(a) == _size(b) and _fabrics(a) == _fabrics(b),
    lambda a, b: a.kind == b.kind and _fabrics(a) == _fabrics(b),
    lambda a, b: a.kind == b.kind and _size(a) == _size(b),
)


def _matches(wanted: list[UnitCount], linked: list[PlannedUnit]) -> dict[int, PlannedUnit]:
    """Which planned unit each wanted one is: the very same, else of the same size and fabrics, else resized, else in other
    fabrics."""
    found: dict[int, PlannedUnit] = {}
    left = [(row, spec_of(row)) for row in linked]
    for alike in _LIKENESSES:
        for n, unit in enumerate(wanted):
            if n in found:
                continue
            match = next((pair for pair in left if alike(pair[1], unit.spec)), None)
            if match:
                found[n] = match[0]
                left.remove(match)
    return found


def _revive(project: Project, unit: UnitCount) -> PlannedUnit | None:
    """One that left the plan with its block, when the block is back."""
    gone = project.units.filter(kind=unit.spec.kind).exclude(deleted_at=None).order_by("-deleted_at")
    return next((u for u in gone if u.of_blocks and spec_of(u) == unit.spec), None)


def _put(
    row: PlannedUnit,
    spec: UnitSpec,
    of_blocks: dict[str, list[Any]],
    spares: Spares,
    quilt: Quilt,
    unit: UnitCount,
    position: int,
) -> None:
    fresh = row._state.adding
    before = None if fresh else (spec_of(row), row.of_blocks, row.count, row.mirrored, row.deleted_at)
    if fresh:
        (made,) = ordered_plans([unit], makings_of(quilt), seam_allowance=row.project.seam_allowance)
        row.method, row.school = made.method, made.school.value
        row.block_finished = usual(Measure(row.project.measure)).block
        row.position = 1000 + position
    if fresh or spec_of(row) != spec:
        _shape(row, spec)
    row.of_blocks, row.deleted_at = of_blocks, None
    row.count, row.mirrored = spares.with_spares(spec, *(sum(v[k] for v in of_blocks.values()) for k in (1, 2)))
    if before != (spec, row.of_blocks, row.count, row.mirrored, None):
        _drop_cuts(row)
        row.save()


def _shape(row: PlannedUnit, spec: UnitSpec) -> None:
    row.kind, row.size_basis, row.finished = spec.kind, "unit", spec.width
    row.height = None if spec.height == kind_of(spec.kind).default_height(spec.width) else spec.height
    row.part_fabrics, row.strip = list(spec.part_fabrics), spec.strip
    row.corner_0, row.corner_1, row.corner_2, row.corner_3 = spec.corners


def _drop_cuts(row: PlannedUnit) -> None:
    """Pieces already cut that no longer give this unit are not its cuts any more. The way it is made stays as chosen, also when
    it is not possible at a size that is only typed on the way to another."""
    if not row.cuts:
        return
    try:
        plan(choices_of(row))
    except PiecingError:
        row.cuts = Cuts()


def _leave(row: PlannedUnit, carried: dict[str, list[Any]], spares: Spares) -> None:
    """No block that can be counted wants it: it keeps what blocks that wait had, or leaves the plan."""
    if carried == row.of_blocks:
        return
    if carried:
        row.of_blocks = carried
        drawn, mirrored = (sum(v[k] for v in carried.values()) for k in (1, 2))
        row.count, row.mirrored = spares.with_spares(spec_of(row), drawn, mirrored)
        row.save(update_fields=["of_blocks", "count", "mirrored"])
    else:
        PlannedUnit.objects.filter(pk=row.pk).update(deleted_at=timezone.now())


def take_making(project: Project, kinds: Mapping[str, Mapping[str, str]]) -> None:
    """How a kind is made, chosen for all units of it that blocks want: each takes the way and the oversize."""
    for row in project.units.filter(deleted_at=None, kind__in=list(kinds)):
        if not row.of_blocks:
            continue
        making = kinds[row.kind]
        row.method, row.school = making.get("method") or row.method, making.get("school") or row.school
        row.cuts = Cuts()
        row.save(update_fields=["method", "school", "cuts"])
