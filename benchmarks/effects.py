"""Effects over a full-size frame, one thread; two of them in a preview."""

from __future__ import annotations

import statistics
from typing import Any, Final

import cv2
import numpy as np

from benchmarks.core import Workshop
from benchmarks.rows import Row, seconds, side_by_side
from kitecore.document.effects import Beside, EffectBase, Timed, effect_kinds
from kitecore.picture.effects import apply_effects
from kitecore.picture.layer import Layer, moved
from kitecore.render.pieces import picture_piece
from kitecore.render.sources import Sources
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


def effects(shop: Workshop) -> list[Row]:
    before = cv2.getNumThreads()
    cv2.setNumThreads(1)
    try:
        rows = [_row(*one) for one in _AIMS]
        slowest = sorted(_known(), key=_small, reverse=True)[:2]
    finally:
        cv2.setNumThreads(before)
    return [*rows, _played(shop, slowest)]


def _known() -> list[type[EffectBase]]:
    """Effects that read neither other moments nor other layers."""
    return [one for one in effect_kinds.values() if not issubclass(one, Beside | Timed)]


def _small(kind: type[EffectBase]) -> float:
    """Seconds that one takes as it is at first, on a picture for watching."""
    pixels = cv2.resize(_picture(cut_out=False), (360, 640), interpolation=cv2.INTER_AREA)
    layer, effect = Layer(np.ascontiguousarray(pixels), moved(0, 0), 1 / 3), kind()

    def draw() -> None:
        apply_effects(layer, (effect,), TICKS_PER_SECOND)

    draw()
    return statistics.median(seconds(draw) for _ in range(_RUNS))


def _played(shop: Workshop, kinds: list[type[EffectBase]]) -> Row:
    document = shop.untouched()
    [clip] = document.main.clips
    both = clip.model_copy(update={"effects": tuple(kind(id=kind.__name__) for kind in kinds)})
    document = document.with_track(document.main.with_clips((both,)))

    def play() -> None:
        sources = Sources(shop.find, draft=True)
        for first in range(0, document.frames, 15):
            last = min(first + 15, document.frames)
            picture_piece(document, first, last, (360, 640), sources)
        sources.close()

    play()
    pace = document.length / TICKS_PER_SECOND / side_by_side(3, play)[0]
    names = " and ".join(kind.__name__ for kind in kinds)
    how = f"at 640 px, with proxies, encoding included; the slowest two: {names}"
    return Row("two effects on a take", f"{pace:.1f} × real time", "≥ 1 ×", how, pace >= 1)


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
