"""Files of every other kind than films: read by others than those that wrote them."""

from __future__ import annotations

import io
import tempfile
import zipfile
from pathlib import Path
from unittest import TestCase

import av
import numpy as np
from hypothesis import given
from hypothesis import strategies as some
from PIL import Image
from pymediainfo import MediaInfo

from kitecore.document import Marker
from kitecore.edits.tests.populated import SECOND
from kitecore.media.tests.material import read_number, tone
from kitecore.render.destinations import DESTINATIONS
from kitecore.render.export import Aspect, ExportSettings, FileRate, make, piece_key, plan
from kitecore.render.formats import formats
from kitecore.render.making.framing import framed
from kitecore.render.sources import Sources
from kitecore.render.tests.scene import SIZE, Scene

RED = (255, 0, 0, 255)


class FormatCase(TestCase):
    @classmethod
    def setUpClass(cls) -> None:
        cls.root = Path(cls.enterClassContext(tempfile.TemporaryDirectory()))
        cls.scene = Scene(cls.root)
        cls.scene.video("a", frames=60, sound=tone(2.0), options={"preset": "ultrafast"})
        cls.scene.place("a", 2.0)

    def setUp(self) -> None:
        self.sources = Sources(self.scene.find)
        self.addCleanup(self.sources.close)

    def make(self, format: str, scene: Scene | None = None, **settings: object) -> Path:
        wanted = ExportSettings(format=format, **settings)  # type: ignore[arg-type]
        path = Path(tempfile.mkdtemp(dir=self.root)) / f"film.{wanted.recipe.suffix}"
        sources = self.sources if scene is None else Sources(scene.find)
        make((scene or self.scene).document, wanted, path, sources, title="Numbers")
        if scene is not None:
            sources.close()
        return path


