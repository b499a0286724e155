"""Files that other programs write, made here as oddly as they come."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

import opentimelineio as otio
from opentimelineio.opentime import RationalTime, TimeRange

from kitecore.document import Document, GroupClip, VideoClip, empty_document
from kitecore.edits import apply
from kitecore.edits.tests.populated import SECOND
from kitecore.errors import BadInput
from kitecore.exchange.timelines import Medium, TakenOver, read_timeline, settle

FRAME = SECOND // 24
MEDIA = {
    "m1": Medium(media="m1", name="Harbour 1.MOV", kind="video", length=20 * SECOND, sounds=True),
    "m2": Medium(media="m2", name="rain.wav", kind="sound", length=60 * SECOND, sounds=True),
    "m3": Medium(media="m3", name="sheet.png", kind="still"),
}


def span(first: float, length: float, rate: float = 24) -> TimeRange:
    return TimeRange(RationalTime(first, rate), RationalTime(length, rate))


def clip(url: str = "file:///elsewhere/harbour%201.mov", **more: Any) -> otio.schema.Clip:
    available = more.pop("available", None)
    reference = otio.schema.ExternalReference(url, available)
    more = {"source_range": span(48, 24), "name": "c", **more}
    return otio.schema.Clip(media_reference=reference, **more)


def video(*items: Any, kind: str = "Video", **more: Any) -> otio.schema.Track:
    return otio.schema.Track(name="V1", children=list(items), kind=kind, **more)


def found(*tracks: Any, markers: Any = (), data: Any = None) -> TakenOver:
    timeline = otio.schema.Timeline("Elsewhere")
    timeline.tracks.extend(tracks)
    timeline.tracks.markers.extend(markers)
    text = otio.adapters.write_to_string(data or timeline, "otio_json")
    return settle(read_timeline(text.encode()), MEDIA, empty_document())


def laid(*tracks: Any, **more: Any) -> Document:
    return apply(empty_document(), found(*tracks, **more).edit)


def first(document: Document) -> VideoClip:
    [one, *_] = document.main.clips
    assert isinstance(one, VideoClip)
    return one


class ForeignTest(TestCase):
    def test_a_clip_is_found_by_the_name_of_its_file(self) -> None:
        for url in (
            "file:///elsewhere/harbour%201.mov",
            "C:\\elsewhere\\Harbour 1.mov",
            "harbour 1.mxf",
        ):
            with self.subTest(url):
                one = first(laid(video(clip(url))))
                self.assertEqual(("m1", 2 * SECOND, SECOND), (one.media, one.source_in, one.length))

    def test_times_of_other_rates_come_to_the_next_frame_without_drift(self) -> None:
        takes = [clip(source_range=span(0, 10, 29.97)) for _ in range(48)]
        rows = laid(video(*takes, clip(source_range=span(0, 24))), video(clip()), video(clip()))
        self.assertEqual(30000, rows.rate.num)
        frame = rows.rate.exact.frame_ticks
        self.assertEqual(
            [10 * n * frame for n in range(48)], [c.start for c in rows.main.clips][:48]
        )
        self.assertEqual(30 * frame * 48 // 30 * 10, rows.main.clips[48].start)

    def test_files_that_begin_at_a_timecode_are_counted_from_their_first_frame(self) -> None:
        hour = 24 * 3600
        part = {"source_range": span(hour + 48, 24), "available": span(hour, 480)}
        self.assertEqual(2 * SECOND, first(laid(video(clip(**part)))).source_in)
        inner = {"source_range": span(96, 24), "available": span(72, 100)}
        self.assertEqual(4 * SECOND, first(laid(video(clip(**inner)))).source_in)

    def test_gaps_transitions_and_speeds(self) -> None:
        dissolve = otio.schema.Transition(
            "d", "SMPTE_Dissolve", RationalTime(3, 24), RationalTime(5, 24)
        )
        wipe = otio.schema.Transition("w", "Odd", RationalTime(3, 24), RationalTime(3, 24))
        fast = clip(effects=[otio.schema.LinearTimeWarp("f", 2.0)])
        held = clip(effects=[otio.schema.FreezeFrame()])
        back = clip(effects=[otio.schema.LinearTimeWarp("b", -1.0)])
        gap = otio.schema.Gap(source_range=span(0, 12))
        row = laid(video(clip(), dissolve, fast, gap, held, wipe, back)).main
        starts = [0, 24, 60, 84]
        self.assertEqual([n * FRAME for n in starts], [one.start for one in row.clips])
        self.assertFalse(row.closes_gaps)
        kinds = [
            one.transition and (one.transition.kind, one.transition.length) for one in row.clips
        ]
        self.assertEqual([None, ("dissolve", 8 * FRAME), None, ("dissolve", 6 * FRAME)], kinds)
        speeds = [one.speed.constant for one in row.clips if isinstance(one, VideoClip)]
        self.assertEqual([1, 2, 0, -1], speeds)
        last = row.clips[3]
        assert isinstance(last, VideoClip)
        # Backwards it shows the same second of its file.
        self.assertEqual((2 * SECOND, 3 * SECOND), last.used)

    def test_sound_on_tracks_of_its_own_silences_the_videos(self) -> None:
        sound = video(clip(), clip("rain.wav"), kind="Audio")
        document = laid(video(clip()), sound)
        self.assertTrue(first(document).muted)
        kinds = [(one.kind, getattr(one, "media", "")) for one in document.tracks[1].clips]
        self.assertEqual([("sound", "m1"), ("sound", "m2")], kinds)
        self.assertFalse(first(laid(video(clip()))).muted)

    def test_a_still_lasts_as_long_as_it_is_shown(self) -> None:
        [one] = laid(video(clip("sheet.png", source_range=span(86400, 100)))).main.clips
        self.assertEqual(("still", 100 * FRAME), (one.kind, one.length))

    def test_nested_timelines_are_groups_trimmed_from_outside(self) -> None:
        inner = otio.schema.Stack("inner", children=[video(clip(), clip()), video(clip())])
        inner.source_range = span(12, 24)
        row = video(clip(), clip(), source_range=span(6, 30))
        [one, other] = laid(video(inner, row)).main.clips
        assert isinstance(one, GroupClip) and isinstance(other, GroupClip)
        self.assertEqual((12 * FRAME, 24 * FRAME), (one.source_in, one.length))
        self.assertEqual([2, 1], [len(track.clips) for track in one.tracks])
        self.assertEqual((6 * FRAME, 30 * FRAME), (other.source_in, other.length))

    def test_markers_of_the_film_and_of_what_is_shown(self) -> None:
        def marker(at: float, colour: str) -> otio.schema.Marker:
            return otio.schema.Marker("m", span(at, 0), colour)

        double = [otio.schema.LinearTimeWarp("f", 2.0)]
        row = video(clip(markers=[marker(60, "RED")], effects=double))
        document = laid(row, markers=[marker(7, "GREEN")])
        self.assertEqual((7 * FRAME, "sea"), (document.markers[0].at, document.markers[0].tag))
        [inner] = first(document).markers
        self.assertEqual((6 * FRAME, "rose"), (inner.at, inner.tag))

    def test_what_is_left_out_is_told(self) -> None:
        off = clip()
        off.enabled = False
        fade = otio.schema.Transition(
            "f", "SMPTE_Dissolve", RationalTime(0, 24), RationalTime(9, 24)
        )
        lost = clip("nowhere.mov", effects=[otio.schema.Effect("glow", "Glow")])
        late = clip(source_range=span(24 * 19, 48))
        took = found(video(fade, clip(), off, lost, late), video(clip(), kind="Words"))
        for words in ("transitions", "switched off", "effects", "“Words”"):
            self.assertTrue(any(words in one for one in took.remarks), words)
        self.assertEqual(("nowhere.mov",), took.missing)
        kinds = [(one.kind, one.length // FRAME) for one in took.edit.tracks[0].clips]
        self.assertEqual([("video", 24), ("solid", 24), ("video", 48)], kinds)

    def test_a_bin_with_a_timeline_and_a_row_by_itself(self) -> None:
        timeline = otio.schema.Timeline("In a bin")
        timeline.tracks.append(video(clip()))
        bin_ = otio.schema.SerializableCollection("bin", children=[clip(), timeline])
        self.assertEqual("In a bin", found(data=bin_).edit.title)
        self.assertEqual(1, len(laid(data=video(clip())).main.clips))

    def test_what_is_no_timeline_is_refused(self) -> None:
        deep = otio.schema.Stack("s", children=[video(clip())])
        for _ in range(40):
            deep = otio.schema.Stack("s", children=[otio.schema.Track(children=[deep])])
        read = read_timeline(otio.adapters.write_to_string(deep, "otio_json").encode())
        self.assertTrue(read.remarks)
        for data in (b"", b"{}", b"[]", b"\xff\xfe", b'{"OTIO_SCHEMA": "Clip.1"}', b"no"):
            with self.subTest(data), self.assertRaises(BadInput):
                read_timeline(data)
