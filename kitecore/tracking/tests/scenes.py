"""Made pictures in which a thing moves by a known way."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import cache

import cv2
import numpy as np

from kitecore.tracking.flow import Grey
from kitecore.tracking.quads import Change, Matrix, Quad, carried

SIZE = (540, 960)
THING = np.array([[0.0, 0.0], [90.0, 0.0], [90.0, 120.0], [0.0, 120.0]])


@cache
def texture(high: int, wide: int, seed: int, fine: float) -> Grey:
    luck = np.random.default_rng(seed)
    soft = cv2.GaussianBlur(luck.uniform(0, 255, (high, wide)).astype(np.float32), (0, 0), fine)
    return np.asarray(np.clip((soft - soft.mean()) / soft.std() * 45 + 128, 0, 255), np.uint8)


def way(change: Change) -> Callable[[int], Matrix]:
    """Where a thing of that kind is in each frame."""

    def at(number: int) -> Matrix:
        x, y = 150 + 80 * np.sin(number / 25), 300 + 0.8 * number
        turn, size, lean = 0.0, 1.0, np.eye(3)
        if change != "moves":
            turn, size = np.radians(20 * np.sin(number / 30)), 1 + 0.3 * np.sin(number / 40)
        if change == "leans":
            lean[0, 1] = 0.1 * np.sin(number / 20)
            lean[2, :2] = 0.0008 * np.sin(number / 35), 0.0005 * np.cos(number / 20) - 0.0005
        cos, sin = size * np.cos(turn), size * np.sin(turn)
        return np.asarray(np.array([[cos, -sin, x], [sin, cos, y], [0, 0, 1]]) @ lean)

    return at


@dataclass(frozen=True)
class Scene:
    """A thing on a still ground; ``spoils`` is what is done to a frame with its number and quad."""

    change: Change
    spoil: Callable[[Grey, int, Quad], Grey] = lambda frame, number, quad: frame
    noise: float = 3.0
    away: range = range(0)

    def quad(self, number: int) -> Quad:
        return carried(way(self.change)(number), THING)

    def frame(self, number: int) -> Grey:
        ground = texture(SIZE[1], SIZE[0], 1, 6).copy()
        if number not in self.away:
            matrix, thing = way(self.change)(number), texture(120, 90, 2, 3)
            drawn = cv2.warpPerspective(thing, matrix, SIZE)
            there = cv2.warpPerspective(np.full_like(thing, 255), matrix, SIZE) > 127
            ground = np.where(there, drawn, ground)
        spoilt = self.spoil(ground, number, self.quad(number)).astype(np.float32)
        spoilt += np.random.default_rng(number).normal(0, self.noise, spoilt.shape)
        return np.asarray(np.clip(spoilt, 0, 255), np.uint8)

    def frames(self, count: int) -> Iterator[Grey]:
        return (self.frame(number) for number in range(count))


def blurred(frame: Grey, number: int, quad: Quad) -> Grey:
    """Every third frame as if the camera was moved."""
    return frame if number % 3 else np.asarray(cv2.blur(frame, (11, 1)), np.uint8)


def half_covered(frame: Grey, number: int, quad: Quad) -> Grey:
    """For half a second something goes past in front of it."""
    if 40 < number < 55:
        x, y = (int(one) for one in quad.mean(axis=0) + np.array([8 * (number - 47) - 30, -30]))
        frame[y : y + 60, x : x + 60] = texture(60, 60, 9, 4)
    return frame


def lit(frame: Grey, number: int, quad: Quad) -> Grey:
    """The light goes up and down by 40 %."""
    return np.asarray(np.clip(frame * (1 + 0.4 * np.sin(number / 15)), 0, 255), np.uint8)
