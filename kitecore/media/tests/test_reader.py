"""Frames exactly, from every kind of file."""

from __future__ import annotations

import random
import struct
import tempfile
from fractions import Fraction
from pathlib import Path
from typing import Any
from unittest import TestCase

import av
import numpy as np

from kitecore.media.folder import MediaFolder
from kitecore.media.pixels import to_rgba
from kitecore.media.probe import probe
from kitecore.media.reader import VideoReader, open_original, open_proxy
from kitecore.media.tests.material import ingested, make_video, read_number, tone
from kitecore.ticks import TICKS_PER_SECOND, Rate

KINDS: dict[str, dict[str, Any]] = {
    "h264 with B-frames": {"options": {"bf": "3", "preset": "medium"}},
    "h264 4:2:2": {"pixels": "yuv422p"},
    "h264 4:4:4, odd size": {"pixels": "yuv444p", "size": (161, 243)},
    "h264 10 bit": {"pixels": "yuv420p10le"},
    "hevc 10 bit": {
        "codec": "libx265",
        "pixels": "yuv420p10le",
        "options": {"x265-params": "log-level=none"},
    },
    "vp9 in webm": {
        "codec": "libvpx-vp9",
        "container": "webm",
        "options": {"deadline": "realtime"},
    },
    "vp9 with alpha": {"codec": "libvpx-vp9", "container": "webm", "pixels": "yuva420p"},
    "av1 in mp4": {"codec": "libsvtav1", "options": {"preset": "8", "crf": "5"}},
    "29.97 in coarse matroska": {"rate": Fraction(30000, 1001), "container": "matroska"},
    "23.976 in mov": {"rate": Fraction(24000, 1001), "container": "mov"},
    "run-length with alpha": {"codec": "qtrle", "pixels": "argb", "container": "mov"},
    "one single frame": {"frames": 1},
}


