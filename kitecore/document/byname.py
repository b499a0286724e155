"""Models that hold themselves, without a copy of all that can be in them at each place where they may be.

Pydantic works out a model that leads back to itself anew in each that is on the way: tracks hold clips,
and three kinds of clips hold tracks, which took 130 MB and a second of every process.
"""

from __future__ import annotations

from contextvars import ContextVar
from typing import Any

from pydantic import BaseModel, GetCoreSchemaHandler, GetJsonSchemaHandler
from pydantic.json_schema import JsonSchemaValue
from pydantic_core import core_schema

_told: ContextVar[frozenset[type[BaseModel]]] = ContextVar("told", default=frozenset())
"""Models whose JSON schema is being told: within it their name is enough."""


class ByName:
    """``Annotated[M, ByName(M)]``: a model M that is checked by its own validator when a value comes."""

    def __init__(self, model: type[BaseModel]) -> None:
        self._model = model

    def __get_pydantic_core_schema__(
        self, source: Any, handler: GetCoreSchemaHandler
    ) -> core_schema.CoreSchema:
        return core_schema.no_info_plain_validator_function(self._checked)

    def _checked(self, value: Any) -> BaseModel:
        return self._model.model_validate(value)

    def __get_pydantic_json_schema__(
        self, _: core_schema.CoreSchema, handler: GetJsonSchemaHandler
    ) -> JsonSchemaValue:
        whole = self._model.__pydantic_core_schema__
        if self._model in _told.get():
            inner = whole["schema"] if whole["type"] == "definitions" else whole
            return handler(core_schema.definition_reference_schema(inner["ref"]))
        before = _told.set(_told.get() | {self._model})
        try:
            return handler(whole)
        finally:
            _told.reset(before)
