"""A remedy done to a simulated block by the hands that sewed it: by its words and the places that it names, never by what the core
foresees of it.

Cloth that is handled anew has fresh scatter and the habits that the remedy does not touch; everything else stays as it was.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from piecing.diagnosis.faults import Fault
from piecing.diagnosis.places import PlacedUnit
from piecing.diagnosis.remedies import Remedy
from piecing.lengths import inches

from .polygons import S, Sewn, _Seam

__all__ = ["NotDone", "mended", "told"]

_A_THREAD = 0.012
"""Inches that this hand takes for a thread."""
_INCH = 1.0
_HELD, _PINNED = 3 / 32, 0.008
"""Inches of a step that pins hold in; what they leave of it."""


class NotDone(Exception):
    """These hands do not know this remedy."""


def told(words: str) -> float:
    """The distance to sew at, inches, as it stands in a sentence: a thread over or under a mark."""
    found = re.search(r"(a thread (?P<side>over|under) )?(?P<mark>\d+⁄\d+)″", words.replace("\u00a0", " "))
    if found is None:
        raise NotDone(words)
    mark = float(inches(found["mark"].replace("⁄", "/")))
    return mark + {"over": _A_THREAD, "under": -_A_THREAD, None: 0.0}[found["side"]]


@dataclass
class _Eased(_Seam):
    """A seam sewn again over an inch and more at some spots: (share of its length, depth)."""

    spots: tuple[tuple[float, float], ...] = ()
    share: float = 0.1
    """Of its length that an inch is."""

    def taken(self, t: float) -> float:
        base = super().taken(t)
        for at, depth in self.spots:
            # Half an inch to each side of the tip it is quite as deep, and eased out over the next.
            away = (abs(t - at) / self.share - 0.5) / 1.0
            if away < 1:
                base += (depth + self.fold / 2 - base) * min(1.0, 1 - away)
        return base


@dataclass
class _Mended(Sewn):
    """``held``: what is pinned so that it meets. Lengths are what they were where a seam was moved on one spot alone: the rest is
    held in (craft: fine to about 1/16)."""

    held: tuple[str, ...] = ()
    unspotted: Sewn | None = None

    def feature(self, key: str) -> float:
        if key in self.held and abs(super().feature(key)) <= _HELD:
            return float(self.rng.uniform(-_PINNED, _PINNED))
        if self.unspotted is not None and key.split()[0] in ("row", "column"):
            return self.unspotted.feature(key)
        return super().feature(key)


def mended(block: Sewn, remedy: Remedy, faults: Sequence[Fault], rng: np.random.Generator) -> Sewn:
    """The block with a remedy done to it; ``faults`` as they were listed when it was offered."""
    done = _Mended(block.table, block.truth, block.ways, rng, list(block.units), list(block.seams))
    places = block.table.model.places
    what, _, number = remedy.code.partition("-")
    answered = [f for f in faults if f.number in remedy.faults]
    if what in ("all_seams", "some_seams", "one_seam", "share", "ends"):
        where = _seams_of(done, what, number, remedy)
        for n in where:
            done.seams[n] = _again(done, done.seams[n], told(str(remedy.how)), _ends_of(what, number, str(remedy.how)))
    elif what in ("make_again", "trim_again"):
        _units_anew(done, [c for c in places.cells if c.batch == int(number)])
    elif what == "one_unit":
        _units_anew(done, [places.cells[int(number)]])
    elif what in ("deeper_at_tips", "shallower_at_tips", "deeper_at_corners"):
        done.unspotted = block
        _at_spots(done, what, str(remedy.title), answered)
    elif what == "match":
        done.held = tuple(f.feature.key for f in answered)
    elif what != "leave":
        raise NotDone(remedy.code)
    return done


def _seams_of(done: Sewn, what: str, number: str, remedy: Remedy) -> list[int]:
    places = done.table.model.places
    if what == "share":
        return sorted({k for c in places.cells if c.batch == int(number) for k in c.seams if k is not None})
    if what == "one_seam":
        return [int(number)]
    if what == "some_seams":
        return list(places.seam_groups[int(number)].seams)
    if "but those" in str(remedy.title):
        raise NotDone(str(remedy.title))
    return list(range(len(places.seams)))


def _ends_of(what: str, number: str, how: str) -> str:
    if what == "ends":
        return number
    if what == "one_seam" and "all of it" not in how:
        return "end" if re.search(r"at its (right|lower)|at the (right|lower)", how) else "start"
    return ""


def _again(done: Sewn, old: _Seam, at: float, end: str) -> _Seam:
    """A seam sewn at a distance from the raw edge, all of it with the hand's own drift, or one end of it, with care there."""
    if not end:
        t = done.truth
        course = [t.start + done.vary(0.008), 0.0, done.vary(0.005), 0.0, t.end + done.vary(0.008)]
        course[1], course[3] = (course[0] + course[2]) / 2, (course[2] + course[4]) / 2
        line = at + done.vary(0.008) + np.array(course) + done.rng.normal(0, 0.003, 5)
        return _Seam(line, t.fold + done.vary(0.003))
    line = old.at.copy()
    first, second = (0, 1) if end == "start" else (4, 3)
    line[first] = at + done.vary(0.008)
    line[second] = (line[first] + line[2]) / 2
    return _Seam(line, old.fold)


def _units_anew(done: Sewn, cells: Sequence[PlacedUnit]) -> None:
    """They are made or trimmed as they should be; what joins them to the rest is sewn once more as these hands sew."""
    sewn_as, done.truth = done.truth, replace(done.truth, trim=0.0, shift=0.0, tip=0.0, stretch=0.0)
    for c in cells:
        done.units[c.number] = done.unit(c)
    done.truth = sewn_as
    for k in {k for c in cells for k in c.seams if k is not None}:
        done.seams[k] = done.seam()


def _at_spots(done: Sewn, what: str, title: str, faults: Sequence[Fault]) -> None:
    places = done.table.model.places
    for f in faults:
        number, depth = f.feature.seam, 0.0
        if what == "deeper_at_corners":
            # The hand sees by how much the diagonal stops short, and of which seam.
            seen = done.feature(f.feature.key)
            down, across = f.feature.edge.split()
            cell = places.cells[f.feature.cell]
            seam = cell.seam(down if seen > 0 else across)
            if seam is None or abs(seen) > 1 / 16 + 1 / 128:
                continue
            number = seam
            depth = done.seams[number].taken(_along(done, number, f)) - done.seams[number].fold / 2 + abs(seen)
        else:
            floats = f.size > 0
            if floats != (what == "deeper_at_tips") or abs(f.size) > 1 / 16 + 1 / 128:
                continue
            depth = told(title)
        old, line = done.seams[number], places.seams[number]
        spots = (*getattr(old, "spots", ()), (_along(done, number, f), depth + done.vary(0.008)))
        done.seams[number] = _Eased(old.at, old.fold, spots, _INCH / max(line.length, S))


def _along(done: Sewn, seam: int, f: Fault) -> float:
    line = done.table.model.places.seams[seam]
    (x, y), (sx, sy) = f.feature.at, line.start
    return float(min(1.0, max(0.0, np.hypot(x - sx, y - sy) / line.length)))
