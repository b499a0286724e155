"""Texts whose words are lit while they are said."""

from __future__ import annotations

from bisect import bisect_right
from itertools import accumulate

from kitecore.document import TextClip
from kitecore.motion import value_at
from kitecore.picture.drawing.text import units


def lit_at(now: TextClip, clip: TextClip, tick: int) -> TextClip:
    """A clip as it is ``now``, without keys, in which it is known what is said at a tick of its own."""
    said = None if clip.lit is None else word_at(clip, tick)
    return now if said == now.said else now.model_copy(update={"said": said})


def word_at(clip: TextClip, tick: int) -> int:
    """The number of the word that is being said at a tick of the clip, from 1 on; 0 if none is.

    Where that is not told, words are spread over the time for which they stand by their letters.
    """
    if clip.said is not None:
        return int(value_at(clip.said, tick))
    at = clip.start + min(max(tick, 0), clip.length - 1)
    said = next(one for one in clip.sayings if at < one.end)
    spans = units(said.words, "word")
    if not spans:
        return 0
    ends = list(accumulate(last - first + 1 for first, last in spans))
    share = (at - said.begin) / (said.end - said.begin)
    return min(bisect_right(ends, share * ends[-1]) + 1, len(spans))
