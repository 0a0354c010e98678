"""What was deleted and is still kept so that it can be taken back: how much of it there is, and letting go of it for good."""

from __future__ import annotations

from django.apps import apps
from django.db import connection, models, transaction

from cutting.shelf import rescue_cloth

from .copies import put_aside

__all__ = ["deleted_rows", "purge"]


def _kept_rows() -> list[models.QuerySet[models.Model]]:
    """Deleted rows of every table that keeps them. Tables whose rows others hang from come last."""
    found = []
    for model in apps.get_models():
        if any(f.name == "deleted_at" for f in model._meta.get_fields()):
            every = getattr(model, "every", model._default_manager)
            found.append(every.filter(deleted_at__isnull=False))
    return found


def deleted_rows() -> int:
    """How many things were deleted and can still be taken back."""
    return sum(rows.count() for rows in _kept_rows())


def purge() -> int:
    """Lets go of them, with all that hangs from them but cloth, which goes to the shelf; returns how many there were. A copy of everything is made before, and the
    file is written anew, so that nothing of them stays in it."""
    put_aside("purge")
    with transaction.atomic():
        gone = deleted_rows()
        rescue_cloth()
        for rows in _kept_rows():
            rows.delete()
    if not connection.in_atomic_block:
        with connection.cursor() as cursor:
            cursor.execute("VACUUM")
    return gone
