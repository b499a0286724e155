"""Sound exact to the sample, without clicks, in sync however long."""

from __future__ import annotations

import io
import tempfile
from itertools import pairwise
from pathlib import Path
from unittest import TestCase

import av
import numpy as np
from numpy.typing import NDArray

from kitecore.document import FrameRate, SoundClip, Track, empty_document
from kitecore.edits.tests.populated import SECOND
from kitecore.media.tests.material import tone
from kitecore.render.pieces import AAC_BLOCK, aac_piece, frame_samples, sound_piece
from kitecore.render.samples import render_samples
from kitecore.render.sources import Sources
from kitecore.render.tests.scene import Scene
from kitecore.sound.ramps import DECLICK, SAMPLE_TICKS, from_db, sample_at
from kitecore.ticks import RATES

Samples = NDArray[np.float32]
SIXTEEN_BIT = 1.1 / 32768


class MixedTest(TestCase):
    """Three takes, an empty project on them, and a look at its mix."""

    @classmethod
    def setUpClass(cls) -> None:
        cls.root = Path(cls.enterClassContext(tempfile.TemporaryDirectory()))
        scene = Scene(cls.root)
        scene.sound("tone", 6.0)
        scene.sound("other", 6.0, frequency=1000)
        scene.video("film", frames=90, sound=tone(3.0), options={"preset": "ultrafast"})

    def setUp(self) -> None:
        self.scene = Scene(self.root)
        self.sources = Sources(self.scene.find)
        self.addCleanup(self.sources.close)

    def mix(self, start: int, count: int) -> Samples:
        return render_samples(self.scene.document, start, count, self.sources)


