"""The sound of a video as a clip of its own, and clips that go along with others."""

from __future__ import annotations

from typing import Literal

from kitecore.document import ClipBase, Document, Id, SoundClip, VideoClip, derived_id
from kitecore.edits._base import EditBase, count, edit_kinds, open_clips
from kitecore.edits._lanes import is_free, settled, without
from kitecore.edits._tracks import on_free_track
from kitecore.errors import EditRefused


@edit_kinds.register("detach_sound")
class DetachSound(EditBase):
    """The sound of videos as clips of their own, which go along with them; the videos fall silent."""

    kind: Literal["detach_sound"] = "detach_sound"
    clips: tuple[Id, ...]

    def label(self) -> str:
        return "Sound as its own clip"

    def apply(self, document: Document) -> Document:
        found = [c for _, c in open_clips(document, self.clips) if isinstance(c, VideoClip)]
        if not found:
            raise EditRefused("Only videos have a sound to take out.")
        for number, clip in enumerate(found):
            document = document.with_clip(clip.model_copy(update={"muted": True}))
            sound = _sound_of(clip, derived_id(self.seed, 2 * number))
            new = derived_id(self.seed, 2 * number + 1)
            document = on_free_track(document, "sound", (sound,), new)
        return document


def _sound_of(clip: VideoClip, new: str) -> SoundClip:
    shared = {
        name: getattr(clip, name)
        for name in SoundClip.model_fields
        if name not in ("kind", "id", "transition", "markers", "rides")
    }
    return SoundClip(id=new, rides=clip.id, **shared)


@edit_kinds.register("resync")
class Resync(EditBase):
    """Put a sound back to where it is in step with the video it goes along with."""

    kind: Literal["resync"] = "resync"
    clip: Id

    def label(self) -> str:
        return "Back in sync"

    def apply(self, document: Document) -> Document:
        [(track, clip)] = open_clips(document, (self.clip,))
        off = out_of_sync(document, clip)
        if off is None:
            raise EditRefused("This clip does not belong to a video.")
        to = clip.start - off
        rest = without(track.clips, clip.id)
        if to < 0:
            assert isinstance(clip, SoundClip)
            clip, to = clip.trimmed(clip.start - to, clip.end), 0
        moved = clip.at(document.rate.exact.nearest(to))
        if is_free(rest, moved.span):
            return document.with_track(settled(track, (*rest, moved)))
        document = document.with_track(settled(track, rest))
        return on_free_track(document, "sound", (moved,), derived_id(self.seed, 0))


def out_of_sync(document: Document, clip: ClipBase) -> int | None:
    """Ticks by which a sound is late for the video it came from; None if it came from none."""
    if not isinstance(clip, SoundClip) or clip.rides is None:
        return None
    video = next((c for _, c in document.clips() if c.id == clip.rides), None)
    if not isinstance(video, VideoClip) or video.media != clip.media:
        return None
    if not clip.speed.plain or not video.speed.plain:
        return None
    return (clip.start - clip.source_in) - (video.start - video.source_in)


@edit_kinds.register("ride")
class Ride(EditBase):
    """Clips of free tracks go along when the clip ``on`` moves; null lets them stay."""

    kind: Literal["ride"] = "ride"
    clips: tuple[Id, ...]
    on: Id | None = None

    def label(self) -> str:
        return f"{count(self.clips).capitalize()} {'go along' if self.on else 'stay'}"

    def apply(self, document: Document) -> Document:
        if self.on is not None:
            document.find_clip(self.on)
        for track, clip in open_clips(document, self.clips):
            if clip.id == self.on or track.closes_gaps:
                raise EditRefused("Clips of free tracks go along with others.")
            document = document.with_clip(clip.model_copy(update={"rides": self.on}))
        return document
