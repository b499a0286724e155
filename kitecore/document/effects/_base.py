from __future__ import annotations

from pydantic import Field

from kitecore.document.model import Id, Model, new_id, param
from kitecore.document.properties import Number
from kitecore.registry import Registry


class EffectBase(Model):
    """What every effect has."""

    kind: str
    id: Id = Field(default_factory=new_id)
    on: bool = True
    mix: Number = param(1.0, help="How much of the effect is seen", low=0, high=1, step=0.01)


effect_kinds: Registry[type[EffectBase]] = Registry("effect")
