"""What a file holds beside picture and sound: captions, a cover, how loud it is."""

from __future__ import annotations

from itertools import islice
from pathlib import Path

import av
import numpy as np
from av.stream import Disposition
from numpy.typing import NDArray
from PIL import Image
from pymediainfo import MediaInfo

from kitecore.document import Track
from kitecore.edits.tests.populated import SECOND
from kitecore.media.tests.material import read_number
from kitecore.render.export import ExportSettings
from kitecore.render.formats import formats
from kitecore.render.tests.scene import Scene
from kitecore.render.tests.test_formats import FormatCase
from kitecore.sound.tests.test_loudness import by_ffmpeg


def _said(path: Path) -> list[tuple[int, int, str]]:
    """Captions of a film as they lie in it: milliseconds and words."""
    found = []
    with av.open(str(path)) as film:
        for packet in film.demux(*film.streams.subtitles) if film.streams.subtitles else ():
            # Timed text (3GPP TS 26.245) begins with its length, and is empty where nothing is said.
            skip = 2 if packet.stream.codec_context.name == "mov_text" else 0
            text = bytes(packet)[skip:].decode()
            if text:
                begin = round(float(packet.pts * packet.time_base) * 1000)
                length = round(float(packet.duration * packet.time_base) * 1000)
                found.append((begin, begin + length, text))
    return found


def _first_frame(path: Path, number: int) -> NDArray[np.float64]:
    """A frame by its number."""
    with av.open(str(path)) as film:
        frame = next(islice(film.decode(video=0), number, None))
        return frame.to_ndarray(format="rgb24").astype(np.float64)


