"""What of a project cannot be cut for yet."""

from __future__ import annotations

from blocks.quilt import quilt_view
from blocks.selectors import blocks_of
from blocks.translate import find_in, pattern_of
from measuring.selectors import plan_of
from piecing.errors import PiecingError
from piecing.messages import Message, MidSentence
from piecing.units import kind_of
from projects.models import Project

__all__ = ["waiting_of"]


def waiting_of(project: Project) -> list[Message]:
    """What cannot be cut for yet, with the reason: blocks, units, the quilt."""
    find, waiting = find_in(project.workroom), []
    for b in blocks_of(project):
        try:
            pattern_of(b, find).complete()
        except PiecingError as refusal:
            waiting.append(Message("{name}: {why}", name=str(b.pattern.get("name", "")), why=refusal.said))
    for u in project.units.all():
        u.project = project
        try:
            plan_of(u)
        except PiecingError as refusal:
            waiting.append(Message("{unit}: {why}", unit=kind_of(u.kind).title, why=refusal.said))
    view = quilt_view(project)
    if view.refusal is not None:
        waiting.append(Message("The quilt: {why}", why=MidSentence(view.refusal.said)))
    return waiting
