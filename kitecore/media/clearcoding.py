"""RGB with alpha, or with whole chroma, to the planes that encoders want."""

from __future__ import annotations

from typing import Final

import av
import numpy as np
from numpy.typing import NDArray

from kitecore.bt709 import CB_SPAN, CR_SPAN, KB, KG, KR
from kitecore.media.coding import Rgba, to_planes
from kitecore.media.planes import rows_of

_WEIGHTS: Final = np.array([KR, KG, KB], np.float32)


def coded_clear(pixels: Rgba) -> av.VideoFrame:
    """Straight RGBA, both sides even, as yuva420p: BT.709 in limited range, alpha in full."""
    height, width = pixels.shape[:2]
    frame = av.VideoFrame(width, height, "yuva420p")
    luma, cb, cr, alpha = (rows_of(plane) for plane in frame.planes)
    to_planes(np.ascontiguousarray(pixels), luma, cb, cr)
    alpha[:, :width] = pixels[..., 3]
    return frame


def coded_clear_deep(pixels: NDArray[np.uint16]) -> av.VideoFrame:
    """Straight RGBA of 16 bits as yuva444p10le: BT.709 in limited range, alpha in full."""
    frame = _coded_whole(pixels[..., :3].astype(np.float32) / np.float32(65535), "yuva444p10le")
    alpha = rows_of(frame.planes[3]).view(np.uint16)
    alpha[:, : frame.width] = np.rint(pixels[..., 3] * np.float32(1023 / 65535))
    return frame


def coded_whole_deep(pixels: NDArray[np.uint16]) -> av.VideoFrame:
    """RGB of 16 bits as yuv444p10le: BT.709 in limited range."""
    return _coded_whole(pixels.astype(np.float32) / np.float32(65535), "yuv444p10le")


def _coded_whole(rgb: NDArray[np.float32], pixels: str) -> av.VideoFrame:
    """RGB from 0 to 1 as planes of 10 bits that are all of one size."""
    height, width = rgb.shape[:2]
    frame = av.VideoFrame(width, height, pixels)
    planes = [rows_of(plane).view(np.uint16)[:, :width] for plane in frame.planes]
    light = rgb @ _WEIGHTS
    planes[0][:] = np.rint(64 + 876 * light)
    planes[1][:] = np.rint(512 + 896 / CB_SPAN * (rgb[..., 2] - light))
    planes[2][:] = np.rint(512 + 896 / CR_SPAN * (rgb[..., 0] - light))
    return frame
