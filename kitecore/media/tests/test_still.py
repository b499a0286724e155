"""Stills: colours by their profile, greys of 16 bits, held against the formulas themselves."""

from __future__ import annotations

import struct
import tempfile
from base64 import b64decode
from pathlib import Path
from unittest import TestCase

import numpy as np
from PIL import Image

from kitecore.errors import BrokenMedia
from kitecore.media.folder import MediaFolder
from kitecore.media.still import read_still
from kitecore.media.tests.material import ingested

WIDE = np.array(
    [[0.51512, 0.29198, 0.1571], [0.2412, 0.69225, 0.06657], [-0.00105, 0.04189, 0.78407]]
)
"""RGB of a wide space (primaries of SMPTE EG 432-1, white D65) to XYZ under D50, as ICC.1 has it."""
SRGB = np.array(
    [[0.43607, 0.38515, 0.14307], [0.22249, 0.71687, 0.06061], [0.01392, 0.09708, 0.7141]]
)
"""The same of sRGB (IEC 61966-2-1)."""


HEIC = b64decode(
    "AAAAHGZ0eXBoZWl4AAAAAG1pZjFoZWl4bWlhZgAAAcltZXRhAAAAAAAAACFoZGxyAAAAAAAAAABwaWN0AAAAAAAA"
    "AAAAAAAAAAAAADRpbG9jAAAAAERAAAIAAQAAAAAB7QABAAAAAAAAAM4AAgAAAAACuwABAAAAAAAAACQAAAA4aWlu"
    "ZgAAAAAAAgAAABVpbmZlAgAAAAABAABodmMxAAAAABVpbmZlAgAAAQACAABFeGlmAAAAAA5waXRtAAAAAAABAAAB"
    "CGlwcnAAAADnaXBjbwAAAHdodmNDAQQIAAAAnjgAAAAAHvAA/P/4+AAADwNgAAEAF0ABDAH//wQIAAADAJ44AAAD"
    "AAAeugJAYQABACpCAQEECAAAAwCeOAAAAwAAHpAEECCy3VyU1zcBDQYEAAADAGQAAAMABCBiAAEACEQBwXMYMAiQ"
    "AAAAE2NvbHJuY2x4AAEADQAGgAAAABRpc3BlAAAAAAAAAEAAAABAAAAAKGNsYXAAAABAAAAAAQAAADAAAAABAAAA"
    "AAAAAAL////wAAAAAgAAABBwaXhpAAAAAAMICAgAAAAJaXJvdAMAAAAZaXBtYQAAAAAAAAABAAEGgQIDBYSGAAAA"
    "GmlyZWYAAAAAAAAADmNkc2MAAgABAAEAAAD6bWRhdAAAAMooAa8GOPFwJj5Wb+ZXnmMQ/+QG86X+2zPl8WAfTj32"
    "CkqT+Rr9r9WSPr/w/8fjWdo15ra6X/8V/1n/bPXpQP/6FA1fkurZunSzvJy8OYb3w+4ZzsTafj35bv351D7IL9np"
    "Je/J8ZuCFGmYtEBxhhd80fKcmadp/SCf/O3f4seA/ayU/pgv5oAd//eCI8qteI3CMXXNSheHjrTAlTO5iu/X5D+W"
    "cm//6vAkxKlRuC5gIO/mY5z+XkNBppPy0WMUzkyhR4maV9K5a5SMAAAABkV4aWYAAE1NACoAAAAIAAEBEgADAAAA"
    "AQAGAAAAAAAA"
)
"""Red left, blue right, white in the upper left corner: 64 × 48, to be turned clockwise."""


def wide_profile(gamma: float = 2.2) -> bytes:
    """A profile of ICC.1:2001-04 with a matrix and one power curve."""

    def xyz(values: np.ndarray) -> bytes:
        return b"XYZ \0\0\0\0" + struct.pack(">3i", *(round(float(v) * 65536) for v in values))

    curve = b"curv\0\0\0\0" + struct.pack(">IH", 1, round(gamma * 256)) + b"\0\0"
    text = b"text\0\0\0\0made for a test\0"
    name = b"wide\0"
    desc = b"desc\0\0\0\0" + struct.pack(">I", len(name)) + name + bytes(79)
    tags = {
        b"desc": desc,
        b"cprt": text,
        b"wtpt": xyz(np.array([0.9642, 1.0, 0.8249])),
        b"rXYZ": xyz(WIDE[:, 0]),
        b"gXYZ": xyz(WIDE[:, 1]),
        b"bXYZ": xyz(WIDE[:, 2]),
        b"rTRC": curve,
        b"gTRC": curve,
        b"bTRC": curve,
    }
    at, table, body = 128 + 4 + 12 * len(tags), b"", b""
    for sign, data in tags.items():
        data += bytes(-len(data) % 4)
        table += sign + struct.pack(">II", at + len(body), len(data))
        body += data
    size = at + len(body)
    head = struct.pack(">I4sI4s4s4s", size, b"none", 0x02100000, b"mntr", b"RGB ", b"XYZ ")
    head += struct.pack(">6H4s", 2026, 1, 1, 0, 0, 0, b"acsp")
    head = head.ljust(68, b"\0") + struct.pack(">3i", 63190, 65536, 54061)
    return head.ljust(128, b"\0") + struct.pack(">I", len(tags)) + table + body


