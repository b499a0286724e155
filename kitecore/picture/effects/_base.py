from __future__ import annotations

from collections.abc import Callable
from typing import Any

from kitecore.picture.layer import Layer
from kitecore.registry import Registry

Drawing = Callable[[Layer, Any, int], Layer]
"""``draw(layer, effect, tick)``: may grow the layer by the same border on all sides."""

effect_drawings: Registry[Drawing] = Registry("effect drawing")
