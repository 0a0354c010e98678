"""The bench ticket of a project as PDF: unit by unit and block by block as it is worked, enough to sew from without a screen."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from piecing.geometry.drawing import Drawing
from piecing.handling.joining_steps import JoinStep
from piecing.handling.steps import BenchStage, UnitStep
from piecing.lengths import Measure
from piecing.messages import Message
from piecing.overview.ticket import BlockTicket, QuiltTicket, Ticket
from piecing.trimming import Recipe

from .sheet import MARGIN, PaperSheet, PaperStyle

__all__ = ["ticket_pdf"]

_PICTURE = 62.0
"""Points across a step's picture."""


def ticket_pdf(
    project: str,
    tickets: Sequence[tuple[str, Ticket]],
    blocks: Sequence[BlockTicket],
    quilt: QuiltTicket | None,
    colours: Mapping[str, str],
    measure: Measure,
    page: str = "a4",
) -> bytes:
    """``tickets`` with the names of their units, then the blocks that they are joined to, and the quilt."""
    sheet, style = PaperSheet(f"Bench ticket: {project}", page), PaperStyle(measure)
    for n, (name, t) in enumerate(tickets):
        if n:
            sheet.feed()
        _unit(sheet, project, name, t, colours, style)
    for n, b in enumerate(blocks):
        if n or tickets:
            sheet.feed()
        _block(sheet, project, b, colours, style)
    if quilt is not None:
        sheet.feed()
        _quilt(sheet, project, quilt, colours, style)
    if not tickets and not blocks:
        sheet.text("No unit is planned in this project.", 14)
    return sheet.to_pdf()


def _head(
    sheet: PaperSheet, project: str, name: str, wanted: str, big: str, picture: Drawing, colours: Mapping[str, str]
) -> None:
    top, across = sheet.y, 84.0
    high = sheet.drawing(picture, sheet.wide - MARGIN - across, top, across, colours)
    room = sheet.width - across - 20
    sheet.text(project, 11, width=room)
    sheet.text(name, 20, bold=True, width=room)
    sheet.text(wanted, 12, width=room)
    if big:
        sheet.text(big, 18, bold=True, width=room)
    sheet.y = min(sheet.y, top - high - 6)


def _unit(sheet: PaperSheet, project: str, name: str, t: Ticket, colours: Mapping[str, str], style: PaperStyle) -> None:
    size = style.pretty(t.target)
    if t.target != t.target_height:
        size += f" by {style.pretty(t.target_height)}"
    _head(
        sheet,
        project,
        name,
        t.wanted.text(style),
        f"Trim to {size}" if t.recipe else f"Cut to {size}",
        t.picture,
        colours,
    )
    if t.done is not None:
        sheet.text(t.done.text(style), 11)
    _section(sheet, "Cut")
    for said in t.cut:
        sheet.tick_line(said.text(style))
    if t.steps:
        _section(sheet, "Sew and press")
        for said in t.pairs:
            sheet.text(said.text(style), 11)
        for n, s in enumerate(t.steps, 1):
            _step(sheet, n, s, colours, style)
        _lots(sheet, t)
    if t.recipe is not None:
        _trim(sheet, t.recipe, colours, style)
    if t.tips:
        sheet.text("Then it shows: " + "; ".join(s.text(style) for s in t.tips) + ".", 10)
    _cautions(sheet, t.cautions, style)


def _trim(sheet: PaperSheet, recipe: Recipe, colours: Mapping[str, str], style: PaperStyle) -> None:
    _section(sheet, f"Trim: {recipe.title.text(style)}")
    sheet.text(recipe.ruler.text(style), 10)
    for n, r in enumerate(recipe.steps, 1):
        _draw_picture(
            sheet,
            f"{n}. {r.title.text(style)}",
            [r.how.text(style), f"Look for: {r.look_for.text(style)}"],
            r.drawing,
            colours,
        )


def _lots(sheet: PaperSheet, t: Ticket) -> None:
    """A box for every go of every lot; where to wind a bobbin."""
    _section(sheet, f"{t.goes} sets of {t.per_go}" if t.per_go > 1 else f"{t.goes} to make")
    for lot in t.lots:
        wind = "Wind a bobbin first. " if lot.number in t.wound else ""
        sheet.text(f"Lot {lot.number}: {wind}sewn, pressed, trimmed", 10)
        sheet.boxes(min(lot.goes, 200))
    if not t.lots:
        sheet.text("None left to begin.", 10)


def _block(sheet: PaperSheet, project: str, b: BlockTicket, colours: Mapping[str, str], style: PaperStyle) -> None:
    _head(sheet, project, b.name, b.wanted.text(style), "", b.picture, colours)
    back = next((s.back for s in b.steps if s.back is not None), None)
    if back is not None:
        _section(sheet, "Pressing map, from the back")
        sheet.room(200)
        high = sheet.drawing(back, MARGIN, sheet.y - 4, 180, colours)
        sheet.y -= high + 10
    _section(sheet, "Join")
    for n, s in enumerate(b.steps, 1):
        _step(sheet, n, s, colours, style)
    _cautions(sheet, b.cautions, style)


def _quilt(sheet: PaperSheet, project: str, q: QuiltTicket, colours: Mapping[str, str], style: PaperStyle) -> None:
    _head(sheet, project, "The quilt", q.wanted.text(style), "", q.picture, colours)
    _section(sheet, "Join")
    for n, s in enumerate(q.steps, 1):
        sheet.room(48)
        sheet.tick_line(f"{n}. {s.title.text(style)}", 11, bold=True)
        sheet.text(" ".join(m.text(style) for m in (*s.said, *s.look)), 10, x=19)
    _cautions(sheet, q.cautions, style)


def _section(sheet: PaperSheet, title: str) -> None:
    sheet.room(60)
    sheet.line_across()
    sheet.text(title, 13, bold=True)


def _step(sheet: PaperSheet, n: int, s: UnitStep | JoinStep, colours: Mapping[str, str], style: PaperStyle) -> None:
    times = f", {s.times} times" if s.times > 1 else ""
    press = "Press: " if s.stage is BenchStage.PRESS and isinstance(s, JoinStep) else ""
    lines = [m.text(style) for m in (*s.said, *s.look)]
    _draw_picture(sheet, f"{n}. {press}{s.title.text(style)}{times}", lines, s.front, colours)


def _draw_picture(
    sheet: PaperSheet, title: str, lines: Sequence[str], picture: Drawing, colours: Mapping[str, str]
) -> None:
    """A step with a box to tick, its picture beside it."""
    sheet.room(_PICTURE + 24)
    top = sheet.y
    _, _, wide, high = picture.window
    across = min(_PICTURE, _PICTURE * wide / high)
    tall = sheet.drawing(picture, sheet.wide - MARGIN - _PICTURE, top - 4, across, colours, clip=True)
    room = sheet.width - _PICTURE - 14
    sheet.tick_line(title, 11, width=room, bold=True)
    sheet.text(" ".join(lines), 10, x=19, width=room)
    sheet.y = min(sheet.y, top - tall - 8)


def _cautions(sheet: PaperSheet, cautions: Sequence[Message], style: PaperStyle) -> None:
    sheet.line_across()
    for caution in cautions:
        sheet.text(caution.text(style), 9)
