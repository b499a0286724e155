"""How edits of captions are drawn by chance."""

from __future__ import annotations

from typing import Any

from hypothesis import strategies as st

from kitecore.edits.tests.mouth_makers import MAKERS
from kitecore.edits.tests.picks import Pick, free, simple, ticks
from kitecore.edits.tests.populated import SECOND

__all__ = ["MAKERS"]


def one(pick: Pick) -> st.SearchStrategy[Any]:
    return pick.caption


def track(pick: Pick) -> st.SearchStrategy[Any]:
    return pick.captions


texts = st.sampled_from(["Wind", "Four folds up", "two\nlines", "one two three four"])
cue = st.fixed_dictionaries({"at": ticks, "until": ticks, "text": texts})
MAKERS |= {
    "lay_captions": simple(cues=free(st.lists(cue, min_size=1, max_size=4))),
    "add_caption": simple(at=free(ticks), text=free(texts)),
    "time_caption": simple(clip=one, at=free(ticks), until=free(ticks)),
    "begin_caption": simple(clip=one, at=free(ticks)),
    "split_caption": simple(clip=one, at_letter=free(st.integers(1, 9))),
    "merge_captions": simple(clip=one),
    "retime_captions": simple(
        track=track,
        by=free(st.integers(-SECOND, SECOND)),
        factor=free(st.floats(0.5, 2)),
        about=free(ticks),
    ),
}
