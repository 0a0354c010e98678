"""The scraps laid out, as PDF: a map of the quilt with a number for each fabric, and block by block which unit is which."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from blocks.scraps import ScrapBox
from piecing.geometry.drawing import Drawing

from .sheet import MARGIN, PaperSheet

__all__ = ["scraps_pdf"]

_LARGEST = 420.0
"""Points that the picture is high at most."""


def scraps_pdf(
    project: str,
    picture: Drawing | None,
    laid: Sequence[tuple[ScrapBox, str]],
    fabrics: Mapping[str, str],
    colours: Mapping[str, str],
    page: str = "a4",
) -> bytes:
    """``laid`` are the places in reading order, each with the role of its fabric, or the two roles of its pair."""
    sheet = PaperSheet(f"Scraps: {project}", page)
    sheet.text(project, 11)
    sheet.text("Map of the scraps", 18, bold=True)
    sheet.y -= 8
    if picture is None or not laid:
        sheet.text("No scraps are laid out yet.", 14)
        return sheet.to_pdf()
    used = sorted({role for _, role in laid})
    number = {role: str(n) for n, role in enumerate(used, 1)}
    _, _, wide, high = picture.window
    width = min(sheet.width, _LARGEST * wide / high)
    tall = sheet.drawing(picture, MARGIN, sheet.y, width, colours)
    _numbers(sheet, laid, number, width, tall)
    sheet.y -= tall + 10
    for role in used:
        here = [box.spot for box, r in laid if r == role]
        count, noun = (len(set(here)), "block") if len(role) > 1 else (len(here), "unit")
        name = " with ".join(fabrics.get(f, f.upper()) for f in role)
        sheet.tick_line(f"{number[role]}: {name}, {count} {noun if count == 1 else f'{noun}s'}")
    sheet.line_across()
    for block, units in _by_block(laid).items():
        alike = {role for _, role in units}
        told = f"all {number[units[0][1]]}" if len(alike) == 1 else ", ".join(f"{u}: {number[r]}" for u, r in units)
        sheet.tick_line(f"{block.capitalize()}: {told}", 9)
    return sheet.to_pdf()


def _numbers(
    sheet: PaperSheet, laid: Sequence[tuple[ScrapBox, str]], number: Mapping[str, str], width: float, tall: float
) -> None:
    size = max(4.0, min(9.0, 0.5 * min(min(box.box[2] * width, box.box[3] * tall) for box, _ in laid)))
    sheet.canvas.setFont("VeraBd", size)
    for box, role in laid:
        x, y, w, h = box.box
        px, py = MARGIN + (x + w / 2) * width, sheet.y - (y + h / 2) * tall - size / 3
        wide = size * 0.75 * len(number[role])
        sheet.canvas.setFillGray(1)
        sheet.canvas.rect(px - wide / 2 - 1, py - 1.5, wide + 2, size + 1, stroke=0, fill=1)
        sheet.canvas.setFillGray(0)
        sheet.canvas.drawCentredString(px, py, number[role])


def _by_block(laid: Sequence[tuple[ScrapBox, str]]) -> dict[str, list[tuple[str, str]]]:
    found: dict[str, list[tuple[str, str]]] = {}
    for box, role in laid:
        block, _, unit = box.name.partition(", ")
        found.setdefault(block, []).append((unit, role))
    return found
