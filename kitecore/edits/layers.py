"""Layers in front of and behind each other."""

from __future__ import annotations

from typing import Literal

from kitecore.document import Document, Id, Track, derived_id
from kitecore.edits._base import EditBase, count, edit_kinds, open_clips
from kitecore.edits._lanes import is_free, renamed, settled, without
from kitecore.edits._tracks import with_track_beside
from kitecore.errors import EditRefused


@edit_kinds.register("order_layer")
class OrderLayer(EditBase):
    """Put a layer right in front of another one, or right behind it; it keeps its time.

    A layer alone on its track takes that along; one among others, or on the main track, comes to a
    track of its own.
    """

    kind: Literal["order_layer"] = "order_layer"
    clip: Id
    other: Id
    where: Literal["in_front", "behind"] = "in_front"

    def label(self) -> str:
        return f"Put a layer {self.where.replace('_', ' ')}"

    def apply(self, document: Document) -> Document:
        if self.clip == self.other:
            raise EditRefused("A layer is neither in front of itself nor behind.")
        [(home, clip)] = open_clips(document, (self.clip,))
        beside, _ = document.find_clip(self.other)
        if home.kind == "sound" or beside.kind == "sound":
            raise EditRefused("A sound is neither in front nor behind.")
        if home.id == beside.id:
            raise EditRefused("Both are on the same track, one after the other.")
        if home.kind == "picture" and len(home.clips) == 1:
            rest = [track for track in document.tracks if track.id != home.id]
            return self._with(document, rest, home, beside)
        document = document.with_track(settled(home, without(home.clips, clip.id)))
        number = sum(track.kind == "picture" for track in document.tracks) + 1
        own = Track(
            id=derived_id(self.seed, 0), kind="picture", name=f"Above {number}", clips=(clip,)
        )
        return self._with(document, list(document.tracks), own, beside)

    def _with(
        self, document: Document, tracks: list[Track], track: Track, beside: Track
    ) -> Document:
        at = next(i for i, one in enumerate(tracks) if one.id == beside.id)
        tracks.insert(at + (self.where == "in_front"), track)
        return document.model_copy(update={"tracks": tuple(tracks)})


@edit_kinds.register("copy_above")
class CopyAbove(EditBase):
    """A copy of each clip at the same time, on a track right in front of it."""

    kind: Literal["copy_above"] = "copy_above"
    clips: tuple[Id, ...]

    def label(self) -> str:
        return f"Copy {count(self.clips)} in front"

    def apply(self, document: Document) -> Document:
        for number, (home, clip) in enumerate(open_clips(document, self.clips)):
            copy = renamed(clip, f"{self.seed}/{number}")
            copy = copy.model_copy(update={"transition": None, "rides": None})
            index = next(i for i, track in enumerate(document.tracks) if track.id == home.id)
            above = document.tracks[index + 1] if index + 1 < len(document.tracks) else None
            if above and _takes(above, home) and is_free(above.clips, copy.span):
                document = document.with_track(settled(above, (*above.clips, copy)))
                continue
            kind: Literal["sound", "picture"] = "sound" if home.kind == "sound" else "picture"
            name = clip.name[:180] or "Copy"
            track = Track(
                id=derived_id(f"{self.seed}-t", number), kind=kind, name=name, clips=(copy,)
            )
            document = with_track_beside(document, home.id, track)
        return document


def _takes(track: Track, like: Track) -> bool:
    same = (track.kind == "sound") == (like.kind == "sound")
    free = not (track.closes_gaps or track.locked or track.captions)
    return same and free and track.kind != "main"
