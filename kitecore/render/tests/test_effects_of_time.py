"""Effects that look at other moments of their layer, and small moving pictures of all effects."""

from __future__ import annotations

import io
from typing import Any

import numpy as np
from PIL import Image

from kitecore.document import Document
from kitecore.document.effects import effect_kinds
from kitecore.document.effects.hold import Hold
from kitecore.picture.effects.hold import held_since
from kitecore.render.extract import content_key
from kitecore.render.sampling import STEPS, effect_sample
from kitecore.render.tests.scene import SECOND, SIZE
from kitecore.render.tests.test_layers import LayerScene
from kitecore.ticks import Span

WIDE = SIZE[0]


def named(document: Document, name: str) -> Any:
    return next(one for track in document.tracks for one in track.clips if one.name == name)


class TimeTest(LayerScene):
    """A white block goes from left to right in a second, on red."""

    def run_across(self, **effect: Any) -> None:
        keys = [{"at": at, "value": [x, 0.0]} for at, x in ((0, -WIDE / 4), (SECOND, WIDE / 4))]
        place = {"position": {"keys": keys}}
        self.block("block", (10, 10), place=place, effects=[effect] if effect else [])

    def middles(self, tick: int, channel: int = 1) -> np.ndarray:
        """How white the row through the middle is."""
        return self.shown(tick)[SIZE[1] // 2, :, channel].astype(int)

    def middle(self, tick: int) -> float:
        row = self.middles(tick)
        return float((row * np.arange(WIDE)).sum() / row.sum())

    def test_held_it_goes_in_steps(self) -> None:
        self.run_across(kind="hold", rate=4)
        at = [self.middle(tick * SECOND // 30) for tick in range(30)]
        self.assertEqual(4, len({round(one, 2) for one in at}))
        self.assertAlmostEqual(WIDE / 8, at[8] - at[7], delta=0.5)
        self.assertEqual(at[0], at[7])

    def test_held_it_runs_on_when_its_start_is_trimmed(self) -> None:
        self.run_across(kind="hold", rate=4)
        whole = [self.middle(tick * SECOND // 30) for tick in range(12, 24)]
        self.scene.do(kind="trim", clip=self.clip.id, edge="start", to=SECOND // 5)
        trimmed = [self.middle(tick * SECOND // 30) for tick in range(12, 24)]
        np.testing.assert_allclose(whole, trimmed, atol=0.01)

    def test_held_at_a_rate_with_keys_a_picture_comes_whenever_the_rate_adds_up_to_another(
        self,
    ) -> None:
        keys = [{"at": 0, "value": 2}, {"at": SECOND // 2, "value": 6}]
        self.run_across(kind="hold", rate={"keys": keys})
        shown = [self.middle(tick * SECOND // 60) for tick in range(60)]
        # Until the second key t seconds add up to 2t + 4t², from there on to 2 and 6 a second more.
        came = [0.0, (5**0.5 - 1) / 4, 0.5, 0.5 + 1 / 6, 0.5 + 2 / 6]
        wanted = [
            WIDE / 2 * max(one for one in came if one <= tick / 60 + 1e-6) for tick in range(60)
        ]
        np.testing.assert_allclose(wanted, np.array(shown) - shown[0], atol=0.3)

    def test_eased_a_held_picture_stays_the_same_until_the_next(self) -> None:
        ease = {"kind": "bezier", "x1": 0.3, "y1": -4, "x2": 0.6, "y2": 3}
        keys = [{"at": 0, "value": 3, "ease": ease}, {"at": SECOND, "value": 9}]
        effect = effect_kinds["hold"].model_validate({"rate": {"keys": keys}, "since": SECOND // 7})
        assert isinstance(effect, Hold)
        moments = [held_since(effect, tick * SECOND // 600) for tick in range(-300, 1200)]
        for tick, held in enumerate(moments, -300):
            now = tick * SECOND // 600
            self.assertTrue(now - effect.looks_back <= held <= now)
        later = [one for tick, one in enumerate(moments, -300) if tick >= 600]
        # Nine a second at the end of which there are two, the first begun before.
        self.assertEqual(10, len(set(later)))

    @property
    def clip(self) -> Any:
        return named(self.document, "block")

    def test_echoes_lie_where_it_was_each_half_of_the_one_before(self) -> None:
        self.run_across(kind="echo", count=2, later=0.25, strength=0.5)
        row = self.middles(SECOND // 2)
        for step, share in ((0, 1.0), (1, 0.5), (2, 0.25)):
            there = round(WIDE / 2 - step * WIDE / 8)
            self.assertAlmostEqual(255 * share, row[there], delta=3)
        self.assertEqual(0, row[round(WIDE / 2 + WIDE / 8)])

    def test_how_many_echoes_and_how_far_apart_go_by_keys_and_never_beyond_them(self) -> None:
        ease = {"kind": "bezier", "x1": 0.3, "y1": 8, "x2": 0.6, "y2": 8}
        ends = [{"at": SECOND // 4, "value": 1}, {"at": SECOND // 2, "value": 2}]
        later = [{"at": 0, "value": 0.125, "ease": ease}, {"at": SECOND, "value": 0.25}]
        self.run_across(kind="echo", count={"keys": ends}, later={"keys": later[:1]}, strength=1.0)
        self.assertAlmostEqual(20, (self.middles(SECOND // 4) > 127).sum(), delta=2)
        self.assertAlmostEqual(30, (self.middles(SECOND // 2) > 127).sum(), delta=2)
        echo = self.clip.effects[0]
        self.assertEqual(2 * SECOND // 8, echo.looks_back)
        self.scene.do(
            kind="set_part",
            clips=[self.clip.id],
            list="effects",
            part=echo.id,
            values={"later": {"keys": later}},
        )
        self.assertEqual(2 * SECOND // 4, self.clip.effects[0].looks_back)
        row = self.middles(SECOND // 2)
        # Eased it would be more than a second.
        self.assertEqual(255, row[round(WIDE / 2 - WIDE / 8)])

    def test_before_it_began_there_are_none(self) -> None:
        self.run_across(kind="echo", count=4, later=0.25)
        self.assertEqual(10, (self.middles(0) > 127).sum())

    def test_another_effect_before_it_is_seen_in_the_echo_too(self) -> None:
        self.run_across(kind="echo", count=1, later=0.25, strength=1.0)
        invert = {"kind": "invert"}
        self.scene.do(
            kind="add_parts", clips=[self.clip.id], list="effects", parts=[invert], seed="i"
        )
        effects = self.clip.effects
        self.scene.do(
            kind="order_part", clips=[self.clip.id], list="effects", part=effects[1].id, to=0
        )
        self.assertEqual(0, self.middles(SECOND // 2)[round(WIDE / 2 - WIDE / 8)])

    def test_an_adjustment_holds_all_that_lies_below_it(self) -> None:
        self.run_across()
        free = [self.shown(number * SECOND // 30) for number in range(30)]
        self.add("adjustment", "over all", effects=[{"kind": "hold", "rate": 4}])
        for number in (0, 7, 8, 14, 15, 29):
            held = int(number * 4 / 30) / 4 * 30
            there = free[int(np.ceil(held - 1e-9))]
            gap = np.abs(self.shown(number * SECOND // 30).astype(int) - there)
            # The moment itself lies between two frames.
            self.assertLess(gap.mean(), 1.5, number)

    def test_what_lies_above_an_adjustment_is_not_held(self) -> None:
        self.add("adjustment", "over all", effects=[{"kind": "hold", "rate": 1}])
        self.run_across()
        self.assertGreater(self.middle(SECOND // 2), self.middle(SECOND // 4) + WIDE / 16)

    def test_over_all_an_echo_mixes_what_was_seen(self) -> None:
        self.run_across()
        echo = {"kind": "echo", "count": 1, "later": 0.25, "strength": 0.5}
        self.add("adjustment", "over all", effects=[echo])
        row = self.middles(SECOND // 2)
        now, before = round(WIDE / 2), round(WIDE / 2 - WIDE / 8)
        self.assertAlmostEqual(255 * 1 / 1.5, row[now], delta=2)
        self.assertAlmostEqual(255 * 0.5 / 1.5, row[before], delta=2)
        self.assertEqual(255, self.shown(SECOND // 2)[0, 0, 0], "what stands still stays as it is")

    def test_an_adjustment_of_time_works_after_its_grade_and_first_effects(self) -> None:
        self.run_across()
        effects = [{"kind": "invert"}, {"kind": "hold", "rate": 4}]
        self.add("adjustment", "over all", effects=effects)
        shown = self.shown(SECOND // 2 + SECOND // 6)
        self.assertEqual([0, 255, 255], shown[0, 0, :3].tolist())
        self.assertEqual(0, shown[SIZE[1] // 2, round(WIDE / 2), 1])

    def test_pieces_under_it_depend_on_what_it_looks_back_at(self) -> None:
        self.run_across()
        self.add("adjustment", "over all", effects=[{"kind": "hold", "rate": 2}])
        span = Span(SECOND // 2 + SECOND // 10, SECOND)

        def key() -> str:
            return content_key(self.document, span, self.scene.find)

        before = key()
        self.scene.do(kind="adjust", clips=[self.clip.id], values={"opacity": 0.5})
        self.assertNotEqual(before, key())
        whole = key()
        self.scene.do(kind="split", clips=[self.clip.id], at=SECOND // 2 + SECOND // 30)
        first = next(clip for _, clip in self.document.clips() if clip.name == "block")
        self.scene.do(kind="adjust", clips=[first.id], values={"opacity": 0.2})
        self.assertNotEqual(whole, key())


class SampleTest(LayerScene):
    def pictures(self, kind: str, name: str = "block") -> np.ndarray:
        clip = named(self.document, name)
        jpeg = effect_sample(self.document, 0, clip.id, kind, self.sources())
        strip = np.asarray(Image.open(io.BytesIO(jpeg)))
        return strip.reshape(strip.shape[0], STEPS, -1, 3).transpose(1, 0, 2, 3)

    def test_each_is_seen_to_move(self) -> None:
        self.block("block", (40, 60), colour="#80c0ff")
        # Of an even block most blurs and tones say little, but the edges tell.
        for kind in sorted(effect_kinds):
            with self.subTest(kind):
                shots = self.pictures(kind).astype(int)
                self.assertEqual(STEPS, len(shots))
                if kind not in ("posterise", "sharpen", "threshold", "rays", "hold", "echo"):
                    spread = np.abs(np.diff(shots, axis=0)).max()
                    self.assertGreater(spread, 8)

    def test_over_all_that_lies_below_samples_of_time_and_of_others_move_too(self) -> None:
        keys = [{"at": at, "value": [x, 0.0]} for at, x in ((0, -40.0), (SECOND, 40.0))]
        self.block("block", (40, 60), colour="#80c0ff", place={"position": {"keys": keys}})
        self.add("adjustment", "over all")
        for kind in ("hold", "echo", "displace"):
            shots = self.pictures(kind, "over all").astype(int)
            self.assertGreater(np.abs(np.diff(shots, axis=0)).max(), 8, kind)

    def test_an_adjustment_is_shown_over_what_lies_below(self) -> None:
        self.add("adjustment", "over all")
        shots = self.pictures("invert", "over all")
        self.assertGreater(int(shots[STEPS // 2][4:-4, 4:-4, 1].min()), 200)
