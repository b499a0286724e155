"""What changed between two documents, by windows, against looking at everything."""

from __future__ import annotations

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from kitecore.document import Document, SolidClip, Track, check, empty_document
from kitecore.document.changes import changed_clips, changed_tracks, window
from kitecore.errors import BrokenDocument

STEP = empty_document().rate.exact.frame_ticks
ROW = tuple(SolidClip(id=f"c{n}", start=n * STEP, length=STEP) for n in range(12))


@st.composite
def rows(draw: st.DrawFn) -> tuple[SolidClip, ...]:
    """Some of a row in any order, some of them made anew, moved or a little longer."""
    chosen = draw(st.lists(st.sampled_from(range(len(ROW))), unique=True))
    made = []
    for number in sorted(chosen) if draw(st.booleans()) else chosen:
        clip, how = ROW[number], draw(st.sampled_from(["same", "same", "moved", "longer", "anew"]))
        if how == "moved":
            clip = clip.at(draw(st.integers(0, 20)) * STEP)
        elif how == "longer":
            clip = clip.model_copy(update={"length": draw(st.sampled_from([2 * STEP, STEP + 1]))})
        elif how == "anew":
            clip = clip.model_copy()
        made.append(clip)
    return tuple(made)


def with_clips(clips: tuple[SolidClip, ...], **more: object) -> Document:
    document = empty_document()
    main = document.main.model_copy(update={"clips": clips, **more})
    return document.with_track(main)


class ChangesTest(TestCase):
    @given(rows(), rows())
    def test_a_window_is_all_that_differs_and_begins_and_ends_with_it(
        self, old: tuple[SolidClip, ...], new: tuple[SolidClip, ...]
    ) -> None:
        for before, after in ((old, new), (ROW, new), (new, ROW), (old, old)):
            found = window(before, after)
            gone, come = found.of(before), found.of(after)
            head, tail = before[: found.head], before[len(before) - found.tail :]
            self.assertEqual(before, (*head, *gone, *tail))
            self.assertEqual(after, (*head, *come, *tail))
            if gone and come:
                self.assertIsNot(gone[0], come[0])
                self.assertIsNot(gone[-1], come[-1])

    @given(rows(), rows())
    def test_clips_that_changed_are_those_that_are_not_the_same_objects(
        self, old: tuple[SolidClip, ...], new: tuple[SolidClip, ...]
    ) -> None:
        before, after = with_clips(old), with_clips(new)
        gone, come = changed_clips(before.tracks, after.tracks)
        known, kept = {id(clip) for clip in old}, {id(clip) for clip in new}
        self.assertEqual([id(c) for c in old if id(c) not in kept], [id(c) for c in gone])
        self.assertEqual([id(c) for c in new if id(c) not in known], [id(c) for c in come])

    def test_tracks_that_come_and_go(self) -> None:
        old = empty_document().tracks
        extra = Track(kind="picture", clips=ROW)
        [come] = changed_tracks(old, (*old, extra))
        self.assertEqual((None, ROW, ()), (come.before, come.come, come.gone))
        [gone] = changed_tracks((*old, extra), old)
        self.assertEqual((None, ROW, ()), (gone.after, gone.gone, gone.come))
        self.assertEqual([], list(changed_tracks(old, old)))

    @given(rows(), rows(), st.booleans())
    def test_checking_what_changed_finds_what_checking_everything_finds(
        self, old: tuple[SolidClip, ...], new: tuple[SolidClip, ...], closes: bool
    ) -> None:
        before, after = with_clips(old, closes_gaps=False), with_clips(new, closes_gaps=closes)
        if self.is_sound(before):
            self.assertEqual(self.is_sound(after), self.is_sound(after, before))

    def is_sound(self, document: Document, before: Document | None = None) -> bool:
        try:
            check(document, before)
        except BrokenDocument:
            return False
        return True
