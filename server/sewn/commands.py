"""Changes to what was read on a block and to diagnoses kept. One function, one transaction."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from datetime import datetime
from typing import Any
from uuid import UUID

from django.db import transaction
from django.db.models import Max
from django.utils import timezone
from django.utils.dateparse import parse_datetime

from blocks.models import Block
from blocks.selectors import get_block
from common.patches import apply_changes
from common.problems import NotHere, Refused
from common.readers import note_reader, one_of_reader
from piecing.errors import CountOutOfRange, PiecingError
from piecing.diagnosis.readings import PLAIN, ReadingKind
from projects.translate import style_of
from workrooms.models import Workroom

from .models import Kept, Measured
from .selectors import model_for, summary_of
from .translate import reading_of, reading_readers

__all__ = ["change_kept", "delete_measured", "keep", "put_measured", "restore_measured", "take_kept"]

_GONE = "This reading is not here. It may have been deleted in another window."
_MOST = 5_000


@transaction.atomic
def put_measured(
    room: Workroom, block_key: UUID, key: UUID, changes: Mapping[str, Any], seen: Mapping[str, Any]
) -> Block:
    """Write a new reading or change one; sending the same one twice leaves one."""
    block = get_block(room, block_key)
    style = style_of(block.project)
    row = Measured.objects.filter(pk=key).first()
    if row is not None and (row.block_id != block.pk or row.deleted_at is not None):
        raise NotHere(_GONE)
    new = row is None
    if new and block.measured.filter(deleted_at=None).count() >= _MOST:
        raise Refused([CountOutOfRange("A block holds {most} readings at most.", most=_MOST)], style)
    last = block.measured.aggregate(last=Max("order"))["last"] or 0
    row = row or Measured(pk=key, block=block, order=last + 1)
    try:
        apply_changes(row, reading_readers(style.measure), changes, {} if new else seen, style.measure)
        if ReadingKind(row.kind) in PLAIN:
            row.value = None
        model_for(block).check(reading_of(row))
    except PiecingError as refusal:
        raise Refused([refusal.at("value")], style) from None
    row.save(force_insert=new)
    return block


def _stamp(room: Workroom, block_key: UUID, key: UUID, deleted_at: datetime | None) -> Block:
    block = get_block(room, block_key)
    if not block.measured.filter(pk=key).update(deleted_at=deleted_at):
        raise NotHere(_GONE)
    return block


@transaction.atomic
def delete_measured(room: Workroom, block_key: UUID, key: UUID) -> Block:
    """Hidden, not erased: ``restore_measured`` is the undo."""
    return _stamp(room, block_key, key, timezone.now())


@transaction.atomic
def restore_measured(room: Workroom, block_key: UUID, key: UUID) -> Block:
    return _stamp(room, block_key, key, None)


@transaction.atomic
def keep(room: Workroom, block_key: UUID, key: UUID) -> Block:
    """The diagnosis as it stands, in sentences; asking twice with one key keeps one."""
    block = get_block(room, block_key)
    if not Kept.objects.filter(pk=key).exists():
        Kept.objects.create(pk=key, block=block, said=summary_of(block))
    return block


@transaction.atomic
def take_kept(block_key: UUID, kept: Iterable[Mapping[str, Any]]) -> None:
    """Diagnoses that come with an imported project; what a sentence is missing is taken as nothing said."""
    for k in kept:
        said = {f: k["said"].get(f, empty) for f, empty in _NOTHING_SAID.items()}
        row = Kept.objects.create(
            block_id=block_key, said=said, turned_out=k.get("turned_out", ""), later=k.get("later", "")
        )
        when = parse_datetime(k.get("kept_at", "")) if k.get("kept_at") else None
        if when is not None:
            Kept.objects.filter(pk=row.pk).update(kept_at=when)


_NOTHING_SAID: dict[str, Any] = {
    "status": "unsettled",
    "sure": 0.0,
    "leading": "",
    "causes": [],
    "readings": [],
    "faults": [],
    "this_block": [],
    "the_batch": [],
}


@transaction.atomic
def change_kept(
    room: Workroom, block_key: UUID, key: UUID, changes: Mapping[str, Any], seen: Mapping[str, Any]
) -> Block:
    """What turned out later; ``deleted`` takes it away, or brings it back."""
    block = get_block(room, block_key)
    row = block.kept.filter(pk=key).first()
    if row is None:
        raise NotHere("This diagnosis is not kept here.")
    style = style_of(block.project)
    if "deleted" in changes:
        row.deleted_at = timezone.now() if changes["deleted"] else None
    readers = {"turned_out": one_of_reader(["", "right", "partly", "wrong"], "outcome"), "later": note_reader(400)}
    some = {k: v for k, v in changes.items() if k != "deleted"}
    apply_changes(row, readers, some, {k: v for k, v in seen.items() if k != "deleted"}, style.measure)
    row.save()
    return block
