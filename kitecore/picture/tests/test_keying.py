"""Keys on composites made over a screen, of which the alpha is known."""

from __future__ import annotations

from unittest import TestCase

import cv2
import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from kitecore.document.keying import ChromaKey, LumaKey
from kitecore.picture.keying import distance_from, keyed, refined
from kitecore.picture.screens import screens_in

SIZE = 240
SCREEN = np.array([47, 160, 76]) / 255
CREAM, BROWN = np.array([0.95, 0.82, 0.7]), np.array([0.5, 0.28, 0.22])
BLUE = np.array([38, 72, 178]) / 255
MEAN_ALPHA = 0.01
EDGE_ALPHA = 0.08
"""Mean errors over the picture, and over what is neither clear nor solid."""


def grid() -> tuple[np.ndarray, np.ndarray]:
    y, x = np.mgrid[0:SIZE, 0:SIZE] + 0.5
    return x, y


def disc(soft: float = 3.0) -> np.ndarray:
    x, y = grid()
    return np.clip((70 - np.hypot(x - 120, y - 130)) / soft + 0.5, 0, 1)


def hair() -> np.ndarray:
    large = np.zeros((SIZE * 4, SIZE * 4), np.uint8)
    for strand in range(12):
        angle = np.radians(200 + strand * 12)
        tip = 480 + 400 * np.cos(angle), 520 + 400 * np.sin(angle)
        cv2.line(large, (480, 520), (int(tip[0]), int(tip[1])), 255, 9, cv2.LINE_AA)
    return cv2.resize(large, (SIZE, SIZE), interpolation=cv2.INTER_AREA) / 255


def light(strength: float) -> np.ndarray:
    x, y = grid()
    return 1 + strength * np.sin(x / 60 + 0.5) * np.cos(y / 80)


def filmed(
    alpha: np.ndarray,
    colour: np.ndarray,
    *,
    uneven: float = 0.0,
    noise: float = 0.0,
    halved: bool = False,
    screen: np.ndarray = SCREEN,
) -> np.ndarray:
    """A foreground over the screen as a camera would have it; ``halved``: chroma as in 4:2:0.

    ``colour``: one, or one for each pixel.
    """
    behind = screen * light(uneven)[..., None]
    rgb = colour * alpha[..., None] + behind * (1 - alpha[..., None])
    if noise:
        rgb = rgb + np.random.default_rng(3).normal(0, noise, rgb.shape)
    if halved:
        rgb = with_halved_chroma(rgb)
    pixels = np.rint(np.clip(rgb, 0, 1) * 255).astype(np.uint8)
    return np.dstack([pixels, np.full((SIZE, SIZE), 255, np.uint8)])


