"""Shape and frame rate of the project."""

from __future__ import annotations

from typing import Any, Literal

from kitecore.document import (
    Canvas,
    ClipBase,
    Document,
    FrameRate,
    Holding,
    MouthClip,
    MulticamClip,
    Track,
)
from kitecore.edits._angles import on_rate
from kitecore.edits._base import EditBase, edit_kinds
from kitecore.edits._lanes import settled
from kitecore.edits._turns import in_order
from kitecore.ticks import Rate


@edit_kinds.register("set_canvas")
class SetCanvas(EditBase):
    kind: Literal["set_canvas"] = "set_canvas"
    canvas: Canvas

    def label(self) -> str:
        return f"Shape {self.canvas.width} × {self.canvas.height}"

    def apply(self, document: Document) -> Document:
        return document.model_copy(update={"canvas": self.canvas})


@edit_kinds.register("set_rate")
class SetRate(EditBase):
    """Another frame rate: every clip keeps its time, to the nearest frame; keys keep theirs."""

    kind: Literal["set_rate"] = "set_rate"
    rate: FrameRate

    def label(self) -> str:
        return f"{self.rate.exact} frames a second"

    def apply(self, document: Document) -> Document:
        rate = self.rate.exact
        tracks = tuple(_retimed(track, rate) for track in document.tracks)
        return document.model_copy(update={"rate": self.rate, "tracks": tracks})


def _retimed(track: Track, rate: Rate) -> Track:
    out: list[ClipBase] = []
    last_end = 0
    for clip in track.clips:
        start = max(rate.nearest(clip.start), last_end)
        end = max(rate.nearest(clip.end), start + rate.frame_ticks)
        if end - start > clip.length + clip.reach[1]:
            end -= rate.frame_ticks
        if end <= start:
            continue
        moved_by = clip.start - start
        clip = clip.with_keys_moved(moved_by) if moved_by else clip
        if isinstance(clip, Holding):
            clip = retimed_within(clip, rate)
            end = min(end, start + max(0, clip.length + clip.reach[1]))
            end -= (end - start) % rate.frame_ticks
            if end <= start:
                continue
        out.append(clip.model_copy(update={"start": start, "length": end - start}))
        last_end = end
    return settled(track, tuple(out))


def retimed_within(clip: Holding, rate: Rate) -> Holding:
    """What a clip holds, on the frames of a rate."""
    if isinstance(clip, MulticamClip):
        return on_rate(clip, rate)
    inner = tuple(_retimed(track, rate) for track in clip.tracks)
    update: dict[str, Any] = {"tracks": inner}
    if isinstance(clip, MouthClip):
        update["turns"] = in_order(
            turn.model_copy(update={"at": rate.nearest(turn.at)}) for turn in clip.turns
        )
    return clip.model_copy(update=update)
