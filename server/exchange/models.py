"""Earlier states of a project, each whole, as its file would have been."""

from __future__ import annotations

import uuid

from django.db import models

from projects.models import Project


class ProjectState(models.Model):
    """A project as it stood when work on it rested. ``packed`` is its file (zlib over JSON), ``digest`` tells two apart,
    ``said`` what had changed since the state before, in words."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    project = models.ForeignKey(Project, on_delete=models.CASCADE, related_name="states")
    at = models.DateTimeField()
    said = models.JSONField(default=list, blank=True)
    digest = models.CharField(max_length=64)
    packed = models.BinaryField()

    class Meta:
        ordering = ["-at", "pk"]
