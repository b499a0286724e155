"""The reference piece as an FFmpeg filter graph, as near as its filters come to ours."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction
from pathlib import Path

import av
import av.filter
import numpy as np
from av.video.frame import VideoFrame

from kitecore.render.export import ExportSettings
from kitecore.render.making.films import Film

FRAMES = 90
WIDTH, HEIGHT = 1080, 1920


def export_by_graph(
    ground: Path, second: Path, cube: Path, light: np.ndarray, words: np.ndarray, target: Path
) -> None:
    """Decode both takes, send them through one graph, encode what comes out.

    Parameters
    ----------
    cube
        The ground's grade as a .cube file.
    light, words
        RGBA pictures: the feathered light over the canvas, and the text.
    """
    recipe = ExportSettings().recipe
    assert isinstance(recipe, Film)
    options = {**recipe.options, "crf": str(recipe.crf[ExportSettings().quality])}
    with (
        av.open(str(ground)) as first,
        av.open(str(second)) as other,
        av.open(str(target), "w") as out,
    ):
        for source in (first, other):
            source.streams.video[0].thread_type = "AUTO"
        stream = out.add_stream(recipe.codec, rate=30, options=options)
        stream.width, stream.height, stream.pix_fmt = WIDTH, HEIGHT, "yuv420p"
        stream.codec_context.time_base = Fraction(1, 30)
        graph = _Graph(first.streams.video[0], other.streams.video[0], cube, light, words)
        pairs = zip(first.decode(video=0), other.decode(video=0), strict=False)
        for number, (below, above) in zip(range(FRAMES), pairs, strict=False):
            for frame in graph.through(number, below, above):
                out.mux(stream.encode(frame))
        out.mux(stream.encode(None))


class _Graph:
    """Grade by lut3d, chromakey and rotate, overlay, blend in screen mode, moving text, gblur."""

    def __init__(
        self,
        ground: av.video.stream.VideoStream,
        second: av.video.stream.VideoStream,
        cube: Path,
        light: np.ndarray,
        words: np.ndarray,
    ) -> None:
        self._light = VideoFrame.from_ndarray(light, format="rgba").reformat(format="gbrap")
        self._words = VideoFrame.from_ndarray(words, format="rgba")
        graph = self._graph = av.filter.Graph()
        base = Fraction(1, 30)

        def buffer(width: int, height: int, kind: str) -> av.filter.context.FilterContext:
            return graph.add_buffer(width=width, height=height, format=kind, time_base=base)

        self._inputs = (
            buffer(WIDTH, HEIGHT, ground.codec_context.format.name),
            buffer(WIDTH, HEIGHT, second.codec_context.format.name),
            buffer(WIDTH, HEIGHT, "gbrap"),
            buffer(words.shape[1], words.shape[0], "rgba"),
        )
        below, above, lit, text = self._inputs
        graded = self._chain(
            below, ("lut3d", f"file={cube}:interp=tetrahedral"), ("format", "gbrap")
        )
        keyed = self._chain(
            above,
            ("chromakey", "color=0x2f9f4c:similarity=0.14:blend=0.12"),
            ("format", "rgba"),
            ("scale", "648:1152"),
            ("rotate", "angle=0.1396:c=none:ow=rotw(0.1396):oh=roth(0.1396)"),
        )
        laid = self._two(graded, keyed, "overlay", "x=(W-w)/2:y=(H-h)/2:format=gbrp")
        full = self._chain(laid, ("format", "gbrap"))
        screened = self._two(full, lit, "blend", "all_mode=screen")
        moving = "x=(W-w)/2-300+n*6.67:y=H/2+360:format=gbrp"
        titled = self._two(screened, text, "overlay", moving)
        split = graph.add("split", "2")
        titled.link_to(split)
        soft = graph.add("crop", "iw:ih*0.25:0:ih*0.75")
        split.link_to(soft, 1)
        blurred = self._chain(soft, ("gblur", "sigma=12"))
        done = graph.add("overlay", "x=0:y=H*0.75")
        split.link_to(done, 0, 0)
        blurred.link_to(done, 0, 1)
        self._sink = graph.add("buffersink")
        self._chain(done, ("format", "yuv420p")).link_to(self._sink)
        graph.configure()

    def _chain(
        self, start: av.filter.context.FilterContext, *steps: tuple[str, str]
    ) -> av.filter.context.FilterContext:
        for name, how in steps:
            following = self._graph.add(name, how)
            start.link_to(following)
            start = following
        return start

    def _two(
        self,
        below: av.filter.context.FilterContext,
        above: av.filter.context.FilterContext,
        name: str,
        how: str,
    ) -> av.filter.context.FilterContext:
        mixed = self._graph.add(name, how)
        below.link_to(mixed, 0, 0)
        above.link_to(mixed, 0, 1)
        return mixed

    def through(self, number: int, below: VideoFrame, above: VideoFrame) -> Iterator[VideoFrame]:
        for target, frame in zip(
            self._inputs, (below, above, self._light, self._words), strict=True
        ):
            frame.pts, frame.time_base = number, Fraction(1, 30)
            target.push(frame)
        while True:
            try:
                done = self._graph.pull()
            except (av.error.BlockingIOError, av.error.EOFError):
                return
            done.pict_type = av.video.frame.PictureType.NONE
            yield done
