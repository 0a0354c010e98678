"""What is done at the bench as data, out and in with its project: units and blocks are known by their place in the lists."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any
from uuid import UUID

from blocks.selectors import blocks_of
from piecing.errors import UnknownChoice
from projects.models import PlannedUnit, Project

from .models import Done, Handling, Lot
from .subject import QUILT, block_subject, unit_subject

__all__ = ["bench_data", "take_bench"]

_FLAGS = ("sewn", "pressed", "joined")


def bench_data(project: Project) -> dict[str, Any]:
    """Choices, lots with what is done of them, and units trimmed and spoiled. What was taken back stays behind."""
    units = list(project.units.filter(deleted_at=None))
    names = {unit_subject(u.pk): {"unit": n} for n, u in enumerate(units)}
    names |= {block_subject(b.pk): {"block": n} for n, b in enumerate(blocks_of(project))}
    names[QUILT] = {}
    lots = project.lots.prefetch_related("done")
    return {
        "handling": [
            {**names[h.subject], "marking": h.marking, "lot_goes": h.lot_goes}
            for h in project.handlings.all()
            if h.subject in names
        ],
        "lots": [
            {
                **names[lot.subject],
                "number": lot.number,
                "goes": lot.goes,
                "units": lot.units,
                "made_as": lot.made_as,
                **{f: getattr(lot, f) for f in _FLAGS},
                "done": [[d.stage, d.step] for d in lot.done.all() if not d.undone],
            }
            for lot in lots
            if lot.subject in names
        ],
        "counted": [[u.trimmed, u.spoiled] for u in units],
    }


def take_bench(project: Project, data: dict[str, Any] | None, blocks: Sequence[UUID]) -> None:
    """Takes it in; ``blocks`` are the keys that the blocks of the file have now, in the file's order."""
    if not data:
        return
    units = list(project.units.filter(deleted_at=None))
    _check(data, len(units), len(blocks))
    for held in data.get("handling", []):
        subject = _subject(held, units, blocks)
        Handling.objects.create(
            subject=subject, project=project, marking=held["marking"], lot_goes=held.get("lot_goes")
        )
    for held in data.get("lots", []):
        fields = {f: held[f] for f in ("number", "goes", "units", *_FLAGS)}
        if "unit" in held:
            fields["unit"] = units[held["unit"]]
        elif "block" in held:
            fields["block_id"] = blocks[held["block"]]
        subject = _subject(held, units, blocks)
        lot = Lot.objects.create(project=project, subject=subject, made_as=held.get("made_as", {}), **fields)
        Done.objects.bulk_create(Done(project=project, lot=lot, stage=stage, step=step) for stage, step in held["done"])
    for unit, (trimmed, spoiled) in zip(units, data.get("counted", []), strict=False):
        PlannedUnit.objects.filter(pk=unit.pk).update(trimmed=trimmed, spoiled=spoiled)


def _check(data: dict[str, Any], units: int, blocks: int) -> None:
    """Raises ``UnknownChoice`` for a unit or block that the file does not hold, and for a lot that it holds twice."""
    seen = set()
    for held in (*data.get("handling", []), *data.get("lots", [])):
        if held.get("unit", -1) >= units or held.get("block", -1) >= blocks:
            raise UnknownChoice("A lot belongs to a unit or block that this file does not hold.")
        name = (held.get("unit"), held.get("block"), held.get("number"))
        if name in seen:
            raise UnknownChoice("Two lots of one unit or block have the same number.")
        seen.add(name)


def _subject(held: dict[str, Any], units: Sequence[PlannedUnit], blocks: Sequence[UUID]) -> str:
    if "unit" in held:
        return unit_subject(units[held["unit"]].pk)
    return block_subject(blocks[held["block"]]) if "block" in held else QUILT
