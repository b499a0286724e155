from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Protocol

from kitecore.colour.cube import FindLook
from kitecore.colour.rgb import Rgb
from kitecore.registry import Registry


class Apply(Protocol):
    def __call__(self, rgb: Rgb, stage: Any, find: FindLook, /) -> Rgb: ...


@dataclass(frozen=True)
class StageRule:
    """``apply(rgb, settings, find)`` gives new colours of the same shape and precision.

    ``linear``: it works on amounts of light (see `kitecore.colour.transfer`), not on coded values.
    """

    apply: Apply
    linear: bool = False


stage_rules: Registry[StageRule] = Registry("stage of a grade")


def stage(name: str, *, linear: bool = False) -> Callable[[Apply], Apply]:
    """Decorator: register the function of a stage."""

    def keep(apply: Apply) -> Apply:
        stage_rules.register(name)(StageRule(apply, linear))
        return apply

    return keep
