"""Following things through pictures of 540 lines."""

from __future__ import annotations

from benchmarks.rows import Row, seconds
from kitecore.tracking.follow import follow
from kitecore.tracking.quads import Change
from kitecore.tracking.tests.scenes import Scene

FRAMES = 150
_RATE = 30
_AIM = 4.0
_NAMES: dict[Change, str] = {"moves": "a point", "turns": "a thing", "leans": "a surface"}


def tracking() -> list[Row]:
    return [_row(change) for change in _NAMES]


def _row(change: Change) -> Row:
    scene = Scene(change)
    frames = list(scene.frames(FRAMES))
    taken = seconds(lambda: list(follow(frames, scene.quad(0), change)))
    times = FRAMES / _RATE / taken
    how = "540 × 960, 30 a second, a thing of 90 × 120; one way, decoded already"
    return Row(
        f"following {_NAMES[change]}", f"{times:.1f} ×", f"≥ {_AIM:.0f} ×", how, times >= _AIM
    )
