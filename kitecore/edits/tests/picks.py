"""What edits can name in a document, and how the fields of each kind are drawn by chance."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from hypothesis import strategies as st

from kitecore.document import Document, GroupClip, MouthClip, MulticamClip
from kitecore.document.properties import Keys
from kitecore.edits.tests.populated import SECOND

ticks = st.integers(0, 12 * SECOND)
lengths = st.integers(SECOND // 10, 4 * SECOND)


class Pick:
    """What edits of a document can name."""

    def __init__(self, document: Document) -> None:
        clips = [clip for _, clip in document.clips()]
        ids = [clip.id for clip in clips]
        self.clip = st.sampled_from(ids or ["gone"])
        self.some = st.lists(self.clip, min_size=1, max_size=3, unique=True)
        self.track = st.sampled_from([track.id for track in document.tracks] or ["gone"])
        self.multicam = st.sampled_from(
            [clip.id for clip in clips if isinstance(clip, MulticamClip)] or ["gone"]
        )
        captions = [track for track in document.tracks if track.captions]
        self.captions = st.sampled_from([track.id for track in captions] or ["gone"])
        said = [clip.id for track in captions for clip in track.clips]
        self.caption = st.sampled_from(said or ["gone"])
        mouths = [clip for clip in clips if isinstance(clip, MouthClip)]
        self.mouth = st.sampled_from([clip.id for clip in mouths] or ["gone"])
        turns = [one.at for clip in mouths for one in clip.turns]
        self.turn = st.sampled_from(turns or [7])
        groups = [clip for clip in clips if isinstance(clip, GroupClip)]
        self.group = st.sampled_from([clip.id for clip in groups] or ["gone"])
        inner = [clip.id for group in groups for track in group.tracks for clip in track.clips]
        self.inner = st.lists(
            st.sampled_from(inner or ["gone"]), min_size=1, max_size=2, unique=True
        )
        cells = [clip.cell.screen for clip in clips if getattr(clip, "cell", None)]
        self.screen = st.sampled_from(cells or ["gone"])
        markers = [m.id for m in document.markers] + [m.id for c in clips for m in c.markers]
        grades = [clip.grade for clip in clips if getattr(clip, "grade", None)]
        zones = [zone.id for grade in grades for zone in grade.zones]
        self.zone = st.sampled_from(zones or ["gone"])
        rows = ("masks", "effects", "strokes")
        parts = [part for clip in clips for row in rows for part in getattr(clip, row, ())]
        strips = [document.strip, *(track.strip for track in document.tracks)]
        inserts = [one.id for strip in strips for one in strip.chain]
        self.insert = st.sampled_from(inserts or ["gone"])
        self.part = st.sampled_from([part.id for part in parts] or ["gone"])
        self.marker = st.sampled_from(markers or ["gone"])
        keyed = [
            {"clip": clip.id, "path": path, "at": [key.at for key in prop.keys]}
            for clip in clips
            for path, prop in (
                ("opacity", getattr(clip, "opacity", None)),
                ("place/position", getattr(getattr(clip, "place", None), "position", None)),
            )
            if isinstance(prop, Keys)
        ]
        gone = {"clip": ids[0] if ids else "gone", "path": "opacity", "at": [7]}
        self.keys = st.lists(st.sampled_from(keyed or [gone]), min_size=1, max_size=2)


Maker = Callable[[st.DrawFn, Pick], dict[str, Any]]
MAKERS: dict[str, Maker] = {}
"""For each kind of edit, how its fields are drawn by chance."""


def maker(kind: str) -> Callable[[Maker], Maker]:
    def keep(make: Maker) -> Maker:
        MAKERS[kind] = make
        return make

    return keep


def simple(**fields: Callable[[Pick], st.SearchStrategy[Any]]) -> Maker:
    return lambda draw, pick: {name: draw(found(pick)) for name, found in fields.items()}


def some(pick: Pick) -> st.SearchStrategy[Any]:
    return pick.some


def one(pick: Pick) -> st.SearchStrategy[Any]:
    return pick.clip


def free(strategy: st.SearchStrategy[Any]) -> Callable[[Pick], st.SearchStrategy[Any]]:
    return lambda pick: strategy


modes = st.sampled_from(["end", "push", "over", "above"])


def takes(kinds: tuple[str, ...] = ("video", "still", "sound")) -> st.SearchStrategy[Any]:
    marks = st.none() | st.integers(0, 6 * SECOND)
    return st.fixed_dictionaries(
        {
            "media": st.sampled_from(["ma", "mb"]),
            "name": st.sampled_from(["launch.mp4", "star-07.png", "star-10.png", ""]),
            "kind": st.sampled_from(kinds),
            "length": st.integers(0, 9 * SECOND),
            "mark_in": marks,
            "mark_out": marks,
        }
    )
