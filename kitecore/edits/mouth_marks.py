"""Markers that become poses of a mouth, and poses that become markers."""

from __future__ import annotations

from typing import Literal

from kitecore.document import Document, Id, Marker, Turn, derived_id
from kitecore.document.marker import MOST_MARKERS
from kitecore.edits._base import EditBase, edit_kinds
from kitecore.edits._turns import in_order, open_mouth, own_time, with_turns
from kitecore.errors import EditRefused


@edit_kinds.register("poses_from_markers")
class PosesFromMarkers(EditBase):
    """Markers named like a pose, on the mouth or over it on the timeline, become that pose there."""

    kind: Literal["poses_from_markers"] = "poses_from_markers"
    clip: Id

    def label(self) -> str:
        return "Make poses of markers"

    def apply(self, document: Document) -> Document:
        clip = open_mouth(document, self.clip)
        mine = [(clip.start + one.at, one.name) for one in clip.markers]
        above = [(one.at, one.name) for one in document.markers if clip.start <= one.at < clip.end]
        known = {name.casefold(): name for name in clip.poses}
        new = [
            Turn(at=own_time(document, clip, at), pose=known[name.casefold()], by_hand=True)
            for at, name in (*above, *mine)
            if name.casefold() in known
        ]
        if not new:
            raise EditRefused(
                "No marker here has the name of a pose.", todo="Name markers like poses first."
            )
        return with_turns(document, clip, in_order([*clip.turns, *new]))


@edit_kinds.register("markers_from_poses")
class MarkersFromPoses(EditBase):
    """A marker on the mouth for each change of pose that is seen, by its name."""

    kind: Literal["markers_from_poses"] = "markers_from_poses"
    clip: Id

    def label(self) -> str:
        return "Make markers of poses"

    def apply(self, document: Document) -> Document:
        clip = open_mouth(document, self.clip)
        low, high = clip.used
        seen = [(one.at - low, one.pose) for one in clip.turns if low <= one.at < high]
        if not clip.speed.plain or not seen:
            raise EditRefused("Its poses cannot become markers: there are none, or it is paced.")
        if len(seen) > MOST_MARKERS:
            raise EditRefused(f"A clip has at most {MOST_MARKERS} markers.")
        markers = tuple(
            Marker(id=derived_id(self.seed, number), at=at, name=name)
            for number, (at, name) in enumerate(seen)
        )
        return document.with_clip(clip.model_copy(update={"markers": markers}))
