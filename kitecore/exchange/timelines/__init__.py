"""Timelines as OpenTimelineIO files (.otio): written whole, and read as far as they go.

What other programs know (tracks, clips, in and out points, gaps, transitions, speed, markers, nesting) is
written in its terms; all of ours stands beside it as metadata and comes back whole.
"""

from kitecore.exchange.timelines.reading import TimelineRead, read_timeline
from kitecore.exchange.timelines.settling import TakenOver, settle
from kitecore.exchange.timelines.terms import MOST_BYTES, Medium
from kitecore.exchange.timelines.writing import write_timeline

__all__ = [
    "MOST_BYTES",
    "Medium",
    "TakenOver",
    "TimelineRead",
    "read_timeline",
    "settle",
    "write_timeline",
]
