"""Faces that cross, hide each other and leave: none of them is bare where its cover is sure."""

from __future__ import annotations

import tempfile
from pathlib import Path
from typing import Final
from unittest import TestCase

from kitecore.analysis.tests.crowds import Crowd, uncovered

SIZE: Final = (640, 360)
FRAMES: Final = 90


class CrowdTest(TestCase):
    def test_no_face_is_bare_where_covers_are_sure_and_few_are_unsure(self) -> None:
        root = Path(self.enterContext(tempfile.TemporaryDirectory()))
        crowd = Crowd(7, 3, SIZE)
        told = uncovered(crowd.filmed(root, FRAMES), crowd, FRAMES)
        self.assertGreater(told.seen, 200)
        self.assertEqual([], told.bare)
        self.assertLess(told.unsure, 0.05 * told.seen)
