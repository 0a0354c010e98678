"""What is said of a plan as a whole: every way of making it side by side, and the ticket that lies beside the machine."""

from .compare import Comparison, Way, compare
from .ticket import Ticket, ticket

__all__ = ["Comparison", "Ticket", "Way", "compare", "ticket"]
