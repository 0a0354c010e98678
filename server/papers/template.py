"""True-size trim templates and a seam-allowance gauge, with squares to check the printer's scale; tiled when too large."""

from __future__ import annotations

from collections.abc import Sequence

from reportlab.pdfgen.canvas import Canvas

from piecing.errors import PaperImpossible
from piecing.lengths import Length, Measure, Style, inches
from piecing.planning.unit_plan import UnitPlan

from .sheet import INCH, MARGIN, PaperSheet, PaperStyle, check_squares

__all__ = ["OVERLAP", "template_pdf", "template_svg", "tiles"]

_LARGEST = inches(30)
OVERLAP = 0.5 * INCH
_TOP = 3.1 * INCH
"""Kept free on the first page for the check squares and the gauge."""

Segment = tuple[tuple[float, float], tuple[float, float]]


def _shape(plan: UnitPlan) -> tuple[float, float, list[Segment]]:
    """Width, height and seam lines of the trimmed unit, in inches from its lower left corner."""
    if max(plan.target_width, plan.target_height) > _LARGEST:
        raise PaperImpossible(
            "A template is {most} at most; this unit trims to {size}. Trim it folded, or with two rulers.",
            most=_LARGEST,
            size=plan.target_width,
        )
    unit = plan.simulated
    (x, y) = unit.box[0]
    seams = [((s.start[0] - x, s.start[1] - y), (s.end[0] - x, s.end[1] - y)) for s in unit.raw.seams]
    return float(plan.target_width), float(plan.target_height), seams


def template_pdf(title: str, plan: UnitPlan, measure: Measure, page: str = "a4") -> bytes:
    """Raises ``PaperImpossible`` for a unit above 30 in."""
    wide, high, seams = _shape(plan)
    sheet, style = PaperSheet(f"Trim template: {title}", page), PaperStyle(measure)
    sheet.text(title, 14, bold=True)
    sheet.text(
        f"Trims to {style.pretty(plan.target_width)} by {style.pretty(plan.target_height)}. Lay a ruler on the squares first: they must measure true.",
        9,
    )
    check_squares(sheet.canvas, MARGIN, sheet.high - MARGIN - 2.9 * INCH)
    _gauge(sheet.canvas, sheet.wide - MARGIN - 2.2 * INCH, sheet.high - MARGIN - 2.9 * INCH, plan.allowance, style)
    across, down = sheet.width, sheet.high - 2 * MARGIN
    first = down - _TOP
    if wide * INCH <= across and high * INCH <= first:
        _outline(
            sheet.canvas, MARGIN, sheet.high - MARGIN - _TOP - high * INCH, wide, high, seams, float(plan.allowance)
        )
        return sheet.to_pdf()
    for column in range(tiles(wide * INCH, across)):
        for row in range(tiles(high * INCH, down)):
            sheet.feed()
            sheet.canvas.saveState()
            clip = sheet.canvas.beginPath()
            clip.rect(MARGIN, MARGIN, across, down)
            sheet.canvas.clipPath(clip, stroke=1, fill=0)
            x, y = MARGIN - column * (across - OVERLAP), MARGIN - row * (down - OVERLAP)
            _outline(sheet.canvas, x, y, wide, high, seams, float(plan.allowance))
            sheet.canvas.restoreState()
            sheet.canvas.setFont("Vera", 9)
            sheet.canvas.drawString(
                MARGIN, MARGIN - 10, f"tile {column + 1} across, {row + 1} up; overlap {OVERLAP / INCH:g} in."
            )
    return sheet.to_pdf()


def tiles(length: float, page: float) -> int:
    """Pages that a length takes when each overlaps the next."""
    n = 1
    while n * page - (n - 1) * OVERLAP < length - 1e-6:
        n += 1
    return n


def _outline(c: Canvas, x: float, y: float, wide: float, high: float, seams: Sequence[Segment], s: float) -> None:
    c.setLineWidth(0.8)
    c.rect(x, y, wide * INCH, high * INCH, stroke=1, fill=0)
    c.setLineWidth(0.5)
    c.setDash(4, 3)
    c.rect(x + s * INCH, y + s * INCH, (wide - 2 * s) * INCH, (high - 2 * s) * INCH, stroke=1, fill=0)
    c.setDash()
    clip = c.beginPath()
    c.saveState()
    clip.rect(x, y, wide * INCH, high * INCH)
    c.clipPath(clip, stroke=0, fill=0)
    for (x1, y1), (x2, y2) in seams:
        c.line(x + x1 * INCH, y + y1 * INCH, x + x2 * INCH, y + y2 * INCH)
    c.restoreState()


def _gauge(c: Canvas, x: float, y: float, allowance: Length, style: Style) -> None:
    """Lay the edge under the needle: lines at the allowance, a thread less, and the least that holds."""
    c.setLineWidth(0.8)
    c.rect(x, y, 2.2 * INCH, 1.4 * INCH, stroke=1, fill=0)
    c.setFont("Vera", 7)
    for n, (at, name) in enumerate(_gauge_lines(allowance)):
        across = x + float(at) * INCH
        c.line(across, y, across, y + 1.4 * INCH)
        c.drawString(x + 0.42 * INCH, y + 1.2 * INCH - n * 12, f"{name} {style.pretty(at)}")


def _gauge_lines(allowance: Length) -> tuple[tuple[Length, str], ...]:
    return (allowance, "allowance"), (allowance - inches("1/32"), "scant"), (inches("3/16"), "least that holds")


def template_svg(title: str, plan: UnitPlan) -> str:
    """The same template as SVG, true to size in any viewer that honours its units."""
    wide, high, seams = _shape(plan)
    s = float(plan.allowance)
    lines = "".join(
        f'<line x1="{x1:.4f}" y1="{high - y1:.4f}" x2="{x2:.4f}" y2="{high - y2:.4f}"/>' for (x1, y1), (x2, y2) in seams
    )
    foot = high + 0.1
    gauge = f'<rect x="3.4" y="{foot:.4f}" width="1" height="1.4"/>' + "".join(
        f'<line x1="{3.4 + float(at):.4f}" y1="{foot:.4f}" x2="{3.4 + float(at):.4f}" y2="{foot + 1.4:.4f}"/>'
        for at, _ in _gauge_lines(plan.allowance)
    )
    name = title.replace("&", "and").replace("<", "(").replace(">", ")")
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{max(wide, 4.5):.4f}in" height="{high + 2.2:.4f}in" '
        f'viewBox="0 0 {max(wide, 4.5):.4f} {high + 2.2:.4f}" fill="none" stroke="#000" stroke-width=".01">'
        f"<title>{name}</title>"
        f'<clipPath id="u"><rect width="{wide:.4f}" height="{high:.4f}"/></clipPath>'
        f'<rect width="{wide:.4f}" height="{high:.4f}"/>'
        f'<rect x="{s:.4f}" y="{s:.4f}" width="{wide - 2 * s:.4f}" height="{high - 2 * s:.4f}" stroke-dasharray=".08 .05"/>'
        f'<g clip-path="url(#u)">{lines}</g>'
        f'<rect y="{high + 0.1:.4f}" width="1" height="1"/>'
        f'<rect x="1.2" y="{high + 0.1:.4f}" width="{50 / 25.4:.4f}" height="{50 / 25.4:.4f}"/>'
        f"{gauge}"
        "</svg>"
    )
