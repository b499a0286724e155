"""When a file says that it was recorded."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from datetime import datetime
from fractions import Fraction

from av.container import InputContainer

from kitecore.errors import BadInput
from kitecore.media.info import Clock
from kitecore.ticks import RATES, TICKS_PER_SECOND, Rate
from kitecore.ticks.timecode import from_timecode


def clock_of(container: InputContainer, pace: Fraction | None) -> Clock:
    """The timecode of its first frame, and the date it was made, as far as the file has them.

    Parameters
    ----------
    pace
        Pictures a second, by which timecode counts; none for sound.
    """
    tags = [container.metadata, *(stream.metadata for stream in container.streams)]
    return Clock(
        timecode=_timecode(_first(tags, "timecode"), pace) or _samples(tags, container),
        made_at=_date(_first(tags, "creation_time")),
    )


def _first(tags: Iterable[Mapping[str, str]], name: str) -> str:
    return next((one[name] for one in tags if one.get(name)), "")


def _timecode(text: str, pace: Fraction | None) -> int | None:
    if not text or not pace:
        return None
    rate = min(RATES, key=lambda one: abs(one.fraction - pace))
    if abs(rate.fraction - pace) > 1:
        rate = Rate(round(pace), 1)
    try:
        return rate.start_of(from_timecode(text, rate))
    except BadInput:
        return None


def _samples(tags: Iterable[Mapping[str, str]], container: InputContainer) -> int | None:
    """Broadcast Wave counts samples since midnight (EBU Tech 3285)."""
    text = _first(tags, "time_reference")
    if not text.isdigit() or not container.streams.audio:
        return None
    return int(text) * TICKS_PER_SECOND // (container.streams.audio[0].rate or 48_000)


def _date(text: str) -> float | None:
    try:
        return datetime.fromisoformat(text.replace("Z", "+00:00")).timestamp()
    except ValueError:
        return None
