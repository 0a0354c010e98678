"""A project as JSON, out and in: format ``entretoile-project/1``. Import makes a new project and touches nothing else.

The schema is docs/formats/entretoile-project-1.schema.json; what comes in is checked against it, and then field by field
by the same readers as typed input.
"""

from __future__ import annotations

import json
from collections.abc import Callable, Container, Iterable
from functools import lru_cache
from pathlib import Path
from typing import Any
from uuid import UUID, uuid4

from django.conf import settings
from django.db import transaction
from jsonschema import Draft202012Validator

from api.problems import ApiError, Refused
from blocks.commands import put_block
from blocks.models import Block, Quilt
from blocks.quilt import quilt_of
from blocks.quilt_commands import change_quilt
from blocks.readers import quilt_readers
from blocks.scrap_commands import take_scraps
from blocks.selectors import blocks_of
from blocks.translate import find_in
from cutting.shelf import cloth_to_take
from cutting.stock_commands import put_stock
from cutting.taken_in import take_cutting
from cutting.translate import cutting_data, stock_of
from diagnosis.commands import put_lost, put_reading, take_saved
from diagnosis.earlier import KINDS as EARLIER
from diagnosis.earlier import of_block, of_unit
from diagnosis.models import SavedDiagnosis
from diagnosis.subjects import subject_of
from measuring.models import ReadingRow
from measuring.translate import reading_readers
from piecing.blocks.library import library_data
from piecing.errors import DayImpossible, PiecingError, ReadingMisplaced, RoleWithoutFabric
from piecing.lengths import Length, Measure
from progress.carry import bench_data, take_bench
from projects.commands import (
    add_unit,
    archive_project,
    change_fabric,
    change_project,
    change_unit,
    create_project,
    put_fabric,
)
from projects.models import PlannedUnit, Project
from projects.readers import unit_readers
from projects.renamed import borders_renamed, part_renamed, pattern_renamed
from projects.selectors import get_project
from setups.commands import day_reader
from workrooms.models import Workroom

__all__ = [
    "FORMAT",
    "ProjectRefused",
    "export_project",
    "import_project",
    "inner_first",
    "patterns_held",
    "plain",
    "schema",
]

FORMAT = "entretoile-project/1"
_SCHEMA = Path(settings.HOME) / "docs" / "formats" / "entretoile-project-1.schema.json"
_UNIT = tuple(f for f in unit_readers(Measure.INCHES) if f != "cuts")
_QUILT = tuple(f for f in quilt_readers(Measure.INCHES) if f not in ("borders", "top"))


class ProjectRefused(ApiError):
    """``values`` hold the path of what is wrong."""

    status = 422
    code = "project_refused"
    title = "This project cannot be taken in"


@lru_cache(maxsize=1)
def schema() -> dict[str, Any]:
    loaded: dict[str, Any] = json.loads(_SCHEMA.read_text("utf-8"))
    return loaded


def plain(value: Any) -> Any:
    """Lengths as exact inches with their mark, so that they mean the same in either measure."""
    return f'{value.rational}"' if isinstance(value, Length) else value


