"""How far what tracks show reaches beyond the canvas."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from kitecore.document import AdjustmentClip, Pictured, Track
from kitecore.picture.leaning import on_plane
from kitecore.render.compose import affected
from kitecore.render.placing import Area
from kitecore.render.showing import Crossing, showing_at
from kitecore.render.stage import Stage


def reach(tracks: tuple[Track, ...], tick: int, stage: Stage) -> Area:
    """Canvas pixels beyond the canvas, left or right and above or below, in which something lies.

    Parameters
    ----------
    stage
        A small, outlined output will do: nothing is laid on it.
    """
    stage = replace(stage, tracks=tracks)
    far = np.zeros(2)
    for showing in showing_at(tracks, tick):
        both = [showing.before, showing.after] if isinstance(showing, Crossing) else [showing]
        for clip in both:
            if not isinstance(clip, AdjustmentClip) and clip.cell is None:
                far = np.maximum(far, _beyond(clip, tick - clip.start, stage))
    return float(far[0]), float(far[1])


def _beyond(clip: Pictured, local: int, stage: Stage) -> np.ndarray:
    layer = affected(clip, local, stage)
    spots = on_plane(np.linalg.inv(stage.onto) @ layer.matrix, layer.corners)
    sides = np.array([[stage.canvas.width], [stage.canvas.height]])
    return np.asarray(np.maximum(-spots, spots - sides).max(axis=1).clip(0))
