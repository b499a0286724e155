"""Document and time to a picture: the one function behind stills, playing and export."""

from __future__ import annotations

import av
import numpy as np
from av.video.reformatter import ColorPrimaries, ColorRange, Colorspace, ColorTrc

from kitecore.document import ClipBase, Document, Pictured, VideoClip
from kitecore.media.pixels import scaled
from kitecore.media.planes import rows_of
from kitecore.motion import value_at
from kitecore.motion.oklab import rgb_of
from kitecore.picture.composite import lay
from kitecore.picture.effects import apply_effects
from kitecore.picture.layer import Rgba, solid
from kitecore.picture.planes import to_planes
from kitecore.render.painters import paint
from kitecore.render.placing import Size, land
from kitecore.render.sources import Sources


def visible_at(document: Document, tick: int) -> list[Pictured]:
    """Clips that show at ``tick``, from the back to the front."""
    tracks = [t for t in document.tracks if t.kind != "sound" and not t.hidden]
    if any(track.solo for track in tracks):
        tracks = [track for track in tracks if track.solo]
    found = []
    for track in tracks:
        clip = clip_at(track.clips, tick)
        if isinstance(clip, Pictured) and value_at(clip.opacity, tick - clip.start) > 0:
            found.append(clip)
    return found


def clip_at(clips: tuple[ClipBase, ...], tick: int) -> ClipBase | None:
    """The clip of an ordered row that covers ``tick``."""
    low, high = 0, len(clips)
    while low < high:
        middle = (low + high) // 2
        if clips[middle].end <= tick:
            low = middle + 1
        else:
            high = middle
    return clips[low] if low < len(clips) and clips[low].start <= tick else None


def render(document: Document, tick: int, size: Size, sources: Sources) -> Rgba:
    """The picture at ``tick``, opaque RGBA, uint8, shape (height, width, 4).

    Parameters
    ----------
    size
        Width and height of the output, of the canvas's shape.
    """
    canvas = solid(*size, rgb_of(document.canvas.colour))
    for clip in visible_at(document, tick):
        local = tick - clip.start
        layer = paint(clip, local, document.canvas, size, sources)
        layer = apply_effects(layer, clip.effects, local)
        lay(canvas, layer, value_at(clip.opacity, local), clip.blend)
    return canvas


def render_planes(document: Document, tick: int, size: Size, sources: Sources) -> av.VideoFrame:
    """The same picture as planes for an encoder: yuv420p, BT.709, limited range.

    Where nothing is done to a video but scaling, its planes go through without a detour by RGB.
    """
    bare = untouched_at(document, tick, sources)
    if bare is not None:
        number = sources.frame_number(bare.media, bare.source_in + tick - bare.start)
        decoded, picture = sources.decoded(bare.media, number, bare.id, size)
        return _tagged(scaled(decoded, picture, size, "yuv420p"))
    pixels = render(document, tick, size, sources)
    frame = av.VideoFrame(size[0], size[1], "yuv420p")
    luma, cb, cr = (rows_of(plane) for plane in frame.planes)
    to_planes(pixels, luma, cb, cr)
    return _tagged(frame)


def untouched_at(document: Document, tick: int, sources: Sources) -> VideoClip | None:
    """The video that alone fills the canvas at ``tick`` as it is, if there is one."""
    visible = visible_at(document, tick)
    clip = visible[-1] if visible else None
    if not isinstance(clip, VideoClip) or clip.effects or clip.blend != "normal":
        return None
    info, local = sources.picture(clip.media), tick - clip.start
    if info.alpha or info.turn or value_at(clip.opacity, local) < 1:
        return None
    canvas = document.canvas
    whole = (canvas.width, canvas.height)
    landing = land(clip.place, local, (info.width, info.height), canvas, whole)
    fills = np.diag([whole[0] / landing.pixels[0], whole[1] / landing.pixels[1], 1.0])
    return clip if np.abs(landing.matrix - fills).max() < 1e-6 else None


def _tagged(frame: av.VideoFrame) -> av.VideoFrame:
    frame.colorspace = Colorspace.ITU709
    frame.color_range = ColorRange.MPEG
    frame.color_primaries = ColorPrimaries.BT709
    frame.color_trc = ColorTrc.BT709
    return frame