def export_project(project: Project) -> dict[str, Any]:
    """Everything of a project; blocks inside blocks are carried along under ``carried``."""
    blocks = blocks_of(project)
    return {
        "format": FORMAT,
        "name": project.name,
        "measure": project.measure,
        **{f: plain(getattr(project, f)) for f in ("seam_allowance", "stitch", "fold", "ruler_step", "reading_step")},
        "fabrics": [
            {f: getattr(row, f) for f in ("role", "name", "colour", "value", "direction", "swatch")}
            for row in project.fabrics.all()
        ],
        "units": [_unit(u) for u in project.units.all()],
        "blocks": [
            {
                "id": str(b.pk),
                "part": b.part,
                "pattern": b.pattern,
                "finished": plain(b.finished),
                "colourways": b.colourways,
                "order": b.order,
                "pressing": b.pressing,
                "sewn_open": b.sewn_open,
                "readings": [_reading(r) for r in b.readings.filter(deleted_at=None)],
                "saved": [_saved_data(k) for k in b.saved.filter(deleted_at=None)],
            }
            for b in blocks
        ],
        "carried": patterns_held(project.workroom, (b.pattern for b in blocks), {str(b.pk) for b in blocks}),
        "quilt": _quilt(project),
        "archived": project.archived_at is not None,
        "scraps": quilt_of(project).scraps,
        "cutting": cutting_data(project),
        "bench": bench_data(project),
        "stock": [
            {
                "id": str(s.pk),
                "fabric": s.fabric.role if s.fabric else "",
                "kind": s.kind,
                "across": plain(s.across),
                "along": plain(s.along),
                "across_most": plain(s.across_most),
                "count": s.count,
                "name": s.name,
                "other": s.other,
            }
            for s in stock_of(project)
        ],
    }


_READING = tuple(f for f in reading_readers(Measure.INCHES) if f != "value")


def _reading(row: ReadingRow) -> dict[str, Any]:
    """As it is taken down again; ``mark`` says what lay there, so that one that lost its place stays lost."""
    below = row.value is not None and row.value < Length.of(0)
    value = None if row.value is None else ("-" if below else "") + str(plain(abs(row.value)))
    return {**{f: plain(getattr(row, f)) for f in _READING}, "value": value, "mark": row.mark}


def _saved_data(row: SavedDiagnosis) -> dict[str, Any]:
    return {"said": row.said, "saved_at": row.saved_at.isoformat(), "turned_out": row.turned_out, "later": row.later}


def _unit(unit: Any) -> dict[str, Any]:
    fields = {f: plain(getattr(unit, f)) for f in _UNIT}
    fields["cuts"] = {name: plain(size) for name, size in unit.cuts.items()}
    fields["of_blocks"] = unit.of_blocks
    fields["spares_kept"] = unit.spares_kept
    fields["readings"] = [_reading(r) for r in unit.readings.filter(deleted_at=None)]
    fields["saved"] = [_saved_data(k) for k in unit.saved.filter(deleted_at=None)]
    return fields


def _quilt(project: Project) -> dict[str, Any]:
    quilt = quilt_of(project)
    borders = [{**b, "width": f'{b["width"]}"'} for b in quilt.borders]
    top = {place: {f: f'{size}"' for f, size in found.items()} for place, found in quilt.top.items()}
    return {**{f: plain(getattr(quilt, f)) for f in _QUILT}, "borders": borders, "top": top}


def patterns_held(room: Workroom, patterns: Iterable[dict[str, Any]], own: Container[str]) -> dict[str, Any]:
    """Patterns of blocks that others hold, deep down, and that neither come with the program nor are among ``own``."""
    find = find_in(room)
    found: dict[str, Any] = {}
    rest = list(patterns)
    while rest:
        for unit in rest.pop()["units"].values():
            key = unit.get("block")
            if key and key not in own and key not in found and library_data(key) is None:
                pattern = find(key)
                if pattern:
                    found[key] = dict(pattern)
                    rest.append(found[key])
    return found


def import_project(room: Workroom, data: Any, key: UUID | None = None) -> Project:
    """A new project from JSON, under a key of its own or this one. Raises ``ProjectRefused`` with the path of what is wrong; nothing is kept then."""
    if (
        isinstance(data, dict)
        and str(data.get("format", "")).startswith("entretoile-project/")
        and data["format"] != FORMAT
    ):
        raise ProjectRefused(
            f"This file is in the format {str(data['format'])[:40]}, and {FORMAT} is read here. A newer program wrote it; nothing was taken.",
            {"$.format": str(data["format"])[:40]},
        )
    wrong = next(
        iter(sorted(Draft202012Validator(schema()).iter_errors(data), key=lambda e: list(map(str, e.path)))), None
    )
    if wrong is not None:
        raise ProjectRefused(
            f"At {wrong.json_path}: {wrong.message[:200]}. Nothing was taken.", {wrong.json_path: wrong.message[:200]}
        )
    with transaction.atomic():
        new = key or uuid4()
        _take_part("$.name", lambda: create_project(room, new, data["name"]))
        project = get_project(room, new)
        for path, step in _steps(room, project, data):
            _take_part(path, step)
    return get_project(room, project.pk)


