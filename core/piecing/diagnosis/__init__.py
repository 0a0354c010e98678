"""A block as it comes out, what its readings say of what went wrong, and what to do about it.

A row of units is a block of one row. Source: docs/theory, section 14.
"""

from .inference import Inference, infer, prior_of
from .model import OPEN_FOLD, BlockModel, model_of
from .placing import block_geometry
from .reading_kinds import ReadingKind
from .readings import Reading
from .verdict import Status, Verdict, judge

__all__ = [
    "OPEN_FOLD",
    "BlockModel",
    "Inference",
    "Reading",
    "ReadingKind",
    "Status",
    "Verdict",
    "block_geometry",
    "infer",
    "judge",
    "model_of",
    "prior_of",
]
