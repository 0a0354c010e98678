"""Changes to projects. One function, one transaction."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from datetime import datetime
from string import ascii_lowercase
from typing import Any
from uuid import UUID, uuid4

from django.db import models
from django.db.models import Max
from django.utils import timezone

from api.patches import apply_changes
from api.problems import NotHere, Refused
from api.readers import name_reader, note_reader
from piecing.errors import (
    CountOutOfRange,
    NoMarginGiven,
    PiecingError,
    PlanError,
    RecordsTooFew,
    SeamError,
    UnknownChoice,
)
from piecing.lengths import Measure, Style, usual
from piecing.messages import Listing
from piecing.planning.plan import plan
from piecing.units import kind_of, methods_of
from piecing.units.method import Cuts
from workrooms.models import Workroom
from workrooms.once import change

from .models import Fabric, PlannedUnit, Project
from .readers import SEAM_FIELDS, fabric_readers, project_readers, unit_readers
from .renamed import borders_renamed, part_renamed, pattern_renamed
from .selectors import get_fabric, get_project, get_unit, is_under_way
from .translate import choices_of, finished_of, style_of

__all__ = [
    "MOST_FABRICS",
    "MOST_KINDS",
    "add_unit",
    "archive_project",
    "change_fabric",
    "change_project",
    "change_unit",
    "create_project",
    "delete_fabric",
    "delete_project",
    "delete_unit",
    "duplicate_project",
    "ensure_fabrics",
    "exchange_letters",
    "name_fabrics",
    "put_fabric",
    "restore_fabric",
    "restore_project",
    "restore_unit",
    "touch",
]

_FABRICS = (
    ("Dark", "#155e68", "dark"), ("Light", "#e6edef", "light"), ("Third", "#f0b429", "medium"),
    ("Fourth", "#a8261c", "medium"), ("Fifth", "#9fb0b6", "medium"), ("Sixth", "#d9a441", "light"),
    ("Seventh", "#3d7f86", "medium"), ("Eighth", "#8c2f39", "dark"), ("Ninth", "#b8c7a1", "light"),
    ("Tenth", "#4b4453", "dark"), ("Eleventh", "#c98f9f", "medium"), ("Twelfth", "#6b8fb5", "medium"),
)  # fmt: skip
"""What a fabric is called, its colour and value, until it is named: by its letter, so that no two are alike."""
MOST_FABRICS = 12
MOST_KINDS = 60


def _free_name(room: Workroom, wanted: str) -> str:
    taken = set(room.projects.filter(deleted_at=None).values_list("name", flat=True))
    if wanted not in taken:
        return wanted
    return next(n for n in (f"{wanted[:114]} {k}" for k in range(2, len(taken) + 3)) if n not in taken)


@change
def create_project(room: Workroom, key: UUID, name: str | None) -> Project:
    """An empty project with the workroom's settings. Asking twice with one key gives one. Raises ``Refused`` for a name that cannot be
    seen."""
    existing = room.projects.filter(pk=key).first()
    if existing is not None:
        return get_project(room, key, deleted=True)
    try:
        wanted = name_reader(120)(name) if name and name.strip() else "New project"
    except PiecingError as refusal:
        raise Refused([refusal.at("name")]) from None
    Project.objects.create(
        pk=key,
        workroom=room,
        name=_free_name(room, wanted),
        measure=room.measure,
        seam_allowance=room.seam_allowance,
        ruler_step=room.ruler_step,
        reading_step=room.reading_step,
    )
    return get_project(room, key)


def name_fabrics(project: Project, names: Iterable[str]) -> None:
    """Fabrics by the names typed, under the letters a, b, c, ... in their order; one left empty is called by its letter's name."""
    for role, typed in zip(ascii_lowercase[:MOST_FABRICS], names, strict=False):
        name, colour, value = _usual_fabric(role)
        said = note_reader(80)(typed) or name
        Fabric.objects.create(project=project, role=role, name=said, colour=colour, value=value)


