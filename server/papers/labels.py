"""Labels for the piles: a letter to be seen across the table, what it is, how large, how many. 3 by 8 to a sheet."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from reportlab.lib.utils import simpleSplit
from reportlab.pdfbase.pdfmetrics import stringWidth

from piecing.cutting import WantedPiece
from piecing.lengths import Measure

from .sheet import MARGIN, PaperSheet, PaperStyle

__all__ = ["labels_pdf"]

_COLUMNS, _ROWS = 3, 8


def labels_pdf(
    project: str, piles: Sequence[WantedPiece], fabrics: Mapping[str, str], measure: Measure, page: str = "a4"
) -> bytes:
    sheet, style = PaperSheet(f"Pile labels: {project}", page), PaperStyle(measure)
    wide = sheet.width / _COLUMNS
    high = (sheet.high - 2 * MARGIN) / _ROWS
    for n, p in enumerate(piles):
        spot = n % (_COLUMNS * _ROWS)
        if n and spot == 0:
            sheet.feed()
        x = MARGIN + spot % _COLUMNS * wide
        y = sheet.high - MARGIN - (spot // _COLUMNS + 1) * high
        _label(sheet, p, fabrics.get(p.fabric, p.fabric.upper()), style, (x, y, wide, high))
    return sheet.finished()


def _label(
    sheet: PaperSheet, p: WantedPiece, fabric: str, style: PaperStyle, box: tuple[float, float, float, float]
) -> None:
    x, y, wide, high = box
    c = sheet.canvas
    c.setLineWidth(0.4)
    c.rect(x, y, wide, high, stroke=1, fill=0)
    c.setFont("VeraBd", 34)
    c.drawString(x + 8, y + high / 2 - 12, p.key)
    size = style.pretty(p.width) if p.width == p.height else f"{style.pretty(p.width)} x {style.pretty(p.height)}"
    left, room = x + 62, wide - 68
    said, points = f"{p.count} of {size}", 12.0
    while points > 6 and stringWidth(said, "VeraBd", points) > room:
        points -= 0.5
    c.setFont("VeraBd", points)
    c.drawString(left, y + high - 20, said)
    c.setFont("Vera", 9)
    for n, line in enumerate([*simpleSplit(fabric, "Vera", 9, room)[:1], *simpleSplit(p.name, "Vera", 9, room)[:2]]):
        c.drawString(left, y + high - 36 - n * 12, line)
