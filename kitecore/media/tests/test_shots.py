"""Changes of shot, and what only looks like one."""

from __future__ import annotations

from unittest import TestCase

import av
import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.media.shots import Shots

Picture = NDArray[np.uint8]
RNG = np.random.default_rng(5)


def paper(seed: int, level: int = 128) -> Picture:
    """A soft pattern, as wide as two pictures."""
    noise = np.random.default_rng(seed).normal(0, 1, (9, 24)).astype(np.float32)
    large = cv2.resize(noise, (640, 240), interpolation=cv2.INTER_CUBIC)
    return np.clip(level + 45 * large, 0, 255).astype(np.uint8)


def seen(pictures: list[Picture]) -> list[int]:
    shots = Shots()
    for picture in pictures:
        grain = RNG.normal(0, 3, picture.shape)
        rgb = np.clip(picture + grain, 0, 255).astype(np.uint8)
        frame = av.VideoFrame.from_ndarray(np.dstack([rgb] * 3), format="rgb24")
        shots.look(frame.reformat(format="yuv420p"))
    return shots.begins


def shot(seed: int, many: int, level: int = 128, pan: int = 0) -> list[Picture]:
    whole = paper(seed, level)
    return [whole[:, pan * n : pan * n + 320] for n in range(many)]


class ShotsTest(TestCase):
    def test_cuts_are_found_to_the_frame(self) -> None:
        film = shot(1, 12) + shot(2, 9, pan=6) + shot(3, 20, level=90) + shot(4, 2)
        self.assertEqual([12, 21, 41], seen(film))

    def test_a_pan_is_one_shot(self) -> None:
        self.assertEqual([], seen(shot(1, 30, pan=10)))

    def test_a_flash_is_no_cut(self) -> None:
        film = shot(1, 20)
        film[9] = np.full_like(film[9], 250)
        self.assertEqual([], seen(film))

    def test_a_dissolve_and_a_fade_are_none(self) -> None:
        first, second = shot(1, 40), shot(2, 40)
        mixed = [
            np.rint(a * (1 - n / 39) + b * (n / 39)).astype(np.uint8)
            for n, (a, b) in enumerate(zip(first, second, strict=True))
        ]
        self.assertEqual([], seen(mixed))
        self.assertEqual(
            [], seen([np.rint(a * n / 39).astype(np.uint8) for n, a in enumerate(first)])
        )

    def test_short_films(self) -> None:
        self.assertEqual([], seen([]))
        self.assertEqual([], seen(shot(1, 1)))
        self.assertEqual([1], seen(shot(1, 1) + shot(2, 1)))
