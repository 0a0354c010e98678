"""The way to CP-SAT. The package takes seconds to load, so it is loaded when first asked for, or beforehand by ``warm``."""

from __future__ import annotations

from collections.abc import Callable
from types import ModuleType
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from ortools.sat.python import cp_model

__all__ = ["Answered", "Stop", "cp", "linear", "solve", "warm"]


def cp() -> ModuleType:
    """The module ``cp_model``."""
    from ortools.sat.python import cp_model

    return cp_model


def linear() -> tuple[Callable[..., Any], Callable[..., Any]]:
    """SciPy's ``linprog`` (HiGHS) and ``lil_matrix``, loaded where a linear programme is first solved."""
    from scipy.optimize import linprog
    from scipy.sparse import lil_matrix

    return linprog, lil_matrix


def warm() -> None:
    """Load them now, so that the first question need not wait."""
    cp()
    linear()


class Stop:
    """Ends a search from another thread; what was found by then is the answer, and searches after it are short."""

    def __init__(self) -> None:
        self.asked = False
        self._solver: Any = None

    def now(self) -> None:
        """Asks for the best so far; a search under way ends within a moment."""
        self.asked = True
        if self._solver is not None:
            self._solver.stop_search()

    def watch(self, solver: Any) -> None:
        """The search that ``now`` ends."""
        self._solver = solver


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
        """What a variable came to."""
        return int(self._solver.value(variable))

    def on(self, variable: cp_model.IntVar) -> bool:
        """Whether a yes-or-no variable came to yes."""
        return bool(self._solver.value(variable))


def solve(
    model: cp_model.CpModel,
    seconds: float,
    *,
    seed: int = 1,
    linear: int = 2,
    workers: int = 1,
    stop: Stop | None = None,
    probing: bool = True,
    cuts: bool = True,
) -> Answered:
    """With one worker and a fixed seed the same question gets the same answer, if there is time for it.

    Without ``probing`` (and looking for symmetries) or ``cuts`` it begins sooner, for questions whose relaxation is nearly whole
    anyway; the answer costs the same, but need not be the same one of several as good.
    """
    solver = cp().CpSolver()
    solver.parameters.num_workers = workers
    solver.parameters.linearization_level = linear
    solver.parameters.random_seed = seed
    solver.parameters.use_lns = False
    if not probing:
        solver.parameters.symmetry_level = 0
        solver.parameters.cp_model_probing_level = 0
    if not cuts:
        solver.parameters.cut_level = 0
    solver.parameters.max_time_in_seconds = 0.1 if stop and stop.asked else seconds
    if stop:
        stop.watch(solver)
    return Answered(solver, solver.solve(model))
