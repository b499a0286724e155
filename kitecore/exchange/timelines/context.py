"""What all that reads a timeline knows, and what is ours in it."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from typing import Any, Final

import opentimelineio as otio

from kitecore.document import SCHEMA
from kitecore.exchange.timelines.terms import OURS
from kitecore.ticks import Rate

Data = dict[str, Any]
MOST_NAME: Final = 200


@dataclass
class Reading:
    """What all that reads knows, and what it leaves out."""

    rate: Rate
    schema: str = SCHEMA
    muted: bool = False
    """Whether videos are silent, since their sound lies on tracks of its own."""
    left_out: Counter[str] = field(default_factory=Counter)


def told(left_out: Counter[str]) -> Iterator[str]:
    """What was left out, in sentences."""
    for what, times in left_out.most_common():
        yield f"Left out: {what} ({times})." if times > 1 else f"Left out: {what}."


def ours_in(thing: otio.core.SerializableObjectWithMetadata) -> Data:
    found = thing.metadata.get(OURS)
    return _plain(found) if isinstance(found, Mapping) else {}


def _plain(value: Any) -> Any:
    """Metadata as plain data."""
    if isinstance(value, Mapping):
        return {str(name): _plain(one) for name, one in value.items()}
    if isinstance(value, str | int | float | bool) or value is None:
        return value
    return [_plain(one) for one in value]
