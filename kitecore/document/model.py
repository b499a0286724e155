"""What every part of a document is built on."""

from __future__ import annotations

import hashlib
import secrets
from typing import Annotated, Any

from pydantic import BaseModel, ConfigDict, Field


class Model(BaseModel):
    """Immutable, strict about unknown fields. Changed by `model_copy(update=...)`,

    so that two documents share all that is equal, and a comparison by identity is enough.
    """

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)


Tick = Annotated[int, Field(ge=-(2**53), le=2**53, json_schema_extra={"unit": "tick"})]
"""A time in ticks; bounded so that it is exact in a browser's numbers too."""

Start = Annotated[int, Field(ge=0, le=2**53, json_schema_extra={"unit": "tick"})]
Length = Annotated[int, Field(gt=0, le=2**53, json_schema_extra={"unit": "tick"})]
Id = Annotated[str, Field(min_length=1, max_length=40, pattern=r"^[A-Za-z0-9_-]+$")]
Name = Annotated[str, Field(max_length=200)]


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

    ``low`` and ``high`` bound the control, not the value: typing may go beyond. ``bounds`` (``ge``,
    ``gt``, ``le``, ``lt``) bound the value.
    """
    extra = {"unit": unit, "low": low, "high": high, "step": step, "control": control}
    shown: dict[str, Any] = {k: v for k, v in extra.items() if v is not None}
    return Field(default=default, description=help, json_schema_extra=shown, **bounds)  # type: ignore[call-overload]