class ReaderTest(TestCase):
    def setUp(self) -> None:
        self.folder = Path(self.enterContext(tempfile.TemporaryDirectory()))

    def reader(self, path: Path) -> VideoReader:
        info, index = probe(path)
        assert info.picture is not None and index is not None
        reader = VideoReader(path, info.picture, index)
        self.addCleanup(reader.close)
        return reader

    def number(self, reader: VideoReader, frame: int) -> int:
        size = (reader.picture.width, reader.picture.height)
        return read_number(to_rgba(reader.frame(frame), reader.picture, size))

    def test_every_kind_in_any_order(self) -> None:
        chance = random.Random(5)
        for name, how in KINDS.items():
            with self.subTest(name):
                frames = how.get("frames", 60)
                path = make_video(self.folder / "film", **{"frames": frames, **how})
                reader = self.reader(path)
                self.assertEqual(frames, len(reader.index))
                order = list(range(frames)) + chance.sample(range(frames), min(frames, 12))
                self.assertEqual(order, [self.number(reader, n) for n in order])

    def test_times_of_constant_rates_are_exact(self) -> None:
        for rate, container in (
            (Rate(30000, 1001), "matroska"),
            (Rate(25), "mp4"),
            (Rate(60), "webm"),
        ):
            with self.subTest(str(rate)):
                codec = "libvpx-vp9" if container == "webm" else "libx264"
                path = make_video(
                    self.folder / "film", rate=rate.fraction, container=container, codec=codec
                )
                info, index = probe(path)
                assert index is not None and info.picture is not None
                self.assertEqual([rate.start_of(n) for n in range(60)], index.times.tolist())
                self.assertEqual(
                    (rate.num, rate.den), (info.picture.rate.num, info.picture.rate.den)
                )  # type: ignore[union-attr]
                self.assertFalse(info.picture.variable)

    def test_uneven_pace_keeps_its_times(self) -> None:
        steps = [15, 20, 25, 40, 11] * 8
        times = [sum(steps[:n]) for n in range(40)]
        path = make_video(self.folder / "film", frames=40, times=times, base=Fraction(1, 600))
        reader = self.reader(path)
        unit = TICKS_PER_SECOND // 600
        self.assertEqual([t * unit for t in times], reader.index.times.tolist())
        self.assertTrue(probe(path)[0].picture.variable)  # type: ignore[union-attr]
        for n, time in enumerate(times):
            self.assertEqual(n, reader.index.frame_at(time * unit))
            self.assertEqual(n, reader.index.frame_at(time * unit + 9 * unit))
            self.assertEqual(n, self.number(reader, n))

    def test_before_the_first_and_after_the_last_the_nearest_is_shown(self) -> None:
        reader = self.reader(make_video(self.folder / "film", frames=10))
        self.assertEqual([0, 9], [reader.index.frame_at(-5), reader.index.frame_at(10**12)])
        self.assertEqual([0, 9], [self.number(reader, -3), self.number(reader, 500)])

    def test_what_an_edit_list_leaves_out_is_not_there(self) -> None:
        path = make_video(self.folder / "film", frames=40, options={"bf": "0"}, gop=40)
        _skip_by_edit_list(path, frames=10)
        info, index = probe(path)
        assert index is not None and info.picture is not None
        self.assertEqual(30, len(index))
        self.assertEqual(0, index.times[0])
        reader = VideoReader(path, info.picture, index)
        self.addCleanup(reader.close)
        self.assertEqual([10, 25, 39, 12], [self.number(reader, n) for n in (0, 15, 29, 2)])

    def test_the_last_frame_of_an_uneven_file_lasts_as_long_as_it_says(self) -> None:
        """Of MP4, and of Matroska with its times in whole milliseconds."""
        times = [0, 20, 40, 100, 400, 420]
        for form in ("mp4", "matroska"):
            with self.subTest(form):
                path = self.folder / "film"
                with av.open(str(path), "w", format=form) as out:
                    stream = out.add_stream("libx264", rate=30, options={"bf": "0"})
                    stream.width, stream.height, stream.pix_fmt = 64, 64, "yuv420p"
                    stream.codec_context.time_base = stream.time_base = Fraction(1, 600)
                    frames: list[av.VideoFrame | None] = []
                    for number, at in enumerate(times):
                        frame = av.VideoFrame.from_ndarray(
                            np.full((64, 64, 3), 40 * number, np.uint8), format="rgb24"
                        )
                        frame.pts, frame.time_base = at, Fraction(1, 600)
                        frames.append(frame)
                    for coded in (*frames, None):
                        for packet in stream.encode(coded):
                            # Of a coded frame its length is told by its packet.
                            packet.duration = 300 if packet.pts == times[-1] else 20
                            out.mux(packet)
                info, _ = probe(path)
                self.assertAlmostEqual(720 / 600, info.length / TICKS_PER_SECOND, delta=0.002)

    def test_files_that_tell_no_times_or_cannot_be_searched(self) -> None:
        """Frames shown in another order than they are coded, in AVI and in a transport stream."""
        order = [0, 1, 2, 40, 13, 59, 31, 30, 29, 5, 58, 16, 15, 14]
        for container, codec in (("avi", "libx264"), ("avi", "mpeg4"), ("mpegts", "libx264")):
            with self.subTest(container=container, codec=codec):
                path = make_video(
                    self.folder / "film", frames=60, codec=codec, container=container, gop=15,
                    options={"bf": "2"},
                )  # fmt: skip
                reader = self.reader(path)
                self.assertEqual(60, len(reader.index))
                self.assertEqual(2 * TICKS_PER_SECOND, reader.index.end)
                self.assertEqual(order, [self.number(reader, number) for number in order])

    def test_turned_by_metadata_comes_upright(self) -> None:
        path = make_video(self.folder / "film", frames=3, size=(160, 240))
        _turn_clockwise(path)
        reader = self.reader(path)
        picture = reader.picture
        self.assertEqual((240, 160, 90), (picture.width, picture.height, picture.turn))
        upright = to_rgba(reader.frame(1), picture, (240, 160))
        self.assertEqual((160, 240, 4), upright.shape)
        # Frame 1 is white at its top left, which a turn clockwise takes to the top right.
        self.assertGreater(upright[20, 220, 0], 200)
        self.assertLess(upright[20, 20, 0], 40)

    def test_mirrored_by_metadata_comes_as_it_was_seen(self) -> None:
        """Frame 1 is white at its top left and nowhere else; where each matrix takes that."""
        one, size = 65536, (160, 240)
        matrices = {
            "across": ((-one, 0, 0, one), (0, True), (20, 140)),
            "down": ((one, 0, 0, -one), (180, True), (220, 20)),
            "along the diagonal": ((0, one, one, 0), (90, True), (20, 20)),
            "along the other": ((0, -one, -one, 0), (270, True), (140, 220)),
        }
        for name, ((a, b, c, d), how, (row, column)) in matrices.items():
            with self.subTest(name):
                path = make_video(self.folder / "film", frames=3, size=size)
                _lie(path, (a, b, 0, c, d, 0, 0, 0, 2**30))
                reader = self.reader(path)
                picture = reader.picture
                self.assertEqual(how, (picture.turn, picture.mirrored))
                shown = to_rgba(reader.frame(1), picture, (picture.width, picture.height))
                self.assertGreater(shown[row, column, 0], 200)
                self.assertLess(shown[..., 0].mean(), 40)

    def test_alpha_comes_premultiplied(self) -> None:
        path = self.folder / "film"
        with av.open(str(path), "w", format="webm") as out:
            stream = out.add_stream("libvpx-vp9", rate=30, options={"crf": "5", "b": "0"})
            stream.width, stream.height, stream.pix_fmt = 64, 64, "yuva420p"
            pixels = np.full((64, 64, 4), 255, np.uint8)
            pixels[:, 32:, 3] = 64
            frame = av.VideoFrame.from_ndarray(pixels, format="rgba")
            out.mux(stream.encode(frame.reformat(format="yuva420p")))
            out.mux(stream.encode(None))
        reader = self.reader(path)
        self.assertTrue(reader.picture.alpha)
        got = to_rgba(reader.frame(0), reader.picture, (64, 64))
        self.assertLess(np.abs(got[32, 48].astype(int) - 64).max(), 8)
        self.assertEqual(255, got[32, 10, 3])

    def test_a_proxy_has_the_same_frames(self) -> None:
        steps = [15, 20, 25, 40] * 10
        times = [sum(steps[:n]) for n in range(40)]
        source = make_video(
            self.folder / "x", frames=40, times=times, base=Fraction(1, 600), size=(1080, 1620)
        )
        folder = ingested(self.folder, "take", source)
        proxy, original = open_proxy(folder), open_original(folder)
        self.addCleanup(proxy.close)
        self.addCleanup(original.close)
        self.assertEqual(960, proxy.frame(0).height)
        for n in (0, 1, 11, 12, 13, 39, 20, 5):
            self.assertEqual([n, n], [self.number(proxy, n), self.number(original, n)])

    def test_a_proxy_keeps_alpha(self) -> None:
        """VP9 with its second picture, ProRes 4444, and run-length coded; soft edges and colours."""
        y, x = np.mgrid[0:240, 0:160]
        alpha = np.clip(255 - 2 * np.abs(x - 80), 0, 255)
        straight = np.dstack([np.full_like(x, 200), y, 255 - y, alpha]).astype(np.uint8)
        kinds = {
            "vp9": ("libvpx-vp9", "webm", "yuva420p", {"crf": "5", "b": "0"}),
            "prores": ("prores_ks", "mov", "yuva444p10le", {"profile": "4444"}),
            "qtrle": ("qtrle", "mov", "argb", {}),
        }
        for name, (codec, container, pixels, options) in kinds.items():
            with self.subTest(name):
                source = make_video(
                    self.folder / "x", frames=9, codec=codec, container=container, pixels=pixels,
                    options=options, draw=lambda _, pixels=pixels: _coded(straight, pixels),
                )  # fmt: skip
                folder = ingested(self.folder, name, source)
                proxy, original = open_proxy(folder), open_original(folder)
                self.addCleanup(proxy.close)
                self.addCleanup(original.close)
                size = (120, 180)
                small = to_rgba(proxy.frame(7), proxy.picture, size).astype(int)
                whole = to_rgba(original.frame(7), original.picture, size).astype(int)
                self.assertLess(np.abs(small - whole).mean(), 2.5)
                self.assertLess(np.abs(small - whole)[..., 3].max(), 14)
                self.assertLess(small[90, 0, 3], 110)
                self.assertTrue((small[..., :3] <= small[..., 3:]).all())


