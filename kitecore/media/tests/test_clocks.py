"""When files say that they were recorded, read from files that other tools wrote so."""

from __future__ import annotations

import struct
import tempfile
from datetime import UTC, datetime
from fractions import Fraction
from pathlib import Path
from unittest import TestCase

import av
import numpy as np

from kitecore.media.info import Clock
from kitecore.media.probe import probe
from kitecore.media.tests.material import make_wav, numbered, tone
from kitecore.ticks import TICKS_PER_SECOND


class ClockTest(TestCase):
    def setUp(self) -> None:
        self.root = Path(self.enterContext(tempfile.TemporaryDirectory()))

    def film(self, rate: Fraction, form: str = "mov", **tags: str) -> Clock:
        path = self.root / f"film.{form}"
        with av.open(str(path), "w", format=form, options={}) as out:
            out.metadata.update(tags)
            stream = out.add_stream("libx264", rate=rate)
            stream.width, stream.height, stream.pix_fmt = 160, 240, "yuv420p"
            if "timecode" in tags:
                stream.metadata["timecode"] = tags["timecode"]
            for number in range(3):
                out.mux(stream.encode(numbered(number, (160, 240), "yuv420p")))
            out.mux(stream.encode(None))
        return probe(path)[0].clock

    def test_timecode_counts_frames_of_the_file(self) -> None:
        clock = self.film(Fraction(25), timecode="10:20:30:05")
        seconds = 10 * 3600 + 20 * 60 + 30 + Fraction(5, 25)
        self.assertEqual(seconds * TICKS_PER_SECOND, clock.timecode)

    def test_drop_frame_timecode(self) -> None:
        clock = self.film(Fraction(30000, 1001), timecode="00:10:00;00")
        assert clock.timecode is not None
        self.assertAlmostEqual(600, clock.timecode / TICKS_PER_SECOND, delta=0.02)

    def test_the_date_of_a_file(self) -> None:
        clock = self.film(Fraction(30), "mp4", creation_time="2031-05-06T07:08:09.000000Z")
        self.assertEqual(
            (None, datetime(2031, 5, 6, 7, 8, 9, tzinfo=UTC).timestamp()),
            (clock.timecode, clock.made_at),
        )

    def test_a_broadcast_wave_counts_samples(self) -> None:
        path = make_wav(self.root / "x.wav", tone(0.5))
        data = path.read_bytes()
        facts = bytearray(602)
        facts[338:346] = struct.pack("<Q", 48_000 * 3600)
        chunk = b"bext" + struct.pack("<I", len(facts)) + facts
        riff = struct.pack("<I", len(data) - 8 + len(chunk))
        path.write_bytes(data[:4] + riff + data[8:12] + chunk + data[12:])
        self.assertEqual(3600 * TICKS_PER_SECOND, probe(path)[0].clock.timecode)

    def test_files_that_say_nothing_or_nonsense(self) -> None:
        self.assertEqual(
            Clock(), probe(make_wav(self.root / "x.wav", np.zeros(100, np.float32)))[0].clock
        )
        clock = self.film(Fraction(30), "matroska", timecode="noon", creation_time="yesterday")
        self.assertIsNone(clock.timecode)
