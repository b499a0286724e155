"""Camera codings, and how each becomes a picture for the screen.

Every one goes to scene light in ACES2065-1 and from there to BT.709 by the ACES output transform
for video of 100 nits (SMPTE ST 2065-1; ACES 1.0). The formulas are OpenColorIO's built-in ones.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from typing import Any

import numpy as np

from kitecore.colour.rgb import Rgb
from kitecore.registry import Registry

_TO_SCREEN = (
    "ACES-OUTPUT - ACES2065-1_to_CIE-XYZ-D65 - SDR-VIDEO_1.0",
    "DISPLAY - CIE-XYZ-D65_to_REC.1886-REC.709",
)


@dataclass(frozen=True)
class InputTransform:
    """``builtin`` is the name of OpenColorIO's transform from the coding to ACES2065-1."""

    label: str
    builtin: str

    def apply(self, rgb: Rgb) -> Rgb:
        """Coded values 0..1 as colours for the screen; same shape and precision."""
        from PyOpenColorIO import PackedImageDesc  # slow to load

        pixels = np.array(rgb, np.float32, order="C").reshape(-1, 3)
        _processor(self.builtin).apply(PackedImageDesc(pixels, len(pixels), 1, 3))
        return pixels.reshape(rgb.shape).astype(rgb.dtype)


@cache
def _processor(builtin: str) -> Any:
    import PyOpenColorIO as OCIO  # noqa: N814  # slow to load

    steps = [OCIO.BuiltinTransform(name) for name in (builtin, *_TO_SCREEN)]
    processor = OCIO.Config.CreateRaw().getProcessor(OCIO.GroupTransform(steps))
    return processor.getDefaultCPUProcessor()


transforms: Registry[InputTransform] = Registry("camera coding")

for _name, _label, _builtin in (
    ("acescct", "ACEScct log", "ACEScct_to_ACES2065-1"),
    ("acescc", "ACEScc log", "ACEScc_to_ACES2065-1"),
    ("adx10", "Film density (ADX10)", "ADX10_to_ACES2065-1"),
    ("logc3", "LogC3, wide gamut 3", "ARRI_ALEXA-LOGC-EI800-AWG_to_ACES2065-1"),
    ("logc4", "LogC4, wide gamut 4", "ARRI_LOGC4_to_ACES2065-1"),
    ("clog2", "C-Log2, cinema gamut", "CANON_CLOG2-CGAMUT_to_ACES2065-1"),
    ("clog3", "C-Log3, cinema gamut", "CANON_CLOG3-CGAMUT_to_ACES2065-1"),
    ("vlog", "V-Log, V-Gamut", "PANASONIC_VLOG-VGAMUT_to_ACES2065-1"),
    ("log3g10", "Log3G10, wide gamut", "RED_LOG3G10-RWG_to_ACES2065-1"),
    ("slog3", "S-Log3, S-Gamut3", "SONY_SLOG3-SGAMUT3_to_ACES2065-1"),
    ("slog3-cine", "S-Log3, S-Gamut3.Cine", "SONY_SLOG3-SGAMUT3.CINE_to_ACES2065-1"),
    ("phone-log", "Phone log, BT.2020", "APPLE_LOG_to_ACES2065-1"),
):
    transforms.register(_name)(InputTransform(_label, _builtin))