def _take_part(path: str, step: Callable[[], object]) -> None:
    """One part; what is refused is told with its path."""
    try:
        step()
    except Refused as refusal:
        said = refusal.errors[0].said.text(refusal.style)
    except PiecingError as refusal:
        said = str(refusal)
    else:
        return
    raise ProjectRefused(f"At {path}: {said} Nothing was taken.", {path: said})


def _steps(room: Workroom, project: Project, data: dict[str, Any]) -> Any:
    """What to do, one after another, each with the path it is about."""
    key = project.pk
    settings_: dict[str, Any] = {
        f: data[f] for f in ("measure", "seam_allowance", "stitch", "fold", "ruler_step", "reading_step") if f in data
    }
    yield "$", lambda: change_project(room, key, settings_, {})
    for n, f in enumerate(data["fabrics"]):
        yield f"$.fabrics[{n}]", lambda f=f: _fabric(room, project, f)
    renamed = {old: str(uuid4()) for old in (*(b["id"] for b in data["blocks"]), *data.get("carried", {}))}
    carried = [{"id": k, "pattern": p, "finished": '12"', "hidden": True} for k, p in data.get("carried", {}).items()]
    for n, b in enumerate(inner_first([*carried, *data["blocks"]])):
        yield f"$.blocks[{n}]", lambda b=b: _block(room, project, b, renamed)
    for n, u in enumerate(data["units"]):
        yield f"$.units[{n}]", lambda u=u: _add_unit(room, project, u, renamed)
    yield "$.quilt", lambda: _set_quilt(room, project, data, renamed)
    # Cloth that another project here has reserved stays with that one.
    free = cloth_to_take(room, [s["id"] for s in data.get("stock", []) if "id" in s])
    renewed = {name: str(uuid4()) for name in free}
    for n, s in enumerate(data.get("stock", [])):
        if "id" in s and s["id"] not in free:
            continue
        changes = {k: v for k, v in s.items() if k not in ("fabric", "id")}
        cloth = UUID(renewed[s["id"]]) if "id" in s else uuid4()
        yield (
            f"$.stock[{n}]",
            lambda s=s, k=cloth, c=changes: put_stock(room, _role_key(project, s["fabric"]), k, c, {}),
        )
    yield "$.scraps", lambda: take_scraps(room, key, data.get("scraps") or {})
    yield "$.cutting", lambda: take_cutting(project, data.get("cutting"), renewed)
    yield "$.bench", lambda: take_bench(project, data.get("bench"), [UUID(renamed[b["id"]]) for b in data["blocks"]])
    if data.get("archived"):
        yield "$.archived", lambda: archive_project(room, key, True)


def _set_quilt(room: Workroom, project: Project, data: dict[str, Any], renamed: dict[str, str]) -> None:
    """A file says which units follow its blocks; one from before they did leaves that to the first change."""
    quilt = dict(data.get("quilt", {}))
    quilt["borders"] = borders_renamed(quilt.get("borders", []), renamed)
    change_quilt(room, project.pk, quilt, {}, follow=False)
    Quilt.objects.filter(project=project).update(followed=any("of_blocks" in u for u in data["units"]))


def _role_key(project: Project, role: str) -> UUID:
    found = project.fabrics.filter(role=role).first()
    if found is None:
        raise RoleWithoutFabric("No fabric has the letter {role}.", role=role.upper())
    return found.pk


