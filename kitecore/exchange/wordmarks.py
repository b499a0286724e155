"""Times of words within captions (WebVTT, 4.2.2: cue timestamps), read and written."""

from __future__ import annotations

import html
import re
from itertools import pairwise
from typing import Final

_TIME: Final = re.compile(r"<(?:(\d+):)?(\d\d):(\d\d)\.(\d{3})>")
_OPEN, _CLOSE = "\ue000", "\ue001"
_MARK: Final = re.compile(f"{_OPEN}(\\d+){_CLOSE}")


def marked(text: str) -> str:
    """A file's text in which timestamps within captions are marks that readers leave alone."""

    def mark(found: re.Match[str]) -> str:
        hours, minutes, seconds, thousandths = (int(part or 0) for part in found.groups())
        return f"{_OPEN}{((hours * 60 + minutes) * 60 + seconds) * 1000 + thousandths}{_CLOSE}"

    return _TIME.sub(mark, text)


def parted(text: str, start: int, end: int) -> tuple[str, tuple[int, ...]]:
    """A caption without its marks, and when each of its words begins, in milliseconds.

    Words that no mark parts are spread over the time between two by their letters; there are no times
    where there are no marks.
    """
    pieces = _MARK.split(text)
    said, times = pieces[::2], [start, *map(int, pieces[1::2])]
    whole = "".join(said)
    if len(times) == 1:
        return whole, ()
    begins: list[int] = []
    for words, (low, high) in zip(said, pairwise([*times, end]), strict=True):
        letters = max(len(words.strip()), 1)
        at = [found.start() for found in re.finditer(r"\S+", words)]
        lead = len(words) - len(words.lstrip())
        begins += [low + round((high - low) * (place - lead) / letters) for place in at]
    # A mark within a word parts no words.
    return whole, tuple(begins) if len(begins) == len(whole.split()) else ()


def written(text: str, begins: tuple[int, ...]) -> str:
    """A caption as WebVTT says it, with a timestamp before each word but the first."""
    if len(begins) != len(text.split()):
        return html.escape(text, quote=False)
    words = re.split(r"(\s+)", text.strip())
    out = html.escape(words[0], quote=False)
    for space, word, at in zip(words[1::2], words[2::2], begins[1:], strict=True):
        out += f"{space}<{_clock(at)}>{html.escape(word, quote=False)}"
    return out


def _clock(milliseconds: int) -> str:
    seconds, thousandths = divmod(milliseconds, 1000)
    minutes, seconds = divmod(seconds, 60)
    return f"{minutes // 60:02}:{minutes % 60:02}:{seconds:02}.{thousandths:03}"
