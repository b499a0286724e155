from __future__ import annotations

from collections.abc import Iterator
from contextlib import closing
from threading import active_count
from unittest import TestCase

from kitecore.render.ahead import ahead


class AheadTest(TestCase):
    def test_items_come_in_order(self) -> None:
        self.assertEqual(list(range(50)), list(ahead(range(50))))

    def test_an_error_is_raised_after_what_came_before_it(self) -> None:
        def broken() -> Iterator[int]:
            yield 1
            raise ValueError("broken")

        items = ahead(broken())
        self.assertEqual(1, next(items))
        with self.assertRaisesRegex(ValueError, "broken"):
            next(items)

    def test_it_does_not_run_away_and_stops_with_its_user(self) -> None:
        made: list[int] = []

        def endless() -> Iterator[int]:
            while True:
                made.append(len(made))
                yield made[-1]

        before = active_count()
        with closing(ahead(endless(), depth=3)) as items:
            self.assertEqual(0, next(items))
        self.assertLessEqual(len(made), 6)
        self.assertEqual(before, active_count())
