"""What to buy, at once and then better: a first answer soon, the proven one looked for behind it and kept by what it depends on.

Where searches run apart (``cutting.apart``) nobody waits for the second; everywhere else it is looked for at once.
"""

from __future__ import annotations

import threading
from collections import OrderedDict
from collections.abc import Callable

from piecing.cutting import WantedPiece
from piecing.cutting.buying import Purchase, Shop, purchases

from . import apart

__all__ = ["Purchasing", "purchasing"]

Wanted = tuple[WantedPiece, ...]
Found = tuple[Purchase, ...]

_SOON, _LATER = 0.4, 3.0
_KEPT = 64


class Purchasing:
    """Answers kept by what they depend on, the last ones asked for; ``look`` as ``purchases``."""

    def __init__(self, look: Callable[[Wanted, Shop, float], Found] = purchases) -> None:
        self._look = look
        self._kept: OrderedDict[tuple[Wanted, Shop], Found] = OrderedDict()
        self._sought: set[tuple[Wanted, Shop]] = set()
        self._lock = threading.Lock()
        self._one_at_a_time = threading.Lock()

    def of(self, wanted: Wanted, shop: Shop, *, behind: bool) -> tuple[Found, bool]:
        """What to buy, and whether something better may still come. Raises ``ClothImpossible``."""
        key = wanted, shop
        with self._lock:
            if key in self._kept:
                self._kept.move_to_end(key)
                return self._kept[key], key in self._sought
        found = self._look(wanted, shop, _SOON if behind else _LATER)
        better = behind and not all(p.proven for p in found)
        with self._lock:
            fresh = key not in self._kept
            if fresh:
                self._keep(key, found)
                if better:
                    self._sought.add(key)
        if better and fresh:
            threading.Thread(target=self._look_again, args=(key,), daemon=True).start()
        return found, better

    def _look_again(self, key: tuple[Wanted, Shop]) -> None:
        with self._one_at_a_time:
            try:
                found = self._look(*key, _LATER)
                with self._lock:
                    self._keep(key, found)
            finally:
                with self._lock:
                    self._sought.discard(key)

    def _keep(self, key: tuple[Wanted, Shop], found: Found) -> None:
        self._kept[key] = found
        self._kept.move_to_end(key)
        while len(self._kept) > _KEPT:
            self._kept.popitem(last=False)


_ours = Purchasing()


def purchasing(wanted: Wanted, shop: Shop) -> tuple[Found, bool]:
    """What to buy, and whether something better may still come. Raises ``ClothImpossible``."""
    return _ours.of(wanted, shop, behind=apart.is_running())