def inner_first(blocks: list[dict[str, Any]]) -> list[dict[str, Any]]:
    """Blocks in an order in which each one's smaller blocks come before it; rings are left for the core to refuse."""
    left, found = list(blocks), []
    done: set[str] = set()
    keys = {b["id"] for b in blocks}
    while left:
        ready = [
            b for b in left if all(u.get("block") not in keys - done for u in b["pattern"]["units"].values())
        ] or left[:1]
        for b in ready:
            left.remove(b)
            done.add(b["id"])
            found.append(b)
    return found


def _fabric(room: Workroom, project: Project, f: dict[str, Any]) -> None:
    known = project.fabrics.filter(role=f["role"]).first()
    key: UUID = known.pk if known else uuid4()
    if known is None:
        put_fabric(room, project.pk, key, {"role": f["role"]})
    # ``scale`` stands in files of an earlier version; nothing reads it.
    change_fabric(room, key, {k: v for k, v in f.items() if k not in ("role", "scale")}, {})


def _block(room: Workroom, project: Project, b: dict[str, Any], renamed: dict[str, str]) -> None:
    changes = {"pattern": pattern_renamed(b["pattern"], renamed), "finished": b["finished"]}
    changes |= {k: b[k] for k in ("colourways", "order", "pressing", "sewn_open") if b.get(k)}
    part = part_renamed(b.get("part", ""), renamed)
    put_block(room, project.pk, UUID(renamed[b["id"]]), "", changes, {}, follow=False, part=part)
    readings = b.get("readings", [])
    if b.get("measured"):
        model = subject_of(room, "blocks", UUID(renamed[b["id"]])).scene.model
        readings = [*readings, *(of_block(m, model) for m in b["measured"])]
    for r in readings:
        _take_down(room, "blocks", UUID(renamed[b["id"]]), r)
    saved = [*b.get("saved", []), *b.get("kept", [])]
    take_saved(saved, block=Block.objects.get(pk=renamed[b["id"]]))
    if b.get("hidden"):
        Block.objects.filter(pk=renamed[b["id"]]).update(deleted_at=project.created_at)


def _add_unit(room: Workroom, project: Project, u: dict[str, Any], renamed: dict[str, str]) -> None:
    key = uuid4()
    add_unit(room, project.pk, key, u["kind"], None)
    # ``ring`` is the older name of the parts' fabrics.
    fields = {"part_fabrics" if k == "ring" else k: v for k, v in u.items()}
    change_unit(
        room,
        key,
        {k: v for k, v in fields.items() if k not in ("readings", "saved", "kind", "of_blocks", "spares_kept")},
        {},
    )
    of_blocks = {renamed[k]: v for k, v in u.get("of_blocks", {}).items() if k in renamed}
    PlannedUnit.objects.filter(pk=key).update(of_blocks=of_blocks, spares_kept=u.get("spares_kept", 0))
    for r in u.get("readings", []):
        _take_down(room, "units", key, of_unit(r) if r["kind"] in EARLIER or "row_units" in r else r)
    take_saved(u.get("saved", []), unit=project.units.get(pk=key))


def _take_down(room: Workroom, subject: str, key: UUID, reading: dict[str, Any]) -> None:
    """One whose place is no longer there comes in as it was, to be shown as such; what else is refused is told."""
    typed = {k: v for k, v in reading.items() if v is not None and k != "mark"}
    try:
        day_reader()(typed.get("day") or "2026-01-01")
    except DayImpossible:
        # Any figures were taken for a day once; such a reading is none the worse for having none.
        del typed["day"]
    found, new = subject_of(room, subject, key), uuid4()
    try:
        put_reading(found, new, typed, {})
    except Refused as refusal:
        if not reading.get("mark") or not isinstance(refusal.errors[0], ReadingMisplaced):
            raise
        put_lost(found, new, typed)
    if reading.get("mark"):
        ReadingRow.objects.filter(pk=new).update(mark=reading["mark"])
