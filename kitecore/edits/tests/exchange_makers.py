"""How the edit that takes over a timeline is drawn by chance."""

from __future__ import annotations

from hypothesis import strategies as st

from kitecore.edits.tests.caption_makers import MAKERS
from kitecore.edits.tests.picks import free, simple
from kitecore.edits.tests.populated import SECOND

__all__ = ["MAKERS"]

lengths = st.integers(1, 9).map(lambda number: number * SECOND)
clip = st.fixed_dictionaries({"kind": st.just("solid"), "length": lengths})
main = clip.map(lambda one: {"kind": "main", "clips": [one]})
rate = st.sampled_from([{"num": 25, "den": 1}, {"num": 50, "den": 1}])
take = st.fixed_dictionaries(
    {
        "media": st.sampled_from(["m1", "m2", "m3"]),
        "name": st.just("other.mp4"),
        "kind": st.sampled_from(["video", "still", "sound"]),
        "length": lengths,
    }
)
pair = st.fixed_dictionaries({"media": st.sampled_from(["m1", "m2"]), "take": take})
MAKERS |= {
    "exchange_takes": simple(pairs=free(st.lists(pair, min_size=1, max_size=2))),
    "take_over": simple(tracks=free(main.map(lambda one: [one])), rate=free(rate)),
}
