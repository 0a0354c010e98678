"""How a project begins: with a unit, a block or a quilt, and the fabrics named for it. Nothing else is in it."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Any
from uuid import UUID, uuid4

from api.problems import Refused
from api.readers import length_reader, whole_reader
from piecing.errors import PiecingError
from piecing.lengths import ZERO
from piecing.quilts.fitting import fitted_to_number, fitted_to_size
from projects.commands import add_unit, change_unit, create_project, name_fabrics
from projects.models import Project
from projects.selectors import get_project
from projects.translate import style_of
from workrooms.models import Workroom
from workrooms.once import change

from .commands import put_block
from .quilt_commands import change_quilt

__all__ = ["begin_project"]


@change
def begin_project(
    room: Workroom,
    key: UUID,
    name: str,
    fabrics: Iterable[str],
    *,
    unit: Mapping[str, Any] | None = None,
    block: Mapping[str, Any] | None = None,
    quilt: Mapping[str, Any] | None = None,
) -> Project:
    """A project with what it begins with, all of it or nothing. Asking twice with one key begins one.

    Raises ``Refused`` with the field of the form that cannot be.
    """
    if room.projects.filter(pk=key).exists():
        return get_project(room, key, deleted=True)
    project = create_project(room, key, name)
    name_fabrics(project, fabrics)
    if unit is not None:
        first = uuid4()
        add_unit(room, key, first, unit["kind"], None)
        change_unit(room, first, {"size_basis": "unit", "finished": unit["finished"], "count": unit["count"]}, {})
    if block is not None:
        columns, rows, count = _fitting_grid(project, block, quilt)
        changes = {"finished": block["finished"], "colourways": [{"count": count, "roles": {}}]}
        put_block(room, key, uuid4(), block["start"], changes, {})
        if quilt is not None:
            around = {k: v for k, v in quilt.items() if k in ("sash", "sash_fabric", "borders", "binding_fabric")}
            change_quilt(room, key, {**around, "columns": columns, "rows": rows, "begun": True}, {})
    return get_project(room, key)


def _fitting_grid(project: Project, block: Mapping[str, Any], quilt: Mapping[str, Any] | None) -> tuple[int, int, int]:
    """Columns, rows and number of blocks: by the number asked for, or by how large the quilt should be."""
    style = style_of(project)
    length = length_reader(style.measure)
    try:
        if quilt is None or not (quilt.get("wide") or quilt.get("high")):
            count = whole_reader(3_600, "The number of blocks")(block.get("count", 1))
            columns, rows = fitted_to_number(count) if quilt is not None else (count, 1)
            return columns, rows, count
        sash = length(quilt["sash"]) if quilt.get("sash") else ZERO
        rim = ZERO
        for border in quilt.get("borders", ()):
            rim = rim + length(border["width"])
        wide, high = (length(quilt.get(f) or quilt.get(o)) for f, o in (("wide", "high"), ("high", "wide")))
        columns, rows = fitted_to_size(wide, high, length(block["finished"]), sash, rim)
        return columns, rows, columns * rows
    except PiecingError as refusal:
        raise Refused([refusal.at(refusal.field or "count")], style) from None
