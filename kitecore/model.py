"""What every part of a document is built on."""

from __future__ import annotations

import hashlib
import secrets
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Any, Final

from pydantic import BaseModel, ConfigDict, Field, GetCoreSchemaHandler, GetJsonSchemaHandler
from pydantic.json_schema import JsonSchemaValue
from pydantic_core import PydanticCustomError, core_schema

from kitecore.ticks import TICKS_PER_SECOND


class Model(BaseModel):
    """Immutable, strict about unknown fields. Changed by `model_copy(update=...)`,

    so that two documents share all that is equal, and a comparison by identity is enough.
    """

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)


LONGEST: Final = 48 * 3600 * TICKS_PER_SECOND
"""Ticks of the longest timeline and the longest take; far below what a browser's numbers hold."""

Tick = Annotated[int, Field(ge=-LONGEST, le=LONGEST, json_schema_extra={"unit": "tick"})]
"""A time in ticks."""

Start = Annotated[int, Field(ge=0, le=LONGEST, json_schema_extra={"unit": "tick"})]
Length = Annotated[int, Field(gt=0, le=LONGEST, json_schema_extra={"unit": "tick"})]

FARTHEST: Final = 1e6
Real = Annotated[float, Field(ge=-FARTHEST, le=FARTHEST, allow_inf_nan=False)]
"""Any number that has no bounds of its own: never so large that what is drawn of it overflows."""
Id = Annotated[str, Field(min_length=1, max_length=40, pattern=r"^[A-Za-z0-9_-]+$")]
Name = Annotated[str, Field(max_length=200)]


REACH: Final = 10
"""How far beyond its control a value may be set, in widths of the control."""
_LEAST_REACH: Final = {"°": 36_000.0, "px": 20_000.0}
"""What turns and wanders with keys goes farther than its control."""


@dataclass(frozen=True)
class Within:
    """Bounds of a property: of its value, or of that of each of its keys."""

    low: float
    high: float

    def __get_pydantic_core_schema__(
        self, source: Any, handler: GetCoreSchemaHandler
    ) -> core_schema.CoreSchema:
        return core_schema.no_info_after_validator_function(self._checked, handler(source))

    def __get_pydantic_json_schema__(
        self, schema: core_schema.CoreSchema, handler: GetJsonSchemaHandler
    ) -> JsonSchemaValue:
        return handler(schema) | {"least": self.low, "most": self.high}

    def _checked(self, value: Any) -> Any:
        for number in numbers_in(value):
            if not self.low <= number <= self.high:
                told = {"low": self.low, "high": self.high}
                message = "Input should be from {low} to {high}"
                raise PydanticCustomError("within", message, told)  # type: ignore[arg-type]
        return value


def numbers_in(value: Any) -> Iterator[float]:
    """The numbers of a value: itself, those of a point, of all keys of a property."""
    if isinstance(value, int | float):
        yield value
    elif isinstance(value, tuple):
        for one in value:
            yield from numbers_in(one)
    else:
        for key in getattr(value, "keys", ()):
            yield from numbers_in(key.value)


def new_id() -> str:
    """A fresh identifier, 12 characters."""
    return secrets.token_hex(6)


def derived_id(seed: str, number: int) -> str:
    """The ``number``-th identifier that follows from ``seed``: an edit done again makes the same."""
    return hashlib.blake2s(f"{seed}/{number}".encode(), digest_size=6).hexdigest()


def param(
    default: Any,
    *,
    help: str,
    unit: str = "",
    low: float | None = None,
    high: float | None = None,
    step: float | None = None,
    control: str = "slider",
    **bounds: float,
) -> Any:
    """A field that describes itself: benches build their controls from this.

    ``low`` and ``high`` bound the control; typing may go beyond, but not without end: values lie
    within ``ge`` and ``le``, or else within `REACH` times the control's width on either side.
    """
    extra = {"unit": unit, "low": low, "high": high, "step": step, "control": control}
    shown: dict[str, Any] = {k: v for k, v in extra.items() if v is not None}
    field = Field(default=default, description=help, json_schema_extra=shown)
    if low is not None and high is not None:
        reach = max(REACH * (high - low), _LEAST_REACH.get(unit, 0))
        within = Within(bounds.get("ge", low - reach), bounds.get("le", high + reach))
        field.metadata.append(within)
    return field
