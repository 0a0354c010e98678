"""A project as a whole on paper: facts, pictures, what was put down on the way, photos, and what was learned."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from io import BytesIO
from uuid import UUID

from reportlab.lib.utils import ImageReader

from journal.models import Photo
from journal.rows import LogRow
from journal.story import Story
from piecing.days import day_words

from .sheet import MARGIN, PaperSheet, PaperStyle

__all__ = ["story_pdf"]

_PHOTO = 150.0
"""Points high."""


def _plain(text: str) -> str:
    return (
        text.replace("⁄", "/")
        .replace("″", '"')
        .replace("\u00a0", " ")
        .replace("−", "-")
        .replace("“", '"')
        .replace("”", '"')
    )


def story_pdf(
    story: Story, style: PaperStyle, colours: Mapping[str, str], photos: Mapping[UUID, Photo], page: str
) -> bytes:
    """``photos`` are those of the story's rows, with their pictures, by key."""
    sheet = PaperSheet(story.project.name, page)
    sheet.text(_plain(story.project.name), 20, bold=True)
    ended = f", put away {day_words(story.ended)}" if story.ended else ""
    sheet.text(f"Begun {day_words(story.begun)}{ended}", 10, gap=8)
    _pictures(sheet, story, style, colours)
    for heading, lines in story.facts:
        sheet.room(40)
        sheet.text(heading, 12, bold=True, gap=1)
        for line in lines:
            sheet.text(_plain(line), 10, x=12, gap=1)
        sheet.y -= 4
    _rows(sheet, "What was learned", (r for r in story.rows if r.kind == "learned"), photos)
    _rows(sheet, "On the way", (r for r in story.rows if r.kind != "learned"), photos)
    return sheet.to_pdf()


def _pictures(sheet: PaperSheet, story: Story, style: PaperStyle, colours: Mapping[str, str]) -> None:
    """The quilt, and beside or under it each block with its name."""
    if story.quilt is not None:
        _, _, wide, high = story.quilt.window
        width = min(sheet.width * 0.55, 360 * wide / high)
        sheet.room(width * high / wide + 10)
        sheet.y -= sheet.drawing(story.quilt, MARGIN, sheet.y, width, colours) + 10
    for block in story.blocks:
        sheet.room(130)
        top = sheet.y
        high = sheet.drawing(block.picture, MARGIN, top, 110, colours)
        sheet.text(_plain(block.said.text(style)), 11, x=126)
        sheet.y = top - high - 10


def _rows(sheet: PaperSheet, heading: str, rows: Iterable[LogRow], photos: Mapping[UUID, Photo]) -> None:
    told = list(rows)
    if not told:
        return
    sheet.line_across()
    sheet.room(60)
    sheet.text(heading, 14, bold=True, gap=4)
    for row in told:
        sheet.room(30)
        sheet.text(f"{day_words(row.day)}  {_plain(row.title)}", 10, bold=True, gap=1)
        for line in (*row.lines, *row.text.splitlines()):
            sheet.text(_plain(line), 10, x=12, gap=1)
        _photos(sheet, [photos[p.pk] for p in row.photos if p.pk in photos])
        sheet.y -= 4


def _photos(sheet: PaperSheet, rows: list[Photo]) -> None:
    """Side by side, all as high, a new row when the line is full."""
    x = 0.0
    for n, photo in enumerate(rows):
        wide = min(sheet.width, _PHOTO * photo.width / photo.height)
        if x and x + wide > sheet.width:
            sheet.y -= _PHOTO + 6
            x = 0.0
        if not x:
            sheet.room(_PHOTO + 8)
        picture = ImageReader(BytesIO(bytes(photo.image)))
        sheet.canvas.drawImage(
            picture, MARGIN + x, sheet.y - _PHOTO, wide, _PHOTO, preserveAspectRatio=True, anchor="sw"
        )
        x += wide + 8
        if n == len(rows) - 1:
            sheet.y -= _PHOTO + 6
