"""The way to CP-SAT. The package takes seconds to load, so it is loaded when first asked for, or beforehand by ``warm``."""

from __future__ import annotations

from types import ModuleType
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from ortools.sat.python import cp_model

__all__ = ["Answered", "cp", "solve", "warm"]


def cp() -> ModuleType:
    """The module ``cp_model``."""
    from ortools.sat.python import cp_model

    return cp_model


def warm() -> None:
    """Load it now, so that the first question need not wait."""
    cp()


class Answered:
    """What the solver said: values by variable, whether the answer is the best there is, and the bound it proved."""

    def __init__(self, solver: Any, status: int) -> None:
        module = cp()
        self._solver = solver
        self.found = status in (module.OPTIMAL, module.FEASIBLE)
        self.optimal = status == module.OPTIMAL
        self.impossible = status == module.INFEASIBLE
        self.objective = round(solver.objective_value) if self.found else 0
        self.bound = round(solver.best_objective_bound) if self.found else 0

    def value(self, variable: Any) -> int:
        return int(self._solver.value(variable))

    def on(self, variable: cp_model.IntVar) -> bool:
        return bool(self._solver.value(variable))


def solve(model: cp_model.CpModel, seconds: float, *, seed: int = 1, linear: int = 2, workers: int = 1) -> Answered:
    """With one worker and a fixed seed the same question gets the same answer, if there is time for it."""
    solver = cp().CpSolver()
    solver.parameters.num_workers = workers
    solver.parameters.linearization_level = linear
    solver.parameters.random_seed = seed
    solver.parameters.max_time_in_seconds = seconds
    return Answered(solver, solver.solve(model))