def in_srgb(colour: tuple[int, int, int], gamma: float = 2.2) -> np.ndarray:
    """What a colour of the wide space is in sRGB, straight from both definitions."""
    linear = np.linalg.inv(SRGB) @ WIDE @ (np.array(colour) / 255) ** gamma
    linear = np.clip(linear, 0, 1)
    coded = np.where(linear <= 0.0031308, 12.92 * linear, 1.055 * linear ** (1 / 2.4) - 0.055)
    return np.asarray(coded * 255)


class StillTest(TestCase):
    def setUp(self) -> None:
        self.root = Path(self.enterContext(tempfile.TemporaryDirectory()))
        self.count = 0

    def kept(self, image: Image.Image, **more: object) -> MediaFolder:
        path = self.root / "source"
        image.save(path, "PNG", **more)
        self.count += 1
        return ingested(self.root, f"take {self.count}", path)

    def test_a_photograph_of_a_wide_gamut_is_seen_in_srgb(self) -> None:
        for colour in ((200, 100, 60), (90, 160, 110), (128, 128, 128), (40, 60, 180)):
            with self.subTest(colour=colour):
                image = Image.new("RGB", (24, 16), colour)
                folder = self.kept(image, icc_profile=wide_profile())
                seen = read_still(folder)[8, 8, :3].astype(float)
                self.assertLessEqual(np.abs(seen - in_srgb(colour)).max(), 1.5)

    def test_alpha_stays_beside_a_profile(self) -> None:
        image = Image.new("RGBA", (24, 16), (200, 100, 60, 128))
        seen = read_still(self.kept(image, icc_profile=wide_profile()))[8, 8].astype(float)
        self.assertEqual(128, seen[3])
        self.assertLessEqual(np.abs(seen[:3] - in_srgb((200, 100, 60)) * 128 / 255).max(), 1.5)

    def test_a_profile_that_is_none_changes_nothing(self) -> None:
        image = Image.new("RGB", (24, 16), (200, 100, 60))
        seen = read_still(self.kept(image, icc_profile=b"no profile at all" * 9))
        self.assertEqual([200, 100, 60, 255], seen[8, 8].tolist())

    def test_greys_of_16_bits_keep_their_level(self) -> None:
        ramp = np.linspace(0, 65535, 256).astype(np.uint16)[None, :].repeat(16, 0)
        seen = read_still(self.kept(Image.fromarray(ramp)))
        wanted = np.round(ramp[8] / 257)
        self.assertLessEqual(np.abs(seen[8, :, 0] - wanted).max(), 1)
        self.assertEqual(255, seen[8, 100, 3])

    def test_a_photograph_of_a_phone_comes_in_upright(self) -> None:
        (self.root / "photo").write_bytes(HEIC)
        folder = ingested(self.root, "heic", self.root / "photo")
        assert folder.info.picture is not None
        self.assertEqual(
            ("heif", 48, 64),
            (folder.info.container, folder.info.picture.width, folder.info.picture.height),
        )
        seen = read_still(folder)[..., :3].astype(int)
        for (row, column), colour in (
            ((20, 10), (210, 60, 40)),
            ((50, 24), (40, 120, 200)),
            ((5, 43), (240, 240, 240)),
        ):
            self.assertLessEqual(np.abs(seen[row, column] - colour).max(), 6, (row, column))

    def test_a_cut_off_photograph_is_called_damaged(self) -> None:
        for length in (80, 400, len(HEIC) - 40):
            (self.root / "photo").write_bytes(HEIC[:length])
            with self.subTest(length=length), self.assertRaises(BrokenMedia):
                read_still(ingested(self.root, f"cut {length}", self.root / "photo"))
