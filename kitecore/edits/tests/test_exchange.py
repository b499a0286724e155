from __future__ import annotations

from typing import Any
from unittest import TestCase

from kitecore.document import Document, GroupClip, VideoClip
from kitecore.edits import apply
from kitecore.edits.tests.populated import SECOND, edit, populated
from kitecore.errors import EditRefused


def other(media: str = "n1", seconds: float = 60, kind: str = "video") -> dict[str, Any]:
    length = 0 if kind == "still" else round(seconds * SECOND)
    return {"media": media, "name": "other.mp4", "kind": kind, "length": length}


def exchanged(document: Document, **takes: dict[str, Any]) -> Document:
    pairs = [{"media": media, "take": take} for media, take in takes.items()]
    return apply(document, edit(kind="exchange_takes", pairs=pairs))


class ExchangeTest(TestCase):
    def film(self, **clip: Any) -> Document:
        video = {"kind": "video", "media": "m1", "length": 4 * SECOND, "source_in": SECOND}
        video |= {"source_length": 9 * SECOND, "gain": -6.0, **clip}
        group = {"kind": "group", "length": 4 * SECOND, "start": 4 * SECOND}
        group["tracks"] = [{"kind": "main", "clips": [video]}]
        tracks = [{"kind": "main", "closes_gaps": True, "clips": [video, group]}]
        tracks.append({"kind": "sound", "clips": [video | {"kind": "sound"}]})
        return Document.model_validate({"tracks": tracks})

    def test_everywhere_and_all_else_stays(self) -> None:
        after = exchanged(self.film(), m1=other())
        self.assertEqual(frozenset(("n1",)), after.media_ids())
        [video, held] = after.main.clips
        assert isinstance(video, VideoClip) and isinstance(held, GroupClip)
        self.assertEqual((-6.0, 4 * SECOND), (video.gain, video.length))
        self.assertEqual("n1", held.tracks[0].clips[0].media)
        self.assertEqual("sound", after.tracks[1].clips[0].kind)

    def test_a_short_take_runs_slower_and_the_length_stays(self) -> None:
        for speed in (1.0, 2.0, -1.0):
            with self.subTest(speed):
                before = self.film(
                    speed={"points": [{"at": 0, "speed": speed}]},
                    source_in=9 * SECOND if speed < 0 else 0,
                )
                video = exchanged(before, m1=other(seconds=2)).main.clips[0]
                assert isinstance(video, VideoClip)
                self.assertEqual(4 * SECOND, video.length)
                low, high = video.used
                self.assertGreaterEqual(low, 0)
                self.assertLessEqual(high, 2 * SECOND)
                self.assertLess(2 * SECOND - (high - low), 10)
                self.assertEqual(speed < 0, (video.speed.constant or 0) < 0)

    def test_a_still_in_place_of_a_video_and_none_in_place_of_sound(self) -> None:
        picture_only = self.film().model_copy(update={"tracks": self.film().tracks[:1]})
        clip = exchanged(picture_only, m1=other(kind="still")).main.clips[0]
        self.assertEqual(("still", 4 * SECOND), (clip.kind, clip.length))
        with self.assertRaises(EditRefused):
            exchanged(self.film(), m1=other(kind="still"))

    def test_what_is_not_used_or_locked_is_refused(self) -> None:
        with self.assertRaises(EditRefused):
            exchanged(self.film(), m9=other())
        film = self.film()
        track = film.main.model_copy(update={"locked": True})
        with self.assertRaises(EditRefused):
            exchanged(film.with_track(track), m1=other())

    def test_a_film_of_everything(self) -> None:
        before = populated(25, 1)
        after = exchanged(before, m2=other("n2", kind="still"))
        self.assertEqual(before.media_ids() - {"m2"} | {"n2"}, after.media_ids())
        lengths = [[clip.length for _, clip in one.clips()] for one in (before, after)]
        self.assertEqual(*lengths)
