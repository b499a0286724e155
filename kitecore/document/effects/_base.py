from __future__ import annotations

from typing import ClassVar, Final, Literal, TypeVar, get_args

from pydantic import Field

from kitecore.document.properties import Number
from kitecore.document.references import LookName
from kitecore.model import Id, Model, Tick, new_id, param
from kitecore.registry import Registry

E = TypeVar("E", bound="EffectBase")
R = TypeVar("R", bound="Timed")


Family = Literal["soft", "light", "colour", "form", "print", "time"]
"""What effects are listed under: blur, light, colour, shape, line and print, time."""
FAMILIES: Final[tuple[Family, ...]] = get_args(Family)


class EffectBase(Model):
    """What every effect has. The first line of its own docstring is its name and what it does."""

    family: ClassVar[Family]
    keyed: ClassVar[frozenset[str]] = frozenset()
    """Numbers that a drawing gets with their keys: paces, since what they add up to counts (see
    `kitecore.motion.running`), and what tells how far back it looks.
    """
    kind: str
    id: Id = Field(default_factory=new_id)
    on: bool = True
    mix: Number = param(1.0, help="How much of the effect is seen", low=0, high=1, step=0.01)

    def moved(self: E, by: int) -> E:
        """As it is when its clip's start goes ``by`` ticks earlier: what runs, runs on."""
        return self


class Seeded(EffectBase):
    """Drawn by chance that is always the same."""

    seed: int = param(1, help="Another pattern", low=1, high=100, step=1)


class Timed(EffectBase):
    """Looks otherwise from moment to moment; ``since`` is when it began, in ticks of its clip."""

    since: Tick = 0

    @property
    def looks_back(self) -> int:
        """Ticks before a moment up to which its picture may depend on what was seen."""
        return 0

    def moved(self: R, by: int) -> R:
        return self.model_copy(update={"since": self.since + by})


class Running(Seeded, Timed):
    """Changes over time by itself, by chance."""


class Bending(EffectBase):
    """Takes pixels from elsewhere in the picture, which has to go on at its edges somehow."""

    edges: Literal["mirrored", "clear"] = param(
        "mirrored", help="What is seen beyond the edges of the picture", control="choice"
    )


class Beside(EffectBase):
    """Reads another layer, named by its clip's id; without one it does nothing."""

    layer: Id | Literal[""] = param("", help="The layer that is read", control="layer")


class Tabled(EffectBase):
    """Reads a table of colours: a look by its name; without one it does nothing."""

    look: LookName = param("dusk-print", help="The look whose table is read", control="look")


effect_kinds: Registry[type[EffectBase]] = Registry("effect")
