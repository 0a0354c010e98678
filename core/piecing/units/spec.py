"""What unit is wanted: its kind, finished size, and which fabric goes where. Lengths are finished sizes, in inches."""

from __future__ import annotations

from dataclasses import dataclass, field, replace

from ..lengths import ZERO, Length
from ..messages import Message

__all__ = ["UnitSpec"]


@dataclass(frozen=True, slots=True)
class UnitSpec:
    """One unit as it should finish.

    ``part_fabrics`` names the fabric role of each part, in the kind's own order of parts. ``corners`` are the finished sizes of
    flipped corners: lower left, lower right, upper right, upper left (zero for none). ``strip`` is the finished width
    of a strip or band set in.
    """

    kind: str
    width: Length
    height: Length
    part_fabrics: tuple[str, ...]
    corners: tuple[Length, Length, Length, Length] = (ZERO, ZERO, ZERO, ZERO)
    strip: Length = ZERO
    _hash: int = field(init=False, repr=False, compare=False, default=0)

    def __hash__(self) -> int:
        # Specs are what most of what is remembered is found by.
        if not self._hash:
            given = (self.kind, self.width, self.height, self.part_fabrics, self.corners, self.strip)
            object.__setattr__(self, "_hash", hash(given))
        return self._hash

    def __reduce__(self) -> tuple[type[UnitSpec], tuple[object, ...]]:
        # Another process hashes words otherwise.
        return UnitSpec, (self.kind, self.width, self.height, self.part_fabrics, self.corners, self.strip)

    @property
    def is_square(self) -> bool:
        """Whether it finishes as wide as high."""
        return self.width == self.height

    @property
    def size(self) -> Message:
        """What it finishes, in words: one figure for a square."""
        return Message("{w}" if self.is_square else "{w} by {h}", w=self.width, h=self.height)

    def sized(self, width: Length, height: Length) -> UnitSpec:
        """The same unit at another finished size; its corners and strip stay as long as they are."""
        return replace(self, width=width, height=height)
