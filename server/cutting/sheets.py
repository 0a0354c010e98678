"""Stock and cut list as CSV, both ways. Good lines go in, broken ones are named by line and reason."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any
from uuid import uuid4

from django.db.models import Max

from api.csv_files import Imported, RefusedLine, csv_text, lines_of, safe, unsafe
from api.problems import Refused
from api.readers import length_reader, note_reader, whole_reader
from piecing.cutting import Cloth, ClothKind
from piecing.errors import ClothImpossible, CountOutOfRange, PiecingError, SheetNotUnderstood
from piecing.lengths import Style
from projects.commands import touch
from projects.models import Fabric, Project
from projects.translate import style_of
from workrooms.once import change

from .models import CutPlan, Stock
from .stock_commands import MOST_STOCK, as_can_be
from .translate import live_stock, now_of, stock_of

__all__ = ["CUT_LIST", "STOCK", "cut_list_csv", "import_cut_list", "import_stock", "stock_csv"]

STOCK = ("fabric", "kind", "across", "along", "count", "name", "across_most")
CUT_LIST = ("fabric", "width", "height", "count", "name")


def stock_csv(project: Project) -> str:
    style = style_of(project)
    return csv_text(
        STOCK,
        (
            [
                safe(s.fabric.name if s.fabric else ""),
                s.kind,
                style.text(s.across),
                style.text(s.along),
                s.count,
                safe(s.name),
                style.text(s.across_most) if s.across_most else "",
            ]
            for s in stock_of(project)
        ),
    )


def cut_list_csv(project: Project) -> str:
    style, names = style_of(project), {f.role: f.name for f in project.fabrics.all()}
    return csv_text(
        CUT_LIST,
        (
            [safe(names.get(p.fabric, p.fabric)), style.text(p.width), style.text(p.height), p.count, safe(p.name)]
            for p in (pile.piece for pile in now_of(project) if pile.wanted)
        ),
    )


def _fabric(project: Project, text: str) -> Fabric:
    wanted = unsafe(text).strip().casefold()
    for f in project.fabrics.all():
        if wanted in (f.name.casefold(), f.role):
            return f
    raise SheetNotUnderstood(
        "“{given}” is no fabric of this project. Name one, or give its letter.", field="fabric", given=text[:40]
    )


def _take_lines(
    text: str, style: Style, columns: tuple[str, ...], take: Callable[[dict[str, str]], Any]
) -> tuple[list[Any], Imported]:
    good, refused = [], []
    for number, line, cells in lines_of(text, columns, "fabric"):
        try:
            good.append(take(cells))
        except PiecingError as refusal:
            refused.append(RefusedLine(number, line[:120], refusal.said.text(style)))
    return good, Imported(len(good), tuple(refused))


MOST_LISTED = 2_000
"""Lines of lists in a project; the project's file takes as many."""


@change
def import_stock(project: Project, text: str) -> Imported:
    """Lines are added to the stock; what is there stays."""
    style = style_of(project)
    length, whole = length_reader(style.measure), whole_reader(2_000, "The number of cloths")
    last = Stock.objects.filter(fabric__project=project).aggregate(last=Max("position"))["last"] or 0

    def take(cells: dict[str, str]) -> Stock:
        fabric = _fabric(project, cells.get("fabric", ""))
        kind = cells.get("kind", "").strip().lower().replace(" ", "_") or ClothKind.YARDAGE.value
        if kind not in list(ClothKind):
            raise SheetNotUnderstood(
                "“{given}” is no kind of cloth. Known are {known}.",
                field="kind",
                given=kind[:40],
                known=", ".join(ClothKind),
            )
        across, along = length(cells.get("across", "")), length(cells.get("along", ""))
        count = whole(cells.get("count", "") or "1")
        most = cells.get("across_most", "").strip()
        row = Stock(
            pk=uuid4(), workroom=project.workroom, fabric=fabric, kind=kind, across=across, along=along, count=count
        )
        row.across_most = length(most) if most else None
        row.name = note_reader(80)(unsafe(cells.get("name", "")))
        return as_can_be(row)

    good, told = _take_lines(text, style, STOCK, take)
    for n, row in enumerate(good, 1):
        row.position = last + n
    held = live_stock(project).count()
    if held + len(good) > MOST_STOCK:
        raise Refused([ClothImpossible("A project holds {most} cloths at most.", most=MOST_STOCK)], style)
    Stock.objects.bulk_create(good)
    touch(project)
    return told


@change
def import_cut_list(project: Project, text: str) -> Imported:
    """Lines are added to what is to be cut, beside what the units and the quilt take."""
    style = style_of(project)
    length, whole = length_reader(style.measure), whole_reader(10_000, "The number of pieces")

    def take(cells: dict[str, str]) -> list[Any]:
        fabric = _fabric(project, cells.get("fabric", ""))
        width, height = length(cells.get("width", "")), length(cells.get("height", "") or cells.get("width", ""))
        Cloth("new", fabric.role, width, height)
        count = whole(cells.get("count", "") or "1")
        name = note_reader(80)(unsafe(cells.get("name", ""))) or "from a list"
        return [fabric.role, str(width.rational), str(height.rational), count, name]

    good, told = _take_lines(text, style, CUT_LIST, take)
    row, _ = CutPlan.objects.get_or_create(project=project)
    if len(row.extra) + len(good) > MOST_LISTED:
        raise Refused([CountOutOfRange("A project holds {most} lines of lists at most.", most=MOST_LISTED)], style)
    row.extra = [*row.extra, *good]
    row.save(update_fields=["extra"])
    touch(project)
    return told
