"""How transitions draw. To add one: a module here for each in `kitecore.document.transitions`."""

from __future__ import annotations

from kitecore.document import TransitionBase
from kitecore.picture.layer import Rgba
from kitecore.picture.transitions._base import transition_drawings
from kitecore.registry import import_all

import_all(__name__)

__all__ = ["cross", "transition_drawings"]


def cross(a: Rgba, b: Rgba, share: float, transition: TransitionBase, density: float) -> Rgba:
    """The picture between ``a``, which goes, and ``b``, which comes.

    Parameters
    ----------
    a, b
        Premultiplied, of one shape.
    share
        Of the way done, 0..1.
    density
        Pixels to one of the project's canvas.
    """
    return transition_drawings[transition.kind](a, b, share, transition, density)