class MixTest(MixedTest):
    def test_a_clip_plays_its_part_from_its_place(self) -> None:
        self.scene.place("tone", 2.0, into=1.0, mode="above", at=0.5)
        got = self.mix(0, 144_000)
        self.assertFalse(got[:24_000].any() or got[120_000:].any())
        wanted = np.rint(tone(6.0) * 32767)[48_000:144_000] / 32768
        inner = slice(DECLICK, -DECLICK)
        self.assertLess(np.abs(got[24_000:120_000, 0] - wanted)[inner].max(), SIXTEEN_BIT)

    def test_however_the_range_is_cut_the_samples_are_the_same(self) -> None:
        self.scene.place("tone", 3.0, gain=-6)
        keys = {"keys": [{"at": 0, "value": -40.0}, {"at": 2 * SECOND, "value": 0.0}]}
        self.scene.place("other", 3.0, gain=keys)
        whole = self.mix(0, 300_000)
        borders = [0, 1, 4801, 143_999, 144_001, 200_123, 300_000]
        parts = [self.mix(a, b - a) for a, b in pairwise(borders)]
        np.testing.assert_allclose(np.concatenate(parts), whole, atol=2e-7)

    def test_a_split_changes_no_sample(self) -> None:
        for rate in RATES:
            with self.subTest(str(rate)):
                document = empty_document(rate=FrameRate(num=rate.num, den=rate.den))
                self.scene.document = document
                self.scene.place("tone", 3.0, into=0.1)
                before = self.mix(0, 140_000)
                step = rate.frame_ticks
                for frame in (7, 31, 32):
                    self.scene.do(kind="split", at=frame * step)
                np.testing.assert_array_equal(before, self.mix(0, 140_000))

    def test_no_click_at_a_hard_cut(self) -> None:
        self.scene.place("tone", 1.013, into=0.0017)
        self.scene.place("other", 1.0, into=0.0031)
        got = self.mix(0, 96_000)[:, 0]
        # A click is energy far above the tones: the third difference stays that of the tones.
        bend = np.abs(np.diff(got, 3))
        steady = bend[60_000:80_000].max()
        self.assertLess(bend[46_000:51_000].max(), 3 * steady)

    def test_gain_fades_mute_and_solo(self) -> None:
        self.scene.place("tone", 2.0, gain=-6.0, fade_in=SECOND, fade_out=SECOND // 2)
        got = np.abs(self.mix(0, 96_000)[:, 0])
        self.assertAlmostEqual(0.5 * from_db(-6), got[50_000:60_000].max(), places=3)
        self.assertAlmostEqual(0.25 * from_db(-6), got[23_800:24_200].max(), places=2)
        self.assertLess(got[95_900:].max(), 0.001)
        track = self.scene.document.tracks[2]
        self.scene.do(kind="set_track", track=track.id, muted=True)
        self.assertFalse(self.mix(0, 96_000).any())

    def test_in_sync_after_half_an_hour_at_an_uneven_rate(self) -> None:
        rate = FrameRate(num=30000, den=1001)
        step = rate.exact.frame_ticks
        clip = SoundClip(media="tone", length=10 * step, source_length=6 * SECOND, source_in=SECOND)
        clips = tuple(
            clip.model_copy(update={"id": f"c{n}", "start": n * 10 * step}) for n in range(5394)
        )
        document = empty_document(rate=rate)
        track = Track(kind="sound", clips=clips)
        self.scene.document = document.model_copy(update={"tracks": (document.main, track)})
        self.assertGreater(self.scene.document.length, 1799 * SECOND)
        last = clips[-1]
        start = sample_at(last.start)
        self.assertLessEqual(abs(start * SAMPLE_TICKS - last.start), SAMPLE_TICKS // 2)
        got = self.mix(start, 16_000)[DECLICK : 16_000 - DECLICK, 0]
        exact = np.rint(tone(6.0) * 32767) / 32768
        wanted = exact[48_000 + DECLICK : 48_000 + 16_000 - DECLICK]
        off = [float(np.abs(got - np.roll(wanted, lag)).mean()) for lag in (-2, -1, 0, 1, 2)]
        self.assertIn(int(np.argmin(off)), (1, 2, 3))

    def test_the_sound_of_a_video_goes_with_it(self) -> None:
        self.scene.place("film", 2.0, into=0.5)
        self.assertGreater(np.abs(self.mix(10_000, 20_000)).max(), 0.4)


class PieceTest(MixedTest):
    def test_pieces_of_a_loud_mix_join_to_the_sample(self) -> None:
        """Three tones on top of each other, far too loud, cut anywhere."""
        for _ in range(3):
            self.scene.place("tone", 2.0, mode="above", at=0, gain=4.0)
        whole = render_samples(self.scene.document, 0, 90_000, self.sources)
        self.assertAlmostEqual(1.0, float(np.abs(whole).max()), places=3)
        for start, count in ((0, 480), (777, 5000), (44_100, 1), (60_001, 29_999)):
            part = render_samples(self.scene.document, start, count, self.sources)
            np.testing.assert_array_equal(whole[start : start + count], part)

    def test_pieces_join_to_the_sample(self) -> None:
        document = empty_document(rate=FrameRate(num=30000, den=1001))
        self.scene.document = document
        self.scene.place("tone", 3.0)
        rate = document.rate.exact
        frames = self.scene.document.frames
        joined: list[NDArray[np.float32]] = []
        for first in range(0, frames, 15):
            data = sound_piece(self.scene.document, first, min(first + 15, frames), self.sources)
            with av.open(io.BytesIO(data)) as piece:
                decoded = [f.to_ndarray().reshape(-1, 2) for f in piece.decode(audio=0)]
                start = piece.streams.audio[0].start_time
            self.assertEqual(frame_samples(rate, first, first)[0], start)
            joined.append(np.concatenate(decoded).astype(np.float32) / 32767)
        whole = np.concatenate(joined)
        self.assertLess(np.abs(whole - self.mix(0, len(whole))).max(), SIXTEEN_BIT)
        self.assertEqual(frame_samples(rate, 0, frames)[1], len(whole))

    def test_aac_pieces_join_as_if_coded_in_one(self) -> None:
        self.scene.document = empty_document(rate=FrameRate(num=30000, den=1001))
        self.scene.place("tone", 3.0)
        frames = self.scene.document.frames
        whole = self._decoded([(0, frames)])
        cuts = [(at, min(at + 15, frames)) for at in range(0, frames, 15)]
        joined = self._decoded(cuts)
        self.assertEqual(whole.shape, joined.shape)
        rate = self.scene.document.rate.exact
        self.assertGreaterEqual(len(whole), frame_samples(rate, 0, frames)[1])
        np.testing.assert_allclose(
            self.mix(0, len(whole))[AAC_BLOCK:], whole[AAC_BLOCK:], atol=0.03
        )
        wrong = np.abs(joined - self.mix(0, len(joined))).max(axis=1)
        at_joins = [frame_samples(rate, 0, last)[1] for _, last in cuts[:-1]]
        near = np.concatenate([wrong[at - AAC_BLOCK : at + AAC_BLOCK] for at in at_joins])
        self.assertLess(float(near.max()), 1.5 * float(wrong[AAC_BLOCK:].mean()) + 0.02)

    def _decoded(self, cuts: list[tuple[int, int]]) -> NDArray[np.float32]:
        """What one decoder makes of the packets of pieces, which have to follow on each other."""
        decoder: av.AudioCodecContext | None = None
        blocks: list[NDArray[np.float32]] = []
        times: list[int] = []
        for first, last in cuts:
            data = aac_piece(self.scene.document, first, last, self.sources)
            with av.open(io.BytesIO(data)) as piece:
                sound = piece.streams.audio[0]
                if decoder is None:
                    decoder = av.AudioCodecContext.create("aac", "r")
                    decoder.extradata = sound.codec_context.extradata
                for packet in piece.demux(sound):
                    if packet.size:
                        times.append(packet.pts or 0)
                        blocks += [f.to_ndarray().T for f in decoder.decode(packet)]
        self.assertEqual(list(range(0, len(times) * AAC_BLOCK, AAC_BLOCK)), times)
        return np.concatenate(blocks)
