"""Takes becoming clips: placed alone, in a row, stacked, or as one clip of numbered stills."""

from __future__ import annotations

import re
from typing import Final, Literal

from pydantic import Field

from kitecore.document import (
    Document,
    Id,
    Model,
    SequenceClip,
    SoundClip,
    StillClip,
    VideoClip,
)
from kitecore.document.references import TakeId
from kitecore.edits._base import EditBase, edit_kinds
from kitecore.edits.place import HOW, Mode, PlaceClip
from kitecore.errors import EditRefused
from kitecore.model import Length, Name, Start
from kitecore.ticks import TICKS_PER_SECOND

STILL_LENGTH: Final = 3 * TICKS_PER_SECOND
"""How long a still is shown unless it is said."""
_EXTENSION: Final = re.compile(r"\.[a-z0-9]{2,5}$", re.IGNORECASE)
_NUMBER: Final = re.compile(r"(\d+)\D*$")
_NUMBERED_END: Final = re.compile(r"[\s._-]*\d*$")


class TakePart(Model):
    """A take as it was found in its file, and the part of it that is meant.

    ``length`` is that of the whole take, nothing for a still; without marks all of it is meant.
    """

    media: TakeId
    name: Name
    kind: Literal["video", "still", "sound"]
    length: Start = 0
    mark_in: Start | None = None
    mark_out: Start | None = None

    @property
    def title(self) -> str:
        """Its name without the ending of a file."""
        return _EXTENSION.sub("", self.name)

    @property
    def number(self) -> int:
        """The last number of its name; -1 where there is none."""
        found = _NUMBER.search(self.title)
        return int(found[1]) if found else -1

    def clip(self, still_length: int, name: str = "") -> VideoClip | StillClip | SoundClip:
        """The part as a clip at the start of a timeline.

        Raises
        ------
        EditRefused
            If the take has no length, or its marks leave none.
        """
        name = name or self.title
        if self.kind == "still":
            return StillClip(id=self.media, name=name, media=self.media, length=still_length)
        end = self.length if self.mark_out is None else min(self.mark_out, self.length)
        begin = self.mark_in or 0
        if begin >= end:
            raise EditRefused(f"Nothing of the take “{self.name}” is marked.")
        kind = VideoClip if self.kind == "video" else SoundClip
        return kind(
            id=self.media,
            name=name,
            media=self.media,
            length=end - begin,
            source_in=begin,
            source_length=self.length,
        )


@edit_kinds.register("place_takes")
class PlaceTakes(EditBase):
    """Put the marked parts of takes on the timeline: one after another, or stacked above the first."""

    kind: Literal["place_takes"] = "place_takes"
    takes: tuple[TakePart, ...] = Field(min_length=1, max_length=500)
    how: Literal["row", "stack"] = "row"
    mode: Mode = "end"
    at: Start = 0
    track: Id | None = None
    still_length: Length = STILL_LENGTH

    def label(self) -> str:
        if len(self.takes) == 1:
            return f"Place “{self.takes[0].title}” {HOW[self.mode]}"
        how = "one after another" if self.how == "row" else "stacked"
        return f"Place {len(self.takes)} takes {how}"

    def apply(self, document: Document) -> Document:
        rate = document.rate.exact
        at = rate.nearest(self.at)
        if self.mode == "end" and len(self.takes) > 1:
            at = document.main.end
        for number, take in enumerate(self.takes):
            clip = take.clip(self.still_length)
            mode: Mode = self.mode if self.how == "row" or not number else "above"
            seed = f"{self.seed}-{number}"
            one = PlaceClip(seed=seed, clip=clip, mode=mode, at=at, track=self.track)
            document = one.apply(document)
            if self.how == "row":
                at += clip.length // rate.frame_ticks * rate.frame_ticks
        return document


@edit_kinds.register("place_sequence")
class PlaceSequence(EditBase):
    """Put numbered stills on the timeline as one clip, in the order of their numbers."""

    kind: Literal["place_sequence"] = "place_sequence"
    takes: tuple[TakePart, ...] = Field(min_length=1, max_length=5000)
    frames_each: int = Field(default=3, ge=1, le=10_000)
    order: Literal["forward", "backward", "there_and_back"] = "forward"
    mode: Mode = "end"
    at: Start = 0

    def label(self) -> str:
        return f"Place {len(self.takes)} stills as one clip"

    def apply(self, document: Document) -> Document:
        if any(take.kind != "still" for take in self.takes):
            raise EditRefused("Only stills become one clip.", todo="Leave the other takes out.")
        rows = sorted(self.takes, key=lambda take: (take.number, take.name))
        clip = SequenceClip(
            id="sequence",
            name=_NUMBERED_END.sub("", rows[0].title) or "Stills",
            pictures=tuple(take.media for take in rows),
            each=self.frames_each * document.rate.exact.frame_ticks,
            order=self.order,
            length=1,
        )
        clip = clip.model_copy(update={"length": clip.once})
        return PlaceClip(seed=self.seed, clip=clip, mode=self.mode, at=self.at).apply(document)
