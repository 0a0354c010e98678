"""A drawing as SVG text, to keep, print or send: the project's own colours, nothing else needed to see it."""

from __future__ import annotations

from collections.abc import Mapping
from xml.sax.saxutils import escape

from ..lengths import Style
from .drawing import Drawing

__all__ = ["svg"]

_FILLED = {"face": 1.0, "patch": 1.0, "under": 0.4, "back": 0.6, "arrow": 1.0}
_INK = "#10242b"
_LINES = {"target": "#c2452d", "blade": "#c2452d", "fault": "#c2452d"}


def svg(drawing: Drawing, colours: Mapping[str, str], style: Style | None = None, *, width: float = 0.0) -> str:
    """The drawing at its own size in inches, or ``width`` inches wide; what it shows is its title."""
    left, top, wide, high = drawing.window
    shown = width or wide
    thin = wide / 400
    marks = [
        f'<{"polygon" if m.closed else "polyline"} points="{" ".join(f"{x:.4f},{y:.4f}" for x, y in m.points)}" '
        f'fill="{_fill(m.role, colours.get(m.fabric, ""))}" fill-opacity="{_FILLED.get(m.role, 0)}" '
        f'stroke="{_LINES.get(m.role, _INK)}" stroke-width="{thin:.4f}"/>'
        for m in drawing.all_marks
        if len(m.points) > 1
    ]
    for d in drawing.dimensions:
        (x1, y1), (x2, y2), (x, y) = d.start, d.end, d.at
        marks.append(
            f'<line x1="{x1:.4f}" y1="{y1:.4f}" x2="{x2:.4f}" y2="{y2:.4f}" stroke="{_INK}" stroke-width="{thin:.4f}"/>'
        )
        marks.append(
            f'<text x="{x:.4f}" y="{y:.4f}" font-size="{wide / 22:.4f}" text-anchor="middle">{escape(d.label.text(style))}</text>'
        )
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{shown:.4f}in" height="{shown * high / wide:.4f}in" '
        f'viewBox="{left:.4f} {top:.4f} {wide:.4f} {high:.4f}" font-family="sans-serif">'
        f"<title>{escape(drawing.alt.text(style))}</title>{''.join(marks)}</svg>\n"
    )


def _fill(role: str, colour: str) -> str:
    if role == "arrow":
        return "#f0b429"
    return escape(colour or "#b7c6cb", {'"': ""}) if role in _FILLED else "none"
