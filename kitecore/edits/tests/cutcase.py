"""A main row of two takes, and short ways to change and read it."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

from kitecore import edits
from kitecore.document import ClipBase, Document, Paced, empty_document
from kitecore.edits.tests.populated import SECOND, edit
from kitecore.errors import EditRefused

FRAME = SECOND // 30


class CutCase(TestCase):
    """A main row of takes `a` (4 s of 10) and `b` (3 s of 10), both from 2 s on."""

    def setUp(self) -> None:
        self.document: Document = empty_document()
        for name, length in (("a", 4), ("b", 3)):
            self.place(name, length)

    def place(self, name: str, length: float, into: float = 2, **more: Any) -> None:
        clip = {
            "kind": "video", "media": name, "name": name, "length": round(length * SECOND),
            "source_in": round(into * SECOND), "source_length": 10 * SECOND,
        }  # fmt: skip
        self.do(kind="place", clip=clip, **more)

    def do(self, **fields: Any) -> None:
        self.document = edits.apply(self.document, edit(**fields))

    def refused(self, **fields: Any) -> EditRefused:
        with self.assertRaises(EditRefused) as caught:
            edits.apply(self.document, edit(**fields))
        return caught.exception

    def row(self) -> list[ClipBase]:
        return list(self.document.main.clips)

    def clip(self, name: str) -> Paced:
        found = next(c for _, c in self.document.clips() if c.name == name)
        assert isinstance(found, Paced)
        return found

    def times(self) -> list[tuple[str, float, float]]:
        return [(c.name, c.start / SECOND, c.end / SECOND) for c in self.row()]
