"""Changes to the log: trial pieces, notes, what was learned, photos. One function, one transaction."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any
from uuid import UUID

from django.db.models import Model, QuerySet
from django.utils import timezone

from api.patches import Reader, apply_changes
from api.photos import jpeg_of
from api.problems import NotHere, Refused
from api.readers import cuts_reader, maybe_length_reader, note_reader, one_of_reader
from measuring.selectors import plan_of
from piecing.errors import CountOutOfRange, PiecingError, UnknownChoice
from piecing.lengths import Length, Measure, Style
from piecing.messages import Message
from piecing.planning.trial import trial_of
from piecing.units import kind_of, method_for
from piecing.units.method import Cuts
from projects.models import PlannedUnit, Project
from projects.selectors import get_project, get_unit
from projects.translate import choices_of, style_of
from setups.commands import day_reader
from workrooms.models import Workroom
from workrooms.once import change

from .models import KINDS, LONGEST, LogEntry, Photo

__all__ = [
    "MOST_ENTRIES",
    "MOST_PHOTOS",
    "delete_entry",
    "delete_photo",
    "entry_readers",
    "put_entry",
    "put_photo",
    "restore_entry",
    "restore_photo",
]

MOST_ENTRIES, MOST_PHOTOS = 5_000, 2_000
_LARGEST, _WIDEST = 1_900_000, 1_600
_GONE = "This is not in the log. It may have been taken out in another window."


def entry_readers(measure: Measure) -> dict[str, Reader]:
    """Fields as they are typed: ``cuts`` a trial piece was cut to, ``width`` by ``height`` what it measured before trimming."""
    day = day_reader()
    return {
        "kind": one_of_reader(KINDS, "kind of entry"),
        "day": Reader(lambda v: day(v)),
        "text": Reader(_text),
        "cuts": cuts_reader(measure),
        "width": maybe_length_reader(measure),
        "height": maybe_length_reader(measure),
    }


def _text(value: Any) -> str:
    """Lines stay lines; each of them as plain text."""
    if not isinstance(value, str | None):
        raise UnknownChoice("This is sent as text.")
    line = note_reader(2 * LONGEST)
    text = "\n".join(line.read(part) for part in (value or "").splitlines()).strip()
    if len(text) > LONGEST:
        raise CountOutOfRange("This is longer than {most} letters. Put it down in two entries.", most=f"{LONGEST:,}")
    return text


@change
def put_entry(
    room: Workroom,
    key: UUID,
    changes: Mapping[str, Any],
    seen: Mapping[str, Any],
    project: UUID | None = None,
    unit: UUID | None = None,
) -> None:
    """Something put down, or put right; sending the same one twice leaves one. A trial says what came of it when it is put down."""
    row = LogEntry.objects.filter(pk=key).select_related("project").first()
    if row is not None and (row.workroom_id != room.pk or row.deleted_at is not None):
        raise NotHere(_GONE)
    new = row is None
    if row is None:
        if room.log.filter(deleted_at=None).count() >= MOST_ENTRIES:
            raise Refused([CountOutOfRange("A log holds {most} entries at most.", most=f"{MOST_ENTRIES:,}")])
        row = LogEntry(pk=key, workroom=room, day=timezone.localdate(), kind="note")
        row.unit = get_unit(room, unit) if unit else None
        row.project = row.unit.project if row.unit else get_project(room, project) if project else None
        changes, seen = {"kind": "note", **changes}, {}
    style = _style(room, row.project)
    fields = apply_changes(row, entry_readers(style.measure), changes, seen, style.measure)
    if row.kind == "trial" and (new or {"cuts", "width", "height"} & set(fields)):
        _judge(row, style)
    elif row.kind != "trial" and not row.text.strip():
        raise Refused([CountOutOfRange("Write a word or two; a photo can be added afterwards.", field="text")], style)
    row.save(force_insert=new)


def _style(room: Workroom, project: Project | None) -> Style:
    return style_of(project) if project else Style(Measure(room.measure))


def _judge(row: LogEntry, style: Style) -> None:
    """What came of a trial piece, in words, by the plan as it is today. Raises ``Refused``."""
    if row.unit is None:
        raise NotHere("Say which unit this is a trial of: plan it first, if it is a new one.")
    if row.width is None:
        raise Refused(
            [CountOutOfRange("Measure it before it is trimmed, and type what it came to.", field="width")], style
        )
    choices, kind = choices_of(row.unit), kind_of(row.unit.kind)
    row.cuts = cuts = Cuts((_planned_sizes(row.unit) | dict(row.cuts.items())).items())
    try:
        said = trial_of(choices, cuts, row.width, row.height).sentences()
    except KeyError:
        refusal = CountOutOfRange("Give every size that the pieces were cut to.", field="cuts")
        raise Refused([refusal], style) from None
    except PiecingError as refusal:
        raise Refused([refusal], style) from None
    row.said = [s.text(style) for s in said]
    method = method_for(row.unit.kind, choices.method)
    sizes = ", ".join(f"{method.size_name(name)} {style.pretty(size)}" for name, size in cuts.items())
    came = Message("{w}", w=row.width) if row.height is None else Message("{w} by {h}", w=row.width, h=row.height)
    row.of = Message(
        "Trial: {kind} finishing {size}, {sizes}, came to {came}",
        kind=kind.title.lower(),
        size=row.unit.finished,
        sizes=sizes,
        came=came,
    ).text(style)[:200]


def _planned_sizes(unit: PlannedUnit) -> dict[str, Length]:
    """Sizes as they are planned, for those that were not typed; none where the plan is refused."""
    try:
        return dict(plan_of(unit).cuts.items())
    except PiecingError:
        return {}


def _stamp(rows: QuerySet[Any], key: UUID, *, deleted: bool) -> Model:
    row: Model | None = rows.filter(pk=key).first()
    if row is None:
        raise NotHere(_GONE)
    row.deleted_at = timezone.now() if deleted else None  # type: ignore[attr-defined]
    row.save(update_fields=["deleted_at"])
    return row


@change
def delete_entry(room: Workroom, key: UUID) -> None:
    """Hidden with its photos, not erased: ``restore_entry`` is the undo."""
    _stamp(room.log.all(), key, deleted=True)


@change
def restore_entry(room: Workroom, key: UUID) -> None:
    _stamp(room.log.all(), key, deleted=False)


@change
def put_photo(room: Workroom, entry: UUID, key: UUID, address: str, caption: str) -> None:
    """A photo of an entry; sent again, only its caption changes."""
    of = room.log.filter(pk=entry, deleted_at=None).first()
    if of is None:
        raise NotHere(_GONE)
    known = Photo.objects.filter(pk=key).first()
    if known is not None:
        if known.entry_id != of.pk:
            raise NotHere(_GONE)
        known.caption = caption
        known.save(update_fields=["caption"])
        return
    if Photo.objects.filter(entry__workroom=room, deleted_at=None).count() >= MOST_PHOTOS:
        raise Refused([CountOutOfRange("A log holds {most} photos at most.", most=f"{MOST_PHOTOS:,}", field="image")])
    try:
        image, width, height = jpeg_of(address, _LARGEST, _WIDEST)
    except PiecingError as refusal:
        raise Refused([refusal.at("image")]) from None
    Photo.objects.create(pk=key, entry=of, image=image, width=width, height=height, caption=caption)


def _photos(room: Workroom) -> QuerySet[Photo]:
    return Photo.objects.filter(entry__workroom=room)


@change
def delete_photo(room: Workroom, key: UUID) -> None:
    """Hidden, not erased: ``restore_photo`` is the undo."""
    _stamp(_photos(room), key, deleted=True)


@change
def restore_photo(room: Workroom, key: UUID) -> None:
    _stamp(_photos(room), key, deleted=False)
