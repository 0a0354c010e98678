"""Changes to the quilt and its centre. One function, one transaction."""

from __future__ import annotations

from collections.abc import Mapping
from copy import copy
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from api.patches import apply_changes, read_values
from api.problems import Refused
from piecing.blocks.file_format import Find, pattern_data
from piecing.blocks.pattern import Pattern
from piecing.errors import PiecingError, QuiltImpossible
from piecing.lengths import Length
from piecing.quilts.by_rule import StripCrossing
from piecing.quilts.choices import Setting
from piecing.quilts.fitting import fitted_to_number
from piecing.quilts.sizes import quilt_sizes
from piecing.quilts.top import top_as_measured
from projects.commands import touch
from projects.models import Project
from projects.selectors import get_project
from projects.translate import style_of
from workrooms.models import Workroom
from workrooms.once import change

from .following import follow_blocks, take_making
from .models import Block, Quilt
from .parts import LAST, centre_as_set, half_pattern, sample_of, sashed_centre
from .quilt import planned_sizes_of, quilt_of, strips_between_of
from .readers import (
    quilt_readers,
    sampler_readers,
    sashing_readers,
    top_readers,
)
from .selectors import blocks_of
from .translate import CENTRE, fillers_at, find_in, quilt_choices, top_of, ways_of

__all__ = ["change_quilt", "lay_sampler", "lay_sashing", "measure_top"]

_PLAIN = {
    "sash",
    "sash_round",
    "cornerstones",
    "sash_fabric",
    "cornerstone_fabric",
    "setting_fabric",
    "binding_strip",
    "binding_fabric",
    "backing_fabric",
    "backing_over",
    "backing_way",
    "backing_repeat",
    "backing_repeat_across",
    "usable",
    "oversize",
    "sleeve",
}
"""Of the quilt's fields those that shape plain pieces."""


@change
def change_quilt(
    room: Workroom, project_key: UUID, changes: Mapping[str, Any], seen: Mapping[str, Any], *, follow: bool = True
) -> Project:
    """Kept only if the quilt can still be put together; scraps laid out for another layout are taken up."""
    project = get_project(room, project_key, whole=False)
    style, quilt, find = style_of(project), quilt_of(project), find_in(room)
    before = copy(quilt)
    fields = apply_changes(quilt, quilt_readers(style.measure, find), changes, seen, style.measure)
    try:
        _lay_by_hand(project, quilt, before, find)
        blocks = blocks_of(project)
        choices = quilt_choices(quilt, project, blocks, find)
        quilt_sizes(choices)
        if choices.half_blocks:
            for head, way, lies in fillers_at(quilt, choices, ways_of(quilt, blocks, find)):
                half_pattern(way.pattern, lies, choices.stagger, head=head)
    except PiecingError as refusal:
        raise Refused([refusal], style) from None
    if set(fields) & {"columns", "rows", "setting", "spread", "every_second"}:
        quilt.scraps = {**quilt.scraps, "laid": []}
    if not before.begun and quilt.begun and not set(fields) & {"columns", "rows"}:
        quilt.columns, quilt.rows = _fitting_grid(project)
    # Whoever sets anything of a quilt is putting one together.
    quilt.begun = quilt.begun or bool(set(fields) - {"makings", "spare_percent", "spare_number", "begun"})
    quilt.save()
    if follow:
        if set(fields) & {"makings", "spare_percent", "spare_number"}:
            take_making(project, {k: m for k, m in quilt.makings.items() if before.makings.get(k) != m})
        follow_blocks(project, quilt, plain=before.begun and set(fields) <= _PLAIN)
    touch(project)
    return project


@dataclass
class _AtPlace:
    value: Length | None


@change
def measure_top(
    room: Workroom, project_key: UUID, place: str, changes: Mapping[str, Any], seen: Mapping[str, Any]
) -> Project:
    """What the top measures at one of its places, as typed; nothing typed takes it away. Raises ``Refused``, ``ChangedElsewhere``."""
    project = get_project(room, project_key)
    style, quilt = style_of(project), quilt_of(project)
    sizes = planned_sizes_of(project)
    steps = top_as_measured(sizes, {}, strips_between_of(project)).steps if sizes else ()
    planned = {r.key: r.planned for s in steps for r in s.readings}
    if place not in planned and place not in quilt.top:
        raise Refused(
            [
                QuiltImpossible(
                    "The quilt is put together otherwise now, and is not measured there any more. What it is now stands on the page.",
                    field="value",
                )
            ],
            style,
        )
    kept = top_of(quilt).get(place)
    at = _AtPlace(kept.value if kept else None)
    apply_changes(at, top_readers(style.measure), changes, seen, style.measure)
    rest = {k: v for k, v in quilt.top.items() if k != place}
    if at.value is not None:
        now = planned.get(place, at.value)
        rest[place] = {"value": str(at.value.rational), "planned": str(now.rational)}
    quilt.top = rest
    quilt.save(update_fields=["top"])
    touch(project)
    return project


