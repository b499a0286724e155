"""Several clips as one, and back."""

from __future__ import annotations

from typing import Literal

from kitecore.document import ClipBase, Document, GroupClip, Id, Place, SolidClip, Track, derived_id
from kitecore.document.strips import TrackStrip
from kitecore.edits._base import EditBase, count, edit_kinds, open_clips
from kitecore.edits._carry import carried, require_plain
from kitecore.edits._lanes import is_free, settled, without
from kitecore.edits._strips import relinked_strip
from kitecore.edits._tidy import tidied
from kitecore.edits._tracks import free_kind, with_track_beside
from kitecore.errors import EditRefused
from kitecore.model import Name
from kitecore.ticks import Span

Found = list[tuple[Track, ClipBase]]


@edit_kinds.register("group")
class Group(EditBase):
    """Clips become one clip, with the same times and look, where the first of them lay.

    With clips of a main track that closes gaps, the group takes their place there; others must not
    reach beyond them.
    """

    kind: Literal["group"] = "group"
    clips: tuple[Id, ...]
    name: Name = "Group"

    def label(self) -> str:
        return f"Group {count(self.clips)}"

    def apply(self, document: Document) -> Document:
        found = open_clips(document, self.clips)
        if not found:
            raise EditRefused("There is nothing to group.", todo="Take clips in hand first.")
        start, end = min(c.start for _, c in found), max(c.end for _, c in found)
        home = _home(found)
        group = GroupClip(
            id=derived_id(self.seed, 0),
            name=self.name,
            start=start,
            length=end - start,
            tracks=self._inner(document, found, start, home),
        )
        if home.closes_gaps:
            _require_row(home, found, Span(start, end))
        mine = {clip.id for _, clip in found}
        for track, _ in found:
            document = document.with_track(track.with_clips(without(track.clips, *mine)))
        target = document.find_track(home.id)
        if target.accepts(group) and is_free(target.clips, group.span):
            return document.with_track(settled(target, (*target.clips, group)))
        new = Track(
            id=derived_id(self.seed, 1),
            kind=free_kind(home),
            name=self.name,
            clips=(group,),
            strip=home.strip,
        )
        return with_track_beside(document, home.id, new)

    def _inner(
        self, document: Document, found: Found, start: int, home: Track
    ) -> tuple[Track, ...]:
        """Their tracks; the group goes through the strip of its home, so that is left out."""
        new = {t.id: derived_id(self.seed, 10 + n) for n, t in enumerate(document.tracks)}
        held = {track.id: new[track.id] for track, _ in found}
        mine = {clip.id for _, clip in found}
        inner: list[Track] = []
        for track in document.tracks:
            clips = tuple(clip.at(clip.start - start) for clip in track.clips if clip.id in mine)
            if not clips:
                continue
            lowest = track.kind != "sound" and not any(t.kind == "main" for t in inner)
            update = {
                "id": new[track.id],
                "kind": "main" if lowest else free_kind(track),
                "clips": clips,
                "closes_gaps": False,
                "solo": False,
                "strip": TrackStrip()
                if track.id == home.id
                else relinked_strip(track.strip, held, -start),
            }
            inner.append(track.model_copy(update=update))
        if not any(track.kind == "main" for track in inner):
            inner.insert(0, Track(id=derived_id(self.seed, 2), kind="main", name="Main"))
        before = document.model_copy(update={"tracks": ()})
        return tidied(before, document.model_copy(update={"tracks": tuple(inner)})).tracks


def _home(found: Found) -> Track:
    """Where the group goes: the main track if it is among them, else the highest with a picture."""
    tracks = [track for track, _ in found]
    pictures = [track for track in tracks if track.kind != "sound"]
    return next((t for t in tracks if t.kind == "main"), (pictures or tracks)[-1])


def _require_row(home: Track, found: Found, span: Span) -> None:
    mine = {clip.id for _, clip in found}
    row = [clip for clip in home.clips if clip.id in mine]
    among = [c for c in home.clips if row[0].start <= c.start < row[-1].end and c.id not in mine]
    if among:
        raise EditRefused(
            f"“{among[0].name}” lies between the clips of the main track.",
            todo="Take it in hand too.",
        )
    if (row[0].start, row[-1].end) != (span.start, span.end):
        raise EditRefused(
            "Clips of other tracks reach beyond those of the main track.",
            todo="Trim them, leave them out, or Raise the others first.",
        )


@edit_kinds.register("ungroup")
class Ungroup(EditBase):
    """The clips of a group as clips of their own again, with the same times and look."""

    kind: Literal["ungroup"] = "ungroup"
    clip: Id

    def label(self) -> str:
        return "Ungroup"

    def apply(self, document: Document) -> Document:
        home, group = _open_group(document, self.clip)
        require_plain(group)
        rows = _shown(group, document.rate.exact.frame_ticks)
        lowest = next((row for row in rows if row.kind != "sound" and row.clips), None)
        if home.kind == "sound":
            lowest = next((row for row in rows if row.clips), None)
        if lowest is None:
            lowest = rows[0]
        filled = (
            _without_holes(lowest.clips, group, self.seed) if home.closes_gaps else lowest.clips
        )
        rest = without(home.clips, group.id)
        document = document.with_track(settled(home, (*rest, *filled)))
        beside, by = home.id, group.start - group.source_in
        outer = {row.id: derived_id(self.seed, n) for n, row in enumerate(rows)}
        outer[lowest.id] = home.id
        for row in rows:
            if row is lowest or not row.clips:
                continue
            new, strip = outer[row.id], relinked_strip(row.strip, outer, by)
            update = {"id": new, "kind": free_kind(row), "closes_gaps": False, "strip": strip}
            document = with_track_beside(document, beside, row.model_copy(update=update))
            beside = beside if row.kind == "sound" else new
        return document


