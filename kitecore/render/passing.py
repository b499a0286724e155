"""Whether a video passes as it is: the one place that decides it, for planes and for 10 bits alike."""

from __future__ import annotations

import numpy as np

from kitecore.document import Document, VideoClip
from kitecore.motion import value_at
from kitecore.motion.posing import pose_at
from kitecore.render.layering import is_plain
from kitecore.render.painters.video import mixes
from kitecore.render.placing import land
from kitecore.render.showing import showing_at
from kitecore.render.sources import Sources


def covering_at(document: Document, tick: int, sources: Sources) -> VideoClip | None:
    """The video that alone fills the canvas at ``tick``, with no more done to it than a grade."""
    showing = showing_at(document.tracks, tick)
    clip = showing[-1] if showing else None
    if isinstance(clip, VideoClip) and fills_canvas(clip, document, tick, sources):
        return clip
    return None


def fills_canvas(clip: VideoClip, document: Document, tick: int, sources: Sources) -> bool:
    """Whether a video covers the canvas, straight and opaque, with nothing done but a grade."""
    if not is_plain(clip) or clip.blend != "normal":
        return False
    info, local = sources.picture(clip.media), tick - clip.start
    if mixes(clip, local, document.rate.exact.frame_ticks, sources):
        return False
    if info.alpha or info.turn or info.mirrored or value_at(clip.opacity, local) < 1:
        return False
    canvas = document.canvas
    whole = (canvas.width, canvas.height)
    pose = pose_at(clip, local, whole)
    landing = land(clip.place, pose, (info.width, info.height), whole, np.eye(3))
    fills = np.diag([whole[0] / landing.pixels[0], whole[1] / landing.pixels[1], 1.0])
    return bool(np.abs(landing.matrix - fills).max() < 1e-6)
