"""Strokes on a full-size frame, going along with what is followed."""

from __future__ import annotations

import statistics
import tempfile
from pathlib import Path
from typing import Any, Final

import av
import cv2
import numpy as np

from benchmarks.rows import Row, seconds
from kitecore.document import VideoClip
from kitecore.document.clips import Retouchable
from kitecore.media.folder import MediaFolder
from kitecore.media.tests.material import ingested, make_video
from kitecore.render.mending import Mending
from kitecore.render.retouching import retouched
from kitecore.render.sources import Sources
from kitecore.ticks import TICKS_PER_SECOND

_SIZE: Final = (1080, 1920)
_FRAMES: Final = 24
_AIM: Final = 10.0
_MOST: Final = 25.0
_KINDS: Final = (
    *(("heal_stroke", 0.02),) * 5,
    *(("clone_stroke", 0.03),) * 2,
    ("soften_stroke", 0.05),
    ("light_stroke", 0.06),
    ("fill_stroke", 0.03),
)


def retouching() -> list[Row]:
    with tempfile.TemporaryDirectory() as folder:
        root = Path(folder)
        length = _filmed(root)
        return [_ten_strokes(root, length), _from_moments(root, length)]


def _filmed(root: Path) -> int:
    """A take that wanders over a ground; its length."""
    luck = np.random.default_rng(4)
    ground = cv2.GaussianBlur(luck.uniform(0, 255, (2100, 1300, 3)).astype(np.float32), (0, 0), 6)
    ground = np.clip((ground - 127) * 8 + 127, 0, 255).astype(np.uint8)

    def draw(number: int) -> av.VideoFrame:
        shot = np.ascontiguousarray(ground[2 * number :][:1920, 3 * number :][:, :1080])
        return av.VideoFrame.from_ndarray(shot, format="rgb24")

    path = make_video(
        root / "x.mp4", frames=_FRAMES, size=_SIZE, options={"preset": "ultrafast"}, draw=draw
    )
    return ingested(root, "take", path).info.length


def _ten_strokes(root: Path, length: int) -> Row:
    times = _mended(root, _clip(length, _strokes()))
    reached = statistics.median(times[3:])
    how = (
        "1080 × 1920: five healed, two cloned, one each softened, lightened and filled, of 2 to 6 %"
    )
    good = reached <= _MOST
    return Row(
        "ten tracked strokes", f"{reached:.1f} ms", f"≤ {_MOST:.0f} ms ({_AIM:.0f})", how, good
    )


def _from_moments(root: Path, length: int) -> Row:
    """Something thin that goes along before a ground that is taken to stand still."""
    stroke = {"kind": "fill_stroke", "taken_from": "moments", "width": 0.02, "tracker": "t"}
    points = [(-0.02, -0.1), (0.02, 0.1)]
    times = _mended(root, _clip(length, [{**stroke, "points": points}]))
    how = f"1080 × 1920, a stroke of a fifth of its height; {times[0] / 1000:.1f} s once, to put it together"
    reached = statistics.median(times[3:])
    return Row("a hole filled from other moments", f"{reached:.1f} ms a frame", "–", how, True)


def _mended(root: Path, clip: Retouchable) -> list[float]:
    """Milliseconds for the strokes of each frame."""
    sources = Sources(lambda media: MediaFolder(root / media))
    step = TICKS_PER_SECOND // 30
    times: list[float] = []
    mended = 0.0
    for number in range(_FRAMES):
        mending = Mending(clip, "take", sources, _SIZE, number * step, "clip")
        pixels = mending.taken()
        taken = seconds(lambda now=pixels, on=mending: retouched(now, on))  # type: ignore[misc]
        times.append(1000 * taken)
        mended = float(np.abs(retouched(pixels, mending).astype(int) - pixels).mean())
    sources.close()
    assert mended > 0
    return times


def _clip(length: int, strokes: list[dict[str, Any]]) -> Retouchable:
    """Strokes of a video, with a tracker ``t`` of what lies in its middle."""
    corners = [(-0.1, -0.1), (0.1, -0.1), (0.1, 0.1), (-0.1, 0.1)]
    tracker = {"id": "t", "views": [{"at": 0, "corners": corners}], "first": 0, "last": length - 1}
    facts = {"kind": "video", "media": "take", "length": length, "source_length": length}
    return VideoClip.model_validate({**facts, "trackers": [tracker], "strokes": strokes})


def _strokes() -> list[dict[str, Any]]:
    places = [(0.08 * (n % 5) - 0.16, 0.2 * (n // 5) - 0.1) for n in range(10)]
    return [
        {"kind": kind, "width": width, "points": [(x, y), (x + 0.01, y)], "tracker": "t"}
        for (kind, width), (x, y) in zip(_KINDS, places, strict=True)
    ]
