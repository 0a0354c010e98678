"""What to do about a block as its readings make it, and what to change for the blocks not yet sewn.

Source: docs/theory, section 14.10.
"""

from .ranking import done_first, remedies_of
from .remedy import LEAVE, Remedy
from .settings import changes_for_the_rest

__all__ = ["LEAVE", "Remedy", "changes_for_the_rest", "done_first", "remedies_of"]
