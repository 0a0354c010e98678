"""Changes to blocks and the quilt. One function, one transaction."""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping
from copy import copy
from dataclasses import dataclass
from statistics import fmean
from typing import Any
from uuid import UUID

from django.db import transaction
from django.db.models import Max
from django.utils import timezone

from api.patches import apply_changes, read_values
from api.problems import NotHere, Refused
from piecing.blocks.file_format import Find, pattern_data, pattern_from
from piecing.blocks.library import library_data
from piecing.blocks.pattern import Pattern
from piecing.errors import CountOutOfRange, PiecingError, QuiltImpossible, ScrapsImpossible, UnknownBlock
from piecing.lengths import Length, Measure, usual
from piecing.quilts.by_rule import StripCrossing
from piecing.quilts.choices import Setting
from piecing.quilts.fitting import fitted_to_number
from piecing.quilts.scrap_places import neighbours
from piecing.quilts.scraps import ScrapStock, Value, arranged, darkness
from piecing.quilts.sizes import quilt_sizes
from piecing.quilts.top import top_as_measured
from projects.commands import ensure_fabrics, touch
from projects.models import Project
from projects.selectors import get_project
from projects.translate import style_of
from workrooms.models import Workroom
from workrooms.once import change

from .edits import Asked, edited
from .following import follow_blocks, take_making
from .models import Block, OwnBlock, Quilt
from .parts import LAST, centre_as_set, half_pattern, sampled, sashed_centre
from .quilt import planned_sizes_of, quilt_of, strips_between_of
from .readers import (
    block_readers,
    quilt_readers,
    sampler_readers,
    sashing_readers,
    stock_reader,
    top_readers,
)
from .scraps import scrap_setting
from .selectors import blocks_of, get_block
from .translate import CENTRE, fillers_at, find_in, pattern_of, quilt_choices, top_of, ways_of

__all__ = [
    "MOST_BLOCKS",
    "change_quilt",
    "delete_block",
    "delete_own",
    "edit_block",
    "keep_own",
    "lay_sampler",
    "lay_sashing",
    "lay_scraps",
    "put_block",
    "restore_block",
    "restore_own",
    "take_scraps",
    "take_up_scraps",
]

MOST_BLOCKS = 40
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
_EMPTY = {"name": "New block", "columns": [1, 1, 1], "rows": [1, 1, 1], "units": {}, "layout": [". . ."] * 3}


@change
def put_block(
    room: Workroom,
    project_key: UUID,
    key: UUID,
    start: str,
    changes: Mapping[str, Any],
    seen: Mapping[str, Any],
    *,
    follow: bool = True,
    part: str = "",
) -> Project:
    """A block made (from the library entry ``start``, or empty) or changed; asking twice with one key makes one. Its units follow in
    the plan, unless they come with it (``follow``). ``part`` names what it is of the quilt, as a file has it."""
    project = get_project(room, project_key)
    style, find = style_of(project), find_in(room)
    block = Block.objects.filter(pk=key).first()
    if block is not None and block.project_id != project.pk:
        raise NotHere("This key belongs to another project.")
    if block is None:
        if not part and project.blocks.filter(deleted_at=None, part="").count() >= MOST_BLOCKS:
            raise Refused([CountOutOfRange("A project holds {most} blocks at most.", most=MOST_BLOCKS)])
        position = (project.blocks.filter(part="").aggregate(last=Max("position"))["last"] or 0) + 1
        begun = find(start) if start else _EMPTY
        if begun is None:
            raise Refused([UnknownBlock("There is no arrangement “{key}” here.", field="start", key=start[:80])], style)
        try:
            pattern = pattern_data(pattern_from(begun, find))
        except PiecingError as refusal:
            raise Refused([refusal], style) from None
        block = Block(
            pk=key, project=project, position=position, pattern=pattern, finished=_first_size(start, style.measure)
        )
        block._state.adding = True
    else:
        _only_the_quilt(block, changes)
    apply_changes(block, block_readers(style.measure, find, str(key)), changes, seen, style.measure)
    _ensure_fabrics(project, block)
    block.part = part or block.part
    block.save()
    if follow:
        follow_blocks(project)
    touch(project)
    return get_project(room, project_key)


@change
def edit_block(room: Workroom, key: UUID, edit: Mapping[str, Any]) -> Block:
    """One change to the layout of a block as it stands, kept. Raises ``Refused`` for what cannot be laid."""
    block = get_block(room, key)
    _only_the_quilt(block, ("pattern",))
    project = get_project(room, block.project_id)
    style, find = style_of(project), find_in(room)
    try:
        asked = Asked(find, str(key), block.finished, style.measure)
        block.pattern = pattern_data(edited(pattern_of(block, find), edit, asked))
        block.finished = asked.finished
    except PiecingError as refusal:
        raise Refused([refusal.at("layout")], style) from None
    _ensure_fabrics(project, block)
    block.save(update_fields=["pattern", "finished"])
    follow_blocks(project)
    touch(project)
    return block


def _only_the_quilt(block: Block, fields: Iterable[str]) -> None:
    """A part of the quilt is what the quilt makes it; its centre, laid by hand, is laid as any block."""
    own = {"colourways"} if block.part == CENTRE else {"pattern", "finished", "colourways"}
    if block.part and own & set(fields):
        raise Refused(
            [
                QuiltImpossible(
                    "“{name}” is a part of the quilt. What it is made of, and how many there are, is said there.",
                    field="layout",
                    name=str(block.pattern.get("name", "")),
                )
            ]
        )


