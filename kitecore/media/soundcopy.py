"""All the sound of a file as one plain array on disk, so that any sample is at hand."""

from __future__ import annotations

import shutil
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import BinaryIO, Final

import av
import numpy as np
import soxr
from av.audio.frame import AudioFrame
from av.audio.stream import AudioStream
from av.container import InputContainer
from numpy.typing import NDArray

from kitecore.errors import BrokenMedia, MachineFailed
from kitecore.media.container import opened, origin_of, to_ticks
from kitecore.media.folder import MediaFolder
from kitecore.media.whole import whole_file
from kitecore.ticks import TICKS_PER_SECOND

SOUND_RATE = 48_000
"""Samples a second in which all sound is kept and mixed."""

CHANNELS = 2
SAMPLE_BYTES: Final = 4
LONGEST_SOUND: Final = 12 * 3600
"""Seconds of sound that a file may have; decoded it is 16.6 GB."""
SLOWEST_RATE: Final = 1000
"""Samples a second below which it is no sound: a small file of them would fill days."""
RESERVE: Final = 512 * 2**20
"""Bytes of disk that are left to everything else."""
LOOK_EVERY: Final = 64 * 2**20
_ROOM: Final = "Make room, or ask whoever runs this site; then try again."
_TOLERATED = 0.04
"""Seconds by which time stamps may wander before silence is put in or samples left out."""

Samples = NDArray[np.float32]
Progress = Callable[[float], None]


def make_sound_copy(folder: MediaFolder, progress: Progress = lambda share: None) -> int:
    """Decode the sound of the take into `MediaFolder.sound`.

    float32, stereo, 48 kHz, interleaved; sample 0 is the start of the file, whatever its time
    stamps begin with. Gaps in the time stamps become silence, and so do packets that cannot be
    decoded, as long as others can.

    Returns
    -------
    The number of packets that could not be decoded.

    Raises
    ------
    BrokenMedia
        If nothing of the sound can be decoded.
    """
    resample: soxr.ResampleStream | None = None
    damage = Damage()
    with whole_file(folder.sound) as unfinished, unfinished.open("wb") as file:
        out = Bounded(file, LONGEST_SOUND * SOUND_RATE * CHANNELS * SAMPLE_BYTES)
        for samples, rate, share in _in_place(folder.original, damage):
            if rate != SOUND_RATE:
                resample = resample or soxr.ResampleStream(rate, SOUND_RATE, CHANNELS, "float32")
                samples = resample.resample_chunk(samples)
            out.write(samples.tobytes())
            progress(share)
        if resample is not None:
            last = resample.resample_chunk(np.zeros((0, CHANNELS), np.float32), last=True)
            out.write(last.tobytes())
    return damage.packets


class Bounded:
    """Writes what is made of a file: never more than it may be, never the disk full.

    Raises
    ------
    BrokenMedia
        If it grows beyond ``most`` bytes.
    MachineFailed
        If the disk would be left with less than `RESERVE`.
    """

    def __init__(self, file: BinaryIO, most: int) -> None:
        self._file = file
        self._most = most
        self._written = 0
        self._looked = -LOOK_EVERY

    def write(self, data: bytes) -> None:
        self._written += len(data)
        if self._written > self._most:
            raise BrokenMedia(f"Its sound is longer than {LONGEST_SOUND // 3600} hours.")
        if self._written - self._looked >= LOOK_EVERY:
            self._looked = self._written
            if shutil.disk_usage(self._file.name).free < RESERVE + LOOK_EVERY:
                raise MachineFailed("There is no room left for this file.", todo=_ROOM)
        self._file.write(data)


@dataclass
class Damage:
    """Packets that could not be decoded, and whether any could."""

    packets: int = 0
    any_good: bool = False


def _decoded(
    container: InputContainer, stream: AudioStream, damage: Damage
) -> Iterator[AudioFrame]:
    """The frames of all packets that can be decoded, as far as the file can be read."""
    packets = container.demux(stream)
    while True:
        try:
            packet = next(packets)
        except StopIteration:
            break
        except (av.FFmpegError, EOFError):
            damage.packets += 1
            break
        try:
            frames = packet.decode()
        except av.FFmpegError:
            damage.packets += 1
            continue
        damage.any_good = damage.any_good or bool(frames)
        yield from frames
    if damage.packets and not damage.any_good:
        raise BrokenMedia("Nothing of the sound of this file can be decoded.")


def _in_place(path: Path, damage: Damage) -> Iterator[tuple[Samples, int, float]]:
    """Stereo samples without gaps from the start of the file, their rate, and the share done."""
    with opened(path) as container:
        stream = container.streams.audio[0]
        rate = stream.codec_context.sample_rate
        if rate < SLOWEST_RATE:
            raise BrokenMedia(f"Its sound has {rate} samples a second: too few to be heard.")
        # One channel goes to both sides as it is; more than two are mixed down.
        mono = stream.codec_context.channels == 1
        layout = "mono" if mono else "stereo"
        to_float = av.AudioResampler(format="flt", layout=layout, rate=rate)
        origin = origin_of(container)
        total = (container.duration or 0) * TICKS_PER_SECOND // av.time_base or 1
        done = 0
        for frame in _decoded(container, stream, damage):
            if frame.pts is None or frame.time_base is None:
                start = done
            else:
                ticks = to_ticks(frame.pts, frame.time_base) - origin
                start = round(ticks * rate / TICKS_PER_SECOND)
            parts = [part.to_ndarray().reshape(-1) for part in to_float.resample(frame)]
            flat = np.concatenate([np.zeros(0, np.float32), *parts], dtype=np.float32)
            samples = (np.repeat(flat, CHANNELS) if mono else flat).reshape(-1, CHANNELS)
            off = start - done
            if off > LONGEST_SOUND * rate:
                raise BrokenMedia("The times in its sound leave a gap of many hours.")
            if off > 0 and (done == 0 or off > rate * _TOLERATED):
                yield np.zeros((off, CHANNELS), np.float32), rate, 0.0
                done += off
            elif off < 0 and (done == 0 or -off > rate * _TOLERATED):
                samples = samples[-off:]
            done += len(samples)
            yield samples, rate, min(1.0, done * TICKS_PER_SECOND / rate / total)


def sound_length(folder: MediaFolder) -> int:
    """Ticks from the start of the file until its sound ends, by its sound copy."""
    samples = folder.sound.stat().st_size // (CHANNELS * SAMPLE_BYTES)
    return samples * TICKS_PER_SECOND // SOUND_RATE


def read_mono(folder: MediaFolder, most: int | None = None) -> Samples:
    """The sound of a take in mono, of ``most`` seconds from its start if that is said.

    float32, shape (count,), at 48 kHz.
    """
    if not folder.sound.stat().st_size:
        return np.zeros(0, np.float32)
    everything: Samples = np.memmap(folder.sound, np.float32, "r").reshape(-1, CHANNELS)
    last = len(everything) if most is None else most * SOUND_RATE
    mono: Samples = np.asarray(everything[:last]).mean(axis=1)
    return mono


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
    if not folder.sound.exists():
        make_sound_copy(folder)
    if not folder.sound.stat().st_size:
        return np.zeros((count, CHANNELS), np.float32)
    everything: Samples = np.memmap(folder.sound, np.float32, "r").reshape(-1, CHANNELS)
    first, last = max(start, 0), min(start + count, len(everything))
    if last - first == count:
        return np.array(everything[first:last])
    out = np.zeros((count, CHANNELS), np.float32)
    if last > first:
        out[first - start : last - start] = everything[first:last]
    return out
