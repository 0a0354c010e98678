"""CSV as people and spreadsheets write it: any usual separator, a byte-order mark, quoted cells, no formula let through."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass

from .problems import ApiError

__all__ = ["MOST_LINES", "Imported", "RefusedLine", "SheetRefused", "csv_text", "lines_of", "safe", "unsafe"]

MOST_LINES = 5_000
_FORMULA = ("=", "+", "-", "@", "\t", "\r")


class SheetRefused(ApiError):
    status = 400
    code = "sheet_refused"
    title = "These lines could not be taken"


@dataclass(frozen=True, slots=True)
class RefusedLine:
    line: int
    text: str
    reason: str


@dataclass(frozen=True, slots=True)
class Imported:
    added: int
    refused: tuple[RefusedLine, ...]


def safe(text: str) -> str:
    """A spreadsheet runs cells that begin like a formula; a leading apostrophe keeps them text."""
    return f"'{text}" if text.startswith(_FORMULA) else text


def unsafe(text: str) -> str:
    """What ``safe`` was given."""
    return text[1:] if text.startswith("'") and text[1:].startswith(_FORMULA) else text


def csv_text(columns: Sequence[str], rows: Iterable[Sequence[object]]) -> str:
    """A sheet with a header, lines ended as spreadsheets expect."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(columns)
    writer.writerows(rows)
    return out.getvalue()


def _separator(first: str) -> str:
    return max(("\t", ";", ","), key=first.count) if any(s in first for s in "\t;,") else ","


def _cells(line: str, separator: str) -> list[str]:
    """The cells of one line; a line too wild for the csv reader is one cell, and refused as such later."""
    try:
        return [c.strip() for c in next(csv.reader([line], delimiter=separator))]
    except csv.Error:
        return [line]


def lines_of(text: str, columns: Sequence[str], telling: str) -> Iterator[tuple[int, str, dict[str, str]]]:
    """Line number, the line, its cells by column. A first line with the cell ``telling`` names the columns, in any order.

    Raises ``SheetRefused`` for more than 5,000 lines.
    """
    plain = text.lstrip("\ufeff").replace("\r\n", "\n").replace("\r", "\n").split("\n")
    numbered = [(i, line) for i, line in enumerate(plain, 1) if line.strip()]
    separator = _separator(numbered[0][1]) if numbered else ","
    named, told = tuple(columns), 0
    for at, (number, line) in enumerate(numbered):
        cells = _cells(line, separator)
        if at == 0 and telling in [c.lower() for c in cells]:
            named = tuple(c.lower() for c in cells)
            continue
        told += 1
        if told > MOST_LINES:
            raise SheetRefused(f"More than {MOST_LINES:,} lines. Paste them in smaller parts; nothing was taken.")
        yield number, line, dict(zip(named, cells, strict=False))