def _open_group(document: Document, clip_id: str) -> tuple[Track, GroupClip]:
    [(track, clip)] = open_clips(document, (clip_id,))
    if not isinstance(clip, GroupClip):
        raise EditRefused(f"“{clip.name}” is not a group.")
    return track, clip


def _shown(group: GroupClip, step: int) -> list[Track]:
    """The inner tracks with the parts of clips that the group shows, as they are outside."""
    low, high = group.used
    rows = []
    for track in group.tracks:
        seen = (clip for clip in track.clips if clip.start < high and clip.end > low)
        parts = (clip.trimmed(max(clip.start, low), min(clip.end, high)) for clip in seen)
        rows.append(track.with_clips(tuple(carried(part, group, step) for part in parts)))
    return rows


def _without_holes(
    clips: tuple[ClipBase, ...], group: GroupClip, seed: str
) -> tuple[ClipBase, ...]:
    """Clips with nothing to see where there was nothing, so that the row keeps its times."""
    out: list[ClipBase] = []
    at = group.start
    for number, clip in enumerate((*clips, None)):
        until = clip.start if clip else group.end
        if until > at:
            out.append(_hole(at, until, derived_id(f"{seed}/hole", number)))
        if clip:
            out.append(clip)
            at = clip.end
    return tuple(out)


def _hole(start: int, end: int, new: str) -> SolidClip:
    return SolidClip(id=new, name="Gap", start=start, length=end - start, opacity=0.0)


@edit_kinds.register("take_out")
class OutOfGroup(EditBase):
    """Clips of a group go out of it, to tracks above it, with the same times and look."""

    kind: Literal["take_out"] = "take_out"
    group: Id
    clips: tuple[Id, ...]

    def label(self) -> str:
        return f"Take {count(self.clips)} out of the group"

    def apply(self, document: Document) -> Document:
        home, group = _open_group(document, self.group)
        require_plain(group)
        inner = document.model_copy(update={"tracks": group.tracks})
        found = open_clips(inner, self.clips)
        low, high = group.used
        step = document.rate.exact.frame_ticks
        for number, (track, clip) in enumerate(found):
            if clip.start >= high or clip.end <= low:
                raise EditRefused(f"“{clip.name}” lies where the group is cut off.")
            row = inner.find_track(track.id)
            inner = inner.with_track(settled(row, without(row.clips, clip.id)))
            part = clip.trimmed(max(clip.start, low), min(clip.end, high))
            document = _laid_above(
                document, home, carried(part, group, step), track, derived_id(self.seed, number)
            )
        home = document.find_track(home.id)
        if not any(track.clips for track in inner.tracks):
            return document.with_track(settled(home, without(home.clips, group.id)))
        if inner.length < high:
            # Nothing to see where it was, so that what comes after the group stays where it is.
            hole = _hole(inner.length, high, derived_id(f"{self.seed}/hole", 0))
            inner = inner.with_track(inner.main.with_clips((*inner.main.clips, hole)))
        return document.with_clip(group.model_copy(update={"tracks": inner.tracks}))


def _laid_above(
    document: Document, home: Track, clip: ClipBase, track: Track, new: str
) -> Document:
    kind = free_kind(track)
    below = next(i for i, t in enumerate(document.tracks) if t.id == home.id)
    for free in document.tracks[0 if kind == "sound" else below + 1 :]:
        if free.kind == kind and not free.locked and is_free(free.clips, clip.span):
            return document.with_track(settled(free, (*free.clips, clip)))
    made = Track(id=new, kind=kind, name=track.name, clips=(clip,))
    return with_track_beside(document, home.id, made)


@edit_kinds.register("put_in")
class IntoGroup(EditBase):
    """Clips go into a group that lies over the same time; their times and look stay."""

    kind: Literal["put_in"] = "put_in"
    group: Id
    clips: tuple[Id, ...]

    def label(self) -> str:
        return f"Put {count(self.clips)} into the group"

    def apply(self, document: Document) -> Document:
        _, group = _open_group(document, self.group)
        require_plain(group)
        if group.place != Place():
            raise EditRefused("The group was moved or sized: clips would change their look in it.")
        inner = document.model_copy(update={"tracks": group.tracks})
        for number, (track, clip) in enumerate(open_clips(document, self.clips)):
            if clip.start < group.start or clip.end > group.end or clip.id == group.id:
                raise EditRefused(
                    f"“{clip.name}” reaches beyond the group.", todo="Trim or move it first."
                )
            if track.closes_gaps:
                raise EditRefused("A clip of the main track has to be raised first.")
            inside = clip.at(clip.start - group.start + group.source_in)
            inner = _laid_above(inner, inner.main, inside, track, derived_id(self.seed, number))
            row = document.find_track(track.id)
            document = document.with_track(row.with_clips(without(row.clips, clip.id)))
        return document.with_clip(group.model_copy(update={"tracks": inner.tracks}))
