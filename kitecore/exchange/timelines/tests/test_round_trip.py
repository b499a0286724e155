"""What was written comes back whole, and as another program changed it."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

import opentimelineio as otio
from hypothesis import given
from hypothesis import settings as hypothesis_settings

from kitecore.document import Document, VideoClip, dump, empty_document
from kitecore.edits import apply
from kitecore.edits.tests.populated import SECOND, populated
from kitecore.edits.tests.strategies import documents
from kitecore.exchange.timelines import Medium, TakenOver, read_timeline, settle, write_timeline
from kitecore.exchange.timelines.terms import OURS

MEDIA = {
    id: Medium(media=id, name=f"take {id}.mp4", kind="video", length=60 * SECOND, sounds=True)
    for id in ("m1", "m2", "m3")
}


def taken(text: str, document: Document | None = None) -> TakenOver:
    return settle(read_timeline(text.encode()), MEDIA, document or Document())


def there_and_back(document: Document) -> Document:
    text = write_timeline(document, "Four folds up", MEDIA)
    return apply(empty_document(), taken(text).edit)


def opened(document: Document) -> otio.schema.Timeline:
    text = write_timeline(document, "Four folds up", MEDIA)
    return otio.adapters.read_from_string(text, "otio_json")


class RoundTripTest(TestCase):
    def test_a_document_with_everything_comes_back_whole(self) -> None:
        for rate in ((25, 1), (30000, 1001), (60, 1)):
            with self.subTest(rate):
                document = populated(*rate)
                self.assertEqual(dump(document), dump(there_and_back(document)))

    @given(documents())
    @hypothesis_settings(max_examples=40)
    def test_any_document_comes_back_whole(self, document: Document) -> None:
        self.assertEqual(dump(document), dump(there_and_back(document)))

    def test_nothing_is_left_out_of_what_is_ours(self) -> None:
        document = populated(25, 1)
        found = taken(write_timeline(document, "Kites", MEDIA))
        self.assertEqual(((), ()), (found.remarks, found.missing))
        self.assertEqual("Kites", found.edit.title)


class ElsewhereTest(TestCase):
    """Another program works on a file of ours."""

    def changed(self, document: Document, change: Any) -> Document:
        timeline = opened(document)
        change(timeline)
        text = otio.adapters.write_to_string(timeline, "otio_json")
        return apply(document, taken(text, document).edit)

    def film(self, **clip: Any) -> Document:
        first = {"kind": "video", "media": "m1", "length": 4 * SECOND, "source_in": SECOND}
        first |= {"source_length": 60 * SECOND, "id": "a", "gain": -6.0, **clip}
        second = first | {"id": "b", "start": 4 * SECOND, "media": "m2"}
        tracks = [{"kind": "main", "closes_gaps": True, "clips": [first, second]}]
        return Document.model_validate({"tracks": tracks, "rate": {"num": 25}})

    def clips(self, document: Document) -> list[VideoClip]:
        return [clip for clip in document.main.clips if isinstance(clip, VideoClip)]

    def test_a_clip_that_was_trimmed_keeps_all_else(self) -> None:
        def trim(timeline: otio.schema.Timeline) -> None:
            clip = timeline.tracks[0][0]
            begin = clip.source_range.start_time + otio.opentime.RationalTime(10, 25)
            length = clip.source_range.duration - otio.opentime.RationalTime(30, 25)
            clip.source_range = otio.opentime.TimeRange(begin, length)

        first, second = self.clips(self.changed(self.film(), trim))
        frame = SECOND // 25
        self.assertEqual((0, 70 * frame, 35 * frame), (first.start, first.length, first.source_in))
        self.assertEqual((70 * frame, 4 * SECOND), (second.start, second.length))
        self.assertEqual((-6.0, "a"), (first.gain, first.id))

    def test_trimming_a_faster_clip_takes_as_much_of_its_file(self) -> None:
        def trim(timeline: otio.schema.Timeline) -> None:
            clip = timeline.tracks[0][0]
            self.assertEqual(2.0, clip.effects[0].time_scalar)
            begin = clip.source_range.start_time + otio.opentime.RationalTime(20, 25)
            length = clip.source_range.duration - otio.opentime.RationalTime(10, 25)
            clip.source_range = otio.opentime.TimeRange(begin, length)

        film = self.film(speed={"points": [{"at": 0, "speed": 2.0}]})
        first, _ = self.clips(self.changed(film, trim))
        frame = SECOND // 25
        self.assertEqual((90 * frame, 45 * frame), (first.length, first.source_in))

    def test_a_gap_is_kept_and_told(self) -> None:
        def part(timeline: otio.schema.Timeline) -> None:
            gap = otio.schema.Gap(duration=otio.opentime.RationalTime(5, 25))
            timeline.tracks[0].insert(1, gap)

        film = self.changed(self.film(), part)
        self.assertEqual([0, 4 * SECOND + SECOND // 5], [c.start for c in self.clips(film)])
        self.assertFalse(film.main.closes_gaps)

    def test_a_clip_copied_with_its_metadata_is_another(self) -> None:
        def copy(timeline: otio.schema.Timeline) -> None:
            timeline.tracks[0].append(timeline.tracks[0][0].deepcopy())

        ids = [clip.id for clip in self.clips(self.changed(self.film(), copy))]
        self.assertEqual((3, 3), (len(ids), len(set(ids))))
        self.assertEqual(["a", "b"], ids[:2])

    def test_sound_of_videos_stands_on_tracks_of_its_own_and_comes_back_once(self) -> None:
        timeline = opened(self.film())
        self.assertEqual(["Video", "Audio"], [track.kind for track in timeline.tracks])
        self.assertEqual({"sound_of"}, set(timeline.tracks[1].metadata[OURS]))
        self.assertEqual(1, len(there_and_back(self.film()).tracks))

    def test_takes_are_found_by_name_in_another_project(self) -> None:
        text = write_timeline(self.film(), "Kites", MEDIA)
        others = {
            f"n{number}": one.model_copy(update={"media": f"n{number}"})
            for number, one in enumerate(MEDIA.values())
        }
        found = settle(read_timeline(text.encode()), others, Document())
        self.assertEqual(["n0", "n1"], [clip.media for clip in found.edit.tracks[0].clips])
        self.assertEqual((), found.missing)

    def test_what_is_not_there_is_a_grey_surface_of_the_same_length(self) -> None:
        text = write_timeline(self.film(), "Kites", MEDIA)
        found = settle(read_timeline(text.encode()), {"m1": MEDIA["m1"]}, Document())
        self.assertEqual(("take m2.mp4",), found.missing)
        first, second = found.edit.tracks[0].clips
        self.assertEqual(("video", "solid"), (first.kind, second.kind))
        self.assertEqual((4 * SECOND, 4 * SECOND), (second.start, second.length))
