"""Timecode after SMPTE ST 12-1, with drop-frame counting for 29.97 and 59.94."""

from __future__ import annotations

import re

from kitecore.errors import BadInput
from kitecore.ticks.rate import Rate

_FORM = re.compile(r"(\d{1,2}):([0-5]?\d):([0-5]?\d)([:;])(\d{1,3})")


def _dropped_each_minute(rate: Rate) -> int:
    """Frame numbers skipped in each minute but every tenth (ST 12-1, 5.2.2)."""
    is_ntsc = rate.den == 1001 and rate.nominal % 30 == 0
    return rate.nominal // 15 if is_ntsc else 0


def to_timecode(frame: int, rate: Rate, *, drop: bool = False) -> str:
    """Timecode of a frame number.

    Parameters
    ----------
    frame
        Frame number, at least 0; wraps after 24 hours.
    drop
        Count in drop-frame; ignored for rates that have no such counting.

    Returns
    -------
    str
        ``HH:MM:SS:FF``, or ``HH:MM:SS;FF`` in drop-frame.
    """
    skipped = _dropped_each_minute(rate) if drop else 0
    fps = rate.nominal
    if skipped:
        per_minute = fps * 60 - skipped
        per_ten = per_minute * 10 + skipped
        tens, rest = divmod(frame, per_ten)
        minutes_past_first = max(0, (rest - skipped) // per_minute)
        frame += skipped * (9 * tens + minutes_past_first)
    seconds, ff = divmod(frame, fps)
    minutes, ss = divmod(seconds, 60)
    hours, mm = divmod(minutes, 60)
    return f"{hours % 24:02}:{mm:02}:{ss:02}{';' if skipped else ':'}{ff:02}"


def from_timecode(text: str, rate: Rate) -> int:
    """Frame number of a timecode; a semicolon before the frames means drop-frame.

    Raises
    ------
    BadInput
        If the text is no timecode, or names a frame that the counting skips.
    """
    match = _FORM.fullmatch(text.strip())
    if not match:
        raise BadInput(f"{text!r} is not a timecode such as 00:01:02:03.")
    hh, mm, ss, ff = (int(match[group]) for group in (1, 2, 3, 5))
    skipped = _dropped_each_minute(rate) if match[4] == ";" else 0
    if ff >= rate.nominal or (ff < skipped and ss == 0 and mm % 10):
        raise BadInput(f"There is no frame {text} at {rate} frames a second.")
    minutes = hh * 60 + mm
    return (minutes * 60 + ss) * rate.nominal + ff - skipped * (minutes - minutes // 10)
