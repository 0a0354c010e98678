"""A project as JSON, out and in: format ``entretoile-project/1``. Import makes a new project and touches nothing else.

The schema is docs/formats/entretoile-project-1.schema.json; what comes in is checked against it, and then field by field
by the same readers as typed input.
"""

from __future__ import annotations

import json
from collections.abc import Callable
from functools import lru_cache
from pathlib import Path
from typing import Any
from uuid import UUID, uuid4

from django.conf import settings
from django.db import transaction
from jsonschema import Draft202012Validator

from blocks.commands import change_quilt, put_block
from blocks.models import Block
from blocks.selectors import blocks_of, quilt_of
from blocks.translate import find_in
from common.problems import Answer, Refused
from cutting.commands import put_stock
from cutting.translate import stock_of
from piecing.blocks.library import library_data
from piecing.errors import PiecingError, RoleWithoutFabric
from piecing.lengths import Length
from projects.commands import add_unit, change_fabric, change_project, change_unit, create_project, put_fabric
from projects.models import Project
from projects.selectors import get_project
from readings.commands import put_reading
from readings.selectors import rows_of
from sewn.commands import put_measured, take_kept
from sewn.models import Measured
from workrooms.models import Workroom

__all__ = ["FORMAT", "ProjectRefused", "exported", "imported", "schema"]

FORMAT = "entretoile-project/1"
_SCHEMA = Path(settings.HOME) / "docs" / "formats" / "entretoile-project-1.schema.json"
_UNIT = (
    "kind",
    "method",
    "size_basis",
    "finished",
    "height",
    "block_finished",
    "units_across",
    "ring",
    "count",
    "mirrored",
    "school",
    "own_margin",
    "strip",
)
_CORNERS = tuple(f"corner_{n}" for n in range(4))
_QUILT = (
    *("columns", "rows", "setting", "spread", "every_second", "sash", "sash_round", "cornerstones", "sash_fabric"),
    *("cornerstone_fabric", "setting_fabric", "binding_strip", "binding_fabric", "backing_fabric", "backing_over"),
    *("usable", "oversize", "makings", "spare_percent", "spare_number"),
)


class ProjectRefused(Answer):
    """``values`` hold the path of what is wrong."""

    status = 422
    code = "project_refused"
    title = "This project cannot be taken in"


@lru_cache(maxsize=1)
def schema() -> dict[str, Any]:
    loaded: dict[str, Any] = json.loads(_SCHEMA.read_text("utf-8"))
    return loaded


def _plain(value: Any) -> Any:
    """Lengths as exact inches with their mark, so that they mean the same in either measure."""
    return f'{value.rational}"' if isinstance(value, Length) else value


def exported(project: Project) -> dict[str, Any]:
    """Everything of a project; blocks inside blocks are carried along under ``carried``."""
    blocks = blocks_of(project)
    return {
        "format": FORMAT,
        "name": project.name,
        "measure": project.measure,
        **{f: _plain(getattr(project, f)) for f in ("seam_allowance", "stitch", "fold", "ruler_step", "reading_step")},
        "fabrics": [
            {f: getattr(row, f) for f in ("role", "name", "colour", "value", "direction", "scale", "swatch")}
            for row in project.fabrics.all()
        ],
        "units": [_unit(u) for u in project.units.all()],
        "blocks": [
            {
                "id": str(b.pk),
                "pattern": b.pattern,
                "finished": _plain(b.finished),
                "colourways": b.colourways,
                "order": b.order,
                "pressing": b.pressing,
                "measured": [_measured(m) for m in b.measured.filter(deleted_at=None)],
                "kept": [
                    {"said": k.said, "kept_at": k.kept_at.isoformat(), "turned_out": k.turned_out, "later": k.later}
                    for k in b.kept.filter(deleted_at=None)
                ],
            }
            for b in blocks
        ],
        "carried": _carried(project, blocks),
        "quilt": _quilt(project),
        "stock": [
            {
                "fabric": s.fabric.role,
                "kind": s.kind,
                "across": _plain(s.across),
                "along": _plain(s.along),
                "count": s.count,
                "name": s.name,
            }
            for s in stock_of(project)
        ],
    }


def _measured(row: Measured) -> dict[str, Any]:
    fields = ("kind", "whole", "batch", "cell", "corner", "seam", "spot", "feature", "day", "confirmed", "note")
    below = row.value is not None and row.value < Length.of(0)
    value = None if row.value is None else ("-" if below else "") + str(_plain(abs(row.value)))
    return {**{f: _plain(getattr(row, f)) for f in fields}, "value": value}


