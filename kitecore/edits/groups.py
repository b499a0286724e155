"""Several clips as one, and back."""

from __future__ import annotations

from typing import Literal

from kitecore.document import ClipBase, Document, GroupClip, Id, SolidClip, Track, derived_id
from kitecore.document.model import Name
from kitecore.edits._base import EditBase, count, edit_kinds, open_clips
from kitecore.edits._carry import carried, require_plain
from kitecore.edits._lanes import is_free, settled, swapped
from kitecore.edits._tidy import tidied
from kitecore.errors import EditRefused
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
        start, end = min(c.start for _, c in found), max(c.end for _, c in found)
        group = GroupClip(
            id=derived_id(self.seed, 0),
            name=self.name,
            start=start,
            length=end - start,
            tracks=self._inner(document, found, start),
        )
        home = _home(found)
        if home.closes_gaps:
            _require_row(home, found, Span(start, end))
        mine = {clip.id for _, clip in found}
        for track, _ in found:
            rest = tuple(clip for clip in track.clips if clip.id not in mine)
            document = document.with_track(track.with_clips(rest))
        target = document.find_track(home.id)
        if is_free(target.clips, group.span):
            return document.with_track(settled(target, (*target.clips, group)))
        kind: Literal["picture", "sound"] = "sound" if home.kind == "sound" else "picture"
        return inserted(document, home.id, Track(
            id=derived_id(self.seed, 1), kind=kind, name=self.name, clips=(group,)
        ))  # fmt: skip

    def _inner(self, document: Document, found: Found, start: int) -> tuple[Track, ...]:
        mine = {clip.id for _, clip in found}
        inner: list[Track] = []
        for number, track in enumerate(document.tracks):
            clips = tuple(clip.at(clip.start - start) for clip in track.clips if clip.id in mine)
            if not clips:
                continue
            lowest = track.kind != "sound" and not any(t.kind == "main" for t in inner)
            update = {
                "id": derived_id(self.seed, 10 + number),
                "kind": "main" if lowest else "sound" if track.kind == "sound" else "picture",
                "clips": clips,
                "closes_gaps": False,
                "solo": False,
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


def inserted(document: Document, beside: str, track: Track) -> Document:
    """With a new track right above the one ``beside``."""
    at = next(i for i, t in enumerate(document.tracks) if t.id == beside) + 1
    tracks = (*document.tracks[:at], track, *document.tracks[at:])
    return document.model_copy(update={"tracks": tracks})


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
        rows = _shown(group)
        lowest = next((row for row in rows if row.kind != "sound" and row.clips), None)
        if home.kind == "sound":
            lowest = next((row for row in rows if row.clips), None)
        if lowest is None:
            lowest = rows[0]
        filled = (
            _without_holes(lowest.clips, group, self.seed) if home.closes_gaps else lowest.clips
        )
        rest = tuple(clip for clip in home.clips if clip.id != group.id)
        document = document.with_track(settled(home, (*rest, *filled)))
        beside = home.id
        for number, row in enumerate(rows):
            if row is lowest or not row.clips:
                continue
            kind: Literal["picture", "sound"] = "sound" if row.kind == "sound" else "picture"
            update = {"id": derived_id(self.seed, number), "kind": kind, "closes_gaps": False}
            new = row.model_copy(update=update)
            if kind == "sound":
                document = document.model_copy(update={"tracks": (*document.tracks, new)})
            else:
                document = inserted(document, beside, new)
                beside = new.id
        return document


def _open_group(document: Document, clip_id: str) -> tuple[Track, GroupClip]:
    [(track, clip)] = open_clips(document, (clip_id,))
    if not isinstance(clip, GroupClip):
        raise EditRefused(f"“{clip.name}” is not a group.")
    return track, clip


def _shown(group: GroupClip) -> list[Track]:
    """The inner tracks with the parts of clips that the group shows, as they are outside."""
    low, high = group.used
    rows = []
    for track in group.tracks:
        seen = (clip for clip in track.clips if clip.start < high and clip.end > low)
        parts = (clip.trimmed(max(clip.start, low), min(clip.end, high)) for clip in seen)
        update = {
            "clips": tuple(carried(part, group) for part in parts),
            "hidden": track.hidden,
        }
        rows.append(track.model_copy(update=update))
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
            new = derived_id(f"{seed}/hole", number)
            out.append(SolidClip(id=new, name="Gap", start=at, length=until - at, opacity=0.0))
        if clip:
            out.append(clip)
            at = clip.end
    return tuple(out)


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
        for number, (track, clip) in enumerate(found):
            if clip.start >= high or clip.end <= low:
                raise EditRefused(f"“{clip.name}” lies where the group is cut off.")
            rest = tuple(c for c in inner.find_track(track.id).clips if c.id != clip.id)
            inner = inner.with_track(settled(inner.find_track(track.id), rest))
            part = clip.trimmed(max(clip.start, low), min(clip.end, high))
            document = _laid_above(
                document, home, carried(part, group), track, derived_id(self.seed, number)
            )
        home = document.find_track(home.id)
        if not any(track.clips for track in inner.tracks):
            rest = tuple(clip for clip in home.clips if clip.id != group.id)
            return document.with_track(settled(home, rest))
        held = group.model_copy(update={"tracks": inner.tracks})
        if held.source_end < high:
            # Nothing to see where it was, so that what comes after the group stays where it is.
            hole = SolidClip(
                id=derived_id(f"{self.seed}/hole", 0),
                name="Gap",
                start=held.source_end,
                length=high - held.source_end,
                opacity=0.0,
            )
            bottom = inner.main
            inner = inner.with_track(bottom.with_clips((*bottom.clips, hole)))
            held = group.model_copy(update={"tracks": inner.tracks})
        return document.with_track(settled(home, swapped(home.clips, held)))


def _laid_above(
    document: Document, home: Track, clip: ClipBase, track: Track, new: str
) -> Document:
    sound = track.kind == "sound"
    kind: Literal["picture", "sound"] = "sound" if sound else "picture"
    below = next(i for i, t in enumerate(document.tracks) if t.id == home.id)
    for free in document.tracks[0 if sound else below + 1 :]:
        if free.kind == kind and not free.locked and is_free(free.clips, clip.span):
            return document.with_track(settled(free, (*free.clips, clip)))
    made = Track(id=new, kind=kind, name=track.name, clips=(clip,))
    if sound:
        return document.model_copy(update={"tracks": (*document.tracks, made)})
    return inserted(document, home.id, made)


@edit_kinds.register("put_in")
class IntoGroup(EditBase):
    """Clips go into a group that lies over the same time; their times and look stay."""

    kind: Literal["put_in"] = "put_in"
    group: Id
    clips: tuple[Id, ...]

    def label(self) -> str:
        return f"Put {count(self.clips)} into the group"

    def apply(self, document: Document) -> Document:
        home, group = _open_group(document, self.group)
        require_plain(group)
        found = open_clips(document, self.clips)
        inner = document.model_copy(update={"tracks": group.tracks})
        for number, (track, clip) in enumerate(found):
            if clip.start < group.start or clip.end > group.end or clip.id == group.id:
                raise EditRefused(
                    f"“{clip.name}” reaches beyond the group.", todo="Trim or move it first."
                )
            if track.closes_gaps:
                raise EditRefused("A clip of the main track has to be raised first.")
            inside = clip.at(clip.start - group.start + group.source_in)
            bottom = inner.main
            inner = _laid_above(inner, bottom, inside, track, derived_id(self.seed, number))
            rest = tuple(c for c in document.find_track(track.id).clips if c.id != clip.id)
            document = document.with_track(document.find_track(track.id).with_clips(rest))
        held = group.model_copy(update={"tracks": inner.tracks})
        if group.place != type(group.place)():
            raise EditRefused("The group was moved or sized: clips would change their look in it.")
        home = document.find_track(home.id)
        return document.with_track(settled(home, swapped(home.clips, held)))
