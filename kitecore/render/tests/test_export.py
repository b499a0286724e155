"""Finished files: frames, sound, length and tags, read by others than the one that wrote them."""

from __future__ import annotations

import tempfile
from pathlib import Path
from unittest import TestCase

import av
import numpy as np
from pymediainfo import MediaInfo

from kitecore.edits.tests.populated import SECOND
from kitecore.errors import BadInput, RenderFailed, Superseded
from kitecore.media.tests.material import decoded_numbers, tone
from kitecore.render.export import ExportSettings, make, piece_key, plan
from kitecore.render.making.format import Joining, Pieced
from kitecore.render.making.work import Work
from kitecore.render.sources import Sources
from kitecore.render.tests.scene import SIZE, Scene


class ExportTest(TestCase):
    @classmethod
    def setUpClass(cls) -> None:
        cls.root = Path(cls.enterClassContext(tempfile.TemporaryDirectory()))
        cls.scene = scene = Scene(cls.root)
        scene.video("a", frames=150, sound=tone(5.0), options={"preset": "ultrafast"})
        scene.place("a", 3.0, into=1.0)
        scene.place("a", 2.5, into=0.5)

    def setUp(self) -> None:
        self.sources = Sources(self.scene.find)
        self.addCleanup(self.sources.close)
        self.folder = Path(tempfile.mkdtemp(dir=self.root))
        self.numbers = [*range(30, 120), *range(15, 90)]

    def film(self, settings: ExportSettings) -> Path:
        path = self.folder / "film"
        make(self.scene.document, settings, path, self.sources, title="Numbers")
        return path

    def _depth(self, film: Path) -> int:
        with av.open(str(film)) as source:
            return max(part.bits for part in source.streams.video[0].format.components)

    def test_every_format_holds_every_frame_and_the_sound(self) -> None:
        wanted = {
            "mp4": ("AVC", "AAC", 8),
            "webm": ("VP9", "Opus", 8),
            "hevc10": ("HEVC", "AAC", 10),
            "av1": ("AV1", "Opus", 10),
        }
        for name, (*codecs, depth) in wanted.items():
            with self.subTest(name):
                film = self.film(ExportSettings(format=name))
                self.assertEqual(self.numbers, decoded_numbers(film))
                tracks = {track.track_type: track for track in MediaInfo.parse(film).tracks}
                self.assertEqual(codecs, [tracks["Video"].format, tracks["Audio"].format])
                self.assertEqual(depth, self._depth(film))
                self.assertEqual(SIZE, (tracks["Video"].width, tracks["Video"].height))
                # WebM holds times in milliseconds only, from which the rate is guessed.
                self.assertAlmostEqual(30, float(tracks["Video"].frame_rate), delta=0.1)
                self.assertEqual("Numbers", tracks["General"].title)
                self.assertAlmostEqual(5500, float(tracks["General"].duration), delta=25)
                self._check_sound(film)

    def _check_sound(self, film: Path) -> None:
        with av.open(str(film)) as container:
            frames = [f.to_ndarray() for f in container.decode(audio=0)]
        heard = np.concatenate(frames, axis=1)[0][: round(5.5 * 48_000)]
        self.assertGreaterEqual(len(heard), round(5.5 * 48_000) - 1024)
        level = np.sqrt(np.mean(heard[10_000:250_000] ** 2))
        self.assertAlmostEqual(0.5 / np.sqrt(2), float(level), places=1)

    def test_smaller_and_a_range(self) -> None:
        settings = ExportSettings(long_side=160, first=2 * SECOND, last=4 * SECOND)
        film = self.film(settings)
        self.assertEqual(self.numbers[60:120], decoded_numbers(film))
        with av.open(str(film)) as container:
            video = container.streams.video[0]
            self.assertEqual((90, 160), (video.width, video.height))

    def test_the_picture_is_tagged(self) -> None:
        with av.open(str(self.film(ExportSettings()))) as container:
            context = container.streams.video[0].codec_context
            self.assertEqual(
                (1, 1, 1, 1),
                (
                    context.colorspace,
                    context.color_primaries,
                    context.color_trc,
                    context.color_range,
                ),
            )

    def test_a_piece_made_again_is_the_same_and_a_broken_one_is_no_file(self) -> None:
        work, recipe = self.work(ExportSettings())
        frames = plan(work)[0]
        first, second = self.folder / "one", self.folder / "two"

        def die(frame: float) -> None:
            if frame == frames[40]:
                raise Superseded("enough")

        with self.assertRaises(Superseded):
            recipe.encode_piece(work, frames, first, self.sources, die)
        self.assertFalse(first.exists())
        for path in (first, second):
            recipe.encode_piece(work, frames, path, self.sources)
        self.assertEqual(decoded_numbers(first), decoded_numbers(second))
        keys = [piece_key(work, recipe, frames, self.scene.find) for _ in "ab"]
        self.assertEqual(keys[0], keys[1])

    def work(self, settings: ExportSettings) -> tuple[Work, Pieced]:
        assert isinstance(settings.recipe, Pieced)
        return settings.work(self.scene.document), settings.recipe

    def test_nothing_to_export_and_missing_pieces_are_said(self) -> None:
        with self.assertRaisesRegex(BadInput, "nothing to export"):
            ExportSettings().work(Scene(self.root).document)
        work, recipe = self.work(ExportSettings())
        with self.assertRaises(RenderFailed):
            recipe.join(work, Joining([self.folder / "gone"], self.folder / "film", self.sources))
