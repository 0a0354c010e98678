"""Blocks to a quilt: settings, arrangements, sashing, borders, backing, binding, and units laid out from scraps."""

from .backing import Backing, Binding
from .beside import SettingBeside, settings_beside
from .borders import QuiltPart, Round
from .by_rule import Sampled, SashStrip, StripCrossing, as_set, sampler, sashed_pattern
from .choices import BackingWay, Border, Corners, PlainPiece, QuiltChoices, Setting, block_spots
from .laid import Laid
from .pieced import PiecedRow, RowFit, Runs
from .scraps import Arrangement, arrange_scraps
from .sizes import QuiltSizes, quilt_sizes

__all__ = [
    "Arrangement",
    "Backing",
    "BackingWay",
    "Binding",
    "Border",
    "Corners",
    "Laid",
    "PiecedRow",
    "PlainPiece",
    "QuiltChoices",
    "QuiltPart",
    "QuiltSizes",
    "Round",
    "RowFit",
    "Runs",
    "Sampled",
    "SashStrip",
    "Setting",
    "SettingBeside",
    "StripCrossing",
    "arrange_scraps",
    "as_set",
    "block_spots",
    "quilt_sizes",
    "sampler",
    "sashed_pattern",
    "settings_beside",
]
