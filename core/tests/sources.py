"""What is written in core and server, read and parsed once for all tests that look into it."""

from __future__ import annotations

import ast
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache
from pathlib import Path

from piecing import errors

__all__ = ["CORE", "Source", "of_core", "sources"]

_ROOT = Path(errors.__file__).parents[2]
CORE = "core/piecing"


@dataclass(frozen=True)
class Source:
    """A file by its ``name`` below the project, its ``text``, and all ``nodes`` of it."""

    name: str
    text: str
    tree: ast.Module
    nodes: tuple[ast.AST, ...]

    @property
    def short(self) -> str:
        return self.name.rsplit("/", 1)[-1]


@cache
def sources() -> tuple[Source, ...]:
    """All of the core and the server but tests and migrations."""
    return tuple(_read())


def of_core() -> tuple[Source, ...]:
    return tuple(s for s in sources() if s.name.startswith(CORE))


def _read() -> Iterator[Source]:
    for room in (CORE, "server"):
        for path in sorted((_ROOT / room).rglob("*.py")):
            if not {"tests", "migrations"} & set(path.parts):
                text = path.read_text("utf-8")
                tree = ast.parse(text)
                yield Source(str(path.relative_to(_ROOT)), text, tree, tuple(ast.walk(tree)))
