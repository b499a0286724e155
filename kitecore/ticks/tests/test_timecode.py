from unittest import TestCase

from kitecore.errors import BadInput
from kitecore.ticks import RATES, Rate, from_timecode, to_timecode

NTSC = Rate(30000, 1001)

DROP_TABLE = {
    0: "00:00:00;00",
    1799: "00:00:59;29",
    1800: "00:01:00;02",
    17981: "00:09:59;29",
    17982: "00:10:00;00",
    19781: "00:10:59;29",
    19782: "00:11:00;02",
    107892: "01:00:00;00",
    2589407: "23:59:59;29",
}
"""Frame counts around the skipped numbers, counted by hand after SMPTE ST 12-1, 5.2.2."""


class TimecodeTest(TestCase):
    def test_drop_frame_table(self) -> None:
        for frame, text in DROP_TABLE.items():
            self.assertEqual(text, to_timecode(frame, NTSC, drop=True))
            self.assertEqual(frame, from_timecode(text, NTSC))

    def test_59_94_drops_four(self) -> None:
        self.assertEqual("00:01:00;04", to_timecode(3600, Rate(60000, 1001), drop=True))

    def test_all_rates_round_trip(self) -> None:
        for rate in RATES:
            for drop in (False, True):
                for frame in range(0, 24 * 3600 * rate.nominal // 2, 9973):
                    text = to_timecode(frame, rate, drop=drop)
                    self.assertEqual(frame, from_timecode(text, rate), text)

    def test_numbers_that_do_not_exist_are_refused(self) -> None:
        for text in ("00:01:00;00", "00:01:00;01", "00:00:00:30", "1:2:3", "00:61:00:00", ""):
            with self.assertRaises(BadInput, msg=text):
                from_timecode(text, NTSC)
