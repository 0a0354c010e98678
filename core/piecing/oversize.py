"""Schools of oversizing: how much larger than bare need to cut, so that a unit can be trimmed true.

A school names cut sizes; each is then rounded up to what the ruler shows. No school goes below the bare sizes, so a
higher school never leaves less margin. Source: docs/theory.md, section 5.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from functools import lru_cache
from itertools import count

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtr, owens_t

from .errors import NoMarginGiven, RecordsTooFew
from .lengths import ZERO, Length
from .units.method import Cuts, Method
from .units.spec import UnitSpec

__all__ = [
    "WANTED_SHARE",
    "QuilterRecord",
    "School",
    "record_cuts",
    "record_margin",
    "room_share",
    "rounded",
    "school_cuts",
]

Floats = NDArray[np.float64]
WANTED_SHARE = 0.99
"""The share of units that should have something to trim on all four sides."""
_NODES, _WEIGHTS = np.polynomial.hermite_e.hermegauss(40)
_WEIGHTS = _WEIGHTS / np.sqrt(2 * np.pi)


class School(StrEnum):
    EXACT = "exact"
    LITTLE = "little"
    GENEROUS = "generous"
    OWN_MARGIN = "own_margin"
    RECORDS = "records"


@dataclass(frozen=True, slots=True)
class QuilterRecord:
    """A quilter's own seam and cutting, in inches: mean and spread of take-up, spread of cut size."""

    take_up_mean: float
    take_up_sd: float
    cut_sd: float
    readings: int


def room_share(
    method: Method, spec: UnitSpec, cuts: Cuts, allowance: Length, record: QuilterRecord, *, top: bool = True
) -> float:
    """Share of units with something left on all four sides (on three, when the ``top`` needs nothing).

    One seam is common to a unit: it is integrated over by Gauss-Hermite quadrature (40 nodes). Every cut size errs by
    itself, across and along, so that left and right, and bottom and top, are two pairs of normals, independent of each
    other once the seam is given.
    """
    take_up = Length.near(record.take_up_mean)
    base = _sides(method, spec, cuts, allowance, take_up)
    seam, sizes = _slopes(method, spec, cuts, allowance)
    if not top:
        base = np.append(base[:3], base[2])
        seam, sizes = np.append(seam[:3], seam[2]), np.hstack([sizes[:, :3], sizes[:, 2:3]])
    margins = base + record.take_up_sd * np.outer(_NODES, seam)
    both = _pair(margins[:, :2], record.cut_sd * sizes[:, :2]) * _pair(margins[:, 2:], record.cut_sd * sizes[:, 2:])
    return min(1.0, max(0.0, float(both @ _WEIGHTS)))


def _sides(method: Method, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Floats:
    return np.array([float(m) for m in method.margins(spec, cuts, allowance, take_up).sides])


@lru_cache(maxsize=256)
def _slopes(method: Method, spec: UnitSpec, cuts: Cuts, allowance: Length) -> tuple[Floats, Floats]:
    """What an inch of take-up, and an inch of each cut size, does to each margin: exact, since margins are linear."""
    inch = Length.of(1)
    base = _sides(method, spec, cuts, allowance, inch)
    seam = _sides(method, spec, cuts, allowance, inch * 2) - base
    sizes = [_sides(method, spec, cuts.but(**{n: size + inch}), allowance, inch) - base for n, size in cuts.items()]
    return seam, np.array(sizes)


def _pair(margins: Floats, slopes: Floats) -> Floats:
    """Probability that both of two normals are above zero; ``margins`` (nodes, 2) are their means."""
    spread = np.maximum(np.sqrt((slopes**2).sum(axis=0)), 1e-6)
    h, k = (margins / spread).T
    rho = float(slopes[:, 0] @ slopes[:, 1] / (spread[0] * spread[1]))
    if rho > 1 - 1e-9:
        return np.asarray(ndtr(np.minimum(h, k)))
    if rho < -1 + 1e-9:
        return np.asarray(np.maximum(0.0, ndtr(h) + ndtr(k) - 1))
    if abs(rho) < 1e-9:
        return np.asarray(ndtr(h) * ndtr(k))
    # Owen's formula for the bivariate normal; his T function does not mind a denominator near zero, but does mind zero.
    h, k = np.where(h == 0, 1e-12, h), np.where(k == 0, 1e-12, k)
    root = np.sqrt(1 - rho**2)
    t = owens_t(h, (k / h - rho) / root) + owens_t(k, (h / k - rho) / root)
    return np.asarray((ndtr(h) + ndtr(k)) / 2 - t - np.where(h * k < 0, 0.5, 0.0))


def rounded(method: Method, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length, step: Length) -> Cuts:
    """Every size up to the ruler's step, but for those that follow from others."""
    up = Cuts((name, size if name in method.templated else size.round_up(step)) for name, size in cuts.items())
    return method.settled(spec, cuts, up, (allowance, take_up), step)


def record_margin(method: Method, spec: UnitSpec, allowance: Length, record: QuilterRecord, step: Length) -> Length:
    """The margin to plan so that at least 99 in 100 units have room on all four sides, in eighths of the ruler's step.

    It hardly depends on the size of the unit: scatter does not grow with it.
    """
    take_up = Length.near(record.take_up_mean)
    cuts = Cuts()
    for n in count():
        wider = rounded(method, spec, method.bare(spec, allowance, take_up, step * n / 8), allowance, take_up, step)
        if wider != cuts and room_share(method, spec, wider, allowance, record) >= WANTED_SHARE:
            return step * n / 8
        cuts = wider
    raise AssertionError("unreachable")


def record_cuts(method: Method, spec: UnitSpec, allowance: Length, record: QuilterRecord | None, step: Length) -> Cuts:
    """The smallest ruler-friendly sizes at which at least 99 in 100 units have room on all four sides."""
    if record is None:
        raise RecordsTooFew(
            "There are not enough readings of your own seam yet. Measure three seams on the back, or sew a strip test.",
            field="school",
        )
    margin = record_margin(method, spec, allowance, record, step)
    take_up = Length.near(record.take_up_mean)
    return rounded(method, spec, method.bare(spec, allowance, take_up, margin), allowance, take_up, step)


def school_cuts(
    school: School,
    method: Method,
    spec: UnitSpec,
    allowance: Length,
    take_up: Length,
    step: Length,
    *,
    own_margin: Length | None = None,
    record: QuilterRecord | None = None,
) -> Cuts:
    """The cut sizes of a school, on the ruler's step.

    Raises ``NoMarginGiven`` when the school is one's own margin and none is given, ``RecordsTooFew``
    when it is one's records and there are none.
    """
    bare = method.bare(spec, allowance, take_up)
    match school:
        case School.EXACT:
            wanted = bare
        case School.RECORDS:
            return record_cuts(method, spec, allowance, record, step)
        case School.OWN_MARGIN:
            if own_margin is None or own_margin < ZERO:
                raise NoMarginGiven("Say how much should come off each side, such as 1/16.", field="own_margin")
            wanted = method.bare(spec, allowance, take_up, own_margin)
        case _:
            rule = method.rule(spec, allowance, 1 if school is School.LITTLE else 2)
            wanted = Cuts((name, max(size, rule[name])) for name, size in bare.items())
    return rounded(method, spec, wanted, allowance, take_up, step)
