"""What is nearly as full as it can be: told before somebody is refused."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from blocks.commands import MOST_BLOCKS
from cutting.models import CutPlan
from cutting.sheets import MOST_LISTED
from cutting.shelf import on_shelf
from cutting.stock_commands import MOST_STOCK
from cutting.translate import live_stock
from diagnosis.commands import MOST as MOST_READINGS
from journal.commands import MOST_ENTRIES, MOST_PHOTOS
from journal.models import Photo
from measuring.models import ReadingRow
from piecing.messages import Message
from projects.commands import MOST_FABRICS, MOST_KINDS
from projects.models import Project
from records.commands import MOST as MOST_SEAM_TESTS
from timing.commands import MOST_FREE, MOST_TIMES
from workrooms.models import Workroom

__all__ = ["Fullness", "nearly_full_of_project", "nearly_full_of_room"]

_TENTH, _LAST = 10, 2
"""It is told once no more than a tenth is free, or room for the last two."""


@dataclass(frozen=True)
class Fullness:
    """So many of something are there, of so many that can be kept."""

    what: Message
    count: int
    most: int

    @property
    def nearly(self) -> bool:
        return self.most - self.count <= max(_LAST, self.most // _TENTH)

    @property
    def said(self) -> Message:
        return Message(
            "{what}: {n} of {most}. No more than that can be kept.",
            what=self.what,
            n=f"{self.count:,}",
            most=f"{self.most:,}",
        )


def nearly_full_of_project(project: Project) -> list[Message]:
    """A line for each thing of the project of which hardly any more can be kept."""
    return [f.said for f in _of_project(project) if f.nearly]


def nearly_full_of_room(room: Workroom) -> list[Message]:
    """The same of what is kept for all projects together."""
    return [f.said for f in _of_room(room) if f.nearly]


def _of_project(project: Project) -> Iterator[Fullness]:
    blocks = project.blocks.filter(deleted_at=None, part="").count()
    yield Fullness(Message("Blocks of this project"), blocks, MOST_BLOCKS)
    units = project.units.filter(deleted_at=None, of_blocks={}).count()
    yield Fullness(Message("Kinds of unit besides those of blocks"), units, MOST_KINDS)
    yield Fullness(Message("Fabrics of this project"), project.fabrics.count(), MOST_FABRICS)
    yield Fullness(Message("Cloths of this project"), live_stock(project).count(), MOST_STOCK)
    row = CutPlan.objects.filter(project=project).first()
    yield Fullness(Message("Lines of cutting lists"), len(row.extra) if row else 0, MOST_LISTED)
    readings = ReadingRow.objects.filter(project=project, deleted_at=None).count()
    yield Fullness(Message("Readings of this project"), readings, MOST_READINGS)


def _of_room(room: Workroom) -> Iterator[Fullness]:
    yield Fullness(Message("Cloths on the shelf"), on_shelf(room).count(), MOST_STOCK)
    yield Fullness(Message("Entries of the log"), room.log.filter(deleted_at=None).count(), MOST_ENTRIES)
    photos = Photo.objects.filter(entry__workroom=room, deleted_at=None).count()
    yield Fullness(Message("Photos of the log"), photos, MOST_PHOTOS)
    yield Fullness(Message("Stretches of work put down"), room.times.filter(deleted_at=None).count(), MOST_TIMES)
    yield Fullness(Message("Free times of a week"), room.free_times.filter(deleted_at=None).count(), MOST_FREE)
    tests = ReadingRow.objects.filter(test_of__workroom=room, deleted_at=None).count()
    yield Fullness(Message("Seam tests"), tests, MOST_SEAM_TESTS)
