"""Motion of a layer besides its keys: ready-made ones, what it follows, its blur."""

from __future__ import annotations

from typing import Literal

from pydantic import Field, field_validator

from kitecore.document.ease import Ease
from kitecore.document.properties import Number, Vector
from kitecore.model import Id, Length, Model, Real, Start, Tick, new_id, param
from kitecore.ticks import TICKS_PER_SECOND

EntranceKind = Literal["rise", "drop", "slide", "pop", "fade", "spin", "unfold", "squash"]
Unit = Literal["whole", "letter", "word", "line"]
MeanwhileKind = Literal["sway", "float", "pulse", "flicker"]
Inherited = Literal["position", "turn", "size"]
MOST_MEANWHILE = 8
SQUASHED = 0.2
"""By what share of its size a layer that comes in squashed is wider and lower, at full strength."""


class Entrance(Model):
    """How a layer comes in; read backwards, how it goes out.

    ``ease`` is its pace; without one it has the pace of its kind. A text may come in by ``unit``;
    ``later`` is the share of the length by which the last of them begins after the first.
    """

    kind: EntranceKind = "rise"
    length: Length = 3 * TICKS_PER_SECOND // 5
    strength: float = param(1.0, help="How far it goes", low=0, high=3, step=0.05, ge=-10, le=10)
    side: Literal["left", "right", "top", "bottom"] = param(
        "left", help="The side it comes from", control="choice"
    )
    ease: Ease | None = None
    unit: Unit = "whole"
    later: float = param(
        0.7, help="One after the other, or almost together", low=0, high=0.95, step=0.05, ge=0, le=1
    )


class Meanwhile(Model):
    """A motion that goes on all the time; ``since`` is when it began, in ticks of its clip."""

    id: Id = Field(default_factory=new_id)
    kind: MeanwhileKind = "sway"
    rate: float = param(0.5, help="How often", unit="Hz", low=0.05, high=20, step=0.05, gt=0, le=60)
    strength: Number = param(1.0, help="How much", low=0, high=3, step=0.05)
    seed: int = param(1, help="Another pattern", low=1, high=100, step=1)
    since: Tick = 0


class Rest(Model):
    """How a layer lay when another began to follow it: its pivot's place, its size and turn."""

    position: Vector = (0.0, 0.0)
    size: Vector = (1.0, 1.0)
    turn: Real = 0.0
    lean: Real = 0.0


class Follow(Model):
    """Goes along with another layer, by what changed there since it lay as ``rest`` says.

    With a ``tracker`` of that layer, also with what that follows, from where it was at ``since``, a
    tick of its file.
    """

    clip: Id
    tracker: Id | None = None
    since: Start = 0
    inherits: tuple[Inherited, ...] = Field(default=("position", "turn", "size"), max_length=8)
    rest: Rest = Rest()


class Moves(Model):
    """``shutter`` is the angle of a shutter (degrees): how long each frame is exposed; 360 is all
    of its time. ``along``: the layer turns with the path that its position follows.
    """

    comes: Entrance | None = None
    goes: Entrance | None = None
    meanwhile: tuple[Meanwhile, ...] = Field(default=(), max_length=MOST_MEANWHILE)
    follow: Follow | None = None
    along: bool = False
    shutter: Number = param(
        0.0, help="Blurs what moves, as a shutter would", unit="°", low=0, high=360, step=5
    )

    @field_validator("meanwhile")
    @classmethod
    def _distinct(cls, given: tuple[Meanwhile, ...]) -> tuple[Meanwhile, ...]:
        if len({one.id for one in given}) < len(given):
            raise ValueError("two motions have the same id")
        return given

    @property
    def at_rest(self) -> bool:
        """Whether they leave the layer as its own properties put it."""
        some = self.comes or self.goes or self.meanwhile or self.follow or self.along
        return not some and self.shutter == 0

    def moved(self, by: int) -> Moves:
        """As they are when their clip's start goes ``by`` ticks earlier: what runs, runs on."""
        if not self.meanwhile:
            return self
        meanwhile = tuple(m.model_copy(update={"since": m.since + by}) for m in self.meanwhile)
        return self.model_copy(update={"meanwhile": meanwhile})
