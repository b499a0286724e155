from __future__ import annotations

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as some

from kitecore import edits
from kitecore.document import Document, empty_document
from kitecore.edits.tests.populated import SECOND, edit
from kitecore.errors import BadInput
from kitecore.exchange.captions import CaptionsRead, read_captions, write_captions

SRT = """1
00:00:00,500 --> 00:00:02,000
Four folds up,
and it <i>flies</i>.

2
00:00:01,500 --> 00:00:03,000
Überall Wind
"""
VTT = """WEBVTT

NOTE made by hand

intro
00:01.000 --> 00:02.250 align:start position:10%
<v Pip>Paper weather</v>

01:00:00.000 --> 01:00:01.000
An hour on
"""


def told(read: CaptionsRead) -> list[tuple[float, float, str]]:
    return [(one.at / SECOND, one.until / SECOND, one.text) for one in read.cues]


class ReadTest(TestCase):
    def test_subrip(self) -> None:
        read = read_captions(SRT.encode())
        self.assertEqual(
            [(0.5, 2.0, "Four folds up,\nand it flies."), (1.5, 3.0, "Überall Wind")], told(read)
        )
        self.assertIn("overlap in 1 places", read.remarks[0])
        self.assertIn("Italics", read.remarks[1])

    def test_webvtt(self) -> None:
        read = read_captions(VTT.encode("utf-8-sig"))
        self.assertEqual((1.0, 2.25, "Paper weather"), told(read)[0])
        self.assertEqual((3600.0, 3601.0, "An hour on"), told(read)[1])

    def test_encodings(self) -> None:
        for coded in (SRT.encode("utf-16"), SRT.encode("utf-8-sig"), SRT.encode("cp1252")):
            self.assertEqual("Überall Wind", told(read_captions(coded))[1][2])
        self.assertIn("Windows-1252", read_captions(SRT.encode("cp1252")).remarks[0])
        self.assertEqual(
            told(read_captions(SRT.encode())),
            told(read_captions(SRT.replace("\n", "\r\n").encode())),
        )

    def test_what_holds_none_is_refused(self) -> None:
        for data in (b"", b"hello", b"\x00\xff\xfe" * 40, b"WEBVTT\n\n", b"1\n00:00 --> \n"):
            with self.subTest(data[:12]), self.assertRaises(BadInput):
                read_captions(data)

    @given(some.binary(max_size=300))
    def test_no_file_breaks_it(self, data: bytes) -> None:
        try:
            read = read_captions(b"WEBVTT\n\n00:01.000 --> 00:02.000\n" + data)
        except BadInput:
            return
        self.assertTrue(all(cue.until >= cue.at >= 0 for cue in read.cues))


class WriteTest(TestCase):
    def document(self, read: CaptionsRead) -> Document:
        step = edit(kind="lay_captions", cues=[one.model_dump() for one in read.cues])
        return edits.apply(empty_document(), step)

    def test_what_is_written_reads_the_same(self) -> None:
        document = self.document(read_captions(SRT.encode()))
        for format in ("srt", "vtt"):
            again = read_captions(write_captions(document, format).encode())  # type: ignore[arg-type]
            self.assertEqual(
                [(0.5, 1.5, "Four folds up,\nand it flies."), (1.5, 3.0, "Überall Wind")],
                told(again),
            )
            self.assertEqual((), again.remarks)


