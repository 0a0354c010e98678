"""Draws what the pages of docs/theory speak of, from the computation itself: ``make drawings``."""

from __future__ import annotations

from pathlib import Path
from xml.sax.saxutils import escape

from piecing import Choices, plan
from piecing.blocks.library import library_pattern
from piecing.blocks.pattern import Orientation, UnitPlacement, layout_of
from piecing.cutting import Cloth, cutting_plan
from piecing.cutting.stock import WantedPiece
from piecing.diagnosis import block_geometry, model_of
from piecing.diagnosis.whatif import errors_of
from piecing.drawings import apart_picture, as_sewn, back_picture, pictures, quilt_picture
from piecing.drawings.cloth import cloth_picture
from piecing.geometry.drawing import Drawing
from piecing.joining import Order, Wishes, pressing_map
from piecing.lengths import Style, inches
from piecing.quilts import Border, Laid, PiecedRow, QuiltChoices, Runs, quilt_sizes
from piecing.trimming import expectation
from piecing.units import KINDS, methods_of
from tests.samples import sample

FABRICS = {"a": "#1f6f78", "b": "#d8dee0", "c": "#f0b429", "d": "#c2452d", "e": "#7a8c92"}
ASIDE = 0.12
"""Room for the labels at both sides, as a share of the width."""
DRAWN = {"face", "under", "seam", "target", "clearance", "joined", "stitch", "blade", "arrow", "back", "patch"}
FILLED = {"face", "under", "joined", "patch", "back"}


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
        fill = FABRICS.get(m.fabric, "none") if m.role in FILLED else "#ffffff" if m.role == "arrow" else "none"
        line = "#c2452d" if m.role == "target" else fill if m.role == "joined" else "#10242b"
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


def pages() -> dict[str, Drawing]:
    """One drawing for each page that is not about a kind of unit; the Lantern block finishing 10 1/2."""
    pattern, finished, allowance = library_pattern("lantern"), inches("21/2"), inches("1/4")
    layout = layout_of(pattern)
    model = model_of(block_geometry(layout, finished), allowance)
    pair = pictures(plan(Choices(sample("half_square_triangle", inches("7/2")), "pair")))
    geese_round = PiecedRow((UnitPlacement("flying_goose", ("a", "b", "b")),), Orientation(1), runs=Runs.MIRRORED)
    border = Border(inches(3), "c", pieced=geese_round)
    quilt = quilt_sizes(QuiltChoices(2, 2, finished, finished, sash=inches("3/2"), borders=(border,)))
    lying = [Laid(layout)] * quilt.blocks
    cloth = cutting_plan(
        [WantedPiece("A", "a", inches("9/2"), inches("9/2"), 12), WantedPiece("B", "a", inches(4), inches(4), 6)],
        [Cloth("bolt", "a", inches(40), inches(18))],
    ).cloths[0]
    geese = pictures(plan(Choices(sample("flying_goose", inches(4)), "four")))
    return {
        "seams": pair.trimmed,
        "engine": geese.stages[0].drawing,
        "oversizing": pair.sewn,
        "trimming": expectation(plan(Choices(sample("flying_goose", inches(4)), "four"))).slipped,
        "comparing": geese.sewn,
        "blocks": apart_picture(layout, finished, allowance),
        "joining": back_picture(
            pattern, pressing_map(pattern, Order.ROWS, dict.fromkeys("abc", 1), Wishes()).pressed, finished, allowance
        ),
        "quilts": quilt_picture(quilt, lying),
        "cutting": cloth_picture(cloth),
        "diagnosis": as_sewn(model, errors_of(model, {"seam": 1 / 32}), factor=4.0),
    }


def main() -> None:
    out = Path(__file__).parents[1] / "docs/drawings"
    out.mkdir(exist_ok=True)
    for name, drawing in pages().items():
        (out / f"{name}.svg").write_text(svg(drawing))
    for kind in KINDS:
        method = methods_of(kind)[0]
        drawn = pictures(plan(Choices(sample(kind), method.name)))
        (out / f"{kind}.svg").write_text(svg(drawn.sewn))


if __name__ == "__main__":
    main()