class CaptionsTest(FormatCase):
    def test_captions_are_a_track_that_players_show_on_request(self) -> None:
        scene = self._captioned()
        wanted = [(300, 800, "Four {folds} up"), (800, 1500, "two\nlines — Näh"), (1900, 2000, "x")]
        can = [name for name, one in formats.items() if one.can_caption]
        self.assertEqual({"mp4", "hevc10", "webm", "av1", "prores"}, set(can))
        for name in can:
            with self.subTest(name):
                path = self.make(name, scene, captions="track", quality="small", last=2 * SECOND)
                self.assertEqual(wanted, _said(path))
                picture = _first_frame(path, 15)
                self.assertLess(np.abs(picture - _first_frame(self.make("mp4"), 15)).mean(), 2)
        seen, left = (
            self.make("mp4", scene, captions=how, last=2 * SECOND) for how in ("seen", "left_out")
        )
        self.assertEqual([], _said(seen) + _said(left))
        change = np.abs(_first_frame(seen, 15) - _first_frame(left, 15))
        self.assertGreater(change.max(), 100)
        # Where a format has no such track they are seen.
        with Image.open(self.make("gif", scene, captions="track", last=2 * SECOND)) as moving:
            moving.seek(15)
            drawn = np.asarray(moving.convert("RGB"), np.float64)
        self.assertGreater(np.abs(drawn - _first_frame(left, 15)).max(), 100)

    def test_a_range_holds_its_part_of_the_captions(self) -> None:
        path = self.make("mp4", self._captioned(), captions="track", first=SECOND // 2, last=SECOND)
        wanted = [(0, 300, "Four {folds} up"), (300, 500, "two\nlines — Näh")]
        self.assertEqual(wanted, _said(path))

    def test_settings_of_before_say_whether_captions_are_seen(self) -> None:
        for told, meant in ((True, "seen"), (False, "left_out"), ("track", "track")):
            self.assertEqual(meant, ExportSettings.model_validate({"captions": told}).captions)

    def _captioned(self) -> Scene:
        """Captions on two tracks: one goes on over the next, one over the end."""
        texts = [(0.3, 1.0, "Four {folds} up"), (0.8, 1.5, "two\nlines — Näh"), (1.9, 9.0, "x")]
        tracks = [
            {
                "kind": "picture",
                "captions": True,
                "clips": [
                    {
                        "kind": "text",
                        "text": text,
                        "start": round(begin * SECOND),
                        "length": round((end - begin) * SECOND),
                    }
                ],
            }
            for begin, end, text in texts
        ]
        scene = Scene(self.root)
        made = [Track.model_validate(track) for track in tracks]
        document = self.scene.document
        scene.document = document.model_copy(update={"tracks": (*document.tracks, *made)})
        return scene


class CoverTest(FormatCase):
    def test_the_chosen_frame_is_the_cover(self) -> None:
        can = [name for name, one in formats.items() if one.can_cover]
        self.assertEqual({"mp4", "hevc10", "prores", "flac", "mp3", "m4a"}, set(can))
        for name in can:
            with self.subTest(name):
                path = self.make(name, cover=SECOND + SECOND // 3, quality="small")
                self.assertEqual(40, read_number(_cover(path)))
                info = {one.track_type: one for one in MediaInfo.parse(path).tracks}
                self.assertEqual("Yes", info["General"].cover)
                if formats[name].kind == "film":
                    self.assertEqual("60", info["Video"].frame_count)
                    with av.open(str(path)) as film:
                        self.assertEqual(60, sum(1 for _ in film.decode(video=0)))

    def test_one_beyond_the_end_is_the_last_frame_and_none_is_none(self) -> None:
        self.assertEqual(59, read_number(_cover(self.make("mp4", cover=99 * SECOND))))
        for name, settings in (("mp4", {}), ("webm", {"cover": SECOND})):
            with av.open(str(self.make(name, quality="small", **settings))) as film:
                self.assertEqual(1, len(film.streams.video))


def _cover(path: Path) -> NDArray[np.uint8]:
    with av.open(str(path)) as film:
        found = [one for one in film.streams.video if one.disposition & Disposition.attached_pic]
        frame: NDArray[np.uint8] = next(film.decode(found[0])).to_ndarray(format="rgb24")
        return frame


def _sound(path: Path) -> NDArray[np.float32]:
    with av.open(str(path)) as film:
        resampler = av.AudioResampler("flt", "stereo", 48_000)
        parts = [
            part.to_ndarray().reshape(-1, 2)
            for one in film.decode(audio=0)
            for part in resampler.resample(one)
        ]
    return np.concatenate(parts)


class GainTest(FormatCase):
    def test_how_loud_a_file_is_stands_in_it(self) -> None:
        for name in ("flac", "mp3", "webm", "av1", "mp4", "hevc10", "m4a"):
            with self.subTest(name):
                path = self.make(name, quality="best")
                with av.open(str(path)) as film:
                    told = {key.upper(): value for key, value in film.metadata.items()}
                loudness, _, peak = by_ffmpeg(_sound(path))
                gain = float(told["REPLAYGAIN_TRACK_GAIN"].removesuffix(" dB"))
                self.assertAlmostEqual(-18 - loudness, gain, delta=0.3)
                told_peak = 20 * np.log10(float(told["REPLAYGAIN_TRACK_PEAK"]))
                self.assertAlmostEqual(peak, told_peak, delta=0.4)

    def test_silence_has_no_gain(self) -> None:
        scene = Scene(self.root)
        scene.video("b", frames=30, sound=None)
        scene.place("b", 1.0)
        for name in ("flac", "m4a"):
            with av.open(str(self.make(name, scene))) as film:
                self.assertFalse([key for key in film.metadata if "GAIN" in key.upper()])

    def test_told_afterwards_it_leaves_the_rest_as_it_was(self) -> None:
        """A file that plays while it is loaded still does; chapters, cover and captions stay."""
        path = self.make("mp4", cover=SECOND)
        written = path.read_bytes()
        self.assertLess(written.index(b"moov"), written.index(b"mdat"))
        self.assertEqual(30, read_number(_cover(path)))
        with av.open(str(path)) as film:
            self.assertEqual(60, sum(1 for _ in film.decode(video=0)))
