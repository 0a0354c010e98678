"""How many units will have something to trim, by a quilter's own seam and cutting.

Source: docs/theory, section 5.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtr, owens_t

from ..lengths import Length
from ..units.method import Cuts, Method
from ..units.spec import UnitSpec

__all__ = ["WANTED_SHARE", "Floats", "QuilterRecord", "room_share"]


Floats = NDArray[np.float64]


WANTED_SHARE = 0.99
"""The share of units that should have something to trim on all four sides."""


_NODES, _RAW_WEIGHTS = np.polynomial.hermite_e.hermegauss(40)


_WEIGHTS = _RAW_WEIGHTS / np.sqrt(2 * np.pi)


@dataclass(frozen=True, slots=True)
class QuilterRecord:
    """A quilter's own seam and cutting, in inches: mean and spread of take-up, spread of cut size. ``mean_sd`` is what is not known of
    the mean (0: the spread of so many readings), ``hands`` how likely each kind of hands is by them, where the diagnosis tells kinds
    of hands apart."""

    take_up_mean: float
    take_up_sd: float
    cut_sd: float
    readings: int
    mean_sd: float = 0.0
    hands: tuple[float, ...] = ()


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
