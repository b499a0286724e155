from __future__ import annotations

from typing import Any
from unittest import TestCase

from kitecore import edits
from kitecore.document import Document, TextClip, Track, empty_document
from kitecore.edits.tests.populated import SECOND, edit
from kitecore.errors import EditRefused

FRAME = SECOND // 30


class CaptionsTest(TestCase):
    def setUp(self) -> None:
        self.document: Document = empty_document()

    def do(self, kind: str, **fields: Any) -> None:
        self.document = edits.apply(self.document, edit(kind=kind, **fields))

    def lay(self, *cues: tuple[float, float, str], **more: Any) -> None:
        told = [
            {"at": round(at * SECOND), "until": round(until * SECOND), "text": text}
            for at, until, text in cues
        ]
        self.do("lay_captions", cues=told, **more)

    @property
    def track(self) -> Track:
        [track] = [one for one in self.document.tracks if one.captions]
        return track

    def told(self) -> list[tuple[float, float, str]]:
        clips = [clip for clip in self.track.clips if isinstance(clip, TextClip)]
        return [(round(c.start / SECOND, 3), round(c.end / SECOND, 3), c.text) for c in clips]

    def said(self, number: int) -> str:
        return self.track.clips[number].id

    def test_cues_become_texts_on_a_track_of_their_own(self) -> None:
        self.lay((2, 3, "Second"), (0.5, 1.51, "First"))
        self.assertEqual([(0.5, 1.5, "First"), (2, 3, "Second")], self.told())
        looks = {clip.size for clip in self.track.clips}  # type: ignore[attr-defined]
        self.assertEqual({54}, looks)
        self.assertGreater(self.track.clips[0].place.position[1], 400)  # type: ignore[attr-defined]

    def test_cues_that_know_when_words_are_said_tell_it(self) -> None:
        at = [SECOND, round(1.4 * SECOND), 2 * SECOND]
        cue = {"at": SECOND, "until": 3 * SECOND, "text": "Up it goes", "words": at}
        unknown = {"at": 4 * SECOND, "until": 5 * SECOND, "text": "Two words", "words": at}
        self.do("lay_captions", cues=[cue, unknown])
        first, second = (clip.said for clip in self.track.clips)  # type: ignore[attr-defined]
        self.assertEqual(
            [(0, 1), (round(0.4 * SECOND), 2), (SECOND, 3)],
            [(key.at, key.value) for key in first.keys],
        )
        self.assertIsNone(second)
        self.do("retime_captions", track=self.track.id, factor=2, about=SECOND)
        stretched = self.track.clips[0].said  # type: ignore[attr-defined]
        self.assertEqual([0, round(0.8 * SECOND), 2 * SECOND], [key.at for key in stretched.keys])
        self.do("merge_captions", clip=self.said(0))
        self.assertIsNone(self.track.clips[0].said)  # type: ignore[attr-defined]

    def test_what_is_said_at_once_is_one_after_another(self) -> None:
        self.lay((0, 4, "Long"), (1, 2, "Over it"), (1, 3, "And this"))
        self.assertEqual([(0, 1, "Long"), (1, 3, "Over it\nAnd this")], self.told())

    def test_a_file_opened_again_keeps_the_look(self) -> None:
        self.lay((0, 1, "One"))
        self.do("adjust", clips=[self.said(0)], values={"size": 77})
        self.lay((0, 1, "Uno"), (1, 2, "Due"), track=self.track.id)
        self.assertEqual([(0, 1, "Uno"), (1, 2, "Due")], self.told())
        self.assertEqual([77, 77], [clip.size for clip in self.track.clips])  # type: ignore[attr-defined]

    def test_typed_one_by_one(self) -> None:
        self.do("add_caption", at=SECOND, text="Here")
        self.do("add_caption", at=0, text="Before")
        self.assertEqual([(0, 1, "Before"), (1, 3, "Here")], self.told())
        with self.assertRaisesRegex(EditRefused, "at this moment already"):
            self.do("add_caption", at=2 * SECOND)

    def test_timed_as_far_as_there_is_room(self) -> None:
        self.lay((0, 1, "A"), (2, 3, "B"), (4, 5, "C"))
        self.do("time_caption", clip=self.said(1), at=0, until=9 * SECOND)
        self.assertEqual((1, 4, "B"), self.told()[1])
        self.do("time_caption", clip=self.said(2), at=6 * SECOND, until=8 * SECOND)
        self.assertEqual((6, 8, "C"), self.told()[2])

    def test_the_last_one_timed_before_others_comes_behind_them(self) -> None:
        self.lay((0, 1, "A"), (1, 2, "B"))
        self.do("time_caption", clip=self.said(1), at=0, until=0)
        at, until, _ = self.told()[1]
        self.assertEqual(1, at)
        self.assertEqual(1.033, until)

    def test_a_caption_alone_is_grouped_beside_its_track(self) -> None:
        self.lay((0, 1, "A"), (1, 2, "B"))
        self.do("group", clips=[self.said(0)])
        self.assertEqual([(1, 2, "B")], self.told())
        [group] = [clip for _, clip in self.document.clips() if clip.kind == "group"]
        self.assertEqual((0, SECOND), (group.start, group.end))

    def test_tapped_while_it_plays(self) -> None:
        self.lay((0, 2, "A"), (2, 4, "B"), (4, 6, "C"))
        self.do("begin_caption", clip=self.said(1), at=SECOND)
        self.do("begin_caption", clip=self.said(2), at=5 * SECOND // 2)
        self.assertEqual([(0, 1, "A"), (1, 2.5, "B"), (2.5, 4.5, "C")], self.told())
        self.do("begin_caption", clip=self.said(0), at=3 * SECOND)
        self.assertEqual([(3, 4, "A"), (4, 5.5, "B"), (5.5, 7.5, "C")], self.told())
        with self.assertRaisesRegex(EditRefused, "begins later"):
            self.do("begin_caption", clip=self.said(1), at=SECOND)

    def test_split_and_merged(self) -> None:
        self.lay((0, 4, "one two three four"))
        self.do("split_caption", clip=self.said(0), at_letter=7)
        self.assertEqual([(0, 1.633, "one two"), (1.633, 4, "three four")], self.told())
        self.do("merge_captions", clip=self.said(0))
        self.assertEqual([(0, 4, "one two three four")], self.told())
        for kind, fields in (("merge_captions", {}), ("split_caption", {"at_letter": 18})):
            with self.assertRaises(EditRefused):
                self.do(kind, clip=self.said(0), **fields)

    def test_shifted_and_stretched(self) -> None:
        self.lay((1, 2, "A"), (3, 4, "B"))
        self.do("retime_captions", track=self.track.id, by=SECOND // 2)
        self.assertEqual([(1.5, 2.5, "A"), (3.5, 4.5, "B")], self.told())
        self.do("retime_captions", track=self.track.id, factor=2, about=3 * SECOND // 2)
        self.assertEqual([(1.5, 3.5, "A"), (5.5, 7.5, "B")], self.told())
        with self.assertRaisesRegex(EditRefused, "before the film"):
            self.do("retime_captions", track=self.track.id, by=-2 * SECOND)

    def test_a_copy_in_front_of_a_picture_is_no_caption(self) -> None:
        sheet = {"kind": "solid", "name": "sheet", "length": SECOND}
        self.do(kind="place", clip=sheet, mode="above", at=0)
        [[_, clip]] = list(self.document.clips())
        self.do(kind="add_caption", at=2 * SECOND, text="Wind")
        self.do(kind="copy_above", clips=[clip.id])
        captions = [track for track in self.document.tracks if track.captions]
        self.assertEqual([1], [len(track.clips) for track in captions])

    def test_other_layers_stay_below_and_away(self) -> None:
        self.lay((0, 1, "A"))
        self.do("place", clip={"kind": "text", "length": SECOND}, mode="above", at=5 * SECOND)
        kinds = [(track.kind, track.captions) for track in self.document.tracks]
        self.assertEqual([("main", False), ("picture", False), ("picture", True)], kinds[:3])
        solid = {"kind": "solid", "length": SECOND}
        with self.assertRaises(EditRefused):
            self.do("place", clip=solid, track=self.track.id, mode="over", at=SECOND)
