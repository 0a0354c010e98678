"""Plain cases at the bench as a teacher types them: a block, its readings in her words, and the verdict.

The figures are worked out by hand from the craft; nothing here computes one.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from piecing.blocks.library import library_pattern
from piecing.blocks.pattern import layout_of
from piecing.diagnosis.equations import RawSizes, raw_sizes
from piecing.diagnosis.inference import Inference, infer
from piecing.diagnosis.model import BlockModel, model_of
from piecing.diagnosis.placing import block_geometry
from piecing.diagnosis.reading_kinds import ReadingKind
from piecing.diagnosis.readings import Reading
from piecing.diagnosis.verdict import Verdict, judge
from piecing.lengths import Length, inches
from piecing.planning.plan import plan
from piecing.planning.unit_plan import Choices, UnitPlan
from piecing.units import methods_of

from .blocks import grid

__all__ = ["FOUR_BY_FOUR", "STAR", "Scene", "corner_units", "read", "scene", "seen"]


@dataclass(frozen=True)
class Scene:
    model: BlockModel
    raw: dict[int, RawSizes]
    plans: dict[int, UnitPlan]

    def infer(self, *readings: Reading) -> Inference:
        return infer(self.model, readings, raw=self.raw)

    def judge(self, *readings: Reading) -> Verdict:
        return judge(self.infer(*readings))

    def batch(self, kind: str) -> str:
        return next(b.key for b in self.model.places.batches if b.kind == kind)


def scene(pattern: object, finished: str) -> Scene:
    model = model_of(block_geometry(layout_of(pattern), inches(finished)), inches("1/4"))  # type: ignore[arg-type]
    plans = {b.number: plan(Choices(b.spec, methods_of(b.kind)[0].name)) for b in model.places.batches if not b.plain}
    return Scene(model, {n: raw_sizes(p) for n, p in plans.items()}, plans)


@lru_cache(maxsize=1)
def FOUR_BY_FOUR() -> Scene:  # noqa: N802
    """Sixteen half-square triangles finishing 3, the block 12."""
    unit = {"A": {"kind": "half_square_triangle", "fabrics": "ab"}}
    return scene(grid(["A0 A0 A0 A0"] * 4, unit), "12")


@lru_cache(maxsize=1)
def STAR() -> Scene:  # noqa: N802
    """A star with geese, finishing 12: a square of 6 in the middle, geese 6 by 3, squares of 3."""
    return scene(library_pattern("sawtooth_star"), "12")


@lru_cache(maxsize=1)
def corner_units() -> Scene:
    unit = {"A": {"kind": "corner_triangle", "fabrics": "abbbb", "corners": ["1/3", "1/3", "1/3", "1/3"]}}
    return scene(grid(["A0 A0", "A0 A0"], unit), "6")


def read(kind: str, *values: str, **where: str) -> list[Reading]:
    return [Reading(ReadingKind(kind), _length(v), **where) for v in values]  # type: ignore[arg-type]


def plain(said: object) -> str:
    return str(said).replace("\u00a0", " ")


def seen(kind: str) -> list[Reading]:
    return [Reading(ReadingKind(kind))]


def _length(text: str) -> Length:
    if text.startswith("-"):
        return -_length(text[1:])
    total = Length.of(0)
    for part in text.split():
        total = total + (inches(part) if part != "0" else Length.of(0))
    return total
