"""Blocks to a quilt: settings, sashing, borders, backing, binding, and units laid out from scraps."""

from .backing import Backing, Binding
from .choices import Border, Corners, PlainPiece, QuiltChoices, Setting, block_spots
from .laid import Laid
from .scraps import Arrangement, arranged
from .sizes import QuiltSizes, quilt_sizes

__all__ = [
    "Arrangement",
    "Backing",
    "Binding",
    "Border",
    "Corners",
    "Laid",
    "PlainPiece",
    "QuiltChoices",
    "QuiltSizes",
    "Setting",
    "arranged",
    "block_spots",
    "quilt_sizes",
]
