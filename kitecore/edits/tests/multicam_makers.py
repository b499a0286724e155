"""How edits of multicam clips are drawn by chance."""

from __future__ import annotations

from typing import Any

from hypothesis import strategies as st

from kitecore.edits.tests.picks import (
    MAKERS,
    Pick,
    free,
    lengths,
    maker,
    modes,
    simple,
    takes,
    ticks,
)
from kitecore.edits.tests.populated import SECOND

angles = free(st.integers(0, 3))
moments = free(st.sampled_from([0, SECOND, 2 * SECOND]))
nudges = free(st.integers(-SECOND, SECOND))


def held(pick: Pick) -> st.SearchStrategy[Any]:
    return pick.multicam


cut = st.fixed_dictionaries({"at": ticks, "angle": st.integers(0, 2)})
dissolve = st.builds(lambda length: {"kind": "dissolve", "length": length}, lengths)
place = st.fixed_dictionaries(
    {
        "angle": st.integers(0, 2),
        "file": st.sampled_from([0, 0, 1]),
        "at": st.integers(-SECOND, SECOND),
    }
)
clock = st.fixed_dictionaries(
    {
        "angle": st.integers(0, 2),
        "file": st.sampled_from([0, 0, 1]),
        "drift": st.sampled_from([0.0, 1e-4, -1e-3]),
        "held": ticks,
    }
)
MAKERS |= {
    "add_angles": simple(
        clip=held,
        takes=free(st.lists(takes(("video", "sound")), min_size=1, max_size=3)),
        angle=free(st.none() | st.integers(0, 3)),
        at=nudges,
    ),
    "join_angles": simple(clip=held, angle=angles, into=angles),
    "remove_angle": simple(clip=held, angle=angles),
    "move_angle": simple(clip=held, angle=angles, to=angles),
    "name_angle": simple(
        clip=held, angle=angles, name=free(st.just("far")), tag=free(st.just("sea"))
    ),
    "line_up": simple(clip=held, places=free(st.lists(place, min_size=1, max_size=3))),
    "even_clocks": simple(clip=held, clocks=free(st.lists(clock, min_size=1, max_size=3))),
    "nudge_angle": simple(clip=held, angle=angles, by=nudges),
    "hear_angles": simple(
        clip=held, hears=free(st.lists(st.integers(0, 2), min_size=2, max_size=4))
    ),
    "level_angles": simple(
        clip=held, gains=free(st.lists(st.floats(-60, 12), min_size=2, max_size=4))
    ),
    "switch": simple(
        clip=held,
        cuts=free(st.lists(cut, min_size=1, max_size=4)),
        until=free(st.none() | ticks),
    ),
    "show_angle": simple(clip=held, at=moments, angle=angles),
    "roll_switch": simple(clip=held, at=moments, by=nudges),
    "remove_switch": simple(clip=held, at=moments),
    "cross_switch": simple(
        clip=held, at=free(st.none() | st.just(SECOND)), transition=free(st.none() | dissolve)
    ),
    "lay_out": simple(clip=held),
}


@maker("gather_angles")
def _gather(draw: st.DrawFn, pick: Pick) -> dict[str, Any]:
    rows = draw(st.lists(takes(("video", "sound", "still")), min_size=0, max_size=3))
    return {"takes": rows, "mode": draw(modes), "at": draw(ticks)}
