"""When each frame of a video is shown."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction
from pathlib import Path

import av
import numpy as np
from av.container import InputContainer
from av.video.stream import VideoStream
from numpy.typing import NDArray

from kitecore.errors import BrokenMedia
from kitecore.media.container import opened, origin_of, picture_stream, to_ticks
from kitecore.ticks import TICKS_PER_SECOND, Rate

COARSE = Fraction(1, 10_000)
"""Time bases coarser than this round their frame times; those are put back on the grid."""

UNTOLD = {"avi"}
"""Formats that tell no times of showing, so that FFmpeg guesses them."""
LONGEST_LAST = 10 * TICKS_PER_SECOND
"""A last frame is taken to be shown so long at most, whatever the file says about its end."""


@dataclass(frozen=True)
class FrameIndex:
    """Frames in order of showing.

    Attributes
    ----------
    times
        int64, ticks from the start of the file, rising.
    pts
        int64, the same moments in units of the stream's time base, as packets carry them.
    keys
        bool, whether decoding can start there.
    end
        Tick at which the last frame ends.
    counted
        Whether only the order of packets can be relied on, not their times: ``pts`` are then times of
        decoding, and frames are counted from a key on.
    """

    times: NDArray[np.int64]
    pts: NDArray[np.int64]
    keys: NDArray[np.bool_]
    end: int
    counted: bool = False

    def __len__(self) -> int:
        return len(self.times)

    def frame_at(self, tick: int) -> int:
        """Number of the frame shown at ``tick``; before the first that, after the last that."""
        found = int(np.searchsorted(self.times, tick, side="right")) - 1
        return min(max(found, 0), len(self.times) - 1)

    def key_before(self, frame: int) -> int:
        """The last frame not after ``frame`` at which decoding can start."""
        keys = np.flatnonzero(self.keys[: frame + 1])
        return int(keys[-1]) if len(keys) else 0

    def save(self, path: Path) -> None:
        np.savez(
            path,
            times=self.times,
            pts=self.pts,
            keys=self.keys,
            end=self.end,
            counted=self.counted,
        )

    @classmethod
    def load(cls, path: Path) -> FrameIndex:
        with np.load(path) as data:
            counted = "counted" in data and bool(data["counted"])
            return cls(data["times"], data["pts"], data["keys"], int(data["end"]), counted)

    @property
    def rate(self) -> tuple[int, int]:
        """Average frames a second, as a fraction; the plain rate where the pace is constant."""
        if len(self.times) < 2:
            return (30, 1)
        rate = _likely_rate(self.times, Fraction(1, 5000))
        return rate.numerator, rate.denominator

    @property
    def variable(self) -> bool:
        """Whether frames are shown for different lengths of time."""
        if len(self.times) < 3:
            return False
        steps = np.diff(self.times)
        return bool(steps.max() - steps.min() > TICKS_PER_SECOND // 400)


def _likely_rate(times: NDArray[np.int64], slack: Fraction) -> Fraction:
    """A common rate within a relative ``slack`` of the average; else the average itself."""
    mean = Fraction(TICKS_PER_SECOND * (len(times) - 1), int(times[-1] - times[0]))
    common = [Fraction(n, d) for d in (1, 1001) for n in _NUMERATORS[d]]
    near = min(common, key=lambda rate: abs(rate - mean))
    return near if abs(near - mean) < near * slack else mean.limit_denominator(1001)


_NUMERATORS = {
    1: (10, 12, 15, 20, 24, 25, 30, 48, 50, 60, 90, 100, 120, 240),
    1001: (24000, 30000, 60000, 120000),
}


def build_index(path: Path) -> FrameIndex:
    """Read all packets (without decoding) and say when each frame is shown.

    Edit lists are honoured: what they leave out is not in the index.

    Raises
    ------
    BrokenMedia
        If there is no frame.
    """
    with opened(path) as container:
        stream = picture_stream(container)
        if stream is None or stream.time_base is None:
            raise BrokenMedia("There is no moving picture in this file.")
        base = stream.time_base
        packets = [
            (packet.pts, packet.dts, packet.is_keyframe, packet.duration or 0)
            for packet in container.demux(stream)
            if packet.pts is not None and packet.size and not packet.is_discard
        ]
        shown = [pts for pts, _, _, _ in packets]
        # Times that only rise were not made from the order in which frames are shown.
        untold = container.format.name in UNTOLD
        counted = untold and shown == sorted(shown)
        found = [
            (dts if counted and dts is not None else pts, key, length)
            for pts, dts, key, length in packets
        ]
        origin = origin_of(container)
        ends = _stream_end(stream, container) - origin
    if not found:
        raise BrokenMedia("There is no picture in this video.")
    found.sort()
    pts = np.array([entry[0] for entry in found], dtype=np.int64)
    keys = np.array([entry[1] for entry in found])
    unit = base * TICKS_PER_SECOND
    times = np.array([round(int(p) * unit) for p in pts], dtype=np.int64) - origin
    if untold:
        # What comes before is the time that reordering takes.
        times -= times[0]
    if base > COARSE:
        times = _back_on_grid(times, round(unit))
    last = _last_length(times, round(found[-1][2] * unit), ends, coarse=base > COARSE)
    return FrameIndex(times, pts, keys, int(times[-1]) + last, counted)


def _last_length(times: NDArray[np.int64], told: int, ends: int, *, coarse: bool) -> int:
    """How long the last frame is shown.

    Parameters
    ----------
    told
        Length of its packet, which some files leave out.
    ends
        Tick at which the stream ends, by the file.
    coarse
        Whether times are rounded: then the steps of an even pace are truer than what is told.
    """
    steps = np.diff(times)
    median = int(np.median(steps)) if len(steps) else TICKS_PER_SECOND // 30
    even = len(steps) > 0 and int(steps.max() - steps.min()) <= TICKS_PER_SECOND // 400
    if coarse and even:
        return median
    left = ends - int(times[-1])
    return told or (left if 0 < left <= LONGEST_LAST else median)


def _stream_end(stream: VideoStream, container: InputContainer) -> int:
    """Tick, by the clock of the file, at which it says that its picture ends; 0 if it does not."""
    if stream.duration and stream.time_base:
        return to_ticks((stream.start_time or 0) + stream.duration, stream.time_base)
    if container.duration and not container.streams.audio:
        begin = max(container.start_time or 0, 0)
        return (begin + container.duration) * TICKS_PER_SECOND // av.time_base
    return 0


def _back_on_grid(times: NDArray[np.int64], unit: int) -> NDArray[np.int64]:
    """Exact times where the rounded ones are those of a constant rate; else unchanged."""
    if len(times) < 3:
        return times
    slack = Fraction(1, 5000) + Fraction(unit, int(times[-1] - times[0]))
    rate = _likely_rate(times, slack)
    try:
        step = Rate(rate.numerator, rate.denominator).frame_ticks
    except ValueError:
        return times
    exact = times[0] + np.arange(len(times), dtype=np.int64) * step
    first = round(times[0] / step) * step
    if abs(first - times[0]) <= unit:
        exact += first - times[0]
    return exact if np.abs(exact - times).max() <= unit else times
