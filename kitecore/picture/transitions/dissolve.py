from __future__ import annotations

from kitecore.document.transitions.dissolve import Dissolve
from kitecore.picture.layer import Rgba
from kitecore.picture.transitions._base import mixed, transition_drawings


@transition_drawings.register("dissolve")
def dissolve(a: Rgba, b: Rgba, share: float, transition: Dissolve, density: float) -> Rgba:
    return mixed(a, b, share)
