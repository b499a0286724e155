"""What edits of speed do, in numbers."""

from __future__ import annotations

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from kitecore import edits
from kitecore.document import Document, Paced, empty_document
from kitecore.edits.tests.cutcase import FRAME, CutCase
from kitecore.edits.tests.populated import SECOND, edit


class SpeedEditTest(CutCase):
    def test_twice_as_fast_is_half_as_long_and_later_clips_follow(self) -> None:
        self.do(kind="set_speed", clips=[self.clip("a").id], factor=2)
        self.assertEqual([("a", 0, 2), ("b", 2, 5)], self.times())
        self.assertEqual((2 * SECOND, 6 * SECOND), self.clip("a").used)

    def test_the_length_can_stay_as_long_as_there_is_footage(self) -> None:
        self.do(kind="set_speed", clips=[self.clip("a").id], factor=2, keep="length")
        self.assertEqual((2 * SECOND, 10 * SECOND), self.clip("a").used)
        refusal = self.refused(kind="set_speed", clips=[self.clip("a").id], factor=3, keep="length")
        self.assertIn("4.00 s more", str(refusal))

    def test_reverse_shows_the_same_part_and_twice_is_as_before(self) -> None:
        before = self.clip("a")
        self.do(kind="reverse", clips=[before.id])
        self.assertEqual(before.used, self.clip("a").used)
        self.assertEqual(6 * SECOND, self.clip("a").source_in)
        self.do(kind="reverse", clips=[before.id])
        self.assertEqual(before, self.clip("a"))

    def test_a_reversed_clip_trims_at_the_end_that_is_dragged(self) -> None:
        self.do(kind="reverse", clips=[self.clip("a").id])
        self.do(kind="trim", clip=self.clip("a").id, edge="start", to=SECOND)
        self.assertEqual((2 * SECOND, 5 * SECOND), self.clip("a").used)

    def test_fit_keeps_the_content(self) -> None:
        self.do(kind="fit", clip=self.clip("a").id, length=3 * SECOND)
        self.assertEqual([("a", 0, 3), ("b", 3, 6)], self.times())
        low, high = self.clip("a").used
        self.assertLessEqual(abs(low - 2 * SECOND) + abs(high - 6 * SECOND), 2)

    def test_a_ramp_keeps_pictures_at_its_points(self) -> None:
        clip = self.clip("a")
        points = [
            {"at": 0, "speed": 1},
            {"at": 2 * SECOND, "speed": 4},
            {"at": 4 * SECOND, "speed": 1},
        ]
        self.do(kind="ramp", clip=clip.id, points=points, keep="content")
        ramped = self.clip("a")
        # Each half shows 2 s at a mean of 2.5.
        self.assertEqual(round(1.6 * SECOND), ramped.length)
        self.assertEqual(clip.used, ramped.used)
        top = next(p for p in ramped.speed.points if p.speed == 4)
        self.assertEqual(round(0.8 * SECOND), top.at)
        self.assertLessEqual(abs(ramped.source_at(top.at) - clip.source_at(2 * SECOND)), 2)

    def test_points_that_bend_keep_their_pictures_too(self) -> None:
        points = [
            {"at": 0, "speed": 1},
            {"at": 2 * SECOND, "speed": 3, "bends": True},
            {"at": 4 * SECOND, "speed": 1},
        ]
        self.do(kind="ramp", clip=self.clip("a").id, points=points, keep="content")
        self.assertEqual([False, True, False], [p.bends for p in self.clip("a").speed.points])
        self.assertEqual(2 * SECOND, self.clip("a").length)

    def test_a_ramp_ends_with_its_clip_at_a_whole_frame(self) -> None:
        clip = self.clip("a")
        points = [
            {"at": 0, "speed": 3},
            {"at": 2 * SECOND, "speed": 1},
            {"at": 4 * SECOND, "speed": 1},
        ]
        self.do(kind="ramp", clip=clip.id, points=points, keep="content")
        ramped = self.clip("a")
        self.assertEqual(ramped.length, ramped.speed.points[-1].at)
        self.assertEqual(0, ramped.length % FRAME)
        for before, after in zip(clip.used, ramped.used, strict=True):
            self.assertLess(abs(before - after), FRAME)

    def test_a_ramp_that_stops_cannot_keep_its_content(self) -> None:
        points = [{"at": 0, "speed": 1}, {"at": 2 * SECOND, "speed": -1}]
        self.assertIn(
            "turns round", str(self.refused(kind="ramp", clip=self.clip("a").id, points=points))
        )
        self.do(kind="ramp", clip=self.clip("a").id, points=points, keep="length")
        self.assertEqual(4 * SECOND, self.clip("a").length)

    def test_freeze_puts_a_still_moment_in(self) -> None:
        self.do(kind="freeze", clip=self.clip("a").id, at=SECOND, length=SECOND // 2)
        self.assertEqual(
            [("a", 0, 1), ("a", 1, 1.5), ("a", 1.5, 4.5), ("b", 4.5, 7.5)], self.times()
        )
        frozen = self.row()[1]
        assert isinstance(frozen, Paced)
        self.assertEqual((3 * SECOND, 3 * SECOND), frozen.used)

    def test_split_of_a_ramp_joins_without_a_step(self) -> None:
        points = [{"at": 0, "speed": 0.5}, {"at": 4 * SECOND, "speed": 1.5}]
        self.do(kind="ramp", clip=self.clip("a").id, points=points, keep="length")
        whole = self.clip("a")
        self.do(kind="split", clips=[whole.id], at=SECOND)
        first, second = self.row()[:2]
        assert isinstance(first, Paced) and isinstance(second, Paced)
        self.assertLessEqual(abs(first.source_at(first.length) - second.source_in), 1)
        self.assertAlmostEqual(first.speed.at(first.length), second.speed.at(0), places=9)
        self.assertLessEqual(abs(second.source_at(2 * SECOND) - whole.source_at(3 * SECOND)), 2)


class SpeedPropertyTest(TestCase):
    """For any ramp and any part of a take."""

    @staticmethod
    def _made(points: list[tuple[int, float]], soft: bool) -> Document:
        ats = sorted({at for at, _ in points})
        curve = [{"at": at, "speed": speed} for at, (_, speed) in zip(ats, points, strict=False)]
        clip = {
            "kind": "video", "media": "m", "name": "m", "length": 3 * SECOND,
            "source_in": 60 * SECOND, "source_length": 200 * SECOND,
        }  # fmt: skip
        document = edits.apply(empty_document(), edit(kind="place", clip=clip))
        ramp = {"kind": "ramp", "clip": document.main.clips[0].id, "points": curve, "soft": soft}
        return edits.apply(document, edit(**ramp, keep="length"))

    points = st.lists(
        st.tuples(st.integers(0, 3 * SECOND), st.floats(0.2, 6)), min_size=1, max_size=4
    )

    @given(points, st.booleans())
    def test_reverse_twice_is_as_before(self, points: list[tuple[int, float]], soft: bool) -> None:
        document = self._made(points, soft)
        clip = document.main.clips[0]
        for _ in range(2):
            document = edits.apply(document, edit(kind="reverse", clips=[clip.id]))
        again = document.main.clips[0]
        assert isinstance(clip, Paced) and isinstance(again, Paced)
        self.assertLessEqual(abs(clip.source_in - again.source_in), 2)
        for tick in (0, SECOND, 2 * SECOND):
            self.assertLessEqual(abs(clip.source_at(tick) - again.source_at(tick)), 4)

    @given(points, st.booleans(), st.integers(SECOND, 9 * SECOND))
    def test_fit_shows_the_same_in_another_time(
        self, points: list[tuple[int, float]], soft: bool, length: int
    ) -> None:
        document = self._made(points, soft)
        clip = document.main.clips[0]
        after = edits.apply(document, edit(kind="fit", clip=clip.id, length=length)).main.clips[0]
        assert isinstance(clip, Paced) and isinstance(after, Paced)
        self.assertLessEqual(abs(after.length - length), FRAME)
        # Points move to whole ticks.
        for before, now in zip(clip.used, after.used, strict=True):
            self.assertLess(abs(before - now), 100)

    @given(points, st.booleans(), st.integers(FRAME, 3 * SECOND - FRAME))
    def test_two_halves_show_what_the_whole_did(
        self, points: list[tuple[int, float]], soft: bool, at: int
    ) -> None:
        document = self._made(points, soft)
        whole = document.main.clips[0]
        halves = edits.apply(document, edit(kind="split", at=at)).main.clips
        assert isinstance(whole, Paced)
        for half in halves:
            assert isinstance(half, Paced)
            for share in (0, half.length // 3, half.length):
                wanted = whole.source_at(half.start + share)
                self.assertLessEqual(abs(half.source_at(share) - wanted), 4)

    @given(st.integers(-4 * SECOND, 4 * SECOND))
    def test_a_roll_keeps_the_whole_and_both_stay_in_step(self, by: int) -> None:
        case = CutCase()
        case.setUp()
        first, second = case.row()
        assert isinstance(first, Paced) and isinstance(second, Paced)
        case.do(kind="roll", clip=second.id, by=by)
        a, b = case.row()
        assert isinstance(a, Paced) and isinstance(b, Paced)
        self.assertEqual(7 * SECOND, case.document.length)
        self.assertEqual(a.end, b.start)
        self.assertEqual(second.source_in - second.start, b.source_in - b.start)
        self.assertEqual(first.source_in, a.source_in)
