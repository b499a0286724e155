"""The best parts of several takes of the same words."""

from __future__ import annotations

from unittest import TestCase

from kitecore import edits
from kitecore.document import Document, SoundClip, empty_document
from kitecore.edits.tests.populated import SECOND, edit
from kitecore.errors import EditRefused

ENDS = {"a": 10, "b": 12, "c": 11}


class HearTakeTest(TestCase):
    def setUp(self) -> None:
        self.document: Document = empty_document()
        for name, end in ENDS.items():
            clip = {"kind": "sound", "name": "Voice", "media": name}
            clip |= {"length": end * SECOND, "source_length": end * SECOND}
            place = edit(kind="place", clip=clip, mode="above", at=0)
            self.document = edits.apply(self.document, place)

    def sounds(self) -> list[SoundClip]:
        return [clip for _, clip in self.document.clips() if isinstance(clip, SoundClip)]

    def hear(self, media: str, second: float) -> None:
        at = round(second * SECOND)
        there = {c.media: c.id for c in self.sounds() if c.start <= at < c.end}
        chosen = there.pop(media)
        step = edit(kind="hear_take", clip=chosen, others=list(there.values()), at=at)
        self.document = edits.apply(self.document, step)

    def heard(self) -> str:
        """Which takes are heard in each second."""
        return " ".join(
            "".join(
                sorted(
                    clip.media
                    for clip in self.sounds()
                    if not clip.muted and clip.start <= (at + 0.5) * SECOND < clip.end
                )
            )
            or "-"
            for at in range(12)
        )

    def test_one_is_heard_up_to_where_another_was_chosen(self) -> None:
        self.assertEqual("abc abc", self.heard()[:7])
        self.hear("b", 0)
        self.assertEqual(" ".join("bbbbbbbbbbbb"), self.heard())
        self.hear("a", 4)
        self.assertEqual(" ".join("bbbbaaaaaabb"), self.heard())
        self.hear("c", 6)
        self.assertEqual(" ".join("bbbbaaccccbb"), self.heard())
        self.hear("c", 2)
        self.assertEqual(" ".join("bbccaaccccbb"), self.heard())
        for clip in self.sounds():
            self.assertEqual(clip.start, clip.source_in, "each stays where it was said")

    def test_of_two_alone_the_other_may_be_silent_already(self) -> None:
        self.hear("b", 0)
        with self.assertRaisesRegex(EditRefused, "that take which is heard"):
            self.hear("b", 3)

    def test_what_is_not_there_cannot_be_chosen(self) -> None:
        first, second, _ = self.sounds()
        step = edit(kind="hear_take", clip=first.id, others=[second.id], at=11 * SECOND)
        with self.assertRaisesRegex(EditRefused, "not heard there"):
            edits.apply(self.document, step)
