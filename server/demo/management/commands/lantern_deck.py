"""``manage.py lantern_deck``: put the demo data in, once; ``--reset`` empties the workroom first."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.core.management.base import BaseCommand, CommandParser
from django.db import transaction

from demo.scenario import PROJECTS, DemoProject
from projects.commands import archive_project, change_fabric, change_unit, create_project
from projects.models import Project
from readings.commands import put_reading
from readings.models import ReadingRow
from workrooms.models import Workroom
from workrooms.selectors import current_workroom


class Command(BaseCommand):
    help = "Fills the workroom with the Lantern Deck set. Keeps what is there unless --reset is given."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--reset", action="store_true", help="empty the workroom first")

    @transaction.atomic
    def handle(self, **options: Any) -> None:
        room = current_workroom()
        if options["reset"]:
            Project.objects.filter(workroom=room).delete()
            Workroom.objects.filter(pk=room.pk).delete()
            room = current_workroom()
        if room.projects.exists():
            self.stdout.write("The workroom has projects already; they are kept. RESET=1 starts over.")
            return
        Workroom.objects.filter(pk=room.pk).update(name="Lantern Deck")
        for demo in PROJECTS:
            _put(room, demo)
        self.stdout.write(f"Demo data: {len(PROJECTS)} projects of the Lantern Deck set.")


def _put(room: Workroom, demo: DemoProject) -> None:
    project = create_project(room, UUID(demo.key), demo.name)
    unit = project.units.get()
    change_unit(room, unit.pk, {k: v if isinstance(v, int) else str(v) for k, v in demo.unit.items()}, {})
    for role, name, colour, value in demo.fabrics:
        fabric = project.fabrics.get(role=role)
        change_fabric(room, fabric.pk, {"name": name, "colour": colour, "value": value}, {})
    for n, reading in enumerate(demo.readings, 1):
        key = UUID(int=UUID(demo.key).int + (n << 32))
        typed = {
            "kind": reading.kind,
            "value": reading.value,
            "row_units": reading.row_units,
            "whole": reading.whole,
            "note": reading.note,
        }
        row = put_reading(room, unit.pk, key, typed, {})
        ReadingRow.objects.filter(pk=row.pk).update(order=n)
    if demo.archived:
        archive_project(room, project.pk, True)
