"""Frames of two fields, taken at different moments, made whole frames."""

from __future__ import annotations

from collections import deque
from collections.abc import Iterator
from typing import Any, Final

import av
from av.filter import Graph

_WAY: Final = "mode=send_frame:parity=auto:deint=all"


def whole_frames(frames: Iterator[av.VideoFrame]) -> Iterator[av.VideoFrame]:
    """One frame for each, of the moment of its first field (FFmpeg's bwdif: what moves is made of
    one field, what stands of both). The first of them lacks the one before it, so that it is less
    exact.
    """
    graph: Graph | None = None
    times: deque[tuple[int | None, Any]] = deque()
    for frame in frames:
        graph = graph or _graph(frame)
        times.append((frame.pts, frame.time_base))
        graph.push(frame)
        yield from _pulled(graph, times)
    if graph is not None:
        graph.push(None)
        yield from _pulled(graph, times)


def _graph(frame: av.VideoFrame) -> Graph:
    graph = Graph()
    source = graph.add_buffer(
        width=frame.width, height=frame.height, format=frame.format, time_base=frame.time_base
    )
    steps = [source, graph.add("bwdif", _WAY), graph.add("buffersink")]
    graph.link_nodes(*steps).configure()
    return graph


def _pulled(graph: Graph, times: deque[tuple[int | None, Any]]) -> Iterator[av.VideoFrame]:
    while True:
        try:
            frame = graph.pull()
        except (av.BlockingIOError, av.EOFError):
            return
        assert isinstance(frame, av.VideoFrame)
        # The filter counts in halves of the time base.
        frame.pts, frame.time_base = times.popleft()
        yield frame
