"""Exact lengths and areas: parse what people write, round to a ruler's step, set as fractions.

A ``Length`` is an exact number of inches (see ``surd``); millimetres convert exactly, 1 in. = 25.4 mm.
Measured data are lengths too: a reading of 3 15/16 is exactly 63/16 in., its uncertainty lives elsewhere.
"""

from .area import Area
from .format import AlongSeam, Measure, Style
from .length import LONGEST, ZERO, Length, hair, inches, mm
from .parse import parse_length, parse_step
from .usual import Usual, finest_mark, reads_round, round_size, usual

__all__ = [
    "LONGEST",
    "ZERO",
    "AlongSeam",
    "Area",
    "Length",
    "Measure",
    "Style",
    "Usual",
    "finest_mark",
    "hair",
    "inches",
    "mm",
    "parse_length",
    "parse_step",
    "reads_round",
    "round_size",
    "usual",
]
