"""The cameras of the demo can be lined up, and their clip holds what it is to show."""

from __future__ import annotations

from itertools import combinations
from unittest import TestCase

import numpy as np

from demo import report
from demo.films import FILMS
from demo.project import Source, ticks_of
from demo.sounds import SOUND_RATE
from kitecore import edits
from kitecore.document import MulticamClip, empty_document
from kitecore.sound.alignment import aligned, heard


class ReportTest(TestCase):
    def test_each_camera_is_found_in_another_where_it_began(self) -> None:
        films = {film.name: film for film in FILMS if film.name in report.BEGINS}
        sounds = {
            name: heard(film.sound(film.seconds).astype(np.float32), SOUND_RATE)  # type: ignore[operator]
            for name, film in films.items()
        }
        found = {}
        for one, other in combinations(sounds, 2):
            match = aligned(sounds[one], sounds[other])
            if match is not None:
                found[one, other] = match.offset
                began = report.BEGINS[one] - report.BEGINS[other]
                self.assertAlmostEqual(began, match.offset, delta=0.001)
        named = {name for pair in found for name in pair}
        self.assertEqual(set(sounds), named)

    def test_its_clip_is_lined_up_switched_and_heard_from_the_recorder(self) -> None:
        document = empty_document()
        takes = {name: Source(f"m{n}", ticks_of(11)) for n, name in enumerate(report.TAKES)}
        for edit in report.report_edits(takes):
            document = edits.apply(document, edit)
        [clip] = document.main.clips
        assert isinstance(clip, MulticamClip)
        self.assertEqual(["near", "wide", "side", "recorder"], [t.name for t in clip.tracks])
        self.assertEqual({3}, set(clip.hears))
        self.assertEqual(7, len(clip.switches))
        self.assertIsNotNone(clip.switches[-1].transition)
