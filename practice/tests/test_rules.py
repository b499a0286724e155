from __future__ import annotations

import tempfile
from dataclasses import replace
from pathlib import Path
from unittest import TestCase

import av
import numpy as np
from PIL import Image

from practice.looking import Facts, look, type_of
from practice.models import Post
from practice.rules import reasons_against

GOOD = Facts(codec="h264", width=1080, height=1920, seconds=12.0, loudness=-14.0)


class RulesTest(TestCase):
    def test_what_is_refused_and_why(self) -> None:
        for facts, words, reason in (
            (GOOD, "", None),
            (replace(GOOD, loudness=None), "", None),
            (replace(GOOD, height=1080), "", None),
            (Facts(), "", "no film"),
            (replace(GOOD, codec="mpeg2video"), "", "no film"),
            (replace(GOOD, seconds=1.9), "", "at least"),
            (replace(GOOD, seconds=181.0), "", "at most"),
            (replace(GOOD, width=1921), "", "upright"),
            (replace(GOOD, width=400), "", "400 pixels"),
            (replace(GOOD, loudness=-8.0), "", "too loud"),
            (replace(GOOD, loudness=-31.0), "", "too quiet"),
            (GOOD, "Free  Umbrellas for all", "free umbrellas"),
        ):
            with self.subTest(reason, facts=facts):
                found = reasons_against(Post(title="Rain", caption=words), facts)
                self.assertEqual(0 if reason is None else 1, len(found), found)
                self.assertIn(reason or "", "".join(found))


class LookingTest(TestCase):
    def test_a_film_is_measured_and_its_cover_taken(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            film, cover = Path(folder) / "film", Path(folder) / "cover.jpg"
            _make(film, seconds=4)
            facts = look(film, cover, 3.0)
            self.assertEqual(("h264", 96, 160), (facts.codec, facts.width, facts.height))
            self.assertAlmostEqual(4.0, facts.seconds, delta=0.1)
            # A sine of full scale on both sides is 0 LUFS less 0.7 of weighting at 1 kHz, here -20.
            self.assertAlmostEqual(-20.0, facts.loudness or 0.0, delta=1.0)
            # The picture brightens by 40 a second.
            self.assertAlmostEqual(120, np.asarray(Image.open(cover)).mean(), delta=6)

    def test_a_film_says_by_itself_how_it_is_played(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "film"
            for container, wanted in (("mp4", "video/mp4"), ("webm", "video/webm")):
                with av.open(str(path), "w", format=container) as out:
                    stream = out.add_stream("libvpx-vp9", rate=10)
                    stream.width, stream.height = 64, 64
                    stream.pix_fmt = "yuv420p"
                    grey = np.zeros((64, 64, 3), np.uint8)
                    out.mux(stream.encode(av.VideoFrame.from_ndarray(grey)))
                    out.mux(stream.encode())
                self.assertEqual(wanted, type_of(path))

    def test_what_is_no_film_has_no_facts(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "film"
            path.write_bytes(b"no film at all" * 100)
            self.assertEqual(Facts(), look(path, Path(folder) / "cover.jpg", 0))


def _make(path: Path, seconds: int) -> None:
    with av.open(str(path), "w", format="mp4") as container:
        video = container.add_stream("libx264", rate=25)
        video.width, video.height, video.pix_fmt = 96, 160, "yuv420p"
        audio = container.add_stream("aac", rate=48_000, layout="stereo")
        for number in range(25 * seconds):
            grey = np.full((160, 96, 3), number * 40 // 25, np.uint8)
            container.mux(video.encode(av.VideoFrame.from_ndarray(grey, "rgb24")))
        wave = 0.1 * np.sin(2 * np.pi * 1000 * np.arange(48_000 * seconds) / 48_000)
        sound = np.tile(wave.astype(np.float32), (2, 1))
        frame = av.AudioFrame.from_ndarray(sound, "fltp", "stereo")
        frame.sample_rate = 48_000
        container.mux(audio.encode(frame))
        container.mux(video.encode(None))
        container.mux(audio.encode(None))
