"""Pictures between two: held against what was left out, plain mixing and FFmpeg's block motion."""

from __future__ import annotations

import unittest
from collections.abc import Iterator
from fractions import Fraction

import av
import av.filter
import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.picture.between import flows, moved_between
from kitecore.picture.layer import Rgba

W, H = 320, 180
RATE = 30


def cloth(seed: int, width: int = W, height: int = H) -> NDArray[np.float32]:
    """Soft and fine structure, as of paper and leaves."""
    source = np.random.default_rng(seed)
    sum_ = np.zeros((height, width, 3), np.float32)
    for size, share in ((4, 60), (12, 40), (40, 25), (90, 12)):
        field = source.standard_normal((size, size, 3)).astype(np.float32)
        sum_ += share * cv2.resize(field, (width, height), interpolation=cv2.INTER_CUBIC)
    return np.clip(128 + sum_, 0, 255).astype(np.float32)


def scene(moment: float, noise: int) -> Rgba:
    """A field that passes, a round figure that turns and crosses it, light that comes and goes."""
    field = cloth(1, W + 200, H + 60)
    x, y = 40 + 2.3 * moment, 20 + 4 * np.sin(moment / 9)
    view = np.float32([[1, 0, -x], [0, 1, -y]])
    picture = cv2.warpAffine(field, view, (W, H), flags=cv2.INTER_CUBIC)
    turn = cv2.getRotationMatrix2D((60, 60), 4 * moment, 1)
    turn[:, 2] += 20 + 3.1 * moment, 30 + 1.2 * moment
    figure = cv2.warpAffine(cloth(2, 120, 120), turn, (W, H), flags=cv2.INTER_CUBIC)
    disc = np.zeros((120, 120), np.float32)
    cv2.circle(disc, (60, 60), 48, 1, -1, cv2.LINE_AA)
    cover = cv2.warpAffine(disc, turn, (W, H))[..., None]
    lit = (picture * (1 - cover) + figure * cover) * (1 + 0.08 * np.sin(moment))
    grain = np.random.default_rng(noise).normal(0, 2.5, lit.shape)
    return opaque(np.clip(lit + grain, 0, 255))


def opaque(colours: NDArray[np.floating]) -> Rgba:
    cover = np.full(colours.shape[:2], 255, np.uint8)
    return np.ascontiguousarray(np.dstack([np.rint(colours).astype(np.uint8), cover]))


def nearness(one: NDArray[np.uint8], other: NDArray[np.uint8]) -> float:
    """Peak signal to noise, dB, of colours."""
    off = one[..., :3].astype(np.float64) - other[..., :3]
    return float(10 * np.log10(255**2 / max(np.mean(off * off), 1e-9)))


def between(a: Rgba, b: Rgba, share: float = 0.5) -> Rgba:
    return moved_between(a, b, share, flows(a, b))


def plainly(a: Rgba, b: Rgba) -> Rgba:
    return np.rint((a.astype(np.float32) + b) / 2).astype(np.uint8)


def by_blocks(pictures: list[Rgba]) -> dict[int, NDArray[np.uint8]]:
    """What FFmpeg's block motion makes of every second frame, by number."""
    graph = av.filter.Graph()
    source = graph.add_buffer(
        width=W, height=H, format=av.VideoFormat("rgba"), time_base=Fraction(2, RATE)
    )
    steps = (
        ("format", "yuv444p"),
        ("minterpolate", f"fps={RATE}:mi_mode=mci:scd=none"),
        ("format", "rgb24"),
    )
    last = source
    for name, settings in steps:
        node = graph.add(name, settings)
        last.link_to(node)
        last = node
    sink = graph.add("buffersink")
    last.link_to(sink)
    graph.configure()
    for number, picture in enumerate(pictures):
        frame = av.VideoFrame.from_ndarray(picture, format="rgba")
        frame.pts, frame.time_base = number, Fraction(2, RATE)
        source.push(frame)
    source.push(None)
    return dict(_pulled(sink))


def _pulled(sink: av.filter.context.FilterContext) -> Iterator[tuple[int, NDArray[np.uint8]]]:
    while True:
        try:
            frame = sink.pull()
        except (av.EOFError, av.BlockingIOError):
            return
        assert isinstance(frame, av.VideoFrame)
        assert frame.pts is not None and frame.time_base is not None
        colours = np.asarray(frame.to_ndarray(format="rgb24"), np.uint8)
        yield round(float(frame.pts * frame.time_base) * RATE), colours


class BetweenTest(unittest.TestCase):
    def test_nearer_to_what_was_left_out_than_mixing_and_block_motion(self) -> None:
        frames = [scene(number, number) for number in range(13)]
        kept = frames[::2]
        blocks = by_blocks(kept)
        missed = [number for number in range(1, 12, 2) if number in blocks]
        self.assertGreater(len(missed), 3)
        ours, mixed = [], []
        for number in missed:
            a, b = frames[number - 1], frames[number + 1]
            ours.append(nearness(between(a, b), frames[number]))
            mixed.append(nearness(plainly(a, b), frames[number]))
            self.assertGreater(ours[-1], mixed[-1])
        theirs = [nearness(blocks[number], frames[number]) for number in missed]
        self.assertGreater(np.mean(ours), np.mean(theirs))
        self.assertGreater(np.mean(ours), np.mean(mixed) + 3)

    def test_light_that_changes_is_mixed(self) -> None:
        dark = opaque(cloth(5) * 0.3)
        light = opaque(cloth(5))
        self.assertGreater(nearness(between(dark, light), plainly(dark, light)), 40)

    def test_the_ends_are_the_pictures_themselves(self) -> None:
        a, b = scene(0, 0), scene(2, 2)
        self.assertGreater(nearness(between(a, b, 0.0), a), 45)
        self.assertGreater(nearness(between(a, b, 1.0), b), 45)

    def test_no_colour_is_more_than_its_cover(self) -> None:
        a, b = scene(0, 0), scene(2, 2)
        for picture in (a, b):
            picture[:, ::7] //= 3
        made = between(a, b)
        self.assertTrue((made[..., :3] <= made[..., 3:]).all())
