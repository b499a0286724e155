"""Errors told by another process, by their code."""

from __future__ import annotations

from unittest import TestCase

from kitecore.errors import (
    BadInput,
    BrokenMedia,
    EditRefused,
    MediaError,
    NothingChanges,
    RenderFailed,
    Superseded,
    kind_of,
)


class KindOfTest(TestCase):
    def test_each_kind_is_known_by_its_code(self) -> None:
        for kind in (
            BadInput, EditRefused, NothingChanges, MediaError, BrokenMedia, RenderFailed, Superseded
        ):  # fmt: skip
            with self.subTest(kind):
                self.assertIs(kind, kind_of(kind.code))

    def test_an_unknown_one_is_a_failure(self) -> None:
        self.assertIs(RenderFailed, kind_of("something else"))

    def test_of_those_that_share_a_code_the_general_one_is_meant(self) -> None:
        class Special(BadInput):
            pass

        self.assertEqual(Special.code, BadInput.code)
        self.assertIs(BadInput, kind_of(Special.code))
