"""``manage.py lantern_deck``: put the demo data in, once; ``--reset`` empties the workroom first."""

from __future__ import annotations

import sys
from collections.abc import Iterable
from datetime import timedelta
from itertools import count
from typing import Any
from uuid import UUID

from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import transaction
from django.utils import timezone

from blocks.commands import put_block
from blocks.models import Quilt
from blocks.quilt_commands import change_quilt
from cutting.commands import change_pile
from cutting.shelf import put_on_shelf
from cutting.stock_commands import put_stock
from cutting.translate import now_of
from demo.scenario import DUE, FREE, LOG, MACHINES, PROJECTS, SHELF, TIMES, DemoProject, DemoReading, DemoWork
from diagnosis.commands import change_saved, put_reading, save_diagnosis
from diagnosis.subjects import subject_of
from journal.commands import put_entry
from keeping.copies import put_aside
from keeping.serving import served_at
from progress.commands import put_done
from progress.selectors import block_bench, unit_bench
from progress.taken import short_of
from projects.commands import add_unit, archive_project, change_fabric, change_unit, create_project, put_fabric
from projects.models import Project
from projects.selectors import get_project
from records.commands import put_test
from setups.commands import put_set_up, use_set_up
from timing.commands import change_schedule, keep_plan, put_free, put_time
from workrooms.models import Workroom
from workrooms.selectors import current_workroom


class Command(BaseCommand):
    help = "Fills the workroom with the Lantern Deck set. Keeps what is there unless --reset is given."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--reset", action="store_true", help="empty the workroom first")
        parser.add_argument("--yes", action="store_true", help="do not ask")

    def handle(self, **options: Any) -> None:
        if options["reset"]:
            where = served_at()
            if where is not None:
                raise CommandError(f"Entretoile is running at {where}. Stop it first.")
            if not options["yes"] and current_workroom().projects.exists() and not _has_agreed():
                raise CommandError("Nothing was changed.")
            put_aside("reset")
        self._fill(reset=options["reset"])

    @transaction.atomic
    def _fill(self, *, reset: bool) -> None:
        room = current_workroom()
        if reset:
            Project.objects.filter(workroom=room).delete()
            Workroom.objects.filter(pk=room.pk).delete()
            room = current_workroom()
        if room.projects.exists():
            self.stdout.write("The workroom has projects already; they are kept. RESET=1 starts over.")
            return
        Workroom.objects.filter(pk=room.pk).update(name="Lantern Deck")
        machines = _machines(room)
        for demo in PROJECTS:
            use_set_up(room, machines[demo.machine])
            _put(room, demo)
        _turned_out(room)
        for n, cloth in enumerate(SHELF):
            put_on_shelf(room, UUID(int=_SHELF_KEYS + n), cloth, {})
        _evenings(room)
        _log(room)
        self.stdout.write(f"Demo data: {len(PROJECTS)} projects of the Lantern Deck set.")


_MACHINE_KEYS = 0x5E0A6F3C3F574F0E9A430D6F6F1B0000
_SAVED_KEYS = 0x5E0A6F3C3F574F0E9A430D6F6F1C0000


def _machines(room: Workroom) -> list[UUID]:
    """Three months of seam tests on two machines, with one change of needle."""
    today, keys = timezone.localdate(), [UUID(int=_MACHINE_KEYS + n) for n in range(len(MACHINES))]
    for n, machine in enumerate(MACHINES):
        fields = {**machine.fields, "began": (today - timedelta(days=machine.ago)).isoformat()}
        before = None if machine.came_from is None else keys[machine.came_from]
        put_set_up(room, keys[n], fields, {}, before)
        for m, test in enumerate(sorted(machine.tests, key=lambda t: -t.ago), 1):
            strips = {"kind": "strip_test", "whole": test.whole, "wanted": "1 1/2"}
            told = strips if test.whole else {"kind": "stitch", "spot": "middle"}
            day = (today - timedelta(days=test.ago)).isoformat()
            put_test(
                room,
                keys[n],
                UUID(int=_MACHINE_KEYS + 1_000 * (n + 1) + m),
                {**told, "value": test.read, "day": day},
                {},
            )
    return keys


def _turned_out(room: Workroom) -> None:
    """Diagnoses kept, and what came of those that somebody looked into."""
    told = (
        ("Lantern", 0, "right", "a strip test the day after took 9/32"),
        ("Bollard", 0, "right", ""),
        ("Wake", 0, "", ""),
    )
    for n, (name, place, turned_out, later) in enumerate(told):
        unit = list(Project.objects.get(workroom=room, name__startswith=name).units.filter(deleted_at=None))[place]
        subject, key = subject_of(room, "units", unit.pk), UUID(int=_SAVED_KEYS + n)
        save_diagnosis(subject, key)
        if turned_out:
            change_saved(subject, key, {"turned_out": turned_out, "later": later}, {})


_TIME_KEYS = 0x5E0A6F3C3F574F0E9A430D6F6F1D0000


def _evenings(room: Workroom) -> None:
    """Minutes that were put down, when she is free, and the half-sewn project planned into it."""
    today = timezone.localdate()
    for n, told in enumerate(TIMES):
        day = (today - timedelta(days=told.ago)).isoformat()
        changes = {"stage": told.stage, "minutes": told.minutes, "count": told.count, "day": day, "note": told.note}
        put_time(room, UUID(int=_TIME_KEYS + n), changes, {}, UUID(PROJECTS[told.project].key))
    for n, (weekday, begins, ends) in enumerate(FREE):
        put_free(room, UUID(int=_TIME_KEYS + 1_000 + n), {"weekday": weekday, "begins": begins, "ends": ends}, {})
    due = (today + timedelta(days=DUE)).isoformat()
    change_schedule(room, UUID(PROJECTS[2].key), {"planned": True, "rhythm": "day", "first": due}, {})
    keep_plan(room)


