"""Where a layer is at one moment, by its place and all that moves it by itself."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

from kitecore.document.properties import Vector


@dataclass(frozen=True)
class Away:
    """A difference from a layer's own place.

    ``shift`` in canvas pixels, ``turn`` and ``lean`` in degrees are added; ``size`` and ``opacity``
    are factors.
    """

    shift: Vector = (0.0, 0.0)
    size: Vector = (1.0, 1.0)
    turn: float = 0.0
    lean: float = 0.0
    opacity: float = 1.0

    def scaled(self, share: float) -> Away:
        """A share of it; 0 is none, beyond 1 more than all of it."""
        return Away(
            (self.shift[0] * share, self.shift[1] * share),
            (1 + (self.size[0] - 1) * share, 1 + (self.size[1] - 1) * share),
            self.turn * share,
            self.lean * share,
            min(max(1 + (self.opacity - 1) * share, 0.0), 1.0),
        )

    def with_shift(self, shift: Vector) -> Away:
        return replace(self, shift=shift)


@dataclass(frozen=True)
class Pose:
    """A layer's place at a moment; as in `kitecore.document.Place`, without keys."""

    position: Vector = (0.0, 0.0)
    size: Vector = (1.0, 1.0)
    pivot: Vector = (0.0, 0.0)
    turn: float = 0.0
    lean: float = 0.0
    opacity: float = 1.0

    def moved(self, away: Away) -> Pose:
        """With a difference put on it."""
        (x, y), (dx, dy) = self.position, away.shift
        across, down = self.size
        # A lean of 90 degrees would tear the picture apart.
        lean = math.copysign(min(abs(self.lean + away.lean), 85.0), self.lean + away.lean)
        return Pose(
            (x + dx, y + dy),
            (across * away.size[0], down * away.size[1]),
            self.pivot,
            self.turn + away.turn,
            lean if away.lean else self.lean,
            self.opacity * away.opacity,
        )