class WordTimesTest(TestCase):
    """Captions whose words have times of their own."""

    FILE = """WEBVTT

00:01.000 --> 00:03.000
Up <00:00:01.400>it <00:02.000>goes

00:04.000 --> 00:05.000
Wind &lt; rain &amp; <c.loud>snow</c>

00:06.000 --> 00:08.000
Four folds <00:00:07.000>up now
"""

    def test_they_are_read_and_nothing_is_lost(self) -> None:
        first, second, third = read_captions(self.FILE.encode()).cues
        self.assertEqual(
            ("Up it goes", [1.0, 1.4, 2.0]),
            (first.text, [at / SECOND for at in first.words]),
        )
        self.assertEqual(("Wind < rain & snow", ()), (second.text, second.words))
        begins = [round(at / SECOND, 2) for at in third.words]
        self.assertEqual(("Four folds up now", [6.0, 6.5, 7.0, 7.5]), (third.text, begins))

    def test_what_is_lit_is_written_and_read_again(self) -> None:
        document = edits.apply(
            empty_document(),
            edit(
                kind="lay_captions", cues=[dict(c) for c in read_captions(self.FILE.encode()).cues]
            ),
        )
        plain = write_captions(document, "vtt")
        self.assertNotIn("<", plain.replace("&lt;", ""))
        [track] = [one for one in document.tracks if one.captions]
        lit = {"lit": {"kind": "plain", "colour": "#ffb454"}}
        ids = [clip.id for clip in track.clips]
        document = edits.apply(document, edit(kind="adjust", clips=ids, values=lit))
        again = read_captions(write_captions(document, "vtt").encode()).cues
        self.assertEqual(read_captions(self.FILE.encode()).cues, again)
        self.assertNotIn("<00", write_captions(document, "srt"))

    @given(some.text(alphabet="ab<&> ", min_size=1, max_size=30).filter(str.strip))
    def test_signs_of_the_format_come_back(self, text: str) -> None:
        cue = {"at": 0, "until": SECOND, "text": " ".join(text.split())}
        document = edits.apply(empty_document(), edit(kind="lay_captions", cues=[cue]))
        [read] = read_captions(write_captions(document, "vtt").encode()).cues
        self.assertEqual(cue["text"], read.text)


class PlacesTest(TestCase):
    """Captions that lie elsewhere than others."""

    FILE = """WEBVTT

00:01.000 --> 00:02.000
Usual

00:03.000 --> 00:04.000 position:20% line:10% align:start
Above

00:05.000 --> 00:06.000 line:-3
Third <00:00:05.500>from the foot

00:07.000 --> 00:08.000
Usual again

00:09.000 --> 00:10.000 line:0
"""

    def heights(self, data: str) -> list[tuple[str, float | None]]:
        return [(cue.text, cue.height) for cue in read_captions(data.encode()).cues]

    def test_they_are_read_laid_and_written(self) -> None:
        read = read_captions(self.FILE.encode())
        heights = [cue.height for cue in read.cues]
        self.assertEqual([None, 0.13, 0.85, None], heights)
        self.assertEqual(2, len(read.cues[2].words) - 2)
        self.assertEqual((), read.remarks)
        cues = [cue.model_dump() for cue in read.cues]
        document = edits.apply(empty_document(), edit(kind="lay_captions", cues=cues))
        [track] = [one for one in document.tracks if one.captions]
        downs = [clip.place.position[1] for clip in track.clips]  # type: ignore[attr-defined]
        self.assertEqual(downs[0], downs[3])
        half = document.canvas.height / 2
        self.assertAlmostEqual((0.13 - 0.5) * 2 * half, downs[1], delta=1)
        text = write_captions(document, "vtt")
        self.assertEqual(2, text.count("line:"))
        again = [cue.height for cue in read_captions(text.encode()).cues]
        self.assertEqual([None, 0.13, 0.85, None], again)
        self.assertNotIn("line:", write_captions(document, "srt"))

    def test_subrip_says_it_by_tags(self) -> None:
        lines = ("{\\an8}Above", "{\\an5}In the midst", "{\\an2}Usual", "Plain")
        srt = "\n".join(
            f"{n}\n00:00:0{n},000 --> 00:00:0{n},900\n{line}\n" for n, line in enumerate(lines)
        )
        wanted = [("Above", 0.09), ("In the midst", 0.5), ("Usual", None), ("Plain", None)]
        self.assertEqual(wanted, self.heights(srt))
        self.assertEqual((), read_captions(srt.encode()).remarks)
