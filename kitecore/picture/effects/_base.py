from __future__ import annotations

from collections.abc import Callable
from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

from kitecore.document.properties import Number
from kitecore.motion.plain import number
from kitecore.picture.layer import Layer, Rgba
from kitecore.registry import Registry

Drawing = Callable[[Layer, Any, int], Layer]
"""``draw(layer, effect, tick)``: may grow the layer by the same border on all sides.

The effect comes without keys; ``tick`` counts from the start of the clip.
"""

effect_drawings: Registry[Drawing] = Registry("effect drawing")

At = Callable[[int, int], Layer]
"""``at(tick, lane)``: the layer that an effect was given, at another tick of its clip.

Moments that go on side by side, each in its own lane, are read as fast as the one that is shown.
"""

TimedDrawing = Callable[[Layer, Any, int, At], Layer]
"""``draw(layer, effect, tick, at)``, of an effect that looks at other moments of its layer."""

timed_drawings: Registry[TimedDrawing] = Registry("drawing of an effect of time")

Other = Callable[[Layer], Rgba]
"""``other(layer)``: premultiplied pixels of another layer, as they lie over those of this one."""

PairedDrawing = Callable[[Layer, Any, int, Other], Layer]
"""``draw(layer, effect, tick, other)``, of an effect that reads another layer."""

paired_drawings: Registry[PairedDrawing] = Registry("drawing of an effect that reads another layer")

Through = Callable[[Rgba], Rgba]
"""``through(pixels)``: premultiplied pixels after a table of colours; new ones."""

TabledDrawing = Callable[[Layer, Any, int, Through], Layer]
"""``draw(layer, effect, tick, through)``, of an effect that reads a table."""

tabled_drawings: Registry[TabledDrawing] = Registry("drawing of an effect that reads a table")

Reach = Callable[[Layer, Any], float]
"""``reach(layer, effect)``: pixels from which on nothing counts for a pixel of the result."""

effect_reaches: Registry[Reach] = Registry("reach of an effect")
"""Only of those that do the same everywhere, whatever part of a picture they are given."""


MOST_LENGTH: Final = 2000.0
"""Canvas pixels: a longer reach of an effect counts as that."""


def bounded(prop: Number, low: float, high: float) -> float:
    """A number within what can be drawn."""
    return min(max(number(prop), low), high)


def length_of(prop: Number, layer: Layer, most: float = MOST_LENGTH) -> float:
    """A length in pixels of the layer, within what can be drawn."""
    return bounded(prop, -most, most) * layer.density


def from_middle(layer: Layer) -> tuple[NDArray[np.float32], NDArray[np.float32]]:
    """Places of pixels in canvas pixels from the picture's middle: a row and a column."""
    height, width = layer.pixels.shape[:2]
    x = (np.arange(width, dtype=np.float32) + 0.5 - width / 2) / layer.density
    y = (np.arange(height, dtype=np.float32) + 0.5 - height / 2) / layer.density
    return x[None, :], y[:, None]
