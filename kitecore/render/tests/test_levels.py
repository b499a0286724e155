"""What meters show is what is heard."""

from __future__ import annotations

import numpy as np

from kitecore.document import Document
from kitecore.edits.tests.populated import SECOND
from kitecore.errors import EditRefused
from kitecore.media.folder import MediaFolder
from kitecore.media.tests.material import ingested, make_wav
from kitecore.render.hearing import clip_beats, clip_loudness, learnt_noise
from kitecore.render.levels import FILM, loudness_of, measured_stretch, stretches_of
from kitecore.render.levels import sound_and_levels as levels
from kitecore.render.tests.test_sound import MixedTest
from kitecore.sound import loudness
from kitecore.sound.ramps import RATE


class LevelsTest(MixedTest):
    @property
    def document(self) -> Document:
        return self.scene.document

    def test_levels_of_tracks_are_after_their_strips_and_those_of_the_film_are_what_is_heard(
        self,
    ) -> None:
        self.scene.place("tone", 3.0)
        track = self.document.tracks[2].id
        self.scene.do(kind="set_strip", track=track, values={"gain": -6.0, "pan": 1.0})
        self.scene.do(kind="set_strip", track=None, values={"gain": -6.0})
        samples, found = levels(self.document, 30, 45, self.sources)
        np.testing.assert_array_equal(samples, self.mix(RATE, RATE // 2))
        self.assertEqual(15, len(found.strips[track].peaks))
        left, right = found.strips[track].peaks[5]
        # A tone at half of full scale is at -6 dB; both sides come together on the right.
        self.assertLess(left, -90)
        self.assertAlmostEqual(-6.0, right, delta=0.2)
        self.assertAlmostEqual(-9.0, found.strips[track].means[5][1], delta=0.2)
        self.assertAlmostEqual(-12.0, found.strips[FILM].peaks[5][1], delta=0.2)

    def test_loudness_by_stretches_is_that_of_one_long_run(self) -> None:
        for _ in range(4):
            self.scene.place("tone", 6.0)
            self.scene.place("other", 1.5, gain=-20.0)
        count = stretches_of(self.document)
        self.assertEqual(3, count)
        stretches = [measured_stretch(self.document, n, self.sources) for n in range(count)]
        got = loudness_of(stretches)
        whole = self.mix(-loudness.LEAD, loudness.LEAD + 30 * RATE)
        parts = loudness.powers(whole)
        self.assertAlmostEqual(loudness.whole(parts), got.whole, places=2)
        self.assertAlmostEqual(loudness.spread(parts), got.spread, places=2)
        np.testing.assert_allclose(got.short, loudness.over_time(parts, 30), atol=0.06)
        self.assertAlmostEqual(-6.0, got.peak, delta=0.1)

    def test_a_film_that_ends_within_a_tenth_and_one_without_sound(self) -> None:
        self.scene.place("tone", 31 / 30)
        got = loudness_of([measured_stretch(self.document, 0, self.sources)])
        self.assertEqual(11, len(got.momentary))
        self.assertEqual(loudness.SILENCE, loudness_of([]).whole)

    def test_a_clip_is_measured_before_its_gain(self) -> None:
        self.scene.place("tone", 3.0, gain=-40.0, fade_in=SECOND)
        clip = self.document.tracks[2].clips[0].id
        found = clip_loudness(self.document, clip, self.sources)
        self.assertAlmostEqual(-6.02, found["peak"], delta=0.05)
        # A tone of 440 Hz on both sides at -6 dB.
        self.assertAlmostEqual(-6.7, found["whole"], delta=0.3)
        with self.assertRaises(EditRefused):
            self.scene.place("film", 1.0)
            self.scene.do(kind="place", clip={"kind": "solid", "length": SECOND}, mode="end", at=0)
            solid = self.document.main.clips[-1].id
            clip_loudness(self.document, solid, self.sources)

    def test_beats_of_a_clip_lie_where_they_are_heard(self) -> None:
        at = 0.25 + np.arange(16) * 0.5
        sound = np.random.default_rng(3).normal(0, 0.001, 9 * RATE)
        for one in at:
            begin = round(one * RATE)
            sound[begin : begin + 2000] += np.random.default_rng(4).normal(0, 0.3, 2000)
        if not MediaFolder(self.root / "beat").original.exists():
            ingested(self.root, "beat", make_wav(self.root / "x", sound))
        self.scene.place("beat", 6.0, into=1.0)
        track = next(t for t in self.document.tracks if t.clips)
        clip = track.clips[0]
        found = clip_beats(self.document, clip.id, self.sources)
        self.assertAlmostEqual(120, found["tempo"], delta=1)
        wanted = [one - 1.0 for one in at if 1.0 <= one < 7.0]
        told = [one / SECOND for one in found["at"]]
        self.assertEqual(len(wanted), len(told))
        self.assertLess(max(abs(a - b) for a, b in zip(wanted, told, strict=True)), 0.03)
        begun = [one / SECOND for one in found["onsets"]]
        self.assertEqual(len(wanted), len(begun))
        self.assertLess(max(abs(a - b) for a, b in zip(wanted, begun, strict=True)), 0.03)
        self.scene.do(kind="mark_beats", clip=clip.id, at=found["onsets"], bar=0)
        self.assertEqual({"beat"}, {m.beat for m in self.document.find_clip(clip.id)[1].markers})
        self.scene.do(kind="mark_beats", clip=clip.id, at=found["at"], first=1)
        markers = self.document.find_clip(clip.id)[1].markers
        self.assertEqual(
            ["beat", "bar", "beat", "beat", "beat", "bar"], [m.beat for m in markers[:6]]
        )
        self.scene.do(kind="mark_beats", clip=clip.id, at=[])
        self.assertEqual((), self.document.find_clip(clip.id)[1].markers)

    def test_noise_is_learnt_from_a_marked_stretch(self) -> None:
        self.scene.place("tone", 3.0)
        track = self.document.tracks[2].id
        found = learnt_noise(self.document, track, "", SECOND, [2 * SECOND], self.sources)
        at = int(np.argmax(found))
        self.assertEqual(40, len(found))
        self.assertTrue(6 < at < 14, at)
        for stretch in ((SECOND, [SECOND]), (20 * SECOND, [22 * SECOND])):
            with self.assertRaises(EditRefused):
                learnt_noise(self.document, track, "", *stretch, self.sources)
