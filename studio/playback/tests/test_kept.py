"""Answers in memory stay below their bound, the longest unused go."""

from __future__ import annotations

from unittest import TestCase

from studio.playback.kept import Kept


class KeptTest(TestCase):
    def test_the_longest_unused_go(self) -> None:
        kept = Kept(10)
        kept.put("a", b"1234")
        kept.put("b", b"1234")
        self.assertEqual(b"1234", kept.get("a"))
        kept.put("c", b"1234")
        self.assertEqual([b"1234", None, b"1234"], [kept.get(key) for key in "abc"])
        kept.put("a", b"12")
        kept.put("d", b"1234")
        self.assertEqual([b"12", b"1234", b"1234"], [kept.get(key) for key in "acd"])
        kept.put("e", bytes(11))
        self.assertEqual([None] * 5, [kept.get(key) for key in "abcde"])
