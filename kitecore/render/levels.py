"""What meters show: levels of tracks and of the film for each frame, loudness over the film."""

from __future__ import annotations

from typing import Final

import numpy as np
from numpy.typing import NDArray

from kitecore.document import Document, Model
from kitecore.render.samples import render_samples
from kitecore.render.sources import Sources
from kitecore.sound import loudness
from kitecore.sound.ramps import RATE, Samples, sample_at
from kitecore.sound.truepeak import TRUE_REACH, true_levels

FILM: Final = "film"
"""Name of the film's own levels, beside the ids of tracks."""
LOWEST: Final = -100.0
"""dB of silence."""

STRETCH_SECONDS: Final = 10
"""Of the film whose loudness is measured together."""


class Levels(Model):
    """Of one strip, for each frame: highest level and root mean square, left and right, in dB."""

    peaks: tuple[tuple[float, float], ...]
    means: tuple[tuple[float, float], ...]


class PieceLevels(Model):
    """Of frames ``first`` on, by ids of tracks; those of the film under `FILM`."""

    first: int
    strips: dict[str, Levels]


def sound_and_levels(
    document: Document, first: int, last: int, sources: Sources
) -> tuple[Samples, PieceLevels]:
    """The sound of frames ``first`` up to ``last``, and the levels of all that made it."""
    rate = document.rate.exact
    borders = np.array([sample_at(rate.start_of(frame)) for frame in range(first, last + 1)])
    start, end = int(borders[0]), int(borders[-1])
    heard: dict[str, Samples] = {}

    def listen(track: str, at: int, samples: Samples) -> None:
        heard[track] = samples[start - at : end - at]

    film = render_samples(document, start, end - start, sources, listen)
    heard[FILM] = film
    strips = {name: _levels(samples, borders - start) for name, samples in heard.items()}
    return film, PieceLevels(first=first, strips=strips)


def _levels(samples: Samples, borders: NDArray[np.int64]) -> Levels:
    starts = borders[:-1]
    counts = np.diff(borders)[:, None]
    peaks = np.maximum.reduceat(np.abs(samples), starts, axis=0)
    squares = np.add.reduceat(np.square(samples, dtype=np.float64), starts, axis=0) / counts
    return Levels(peaks=_pairs(peaks), means=_pairs(np.sqrt(squares)))


def _pairs(levels: NDArray[np.floating]) -> tuple[tuple[float, float], ...]:
    told = np.round(20 * np.log10(np.maximum(levels, 10 ** (LOWEST / 20))), 1)
    return tuple((float(left), float(right)) for left, right in told)


class Stretch(Model):
    """`STRETCH_SECONDS` of the film by tenths of a second.

    Weighted powers, true peaks, and the root mean squares of both sides.
    """

    powers: tuple[float, ...]
    peaks: tuple[float, ...]
    left: tuple[float, ...]
    right: tuple[float, ...]


def measured_stretch(document: Document, number: int, sources: Sources) -> Stretch:
    """The ``number``-th stretch of a film, as far as the film goes."""
    start = number * STRETCH_SECONDS * RATE
    left = sample_at(document.length) - start
    parts = -(-min(left, STRETCH_SECONDS * RATE) // loudness.PART)
    lead = loudness.LEAD
    count = parts * loudness.PART
    samples = render_samples(document, start - lead, lead + count + TRUE_REACH, sources)
    powers = loudness.powers(samples[: lead + count])
    between = true_levels(samples[lead - TRUE_REACH :])[TRUE_REACH : TRUE_REACH + count]
    peaks = between.reshape(parts, loudness.PART).max(axis=1)
    parted = samples[lead : lead + count].astype(np.float64).reshape(parts, loudness.PART, 2)
    sides = np.round(np.sqrt(np.einsum("ijk,ijk->ik", parted, parted) / loudness.PART), 6)
    return Stretch(
        powers=tuple(powers.tolist()),
        peaks=tuple(peaks.tolist()),
        left=tuple(sides[:, 0].tolist()),
        right=tuple(sides[:, 1].tolist()),
    )


def stretches_of(document: Document) -> int:
    """How many stretches a film has."""
    return -(-sample_at(document.length) // (STRETCH_SECONDS * RATE))


class Loudness(Model):
    """Of a film: loudness over time in LUFS, ten values a second, and numbers for all of it.

    Windows end where their value stands. ``peak`` is the highest true peak in dB, ``spread`` the
    loudness range in LU.
    """

    momentary: tuple[float, ...]
    short: tuple[float, ...]
    whole: float
    spread: float
    peak: float


def loudness_of(stretches: list[Stretch]) -> Loudness:
    powers = np.array([power for one in stretches for power in one.powers])
    peak = max((level for one in stretches for level in one.peaks), default=0.0)
    return Loudness(
        momentary=_line(powers, loudness.MOMENT),
        short=_line(powers, loudness.SHORT),
        whole=round(loudness.whole(powers), 2),
        spread=round(loudness.spread(powers), 2),
        peak=round(20 * float(np.log10(max(peak, 10 ** (LOWEST / 20)))), 2),
    )


def _line(powers: NDArray[np.float64], window: int) -> tuple[float, ...]:
    return tuple(np.round(loudness.over_time(powers, window), 1).tolist())