def with_halved_chroma(rgb: np.ndarray) -> np.ndarray:
    luma = rgb @ [0.2126, 0.7152, 0.0722]
    cb, cr = (rgb[..., 2] - luma) / 1.8556, (rgb[..., 0] - luma) / 1.5748
    small = cv2.resize(np.dstack([cb, cr]), (SIZE // 2,) * 2, interpolation=cv2.INTER_AREA)
    cb, cr = np.moveaxis(cv2.resize(np.rint(small * 224) / 224, (SIZE, SIZE)), -1, 0)
    red, blue = luma + 1.5748 * cr, luma + 1.8556 * cb
    return np.dstack([red, (luma - 0.2126 * red - 0.0722 * blue) / 0.7152, blue])


CARDS = {
    "white": (0.95, 0.95, 0.95),
    "black": (0.05, 0.05, 0.06),
    "red": (0.85, 0.25, 0.2),
    "yellow": (0.95, 0.8, 0.2),
    "teal": (0.1, 0.45, 0.5),
}


def dressed() -> tuple[np.ndarray, np.ndarray, dict[str, tuple[slice, slice]]]:
    """Alpha, colours and cards of a grey figure with cards of strong colours and hair."""
    alpha = np.maximum(disc(1.0), hair())
    colours = np.where(disc(1.0)[..., None] > 0, np.full(3, 0.62), BROWN)
    places = {}
    for number, (name, card) in enumerate(CARDS.items()):
        row, column = divmod(number, 3)
        top, left = 95 + 40 * row, 75 + 32 * column
        places[name] = slice(top + 5, top + 23), slice(left + 5, left + 21)
        colours[top : top + 28, left : left + 26] = card
    return alpha, colours, places


def by_plain_levels(alpha: np.ndarray, picture: np.ndarray, screen: np.ndarray) -> float:
    """Mean error of a key by distance alone, its two levels chosen when the truth is known."""
    colour = "#" + "".join(f"{round(c * 255):02x}" for c in screen)
    far = distance_from(picture[..., :3] / 255, ChromaKey(colour=colour))
    return min(
        float(np.abs(np.clip((far - low) / (high - low), 0, 1) - alpha).mean())
        for low in np.arange(0, 0.4, 0.04)
        for high in np.arange(0.5, 1.5, 0.05)
    )


def errors(
    alpha: np.ndarray, picture: np.ndarray, **more: float
) -> tuple[float, float, np.ndarray]:
    key = ChromaKey(colour="#2fa04c", **more)
    out = keyed(picture, key, 1.0)
    off = np.abs(out[..., 3] / 255 - alpha)
    edge = (alpha > 0.02) & (alpha < 0.98)
    return float(off.mean()), float(off[edge].mean()), out


class ChromaTest(TestCase):
    def test_alpha_is_found_by_even_and_by_uneven_light(self) -> None:
        for uneven in (0.0, 0.2):
            for noise, halved in ((0.0, False), (0.01, False), (0.01, True)):
                with self.subTest(uneven=uneven, noise=noise, halved=halved):
                    picture = filmed(disc(), CREAM, uneven=uneven, noise=noise, halved=halved)
                    mean, edge, out = errors(disc(), picture)
                    self.assertLess(mean, MEAN_ALPHA)
                    self.assertLess(edge, EDGE_ALPHA)
                    self.assertEqual(0, out[:40, :40, 3].max(), "dirt on the screen")
                    self.assertEqual(255, out[110:150, 100:140, 3].min(), "a hole")

    def test_pictures_of_a_few_pixels_and_of_nothing_but_screen(self) -> None:
        screen = np.array([47, 160, 76, 255], np.uint8)
        for height, width in ((1, 1), (3, 2), (2, 70), (200, 1), (90, 120)):
            with self.subTest(width=width, height=height):
                picture = np.full((height, width, 4), screen)
                self.assertEqual(0, keyed(picture, ChromaKey(colour="#2fa04c"), 1.0).max())
                picture[...] = (200, 180, 170, 255)
                out = keyed(picture, ChromaKey(colour="#2fa04c"), 1.0)
                np.testing.assert_array_equal(255, out[..., 3])

    def test_blue_is_keyed_as_well_as_green_and_better_than_by_levels_known_afterwards(
        self,
    ) -> None:
        alpha, colours, _ = dressed()
        for screen in (SCREEN, BLUE):
            for halved in (False, True):
                with self.subTest(screen=screen, halved=halved):
                    noise = 0.01 if halved else 0
                    picture = filmed(
                        alpha, colours, uneven=0.15, noise=noise, halved=halved, screen=screen
                    )
                    colour = screens_in(picture[..., :3] / 255)[0].colour
                    out = keyed(picture, ChromaKey(colour=colour), 1.0)
                    off = np.abs(out[..., 3] / 255 - alpha)
                    edge = (alpha > 0.02) & (alpha < 0.98)
                    self.assertLess(off.mean(), 0.008)
                    self.assertLess(off[edge].mean(), 0.12)
                    self.assertLess(off.mean(), by_plain_levels(alpha, picture, screen))
                    inside = cv2.erode((alpha == 1).astype(np.uint8), np.ones((7, 7))) > 0
                    self.assertLess((out[inside][:, 3] < 230).mean(), 0.005)

    def test_what_is_surely_foreground_keeps_its_colour(self) -> None:
        alpha, colours, places = dressed()
        for screen in (SCREEN, BLUE):
            picture = filmed(alpha, colours, uneven=0.15, screen=screen)
            colour = "#" + "".join(f"{round(c * 255):02x}" for c in screen)
            out = keyed(picture, ChromaKey(colour=colour), 1.0)
            for name, place in places.items():
                with self.subTest(screen=screen, card=name):
                    np.testing.assert_array_equal(out[place], picture[place])

    def test_grain_leaves_no_specks_that_are_seen(self) -> None:
        picture = filmed(disc(), CREAM, uneven=0.1, noise=0.03, halved=True)
        _, _, out = errors(disc(), picture, clear_below=0.1)
        self.assertLess(out[:50, :, 3].max(), 10)
        self.assertLess((out[:50, :, 3] > 0).mean(), 0.001)

    def test_a_wide_soft_edge_reaches_as_far_as_it_does_without_the_rows_left_out(self) -> None:
        picture = filmed(disc(), CREAM)
        tall = np.concatenate([np.repeat(picture[:1], 200, axis=0), picture])
        key = ChromaKey(colour="#2fa04c", soften=30)
        out = keyed(tall, key, 1.0)
        self.assertGreater(out[200:, 120, 3].max(), 200)
        steps = np.abs(np.diff(out[:, 120, 3].astype(int)))
        self.assertLess(steps.max(), 8, "the soft edge is cut off")

    def test_without_evening_out_the_same_levels_leave_dirt(self) -> None:
        picture = filmed(disc(), CREAM, uneven=0.2)
        mean, _, _ = errors(disc(), picture, even_out=0.0)
        self.assertGreater(mean, 2 * errors(disc(), picture)[0])

    def test_soft_and_moving_edges_stay_soft(self) -> None:
        blurred = cv2.blur(disc(), (41, 1))
        wide = {"clear_below": 0.04, "solid_above": 1.0}
        mean, edge, _ = errors(blurred, filmed(blurred, CREAM, uneven=0.1), **wide)
        self.assertLess(mean, MEAN_ALPHA)
        self.assertLess(edge, EDGE_ALPHA)

    def test_smoke_is_as_clear_as_it_is(self) -> None:
        chance = np.random.default_rng(1).random((SIZE, SIZE))
        smoke = cv2.GaussianBlur(chance, (0, 0), 24)
        smoke = np.clip((smoke - smoke.min()) / np.ptp(smoke), 0, 0.7)
        mean, _, _ = errors(
            smoke, filmed(smoke, np.full(3, 0.8)), clear_below=0.03, solid_above=1.0
        )
        self.assertLess(mean, 0.06)

    def test_hair_keeps_its_colour_and_gets_no_green_rim(self) -> None:
        alpha = np.maximum(disc(), hair())
        _, edge, out = errors(alpha, filmed(alpha, BROWN, uneven=0.15))
        self.assertLess(edge, EDGE_ALPHA)
        over = out[..., :3] / 255 + (1 - out[..., 3:] / 255) * 0.5
        rim = (alpha > 0.1) & (alpha < 0.9)
        green = over[..., 1] - np.maximum(over[..., 0], over[..., 2])
        self.assertLess(green[rim].max(), 0.08)
        strands = (hair() > 0.9) & (disc() < 0.01)
        colour = out[strands][:, :3] / np.maximum(out[strands][:, 3:], 1)
        self.assertLess(np.abs(np.median(colour, axis=0) - BROWN).max(), 0.1)

    def test_spill_goes_and_other_colours_stay(self) -> None:
        spilled = np.array([0.7, 0.8, 0.7])
        key = ChromaKey(colour="#2fa04c", solid_above=0.6)
        for colour, changes in ((spilled, True), (np.array([0.96, 0.76, 0.33]), False)):
            picture = filmed(np.ones((SIZE, SIZE)), colour)
            out = keyed(picture, key, 1.0)
            change = np.abs(out[..., 1].astype(int) - picture[..., 1]).max()
            self.assertEqual(changes, change > 4, change)
            self.assertEqual(255, out[..., 3].min())

    def test_inverted_it_keeps_the_screen(self) -> None:
        out = keyed(filmed(disc(), CREAM), ChromaKey(colour="#2fa04c", invert=True), 1.0)
        self.assertEqual((255, 0), (out[5, 5, 3], out[130, 120, 3]))

    def test_what_is_clear_already_stays_clear(self) -> None:
        picture = filmed(disc(), CREAM)
        picture[:, 120:] = 0
        out = keyed(picture, ChromaKey(colour="#2fa04c"), 1.0)
        self.assertEqual(0, out[:, 120:].max())

    @given(
        st.tuples(*[st.floats(0, 1)] * 4),
        st.floats(0, 1),
        st.floats(-4, 8),
        st.floats(0, 6),
    )
    def test_premultiplied_whatever_is_set(
        self, levels: tuple[float, ...], even: float, shrink: float, soften: float
    ) -> None:
        clear, solid, spill, curve = levels
        key = ChromaKey(
            clear_below=clear,
            solid_above=solid,
            spill=spill,
            response=((0.0, 0.0), (0.5, curve), (1.0, 1.0)),
            even_out=even,
            shrink=shrink,
            soften=soften,
        )
        out = keyed(filmed(disc(), CREAM)[::4, ::4].copy(), key, 0.5)
        self.assertLessEqual(int((out[..., :3].astype(int) - out[..., 3:]).max()), 0)


class EdgeTest(TestCase):
    def test_shrinking_moves_the_edge_by_that_much(self) -> None:
        matte = np.rint(disc(1.0) * 255).astype(np.uint8)
        for by in (1.0, 2.5, -3.0):
            done = refined(matte, ChromaKey(shrink=by), 1.0)
            radius = np.sqrt(done.sum() / 255 / np.pi)
            self.assertAlmostEqual(70 - by, float(radius), delta=0.6)

    def test_softening_keeps_the_area(self) -> None:
        matte = np.rint(disc(1.0) * 255).astype(np.uint8)
        done = refined(matte, ChromaKey(soften=4), 1.0)
        self.assertAlmostEqual(1, done.sum() / matte.sum(), places=2)
        self.assertGreater(((done > 5) & (done < 250)).sum(), ((matte > 5) & (matte < 250)).sum())


class LumaTest(TestCase):
    def test_levels_and_softness_by_their_formula(self) -> None:
        ramp = np.repeat(np.arange(256, dtype=np.uint8)[None, :, None], 4, 0).repeat(3, 2)
        picture = np.dstack([ramp, np.full(ramp.shape[:2], 255, np.uint8)])
        out = keyed(picture, LumaKey(low=40, high=80, softness=10), 1.0)[0, :, 3] / 255
        luma = np.arange(256) / 2.55
        wanted = np.minimum((luma - 30) / 10, (90 - luma) / 10).clip(0, 1)
        wanted = wanted * wanted * (3 - 2 * wanted)
        self.assertLess(np.abs(out - wanted).max(), 0.02)
        inverted = keyed(picture, LumaKey(low=40, high=80, softness=10, invert=True), 1.0)
        self.assertLess(np.abs(inverted[0, :, 3] / 255 - (1 - wanted)).max(), 0.02)

    def test_ends_left_open_keep_black_and_white(self) -> None:
        picture = np.dstack([np.zeros((2, 2, 3), np.uint8), np.full((2, 2), 255, np.uint8)])
        self.assertEqual(255, keyed(picture, LumaKey(low=0, high=50), 1.0)[0, 0, 3])
        self.assertEqual(0, keyed(picture, LumaKey(low=50, high=100), 1.0)[0, 0, 3])


class ScreensTest(TestCase):
    def test_the_screen_is_found_before_what_stands_before_it(self) -> None:
        red = np.array([0.8, 0.2, 0.15])
        picture = filmed(disc(), red, uneven=0.2, noise=0.01)[..., :3] / 255
        found = screens_in(picture)
        first = np.array([int(found[0].colour[i : i + 2], 16) for i in (1, 3, 5)]) / 255
        self.assertLess(np.abs(first - SCREEN).max(), 0.06)
        self.assertGreater(found[0].share, 0.6)
        second = np.array([int(found[1].colour[i : i + 2], 16) for i in (1, 3, 5)]) / 255
        self.assertLess(np.abs(second - red).max(), 0.08)

    def test_a_grey_picture_has_none(self) -> None:
        self.assertEqual([], screens_in(np.full((20, 20, 3), 0.5)))

    def test_the_suggested_level_clears_a_noisy_screen(self) -> None:
        picture = filmed(disc(), CREAM, uneven=0.2, noise=0.02)
        found = screens_in(picture[..., :3] / 255)[0]
        out = keyed(picture, ChromaKey(colour=found.colour, clear_below=found.clear_below), 1.0)
        self.assertLess((out[:40, :40, 3] > 0).mean(), 0.02)
