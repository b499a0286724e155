"""Effects that look at other moments of their layer, and small moving pictures of all effects."""

from __future__ import annotations

import io
from typing import Any

import numpy as np
from PIL import Image

from kitecore.document import Document
from kitecore.document.effects import effect_kinds
from kitecore.render.sampling import STEPS, effect_sample
from kitecore.render.tests.scene import SECOND, SIZE
from kitecore.render.tests.test_layers import LayerScene

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

    def test_over_all_that_lies_below_time_stands_still(self) -> None:
        self.run_across()
        plain = self.shown(SECOND // 2)
        self.add("adjustment", "over all", effects=[{"kind": "echo"}])
        np.testing.assert_array_equal(plain, self.shown(SECOND // 2))


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

    def test_an_adjustment_is_shown_over_what_lies_below(self) -> None:
        self.add("adjustment", "over all")
        shots = self.pictures("invert", "over all")
        self.assertGreater(int(shots[STEPS // 2][4:-4, 4:-4, 1].min()), 200)
