"""From a finished size to what to cut: choices, plans under every school, checks, notes, and what pieces at hand give.

Source: docs/theory/, planning.
"""

from ..units.notes import Note
from .holdings import Holding, parse_holdings, units_from
from .plan import SchoolOffer, offers, plan
from .room import QuilterRecord, room_share
from .schools import School, record_margin, school_cuts
from .seam import Seam, StripTest
from .unit_plan import Choices, CutPiece, UnitPlan

__all__ = [
    "Choices",
    "CutPiece",
    "Holding",
    "Note",
    "QuilterRecord",
    "School",
    "SchoolOffer",
    "Seam",
    "StripTest",
    "UnitPlan",
    "offers",
    "parse_holdings",
    "plan",
    "record_margin",
    "room_share",
    "school_cuts",
    "units_from",
]
