"""Effects over a full-size frame, one thread; two of them in a preview."""

from __future__ import annotations

import statistics
from typing import Any, Final

import cv2
import numpy as np

from benchmarks.rows import Row, seconds
from kitecore.document.effects import effect_kinds
from kitecore.picture.effects import apply_effects
from kitecore.picture.layer import Layer, moved
from kitecore.ticks import TICKS_PER_SECOND

_RUNS: Final = 7
_AIMS: Final[tuple[tuple[str, float, dict[str, Any]], ...]] = (
    ("shards", 40, {"count": 200}),
    ("ripple", 15, {}),
    ("haze", 15, {}),
    ("colour_split", 15, {}),
    ("sharpen", 15, {}),
    ("threshold", 15, {}),
    ("posterise", 15, {}),
    ("tiles", 15, {}),
    ("outline", 25, {}),
)


def effects() -> list[Row]:
    before = cv2.getNumThreads()
    cv2.setNumThreads(1)
    try:
        return [_row(*one) for one in _AIMS]
    finally:
        cv2.setNumThreads(before)


def _row(kind: str, aim: float, values: dict[str, Any]) -> Row:
    layer = Layer(_picture(cut_out=kind == "outline"), moved(0, 0))
    effect = effect_kinds[kind].model_validate(values)

    def draw() -> None:
        apply_effects(layer, (effect,), TICKS_PER_SECOND)

    draw()
    reached = statistics.median(seconds(draw) for _ in range(_RUNS)) * 1000
    of = "a figure that fills half of it" if kind == "outline" else "a whole picture"
    return Row(
        f"{kind.replace('_', ' ')} of 1080 × 1920",
        f"{reached:.0f} ms",
        f"≤ {aim:.0f} ms",
        f"one thread, {of}{', 200 pieces' if kind == 'shards' else ''}",
        reached <= aim,
    )


def _picture(*, cut_out: bool) -> np.ndarray:
    luck = np.random.default_rng(3)
    rgb = cv2.GaussianBlur(luck.uniform(0, 255, (1920, 1080, 3)).astype(np.float32), (0, 0), 8)
    rgb = np.clip((rgb - 127) * 9 + 127, 0, 255).astype(np.uint8)
    alpha = np.full((1920, 1080), 255, np.uint8)
    if cut_out:
        alpha[:] = 0
        cv2.ellipse(alpha, (540, 960), (420, 780), 0, 0, 360, 255, -1, cv2.LINE_AA)
    return np.dstack([np.minimum(rgb, alpha[..., None]), alpha])
