"""Everything drawn, computed from plans, blocks and readings: units, blocks, backs, quilts, cloth, blocks as sewn, ladders."""

from .as_sewn import as_sewn
from .back import back_picture
from .block import apart_picture, block_picture, side_by_side
from .ladder import Ladder, ladders
from .quilt import quilt_picture
from .symptom import symptom_picture
from .unit import UnitPictures, pictures

__all__ = [
    "Ladder",
    "UnitPictures",
    "apart_picture",
    "as_sewn",
    "back_picture",
    "block_picture",
    "ladders",
    "pictures",
    "quilt_picture",
    "side_by_side",
    "symptom_picture",
]
