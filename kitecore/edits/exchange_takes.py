from __future__ import annotations

from typing import Final, Literal

from pydantic import Field

from kitecore.document import ClipBase, Document, Holding, Model, Paced, SequenceClip, Track
from kitecore.document.references import TakeId
from kitecore.edits._base import EditBase, edit_kinds, require_open
from kitecore.edits._sources import as_long, shown_as
from kitecore.edits.takes import STILL_LENGTH, TakePart
from kitecore.errors import EditRefused

MOST_PAIRS: Final = 500


class Exchange(Model):
    """Another take wherever one is used."""

    media: TakeId
    take: TakePart


@edit_kinds.register("exchange_takes")
class ExchangeTakes(EditBase):
    """Other takes in a film that stays as it is: a template.

    In every clip, groups and angles included, place, effects, sound and length stay; a take that is too
    short for a clip runs slower in it.
    """

    kind: Literal["exchange_takes"] = "exchange_takes"
    pairs: tuple[Exchange, ...] = Field(min_length=1, max_length=MOST_PAIRS)

    def label(self) -> str:
        if len(self.pairs) == 1:
            return f"Exchange a take for “{self.pairs[0].take.title}”"
        return f"Exchange {len(self.pairs)} takes"

    def apply(self, document: Document) -> Document:
        takes = {pair.media: pair.take for pair in self.pairs}
        if not document.media_ids() & set(takes):
            raise EditRefused("None of these takes is used in the film.")
        tracks = tuple(_track(track, takes) for track in document.tracks)
        return document.model_copy(update={"tracks": tracks})


Takes = dict[str, TakePart]


def _track(track: Track, takes: Takes) -> Track:
    clips = tuple(_clip(clip, takes, track) for clip in track.clips)
    if all(new is old for new, old in zip(clips, track.clips, strict=True)):
        return track
    require_open(track)
    return track.with_clips(clips)


def _clip(clip: ClipBase, takes: Takes, track: Track) -> ClipBase:
    if isinstance(clip, Holding):
        tracks = tuple(_track(inner, takes) for inner in clip.tracks)
        same = all(new is old for new, old in zip(tracks, clip.tracks, strict=True))
        return clip if same else clip.model_copy(update={"tracks": tracks})
    if isinstance(clip, SequenceClip):
        return _pictures(clip, takes)
    take = takes.get(getattr(clip, "media", ""))
    if take is None:
        return clip
    new = shown_as(_source(take, track), clip)
    return as_long(new) if isinstance(new, Paced) else new


def _source(take: TakePart, track: Track) -> ClipBase:
    source = take.clip(STILL_LENGTH)
    if track.kind == "sound" and source.kind == "video":
        source = take.model_copy(update={"kind": "sound"}).clip(STILL_LENGTH)
    if not track.accepts(source):
        raise EditRefused(f"“{take.title}” cannot be used where the other take is.")
    return source


def _pictures(clip: SequenceClip, takes: Takes) -> ClipBase:
    wanted = [takes[id] for id in clip.pictures if id in takes]
    if not wanted:
        return clip
    if any(take.kind != "still" for take in wanted):
        raise EditRefused("A row of stills is made of stills.")
    pictures = tuple(takes[id].media if id in takes else id for id in clip.pictures)
    return clip.model_copy(update={"pictures": pictures})