_LOG_KEYS = 0x5E0A6F3C3F574F0E9A430D6F6F1E0000


def _log(room: Workroom) -> None:
    """Trial pieces, notes, and what was learned on the way."""
    today = timezone.localdate()
    for n, told in enumerate(LOG):
        project = None if told.project is None else UUID(PROJECTS[told.project].key)
        unit = None if told.unit is None else _key(PROJECTS[told.project or 0], 50_000 + told.unit)
        day = (today - timedelta(days=told.ago)).isoformat()
        changes = {"kind": told.kind, "text": told.text, "day": day, **told.fields}
        put_entry(room, UUID(int=_LOG_KEYS + n), changes, {}, project, unit)


_SHELF_KEYS = 0x5E0A6F3C3F574F0E9A430D6F6F1A0100
"""Keys of what lies on the shelf, counted from here, so that they are the same each time."""


def _has_agreed() -> bool:
    """Asked at the keyboard; without one the answer is no."""
    if not sys.stdin.isatty():
        return False
    said = input("This empties the workroom; a copy of it is kept in the folder “copies”. Type yes to go on: ")
    return said.strip().lower() == "yes"


def _put(room: Workroom, demo: DemoProject) -> None:
    project = create_project(room, UUID(demo.key), demo.name)
    for position, (role, (name, colour, value)) in enumerate(zip("abcdefgh", demo.fabrics, strict=False)):
        known = project.fabrics.filter(role=role).first()
        key = known.pk if known else _key(demo, 60_000 + position)
        if known is None:
            put_fabric(room, project.pk, key, {"role": role})
        change_fabric(room, key, {"name": name, "colour": colour, "value": value}, {})
    for position, unit in enumerate(demo.units):
        key = _key(demo, 50_000 + position)
        add_unit(room, project.pk, key, unit.kind, None)
        change_unit(room, key, {k: v if isinstance(v, int | list) else str(v) for k, v in unit.choices.items()}, {})
        _take_down(room, demo, ("units", key), 1_000 * position, unit.readings)
    # The units come first, since their keys are known and readings lie on them; the blocks then make them their own.
    Quilt.objects.update_or_create(project=project, defaults={"followed": False})
    for position, block in enumerate(demo.blocks):
        changes = {"finished": block.finished, "colourways": [{"count": block.count, "roles": {}}]}
        put_block(room, project.pk, _key(demo, 40_000 + position), block.start, changes, {})
        _take_down(room, demo, ("blocks", _key(demo, 40_000 + position)), 20_000, block.readings)
    for position, cloth in enumerate(demo.stock):
        changes = {f: str(getattr(cloth, f)) for f in ("kind", "across", "along", "count", "name")}
        fabric = project.fabrics.get(role=cloth.role)
        put_stock(room, fabric.pk, _key(demo, 30_000 + position), changes, {})
    if demo.quilt:
        change_quilt(room, project.pk, demo.quilt, {})
    for n, work in enumerate(demo.work):
        _work(room, project, demo, work, 70_000 + 1_000 * n)
    # What lies at the bench was cut before.
    project = get_project(room, project.pk)
    for pile in short_of(project, now_of(project)):
        change_pile(room, project.pk, pile.letter, {"cut": str(pile.cut + pile.short)}, {})
    if demo.archived:
        archive_project(room, project.pk, True)
    dated = {"created_at": timezone.now() - timedelta(days=demo.begun)}
    if demo.archived:
        dated["archived_at"] = timezone.now() - timedelta(days=demo.ended)
    Project.objects.filter(pk=project.pk).update(**dated)


def _work(room: Workroom, project: Project, demo: DemoProject, work: DemoWork, first: int) -> None:
    """Puts down what is done at the bench, step by step as it is tapped there."""
    units = work.subject == "units"
    of = _key(demo, (50_000 if units else 40_000) + work.place)
    lots = unit_bench(room, of).runs[0].lots if units else block_bench(room, of).lots
    keys = count(first)

    def put(**body: Any) -> None:
        told = {"subject": work.subject, "of": of, "lot": 1, "step": "", "count": 0, **body}
        put_done(room, project.pk, _key(demo, next(keys)), told)

    for n, lot in enumerate(lots[: work.lots + bool(work.steps)]):
        steps = unit_bench(room, of).runs[0].steps if units else block_bench(room, of).steps
        for step in steps if n < work.lots else steps[: work.steps]:
            put(stage=step.stage.value, lot=lot.number, step=step.key)
    if work.trimmed:
        put(stage="trimmed", count=work.trimmed)


def _key(demo: DemoProject, number: int) -> UUID:
    return UUID(int=UUID(demo.key).int + (number << 32))


def _take_down(
    room: Workroom, demo: DemoProject, subject: tuple[str, UUID], first: int, readings: Iterable[DemoReading]
) -> None:
    for n, reading in enumerate(readings, 1):
        typed = {"kind": reading.kind, "value": reading.value, "note": reading.note, **reading.where}
        put_reading(subject_of(room, *subject), _key(demo, first + n), typed, {})
