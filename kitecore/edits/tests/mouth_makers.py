"""How edits of mouths are drawn by chance."""

from __future__ import annotations

from typing import Any

from hypothesis import strategies as st

from kitecore.edits.tests.multicam_makers import MAKERS
from kitecore.edits.tests.picks import Pick, free, simple, some, takes, ticks
from kitecore.edits.tests.populated import SECOND

__all__ = ["MAKERS"]

names = st.sampled_from(["closed", "open", "round", "far"])
poses = free(names)


def held(pick: Pick) -> st.SearchStrategy[Any]:
    return pick.mouth


def moments(pick: Pick) -> st.SearchStrategy[Any]:
    return st.lists(pick.turn, min_size=1, max_size=3)


tap = st.fixed_dictionaries({"at": ticks, "pose": names})
turn = st.fixed_dictionaries({"at": ticks, "pose": names, "sure": st.none() | st.floats(0, 1)})
MAKERS |= {
    "say": simple(
        clip=held,
        taps=free(st.lists(tap, min_size=1, max_size=3)),
        until=free(st.none() | ticks),
    ),
    "propose_poses": simple(
        clip=held,
        turns=free(st.lists(turn, min_size=1, max_size=4)),
        until=free(ticks),
        anew=free(st.booleans()),
    ),
    "pose_turns": simple(clip=held, at=moments, pose=poses),
    "remove_turns": simple(clip=held, at=moments),
    "roll_turn": simple(
        clip=held, at=lambda pick: pick.turn, by=free(st.integers(-SECOND, SECOND))
    ),
    "rest_in": simple(
        clip=held, spans=free(st.lists(st.tuples(ticks, ticks), min_size=1, max_size=3))
    ),
    "clear_turns": simple(clip=held),
    "poses_from_markers": simple(clip=held),
    "markers_from_poses": simple(clip=held),
    "mouth_way": simple(
        clip=held,
        way=free(st.sampled_from([{"kind": "swapped"}, {"kind": "bouncing"}, {"kind": "moving"}])),
    ),
    "lay_out_mouth": simple(clip=held),
    "make_mouth": simple(clips=some),
    "add_pose": simple(
        clip=held,
        name=poses,
        take=free(st.none() | takes(("still", "video"))),
        like=free(st.none() | names),
    ),
    "set_pose": simple(
        clip=held,
        pose=poses,
        name=free(st.none() | names),
        take=free(st.none() | takes(("still",))),
    ),
    "remove_pose": simple(clip=held, pose=poses),
    "order_pose": simple(clip=held, pose=poses, to=free(st.integers(0, 5))),
}
