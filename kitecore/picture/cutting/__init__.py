"""Pictures cut out by strokes, by a line around, or by taps on persons: what is meant, how much of
each pixel, and its own colours.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from kitecore.document.cutouts import Cut
from kitecore.picture.cutting.marking import marked_on
from kitecore.picture.cutting.matting import colours_of, matte_of
from kitecore.picture.cutting.selecting import selected
from kitecore.picture.layer import Rgba


@dataclass(frozen=True)
class CutFound:
    """Of a picture made small.

    Attributes
    ----------
    picture
        Its straight colours, 0..1, float32, shape (height, width, 3).
    alpha
        How much of each pixel belongs to what is cut out, 0..1, float32.
    colours
        What is cut out, as it would look alone.
    """

    picture: NDArray[np.float32]
    alpha: NDArray[np.float32]
    colours: NDArray[np.float32]

    @property
    def nbytes(self) -> int:
        return self.picture.nbytes + self.alpha.nbytes + self.colours.nbytes


def cut_found(picture: Rgba, cut: Cut, aspect: float) -> CutFound:
    """What strokes mean on a picture, of whatever size."""
    marked = marked_on(picture, cut, aspect)
    inside = selected(marked.levels, marked.keep, marked.drop, marked.within, marked.likely)
    edge = cut.edge * inside.shape[0]
    alpha = matte_of(marked.picture, inside, marked.keep, marked.drop, edge, marked.hair)
    return CutFound(marked.picture, alpha, colours_of(marked.picture, alpha))
