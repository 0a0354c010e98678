"""What too much take-up in every seam costs a row. Source: docs/theory, section 4."""

from __future__ import annotations

from dataclasses import dataclass

from ..lengths import Length

__all__ = ["SeamCost", "seam_cost"]


@dataclass(frozen=True, slots=True)
class SeamCost:
    """What ``slip`` too much take-up in every inner seam costs a row of ``units``."""

    units: int
    seams: int
    slip: Length
    cost: Length


def seam_cost(across: int, slip: Length) -> SeamCost:
    """2(n - 1) times the slip, for a row of ``across`` units; of two, when there is but one."""
    units = max(2, across)
    return SeamCost(units, units - 1, slip, slip * (2 * (units - 1)))
