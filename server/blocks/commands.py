"""Changes to blocks and to arrangements of one's own. One function, one transaction."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Any
from uuid import UUID

from django.db.models import Max
from django.utils import timezone

from api.patches import apply_changes
from api.problems import NotHere, Refused
from piecing.blocks.file_format import pattern_data, pattern_from
from piecing.blocks.library import library_data
from piecing.errors import CountOutOfRange, PiecingError, QuiltImpossible, UnknownBlock
from piecing.lengths import Measure, usual
from projects.commands import ensure_fabrics, touch
from projects.models import Project
from projects.selectors import get_project
from projects.translate import style_of
from workrooms.models import Workroom
from workrooms.once import change

from .edits import Asked, edited
from .following import follow_blocks
from .models import Block, OwnBlock
from .readers import (
    block_readers,
)
from .selectors import get_block
from .translate import CENTRE, find_in, pattern_of

__all__ = [
    "MOST_BLOCKS",
    "delete_block",
    "delete_own",
    "edit_block",
    "keep_own",
    "put_block",
    "restore_block",
    "restore_own",
]

MOST_BLOCKS = 40
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
