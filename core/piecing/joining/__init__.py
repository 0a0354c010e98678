"""Joining a block: in which order, which seams and crossings that makes, which way each is pressed, and the thread it takes."""

from .order import Order, Ordering, Step, check_sewable, order_of, orders, steps
from .pressing import Press, Pressed, PressingMap, Wishes, pressing_map
from .pressing_check import check_pressing
from .seams import BlockSeam, block_seams, meetings
from .thread import thread_needed

__all__ = [
    "BlockSeam",
    "Order",
    "Ordering",
    "Press",
    "Pressed",
    "PressingMap",
    "Step",
    "Wishes",
    "block_seams",
    "check_pressing",
    "check_sewable",
    "meetings",
    "order_of",
    "orders",
    "pressing_map",
    "steps",
    "thread_needed",
]
