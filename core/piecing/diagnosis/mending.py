"""What to do: for the row on the table, and for the rest of the batch. Figures, not only words.

Source: docs/theory.md, section 10.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from ..lengths import Length, inches
from ..planning import UnitPlan, pieces_said
from ..planning import plan as plan_unit
from ..seams import NARROWEST_ALLOWANCE
from ..wording import Said
from .inference import INTERVAL_90, Posterior
from .model import CAUSES, Cause
from .verdict import EASED, Status, Verdict

__all__ = ["Advice", "for_the_rest", "for_this_row"]

_FINE = inches("1/64")
_SHARED = inches("1/16")


@dataclass(frozen=True, slots=True)
class Advice:
    """One thing to do. ``row_becomes`` is the row length it leads to; ``why_not`` is set when it cannot be done."""

    code: str
    title: Said
    how: Said
    row_becomes: Length | None = None
    why_not: Said | None = None

    @property
    def possible(self) -> bool:
        return self.why_not is None


def _cause(posterior: Posterior, cause: Cause) -> float:
    return float(posterior.mean[CAUSES.index(cause)])


def for_this_row(plan: UnitPlan, posterior: Posterior, verdict: Verdict) -> tuple[Advice, ...]:
    """Remedies for a row of this length, the gentlest that works first, impossible ones last with the reason."""
    if verdict.status is Status.NO_READINGS:
        return ()
    target = plan.choices.row(verdict.row_units)
    deviation = Length.near(verdict.deviation)
    if abs(verdict.deviation) <= EASED:
        return (
            Advice(
                "ease_in",
                Said("Leave it"),
                Said("{off} over the whole row eases in under pins when it is joined.", off=abs(deviation)),
                target + deviation,
            ),
        )
    advice = [
        _sew_again(plan, posterior, verdict, target, deviation),
        _make_again(plan, posterior, verdict, target),
        _bring_down(plan, verdict, target, deviation),
    ]
    return tuple(sorted((a for a in advice if a), key=lambda a: not a.possible))


def _sew_again(plan: UnitPlan, posterior: Posterior, verdict: Verdict, target: Length, deviation: Length) -> Advice:
    inner = verdict.row_units - 1
    change = abs(deviation) / (2 * inner)
    now = plan.choices.seam_allowance + Length.near(_cause(posterior, Cause.SEAM))
    if deviation > Length.of(0):
        return Advice(
            "sew_deeper",
            Said("Sew the inner seams again, deeper"),
            Said(
                "Sew each of the {seams} inner seams again {change} further in, then press.", seams=inner, change=change
            ),
            target,
        )
    new = now - change
    why_not = None
    if new < NARROWEST_ALLOWANCE:
        why_not = Said(
            "That would leave {new} of allowance; below {least} cloth frays out of the seam.",
            new=new,
            least=NARROWEST_ALLOWANCE,
        )
    elif _cause(posterior, Cause.TRIM) < -float(_SHARED):
        why_not = Said("The units are more than {most} small: too much to share between seams.", most=_SHARED)
    return Advice(
        "sew_shallower",
        Said("Unpick the inner seams and sew them shallower"),
        Said(
            "Unpick {seams} seams and sew each {change} nearer the raw edge, {new} from it.",
            seams=inner,
            change=change,
            new=new,
        ),
        None if why_not else target,
        why_not,
    )


def _make_again(plan: UnitPlan, posterior: Posterior, verdict: Verdict, target: Length) -> Advice | None:
    if _cause(posterior, Cause.TRIM) > -float(_FINE):
        return None
    again = plan_unit(replace(plan.choices, count=verdict.row_units, mirrored=0))
    return Advice(
        "make_again",
        Said("Make these units again"),
        Said(
            "{units} units need {pieces}; trim them to {target}.",
            units=verdict.row_units,
            pieces=pieces_said(again.pieces),
            target=plan.target_width,
        ),
        target,
    )


def _bring_down(plan: UnitPlan, verdict: Verdict, target: Length, deviation: Length) -> Advice:
    row = target + deviation
    finished = (row - plan.choices.seam_allowance * 2) / verdict.row_units
    return Advice(
        "join_to_measure",
        Said("Keep it, and let its neighbours follow"),
        Said(
            "If every row comes out the same, each unit finishes {finished}. Cut what joins this row to {row}, not to the plan.",
            finished=finished,
            row=row,
        ),
        row,
    )


def for_the_rest(plan: UnitPlan, posterior: Posterior, verdict: Verdict) -> tuple[Advice, ...]:
    """Changes to guide, trim mark and cut before the next piece is sewn, each by its measured amount.

    Each rests on its own cause being sure; nothing is changed about the two that the readings leave in doubt.
    """
    if verdict.status is Status.NO_READINGS:
        return ()
    doubted = verdict.next_reading.between if verdict.next_reading else ()
    remedies = {Cause.SEAM: _move_guide, Cause.TRIM: _set_trim_mark, Cause.CUT: _cut_true}
    advice = (remedy(plan, posterior) for cause, remedy in remedies.items() if cause not in doubted)
    return tuple(a for a in advice if a)


def _sure_of(posterior: Posterior, cause: Cause) -> bool:
    """Larger than a hair, and its 90% interval keeps one sign."""
    estimate = posterior.estimates()[CAUSES.index(cause)]
    return abs(estimate.mean) >= float(_FINE) * 0.75 and estimate.low * estimate.high > 0


def _move_guide(plan: UnitPlan, posterior: Posterior) -> Advice | None:
    allowance = plan.choices.seam_allowance
    fold = max(0.0, _cause(posterior, Cause.FOLD))
    wanted = allowance - Length.near(fold / 2)
    # What is judged is the take-up as a whole, seam and fold together: that is what moving the guide corrects.
    mean, sd = posterior.along(np.array([1.0, 0.5, 0.0, 0.0]))
    move = Length.near(mean)
    if abs(move) < _FINE * 3 / 4 or abs(mean) < INTERVAL_90 * sd:
        return None
    nearer = move > Length.of(0)
    return Advice(
        "move_guide",
        Said("Move the needle or guide by {move}", move=abs(move)),
        Said(
            "Sew {way} the raw edge: stitches {wanted} from it. Then sew three strips cut {strip} wide and press; "
            "the middle one should read {middle}, all three {whole}.",
            way="nearer to" if nearer else "further from",
            wanted=wanted,
            strip=allowance * 6,
            middle=allowance * 4,
            whole=allowance * 14,
        ),
    )


def _set_trim_mark(plan: UnitPlan, posterior: Posterior) -> Advice | None:
    if not _sure_of(posterior, Cause.TRIM):
        return None
    off = _cause(posterior, Cause.TRIM)
    return Advice(
        "set_trim_mark",
        Said("Trim to {target}, not to {now}", target=plan.target_width, now=plan.target_width + Length.near(off)),
        Said(
            "Units come out {off} {way}. Look which mark of the ruler lies on the fresh edge, and check the next unit before the batch.",
            off=Length.near(abs(off)),
            way="small" if off < 0 else "large",
        ),
    )


def _cut_true(plan: UnitPlan, posterior: Posterior) -> Advice | None:
    if not _sure_of(posterior, Cause.CUT):
        return None
    off = _cause(posterior, Cause.CUT)
    return Advice(
        "cut_true",
        Said("Check the cutting: pieces of {cut}", cut=next(iter(plan.cuts.values()))),
        Said(
            "The raw units say that pieces were cut {off} {way}. Measure the next squares before sewing.",
            off=Length.near(abs(off)),
            way="small" if off < 0 else "large",
        ),
    )
