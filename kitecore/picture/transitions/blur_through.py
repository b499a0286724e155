from __future__ import annotations

from kitecore.document.transitions.blur_through import BlurThrough
from kitecore.picture.layer import Rgba
from kitecore.picture.softening import softened
from kitecore.picture.transitions._base import mixed, transition_drawings

_TURN = 0.3
"""Share of the way, around its middle, in which one blurred picture fades into the other."""


@transition_drawings.register("blur_through")
def blur_through(a: Rgba, b: Rgba, share: float, transition: BlurThrough, density: float) -> Rgba:
    sigma = transition.amount * density * (1 - abs(2 * share - 1))
    fade = min(max((share - 0.5) / _TURN + 0.5, 0.0), 1.0)
    if fade <= 0:
        return softened(a, sigma)
    if fade >= 1:
        return softened(b, sigma)
    return softened(mixed(a, b, fade), sigma)
