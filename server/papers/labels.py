"""Labels for piles and lots: a sign to be seen across the table, what it is, how large, how many. 3 by 8 to a sheet."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from reportlab.lib.utils import simpleSplit
from reportlab.pdfbase.pdfmetrics import stringWidth

from piecing.cutting import WantedPiece
from piecing.lengths import Measure

from .sheet import MARGIN, PaperSheet, PaperStyle

__all__ = ["Label", "labels_pdf", "pile_label"]

_COLUMNS, _ROWS = 3, 8


@dataclass(frozen=True, slots=True)
class Label:
    """What a pile or a lot is known by from across the table, how much of what it is, and two lines on it."""

    sign: str
    said: str
    lines: tuple[str, ...]


def pile_label(p: WantedPiece, fabric: str, measure: Measure) -> Label:
    style = PaperStyle(measure)
    size = style.pretty(p.width) if p.width == p.height else f"{style.pretty(p.width)} x {style.pretty(p.height)}"
    return Label(p.key, f"{p.count} of {size}", (fabric, p.name))


def labels_pdf(project: str, labels: Sequence[Label], page: str = "a4") -> bytes:
    sheet = PaperSheet(f"Labels: {project}", page)
    wide = sheet.width / _COLUMNS
    high = (sheet.high - 2 * MARGIN) / _ROWS
    for n, label in enumerate(labels):
        spot = n % (_COLUMNS * _ROWS)
        if n and spot == 0:
            sheet.feed()
        x = MARGIN + spot % _COLUMNS * wide
        y = sheet.high - MARGIN - (spot // _COLUMNS + 1) * high
        _label(sheet, label, (x, y, wide, high))
    return sheet.to_pdf()


def _label(sheet: PaperSheet, label: Label, box: tuple[float, float, float, float]) -> None:
    x, y, wide, high = box
    c = sheet.canvas
    c.setLineWidth(0.4)
    c.rect(x, y, wide, high, stroke=1, fill=0)
    c.setFont("VeraBd", 34)
    c.drawString(x + 8, y + high / 2 - 12, label.sign)
    left, room = x + 62, wide - 68
    points = 12.0
    while points > 6 and stringWidth(label.said, "VeraBd", points) > room:
        points -= 0.5
    c.setFont("VeraBd", points)
    c.drawString(left, y + high - 20, label.said)
    c.setFont("Vera", 9)
    first, *rest = label.lines
    told = [
        *simpleSplit(first, "Vera", 9, room)[:1],
        *(part for line in rest for part in simpleSplit(line, "Vera", 9, room)[:2]),
    ]
    for n, line in enumerate(told):
        c.drawString(left, y + high - 36 - n * 12, line)
