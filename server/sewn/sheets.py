"""Readings of a block as CSV, both ways. The good lines go in, the broken ones are named by line and reason."""

from __future__ import annotations

from collections.abc import Iterable
from uuid import uuid4

from django.db import transaction
from django.db.models import Max

from blocks.models import Block
from common.sheets import Imported, RefusedLine, lines_of, safe, unsafe, written
from piecing.errors import CountOutOfRange, PiecingError
from piecing.lengths import Length, Style
from piecing.diagnosis.readings import PLAIN, ReadingKind
from projects.translate import style_of

from .models import Measured
from .selectors import Scene, model_for
from .translate import reading_of, reading_readers

__all__ = ["COLUMNS", "MOST", "as_csv", "import_csv"]

COLUMNS = ("kind", "value", "whole", "batch", "cell", "corner", "seam", "spot", "feature", "day", "note")
MOST = 5_000


def as_csv(rows: Iterable[Measured], style: Style) -> str:
    def signed(value: Length | None) -> str:
        if value is None:
            return ""
        # A minus would be taken for a formula: the sign stands in words.
        return f"{style.text(abs(value))}{' below' if value < Length.of(0) else ''}"

    cells = (
        [
            r.kind,
            signed(r.value),
            signed(r.whole),
            *("" if n < 0 else n for n in (r.batch, r.cell)),
            r.corner,
            "" if r.seam < 0 else r.seam,
            r.spot,
            safe(r.feature),
            r.day,
            safe(r.note),
        ]
        for r in rows
    )
    return written(COLUMNS, cells)


@transaction.atomic
def import_csv(block: Block, text: str) -> Imported:
    """Take the lines that can be read and have a place in this block; nothing already kept is touched.

    Raises ``SheetRefused`` for more lines than a sheet may have.
    """
    style, scene = style_of(block.project), model_for(block)
    there = block.measured.filter(deleted_at=None).count()
    order = (block.measured.aggregate(last=Max("order"))["last"] or 0) + 1
    good: list[Measured] = []
    refused: list[RefusedLine] = []
    for number, line, cells in lines_of(text, COLUMNS, "value"):
        try:
            if there + len(good) >= MOST:
                raise CountOutOfRange("A block holds {most} readings at most.", most=MOST)
            good.append(_row(block, scene, cells, style, order + len(good)))
        except PiecingError as refusal:
            refused.append(RefusedLine(number, line[:120], refusal.said.text(style)))
    Measured.objects.bulk_create(good)
    return Imported(len(good), tuple(refused))


def _row(block: Block, scene: Scene, cells: dict[str, str], style: Style, order: int) -> Measured:
    typed = {**cells, "feature": unsafe(cells.get("feature", "")), "note": unsafe(cells.get("note", ""))}
    for field in ("value", "whole"):
        text = typed.get(field, "").strip()
        typed[field] = f"-{text[:-6].strip()}" if text.endswith(" below") else text
    row = Measured(pk=uuid4(), block=block, order=order)
    for field, read in reading_readers(style.measure).items():
        if field in COLUMNS:
            try:
                setattr(row, field, read(typed.get(field, "")))
            except PiecingError as refusal:
                raise refusal.at(field) from None
    if ReadingKind(row.kind) in PLAIN:
        row.value = None
    scene.check(reading_of(row))
    return row
