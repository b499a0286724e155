"""ASC CDL files, against OpenColorIO's reader and published forms of the file."""

import tempfile
from pathlib import Path
from unittest import TestCase

import PyOpenColorIO as OCIO  # noqa: N814

from kitecore.document.grade import Cdl
from kitecore.errors import BadInput
from kitecore.exchange.cdl import read_cdl, write_cdl

COLLECTION = b"""<?xml version="1.0" encoding="UTF-8"?>
<ColorCorrectionCollection xmlns="urn:ASC:CDL:v1.01">
  <ColorCorrection id="harbour">
    <SOPNode>
      <Description>warm</Description>
      <Slope>1.2 1.0 0.8</Slope>
      <Offset>0.01 0 -0.02</Offset>
      <Power>1 1.1 0.9</Power>
    </SOPNode>
    <SatNode><Saturation>0.85</Saturation></SatNode>
  </ColorCorrection>
  <ColorCorrection id="other"><SOPNode><Slope>9 9 9</Slope></SOPNode></ColorCorrection>
</ColorCorrectionCollection>
"""


class CdlTest(TestCase):
    def test_the_first_correction_of_a_collection(self) -> None:
        wanted = Cdl(
            slope=(1.2, 1.0, 0.8), offset=(0.01, 0, -0.02), power=(1, 1.1, 0.9), saturation=0.85
        )
        self.assertEqual(wanted, read_cdl(COLLECTION))

    def test_opencolorio_reads_what_we_write(self) -> None:
        cdl = Cdl(slope=(1.25, 1, 0.5), offset=(0, 0.125, 0), power=(1, 2, 1), saturation=1.5)
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "shot.cc"
            path.write_text(write_cdl(cdl, "a shot"))
            theirs = OCIO.CDLTransform.CreateFromFile(str(path), "a shot")
        self.assertEqual([1.25, 1, 0.5], list(theirs.getSlope()))
        self.assertEqual([0, 0.125, 0], list(theirs.getOffset()))
        self.assertEqual([1, 2, 1], list(theirs.getPower()))
        self.assertEqual(1.5, theirs.getSat())
        self.assertEqual(cdl, read_cdl(write_cdl(cdl, "a shot").encode()))

    def test_wrong_files_are_refused(self) -> None:
        for data, reason in (
            (b"no xml", "Line 1"),
            (b"<a/>", "no ColorCorrection"),
            (COLLECTION.replace(b"1.2 1.0 0.8", b"1.2 1.0"), "Slope"),
            (COLLECTION.replace(b"1.2 1.0 0.8", b"1.2 1.0 nan"), "Slope"),
            (COLLECTION.replace(b"1 1.1 0.9", b"0 1 1"), "power"),
            (b"<!DOCTYPE x [<!ENTITY a 'b'>]><a/>", "no CDL"),
        ):
            with self.assertRaisesRegex(BadInput, reason):
                read_cdl(data)
