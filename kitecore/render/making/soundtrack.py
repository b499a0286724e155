"""The sound of a file, encoded as it is mixed."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from fractions import Fraction
from typing import Any, Final

import av
import numpy as np
from av.audio.stream import AudioStream
from av.container import OutputContainer
from numpy.typing import NDArray

from kitecore.media.soundcopy import SOUND_RATE
from kitecore.render.making.gain import STRETCH
from kitecore.render.making.work import Quality, Work
from kitecore.render.pieces import frame_samples
from kitecore.render.samples import render_samples
from kitecore.render.sources import Sources
from kitecore.sound.ramps import Samples

_BLOCK: Final = SOUND_RATE // 5
_WHOLE: Final = {"s16": (np.int16, 2**15 - 1, 0), "s32": (np.int32, 2**23 - 1, 8)}
"""Formats of whole numbers: their type, the loudest, and by how many bits that is moved up."""


@dataclass(frozen=True)
class SoundCoding:
    """An encoder of sound: FFmpeg's names of it and of its samples, and its bits a second.

    ``finer`` is taken instead of it at the best quality.
    """

    codec: str
    samples: str
    bits: dict[Quality, int] = field(default_factory=dict)
    finer: SoundCoding | None = None

    def at(self, quality: Quality) -> SoundCoding:
        return self.finer if self.finer and quality == "best" else self


class Soundtrack:
    """The sound of a work on its way into a container, in step with its picture.

    ``hear`` is given each stretch as it was mixed.
    """

    def __init__(
        self,
        out: OutputContainer,
        coding: SoundCoding,
        work: Work,
        sources: Sources,
        hear: Callable[[Samples], None] | None = None,
    ) -> None:
        self._out = out
        used = coding.at(work.quality)
        stream = out.add_stream(used.codec, rate=SOUND_RATE, layout="stereo", format=used.samples)
        assert isinstance(stream, AudioStream)
        if used.bits:
            stream.bit_rate = used.bits[work.quality]
        self._stream = stream
        self._frames = _frames(work, used.samples, sources, hear or (lambda mixed: None))

    def encode(self, until: Fraction | None = None) -> None:
        """Encode up to a time in seconds, so that it lies in the file beside its picture; or all."""
        for time, frame in self._frames:
            self._out.mux(self._stream.encode(frame))
            if until is not None and time >= until:
                return

    def finish(self) -> None:
        self.encode()
        self._out.mux(self._stream.encode(None))


def _frames(
    work: Work, samples: str, sources: Sources, hear: Callable[[Samples], None]
) -> Iterator[tuple[Fraction, av.AudioFrame]]:
    """Frames of a fifth of a second, each with its time from the start."""
    start, end = frame_samples(work.rate, work.numbers.start, work.numbers.stop)
    for at, mixed in _blocks(work, start, end, sources, hear):
        frame = av.AudioFrame.from_ndarray(_as(mixed, samples), format=samples, layout="stereo")
        frame.sample_rate, frame.time_base = SOUND_RATE, Fraction(1, SOUND_RATE)
        frame.pts = at - start
        yield Fraction(at - start, SOUND_RATE), frame


def _as(mixed: Samples, samples: str) -> NDArray[Any]:
    if samples.endswith("p"):
        return np.ascontiguousarray(mixed.T)
    if samples in _WHOLE:
        kind, loudest, up = _WHOLE[samples]
        whole = np.rint(np.clip(mixed, -1, 1).astype(np.float64) * loudest).astype(kind)
        return np.asarray(whole << up).reshape(1, -1)
    return mixed.reshape(1, -1)


def _blocks(
    work: Work, start: int, end: int, sources: Sources, hear: Callable[[Samples], None]
) -> Iterator[tuple[int, Samples]]:
    """The sound by blocks, mixed in long stretches: what runs up to each is mixed anew."""
    for begin in range(start, end, STRETCH):
        stretch = render_samples(work.document, begin, min(STRETCH, end - begin), sources)
        hear(stretch)
        for at in range(0, len(stretch), _BLOCK):
            yield begin + at, stretch[at : at + _BLOCK]
