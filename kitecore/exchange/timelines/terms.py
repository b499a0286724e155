"""What writing and reading of timelines have in common."""

from __future__ import annotations

from fractions import Fraction
from typing import Final, Literal

from opentimelineio.opentime import RationalTime, TimeRange

from kitecore.document import Model
from kitecore.ticks import RATES, TICKS_PER_SECOND, Rate

MOST_BYTES: Final = 8 * 2**20
"""As much as a step may have."""
OURS: Final = "velvet_kite"
"""Name of what is ours in metadata."""

TRANSITIONS: Final = {"SMPTE_Dissolve": "dissolve"}
"""Our kinds of transitions by those of OpenTimelineIO; all others are ``Custom_Transition``."""

COLOURS: Final = {
    "": "WHITE",
    "sky": "CYAN",
    "amber": "ORANGE",
    "olive": "YELLOW",
    "sea": "GREEN",
    "violet": "PURPLE",
    "rose": "PINK",
}
"""Colours of markers by our tags."""
TAGS: Final = {colour: tag for tag, colour in COLOURS.items()} | {
    "RED": "rose",
    "BLUE": "sky",
    "MAGENTA": "violet",
    "BLACK": "",
}


class Medium(Model):
    """A take as timelines name it; ``length`` in ticks, nothing for a still."""

    media: str
    name: str
    kind: Literal["video", "still", "sound"]
    length: int = 0
    sounds: bool = False


def time_at(tick: int, rate: Rate) -> RationalTime:
    """A tick in frames of a rate; a fraction of one where it lies between two."""
    frames = Fraction(tick, rate.frame_ticks)
    return RationalTime(float(frames), float(Fraction(rate.num, rate.den)))


def range_at(first: int, length: int, rate: Rate) -> TimeRange:
    return TimeRange(time_at(first, rate), time_at(length, rate))


def seconds_of(time: RationalTime) -> Fraction:
    """Exact seconds; rates like 29.97 are those of the standard (30 000 / 1001)."""
    return Fraction(time.value) / exact_rate(time.rate)


def exact_rate(rate: float) -> Fraction:
    if abs(rate - round(rate)) < 1e-4 and round(rate) > 0:
        return Fraction(round(rate))
    known = Fraction(round(rate * 1.001) * 1000, 1001)
    return known if abs(float(known) - rate) < 0.01 and known else Fraction(rate)


def tick_of(time: RationalTime) -> int:
    return round(seconds_of(time) * TICKS_PER_SECOND)


def on_frames(tick: int, rate: Rate) -> int:
    """The frame boundary next to a tick."""
    return (2 * tick + rate.frame_ticks) // (2 * rate.frame_ticks) * rate.frame_ticks


def rate_like(rate: float) -> Rate:
    """The rate of ours that comes next."""
    wanted = exact_rate(rate)
    return min(RATES, key=lambda one: abs(Fraction(one.num, one.den) - wanted))
