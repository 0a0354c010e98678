"""The bench ticket of a project as PDF: a unit after another, as it is worked."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from piecing.lengths import Measure
from piecing.overview.ticket import Ticket

from .sheet import MARGIN, PaperSheet, PaperStyle

__all__ = ["ticket_pdf"]


def ticket_pdf(
    project: str, tickets: Sequence[tuple[str, Ticket]], colours: Mapping[str, str], measure: Measure, page: str = "a4"
) -> bytes:
    """``tickets`` with the names of their units."""
    sheet, style = PaperSheet(f"Bench ticket: {project}", page), PaperStyle(measure)
    for n, (name, t) in enumerate(tickets):
        if n:
            sheet.feed()
        _one(sheet, project, name, t, colours, style)
    if not tickets:
        sheet.text("No unit is planned in this project.", 14)
    return sheet.finished()


def _one(sheet: PaperSheet, project: str, name: str, t: Ticket, colours: Mapping[str, str], style: PaperStyle) -> None:
    top = sheet.y
    picture = 84.0
    high = sheet.drawing(t.picture, sheet.wide - MARGIN - picture, top, picture, colours)
    sheet.text(project, 11, width=sheet.width - picture - 20)
    sheet.text(name, 20, bold=True, width=sheet.width - picture - 20)
    sheet.text(t.wanted.text(style), 12, width=sheet.width - picture - 20)
    size = style.pretty(t.target)
    if t.target != t.target_height:
        size += f" by {style.pretty(t.target_height)}"
    sheet.text(f"Trim to {size}", 18, bold=True, width=sheet.width - picture - 20)
    sheet.y = min(sheet.y, top - high - 6)
    for title, lines in (("Cut", t.cut), ("Sew", t.sew), ("Press", (t.press,)), ("Trim", t.trim)):
        sheet.line_across()
        sheet.text(title, 13, bold=True)
        for said in lines:
            sheet.ticked(said.text(style))
    if t.tips:
        sheet.text("Then it shows: " + "; ".join(s.text(style) for s in t.tips) + ".", 10)
    sheet.line_across()
    sheet.text(f"{t.boxes} batches of {t.per_box}" if t.per_box > 1 else f"{t.boxes} to make", 13, bold=True)
    sheet.boxes(min(t.boxes, 600))
    sheet.line_across()
    for caution in t.cautions:
        sheet.text(caution.text(style), 9)
