"""Music steps back under a voice, as a line and as keys, through cuts, pace and groups."""

from __future__ import annotations

import json
from itertools import pairwise
from typing import Any
from unittest.mock import patch

import numpy as np
from numpy.typing import NDArray

from kitecore.edits.tests.populated import SECOND
from kitecore.errors import EditRefused
from kitecore.render.extract import content_key
from kitecore.render.sources import Sources
from kitecore.render.speaking import pauses, spoken_stretches, stepping_keys
from kitecore.render.tests.test_sound import MixedTest
from kitecore.sound.ramps import RATE, from_db
from kitecore.ticks import Span

SPOKEN = np.zeros(188, np.uint8)
SPOKEN[63:125] = 250
"""What is found in the take "tone": somebody speaks from 2.016 to 4 s."""


def heard(self: Sources, media: str) -> NDArray[np.uint8]:
    return SPOKEN if media == "tone" else np.zeros(188, np.uint8)


class SpeakingTest(MixedTest):
    def setUp(self) -> None:
        super().setUp()
        self.enterContext(patch.object(Sources, "voice", heard))
        self.scene.place("other", 6.0)
        self.scene.place("tone", 6.0, mode="above", gain=-60.0)
        by_take = {
            clip.media: track.id  # type: ignore[attr-defined]
            for track in self.scene.document.tracks
            for clip in track.clips
        }
        self.music, self.voice = by_take["other"], by_take["tone"]

    def under(self, **values: Any) -> None:
        given = {"tracks": [self.voice], "amount": 12, "fade": 0.5, "ahead": 0.2, **values}
        self.scene.do(kind="set_strip", track=self.music, values={"under": given})

    def level(self, second: float) -> float:
        at = round(second * RATE)
        return float(np.abs(self.mix(at - 1200, 2400)).max())

    def test_it_steps_back_before_the_voice_and_comes_back_after_it(self) -> None:
        self.under()
        for second, wanted in ((1.2, 0), (1.9, -12), (3.5, -12), (4.6, 0), (4.25, -6)):
            self.assertAlmostEqual(0.5 * from_db(wanted), self.level(second), delta=0.03)

    def test_a_muted_voice_and_a_moved_one(self) -> None:
        self.under()
        self.scene.do(kind="set_track", track=self.voice, muted=True)
        self.assertAlmostEqual(0.5, self.level(3.0), delta=0.01)
        self.scene.do(kind="set_track", track=self.voice, muted=False)
        [clip] = self.scene.document.find_track(self.voice).clips
        self.scene.do(kind="set_speed", clips=[clip.id], factor=2.0)
        self.assertAlmostEqual(0.5 * from_db(-12), self.level(1.5), delta=0.01)
        self.assertAlmostEqual(0.5, self.level(3.0), delta=0.01)

    def test_a_voice_in_a_group_counts(self) -> None:
        [clip] = self.scene.document.find_track(self.voice).clips
        self.scene.do(kind="group", clips=[clip.id])
        track = next(
            t for t in self.scene.document.tracks if any(c.kind == "group" for c in t.clips)
        )
        self.under(tracks=[track.id])
        self.assertAlmostEqual(0.5 * from_db(-12), self.level(3.0), delta=0.01)

    def test_a_group_of_all_of_it_sounds_the_same_and_so_do_its_copy_and_its_clips(self) -> None:
        self.scene.do(kind="place", clip={"kind": "solid", "length": 6 * SECOND}, mode="end", at=0)
        self.under()
        keys = {"keys": [{"at": 0, "value": -12.0}, {"at": 6 * SECOND, "value": 0.0}]}
        self.scene.do(kind="set_strip", track=self.music, values={"gain": keys})
        self.scene.do(kind="set_strip", track=self.scene.document.main.id, values={"gain": -3.0})
        gate = {"kind": "gate", "threshold": -100}
        self.scene.do(kind="add_inserts", track=self.music, inserts=[gate])
        ids = [clip.id for _, clip in self.scene.document.clips()]
        # But for the short ramp that every clip begins with.
        before = self.mix(200, 280_000)
        self.scene.do(kind="group", clips=ids)
        [group] = [clip for _, clip in self.scene.document.clips()]
        # All of it goes through the strip of the main track now.
        np.testing.assert_allclose(self.mix(200, 280_000), from_db(-3) * before, atol=1e-4)
        self.scene.do(kind="duplicate", clips=[group.id])
        copied = self.mix(288_200, 280_000)
        np.testing.assert_allclose(copied, from_db(-3) * before, atol=1e-4)
        copy = self.scene.document.main.clips[1].id
        self.scene.do(kind="remove", clips=[group.id], close=False)
        self.scene.do(kind="ungroup", clip=copy)
        start = round(self.scene.document.main.clips[0].start / SECOND * RATE)
        np.testing.assert_allclose(self.mix(start + 200, 280_000), before, atol=1e-4)

    def test_a_piece_is_known_by_whom_it_steps_back_under(self) -> None:
        self.under()
        document, span = self.scene.document, Span(SECOND, 2 * SECOND)
        other = {self.voice: "other", document.tracks[2].id: self.voice}
        swapped = tuple(
            t.model_copy(update={"id": other.get(t.id, t.id)}) if t.id != self.music else t
            for t in document.tracks
        )
        turned = document.model_copy(update={"tracks": swapped})
        find = self.scene.find
        self.assertNotEqual(
            content_key(document, span, find, heard=True),
            content_key(turned, span, find, heard=True),
        )
        self.assertEqual(content_key(document, span, find), content_key(turned, span, find))

    def test_pieces_join_without_a_trace(self) -> None:
        self.under()
        whole = self.mix(0, 250_000)
        borders = [0, 80_001, 96_000, 100_000, 250_000]
        parts = [self.mix(a, b - a) for a, b in pairwise(borders)]
        np.testing.assert_allclose(np.concatenate(parts), whole, atol=1e-6)

    def test_as_keys_it_sounds_the_same(self) -> None:
        self.under()
        before = self.mix(0, 288_000)
        keys = stepping_keys(self.scene.document, self.music, self.sources)
        self.assertEqual([0.0, -12.0, -12.0, 0.0], [key["value"] for key in keys[1:5]])
        self.assertLessEqual(len(keys), 6)
        values = {"gain": {"keys": keys}, "under": None}
        self.scene.do(kind="set_strip", track=self.music, values=values)
        after = self.mix(0, 288_000)
        self.assertLess(np.abs(after - before).max(), 0.02)

    def test_pauses_are_cut_out_with_what_goes_along_and_music_runs_on(self) -> None:
        self.scene.do(kind="place", clip={"kind": "solid", "length": 6 * SECOND}, mode="end")
        [clip] = self.scene.document.find_track(self.voice).clips
        found = pauses(self.scene.document, clip.id, 0.5, 0.2, self.sources)
        self.assertEqual(found, [tuple(one) for one in json.loads(json.dumps(found))])
        seconds = [(a / SECOND, b / SECOND) for a, b in found]
        # Nobody speaks before 2.016 s and after 4 s; a fifth of a second is left beside the words.
        for told, wanted in zip(seconds, [(0, 1.8), (4.2, 6)], strict=True):
            self.assertAlmostEqual(wanted[0], told[0], delta=0.05)
            self.assertAlmostEqual(wanted[1], told[1], delta=0.05)
        self.scene.do(kind="cut_out", clip=clip.id, spans=found)
        document = self.scene.document
        left = 6 * SECOND - sum(b - a for a, b in found)
        for track in (document.find_track(self.voice), document.main):
            self.assertEqual(left, sum(one.length for one in track.clips))
            self.assertEqual(0, track.clips[0].start)
        [music] = document.find_track(self.music).clips
        self.assertEqual((0, 6 * SECOND), (music.start, music.length))
        said = spoken_stretches(document, [self.voice], self.sources)
        self.assertAlmostEqual(0.2, said[0][0] / SECOND, delta=0.06)

    def test_a_clip_without_words_has_no_pauses(self) -> None:
        [clip] = self.scene.document.find_track(self.music).clips
        with self.assertRaises(EditRefused):
            pauses(self.scene.document, clip.id, 0.5, 0.1, self.sources)

    def test_stretches_and_refusals(self) -> None:
        [(begin, end)] = spoken_stretches(self.scene.document, [self.voice], self.sources)
        self.assertAlmostEqual(2.016, begin / SECOND, delta=0.02)
        self.assertAlmostEqual(4.0, end / SECOND, delta=0.02)
        with self.assertRaises(EditRefused):
            stepping_keys(self.scene.document, self.music, self.sources)
        self.under(tracks=[])
        with self.assertRaises(EditRefused):
            stepping_keys(self.scene.document, self.music, self.sources)