def _usual_fabric(role: str) -> tuple[str, str, str]:
    return _FABRICS[ascii_lowercase.index(role) % len(_FABRICS)]


def _begin_unit(project: Project, key: UUID, kind: str) -> PlannedUnit:
    """A unit of a kind as it is most often made, with fabrics for all its parts."""
    begin = usual(Measure(project.measure))
    spec = kind_of(kind).usual_spec(begin.unit)
    ensure_fabrics(project, spec.part_fabrics)
    position = (project.units.aggregate(last=Max("position"))["last"] or 0) + 1
    corners = {f"corner_{n}": size for n, size in enumerate(spec.corners)}
    return PlannedUnit.objects.create(
        pk=key,
        project=project,
        position=position,
        kind=kind,
        method=methods_of(kind)[0].name,
        finished=begin.unit,
        block_finished=begin.block,
        part_fabrics=list(spec.part_fabrics),
        strip=spec.strip,
        count=4,
        **corners,
    )


def ensure_fabrics(project: Project, roles: Iterable[str]) -> None:
    """A fabric for every role named; new ones get a name and a colour to be changed."""
    have = set(project.fabrics.values_list("role", flat=True))
    for role in sorted(set(roles) - have):
        name, colour, value = _usual_fabric(role)
        Fabric.objects.create(project=project, role=role, name=name, colour=colour, value=value)


@change
def add_unit(room: Workroom, project_key: UUID, key: UUID, kind: str, copy_of: UUID | None) -> Project:
    """Another kind of unit in a project, or a copy of one that is there. Asking twice with one key adds one."""
    project = get_project(room, project_key)
    existing = PlannedUnit.objects.filter(pk=key).first()
    if existing is not None:
        if existing.project_id != project.pk:
            raise NotHere("This key belongs to another project.")
        return project
    if project.units.filter(deleted_at=None, of_blocks={}).count() >= MOST_KINDS:
        raise Refused([CountOutOfRange("A project holds {most} kinds of unit at most.", field="kind", most=MOST_KINDS)])
    if copy_of is None:
        _begin_unit(project, key, unit_readers(Measure(project.measure))["kind"](kind))
    else:
        unit = get_unit(room, copy_of)
        unit.pk, unit._state.adding, unit.project, unit.of_blocks = key, True, project, {}
        unit.trimmed = unit.spoiled = 0
        unit.position = (project.units.aggregate(last=Max("position"))["last"] or 0) + 1
        unit.save(force_insert=True)
    touch(project)
    return get_project(room, project_key)


@change
def delete_unit(room: Workroom, key: UUID) -> Project:
    """Hidden, not erased: ``restore_unit`` is the undo. One that a block wants stays as long as the block does."""
    _refuse_of_blocks(get_unit(room, key))
    return _stamp_unit(room, key, timezone.now())


@change
def restore_unit(room: Workroom, key: UUID) -> Project:
    return _stamp_unit(room, key, None)


_OF_BLOCKS = (
    "kind", "height", "part_fabrics", "corner_0", "corner_1", "corner_2", "corner_3", "strip", "size_basis", "finished",
    "block_finished", "units_across", "count", "mirrored",
)  # fmt: skip
"""What the blocks say of a unit that stands in the plan because of them."""


def _refuse_of_blocks(unit: PlannedUnit, field: str = "") -> None:
    """Raises ``Refused`` for a unit that blocks want."""
    if unit.of_blocks:
        names = Listing(sorted({str(name) for name, _, _ in unit.of_blocks.values()}))
        raise Refused(
            [UnknownChoice("This unit comes from {blocks}: change it there, on Lay out.", field=field, blocks=names)]
        )


def _stamp_unit(room: Workroom, key: UUID, deleted_at: datetime | None) -> Project:
    unit = get_unit(room, key, deleted=True)
    unit.deleted_at = deleted_at
    unit.save(update_fields=["deleted_at"])
    touch(unit.project)
    return get_project(room, unit.project_id)


