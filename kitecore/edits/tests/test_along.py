"""Keys of strips stay with the sound that they were set for."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from kitecore.document.properties import Keys
from kitecore.edits.tests.cutcase import FRAME, CutCase
from kitecore.edits.tests.populated import SECOND
from kitecore.model import LONGEST


class AlongTest(CutCase):
    """On the main track lie a (0 to 4 s) and b (4 to 7 s)."""

    def keyed(self, *rows: tuple[float, float], of: str | None = "main") -> None:
        track = self.document.main.id if of == "main" else of
        keys = [{"at": round(at * SECOND), "value": value} for at, value in rows]
        self.do(kind="set_strip", track=track, values={"gain": {"keys": keys}})

    def rows(self, of: str = "main") -> list[tuple[float, float]]:
        strip = self.document.main.strip if of == "main" else self.document.strip
        assert isinstance(strip.gain, Keys)
        return [(round(key.at / SECOND, 3), key.value) for key in strip.gain.keys]

    def test_they_close_up_with_their_clip(self) -> None:
        self.keyed((1, -3), (5, -9), (6, 0))
        self.do(kind="trim", clip=self.clip("a").id, edge="end", to=3 * SECOND)
        self.assertEqual([(1, -3), (4, -9), (5, 0)], self.rows())

    def test_those_of_the_film_follow_the_main_track(self) -> None:
        self.keyed((5, -9), (6, 0), of=None)
        self.do(kind="remove", clips=[self.clip("a").id], close=True)
        self.assertEqual([(1, -9), (2, 0)], self.rows("film"))

    def test_what_was_cut_away_leaves_its_last_key_at_the_join(self) -> None:
        self.keyed((0, 0), (3.2, -6), (3.6, -12), (5, -20))
        self.do(kind="trim", clip=self.clip("a").id, edge="end", to=3 * SECOND)
        self.assertEqual([(0, 0), (3, -12), (4, -20)], self.rows())

    def test_a_trimmed_beginning_takes_them_to_the_left(self) -> None:
        self.keyed((0.5, -6), (2, -12), (5, 0))
        self.do(kind="trim", clip=self.clip("a").id, edge="start", to=SECOND)
        self.assertEqual([(0, -6), (1, -12), (4, 0)], self.rows())

    def test_a_split_leaves_them_and_what_is_pushed_apart_takes_them_along(self) -> None:
        self.keyed((1, -3), (3, -9), (5, 0))
        self.do(kind="split", clips=[self.clip("a").id], at=2 * SECOND)
        self.assertEqual([(1, -3), (3, -9), (5, 0)], self.rows())
        self.place("c", 2, mode="push", at=2 * SECOND)
        self.assertEqual([(1, -3), (5, -9), (7, 0)], self.rows())

    def test_a_clip_that_is_pushed_into_parts_them(self) -> None:
        self.keyed((1, -3), (3, -9))
        self.place("c", 2, mode="push", at=2 * SECOND)
        self.assertEqual([(1, -3), (5, -9)], self.rows())

    def test_a_change_of_the_strip_itself_is_as_it_was_meant(self) -> None:
        self.keyed((1, -3), (30, -9))
        self.assertEqual([(1, -3), (30, -9)], self.rows())
        self.do(kind="slip", clips=[self.clip("a").id], by=10 * FRAME)
        self.assertEqual([(1, -3), (30, -9)], self.rows())

    def test_none_is_pushed_out_of_the_longest_timeline(self) -> None:
        self.keyed((1, -3), (LONGEST / SECOND, -9))
        self.place("c", 2, mode="push", at=0)
        self.assertEqual([(3, -3), (round(LONGEST / SECOND, 3), -9)], self.rows())

    @given(st.lists(st.integers(0, 210), min_size=1, unique=True), st.integers(1, 119))
    def test_taken_apart_and_closed_up_they_keep_their_distances(
        self, moments: list[int], at: int
    ) -> None:
        self.setUp()
        self.keyed(*((moment / 30, -moment / 10) for moment in sorted(moments)))
        before = self.rows()
        self.place("c", 1, mode="push", at=at * FRAME)
        self.do(kind="remove", clips=[self.clip("c").id], close=True)
        self.assertEqual(before, self.rows())
