from __future__ import annotations

from typing import Any

from kitecore.edits.tests.cutcase import CutCase
from kitecore.edits.tests.populated import SECOND
from kitecore.edits.tests.strategies import TRACKER
from kitecore.errors import EditRefused, NotThere

STROKES = [{"kind": kind, "points": [[0, 0]]} for kind in ("heal_stroke", "light_stroke")]


class StrokesTest(CutCase):
    def setUp(self) -> None:
        super().setUp()
        self.id = self.clip("a").id
        self.do(kind="add_parts", clips=[self.id], list="strokes", parts=STROKES)

    @property
    def strokes(self) -> Any:
        return self.clip("a").strokes  # type: ignore[attr-defined]

    def test_strokes_go_along_with_something_new_in_one_step(self) -> None:
        heals, lights = self.strokes
        self.do(
            kind="strokes_along",
            clip=self.id,
            strokes=[heals.id],
            tracked=TRACKER,
            since=SECOND,
            name="Sign",
        )
        [tracker] = self.clip("a").trackers  # type: ignore[attr-defined]
        self.assertEqual("Sign", tracker.name)
        self.assertEqual((tracker.id, SECOND), (self.strokes[0].tracker, self.strokes[0].since))
        self.assertEqual(lights, self.strokes[1])

    def test_they_stay_with_both_halves_of_a_split(self) -> None:
        self.do(kind="split", clips=[self.id], at=2 * SECOND)
        halves = [clip for clip in self.row() if clip.name == "a"]
        self.assertEqual([2, 2], [len(half.strokes) for half in halves])  # type: ignore[attr-defined]

    def test_what_is_not_there_is_told(self) -> None:
        along = {"clip": self.id, "tracked": TRACKER, "since": 0}
        with self.assertRaises(NotThere):
            self.do(kind="strokes_along", strokes=["gone"], **along)
        still = {"kind": "still", "media": "m", "name": "still", "length": SECOND}
        self.do(kind="place", clip=still)
        [other] = [clip for clip in self.row() if clip.name == "still"]
        self.do(kind="add_parts", clips=[other.id], list="strokes", parts=STROKES[:1])
        with self.assertRaisesRegex(EditRefused, "Only in a video"):
            self.do(
                kind="strokes_along",
                **{**along, "clip": other.id},
                strokes=["any"],
            )

    def test_there_are_so_many_and_no_more(self) -> None:
        many = STROKES * 12
        for _ in range(4):
            self.do(kind="add_parts", clips=[self.id], list="strokes", parts=many)
        with self.assertRaisesRegex(EditRefused, "at most 100 strokes"):
            self.do(kind="add_parts", clips=[self.id], list="strokes", parts=many)

    def test_a_stroke_is_no_mask(self) -> None:
        with self.assertRaisesRegex(EditRefused, "not a mask"):
            self.do(kind="add_parts", clips=[self.id], list="masks", parts=STROKES)