@change
def put_fabric(room: Workroom, project_key: UUID, key: UUID, changes: Mapping[str, Any]) -> Project:
    """A fabric more, under the letter wanted or the next one free."""
    project = get_project(room, project_key)
    known = Fabric.every.filter(pk=key).first()
    if known is not None and known.project_id != project.pk:
        raise NotHere("This key belongs to another project.")
    if known is None:
        taken = set(project.fabrics.values_list("role", flat=True))
        if len(taken) >= MOST_FABRICS:
            raise Refused([CountOutOfRange("A project holds {most} fabrics at most.", field="role", most=MOST_FABRICS)])
        free = [c for c in ascii_lowercase if c not in taken]
        wanted = changes.get("role")
        role = wanted if wanted in free else free[0]
        name, colour, value = _usual_fabric(role)
        fabric = Fabric(pk=key, project=project, role=role, name=name, colour=colour, value=value)
        apply_changes(fabric, fabric_readers(), changes, {}, Measure(project.measure))
        fabric.save(force_insert=True)
    touch(project)
    return get_project(room, project_key)


def _users(project: Project, role: str) -> list[str]:
    """What a fabric is in use for, in words: units, blocks, the quilt once there is a block for it."""
    found = ["a unit"] if any(role in u.part_fabrics for u in project.units.filter(deleted_at=None)) else []
    blocks = list(project.blocks.filter(deleted_at=None))
    found += [str(b.pattern["name"]) for b in blocks if role in _roles_of(b.pattern, b.colourways)]
    quilt = getattr(project, "quilt", None)
    if quilt is not None and blocks:
        worn = {f: getattr(quilt, f"{f}_fabric") for f in ("sash", "cornerstone", "setting", "binding", "backing")}
        rims = {r for b in quilt.borders for r in (b["fabric"], b["corner_fabric"])}
        found += ["the quilt"] if role in set(worn.values()) | rims else []
    return found


def _roles_of(pattern: Mapping[str, Any], colourways: Iterable[Mapping[str, Any]]) -> set[str]:
    units = pattern["units"].values()
    roles = {r for u in units if "kind" in u for r in u["fabrics"]}
    roles |= {r for u in units if "block" in u for r in u.get("fabrics", {}).values()}
    return roles | {way["roles"].get(r, r) for way in colourways for r in roles}


@change
def delete_fabric(room: Workroom, key: UUID) -> Project:
    """Hidden with its stock, unless something is made of it; ``restore_fabric`` is the undo."""
    fabric = get_fabric(room, key)
    users = _users(fabric.project, fabric.role)
    if users:
        raise Refused(
            [
                UnknownChoice(
                    "{name} is used by {users}. Give another fabric there first.",
                    name=fabric.name,
                    users=Listing(users),
                )
            ]
        )
    fabric.deleted_at = timezone.now()
    fabric.save(update_fields=["deleted_at"])
    touch(fabric.project)
    return get_project(room, fabric.project_id)


@change
def restore_fabric(room: Workroom, key: UUID) -> Project:
    """With its stock, under the letter that it had or, that given away meanwhile, the next one free."""
    fabric = get_fabric(room, key, deleted=True)
    if fabric.deleted_at is not None:
        taken = set(fabric.project.fabrics.values_list("role", flat=True))
        fabric.role = fabric.role if fabric.role not in taken else next(c for c in ascii_lowercase if c not in taken)
        fabric.deleted_at = None
        fabric.save(update_fields=["role", "deleted_at"])
    touch(fabric.project)
    return get_project(room, fabric.project_id)


