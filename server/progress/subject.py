"""What is worked at the bench, as it is known for good: a kind of unit, a block, or the quilt."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from uuid import UUID

__all__ = ["QUILT", "UNIT_OR_BLOCK", "BenchSubject", "SubjectKind", "block_subject", "unit_subject"]


class SubjectKind(StrEnum):
    UNIT = "unit"
    BLOCK = "block"
    QUILT = "quilt"


UNIT_OR_BLOCK = ["units", "blocks"]
"""In addresses and changes: what a diagnosis or a stretch of work is of, where it is not the whole quilt."""


@dataclass(frozen=True, slots=True)
class BenchSubject:
    """One of them; the quilt of a project has no key of its own. As text it is what lots and handlings are kept under."""

    kind: SubjectKind
    key: UUID | None = None

    def __str__(self) -> str:
        return f"{self.kind.value}:{self.key}" if self.key else self.kind.value

    @classmethod
    def kept(cls, text: str) -> BenchSubject:
        """As it was kept. Raises ``ValueError`` for anything else."""
        kind, _, key = text.partition(":")
        return cls(SubjectKind(kind), UUID(key) if key else None)


QUILT = str(BenchSubject(SubjectKind.QUILT))


def unit_subject(key: UUID) -> str:
    """What the lots of a kind of unit are kept under."""
    return str(BenchSubject(SubjectKind.UNIT, key))


def block_subject(key: UUID) -> str:
    """What the lots of a block are kept under."""
    return str(BenchSubject(SubjectKind.BLOCK, key))
