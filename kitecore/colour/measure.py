"""What a grade can be led by: a neutral spot, the light of a picture, another picture."""

from __future__ import annotations

from typing import Final

import numpy as np

from kitecore.colour.rgb import Rgb, chroma
from kitecore.colour.transfer import linear_of
from kitecore.colour.white import balance_of
from kitecore.document.grade import Match
from kitecore.oklab import to_lab

MOST_GAIN: Final = 4.0
"""Of a channel, up or down, that a match finds."""
_COLOURLESS: Final = 3.0
"""Per cent of the strongest colour."""
_HUE_ROOM: Final = 24.0
"""Degrees by which a range is wider than the hues of a spot: things are not all of one colour."""
_WEAKER: Final = 0.35
_DARKEST: Final = 1e-4

Statistics = tuple[tuple[float, float, float], tuple[float, float, float]]

_NORM: Final = 6
"""Of the Minkowski mean; 1 would be the plain mean, without bound the brightest pixel."""


def neutral_balance(rgb: Rgb) -> tuple[float, float]:
    """Warmth and tint that make the mean of some coded colours, shape (n, 3), neutral."""
    return balance_of(linear_of(rgb).mean(axis=0))


def suggested_balance(rgb: Rgb) -> tuple[float, float]:
    """Warmth and tint for the light of a picture, coded colours of shape (n, 3).

    Shades of grey (G. Finlayson, E. Trezzi, "Shades of gray and colour constancy", 2004), over what
    is neither crushed nor clipped. Half of what it finds: a picture may well mean its colour.
    """
    usable = rgb[(rgb.min(axis=1) > 0.02) & (rgb.max(axis=1) < 0.98)]
    if len(usable) < 100:
        return 0.0, 0.0
    linear = linear_of(usable)
    light = (linear**_NORM).mean(axis=0) ** (1 / _NORM)
    warmth, tint = balance_of(light)
    return warmth / 2, tint / 2


def range_of_hues(rgb: Rgb) -> dict[str, float] | None:
    """The hues of some coded colours, shape (n, 3), as a range: ``middle``, ``width``, ``weakest``.

    None if they have hardly any colour.
    """
    _, cb, cr = chroma(rgb)
    strength = np.hypot(cb, cr)
    whole = float(strength.mean()) * 200
    if whole < _COLOURLESS:
        return None
    # The mean direction, the stronger colours counting for more, and how far they lie from it.
    middle = float(np.degrees(np.arctan2(cr.sum(), cb.sum())) % 360)
    away = np.abs((np.degrees(np.arctan2(cr, cb)) - middle + 180) % 360 - 180)
    width = 2 * float(np.quantile(away, 0.9)) + _HUE_ROOM
    return {
        "middle": round(middle, 1),
        "width": round(min(width, 180.0), 1),
        "weakest": round(min(whole * _WEAKER, 20.0), 1),
    }


def statistics(rgb: Rgb) -> Statistics:
    """Mean and spread (standard deviation) of L, a and b in OKLab, of coded colours (n, 3)."""
    return _statistics(linear_of(rgb))


def _statistics(light: Rgb) -> Statistics:
    lab = to_lab(light)
    mean, spread = lab.mean(axis=0), lab.std(axis=0)
    return _triple(mean), _triple(spread)


def match_of(own: Rgb, wanted: Rgb, name: str = "") -> Match:
    """The stage that leads one picture's colours to another's, coded colours of shape (n, 3).

    First by gains of the channels, as another white balance or exposure would change them: a change
    that is only that is taken out wholly. Then by what is left of mean and spread.
    """
    light, wanted_light = linear_of(own), linear_of(wanted)
    means = (
        np.maximum(light.mean(axis=0), _DARKEST),
        np.maximum(wanted_light.mean(axis=0), _DARKEST),
    )
    gains = np.clip(means[1] / means[0], 1 / MOST_GAIN, MOST_GAIN)
    (mean, spread), (wanted_mean, wanted_spread) = (
        _statistics(light * gains),
        _statistics(wanted_light),
    )
    return Match(
        gains=_triple(gains),
        own_mean=mean,
        own_spread=spread,
        wanted_mean=wanted_mean,
        wanted_spread=wanted_spread,
        name=name,
    )


def _triple(values: Rgb) -> tuple[float, float, float]:
    a, b, c = np.round(values.astype(float), 5).tolist()
    return a, b, c
