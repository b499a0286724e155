"""Pictures of PQ and HLG (Rec. ITU-R BT.2100) as they are shown on a screen of standard range.

Both are brought to light as displays give it, bent by the tone curve of Report ITU-R BT.2390-10
(5.4.1, EETF), brought to the primaries of BT.709 and coded for a display of BT.1886. White there is
203 cd/m², reference white of Report ITU-R BT.2408: up to about half of it nothing changes, and what
is brighter is drawn nearer to white instead of being cut off.
"""

from __future__ import annotations

from functools import cache
from typing import Final

import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.media.info import Colours

HDR_TRANSFERS: Final = (16, 18)
"""H.273 numbers of PQ and HLG."""
WHITE: Final = 203.0
PEAK: Final = 1000.0
"""Brightest light, cd/m², of a take that does not tell it; and of HLG's display."""
BRIGHTEST: Final = 10_000.0
_STEPS: Final = 16_384
_GAMMA: Final = 2.4

_M1, _M2 = 2610 / 16384, 2523 / 4096 * 128
_C1, _C2, _C3 = 3424 / 4096, 2413 / 4096 * 32, 2392 / 4096 * 32
_A, _B, _C = 0.17883277, 0.28466892, 0.55991073

_TO_709: Final = np.array(
    [
        [1.660491, -0.587641, -0.072850],
        [-0.124550, 1.132900, -0.008349],
        [-0.018151, -0.100579, 1.118730],
    ],
    np.float32,
)
"""From the primaries of BT.2020 (Report ITU-R BT.2407, 2)."""
_WIDE: Final = 9

Levels = NDArray[np.float64]
Table = NDArray[np.float32]


def pq_light(signal: Levels) -> Levels:
    """Light in cd/m² of a PQ signal 0..1 (BT.2100, table 4)."""
    power = np.clip(signal, 0, 1) ** (1 / _M2)
    return np.asarray(BRIGHTEST * (np.maximum(power - _C1, 0) / (_C2 - _C3 * power)) ** (1 / _M1))


def pq_signal(light: Levels) -> Levels:
    """The PQ signal 0..1 of light in cd/m²."""
    power = (np.clip(light, 0, BRIGHTEST) / BRIGHTEST) ** _M1
    return np.asarray(((_C1 + _C2 * power) / (1 + _C3 * power)) ** _M2)


def hlg_scene(signal: Levels) -> Levels:
    """Light of the scene, 0..1, of an HLG signal 0..1 (BT.2100, table 5)."""
    return np.asarray(
        np.where(signal <= 0.5, signal**2 / 3, (np.exp((signal - _C) / _A) + _B) / 12)
    )


def tone_curve(light: Levels, peak: float) -> Levels:
    """What is shown of light up to ``peak`` on a display of `WHITE`, both in cd/m² (BT.2390 EETF)."""
    top = float(pq_signal(np.array(peak)))
    most = float(pq_signal(np.array(WHITE))) / top
    knee = 1.5 * most - 0.5
    at = np.minimum(pq_signal(light) / top, 1.0)
    t = np.clip((at - knee) / (1 - knee), 0, 1)
    bent = (
        (2 * t**3 - 3 * t**2 + 1) * knee
        + (t**3 - 2 * t**2 + t) * (1 - knee)
        + (-2 * t**3 + 3 * t**2) * most
    )
    return pq_light(np.where(at < knee, at, bent) * top)


def shown_in_sdr(rgb: NDArray[np.uint16], colours: Colours) -> NDArray[np.uint16]:
    """RGB of 16 bits, shape (height, width, 3), in PQ or HLG, as BT.709; a new picture."""
    out = np.empty_like(rgb)
    hlg = colours.transfer == HDR_TRANSFERS[1]
    peak = PEAK if hlg else min(max(colours.peak or PEAK, WHITE * 1.5), BRIGHTEST)
    matrix = _TO_709 if colours.primaries == _WIDE else np.eye(3, dtype=np.float32)
    _convert(rgb, out, _light_of(colours.transfer), _factors(peak), _coded(), matrix, hlg)
    return out


@cache
def _light_of(transfer: int) -> Table:
    """By level of 16 bits: light in cd/m² of PQ, of the scene (0..1) of HLG."""
    signal = np.arange(65536) / 65535
    made = pq_light(signal) if transfer == HDR_TRANSFERS[0] else hlg_scene(signal)
    return np.asarray(made, np.float32)


@cache
def _factors(peak: float) -> Table:
    """By the root of the share of `BRIGHTEST`: what the curve multiplies light with, to be 1 at white."""
    light = (np.arange(_STEPS + 1) / _STEPS) ** 2 * BRIGHTEST
    light[0] = light[1] * 1e-3
    return np.asarray(tone_curve(light, peak) / light / WHITE, np.float32)


@cache
def _coded() -> Table:
    """By the root of light 0..1: the level of 16 bits that a display of BT.1886 gives it for."""
    return np.asarray((np.arange(_STEPS + 1) / _STEPS) ** (2 / _GAMMA) * 65535, np.float32)


@njit(cache=True, nogil=True)
def _between(table: Table, at: np.float32) -> np.float32:
    place = min(max(at, np.float32(0)), np.float32(1)) * np.float32(_STEPS)
    low = min(int(place), _STEPS - 1)
    share = place - np.float32(low)
    return np.float32(table[low] + (table[low + 1] - table[low]) * share)


@njit(cache=True, nogil=True)
def _convert(
    rgb: NDArray[np.uint16],
    out: NDArray[np.uint16],
    lights: Table,
    factors: Table,
    coded: Table,
    matrix: Table,
    hlg: bool,
) -> None:
    height, width, _ = rgb.shape
    for y in range(height):
        for x in range(width):
            r, g, b = lights[rgb[y, x, 0]], lights[rgb[y, x, 1]], lights[rgb[y, x, 2]]
            if hlg:
                # What a display of 1000 cd/m² makes of the scene (BT.2100, table 5, OOTF).
                luma = np.float32(0.2627) * r + np.float32(0.678) * g + np.float32(0.0593) * b
                bright = np.float32(PEAK) * max(luma, np.float32(1e-9)) ** np.float32(0.2)
                r, g, b = r * bright, g * bright, b * bright
            # By the brightest of the three, so that colours keep their hue.
            most = max(r, g, b)
            by = _between(factors, np.sqrt(most / np.float32(BRIGHTEST)))
            r, g, b = r * by, g * by, b * by
            for channel in range(3):
                mixed = matrix[channel, 0] * r + matrix[channel, 1] * g + matrix[channel, 2] * b
                level = _between(coded, np.sqrt(max(mixed, np.float32(0))))
                out[y, x, channel] = np.uint16(level + np.float32(0.5))
