"""A sheet of paper being written: sizes, type, lengths without fraction glyphs, drawings of the core to scale."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from io import BytesIO

from reportlab.lib.colors import HexColor
from reportlab.lib.pagesizes import A4, LETTER
from reportlab.lib.utils import simpleSplit
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas

from piecing.geometry.drawing import Drawing, DrawnMark
from piecing.lengths import Style
from piecing.lengths.format import Exact

__all__ = ["INCH", "PAGES", "PaperSheet", "PaperStyle", "check_squares"]

PAGES = {"a4": A4, "letter": LETTER}
INCH = 72.0
"""Points."""
MARGIN = 40.0
_FILLED = {"face": 1.0, "patch": 1.0, "under": 0.35, "back": 0.3, "allowance": 0.2}
"""How strongly cloth is filled, by what it shows."""
_HEAVY = {"blade": 1.6, "fresh": 2.2, "stitch": 1.0, "ruler-diagonal": 1.0}
_DASHED: dict[str, tuple[list[float], float]] = {
    "stitch": ([3, 2], 0),
    "blade": ([6, 2, 1, 2], 0),
    "under": ([1, 1], 0),
    "target": ([4, 2], 0),
    "finished": ([2, 2], 0),
    "ruler-diagonal": ([5, 3], 0),
}
_TYPE, _BOLD = "Vera", "VeraBd"
for _face in (_TYPE, _BOLD):
    pdfmetrics.registerFont(TTFont(_face, f"{_face}.ttf"))


@dataclass(frozen=True, slots=True)
class PaperStyle(Style):
    """Lengths with a plain slash, which every typeface has."""

    def pretty(self, length: Exact) -> str:
        plain = Style.pretty(self, length)
        return plain.replace("⁄", "/").replace("″", '"').replace("−", "-")


class PaperSheet:
    """Pages written from the top down; a new one is begun when the foot is reached."""

    def __init__(self, title: str, page: str = "a4") -> None:
        self.wide, self.high = (float(side) for side in PAGES[page])
        self.title = title
        self._bytes = BytesIO()
        # No date and no number of its own, so that the same ticket is the same file; printed at its own size.
        self.canvas = Canvas(self._bytes, pagesize=PAGES[page], invariant=1, pageCompression=1)
        self.canvas.setTitle(title[:200])
        self.canvas.setViewerPreference("PrintScaling", "None")
        self.y = self.high - MARGIN
        self.pages = 1

    @property
    def width(self) -> float:
        return self.wide - 2 * MARGIN

    def feed(self) -> None:
        self._foot()
        self.canvas.showPage()
        self.pages += 1
        self.y = self.high - MARGIN

    def room(self, points: float) -> None:
        if self.y - points < MARGIN + 14:
            self.feed()

    def _foot(self) -> None:
        self.canvas.setFont(_TYPE, 8)
        foot = simpleSplit(self.title, _TYPE, 8, self.width - 60)[:1]
        self.canvas.drawString(MARGIN, MARGIN - 18, foot[0] if foot else "")
        self.canvas.drawRightString(self.wide - MARGIN, MARGIN - 18, f"page {self.pages}")

    def text(
        self,
        said: str,
        size: float = 11,
        *,
        bold: bool = False,
        x: float = 0.0,
        width: float | None = None,
        gap: float = 2.0,
    ) -> None:
        """A paragraph, broken to the width."""
        face = _BOLD if bold else _TYPE
        for line in _lines(said, face, size, (width or self.width) - x):
            self.room(size * 1.35)
            self.canvas.setFont(face, size)
            self.y -= size * 1.3
            self.canvas.drawString(MARGIN + x, self.y, line)
        self.y -= gap

    def tick_line(self, said: str, size: float = 11, *, width: float | None = None, bold: bool = False) -> None:
        """A paragraph with a box to tick before it."""
        self.room(size * 1.6)
        self.canvas.rect(MARGIN, self.y - size * 1.3, size, size, stroke=1, fill=0)
        self.text(said, size, x=size * 1.7, width=width, bold=bold)

    def boxes(self, count: int, size: float = 13) -> None:
        """So many boxes to tick, in rows of ten with a gap after five."""
        per_row = int(self.width // (size * 1.35)) // 10 * 10 or 10
        for row in range(0, count, per_row):
            self.room(size * 1.5)
            self.y -= size * 1.35
            for n in range(min(per_row, count - row)):
                x = MARGIN + n * size * 1.25 + (n // 5) * size * 0.4
                self.canvas.rect(x, self.y, size, size, stroke=1, fill=0)
        self.y -= 6

    def line_across(self) -> None:
        self.y -= 5
        self.canvas.setDash(4, 3)
        self.canvas.line(MARGIN, self.y, self.wide - MARGIN, self.y)
        self.canvas.setDash()
        self.y -= 4

    def drawing(
        self, drawing: Drawing, x: float, top: float, width: float, colours: Mapping[str, str], *, clip: bool = False
    ) -> float:
        """A drawing of the core, so many points wide; returns its height. ``clip`` keeps a ruler that goes on within the window."""
        left, upper, wide, high = drawing.window
        scale = width / wide
        self.canvas.saveState()
        if clip:
            window = self.canvas.beginPath()
            window.rect(x, top - high * scale, width, high * scale)
            self.canvas.clipPath(window, stroke=0, fill=0)
        for m in drawing.all_marks:
            points = [(x + (px - left) * scale, top - (py - upper) * scale) for px, py in m.points]
            self._mark(m, points, colours)
        self.canvas.restoreState()
        self.canvas.setFillColor(HexColor("#000000"))
        return high * scale

    def _mark(self, m: DrawnMark, points: list[tuple[float, float]], colours: Mapping[str, str]) -> None:
        """Told apart without colour: stitches dashed, cuts heavy and broken, edges that come together heavy, backs pale."""
        c = self.canvas
        if len(points) == 1:
            c.setFillColor(HexColor("#000000"))
            c.circle(*points[0], 2.2, stroke=1, fill=1)
            return
        path = c.beginPath()
        path.moveTo(*points[0])
        for p in points[1:]:
            path.lineTo(*p)
        if m.closed:
            path.close()
        alpha = _FILLED.get(m.role)
        if m.role == "arrow":
            c.setFillColor(HexColor("#000000"))
        elif alpha is not None:
            c.setFillColor(HexColor(colours.get(m.fabric, "#dddddd")), alpha=alpha)
        c.setLineWidth(_HEAVY.get(m.role, 0.6))
        c.setDash(*_DASHED.get(m.role, ([], 0)))
        c.drawPath(path, stroke=1, fill=int(alpha is not None or m.role == "arrow"))
        c.setDash()

    def to_pdf(self) -> bytes:
        self._foot()
        self.canvas.save()
        return self._bytes.getvalue()


def _lines(said: str, face: str, size: float, width: float) -> list[str]:
    """Broken at spaces, and within a word that is wider than the line."""
    found: list[str] = []
    for line in simpleSplit(said, face, size, width) or [""]:
        while pdfmetrics.stringWidth(line, face, size) > width and len(line) > 1:
            cut = len(line)
            while cut > 1 and pdfmetrics.stringWidth(line[:cut], face, size) > width:
                cut -= 1
            found.append(line[:cut])
            line = line[cut:]
        found.append(line)
    return found


def check_squares(canvas: Canvas, x: float, y: float) -> None:
    """A square of one inch and one of 50 mm, to hold a ruler against before anything else."""
    mm50 = 50 / 25.4 * INCH
    canvas.setLineWidth(0.5)
    canvas.rect(x, y, INCH, INCH, stroke=1, fill=0)
    canvas.rect(x + INCH + 18, y, mm50, mm50, stroke=1, fill=0)
    canvas.setFont(_TYPE, 8)
    canvas.drawString(x + 4, y + 4, "1 in.")
    canvas.drawString(x + INCH + 22, y + 4, "50 mm; print at 100 %")