@change
def exchange_letters(room: Workroom, key: UUID, one: str, other: str) -> Project:
    """Each of two fabrics takes the letter of the other, with its cloth and what lies cut of it. Done again, it is taken back. Raises ``Refused`` for a letter that no fabric has."""
    project = get_project(room, key)
    rows = {f.role: f for f in project.fabrics.filter(deleted_at=None, role__in=(one, other))}
    if one == other or set(rows) != {one, other}:
        raise Refused([UnknownChoice("Choose two different fabrics of this project.", field="other")])
    spare = next(c for c in ascii_lowercase if not Fabric.objects.filter(project=project, role=c).exists())
    for letter, row in ((spare, rows[one]), (one, rows[other]), (other, rows[one])):
        row.role = letter
        row.save(update_fields=["role"])
    touch(project)
    return get_project(room, key)


@change
def duplicate_project(room: Workroom, source: UUID, key: UUID) -> Project:
    """The plan over again under a new name; readings, and what is done, stay with the work they are of."""
    if room.projects.filter(pk=key).exists():
        return get_project(room, key, deleted=True)
    project = get_project(room, source)
    units, fabrics = list(project.units.all()), list(project.fabrics.all())
    blocks, quilt = list(project.blocks.filter(deleted_at=None)), getattr(project, "quilt", None)
    project.pk, project._state.adding = key, True
    project.name, project.archived_at = _free_name(room, f"{project.name[:113]}, again"), None
    project.save()
    own = {str(block.pk): str(uuid4()) for block in blocks}
    for unit in units:
        unit._state.adding, unit.project = True, project
        unit.trimmed = unit.spoiled = 0
        unit.of_blocks = {own[k]: v for k, v in unit.of_blocks.items() if k in own}
        unit.id = PlannedUnit._meta.get_field("id").get_default()
        unit.save()
    for fabric in fabrics:
        fabric._state.adding, fabric.project = True, project
        fabric.id = Fabric._meta.get_field("id").get_default()
        fabric.save()
    for block in blocks:
        block._state.adding, block.project, block.id = True, project, UUID(own[str(block.pk)])
        # A block inside another is the copy's own, not the original's.
        block.part, block.pattern = part_renamed(block.part, own), pattern_renamed(block.pattern, own)
        block.save()
    if quilt is not None:
        quilt._state.adding, quilt.project = True, project
        quilt.borders = borders_renamed(quilt.borders, own)
        quilt.save()
    return get_project(room, key)


def _stamp(room: Workroom, key: UUID, field: str, on: bool, *, deleted: bool = False) -> Project:
    project = get_project(room, key, deleted=deleted)
    setattr(project, field, timezone.now() if on else None)
    project.save(update_fields=[field])
    return project


@change
def archive_project(room: Workroom, key: UUID, archived: bool) -> Project:
    return _stamp(room, key, "archived_at", archived)


@change
def delete_project(room: Workroom, key: UUID) -> Project:
    """Hidden, not erased: ``restore_project`` is the undo."""
    return _stamp(room, key, "deleted_at", True, deleted=True)


@change
def restore_project(room: Workroom, key: UUID) -> Project:
    return _stamp(room, key, "deleted_at", False, deleted=True)


def touch(project: Project) -> None:
    """Something of the project was changed just now."""
    Project.objects.filter(pk=project.pk).update(updated_at=timezone.now())


def _save(row: models.Model, fields: list[str]) -> None:
    if fields:
        row.save(update_fields=fields)


def _refusal(unit: PlannedUnit) -> PlanError | SeamError | None:
    """Why this unit cannot be planned. A school that still waits for its margin or its records is kept as chosen."""
    try:
        plan(choices_of(unit))
    except (NoMarginGiven, RecordsTooFew):
        return None
    except (PlanError, SeamError) as refusal:
        return refusal
    return None


def _check(units: Iterable[PlannedUnit], project: Project, style: Style) -> None:
    """A change is kept only if every unit can still be planned."""
    refusals = []
    for unit in units:
        unit.project = project
        refusal = _refusal(unit)
        if refusal:
            refusals.append(refusal)
    if refusals:
        raise Refused(refusals, style)


