"""One suite of invariants for all effects, and each against what it is held against."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

import cv2
import numpy as np
from hypothesis import given
from hypothesis import strategies as st
from scipy import ndimage

from kitecore.document.controls import controls_of
from kitecore.document.effects import EffectBase, Timed, effect_kinds
from kitecore.document.properties import Key, NumberKeys
from kitecore.media.premultiply import premultiply
from kitecore.motion.noise import wave
from kitecore.oklab import mix, rgb_of
from kitecore.picture.effects import apply_effects
from kitecore.picture.layer import Layer, moved, solid

SECOND = 705_600_000
kinds = st.sampled_from(sorted(effect_kinds))


def picture(width: int = 60, height: int = 44, *, opaque: bool = False) -> np.ndarray:
    chance = np.random.default_rng(2)
    pixels = cv2.GaussianBlur(chance.random((height, width, 4)), (0, 0), 2)
    pixels = (pixels - pixels.min()) / np.ptp(pixels) * 255
    straight = pixels.astype(np.uint8)
    if opaque:
        straight[..., 3] = 255
    return premultiply(straight)


def layer(**more: Any) -> Layer:
    return Layer(picture(**more), moved(0, 0))


def made(kind: str, data: st.DataObject | None = None) -> EffectBase:
    """An effect with values by chance within the bounds of its controls."""
    values: dict[str, Any] = {}
    model = effect_kinds[kind]
    for control in controls_of(model):
        if data is None or control.control in ("colour", "spot") or control.name == "mix":
            continue
        if control.control == "choice":
            values[control.name] = data.draw(st.sampled_from(control.choices))
        elif control.control == "switch":
            values[control.name] = data.draw(st.booleans())
        elif isinstance(control.default, int | float) and control.low is not None:
            number = data.draw(st.floats(control.low, min(control.high or 1, 60)))
            values[control.name] = round(number) if isinstance(control.default, int) else number
    return model(**values)


class EveryEffectTest(TestCase):
    @given(kinds, st.data())
    def test_colours_stay_within_alpha_and_the_border_is_even(
        self, kind: str, data: st.DataObject
    ) -> None:
        before = layer()
        after = apply_effects(before, (made(kind, data),), SECOND // 3)
        self.assertLessEqual(
            int((after.pixels[..., :3].astype(int) - after.pixels[..., 3:]).max()), 0
        )
        grown = np.array(after.pixels.shape[:2]) - before.pixels.shape[:2]
        self.assertEqual(grown[0], grown[1])
        self.assertEqual(0, grown[0] % 2)
        self.assertEqual(-grown[0] // 2, round(after.matrix[0, 2]))

    @given(kinds, st.data())
    def test_typed_numbers_without_measure_are_bounded(
        self, kind: str, data: st.DataObject
    ) -> None:
        bounds = {
            name: told
            for name, told in effect_kinds[kind].model_json_schema()["properties"].items()
            if "least" in told and isinstance(told["default"], float)
        }
        values = {
            name: data.draw(st.sampled_from([told["least"], told["low"], told["most"]]))
            for name, told in bounds.items()
            if name not in ("mix", "rate")
        }
        small = Layer(picture(), moved(0, 0), 0.02)
        after = apply_effects(small, (effect_kinds[kind](**values),), 0).pixels
        self.assertLessEqual(int((after[..., :3].astype(int) - after[..., 3:]).max()), 0)

    @given(kinds)
    def test_off_or_mixed_in_by_nothing_it_changes_nothing(self, kind: str) -> None:
        effect, before = made(kind), layer()
        for quiet in ({"on": False}, {"mix": 0.0}):
            after = apply_effects(before, (effect.model_copy(update=quiet),), 0)
            self.assertIs(before, after)

    @given(kinds)
    def test_the_picture_it_is_given_stays_as_it_is(self, kind: str) -> None:
        before = layer()
        kept = before.pixels.copy()
        apply_effects(before, (made(kind),), 0)
        np.testing.assert_array_equal(kept, before.pixels)

    @given(kinds, st.integers(0, 10**9))
    def test_the_same_moment_looks_the_same_again(self, kind: str, tick: int) -> None:
        one, other = (apply_effects(layer(), (made(kind),), tick).pixels for _ in range(2))
        np.testing.assert_array_equal(one, other)

    @given(kinds)
    def test_half_mixed_in_is_half_way(self, kind: str) -> None:
        effect = made(kind)
        whole = apply_effects(layer(), (effect,), 0)
        half = apply_effects(layer(), (effect.model_copy(update={"mix": 0.5}),), 0)
        border = (whole.pixels.shape[0] - 44) // 2
        plain = layer().padded(border).pixels if border else picture()
        wanted = (plain.astype(float) + whole.pixels) / 2
        self.assertLessEqual(np.abs(half.pixels - wanted).max(), 0.5)

    @given(
        st.sampled_from([kind for kind in sorted(effect_kinds) if kind not in ("grain", "mosaic")])
    )
    def test_at_half_the_size_it_looks_alike(self, kind: str) -> None:
        large = cv2.resize(picture(opaque=True), (240, 176), interpolation=cv2.INTER_CUBIC)
        large[..., 3] = 255
        small = cv2.resize(large, (120, 88), interpolation=cv2.INTER_AREA)
        effect = made(kind)
        one = apply_effects(Layer(large, moved(0, 0), 1.0, endless=True), (effect,), 0).pixels
        other = apply_effects(Layer(small, moved(0, 0), 0.5, endless=True), (effect,), 0).pixels
        border, edge = (one.shape[0] - 176) // 2, (other.shape[0] - 88) // 2
        inner = one[border : border + 176, border : border + 240]
        shrunk = cv2.resize(inner, (120, 88), interpolation=cv2.INTER_AREA).astype(int)
        off = np.abs(shrunk - other[edge : edge + 88, edge : edge + 120])
        self.assertLess(off.mean(), 4)

    def test_keys_move_every_number(self) -> None:
        keys = NumberKeys(keys=(Key(at=0, value=0.0), Key(at=SECOND, value=20.0)))
        blur = effect_kinds["soft_blur"](sigma=keys)
        wide = Layer(picture(opaque=True), moved(0, 0), endless=True)
        spread = [
            np.abs(np.diff(apply_effects(wide, (blur,), tick).pixels[..., 0].astype(int))).mean()
            for tick in (0, SECOND // 2, SECOND)
        ]
        self.assertEqual(sorted(spread, reverse=True), spread)

    def test_a_running_effect_runs_on_when_its_clip_is_trimmed(self) -> None:
        for kind in (kind for kind, model in effect_kinds.items() if issubclass(model, Timed)):
            effect = made(kind)
            whole = apply_effects(layer(), (effect,), SECOND).pixels
            later = apply_effects(layer(), (effect.moved(-SECOND // 2),), SECOND // 2).pixels
            np.testing.assert_array_equal(whole, later)


class BlurTest(TestCase):
    def _against(self, kind: str, reference: np.ndarray, off: float, **values: Any) -> None:
        source = layer(opaque=True)
        done = apply_effects(
            Layer(source.pixels, source.matrix, endless=True), (effect_kinds[kind](**values),), 0
        ).pixels
        border = (done.shape[0] - 44) // 2
        inner = done[border : border + 44, border : border + 60, :3]
        self.assertLess(np.abs(inner.astype(float) - reference).max(), off)

    def test_soft_blur_is_a_gaussian(self) -> None:
        source = picture(opaque=True)[..., :3].astype(float)
        wanted = ndimage.gaussian_filter(source, (3, 3, 0), mode="nearest", truncate=5)
        self._against("soft_blur", wanted, 1.5, sigma=3.0)

    def test_box_blur_is_the_mean_of_a_square(self) -> None:
        source = picture(opaque=True)[..., :3].astype(float)
        wanted = ndimage.uniform_filter(source, (9, 9, 1), mode="nearest")
        self._against("box_blur", wanted, 1.5, radius=4.0)

    def test_direction_blur_along_the_rows_is_their_mean(self) -> None:
        source = picture(opaque=True)[..., :3].astype(float)
        weights = [0.5, *[1.0] * 11, 0.5]
        wanted = ndimage.convolve1d(source, weights, axis=1, mode="nearest") / 12
        self._against("direction_blur", wanted, 1.5, length=12.0, angle=0.0)

    def test_zoom_blur_leaves_its_centre_sharp(self) -> None:
        checks = np.kron(np.indices((24, 24)).sum(0) % 2, np.ones((4, 4)))
        grey = (checks * 255).astype(np.uint8)
        pixels = np.dstack([grey, grey, grey, np.full_like(grey, 255)])
        effect = effect_kinds["zoom_blur"](amount=40.0)
        done = apply_effects(Layer(pixels, moved(0, 0), endless=True), (effect,), 0).pixels
        self.assertGreater(done[44:52, 44:52, 0].std(), 2 * done[4:16, 4:16, 0].std())

    def test_a_blur_keeps_the_light_of_a_layer(self) -> None:
        for kind in ("soft_blur", "box_blur", "direction_blur"):
            before = layer()
            after = apply_effects(before, (effect_kinds[kind](),), 0)
            share = after.pixels.astype(float).sum() / before.pixels.astype(float).sum()
            self.assertAlmostEqual(1, share, delta=0.02)

    def test_mosaic_has_squares_of_the_mean(self) -> None:
        source = layer(opaque=True, width=64, height=48)
        done = apply_effects(source, (effect_kinds["mosaic"](side=16.0),), 0).pixels
        wanted = source.pixels[:16, :16].reshape(-1, 4).mean(axis=0)
        self.assertLess(np.abs(done[3, 3] - wanted).max(), 1.01)
        self.assertEqual(1, len(np.unique(done[:16, :16].reshape(-1, 4), axis=0)))


class LightTest(TestCase):
    def test_one_stop_doubles_linear_light(self) -> None:
        grey = solid(4, 4, (100, 100, 100))
        done = apply_effects(Layer(grey, moved(0, 0)), (effect_kinds["exposure"](stops=1.0),), 0)
        before, after = (value**2.4 for value in (100 / 255, done.pixels[0, 0, 0] / 255))
        self.assertAlmostEqual(2, after / before, delta=0.03)

    def test_point_light_by_its_formula(self) -> None:
        grey = solid(200, 100, (100, 100, 100))
        lamp = effect_kinds["point_light"](
            centre=(0.0, 0.0), reach=80.0, strength=1.0, around=0.25, colour="#ffffff"
        )
        row = apply_effects(Layer(grey, moved(0, 0)), (lamp,), 0).pixels[50, :, 0]
        distance = np.hypot(np.arange(200) - 99.5, 0.5)
        wanted = 100 * (0.25 + np.maximum(1 - (distance / 80) ** 2, 0) ** 2)
        self.assertLess(np.abs(row - wanted).max(), 1)

    def test_vignette_spares_the_middle(self) -> None:
        grey = solid(90, 160, (200, 200, 200))
        done = apply_effects(Layer(grey, moved(0, 0)), (effect_kinds["vignette"](),), 0).pixels
        self.assertEqual(200, done[80, 45, 0])
        self.assertLess(done[0, 0, 0], 120)

    def test_flicker_loses_at_most_its_strength(self) -> None:
        white = solid(2, 2, (200, 200, 200))
        effect = effect_kinds["flicker"](strength=0.5, rate=9.0)
        shown = [
            int(apply_effects(Layer(white, moved(0, 0)), (effect,), tick).pixels[0, 0, 0])
            for tick in range(0, 2 * SECOND, SECOND // 30)
        ]
        self.assertGreaterEqual(min(shown), 100)
        self.assertLessEqual(max(shown), 200)
        self.assertGreater(max(shown) - min(shown), 50)

    @given(st.floats(0, 100), st.integers(1, 100))
    def test_its_wave_is_smooth_and_bounded(self, at: float, seed: int) -> None:
        self.assertLessEqual(abs(wave(at, seed)), 1)
        self.assertLess(abs(wave(at + 0.01, seed) - wave(at, seed)), 0.06)

    def test_grain_has_its_strength_and_no_bias(self) -> None:
        grey = solid(200, 200, (128, 128, 128))
        effect = effect_kinds["grain"](amount=10.0, size=1.0)
        first = apply_effects(Layer(grey, moved(0, 0)), (effect,), 0).pixels[..., 0]
        next_ = apply_effects(Layer(grey, moved(0, 0)), (effect,), SECOND // 30).pixels[..., 0]
        self.assertAlmostEqual(128, first.mean(), delta=0.6)
        self.assertAlmostEqual(25.5, first.std(), delta=1.5)
        self.assertGreater((first != next_).mean(), 0.9)


class OutlineTest(TestCase):
    def _square(self) -> Layer:
        pixels = np.zeros((80, 80, 4), np.uint8)
        pixels[30:50, 30:50] = 255
        return Layer(pixels, moved(0, 0))

    def test_a_line_goes_over_into_another_colour(self) -> None:
        values = {"width": 6.0, "colour": "#ff0000", "second": "#0000ff", "gradient": True}
        for angle, ends in ((0.0, ((40, 26), (40, 53))), (90.0, ((26, 40), (53, 40)))):
            effect = effect_kinds["outline"](angle=angle, **values)
            done = apply_effects(self._square(), (effect,), 0).pixels
            border = (done.shape[0] - 80) // 2
            first, last = (done[y + border, x + border].astype(int) for y, x in ends)
            with self.subTest(angle):
                self.assertGreater(first[0], 200)
                self.assertGreater(last[2], 200)
                self.assertEqual([255, 255], [first[3], last[3]])
            # Halfway it is the colour that lies between both in OKLab.
            half = (26, 40) if angle == 0 else (40, 26)
            between = rgb_of(mix("#ff0000", "#0000ff", 0.5))
            there = done[half[0] + border, half[1] + border, :3].astype(int)
            self.assertLess(np.abs(there - np.array(between)).max(), 8)

    def test_a_shadow_falls_by_its_shift_behind_the_layer(self) -> None:
        effect = effect_kinds["shadow"](
            shift=(20.0, 25.0), softness=0.0, opacity=1.0, colour="#ff0000"
        )
        done = apply_effects(self._square(), (effect,), 0)
        border = (done.pixels.shape[0] - 80) // 2
        inner = done.pixels[border : border + 80, border : border + 80]
        self.assertEqual([255, 0, 0, 255], inner[60, 60].tolist())
        self.assertEqual([255, 255, 255, 255], inner[49, 49].tolist())

    def test_a_glow_around_the_outline_leaves_the_layer_itself(self) -> None:
        effect = effect_kinds["glow"](of="outline", width=12.0, strength=1.0)
        done = apply_effects(self._square(), (effect,), 0)
        border = (done.pixels.shape[0] - 80) // 2
        inner = done.pixels[border : border + 80, border : border + 80]
        np.testing.assert_array_equal(self._square().pixels[30:50, 30:50], inner[30:50, 30:50])
        self.assertGreater(inner[40, 54, 3], inner[40, 60, 3])

    def test_a_reflection_is_upside_down_and_fades(self) -> None:
        source = self._square()
        source.pixels[30:40, 30:50, :3] = 0
        effect = effect_kinds["reflection"](opacity=1.0, height=100.0, softness=0.0)
        done = apply_effects(source, (effect,), 0)
        border = (done.pixels.shape[0] - 80) // 2
        column = done.pixels[border + 50 : border + 70, border + 40]
        self.assertTrue((np.diff(column[:, 3].astype(int)) < 0).all())
        self.assertGreater(column[2, 0], 200)
        self.assertEqual(0, column[15, 0])

    def test_inverting_the_alpha_leaves_what_was_clear(self) -> None:
        effect = effect_kinds["invert"](red=False, green=False, blue=False, alpha=True)
        done = apply_effects(self._square(), (effect,), 0).pixels
        self.assertEqual((255, 0), (done[0, 0, 3], done[40, 40, 3]))