@change
def lay_sampler(room: Workroom, project_key: UUID, body: Mapping[str, Any]) -> Project:
    """The centre laid anew by rule: blocks of several sizes with the strips between and beside them. From then on it is laid by hand.
    Raises ``Refused``."""
    project = get_project(room, project_key)
    style, quilt, find = style_of(project), quilt_of(project), find_in(room)
    asked = read_values(sampler_readers(style.measure), {**body, "gap": body["gap"] or "0"}, style)
    blocks = {str(b.pk): b for b in blocks_of(project) if not b.part}
    try:
        pattern, width = sample_of(
            [(blocks[k], n) for k, n in asked["numbers"].items() if k in blocks and n],
            asked["width"],
            asked["gap"],
            body["fabric"],
            project.ruler_step,
            find,
        )
    except PiecingError as refusal:
        raise Refused([refusal], style) from None
    return _laid_anew(room, project, quilt, pattern, width, find)


@change
def lay_sashing(room: Workroom, project_key: UUID, body: Mapping[str, Any]) -> Project:
    """The centre laid anew by rule: blocks in straight rows with sashes of several strips. From then on it is laid by hand. Raises
    ``Refused``."""
    project = get_project(room, project_key)
    style, quilt, find = style_of(project), quilt_of(project), find_in(room)
    asked = read_values(sashing_readers(style.measure), body, style)
    # Set so in a copy: whoever goes back finds the quilt in rows as it was.
    straight = copy(quilt)
    straight.setting, straight.sash, straight.half_blocks = Setting.STRAIGHT.value, Length.of(0), False
    straight.columns, straight.rows, straight.sash_round = asked["columns"], asked["rows"], body["outside"]
    try:
        crossing = StripCrossing(body["crossing"])
        pattern, width = sashed_centre(
            project, straight, asked["across"], asked["down"], crossing, body["cornerstone"], find
        )
    except PiecingError as refusal:
        raise Refused([refusal], style) from None
    return _laid_anew(room, project, quilt, pattern, width, find)


def _laid_anew(room: Workroom, project: Project, quilt: Quilt, pattern: Pattern, width: Length, find: Find) -> Project:
    """The centre laid by rule in place of what was laid before."""
    row = Block.objects.filter(project=project, part=CENTRE).first() or Block(
        project=project, part=CENTRE, position=LAST - 1, colourways=[{"count": 1, "roles": {}}]
    )
    row.pattern, row.finished, row.deleted_at = pattern_data(pattern), width, None
    row.save()
    quilt.setting, quilt.begun = Setting.BY_HAND.value, True
    quilt.scraps = {**quilt.scraps, "laid": []}
    quilt.save()
    try:
        quilt_sizes(quilt_choices(quilt, project, blocks_of(project), find))
    except PiecingError as refusal:
        raise Refused([refusal], style_of(project)) from None
    follow_blocks(project)
    touch(project)
    return get_project(room, project.pk)


def _lay_by_hand(project: Project, quilt: Quilt, before: Quilt, find: Find) -> None:
    """Whoever turns to laying by hand goes on from the quilt as it was set, unless one was laid before."""
    if quilt.setting == before.setting or quilt.setting != Setting.BY_HAND.value:
        return
    laid_before = Block.objects.filter(project=project, part=CENTRE).first()
    if laid_before is None:
        centre_as_set(project, before, find).save(force_insert=True)
    else:
        laid_before.deleted_at = None
        laid_before.save(update_fields=["deleted_at"])


def _fitting_grid(project: Project) -> tuple[int, int]:
    """Columns and rows for the blocks that are wanted; three by four where they make no such quilt."""
    try:
        return fitted_to_number(sum(int(w["count"]) for b in blocks_of(project) if not b.part for w in b.colourways))
    except QuiltImpossible:
        return 3, 4
