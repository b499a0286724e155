"""Cut-outs at full size: a stroke on a still, a frame of a take looked at, a frame of it shown."""

from __future__ import annotations

import statistics
from typing import Any, Final

import cv2
import numpy as np

from benchmarks.rows import Row, seconds
from kitecore.document.cutouts import Cut, CutOut
from kitecore.picture.cutting import cut_found
from kitecore.picture.cutting.carrying import begun, carried
from kitecore.picture.cutting.marking import made_small, marked_on
from kitecore.render.cutting import lifted, on_picture

_SIZE: Final = (1080, 1920)
_RUNS: Final = 7
_STROKES: Final[list[dict[str, Any]]] = [
    {"points": [(0.0, -0.15), (0.0, 0.2)], "width": 0.035},
    {"points": [(-0.24, 0.4), (-0.24, -0.4)], "width": 0.025, "drop": True},
]


def cutting() -> list[Row]:
    before = cv2.getNumThreads()
    cv2.setNumThreads(1)
    try:
        return [_still(), _carried(), _shown()]
    finally:
        cv2.setNumThreads(before)


def _picture(shift: int = 0) -> np.ndarray[Any, np.dtype[np.uint8]]:
    """A bright figure with a frayed edge before a darker ground."""
    luck = np.random.default_rng(3)
    soft = cv2.GaussianBlur(luck.uniform(0, 255, (*_SIZE[::-1], 3)).astype(np.float32), (0, 0), 9)
    ground = np.clip((soft - 127) * 6 + (60, 90, 120), 0, 255)
    cover = np.zeros(_SIZE[::-1], np.float32)
    cv2.ellipse(cover, (540 + shift, 1000), (230, 500), 0, 0, 360, 1, -1)
    for angle in np.linspace(0, 2 * np.pi, 200):
        ends = [
            (540 + shift + r * np.cos(angle), 1000 + 2.1 * r * np.sin(angle)) for r in (225, 270)
        ]
        cv2.line(cover, *(tuple(map(int, end)) for end in ends), 1, 3)
    cover = cv2.GaussianBlur(cover, (0, 0), 1.5)[..., None]
    figure = np.clip((soft - 127) * 3 + (210, 150, 110), 0, 255)
    pixels = np.rint(cover * figure + (1 - cover) * ground).astype(np.uint8)
    return np.dstack([pixels, np.full(_SIZE[::-1], 255, np.uint8)])


def _still() -> Row:
    pixels, aspect = _picture(), _SIZE[0] / _SIZE[1]
    smaller = np.asarray(cv2.resize(pixels, (450, 800), interpolation=cv2.INTER_AREA))
    shown = CutOut.model_validate({"strokes": _STROKES, "edge": 0.03})

    def answer() -> None:
        lifted(pixels, cut_found(smaller, shown, aspect), shown)

    answer()
    reached = 1000 * statistics.median(seconds(answer) for _ in range(_RUNS))
    how = "1080 × 1920, a frayed edge: what strokes mean, found anew and shown"
    return Row("a cut-out answers a stroke", f"{reached:.0f} ms", "≤ 300 ms", how, reached <= 300)


def _carried() -> Row:
    cut = Cut.model_validate({"strokes": _STROKES, "edge": 0.03})
    now = begun(marked_on(_picture(), cut, _SIZE[0] / _SIZE[1]), cut.edge)
    frames = [made_small(_picture(4 * n))[0] for n in range(1, _RUNS)]
    times = []
    for frame in frames:
        times.append(1000 * seconds(lambda frame=frame, on=now: carried(on, frame, cut.edge)))  # type: ignore[misc]
        now, _ = carried(now, frame, cut.edge)
    reached = statistics.median(times)
    how = "a frame of a take to the next, by strokes; without decoding"
    return Row("a cut-out carried on", f"{reached:.0f} ms a frame", "–", how, True)


def _shown() -> Row:
    pixels = np.asarray(cv2.resize(_picture(), (360, 640), interpolation=cv2.INTER_AREA))
    shown = CutOut.model_validate({"strokes": _STROKES, "edge": 0.03})
    alpha = cut_found(pixels, shown, _SIZE[0] / _SIZE[1]).alpha

    def show() -> None:
        lifted(pixels, on_picture(pixels, alpha), shown)

    show()
    reached = 1000 * statistics.median(seconds(show) for _ in range(_RUNS))
    how = "360 × 640, as when it plays; without decoding"
    return Row("a frame of a cut-out take", f"{reached:.1f} ms", "≤ 25 ms", how, reached <= 25)
