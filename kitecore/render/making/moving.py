"""Moving pictures without sound: made in pieces without loss, encoded when they are joined."""

from __future__ import annotations

from abc import abstractmethod
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from fractions import Fraction
from pathlib import Path
from typing import Final

import av
from av.container import OutputContainer
from av.video.stream import VideoStream

from kitecore.media.whole import whole_file
from kitecore.render.making.format import Joining, Pieced
from kitecore.render.making.joinable import joinable
from kitecore.render.making.pictures import PictureCoding, encode_pictures
from kitecore.render.making.work import Progress, Quality, Work, unheard
from kitecore.render.sources import Sources

_LOSSLESS: Final = PictureCoding("matroska", "ffv1", "bgra", {"level": "3", "g": "1"})
_LOOKED_AT: Final = 60
"""Frames that colours are chosen by."""


@dataclass(frozen=True, kw_only=True)
class Moving(Pieced):
    """A picture that moves, over and over."""

    kind = "moving"
    container: str

    @property
    def can_clear(self) -> bool:
        return True

    def encode_piece(
        self, work: Work, piece: range, path: Path, sources: Sources, progress: Progress = unheard
    ) -> None:
        encode_pictures(work, piece, _LOSSLESS, path, sources, progress)

    def join(self, work: Work, to: Joining) -> None:
        with (
            joinable(),
            whole_file(to.path) as path,
            av.open(str(path), "w", format=self.container, options={"loop": "0"}) as out,
        ):
            stream = self.add_picture(out, work)
            for done, frame in enumerate(self.converted(work, to.pieces)):
                frame.pts, frame.time_base = done, 1 / work.rate.fraction
                out.mux(stream.encode(frame))
                to.progress(min(done / len(work.numbers), 1.0))
            out.mux(stream.encode(None))

    @abstractmethod
    def add_picture(self, out: OutputContainer, work: Work) -> VideoStream:
        """The stream that pictures go to."""

    def converted(self, work: Work, pieces: Sequence[Path]) -> Iterator[av.VideoFrame]:
        """The frames of all pieces as the encoder takes them."""
        return decoded(pieces)


@dataclass(frozen=True, kw_only=True)
class MovingWebp(Moving):
    fine: dict[Quality, int]

    def add_picture(self, out: OutputContainer, work: Work) -> VideoStream:
        options = {"quality": str(self.fine[work.quality]), "compression_level": "3"}
        stream = out.add_stream("libwebp_anim", rate=work.rate.fraction, options=options)
        assert isinstance(stream, VideoStream)
        stream.width, stream.height = work.size
        stream.pix_fmt = "bgra"
        return stream


@dataclass(frozen=True, kw_only=True)
class Gif(Moving):
    """A GIF of one palette; ``colours`` and ``dither`` by quality."""

    colours: dict[Quality, int]
    dither: dict[Quality, str]

    def add_picture(self, out: OutputContainer, work: Work) -> VideoStream:
        stream = out.add_stream("gif", rate=work.rate.fraction)
        assert isinstance(stream, VideoStream)
        stream.width, stream.height = work.size
        stream.pix_fmt = "pal8"
        return stream

    def converted(self, work: Work, pieces: Sequence[Path]) -> Iterator[av.VideoFrame]:
        return with_palette(pieces, self._palette(work, pieces), self.dither[work.quality])

    def _palette(self, work: Work, pieces: Sequence[Path]) -> av.VideoFrame:
        colours, clear = self.colours[work.quality], int(work.clear)
        graph = av.filter.Graph()
        made = f"max_colors={colours}:reserve_transparent={clear}:stats_mode=full"
        graph.link_nodes(
            _source(graph, work.size),
            graph.add("palettegen", made),
            graph.add("buffersink"),
        ).configure()
        every = max(1, len(work.numbers) // _LOOKED_AT)
        for at, frame in enumerate(decoded(pieces)):
            if at % every == 0:
                frame.pts = at
                graph.push(frame)
        graph.push(None)
        palette = graph.pull()
        assert isinstance(palette, av.VideoFrame)
        return palette


def with_palette(
    pieces: Sequence[Path], palette: av.VideoFrame, dither: str
) -> Iterator[av.VideoFrame]:
    """Frames in the 256 colours, at most, of a palette."""
    graph, size = av.filter.Graph(), None
    for at, frame in enumerate(decoded(pieces)):
        if size is None:
            size = (frame.width, frame.height)
            pictures, colours = _source(graph, size), _source(graph, (16, 16))
            use, sink = graph.add("paletteuse", f"dither={dither}"), graph.add("buffersink")
            pictures.link_to(use, 0, 0)
            colours.link_to(use, 0, 1)
            use.link_to(sink)
            graph.configure()
            palette.pts = 0
            colours.push(palette)
            colours.push(None)
        frame.pts = at
        pictures.push(frame)
        yield _pulled(sink)


def _pulled(sink: av.filter.context.FilterContext) -> av.VideoFrame:
    frame = sink.pull()
    assert isinstance(frame, av.VideoFrame)
    return frame


def _source(graph: av.filter.Graph, size: tuple[int, int]) -> av.filter.context.FilterContext:
    return graph.add_buffer(
        width=size[0], height=size[1], format=av.VideoFormat("bgra"), time_base=Fraction(1, 100)
    )


def decoded(pieces: Sequence[Path]) -> Iterator[av.VideoFrame]:
    for piece in pieces:
        with av.open(str(piece)) as source:
            yield from source.decode(video=0)