class KindsTest(FormatCase):
    def test_moving_pictures_hold_every_frame_for_its_time_and_repeat(self) -> None:
        for name, last in (("gif", 40), ("webp-moving", 40)):
            with (
                self.subTest(name),
                Image.open(self.make(name, rate=FileRate(num=25, den=2))) as film,
            ):
                self.assertEqual((25, SIZE, 0), (film.n_frames, film.size, film.info["loop"]))
                shown, times = [], []
                for at in range(film.n_frames):
                    film.seek(at)
                    film.load()
                    times.append(film.info["duration"])
                    shown.append(read_number(np.asarray(film.convert("RGB"))))
                # 12.5 frames a second of 30: each shows the one that is on at its start.
                self.assertEqual([at * 30 * 2 // 25 for at in range(25)], shown)
                self.assertEqual([80] * 24, times[:24])
                self.assertLessEqual(last, times[24])

    def test_an_archive_holds_a_picture_for_each_frame(self) -> None:
        with zipfile.ZipFile(self.make("pngs")) as archive:
            self.assertIsNone(archive.testzip())
            names = archive.namelist()
            pictures = [Image.open(io.BytesIO(archive.read(name))) for name in names]
        self.assertEqual([f"frame-{number:06d}.png" for number in range(1, 61)], names)
        self.assertEqual(list(range(60)), [read_number(np.asarray(one)) for one in pictures])
        self.assertEqual("RGB", pictures[0].mode)

    def test_a_still_is_the_frame_at_its_moment(self) -> None:
        for name, kind in (("png", "PNG"), ("jpeg", "JPEG"), ("webp", "WEBP")):
            with Image.open(self.make(name, first=SECOND)) as picture:
                self.assertEqual((kind, SIZE), (picture.format, picture.size))
                self.assertEqual(30, read_number(np.asarray(picture.convert("RGB"))))

    def test_sound_alone(self) -> None:
        wanted = {
            "wav": ("PCM", 16, 24),
            "flac": ("FLAC", 16, 24),
            "mp3": ("MPEG Audio", None, None),
            "m4a": ("AAC", None, None),
        }
        for name, (codec, *bits) in wanted.items():
            for quality, depth in zip(("good", "best"), bits, strict=True):
                path = self.make(name, quality=quality)
                info = {one.track_type: one for one in MediaInfo.parse(path).tracks}
                with self.subTest(f"{name} {quality}"):
                    self.assertEqual(
                        (codec, depth), (info["Audio"].format, info["Audio"].bit_depth)
                    )
                    self.assertNotIn("Video", info)
                    self.assertAlmostEqual(2000, float(info["General"].duration), delta=60)
                    self.assertEqual("Numbers", info["General"].title)
                    self.assertAlmostEqual(0.5 / np.sqrt(2), self.level(path), delta=0.01)

    def level(self, path: Path) -> float:
        with av.open(str(path)) as film:
            resampler = av.AudioResampler("fltp", "stereo", 48_000)
            heard = [
                part.to_ndarray()
                for one in film.decode(audio=0)
                for part in resampler.resample(one)
            ]
        return float(np.sqrt(np.mean(np.concatenate(heard, axis=1)[0][10_000:80_000] ** 2)))

    def test_a_film_to_work_on_keeps_whole_chroma_and_ten_bits(self) -> None:
        with av.open(str(self.make("prores"))) as film:
            frames = list(film.decode(video=0))
            self.assertEqual("pcm_s24le", film.streams.audio[0].codec_context.name)
        self.assertEqual("yuv444p10le", frames[0].format.name)
        shown = [read_number(one.to_ndarray(format="rgb24")) for one in frames]
        self.assertEqual(list(range(60)), shown)

    def test_named_markers_are_chapters(self) -> None:
        scene = Scene(self.root)
        scene.document = self.scene.document.model_copy(
            update={
                "markers": (
                    Marker(at=SECOND, name="Launch"),
                    Marker(at=0, name="Folds"),
                    Marker(at=SECOND // 2),
                )
            }
        )
        for name in ("mp4", "webm", "m4a"):
            with av.open(str(self.make(name, scene))) as film:
                told = [
                    (one["metadata"]["title"], float(one["start"] * one["time_base"]))
                    for one in film.chapters()
                ]
            self.assertEqual([("Folds", 0.0), ("Launch", 1.0)], told, name)


class ClearTest(FormatCase):
    def setUp(self) -> None:
        super().setUp()
        self.half = Scene(Path(tempfile.mkdtemp(dir=self.root)))
        self.half.still("red", RED, (60, 60))
        self.half.place("red", 1.0, opacity=0.5)

    def test_what_can_stay_see_through_does(self) -> None:
        can = {name for name, one in formats.items() if one.can_clear}
        self.assertEqual({"webm", "prores", "gif", "webp-moving", "pngs", "png", "webp"}, can)
        for name in sorted(can - {"gif"}):
            with self.subTest(name):
                first = self.first(self.make(name, self.half, clear=True, quality="best"))
                above, middle = first[4, 90].astype(int), first[160, 90].astype(int)
                self.assertEqual(0, above[3])
                self.assertLess(np.abs(middle - (255, 0, 0, 128)).max(), 8)
                opaque = self.first(self.make(name, self.half, quality="best"))
                self.assertEqual(255, opaque[4, 90, 3])

    def test_ten_bits_stay_ten_bits_where_it_is_see_through(self) -> None:
        scene = Scene(Path(tempfile.mkdtemp(dir=self.root)))
        stops = [{"at": at, "colour": "#e0e0e0", "opacity": at} for at in (0, 1)]
        fill = {"kind": "straight", "begin": [0, -160], "end": [0, 160], "stops": stops}
        clip = {"kind": "solid", "name": "mist", "length": SECOND, "fill": fill}
        scene.do(kind="place", clip=clip, mode="end")
        with av.open(str(self.make("prores", scene, clear=True, quality="best"))) as film:
            frame = next(film.decode(video=0))
        planes = [np.frombuffer(plane, np.uint16) for plane in frame.planes]
        light, alpha = (planes[k].reshape(SIZE[1], -1)[:, 90].astype(int) for k in (0, 3))
        share = (np.arange(SIZE[1]) + 0.5) / SIZE[1]
        full = 2 ** (10 if "10" in frame.format.name else 12) - 1
        self.assertLess(np.abs(alpha / full - share).max(), 1 / 500)
        self.assertGreater(len(np.unique(alpha)), 310)
        seen = share > 0.2
        level = (64 + 876 * 224 / 255) / 1023
        self.assertLess(np.abs(light[seen] / full - level).max(), 1 / 200)

    def first(self, path: Path) -> np.ndarray:
        """RGBA of the first picture, by a decoder that knows of alpha."""
        if path.suffix == ".zip":
            with zipfile.ZipFile(path) as archive:
                path = Path(archive.extract(archive.namelist()[0], path.parent))
        if path.suffix in (".png", ".webp"):
            with Image.open(path) as picture:
                return np.asarray(picture.convert("RGBA"))
        with av.open(str(path)) as film:
            stream = film.streams.video[0]
            name = "libvpx-vp9" if path.suffix == ".webm" else stream.codec_context.name
            context = av.CodecContext.create(name, "r")
            context.extradata = stream.codec_context.extradata
            for packet in film.demux(stream):
                for frame in context.decode(packet):
                    return frame.to_ndarray(format="rgba")
        raise AssertionError("no picture")


class ShapeTest(FormatCase):
    def test_another_shape_has_bars_or_is_cropped(self) -> None:
        scene = Scene(Path(tempfile.mkdtemp(dir=self.root)))
        scene.still("red", RED, SIZE)
        scene.place("red", 1.0)
        wide = Aspect(width=16, height=9)
        for name in ("png", "hevc10"):
            fitted = self.picture(self.make(name, scene, shape=wide))
            self.assertEqual((180, 320, 3), fitted.shape)
            bars, middle = fitted[90, [4, 315]].astype(int), fitted[90, 160].astype(int)
            self.assertLess(np.abs(bars).max(), 8)
            self.assertGreater(middle[0], 240)
            filled = self.picture(self.make(name, scene, shape=wide, fit="fill", long_side=160))
            self.assertEqual((90, 160, 3), filled.shape)
            self.assertGreater(filled[..., 0].min(), 240)

    def picture(self, path: Path) -> np.ndarray:
        with av.open(str(path)) as film:
            return next(film.decode(video=0)).to_ndarray(format="rgb24")

    @given(
        some.tuples(some.integers(32, 4096), some.integers(32, 4096)),
        some.tuples(some.integers(1, 21), some.integers(1, 21)),
        some.sampled_from(["fit", "fill"]),
        some.integers(16, 4096),
    )
    def test_the_canvas_lies_in_the_middle_and_keeps_its_shape(
        self, canvas: tuple[int, int], shape: tuple[int, int], fit: str, long_side: int
    ) -> None:
        found = framed(canvas, shape, fit, long_side)  # type: ignore[arg-type]
        self.assertLessEqual(max(found.size), long_side + 1)
        for side in (0, 1):
            self.assertFalse(found.size[side] % 2 or found.drawn[side] % 2 or found.at[side] % 2)
            left = found.size[side] - found.drawn[side]
            self.assertLessEqual(abs(found.at[side] - left / 2), 1)
            if fit == "fit":
                self.assertLessEqual(found.drawn[side], found.size[side] + 1)
            else:
                self.assertGreaterEqual(found.drawn[side], found.size[side] - 1)


class SettingsTest(FormatCase):
    def test_a_piece_is_named_by_all_that_it_depends_on(self) -> None:
        variants = (
            {},
            {"format": "webm"},
            {"format": "webm", "clear": True},
            {"quality": "best"},
            {"long_side": 160},
            {"shape": Aspect(width=1, height=1)},
            {"shape": Aspect(width=1, height=1), "fit": "fill"},
            {"rate": FileRate(num=15)},
            {"format": "gif"},
        )
        keys = set()
        for variant in variants:
            settings = ExportSettings(**variant)  # type: ignore[arg-type]
            work = settings.work(self.scene.document)
            piece = plan(work)[0]
            keys.add(piece_key(work, settings.recipe, piece, self.scene.find))
        self.assertEqual(len(variants), len(keys))

    def test_unknown_formats_and_rates_are_refused(self) -> None:
        for wrong in (
            {"format": "tape"},
            {"rate": {"num": 7}},
            {"shape": {"width": 0, "height": 1}},
        ):
            with self.assertRaises(ValueError):
                ExportSettings.model_validate(wrong)

    def test_what_places_want_can_be_made(self) -> None:
        for place in DESTINATIONS:
            work = place.settings.work(self.scene.document)
            self.assertTrue(work.numbers, place.id)
            self.assertEqual(place.settings.clear, work.clear, place.id)
