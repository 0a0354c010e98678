"""Readings as they were written down before places had names: indices and keys of the model of that day, made into names.

Used by the migration and for project files that earlier versions wrote.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from typing import Any

from piecing.diagnosis import BlockModel

__all__ = ["KINDS", "of_block", "of_unit"]

KINDS = {
    "unit_width": "width",
    "unit_height": "height",
    "raw_size": "raw_width",
    "row_length": "row",
    "stitch_distance": "stitch",
}
"""Kinds of readings of a unit, by the names that they had."""


def of_unit(old: Mapping[str, Any]) -> dict[str, Any]:
    """A reading of a kind of unit: kind, value, row_units, whole, note."""
    kind = KINDS.get(str(old["kind"]), str(old["kind"]))
    made = {k: old.get(k) for k in ("value", "whole", "note")}
    return {**made, "kind": kind, "count": (old.get("row_units") or 0) if kind == "row" else 0}


def of_block(old: Mapping[str, Any], model: BlockModel | None) -> dict[str, Any]:
    """A reading of a block. Where its place is not found, it names one that no block has: it is kept, shown, and not used."""
    kept = ("kind", "value", "whole", "corner", "spot", "day", "confirmed", "note")
    made: dict[str, Any] = {k: old[k] for k in kept if k in old}
    batch, cell, seam = (int(old.get(k, -1)) for k in ("batch", "cell", "seam"))
    feature = str(old.get("feature") or "")
    if model is None:
        return {**made, "mark": "?"}
    places = model.places
    if 0 <= batch < len(places.batches):
        made["batch"] = places.batches[batch].key
    if cell >= 0:
        made["at_unit"] = places.cells[cell].key if cell < len(places.cells) else f"unit {cell + 1}"[:16]
    if seam >= 0:
        made["seam"] = places.seams[seam].name if seam < len(places.seams) else f"seam {seam + 1}"
    if feature:
        made["feature"] = _feature(feature, model)
    return made


def _feature(key: str, model: BlockModel) -> str:
    kind, _, rest = key.partition(":")
    where, _, last = rest.rpartition(":")
    if kind in ("row", "column") and re.fullmatch("[0-9]{1,4}", where):
        return f"{kind} {int(where) + 1}, {last}"
    unit = next((c.key for c in model.places.cells if c.name == where), None)
    if kind == "edge_tip" and unit:
        return f"tip {unit} {last}"
    if kind == "corner_tip" and unit:
        return f"diagonal {unit} {last}"
    if kind == "crossing":
        return f"crossing {last} of {where}"
    return key[:160]
