"""What to change for the blocks not yet sewn: guide, marks, cut and handling, each by its measured amount and only when sure.

Source: docs/theory.md, section 14.10.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

import numpy as np

from ..lengths import Length
from ..wording import Said
from .causes import Cause, parameters_of, scatter_of, shape_of
from .inference import Inference
from .model import FeatureKind, Vector
from .places import batch_name
from .remedies import Remedy

__all__ = ["for_the_batch"]


def for_the_batch(found: Inference) -> tuple[Remedy, ...]:
    """Changes to guide, mark, cut and pressing for the blocks not yet sewn, with what they then come to. Only what is sure."""
    model, params = found.model, parameters_of(found.model)
    after_mean = found.mean.copy()
    offered: list[Remedy] = []
    at = {p.key: n for n, p in enumerate(params)}
    seam, fold = at["seam"], at["fold"]
    take_up = np.zeros(len(params))
    take_up[seam], take_up[fold] = 1.0, 0.5
    taken = found.draws @ take_up
    low, high = np.quantile(taken, (0.05, 0.95))
    mean = float(taken.mean())
    allowance = model.allowance
    if low * high > 0 and abs(mean) >= 1 / 96:
        wanted = float(allowance) - max(0.0, float(found.mean[fold])) / 2
        after_mean[seam] = wanted - float(allowance)
        offered.append(
            Remedy(
                "move_guide",
                Said("Move the needle or guide by {move}", move=Length.near(abs(mean))),
                Said(
                    f"Sew {'nearer to' if mean > 0 else 'further from'} the raw edge: stitches {{wanted}} from it. Then sew "
                    "three strips cut {strip} wide and press; the middle one should read {middle}, all three {whole}.",
                    wanted=Length.near(wanted),
                    strip=allowance * 6,
                    middle=allowance * 4,
                    whole=allowance * 14,
                ),
                Said(""),
                Said("sew the strip test before anything else"),
                10,
            )
        )
    for key, where in (("start", "start"), ("end", "end")):
        n = at[key]
        lo, hi = found.interval(n)
        if lo * hi > 0 and abs(found.mean[n]) >= 1 / 64:
            offered.append(
                Remedy(
                    f"hold_{key}",
                    Said(f"Hold the work at the {where} of each seam"),
                    Said(
                        f"Seams drift by {{size}} at their {where}. Begin on a scrap, sew over the {where} slowly, and keep "
                        "the edge on the guide to the last stitch.",
                        size=Length.near(abs(float(found.mean[n]))),
                    ),
                    Said(""),
                    Said("none"),
                    0,
                )
            )
            after_mean[n] = 0.0
    offered += _marks(found, after_mean)
    predicted = model.deviations(np.asarray(shape_of(model) @ after_mean))
    sd = np.sqrt(((model.matrix * scatter_of(model)) ** 2).sum(axis=1))
    rows = [n for n, f in enumerate(model.features) if f.kind is FeatureKind.ROW]
    width = float(np.mean(predicted[rows])) if rows else 0.0
    spread = float(np.mean(sd[rows])) if rows else 0.0
    size = model.places.finished + allowance * 2
    said = Said(
        "The next block then measures {size}, give or take {spread}.",
        size=size + Length.near(width),
        spread=Length.near(spread),
    )
    return tuple(replace(r, effect=said if not r.effect.template else r.effect, width=width) for r in offered)


def _marks(found: Inference, after: Vector) -> Iterator[Remedy]:
    model = found.model
    for n, p in enumerate(parameters_of(model)):
        low, high = found.interval(n)
        off = float(found.mean[n])
        if p.batch < 0 or low * high <= 0 or abs(off) < 1 / 80:
            continue
        name, size = batch_name(model.places, p.batch), Length.near(abs(off))
        target = model.places.batches[p.batch].spec.width + model.allowance * 2
        after[n] = 0.0
        match p.cause:
            case Cause.TRIM:
                title = Said(
                    f"Trim the {name} to {{target}}, not to {{now}}", target=target, now=target + Length.near(off)
                )
                how = Said(
                    "Look which mark of the ruler lies on the fresh edge, and check the next unit before the batch."
                )
            case Cause.SHIFT:
                title = Said(f"Lay the ruler's line on the seam of the {name}")
                how = Said(
                    "They were trimmed {size} off it. Set the line on the seam from corner to corner, trim two sides, turn, "
                    "and set it on the seam again before the other two.",
                    size=size,
                )
            case Cause.TIP:
                title = Said(f"Leave {{s}} above the tip of the {name}", s=model.allowance)
                how = Said(
                    "They were trimmed with {now}. Set the ruler's mark on the tip first, then trim the top.",
                    now=model.allowance + Length.near(off),
                )
            case Cause.CUT:
                title = Said(f"Check the pieces cut for the {name}")
                how = Said(
                    f"They are {{size}} too {'small' if off < 0 else 'large'}. Measure the next ones before sewing.",
                    size=size,
                )
            case _:
                title = Said(f"Handle the {name} less on the bias")
                how = Said(
                    "They are drawn out by {size}. Starch before cutting, press up and down, and sew with the bias side below.",
                    size=size,
                )
        yield Remedy(f"{p.cause.value}:{p.batch}", title, how, Said(""), Said("none"), 2)
