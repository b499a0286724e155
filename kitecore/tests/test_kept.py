"""What is kept, how long, and how much of it."""

from __future__ import annotations

from threading import Barrier, Thread
from unittest import TestCase

import numpy as np

from kitecore.kept import Kept, KeptOf
from kitecore.render.sources import Pictures


class KeptTest(TestCase):
    def test_what_counts_stays_below_the_bound_and_the_longest_unused_goes(self) -> None:
        kept: Kept[bytes] = Kept(3000, len)
        made: list[str] = []

        def make(name: str) -> bytes:
            made.append(name)
            return bytes(1000)

        for name in "abcadaab":
            kept.get(name, lambda name=name: make(name))  # type: ignore[misc]
            self.assertLessEqual(kept.used, 3000)
        self.assertEqual(list("abcdb"), made)

    def test_what_is_too_large_is_told_and_not_kept(self) -> None:
        kept: Kept[bytes] = Kept(10, len)
        self.assertEqual(20, len(kept.get("large", lambda: bytes(20))))
        self.assertIsNone(kept.find("large"))
        self.assertEqual(0, len(kept))

    def test_pictures_that_are_kept_are_never_written_to(self) -> None:
        pictures = Pictures(100, lambda picture: picture.nbytes)
        self.assertFalse(pictures.get("a", lambda: np.zeros(4, np.uint8)).flags.writeable)

    def test_of_two_who_make_it_at_once_both_get_the_first(self) -> None:
        kept: Kept[object] = Kept(4)
        both, got = Barrier(2), []

        def make() -> object:
            both.wait(5)
            return object()

        threads = [Thread(target=lambda: got.append(kept.get("a", make))) for _ in range(2)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        self.assertIs(got[0], got[1])

    def test_objects_are_known_by_identity(self) -> None:
        kept: KeptOf[int] = KeptOf(2)
        one, alike = [1], [1]
        told = [kept.get(of, lambda n=n: n) for n, of in enumerate((one, alike, one))]  # type: ignore[misc]
        self.assertEqual([0, 1, 0], told)
