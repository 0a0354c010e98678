"""The cutting plan as PDF: each cloth to scale with its letters, then its strips in order."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from piecing.lengths import Measure

from .sheet import MARGIN, PaperSheet, PaperStyle

__all__ = ["plan_pdf"]


def plan_pdf(
    project: str,
    cloths: Sequence[Any],
    fabrics: Mapping[str, str],
    colours: Mapping[str, str],
    measure: Measure,
    page: str = "a4",
) -> bytes:
    """``cloths`` as the screen shows them (``cutting.selectors.ClothView``)."""
    sheet, style = PaperSheet(f"Cutting plan: {project}", page), PaperStyle(measure)
    for n, cloth in enumerate(cloths):
        if n:
            sheet.feed()
        name = fabrics.get(cloth.fabric, cloth.fabric.upper())
        sheet.text(project, 11)
        sheet.text(f"{name}, {cloth.name}", 18, bold=True)
        sheet.text(
            f"{style.pretty(cloth.across)} x {style.pretty(cloth.along)}, {style.pretty(cloth.used)} of it cut", 11
        )
        sheet.y -= 6
        _, _, wide, high = cloth.picture.window
        beside = 78.0
        width = min(sheet.width - beside, 420.0 * wide / high)
        tall = sheet.drawing(cloth.picture, MARGIN + beside, sheet.y, width, colours)
        sheet.canvas.setFont("Vera", 8)
        for s in cloth.strips:
            sheet.canvas.drawString(MARGIN, sheet.y - s.top * tall - 3, f"{s.number}: {style.pretty(s.depth)}")
        sheet.canvas.setFont("VeraBd", 9)
        for letter, x, y in cloth.letters:
            px, py = MARGIN + beside + x * width, sheet.y - y * tall - 3
            sheet.canvas.setFillGray(1)
            sheet.canvas.rect(px - 5, py - 2, 10, 11, stroke=0, fill=1)
            sheet.canvas.setFillGray(0)
            sheet.canvas.drawCentredString(px, py, letter)
        sheet.y -= tall + 10
        if cloth.first:
            sheet.text(cloth.first.text(style), 10)
        for s in cloth.strips:
            sheet.tick_line(f"{s.number}. {s.said.text(style)} {s.ruler.text(style)}")
    if not cloths:
        sheet.text("No cutting plan has been made yet.", 14)
    return sheet.to_pdf()