def _coded(straight: Any, pixels: str) -> av.VideoFrame:
    frame = av.VideoFrame.from_ndarray(straight, format="rgba")
    if pixels == "argb":
        return frame.reformat(format=pixels)
    return frame.reformat(format=pixels, dst_colorspace="ITU709", dst_color_range="MPEG")


def _turn_clockwise(path: Path) -> None:
    _lie(path, (0, 65536, 0, -65536, 0, 0, 160 * 65536, 0, 2**30))


def _lie(path: Path, matrix: tuple[int, ...]) -> None:
    """Put a matrix into the track header (ISO/IEC 14496-12, 8.3.2)."""
    data = path.read_bytes()
    at = data.index(b"tkhd") + 44
    path.write_bytes(data[:at] + struct.pack(">9i", *matrix) + data[at + 36 :])


def _skip_by_edit_list(path: Path, frames: int) -> None:
    """Let the track's edit list begin some frames into the media (ISO/IEC 14496-12, 8.6.6)."""
    data = bytearray(path.read_bytes())
    at = data.index(b"elst") + 8
    count = struct.unpack(">I", data[at : at + 4])[0]
    scale_at = data.index(b"mdhd") + 4 + 4 + 8
    scale = struct.unpack(">I", data[scale_at : scale_at + 4])[0]
    assert count == 1
    length = struct.unpack(">I", data[at + 4 : at + 8])[0]
    skipped = frames * scale // 30
    entry = struct.pack(">Ii", length - frames * 1000 // 30, skipped)
    data[at + 4 : at + 12] = entry
    path.write_bytes(bytes(data))


class FolderTest(TestCase):
    def test_a_take_is_as_long_as_its_picture_or_its_longer_sound(self) -> None:
        root = Path(self.enterContext(tempfile.TemporaryDirectory()))
        for name, seconds, whole in (
            ("longer", 3.0, 3.0),
            ("shorter", 1.0, 2.0),
            ("even", 2.0, 2.0),
        ):
            source = make_video(root / "film", frames=60, sound=tone(seconds))
            folder: MediaFolder = ingested(root, name, source)
            self.assertAlmostEqual(whole, folder.info.length / TICKS_PER_SECOND, delta=0.03)
            self.assertEqual(2 * TICKS_PER_SECOND, folder.index.end)
            self.assertAlmostEqual(seconds, folder.sound.stat().st_size / 8 / 48000, delta=0.03)
