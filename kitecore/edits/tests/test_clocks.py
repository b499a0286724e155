"""Files whose clocks ran at another speed, lined up over their whole length."""

from __future__ import annotations

from kitecore.document import Sourced
from kitecore.edits._files import Placed, files_of
from kitecore.edits.tests.populated import SECOND
from kitecore.edits.tests.test_multicam import FRAME, MulticamCase

MIC = 3
DRIFT = 2e-4
HELD = 6 * SECOND
AT = 2 * SECOND + FRAME // 3


class ClocksTest(MulticamCase):
    def setUp(self) -> None:
        super().setUp()
        self.on("line_up", places=[{"angle": MIC, "at": AT}])

    def even(self, drift: float, angle: int = MIC) -> None:
        self.on("even_clocks", clocks=[{"angle": angle, "file": 0, "drift": drift, "held": HELD}])

    @property
    def mic(self) -> Placed:
        return files_of(self.clip.angle(MIC))[0]

    def heard_at(self, source: int) -> float:
        """When a tick of the recording is heard."""
        clip = self.mic.clip
        speed = clip.speed.constant
        assert speed
        return clip.start + (source - clip.source_in) / speed

    def test_every_moment_lies_where_it_was_said_within_a_sample(self) -> None:
        for drift in (DRIFT, -DRIFT):
            self.even(drift)
            for real in (0.5, 3, 6, 10):
                # Its clock counted so many ticks more, from the moment that lies right on.
                counted = HELD + round((real * SECOND - HELD) * (1 + drift))
                self.assertAlmostEqual(
                    AT + real * SECOND, self.heard_at(counted), delta=SECOND / 48_000
                )
            self.assertFalse(getattr(self.mic.clip, "keep_pitch", None))
            self.even(0.0)

    def test_left_in_again_it_lies_as_before(self) -> None:
        before = self.mic
        self.even(DRIFT)
        self.assertNotEqual(before, self.mic)
        self.even(0.0)
        self.assertEqual(AT, self.mic.at)
        self.assertTrue(self.mic.clip.speed.plain)
        self.assertGreaterEqual(self.mic.clip.length, before.clip.length - FRAME)

    def test_what_was_cut_of_a_file_stays_cut(self) -> None:
        self.on("switch", cuts=[{"at": 3 * SECOND, "angle": 1}])
        inner = self.mic.clip
        self.do(
            kind="trim",
            within=self.clip.id,
            clip=self.clip.angle(MIC).id,
            edge="start",
            to=AT // FRAME * FRAME + SECOND,
        )
        self.even(DRIFT)
        self.assertIsInstance(self.mic.clip, Sourced)
        self.assertEqual(inner.media, self.mic.clip.media)
        self.assertEqual([(0, 0), (3, 1)], self.switches())

    def test_lined_up_again_it_runs_by_its_own_clock(self) -> None:
        self.even(DRIFT)
        self.on("line_up", places=[{"angle": MIC, "at": 3 * SECOND}])
        self.assertTrue(self.mic.clip.speed.plain)
        self.assertEqual(3 * SECOND, self.mic.at)

    def test_what_runs_at_a_speed_of_its_own_is_left_alone(self) -> None:
        file = self.mic.clip
        self.do(
            kind="set_speed",
            within=self.clip.angle(MIC).id,
            clips=[file.id],
            factor=2.0,
            keep="content",
        )
        self.refuses(
            "speed of its own",
            "even_clocks",
            clocks=[{"angle": MIC, "file": 0, "drift": DRIFT, "held": 0}],
        )
