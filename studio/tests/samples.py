"""Bodies made from the schema of the API itself, so that a new way in is tried without being told."""

from __future__ import annotations

import json
from collections.abc import Iterator
from functools import cache
from typing import Any

from studio.api import api
from studio.tests.site import SECOND

Schema = dict[str, Any]
MARK = "refers to a "
"""Begins the string that stands where a take, a look or a font is named."""


@cache
def whole_schema() -> Schema:
    schema: Schema = json.loads(json.dumps(api.get_openapi_schema(), default=str))
    return schema


def bodies() -> Iterator[tuple[str, str, Schema]]:
    """Method, path and schema of every call that takes a body of JSON."""
    for path, calls in whole_schema()["paths"].items():
        for method, call in calls.items():
            content = call.get("requestBody", {}).get("content", {})
            if "application/json" in content:
                yield method, path, content["application/json"]["schema"]


def leading(schema: Schema, seen: tuple[str, ...] = ()) -> Iterator[Any]:
    """Smallest bodies that name one take, look or font each, one for every place where they can."""
    schema, seen = _followed(schema, seen)
    if "refers" in schema:
        mark = MARK + schema["refers"]
        yield [mark] if schema.get("type") == "array" else mark
    for one in schema.get("oneOf", schema.get("anyOf", ())):
        yield from leading(one, seen)
    for name, inner in schema.get("properties", {}).items():
        for found in leading(inner, seen):
            yield smallest(schema) | {name: found}
    if isinstance(schema.get("items"), dict):
        yield from ([found] for found in leading(schema["items"], seen))


def every(schema: Schema) -> Iterator[Any]:
    """The smallest body, or, of one that holds an edit, the smallest with each kind of edit."""
    plain = smallest(schema)
    inner = _followed(schema, ())[0].get("properties", {})
    for name in ("edit", "edits"):
        told = inner.get(name, {})
        one = told.get("items", told)
        for variant in one.get("oneOf", ()):
            made = smallest(variant)
            yield plain | {name: [made] if "items" in told else made}
    yield plain


def free_fields(schema: Schema, seen: tuple[str, ...] = ()) -> Iterator[str]:
    """Names of fields that may hold anything: what lies in them no schema tells."""
    schema, seen = _followed(schema, seen)
    for inner in schema.get("oneOf", schema.get("anyOf", ())):
        yield from free_fields(inner, seen)
    for name, inner in schema.get("properties", {}).items():
        told = {"type", "$ref", "anyOf", "oneOf", "allOf", "const", "enum"} & set(inner)
        if not told or inner.get("additionalProperties") is True:
            yield f"{schema.get('title')}.{name}"
        yield from free_fields(inner, seen)
    if isinstance(schema.get("items"), dict):
        yield from free_fields(schema["items"], seen)


def smallest(schema: Schema) -> Any:
    """The smallest value that fits; a clip, if one is asked for, is called `c`."""
    schema, _ = _followed(schema, (), most=99)
    if "const" in schema:
        return schema["const"]
    if "enum" in schema:
        # Of the kinds of takes stills fit in most places.
        return "still" if "still" in schema["enum"] else schema["enum"][0]
    if "refers" in schema:
        return ["m"] if schema.get("type") == "array" else "bricolage-grotesque"
    variants = schema.get("oneOf", schema.get("anyOf"))
    if variants:
        return smallest(variants[0])
    return _SMALLEST[schema.get("type", "object")](schema)


def _object(schema: Schema) -> Any:
    wanted = schema.get("required", ())
    inner = schema.get("properties", {})
    told = {name: smallest(one) for name, one in inner.items() if name in wanted or "const" in one}
    return told | ({"length": SECOND} if "length" in told else {})


def _array(schema: Schema) -> Any:
    if "prefixItems" in schema:
        return [smallest(one) for one in schema["prefixItems"]]
    return [smallest(schema["items"])] * max(1, schema.get("minItems", 0))


def _number(schema: Schema) -> Any:
    return max(schema.get("minimum", 0), schema.get("exclusiveMinimum", 0) + 1, 1)


_SMALLEST = {
    "object": _object,
    "array": _array,
    "integer": _number,
    "number": _number,
    "boolean": lambda schema: False,
    "null": lambda schema: None,
    "string": lambda schema: "#112233" if "#" in schema.get("pattern", "") else "c",
}


def _followed(
    schema: Schema, seen: tuple[str, ...], most: int = 1
) -> tuple[Schema, tuple[str, ...]]:
    """What a reference within the schema leads to; nothing where it was gone through before."""
    if len(schema.get("allOf", ())) == 1:
        return _followed(schema["allOf"][0], seen, most)
    if "$ref" not in schema:
        return schema, seen
    name = schema["$ref"].rpartition("/")[2]
    if seen.count(name) >= most:
        return {}, seen
    return whole_schema()["components"]["schemas"][name], (*seen, name)
