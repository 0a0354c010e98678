"""The last states of a project, by time and by what changed; any of them can be opened as a copy.

A state is taken when work has rested for a while, so that a state is a piece of work and not a keystroke.
"""

from __future__ import annotations

import hashlib
import json
import time
import zlib
from collections.abc import Mapping
from contextlib import suppress
from datetime import timedelta
from typing import Any
from uuid import UUID

from django.db import DatabaseError, connection
from django.db.models import F, Max, Q, QuerySet
from django.utils import timezone

from api.problems import NotHere
from piecing.days import day_words
from projects.models import Project
from projects.selectors import get_project
from workrooms.models import Workroom
from workrooms.once import change

from .models import ProjectState
from .project import export_project, import_project

__all__ = ["MOST_STATES", "RESTED", "keep_states", "opened_as_copy", "states_of", "take_states"]

RESTED = timedelta(minutes=3)
MOST_STATES = 40
_AREAS = {
    "name": "the name",
    "measure": "inches or millimetres",
    "seam_allowance": "the seam allowance",
    "stitch": "where the needle goes in",
    "fold": "the fold",
    "ruler_step": "the ruler's step",
    "reading_step": "how readings are taken",
    "fabrics": "fabrics",
    "units": "units",
    "blocks": "blocks",
    "quilt": "the quilt",
    "scraps": "scraps",
    "cutting": "the cutting plan",
    "stock": "stock",
    "archived": "put away or taken out",
}


def take_states(rested: timedelta = RESTED) -> int:
    """Takes the state of every project that was changed and has rested since; returns how many were taken."""
    found = Project.objects.filter(deleted_at=None, updated_at__lte=timezone.now() - rested)
    changed = found.annotate(last=Max("states__at")).filter(Q(last=None) | Q(last__lt=F("updated_at")))
    return sum(_take(get_project(p.workroom, p.pk), _states(p).first()) for p in changed.select_related("workroom"))


@change
def _take(project: Project, last: ProjectState | None) -> int:
    data = export_project(project)
    text = json.dumps(data, sort_keys=True)
    digest = hashlib.sha256(text.encode()).hexdigest()
    if last is not None and last.digest == digest:
        ProjectState.objects.filter(pk=last.pk).update(at=project.updated_at)
        return 0
    said = _changes_said(_unpack(last), data) if last is not None else []
    ProjectState.objects.create(
        project=project, at=project.updated_at, said=said, digest=digest, packed=zlib.compress(text.encode(), 6)
    )
    for old in _states(project)[MOST_STATES:]:
        old.delete()
    return 1


def _states(project: Project) -> QuerySet[ProjectState]:
    return ProjectState.objects.filter(project=project)


def _unpack(state: ProjectState) -> dict[str, Any]:
    data: dict[str, Any] = json.loads(zlib.decompress(state.packed))
    return data


def _changes_said(before: Mapping[str, Any], after: Mapping[str, Any]) -> list[str]:
    """What differs, area by area, with how many more or fewer there are."""
    found = []
    for area, words in _AREAS.items():
        old, new = before.get(area), after.get(area)
        if old == new:
            continue
        more = len(new) - len(old) if isinstance(old, list) and isinstance(new, list) else 0
        found.append(f"{words} ({abs(more)} {'more' if more > 0 else 'fewer'})" if more else words)
        if area in ("units", "blocks") and _readings(old) != _readings(new):
            found.append("readings")
    return list(dict.fromkeys(found))


def _readings(rows: Any) -> list[Any]:
    return [row.get("readings") for row in rows or []]


def states_of(project: Project) -> list[ProjectState]:
    """Newest first, without what they hold."""
    return list(_states(project).defer("packed"))


@change
def opened_as_copy(room: Workroom, project_key: UUID, state_key: UUID, key: UUID) -> Project:
    """A new project as this one was. Asked twice with one key it is opened once. Raises ``NotHere``."""
    known = room.projects.filter(pk=key).first()
    if known is not None:
        return get_project(room, key)
    state = _states(get_project(room, project_key)).filter(pk=state_key).first()
    if state is None:
        raise NotHere("This state is no longer kept. The last ones of each project are.")
    data = _unpack(state)
    when = timezone.localtime(state.at)
    data["name"] = f"{data['name'][:90]}, as of {day_words(when, year=False)} {when:%H:%M}"
    return import_project(room, {**data, "archived": False}, key)


def keep_states() -> None:
    """For a thread of the server: looks every half minute for projects that rest; what goes wrong is tried again."""
    while True:
        time.sleep(30)
        with suppress(DatabaseError):
            take_states()
        connection.close()
