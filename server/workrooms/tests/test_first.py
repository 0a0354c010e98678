"""The first page of all asks several things at once: one workroom comes of it."""

from __future__ import annotations

from unittest.mock import patch

from django.test import TestCase

from workrooms import selectors
from workrooms.models import OwnedRuler, Workroom
from workrooms.selectors import current_workroom


class FirstTest(TestCase):
    def test_begin_workroom_by_another_meanwhile_it_is_the_others(self) -> None:
        """Looked for, not there, and begun by another request before this one can write."""
        others: list[Workroom] = []
        begin = selectors._begin_workroom

        def late() -> Workroom:
            others.append(begin())
            return begin()

        with patch.object(selectors, "_begin_workroom", late):
            mine = current_workroom()
        self.assertEqual([mine], others)
        self.assertEqual(Workroom.objects.count(), 1)
        self.assertEqual(OwnedRuler.objects.count(), len({r.name for r in OwnedRuler.objects.all()}))
