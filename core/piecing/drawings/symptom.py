"""What one may see, drawn, and how it should look."""

from __future__ import annotations

from dataclasses import replace
from functools import lru_cache

import numpy as np

from ..blocks.library import library_pattern
from ..blocks.pattern import Orientation, Pattern, layout_of
from ..diagnosis.model import model_of
from ..diagnosis.placing import block_geometry
from ..diagnosis.symptoms import end_of
from ..diagnosis.whatif import errors_of
from ..geometry.drawing import Drawing
from ..lengths import inches
from ..messages import Message
from .as_sewn import as_sewn

__all__ = ["symptom_picture"]


_SIZES = {"sawtooth_star": "10", "lantern": "21/2", "pinwheel": "8", "split_whirl": "8"}


@lru_cache(maxsize=64)
def symptom_picture(code: str, *, true: bool = False) -> Drawing:
    """How it looks, or, when ``true``, how it should look. Raises ``KeyError`` for a symptom there is none of."""
    symptom = end_of(code)
    if symptom is None:
        raise KeyError(code)
    pattern = library_pattern(symptom.block)
    if symptom.turned and not true:
        pattern = _one_wrong(pattern, mirrored=symptom.code == "hand")
    model = model_of(block_geometry(layout_of(pattern), inches(_SIZES[symptom.block])), inches("1/4"))
    errors = np.zeros(model.errors) if true else errors_of(model, symptom.causes)
    drawing = as_sewn(model, errors, factor=2.0)
    shown = Message(
        "How it should look: {name}." if true else "{seen}: {name}, drawn larger than it is.",
        name=pattern.name,
        seen=symptom.said,
    )
    return replace(drawing, alt=shown)


def _one_wrong(pattern: Pattern, *, mirrored: bool) -> Pattern:
    """The block with one unit lying wrong."""
    first, *rest = pattern.places
    orientation = (
        Orientation(first.orientation.turn, not first.orientation.mirrored)
        if mirrored
        else Orientation((first.orientation.turn + 1) % 4, first.orientation.mirrored)
    )
    return replace(pattern, places=(replace(first, orientation=orientation), *rest))
