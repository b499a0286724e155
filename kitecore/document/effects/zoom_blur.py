from __future__ import annotations

from typing import ClassVar, Literal

from kitecore.document.effects._base import EffectBase, Family, effect_kinds
from kitecore.document.properties import Number, Point
from kitecore.model import param


@effect_kinds.register("zoom_blur")
class ZoomBlur(EffectBase):
    """Zoom blur: smeared away from a point."""

    family: ClassVar[Family] = "soft"
    kind: Literal["zoom_blur"] = "zoom_blur"
    amount: Number = param(20.0, help="How far it is smeared", unit="%", low=0, high=80, step=0.5)
    centre: Point = param(
        (0.0, 0.0),
        help="Point it starts from",
        unit="px",
        low=-1000,
        high=1000,
        step=1,
        control="spot",
        ge=-4000,
        le=4000,
    )
