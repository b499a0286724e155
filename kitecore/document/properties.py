"""Properties: a value, or keys over time. Read by `kitecore.motion.value_at` alone."""

from __future__ import annotations

from collections.abc import Callable
from itertools import pairwise
from typing import Annotated, Any, ClassVar, Final, Generic, TypeVar

from pydantic import AfterValidator, Field, field_validator
from pydantic.fields import FieldInfo

from kitecore.document.ease import Ease, Steady
from kitecore.document.fields import classes_in, leading
from kitecore.model import Model, Real, Tick

T = TypeVar("T")
M = TypeVar("M", bound=Model)


MOST_KEYS: Final = 10_000
"""Of one property."""


class Key(Model, Generic[T]):
    """``value`` at a tick counted from the start of the clip, and the way to the next key."""

    at: Tick
    value: T
    ease: Ease = Steady()


class Keys(Model, Generic[T]):
    """At least one key, in order of time, no two at the same tick.

    Of values that are ``held`` nothing lies between two: each stands until the next key.
    """

    held: ClassVar[bool] = False
    keys: tuple[Key[T], ...] = Field(min_length=1, max_length=MOST_KEYS)

    @field_validator("keys")
    @classmethod
    def _in_order(cls, keys: tuple[Key[T], ...]) -> tuple[Key[T], ...]:
        if any(a.at >= b.at for a, b in pairwise(keys)):
            raise ValueError("keys are in order of time, no two at the same moment")
        return keys

    def moved(self, by: int) -> Keys[T]:
        keys = tuple(key.model_copy(update={"at": key.at + by}) for key in self.keys)
        return self.model_copy(update={"keys": keys})


Vector = tuple[Real, Real]
Vector3 = tuple[Real, Real, Real]


def _rising(points: tuple[Vector, ...]) -> tuple[Vector, ...]:
    if any(a[0] >= b[0] for a, b in pairwise(points)):
        raise ValueError("the points of a curve go from left to right")
    return points


CurvePoints = Annotated[
    tuple[Vector, ...], Field(min_length=1, max_length=24), AfterValidator(_rising)
]
"""Points (x, y) of a curve, from left to right."""

Hex = Annotated[str, Field(pattern=r"^#[0-9a-f]{6}$")]


class NumberKeys(Keys[Real]):
    pass


class SpotKey(Key[Vector]):
    """A point on a path: its handles ``before`` and ``after`` count from it.

    Where both handles of a stretch are nothing, it is straight.
    """

    before: Vector = (0.0, 0.0)
    after: Vector = (0.0, 0.0)


class PointKeys(Keys[Vector]):
    keys: tuple[SpotKey, ...] = Field(min_length=1, max_length=MOST_KEYS)


class Axes(Model):
    """A point whose two numbers have keys of their own. One without any is a plain point."""

    across: Real | NumberKeys
    down: Real | NumberKeys


class ColourKeys(Keys[Hex]):
    pass


class TripleKeys(Keys[Vector3]):
    pass


class CurveKeys(Keys[CurvePoints]):
    pass


Lattice = Annotated[tuple[Vector, ...], Field(min_length=1, max_length=625)]
"""Points of a grid, row by row."""


class LatticeKeys(Keys[Lattice]):
    pass


Number = Real | NumberKeys


def extremes(prop: Number) -> tuple[float, float]:
    """The least and the greatest of what a number has keys for; eased it may go beyond."""
    if not isinstance(prop, Keys):
        return prop, prop
    values = [key.value for key in prop.keys]
    return min(values), max(values)


def plain_point(point: Any) -> Any:
    """Axes that have lost their keys are a point; anything else is returned as it is."""
    if not isinstance(point, Axes) or has_keys(point):
        return point
    return point.across, point.down


def has_keys(prop: Any) -> bool:
    """Whether a property moves by keys."""
    if isinstance(prop, Axes):
        return isinstance(prop.across, Keys) or isinstance(prop.down, Keys)
    return isinstance(prop, Keys)


Point = Annotated[Vector | PointKeys | Axes, AfterValidator(plain_point)]
Colour = Hex | ColourKeys
Triple = Vector3 | TripleKeys
Curve = CurvePoints | CurveKeys
Offsets = Lattice | LatticeKeys


def map_keys(model: M, change: Callable[[Keys[Any]], Any], but: frozenset[str] = frozenset()) -> M:
    """A copy of ``model`` in which ``change`` was applied to every keyed property, however deep.

    What it returns stands in place of the keys. Fields of the model named in ``but`` stay as they
    are. Returns the same object where there are none.
    """
    update: dict[str, Any] = {}
    for name in leading(type(model), may_have_keys):
        if name in but:
            continue
        old = getattr(model, name)
        new = _map_value(old, change)
        if new is not old:
            update[name] = new
    return model.model_copy(update=update) if update else model


def fields_with_keys(model: Model) -> frozenset[str]:
    """Which fields of a model move by keys, however deep."""
    names = leading(type(model), may_have_keys)
    return frozenset(name for name in names if _keys_within(getattr(model, name)))


def keys_in(model: Model) -> list[Keys[Any]]:
    """Every keyed property of a model, however deep."""
    names = leading(type(model), may_have_keys)
    return [keys for name in names for keys in _keys_within(getattr(model, name))]


def _keys_within(value: Any) -> list[Keys[Any]]:
    if isinstance(value, Keys):
        return [value]
    if isinstance(value, Model):
        return keys_in(value)
    if isinstance(value, tuple):
        return [keys for item in value for keys in _keys_within(item)]
    return []


def may_have_keys(field: FieldInfo) -> bool:
    """Whether a field of a model can move by keys."""
    return any(issubclass(one, Keys) for one in classes_in(field.annotation))


def _map_value(value: Any, change: Callable[[Keys[Any]], Any]) -> Any:
    if isinstance(value, Keys):
        return change(value)
    if isinstance(value, Model):
        return plain_point(map_keys(value, change))
    if isinstance(value, tuple):
        mapped = tuple(_map_value(item, change) for item in value)
        return mapped if any(a is not b for a, b in zip(mapped, value, strict=True)) else value
    return value