def _unit(unit: Any) -> dict[str, Any]:
    fields = {f: _plain(getattr(unit, f)) for f in (*_UNIT, *_CORNERS)}
    fields["cuts"] = {name: _plain(size) for name, size in unit.cuts.items()}
    fields["readings"] = [
        {"kind": r.kind, "value": _plain(r.value), "row_units": r.row_units, "whole": _plain(r.whole), "note": r.note}
        for r in rows_of(unit)
    ]
    return fields


def _quilt(project: Project) -> dict[str, Any]:
    quilt = quilt_of(project)
    borders = [{**b, "width": f'{b["width"]}"'} for b in quilt.borders]
    return {**{f: _plain(getattr(quilt, f)) for f in _QUILT}, "borders": borders}


def _carried(project: Project, blocks: list[Block]) -> dict[str, Any]:
    """Patterns of blocks that others hold and that are neither of the library nor of this project."""
    find, own = find_in(project.workroom), {str(b.pk) for b in blocks}
    found: dict[str, Any] = {}
    rest = [b.pattern for b in blocks]
    while rest:
        for unit in rest.pop()["units"].values():
            key = unit.get("block")
            if key and key not in own and key not in found and library_data(key) is None:
                pattern = find(key)
                if pattern:
                    found[key] = dict(pattern)
                    rest.append(found[key])
    return found


def imported(room: Workroom, data: Any) -> Project:
    """A new project from JSON. Raises ``ProjectRefused`` with the path of what is wrong; nothing is kept then."""
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
        project = create_project(room, uuid4(), data["name"])
        for path, step in _steps(room, project, data):
            _taken(path, step)
    return get_project(room, project.pk)


def _taken(path: str, step: Callable[[], object]) -> None:
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
    key, first = project.pk, project.units.get()
    settings_: dict[str, Any] = {
        f: data[f] for f in ("measure", "seam_allowance", "stitch", "fold", "ruler_step", "reading_step") if f in data
    }
    yield "$", lambda: change_project(room, key, settings_, {})
    for n, f in enumerate(data["fabrics"]):
        yield f"$.fabrics[{n}]", lambda f=f: _fabric(room, project, f)
    renamed = {old: str(uuid4()) for old in (*(b["id"] for b in data["blocks"]), *data.get("carried", {}))}
    carried = [{"id": k, "pattern": p, "finished": '12"', "hidden": True} for k, p in data.get("carried", {}).items()]
    for n, b in enumerate(_inner_first([*carried, *data["blocks"]])):
        yield f"$.blocks[{n}]", lambda b=b: _block(room, project, b, renamed)
    for n, u in enumerate(data["units"]):
        yield f"$.units[{n}]", lambda u=u: _add_unit(room, project, u)
    yield "$.units", first.delete
    yield "$.quilt", lambda: change_quilt(room, key, data.get("quilt", {}), {})
    for n, s in enumerate(data.get("stock", [])):
        changes = {k: v for k, v in s.items() if k != "fabric"}
        yield f"$.stock[{n}]", lambda s=s, c=changes: put_stock(room, _role_key(project, s["fabric"]), uuid4(), c, {})


def _role_key(project: Project, role: str) -> UUID:
    found = project.fabrics.filter(role=role).first()
    if found is None:
        raise RoleWithoutFabric("No fabric has the letter {role}.", role=role.upper())
    return found.pk


def _inner_first(blocks: list[dict[str, Any]]) -> list[dict[str, Any]]:
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
    change_fabric(room, key, {k: v for k, v in f.items() if k != "role"}, {})


def _block(room: Workroom, project: Project, b: dict[str, Any], renamed: dict[str, str]) -> None:
    units = {
        n: {**u, "block": renamed.get(u["block"], u["block"])} if "block" in u else u
        for n, u in b["pattern"]["units"].items()
    }
    changes = {"pattern": {**b["pattern"], "units": units}, "finished": b["finished"]}
    changes |= {k: b[k] for k in ("colourways", "order", "pressing") if b.get(k)}
    put_block(room, project.pk, UUID(renamed[b["id"]]), "", changes, {})
    for m in b.get("measured", []):
        put_measured(room, UUID(renamed[b["id"]]), uuid4(), {k: v for k, v in m.items() if v is not None}, {})
    take_kept(UUID(renamed[b["id"]]), b.get("kept", []))
    if b.get("hidden"):
        Block.objects.filter(pk=renamed[b["id"]]).update(deleted_at=project.created_at)


def _add_unit(room: Workroom, project: Project, u: dict[str, Any]) -> None:
    key = uuid4()
    add_unit(room, project.pk, key, u["kind"], None)
    change_unit(room, key, {k: v for k, v in u.items() if k not in ("readings", "kind")}, {})
    for r in u.get("readings", []):
        put_reading(room, key, uuid4(), {k: v for k, v in r.items() if v is not None}, {})
