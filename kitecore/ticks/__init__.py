"""Exact time: integer ticks, frame rates, timecode."""

from kitecore.ticks.rate import RATES, TICKS_PER_SECOND, Rate
from kitecore.ticks.span import Span
from kitecore.ticks.timecode import from_timecode, to_timecode

__all__ = ["RATES", "TICKS_PER_SECOND", "Rate", "Span", "from_timecode", "to_timecode"]
