"""Files that ask for more than anybody has: each is refused, and the site goes on."""

from __future__ import annotations

from typing import Any

from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import TestCase

from studio.tests.site import People


def nested_uses(depth: int) -> str:
    """A drawing of 2 to the power of ``depth`` squares, in few bytes."""
    layers = ['<g id="g0"><rect width="5" height="5"/></g>']
    for level in range(1, depth + 1):
        twice = f'<use href="#g{level - 1}"/>' * 2
        layers.append(f'<g id="g{level}">{twice}</g>')
    body = "".join(layers)
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg"><defs>{body}</defs><use href="#g{depth}"/></svg>'
    )


class HungryFilesTest(People, TestCase):
    def send(self, what: str, name: str, content: bytes) -> Any:
        return self.mine.post(f"/api/kit/{what}", {"file": SimpleUploadedFile(name, content)})

    def refused(self, what: str, name: str, content: bytes) -> None:
        answer = self.send(what, name, content)
        self.assertEqual(422, answer.status_code, answer.content[:300])
        self.assertTrue(answer.json()["message"])

    def test_a_drawing_that_repeats_itself_without_end(self) -> None:
        self.refused("drawing", "uses.svg", nested_uses(24).encode())

    def test_a_drawing_of_a_hundred_thousand_lines(self) -> None:
        lines = '<path d="M0 0' + "L1 1" * 100_000 + '"/>'
        self.refused("drawing", "lines.svg", f"<svg>{lines}</svg>".encode())

    def test_a_table_in_one_line(self) -> None:
        self.refused("looks", "line.cube", b"LUT_3D_SIZE 33 " + b"0.5 " * 10_000_000)

    def test_entities_that_grow(self) -> None:
        bomb = b'<!DOCTYPE x [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]><x>&b;</x>'
        self.refused("cdl", "bomb.cdl", bomb)
        self.refused("drawing", "bomb.svg", bomb)

    def test_a_font_that_is_none(self) -> None:
        self.refused("fonts", "none.ttf", b"\x00\x01\x00\x00" + bytes(4000))

    def test_numbers_that_are_none(self) -> None:
        square = b'<svg xmlns="http://www.w3.org/2000/svg"><rect width="5" height="5"/></svg>'
        for field, number in (("seconds", "nan"), ("seconds", "1e999"), ("fit", "-inf")):
            form = {"file": SimpleUploadedFile("s.svg", square), field: number}
            with self.subTest(field, number=number):
                self.assertEqual(422, self.mine.post("/api/kit/drawing", form).status_code)

    def test_what_is_sound_is_still_read(self) -> None:
        square = b'<svg xmlns="http://www.w3.org/2000/svg"><rect width="5" height="5"/></svg>'
        self.assertEqual("shape", self.send("drawing", "s.svg", square).json()["clip"]["kind"])