@change
def change_project(room: Workroom, key: UUID, changes: Mapping[str, Any], seen: Mapping[str, Any]) -> Project:
    project = get_project(room, key)
    before = Measure(project.measure)
    measure = Measure(changes["measure"]) if changes.get("measure") in ("in", "mm") else before
    fields = apply_changes(project, project_readers(measure), changes, seen, measure)
    if measure is not before and not is_under_way(project):
        fields += _in_another_measure(project, before, measure, set(fields))
    if set(fields) & set(SEAM_FIELDS):
        _check(project.units.filter(deleted_at=None), project, Style(measure))
    _save(project, [*fields, "updated_at"] if fields else [])
    return get_project(room, key)


def _in_another_measure(project: Project, before: Measure, now: Measure, given: set[str]) -> list[str]:
    """What stood as is usual in the one measure becomes what is usual in the other; what was set otherwise stays."""
    changed = []
    for field in ("seam_allowance", "ruler_step", "reading_step"):
        if field not in given and getattr(project, field) == getattr(usual(before), field):
            setattr(project, field, getattr(usual(now), field))
            changed.append(field)
    quilt = getattr(project, "quilt", None)
    if quilt is not None:
        for field in ("binding_strip", "backing_over", "usable", "oversize"):
            if getattr(quilt, field) == getattr(usual(before), field):
                setattr(quilt, field, getattr(usual(now), field))
        quilt.save()
    return changed


@change
def change_unit(room: Workroom, key: UUID, changes: Mapping[str, Any], seen: Mapping[str, Any]) -> Project:
    unit = get_unit(room, key)
    style = style_of(unit.project)
    kind = unit.kind
    before = {f: getattr(unit, f) for f in _OF_BLOCKS}
    fields = apply_changes(unit, unit_readers(style.measure), changes, seen, style.measure)
    told = next((f for f, old in before.items() if getattr(unit, f) != old), "")
    if told:
        _refuse_of_blocks(unit, told)
    if unit.kind != kind:
        fields += _become(unit, set(fields))
    if "method" in fields and "cuts" not in fields:
        unit.cuts = Cuts()
        fields.append("cuts")
    _check_fabrics(unit)
    _check([unit], unit.project, style)
    _save(unit, fields)
    touch(unit.project)
    return get_project(room, unit.project_id)


def _become(unit: PlannedUnit, given: set[str]) -> list[str]:
    """Another kind: what belonged to the old one gives way to what is usual for the new one."""
    spec = kind_of(unit.kind).usual_spec(finished_of(unit))
    usual: dict[str, Any] = {
        "method": methods_of(unit.kind)[0].name,
        "height": None,
        "part_fabrics": list(spec.part_fabrics),
        "strip": spec.strip,
        "cuts": Cuts(),
        "mirrored": 0,
        **{f"corner_{n}": size for n, size in enumerate(spec.corners)},
    }
    ensure_fabrics(unit.project, spec.part_fabrics)
    changed = [f for f in usual if f not in given]
    for field in changed:
        setattr(unit, field, usual[field])
    return changed


def _check_fabrics(unit: PlannedUnit) -> None:
    have = set(unit.project.fabrics.values_list("role", flat=True))
    missing = sorted(set(unit.part_fabrics) - have)
    if missing or len(unit.part_fabrics) != len(kind_of(unit.kind).parts):
        raise Refused([UnknownChoice("Give each part of the unit one of the project's fabrics.", field="part_fabrics")])


@change
def change_fabric(room: Workroom, key: UUID, changes: Mapping[str, Any], seen: Mapping[str, Any]) -> Project:
    fabric = get_fabric(room, key)
    _save(fabric, apply_changes(fabric, fabric_readers(), changes, seen, Measure(fabric.project.measure)))
    touch(fabric.project)
    return get_project(room, fabric.project_id)
