"""Filters of second order, by the Audio EQ Cookbook (R. Bristow-Johnson, W3C note 2021)."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.sound.ramps import RATE, Samples

BUTTERWORTH = 0.5**0.5

Numbers = NDArray[np.float64]


def low_pass(frequency: Numbers, q: float = BUTTERWORTH) -> Numbers:
    cosine, alpha = _angles(frequency, q)
    b = (1 - cosine) / 2
    return _rows(b, 2 * b, b, 1 + alpha, -2 * cosine, 1 - alpha)


def high_pass(frequency: Numbers, q: float = BUTTERWORTH) -> Numbers:
    cosine, alpha = _angles(frequency, q)
    b = (1 + cosine) / 2
    return _rows(b, -2 * b, b, 1 + alpha, -2 * cosine, 1 - alpha)


def bell(frequency: Numbers, gain: Numbers, q: Numbers) -> Numbers:
    cosine, alpha = _angles(frequency, q)
    a = 10 ** (gain / 40)
    return _rows(
        1 + alpha * a, -2 * cosine, 1 - alpha * a, 1 + alpha / a, -2 * cosine, 1 - alpha / a
    )


def low_shelf(frequency: Numbers, gain: Numbers) -> Numbers:
    cosine, a, root = _shelf(frequency, gain)
    return _rows(
        a * ((a + 1) - (a - 1) * cosine + root),
        2 * a * ((a - 1) - (a + 1) * cosine),
        a * ((a + 1) - (a - 1) * cosine - root),
        (a + 1) + (a - 1) * cosine + root,
        -2 * ((a - 1) + (a + 1) * cosine),
        (a + 1) + (a - 1) * cosine - root,
    )


def high_shelf(frequency: Numbers, gain: Numbers) -> Numbers:
    cosine, a, root = _shelf(frequency, gain)
    return _rows(
        a * ((a + 1) + (a - 1) * cosine + root),
        -2 * a * ((a - 1) + (a + 1) * cosine),
        a * ((a + 1) + (a - 1) * cosine - root),
        (a + 1) - (a - 1) * cosine + root,
        2 * ((a - 1) - (a + 1) * cosine),
        (a + 1) - (a - 1) * cosine - root,
    )


def _angles(frequency: Numbers, q: float | Numbers) -> tuple[Numbers, Numbers]:
    turn = 2 * np.pi * np.clip(frequency, 10.0, 0.49 * RATE) / RATE
    return np.cos(turn), np.asarray(np.sin(turn) / (2 * q))


def _shelf(frequency: Numbers, gain: Numbers) -> tuple[Numbers, Numbers, Numbers]:
    """For a shelf slope of 1."""
    cosine, alpha = _angles(frequency, BUTTERWORTH)
    a = 10 ** (gain / 40)
    return cosine, a, 2 * np.sqrt(a) * alpha


def _rows(b0: Numbers, b1: Numbers, b2: Numbers, a0: Numbers, a1: Numbers, a2: Numbers) -> Numbers:
    """b0, b1, b2, a1, a2, divided by a0, for each block: shape (blocks, 5)."""
    return np.stack(np.broadcast_arrays(b0 / a0, b1 / a0, b2 / a0, a1 / a0, a2 / a0), axis=-1)


def filtered(samples: Samples, sections: list[Numbers], block: int, offset: int) -> Samples:
    """Samples after filters in a row, at rest before the first.

    Parameters
    ----------
    samples
        float32, shape (count, 2).
    sections
        Each shape (blocks, 5), or (1, 5) for one that stays.
    block, offset
        Samples for which a row of a section holds, and how far the first sample is into its block.
    """
    passes = list(_passes(sections))
    # In 64 bits between them, and in place there.
    between = np.empty(samples.shape if len(passes) > 1 else (0, 2))
    source: NDArray[np.floating] = samples
    for number, (rows, then) in enumerate(passes, 1):
        out = between if number < len(passes) else np.empty_like(samples)
        if then is None:
            _filter(source, out, rows, block, offset)
        else:
            _filter_twice(source, out, rows[0], then[0])
        source = out
    return np.asarray(source, np.float32)


def _passes(sections: list[Numbers]) -> Iterator[tuple[Numbers, Numbers | None]]:
    """Filters as they are run: two that stay at once, others by themselves."""
    waiting = [np.ascontiguousarray(rows) for rows in sections]
    while waiting:
        rows = waiting.pop(0)
        both = bool(waiting) and len(rows) == len(waiting[0]) == 1
        yield rows, waiting.pop(0) if both else None


@njit(cache=True, nogil=True)
def _filter(
    samples: NDArray[np.floating],
    out: NDArray[np.floating],
    rows: Numbers,
    block: int,
    offset: int,
) -> None:
    """Both sides beside each other; transposed direct form II."""
    count = samples.shape[0]
    first_l, second_l, first_r, second_r = 0.0, 0.0, 0.0, 0.0
    begin = 0
    for row in range(rows.shape[0]):
        b0, b1, b2, a1, a2 = rows[row]
        end = count if row == rows.shape[0] - 1 else min(count, (row + 1) * block - offset)
        for index in range(begin, end):
            left, right = samples[index, 0], samples[index, 1]
            out_l = b0 * left + first_l
            out_r = b0 * right + first_r
            first_l = b1 * left - a1 * out_l + second_l
            first_r = b1 * right - a1 * out_r + second_r
            second_l = b2 * left - a2 * out_l
            second_r = b2 * right - a2 * out_r
            out[index, 0], out[index, 1] = out_l, out_r
        begin = end


@njit(cache=True, nogil=True)
def _filter_twice(
    samples: NDArray[np.floating], out: NDArray[np.floating], first: Numbers, then: Numbers
) -> None:
    """Two filters that stay: while one waits for its last sample the other is worked out."""
    b0, b1, b2, a1, a2 = first
    d0, d1, d2, c1, c2 = then
    p_l, q_l, p_r, q_r = 0.0, 0.0, 0.0, 0.0
    s_l, t_l, s_r, t_r = 0.0, 0.0, 0.0, 0.0
    for index in range(samples.shape[0]):
        left, right = samples[index, 0], samples[index, 1]
        mid_l, mid_r = b0 * left + p_l, b0 * right + p_r
        p_l, p_r = b1 * left - a1 * mid_l + q_l, b1 * right - a1 * mid_r + q_r
        q_l, q_r = b2 * left - a2 * mid_l, b2 * right - a2 * mid_r
        out_l, out_r = d0 * mid_l + s_l, d0 * mid_r + s_r
        s_l, s_r = d1 * mid_l - c1 * out_l + t_l, d1 * mid_r - c1 * out_r + t_r
        t_l, t_r = d2 * mid_l - c2 * out_l, d2 * mid_r - c2 * out_r
        out[index, 0], out[index, 1] = out_l, out_r


def response(sections: list[Numbers], frequencies: Numbers) -> Numbers:
    """Gain in dB at frequencies in Hz, of the first row of each section."""
    z = np.exp(-2j * np.pi * frequencies / RATE)
    total = np.ones(len(frequencies), np.complex128)
    for rows in sections:
        b0, b1, b2, a1, a2 = rows[0]
        total *= (b0 + b1 * z + b2 * z * z) / (1 + a1 * z + a2 * z * z)
    return np.asarray(20 * np.log10(np.maximum(np.abs(total), 1e-9)))
