from __future__ import annotations

from typing import Literal

from kitecore.document import ClipBase, Document, Id
from kitecore.edits._base import EditBase, count, edit_kinds, open_clips
from kitecore.edits._lanes import Clips, settled


@edit_kinds.register("remove")
class Remove(EditBase):
    """Delete clips. With ``close`` later clips of their tracks move up; the main track always does."""

    kind: Literal["remove"] = "remove"
    clips: tuple[Id, ...]
    close: bool = False

    def label(self) -> str:
        return f"Delete {count(self.clips)}"

    def apply(self, document: Document) -> Document:
        found = open_clips(document, self.clips)
        gone = {clip.id for _, clip in found}
        for track in {track.id: track for track, _ in found}.values():
            rest = _closed(track.clips, gone) if self.close else _left(track.clips, gone)
            document = document.with_track(settled(track, rest))
        return document


def _left(clips: Clips, gone: set[str]) -> Clips:
    return tuple(clip for clip in clips if clip.id not in gone)


def _closed(clips: Clips, gone: set[str]) -> Clips:
    out: list[ClipBase] = []
    by = 0
    for clip in clips:
        if clip.id in gone:
            by += clip.length
        else:
            out.append(clip.at(clip.start - by))
    return tuple(out)
