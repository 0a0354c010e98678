"""One block as JSON, out and in: format ``entretoile-pattern/1``. What lies in it is carried along.

The schema is docs/formats/entretoile-pattern-1.schema.json; what comes in is checked against it, and then read as typed input is.
"""

from __future__ import annotations

import json
from functools import lru_cache
from pathlib import Path
from typing import Any
from uuid import UUID, uuid4

from django.conf import settings
from django.db import transaction
from jsonschema import Draft202012Validator

from api.problems import ApiError, Refused
from blocks.commands import put_block
from blocks.models import Block
from blocks.selectors import get_block
from projects.models import Project
from projects.renamed import pattern_renamed
from projects.selectors import get_project
from workrooms.models import Workroom
from workrooms.once import change

from .project import inner_first, patterns_held, plain

__all__ = ["PATTERN_FORMAT", "PatternRefused", "pattern_exported", "pattern_schema", "take_pattern"]

PATTERN_FORMAT = "entretoile-pattern/1"
_SCHEMA = Path(settings.HOME) / "docs" / "formats" / "entretoile-pattern-1.schema.json"


class PatternRefused(ApiError):
    """``values`` hold the path of what is wrong."""

    status = 422
    code = "pattern_refused"
    title = "This block cannot be taken in"


@lru_cache(maxsize=1)
def pattern_schema() -> dict[str, Any]:
    """The JSON Schema of the format."""
    loaded: dict[str, Any] = json.loads(_SCHEMA.read_text("utf-8"))
    return loaded


def pattern_exported(room: Workroom, key: UUID) -> dict[str, Any]:
    """A block of a project with the patterns of all blocks in it that do not come with the program. Raises ``NotHere``."""
    block = get_block(room, key)
    return {
        "format": PATTERN_FORMAT,
        "finished": plain(block.finished),
        "pattern": block.pattern,
        "carried": patterns_held(room, [block.pattern], ()),
    }


@change
def take_pattern(room: Workroom, project_key: UUID, key: UUID, data: Any) -> Project:
    """A new block of a project from JSON, under a key made by the caller; asking twice makes one. Raises ``PatternRefused`` with the
    path of what is wrong; nothing is kept then."""
    project = get_project(room, project_key)
    if Block.objects.filter(pk=key, project=project).exists():
        return project
    wrong = next(
        iter(sorted(Draft202012Validator(pattern_schema()).iter_errors(data), key=lambda e: list(map(str, e.path)))),
        None,
    )
    if wrong is not None:
        raise PatternRefused(
            f"At {wrong.json_path}: {wrong.message[:200]}. Nothing was taken.", {wrong.json_path: wrong.message[:200]}
        )
    carried = data.get("carried", {})
    renamed = {old: str(uuid4()) for old in carried}
    held = [{"id": k, "pattern": p} for k, p in carried.items()]
    with transaction.atomic():
        for b in inner_first(held):
            inner = pattern_renamed(b["pattern"], renamed)
            _put(room, project, UUID(renamed[b["id"]]), inner, data["finished"], f"$.carried.{b['id']}", follow=False)
            Block.objects.filter(pk=renamed[b["id"]]).update(deleted_at=project.created_at)
        whole = pattern_renamed(data["pattern"], renamed)
        return _put(room, project, key, whole, data["finished"], "$.pattern", follow=True)


def _put(
    room: Workroom, project: Project, key: UUID, pattern: dict[str, Any], finished: str, path: str, *, follow: bool
) -> Project:
    try:
        return put_block(room, project.pk, key, "", {"pattern": pattern, "finished": finished}, {}, follow=follow)
    except Refused as refusal:
        said = refusal.errors[0].said.text(refusal.style)
        raise PatternRefused(f"At {path}: {said} Nothing was taken.", {path: said}) from None
