"""All the sound of a file as one plain array on disk, so that any sample is at hand."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from pathlib import Path

import av
import numpy as np
import soxr
from numpy.typing import NDArray

from kitecore.media.container import opened, origin_of, to_ticks
from kitecore.media.folder import MediaFolder
from kitecore.ticks import TICKS_PER_SECOND

SOUND_RATE = 48_000
"""Samples a second in which all sound is kept and mixed."""

CHANNELS = 2
_TOLERATED = 0.04
"""Seconds by which time stamps may wander before silence is put in or samples left out."""

Samples = NDArray[np.float32]
Progress = Callable[[float], None]


def make_sound_copy(folder: MediaFolder, progress: Progress = lambda share: None) -> None:
    """Decode the sound of the take into `MediaFolder.sound`.

    float32, stereo, 48 kHz, interleaved; sample 0 is the start of the file, whatever its time
    stamps begin with. Gaps in the time stamps become silence.
    """
    resample: soxr.ResampleStream | None = None
    unfinished = folder.sound.with_suffix(".part")
    with unfinished.open("wb") as out:
        for samples, rate, share in _in_place(folder.original):
            if rate != SOUND_RATE:
                resample = resample or soxr.ResampleStream(rate, SOUND_RATE, CHANNELS, "float32")
                samples = resample.resample_chunk(samples)
            out.write(samples.tobytes())
            progress(share)
        if resample is not None:
            last = resample.resample_chunk(np.zeros((0, CHANNELS), np.float32), last=True)
            out.write(last.tobytes())
    unfinished.replace(folder.sound)


def _in_place(path: Path) -> Iterator[tuple[Samples, int, float]]:
    """Stereo samples without gaps from the start of the file, their rate, and the share done."""
    with opened(path) as container:
        stream = container.streams.audio[0]
        rate = stream.codec_context.sample_rate
        # One channel goes to both sides as it is; more than two are mixed down.
        mono = stream.codec_context.channels == 1
        layout = "mono" if mono else "stereo"
        to_float = av.AudioResampler(format="flt", layout=layout, rate=rate)
        origin = origin_of(container)
        total = (container.duration or 0) * TICKS_PER_SECOND // av.time_base or 1
        done = 0
        for frame in container.decode(stream):
            if frame.pts is None or frame.time_base is None:
                start = done
            else:
                ticks = to_ticks(frame.pts, frame.time_base) - origin
                start = round(ticks * rate / TICKS_PER_SECOND)
            parts = [part.to_ndarray().reshape(-1) for part in to_float.resample(frame)]
            flat = np.concatenate([np.zeros(0, np.float32), *parts], dtype=np.float32)
            samples = (np.repeat(flat, CHANNELS) if mono else flat).reshape(-1, CHANNELS)
            off = start - done
            if off > 0 and (done == 0 or off > rate * _TOLERATED):
                yield np.zeros((off, CHANNELS), np.float32), rate, 0.0
                done += off
            elif off < 0 and (done == 0 or -off > rate * _TOLERATED):
                samples = samples[-off:]
            done += len(samples)
            yield samples, rate, min(1.0, done * TICKS_PER_SECOND / rate / total)


def read_sound(folder: MediaFolder, start: int, count: int) -> Samples:
    """Samples of a take from its sound copy.

    Parameters
    ----------
    start, count
        In samples at 48 kHz; outside of the file there is silence.

    Returns
    -------
    float32, shape (count, 2).
    """
    out = np.zeros((count, CHANNELS), np.float32)
    if not folder.sound.exists():
        make_sound_copy(folder)
    if not folder.sound.stat().st_size:
        return out
    everything: Samples = np.memmap(folder.sound, np.float32, "r").reshape(-1, CHANNELS)
    first, last = max(start, 0), min(start + count, len(everything))
    if last > first:
        out[first - start : last - start] = everything[first:last]
    return out
