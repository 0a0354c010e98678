"""What to do with the block on the table: every remedy with its figures.

Each remedy says what it does to the errors of units and seams, so that it can be tried on the drawing first.
Source: docs/theory.md, section 14.10.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from math import sqrt

import numpy as np

from ..lengths import Length, inches
from ..planning import UnitPlan, pieces_said
from ..planning import plan as plan_unit
from ..seams import NARROWEST_ALLOWANCE
from ..wording import Said
from .causes import Cause, parameters_of, shape_of
from .faults import EASED, SEEN, Fault, faults_of
from .inference import Inference
from .model import FeatureKind, BlockModel, Vector
from .places import batch_name

__all__ = ["Remedy", "deviations_after", "for_this_block"]

_MINUTES_UNPICK = 3
_MINUTES_SEW = 2
_MINUTES_UNIT = 6
_MINUTES_TRIM = 1


@dataclass(frozen=True)
class Remedy:
    """``errors`` is what the block's errors become (None when nothing of it can be drawn); ``left`` how many faults stay.

    ``minutes`` at the bench, ``pieces`` of cloth in words when new ones are cut; ``why_not`` when it cannot be done here.
    ``effect`` says what it does to the rest of the block. ``left`` is None when that cannot be told from sizes; ``fault`` the one
    fault that it takes away by itself; ``accepted`` what every edge may be off once that is the new size.
    """

    code: str
    title: Said
    how: Said
    effect: Said
    risk: Said
    minutes: int
    pieces: Said | None = None
    why_not: Said | None = None
    errors: Vector | None = None
    left: int | None = None
    width: float = 0.0
    fault: int = 0
    accepted: float = 0.0

    @property
    def possible(self) -> bool:
        return self.why_not is None


def for_this_block(
    found: Inference, plans: Mapping[int, UnitPlan] | None = None, *, most_faults: int = 12
) -> tuple[Remedy, ...]:
    """Every remedy that the faults of this block call for: those that can be done first, by what they leave and the minutes."""
    model, plans = found.model, plans or {}
    errors = sewn_errors(found)
    deviations = model.deviations(errors)
    faults = [f for f in faults_of(model, deviations) if not f.eased][:most_faults]
    offered: list[Remedy] = []
    for f in faults:
        match f.feature.kind:
            case FeatureKind.EDGE_TIP:
                offered += _edge_tip(model, errors, f)
            case FeatureKind.CORNER_TIP:
                offered += _corner_tip(model, errors, f)
            case FeatureKind.CROSSING:
                offered.append(_match(model, f))
            case _:
                pass
    offered += _short(model, errors, deviations)
    offered += _units(found, model, errors, plans)
    offered += _picture(found)
    if not faults:
        offered.insert(0, _leave(errors, deviations))
    return _ranked(model, offered, _counted(model, deviations))


def sewn_errors(found: Inference) -> Vector:
    """The block as the readings make it: the causes, and what single units and seams are known to stray by."""
    return np.asarray(shape_of(found.model) @ found.mean + found.errors)


def deviations_after(model: BlockModel, errors: Vector, accepted: float) -> Vector:
    """(features,): what is off once every edge may be ``accepted`` inches off, because that is the new size."""
    edges = np.array([f.kind in (FeatureKind.ROW, FeatureKind.COLUMN) for f in model.features], dtype=bool)
    return model.deviations(errors) - np.where(edges, accepted, 0.0)


def _counted(model: BlockModel, deviations: Vector) -> int:
    """Faults that pins do not ease in."""
    return sum(not f.eased for f in faults_of(model, deviations))


def _ranked(model: BlockModel, offered: list[Remedy], now: int) -> tuple[Remedy, ...]:
    """With what each leaves of the ``now`` faults, the best first."""
    counted = []
    for r in offered:
        if r.errors is None:
            counted.append(replace(r, left=now - 1) if r.possible and r.fault else r)
            continue
        deviations = model.deviations(r.errors)
        rows = [n for n, f in enumerate(model.features) if f.kind is FeatureKind.ROW]
        counted.append(
            replace(
                r,
                left=_counted(model, deviations_after(model, r.errors, r.accepted)),
                width=float(np.mean(deviations[rows])) if rows else 0.0,
            )
        )
    seen: set[str] = set()
    once = [r for r in counted if not (r.code in seen or seen.add(r.code))]  # type: ignore[func-returns-value]
    return tuple(sorted(once, key=lambda r: (not r.possible, now if r.left is None else r.left, r.minutes)))


def _leave(errors: Vector, deviations: Vector) -> Remedy:
    off = float(np.abs(deviations).max(initial=0.0))
    return Remedy(
        "leave",
        Said("Leave it"),
        Said("The most that anything is off is {off}; pins ease that in.", off=Length.near(off)),
        Said("Nothing changes."),
        Said("none"),
        0,
        errors=errors,
    )


def _seam_now(model: BlockModel, errors: Vector, seam: int, spot: str) -> float:
    """Stitching distance there, inches."""
    return float(model.allowance) + float(errors[model.of_seam(seam, "mean")] + errors[model.of_seam(seam, spot)])


def _spot(model: BlockModel, seam: int, at: tuple[float, float]) -> str:
    t = model.places.seams[seam].along(at)
    return "start" if t < 0.25 else "end" if t > 0.75 else "middle"


def _edge_tip(model: BlockModel, errors: Vector, f: Fault) -> Iterator[Remedy]:
    cell, seam = model.places.cells[f.feature.cell], f.feature.seam
    spot = _spot(model, seam, f.feature.at)
    now = _seam_now(model, errors, seam, spot)
    after = errors.copy()
    after[model.of_seam(seam, spot)] += f.size
    size = Length.near(abs(f.size))
    name = model.places.seams[seam].name
    if f.size > 0:
        too_much = f.size > EASED + 1e-9
        yield Remedy(
            f"deeper:{f.feature.key}",
            Said(f"Sew {name} again, {{size}} deeper at the tip", size=size),
            Said(
                f"At {cell.name} start an inch before the tip, ease in to {{deep}} from the raw edge at the tip, and out "
                "again over an inch.",
                deep=Length.near(now + f.size),
            ),
            Said("The row loses up to {twice} there.", twice=size * 2),
            Said("small: nothing is unpicked" if not too_much else "it puckers"),
            _MINUTES_SEW,
            why_not=Said("More than {most} cannot be eased in on one spot.", most=Length.near(EASED))
            if too_much
            else None,
            errors=None if too_much else after,
            fault=f.number,
        )
        yield Remedy(
            f"press_toward:{f.feature.key}",
            Said("Press the seam toward the loose side"),
            Said(
                f"At {cell.name}, press the seam at its {f.feature.edge} toward the tip: the fold hides a hair of the gap."
            ),
            Said("Nothing else moves."),
            Said("none, and it hides no more than {hair}", hair=inches("1/64")),
            1,
            why_not=None if f.size <= SEEN * 1.5 else Said("The gap of {size} is more than a fold hides.", size=size),
            fault=f.number,
        )
        return
    new = now + f.size
    shallow = new < float(NARROWEST_ALLOWANCE) - 1e-9
    yield Remedy(
        f"shallower:{f.feature.key}",
        Said(f"Unpick {name} at the tip and sew it {{size}} shallower", size=size),
        Said(
            f"Unpick two inches of {name} at {cell.name}, an inch either side of the tip, and sew it {{new}} from the raw "
            "edge at the tip.",
            new=Length.near(new),
        ),
        Said("The row gains up to {twice} there.", twice=size * 2),
        Said("the cloth is handled once more; less allowance is left"),
        _MINUTES_UNPICK + _MINUTES_SEW,
        why_not=Said(
            "That leaves {new} of allowance; below {least} cloth frays out of the seam.",
            new=Length.near(max(0.0, new)),
            least=NARROWEST_ALLOWANCE,
        )
        if shallow
        else None,
        errors=None if shallow else after,
        fault=f.number,
    )
    yield Remedy(
        f"deeper:{f.feature.key}",
        Said("Sew that seam deeper"),
        Said("A deeper seam takes more off the tip."),
        Said("It would be cut off further."),
        Said("-"),
        0,
        why_not=Said("A tip that is cut off is never mended by a deeper seam."),
        fault=f.number,
    )


def _corner_tip(model: BlockModel, errors: Vector, f: Fault) -> Iterator[Remedy]:
    """Where a diagonal misses its corner: one of the two seams made deeper there, or the unit trimmed again."""
    cell = model.places.cells[f.feature.cell]
    down, across = f.feature.edge.split()
    side = down if f.size > 0 else across
    seam = cell.seam(side)
    if seam is None:
        return
    spot = _spot(model, seam, f.feature.at)
    after = errors.copy()
    after[model.of_seam(seam, spot)] += abs(f.size)
    size, name = Length.near(abs(f.size)), model.places.seams[seam].name
    too_much = abs(f.size) > EASED + 1e-9
    yield Remedy(
        f"deeper:{f.feature.key}",
        Said(f"Sew {name} {{size}} deeper at that corner", size=size),
        Said(
            f"At {cell.name}, {f.feature.edge} corner: sew {name} again {{deep}} from the raw edge there, easing in and out "
            "over an inch.",
            deep=Length.near(_seam_now(model, errors, seam, spot) + abs(f.size)),
        ),
        Said(
            "It costs up to {twice} of length there, and moves the neighbour's corner by {size}.",
            twice=size * 2,
            size=size,
        ),
        Said("small: nothing is unpicked"),
        _MINUTES_SEW,
        why_not=Said("More than {most} cannot be eased in on one spot.", most=Length.near(EASED)) if too_much else None,
        errors=None if too_much else after,
        fault=f.number,
    )


def _match(model: BlockModel, f: Fault) -> Remedy:
    seam = model.places.seams[f.feature.seam]
    size = Length.near(abs(f.size))
    return Remedy(
        f"match:{f.feature.key}",
        Said(f"Unpick {seam.name} at the crossing and pin it to match"),
        Said(
            "Unpick an inch and a half either side of crossing {n}, pin through both seams, and ease the {size} in on both "
            "sides.",
            n=f.feature.nth,
            size=size,
        ),
        Said("The step goes; the longer side is held in by {half} on each side of it.", half=size / 2),
        Said("a pucker, if the cloth does not give"),
        _MINUTES_UNPICK + _MINUTES_SEW,
        why_not=None
        if abs(f.size) <= 2 * EASED
        else Said(
            "A step of {size} is more than pins ease in; the units beside it are to be put right first.", size=size
        ),
        fault=f.number,
    )


def _short(model: BlockModel, errors: Vector, deviations: Vector) -> Iterator[Remedy]:
    """For a block that is small or large as a whole: its seams sewn anew, or everything that joins it brought to its size."""
    rows = [n for n, f in enumerate(model.features) if f.kind is FeatureKind.ROW]
    columns = [n for n, f in enumerate(model.features) if f.kind is FeatureKind.COLUMN]
    if not rows:
        return
    off = float(np.mean(deviations[rows + columns]))
    if abs(off) <= EASED:
        return
    ones = np.zeros(model.errors)
    for k in range(len(model.places.seams)):
        ones[model.of_seam(k, "mean")] = 1.0
    per_inch = float(np.mean((model.matrix @ ones)[rows + columns]))
    upright = sum(s.upright for s in model.places.seams)
    if per_inch < -0.5:
        change = -off / per_inch
        mean_seam = float(model.allowance) + float(
            np.mean([errors[model.of_seam(k, "mean")] for k in range(len(model.places.seams))])
        )
        new = mean_seam + change
        after = errors + ones * change
        shallow = new < float(NARROWEST_ALLOWANCE) - 1e-9
        seams = len(model.places.seams)
        yield Remedy(
            "all_seams",
            Said("Sew every joining seam again, deeper")
            if change > 0
            else Said("Unpick the joining seams and sew them shallower"),
            Said(
                f"{seams} seams, {upright} of them upright: each {{new}} from the raw edge, {{change}} "
                + ("further in." if change > 0 else "nearer to it."),
                new=Length.near(max(0.0, new)),
                change=Length.near(abs(change)),
            ),
            Said("The block comes to its size; edge tips move by {change}.", change=Length.near(abs(change))),
            Said("every seam is handled again; bias edges may stretch" if change < 0 else "small"),
            seams * (_MINUTES_SEW + (_MINUTES_UNPICK if change < 0 else 0)),
            why_not=Said(
                "That would leave {new} of allowance; below {least} cloth frays out of the seam.",
                new=Length.near(max(0.0, new)),
                least=NARROWEST_ALLOWANCE,
            )
            if shallow
            else None,
            errors=None if shallow else after,
        )
    raw = model.places.finished + model.allowance * 2
    measured = raw + Length.near(off)
    yield Remedy(
        "bring_down",
        Said("Bring the set to this size") if off < 0 else Said("Let its neighbours follow"),
        Said(
            "Trim every block to {size}, raw edge to raw edge, and cut sashing and borders to what is then measured: each "
            "block finishes {finished}.",
            size=measured,
            finished=measured - model.allowance * 2,
        ),
        Said(
            "Every block of the quilt changes by {off}; its outer tips keep their allowance.", off=Length.near(abs(off))
        ),
        Said("none for this block, if no other is smaller still"),
        _MINUTES_TRIM * 4,
        errors=errors,
        accepted=off,
    )
    if off < 0:
        strip = Length.near(-off / 2) + model.allowance * 2 + inches("1/4")
        yield Remedy(
            "frame",
            Said("Sew a narrow strip round the block and trim to size"),
            Said(
                "Cut strips {strip} wide, sew them round, and trim the block to {size}.",
                strip=strip.round_up(inches("1/8")),
                size=raw,
            ),
            Said("The block comes to its size with a frame {width} wide inside its seam.", width=Length.near(-off / 2)),
            Said("a frame narrower than {least} looks like a mistake", least=inches("1/4")),
            4 * _MINUTES_SEW + 6,
            why_not=None if -off / 2 >= 1 / 8 else Said("Only {width} of it would show.", width=Length.near(-off / 2)),
        )


def _units(found: Inference, model: BlockModel, errors: Vector, plans: Mapping[int, UnitPlan]) -> Iterator[Remedy]:
    """For batches trimmed wrong: trimmed again while there is cloth, else made again, with pieces and minutes."""
    params = parameters_of(model)
    for n, p in enumerate(params):
        if p.cause not in (Cause.TRIM, Cause.SHIFT, Cause.TIP):
            continue
        low, high = found.interval(n)
        off = float(found.mean[n])
        if low * high <= 0 or abs(off) < SEEN / 2:
            continue
        batch = model.places.batches[p.batch]
        name = batch_name(model.places, p.batch)
        after = errors - shape_of(model)[:, n] * off
        plan = plans.get(p.batch)
        yield _trim_again(found, model, p.cause, p.batch, name, off, after)
        if p.cause is Cause.TRIM and off < 0:
            yield _shared(model, errors, n, p.batch, name, off)
        again = plan_unit(replace(plan.choices, count=batch.count, mirrored=0)) if plan else None
        yield Remedy(
            f"make_again:{p.batch}",
            Said(f"Make the {name} of this block again"),
            Said(
                "Unpick them, and make {count} new ones; trim them to {target}, seam on the ruler's line.",
                count=batch.count,
                target=batch.spec.width + model.allowance * 2,
            ),
            Said("Only these units and their seams are touched."),
            Said("cloth and time; the old units stay as spares for a smaller size"),
            batch.count * (_MINUTES_UNIT + _MINUTES_UNPICK),
            pieces=pieces_said(again.pieces) if again else None,
            errors=after,
        )


def _shared(model: BlockModel, errors: Vector, n: int, batch: int, name: str, off: float) -> Remedy:
    """Units a little short: what is missing shared between the seams beside them, made shallower."""
    beside = {k for c in model.places.cells if c.batch == batch for k in c.seams if k is not None}
    less = np.zeros(model.errors)
    for k in beside:
        less[model.of_seam(k, "mean")] = -1.0
    lengths = [k for k, f in enumerate(model.features) if f.kind in (FeatureKind.ROW, FeatureKind.COLUMN)]
    gained = float(np.mean((model.matrix @ less)[lengths])) if lengths else 0.0
    missing = float(np.mean((model.matrix @ shape_of(model)[:, n])[lengths])) * off if lengths else 0.0
    change = -missing / gained if gained > 1e-9 else 0.0
    now = float(model.allowance) + float(np.mean([errors[model.of_seam(k, "mean")] for k in beside])) if beside else 0.0
    new = Length.near(max(0.0, now - change))
    why_not = None
    if abs(off) > EASED + 1e-9:
        why_not = Said(
            "They are short by {off}; more than {most} is made again.", off=Length.near(-off), most=Length.near(EASED)
        )
    elif not beside or gained <= 1e-9:
        why_not = Said("No seam lies beside them yet: sew that one shallower when they are joined.")
    elif now - change < float(NARROWEST_ALLOWANCE) - 1e-9:
        why_not = Said(
            "That leaves {new} of allowance; below {least} cloth frays out of the seam.",
            new=new,
            least=NARROWEST_ALLOWANCE,
        )
    return Remedy(
        f"share:{batch}",
        Said(f"Share what the {name} are short between the seams beside them"),
        Said(
            "Unpick these {seams} seams and sew each {change} shallower, {new} from the raw edge.",
            seams=len(beside),
            change=Length.near(change),
            new=new,
        ),
        Said(
            "Rows and columns come to their length; edge tips at these seams float {change} more.",
            change=Length.near(change),
        ),
        Said("bias edges stretch while seams are unpicked"),
        len(beside) * (_MINUTES_SEW + _MINUTES_UNPICK),
        why_not=why_not,
        errors=None if why_not else errors + less * change,
    )


def _picture(found: Inference) -> Iterator[Remedy]:
    """What the eye found: nothing of it is a matter of sizes."""
    likely = {h.code for h in found.hypotheses if h.probability >= 0.3}
    if "turned_unit" in likely:
        yield Remedy(
            "unpick_turned",
            Said("Unpick the unit that lies turned"),
            Said(
                "Lay the block beside its picture (Look it over finds it), unpick that unit's seams, turn it and sew it in again."
            ),
            Said("Sizes stay; its neighbours' seams are sewn once more."),
            Said("unpick before pressing, if it is not pressed yet"),
            4 * _MINUTES_UNPICK + 4 * _MINUTES_SEW,
        )
    if "wrong_hand" in likely:
        yield Remedy(
            "other_hand",
            Said("Put a unit of the other hand there"),
            Said(
                "No turn puts a mirror image right. Unpick it, keep it for a place that asks for its hand, and make one from loose triangles."
            ),
            Said("Sizes stay."),
            Said("cloth for one unit"),
            4 * _MINUTES_UNPICK + 4 * _MINUTES_SEW + _MINUTES_UNIT,
        )


def _trim_again(
    found: Inference, model: BlockModel, cause: Cause, batch: int, name: str, off: float, after: Vector
) -> Remedy:
    size = Length.near(abs(off))
    code = f"trim_again:{batch}:{cause.value}"
    if cause is Cause.TRIM and off > 0:
        return Remedy(
            code,
            Said(f"Trim the {name} again"),
            Said(
                "Unpick them and trim each to {target}: {size} comes off, half on each side.",
                size=size,
                target=model.places.batches[batch].spec.width + model.allowance * 2,
            ),
            Said("Their rows come to their length."),
            Said("bias edges stretch while they are unpicked"),
            model.places.batches[batch].count * (_MINUTES_TRIM + _MINUTES_UNPICK),
            errors=after,
        )
    # Moved by o square to the diagonal, the trim's box loses o / r2 on each of four sides: r2 o of width and of height.
    smaller = Length.near(abs(off) * sqrt(2)) if cause is Cause.SHIFT else size
    trim = [p.key for p in found.parameters].index(f"trim:{batch}")
    spare = float(found.mean[trim])
    why_not = None
    if cause is Cause.TRIM:
        why_not = Said("They are too small: trimming adds nothing.")
    elif cause is Cause.TIP and off < 0:
        why_not = Said("The tip stands too near the edge: trimming only brings the edge nearer.")
    elif spare < float(smaller) - SEEN / 2:
        why_not = Said("{size} would have to come off, and they are trimmed to size already.", size=smaller)
    return Remedy(
        code,
        Said(f"Trim the {name} true again"),
        Said("Lay the ruler's line on the seam and take {size} off the fuller side.", size=smaller),
        Said("They come {size} smaller, which they have to spare.", size=smaller),
        Said("bias edges stretch while they are unpicked"),
        model.places.batches[batch].count * (_MINUTES_TRIM + _MINUTES_UNPICK),
        why_not=why_not,
        errors=None if why_not else after - shape_of(model)[:, trim] * float(smaller),
    )
