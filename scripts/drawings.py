"""Draws every kind of unit, cut apart, sewn and opened, for docs/theory.md: ``make drawings``."""

from __future__ import annotations

from pathlib import Path
from xml.sax.saxutils import escape

from piecing import Choices, plan
from piecing.drawings import unit as pictures
from piecing.geometry.drawing import Drawing
from piecing.lengths import Style
from piecing.units import KINDS, methods_of
from tests.samples import sample

FABRICS = {"a": "#1f6f78", "b": "#d8dee0", "c": "#f0b429", "d": "#c2452d", "e": "#7a8c92"}
ASIDE = 0.12
"""Room for the labels at both sides, as a share of the width."""
DRAWN = {"face", "under", "seam", "target", "clearance"}


def svg(drawing: Drawing) -> str:
    """The drawing as SVG: cloth, allowances behind it, seams, and the outline it will be trimmed to."""
    left, top, width, height = drawing.window
    left, width = left - width * ASIDE, width * (1 + 2 * ASIDE)
    thin = width / 240
    marks = []
    for m in drawing.marks:
        if m.role not in DRAWN or len(m.points) < 2:
            continue
        points = " ".join(f"{x:.4f},{y:.4f}" for x, y in m.points)
        fill = FABRICS.get(m.fabric, "none") if m.role in ("face", "under") else "none"
        line = "#10242b" if m.role != "target" else "#c2452d"
        dashes = f' stroke-dasharray="{thin * 4:.4f}"' if m.role == "target" else ""
        tag = "polygon" if m.closed else "polyline"
        marks.append(f'<{tag} points="{points}" fill="{fill}" stroke="{line}" stroke-width="{thin:.4f}"{dashes}/>')
    for d in drawing.dimensions:
        (x1, y1), (x2, y2), (x, y) = d.start, d.end, d.at
        marks.append(
            f'<line x1="{x1:.4f}" y1="{y1:.4f}" x2="{x2:.4f}" y2="{y2:.4f}" stroke="#10242b" stroke-width="{thin:.4f}"/>'
        )
        text = escape(d.label.text(Style())).replace("\u2044", "/")
        marks.append(f'<text x="{x:.4f}" y="{y:.4f}" font-size="{width / 22:.4f}" text-anchor="middle">{text}</text>')
    box = f"{left:.4f} {top:.4f} {width:.4f} {height:.4f}"
    body = "\n".join(marks)
    return f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="{box}" width="360" font-family="sans-serif">\n{body}\n</svg>\n'


def main() -> None:
    out = Path(__file__).parents[1] / "docs/drawings"
    out.mkdir(exist_ok=True)
    for kind in KINDS:
        method = methods_of(kind)[0]
        drawn = pictures(plan(Choices(sample(kind), method.name)))
        (out / f"{kind}.svg").write_text(svg(drawn.sewn))


if __name__ == "__main__":
    main()