def _first_size(start: str, measure: Measure) -> Any:
    """Tracks of 3 1/2, so that a grid of three finishes 10 1/2; a library block begins at as much a part, one of more parts at less."""
    data = library_data(start)
    columns = list(data["columns"]) if data else [1, 1, 1]
    total = sum(int(c) for c in columns)
    few, some, many = usual(measure).parts
    return (few if total <= 4 else many if total > 6 else some) * total


def _ensure_fabrics(project: Project, block: Block) -> None:
    roles = {r for u in block.pattern["units"].values() if "kind" in u for r in u["fabrics"]}
    roles |= {b for u in block.pattern["units"].values() if "block" in u for b in u.get("fabrics", {}).values()}
    ensure_fabrics(project, roles)


@change
def delete_block(room: Workroom, key: UUID) -> Project:
    """Hidden, not erased: ``restore_block`` is the undo."""
    return _stamp(room, key, timezone.now())


@change
def restore_block(room: Workroom, key: UUID) -> Project:
    return _stamp(room, key, None)


def _stamp(room: Workroom, key: UUID, deleted_at: Any) -> Project:
    block = get_block(room, key, deleted=True)
    if block.part:
        raise Refused([QuiltImpossible("This is a part of the quilt. Take it away there.", field="layout")])
    block.deleted_at = deleted_at
    block.save(update_fields=["deleted_at"])
    follow_blocks(block.project)
    touch(block.project)
    return get_project(room, block.project_id)


@change
def keep_own(room: Workroom, key: UUID, block: UUID) -> OwnBlock:
    """A project's block kept in one's own library; asking twice with one key keeps one."""
    known = OwnBlock.objects.filter(pk=key, workroom=room).first()
    if known is not None:
        return known
    return OwnBlock.objects.create(pk=key, workroom=room, pattern=get_block(room, block).pattern)


@change
def delete_own(room: Workroom, key: UUID) -> None:
    if not OwnBlock.objects.filter(pk=key, workroom=room).update(deleted_at=timezone.now()):
        raise NotHere("There is no such arrangement in your library.")


@change
def restore_own(room: Workroom, key: UUID) -> None:
    """One taken out of one's library is in it again. Raises ``NotHere``."""
    if not OwnBlock.objects.filter(pk=key, workroom=room).update(deleted_at=None):
        raise NotHere("This arrangement is not in your library, and was not taken out of it.")


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
        quilt.columns, quilt.rows = _fitted(project)
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
        pattern, width = sampled(
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


def _fitted(project: Project) -> tuple[int, int]:
    """Columns and rows for the blocks that are wanted; three by four where they make no such quilt."""
    try:
        return fitted_to_number(sum(int(w["count"]) for b in blocks_of(project) if not b.part for w in b.colourways))
    except QuiltImpossible:
        return 3, 4


def lay_scraps(room: Workroom, project_key: UUID, body: Mapping[str, Any]) -> Project:
    """Arrange units so that no neighbours are alike, and keep the arrangement. The solving is not inside a transaction."""
    project = get_project(room, project_key)
    style = style_of(project)
    try:
        setting = scrap_setting(project, find_in(room), body["role"])
        stock = stock_reader(body["stock"])
        fixed = {int(k): str(v) for k, v in body.get("fixed", {}).items() if re.fullmatch("[0-9]{1,6}", str(k))}
        _same_letters(body["role"], [*stock, *fixed.values()])
        sets = body.get("sets", False) or len(body["role"]) > 1
        # Whole blocks alike are seen side by side across a sash too; single units are kept apart by it.
        reach = float(setting.sizes.choices.sash) if sets else 0.0
        pairs = neighbours(setting.places, corners=body.get("corners", False), reach=reach)
        shades = {f.role: darkness(Value(f.value), f.colour) for f in project.fabrics.all()}
        found = arranged(
            setting.places,
            pairs,
            [ScrapStock(f, n, fmean(shades.get(one, 1.0) for one in f)) for f, n in stock.items()],
            fixed=fixed,
            order=body.get("order", 0),
            seed=body.get("seed", 1),
            sets=sets,
        )
    except PiecingError as refusal:
        raise Refused([refusal], style) from None
    kept = {
        **{k: body.get(k) for k in ("role", "order", "seed", "corners")},
        "sets": sets,
        "stock": stock,
        "fixed": {str(k): v for k, v in fixed.items()},
        "laid": [[p.spot, p.cell, f] for p, f in zip(setting.places, found.fabrics, strict=True)],
        "alike": [list(pair) for pair in found.alike],
        "said": [s.text(style) for s in found.said],
    }
    with transaction.atomic():
        quilt = setting.quilt
        quilt.scraps = kept
        quilt.save()
        follow_blocks(project)
        touch(project)
    return get_project(room, project_key)


def _same_letters(role: str, scraps: Iterable[str]) -> None:
    if len(set(role)) < len(role):
        raise ScrapsImpossible(
            "A pair takes the place of two different fabrics. Choose another second one.", field="role"
        )
    if any(len(s) != len(role) for s in scraps):
        raise ScrapsImpossible(
            "Where a pair takes the place of two fabrics, pairs of two are given, and single fabrics where it is one.",
            field="stock",
        )


@change
def take_scraps(room: Workroom, project_key: UUID, scraps: Mapping[str, Any]) -> None:
    """Scraps laid out earlier, as a project's file has them."""
    quilt = quilt_of(get_project(room, project_key))
    quilt.scraps = dict(scraps)
    quilt.save()


@change
def take_up_scraps(room: Workroom, project_key: UUID) -> Project:
    """The arrangement put away; counts and fixed places stay."""
    project = get_project(room, project_key)
    quilt = quilt_of(project)
    quilt.scraps = {**quilt.scraps, "laid": [], "alike": [], "said": []}
    quilt.save()
    follow_blocks(project)
    touch(project)
    return get_project(room, project_key)
