"""Following things through pictures of 540 lines, and covers over all faces of a crowd."""

from __future__ import annotations

import tempfile
from pathlib import Path

from benchmarks.rows import Row, seconds
from kitecore.analysis.tests.crowds import Crowd, Told, uncovered
from kitecore.tracking.follow import follow
from kitecore.tracking.quads import Change
from kitecore.tracking.tests.scenes import Scene

FRAMES = 150
_RATE = 30
_AIM = 4.0
_CROWDS = range(20, 26)
_WALKERS = 4
_CROWD_SIZE = (960, 540)
_NAMES: dict[Change, str] = {"moves": "a point", "turns": "a thing", "leans": "a surface"}


def tracking() -> list[Row]:
    return [*(_row(change) for change in _NAMES), _covers()]


def _row(change: Change) -> Row:
    scene = Scene(change)
    frames = list(scene.frames(FRAMES))
    taken = seconds(lambda: list(follow(frames, scene.quad(0), change)))
    times = FRAMES / _RATE / taken
    how = "540 × 960, 30 a second, a thing of 90 × 120; one way, decoded already"
    return Row(
        f"following {_NAMES[change]}", f"{times:.1f} ×", f"≥ {_AIM:.0f} ×", how, times >= _AIM
    )


def _covers() -> Row:
    told = [_crowd(seed) for seed in _CROWDS]
    seen = sum(one.seen for one in told)
    bare, unsure = sum(len(one.bare) for one in told), sum(one.unsure for one in told)
    return Row(
        "faces of a crowd that are bare though their covers are sure",
        f"{bare}; {unsure / seen:.1%} unsure",
        "0; < 5 % unsure",
        f"of {seen} faces seen in {len(told)} made walks of {_WALKERS} through each other, "
        f"{_CROWD_SIZE[0]} × {_CROWD_SIZE[1]}, {FRAMES} frames",
        bare == 0 and unsure < 0.05 * seen,
    )


def _crowd(seed: int) -> Told:
    crowd = Crowd(seed, _WALKERS, _CROWD_SIZE)
    with tempfile.TemporaryDirectory() as root:
        return uncovered(crowd.filmed(Path(root), FRAMES), crowd, FRAMES)
