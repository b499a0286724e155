from __future__ import annotations

from kitecore.document.ease import Ease, Steady
from kitecore.model import Length, Model, param
from kitecore.registry import Registry


class TransitionBase(Model):
    """What every transition has: it lies around the join at which its clip begins.

    ``length`` in ticks, an even number of frames, half of it on each side of the join. With ``hold``
    a clip whose source ends too early stands still for the rest.
    """

    kind: str
    length: Length
    ease: Ease = param(Steady(), help="Pace of the change", control="ease")
    hold: bool = False

    @property
    def half(self) -> int:
        return self.length // 2


transition_kinds: Registry[type[TransitionBase]] = Registry("transition")
