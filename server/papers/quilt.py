"""The quilt on paper: on one page with its sizes and fabrics, or at a scale, tiled over as many pages as it takes."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from reportlab.lib.colors import HexColor

from piecing.errors import PaperImpossible
from piecing.geometry.drawing import Drawing
from piecing.lengths import Measure
from piecing.messages import Message
from piecing.quilts.sizes import QuiltSizes

from .sheet import INCH, MARGIN, PaperSheet, PaperStyle, check_squares
from .template import OVERLAP, tiles

__all__ = ["quilt_pdf"]

_LARGEST = 470.0
"""Points that the picture is high at most on the one page."""
_MOST_TILES = 60
_SWATCH = 12.0


def quilt_pdf(
    project: str,
    picture: Drawing,
    sizes: QuiltSizes,
    fabrics: Mapping[str, str],
    colours: Mapping[str, str],
    measure: Measure,
    page: str = "a4",
    scale: int = 0,
) -> bytes:
    """On one page, or one to ``scale``. Raises ``PaperImpossible`` for a scale that takes more than sixty pages."""
    sheet, style = PaperSheet(f"Quilt: {project}", page), PaperStyle(measure)
    size = Message("Finishes {w} by {h}.", w=sizes.width, h=sizes.height).text(style)
    sheet.text(project, 18, bold=True)
    if scale:
        _draw_tiles(sheet, picture, f"{size} Drawn one to {scale}.", colours, scale)
        return sheet.to_pdf()
    sheet.text(size, 11)
    _, _, wide, high = picture.window
    width = min(sheet.width, _LARGEST * wide / high)
    sheet.y -= 6 + sheet.drawing(picture, MARGIN, sheet.y - 6, width, colours) + 12
    _legend(sheet, picture, fabrics, colours)
    for note in sizes.notes:
        sheet.text(note.text(style), 10)
    return sheet.to_pdf()


def _legend(sheet: PaperSheet, picture: Drawing, fabrics: Mapping[str, str], colours: Mapping[str, str]) -> None:
    """Which fabric is which colour, those that show."""
    shown: Sequence[str] = sorted({m.fabric for m in picture.all_marks if m.fabric})
    for role in shown:
        sheet.room(_SWATCH + 6)
        sheet.canvas.setFillColor(HexColor(colours.get(role, "#ffffff")))
        sheet.canvas.rect(MARGIN, sheet.y - _SWATCH - 3, _SWATCH, _SWATCH, stroke=1, fill=1)
        sheet.canvas.setFillGray(0)
        sheet.text(fabrics.get(role, role.upper()), 10, x=_SWATCH + 8)


def _draw_tiles(sheet: PaperSheet, picture: Drawing, said: str, colours: Mapping[str, str], scale: int) -> None:
    _, _, wide, high = picture.window
    wide, high = wide / scale * INCH, high / scale * INCH
    across, down = sheet.width, sheet.high - 2 * MARGIN
    columns, rows = tiles(wide, across), tiles(high, down)
    if columns * rows > _MOST_TILES:
        smaller = next(s for s in range(scale + 1, 400) if _pages(picture, s, across, down) <= _MOST_TILES)
        raise PaperImpossible(
            "One to {scale} takes {n} pages; {most} are the most. One to {smaller} does.",
            field="scale",
            scale=scale,
            n=columns * rows,
            most=_MOST_TILES,
            smaller=smaller,
        )
    sheet.text(
        f"{said} Lay a ruler on the squares: they must measure true. Pages overlap by {OVERLAP / INCH:g} in.", 10
    )
    check_squares(sheet.canvas, MARGIN, sheet.y - 2.9 * INCH)
    for row in range(rows):
        for column in range(columns):
            sheet.feed()
            sheet.canvas.saveState()
            clip = sheet.canvas.beginPath()
            clip.rect(MARGIN, MARGIN, across, down)
            sheet.canvas.clipPath(clip, stroke=1, fill=0)
            left = MARGIN - column * (across - OVERLAP)
            top = sheet.high - MARGIN + row * (down - OVERLAP)
            sheet.drawing(picture, left, top, wide, colours)
            sheet.canvas.restoreState()
            sheet.canvas.setFont("Vera", 9)
            sheet.canvas.drawString(MARGIN, MARGIN - 10, f"row {row + 1} of {rows}, column {column + 1} of {columns}")


def _pages(picture: Drawing, scale: int, across: float, down: float) -> int:
    _, _, wide, high = picture.window
    return tiles(wide / scale * INCH, across) * tiles(high / scale * INCH, down)
