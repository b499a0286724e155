"""A timeline that was read, on the takes of a project: the step that takes it over."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Mapping
from pathlib import PurePath
from typing import Final

from kitecore.document import Document, Model, dump, load, new_id
from kitecore.edits.take_over import TakeOver
from kitecore.exchange.timelines.context import Data, told
from kitecore.exchange.timelines.fitting import fitted
from kitecore.exchange.timelines.reading import TimelineRead
from kitecore.exchange.timelines.terms import Medium

_GREY: Final = {"kind": "plain", "colour": "#6d6873"}


class TakenOver(Model):
    """The step, and what of the timeline is not as it was."""

    edit: TakeOver
    remarks: tuple[str, ...]
    missing: tuple[str, ...]
    """Files that are not among the takes."""


class _Takes:
    """Finding the takes that clips mean: by id, by the whole name, by the name without its ending."""

    def __init__(self, media: Mapping[str, Medium], names: Mapping[str, str]) -> None:
        self._media = media
        self._names = names
        self._whole = {one.name.casefold(): one for one in media.values()}
        self._stem = {_stem(one.name): one for one in media.values()}
        self.missing: Counter[str] = Counter()

    def named(self, name: str) -> Medium | None:
        return self._whole.get(name.casefold()) or self._stem.get(_stem(name))

    def like(self, id: str) -> Medium | None:
        """The take of an id, or that of the same name."""
        return self._media.get(id) or self.named(self._names.get(id, ""))

    def name_of(self, id: str) -> str:
        return self._names.get(id, "a take without a name")


def _stem(name: str) -> str:
    return PurePath(name).stem.casefold()


def settle(read: TimelineRead, media: Mapping[str, Medium], document: Document) -> TakenOver:
    """The step that lays a timeline on a project.

    A file that is no take is a grey surface of the same length in the picture, and nothing in sound.

    Parameters
    ----------
    media
        The takes of the project, by their ids.
    document
        What the project is now: its canvas stays where the timeline has none.

    Raises
    ------
    BadInput
        If what was read is no document.
    """
    takes = _Takes(media, read.names)
    rate = {"num": read.rate[0], "den": read.rate[1]}
    whole = dump(document) | {"rate": rate, "strip": {}} | read.kept
    tracks = [_track(track, takes) for track in read.tracks]
    taken = load(whole | {"tracks": _with_own_ids(tracks), "markers": list(read.markers)})
    changed: Counter[str] = Counter()
    tracks_that_can_be = fitted(taken.tracks, taken.rate.exact, changed)
    edit = TakeOver.of(taken.model_copy(update={"tracks": tracks_that_can_be}), read.title)
    missing = tuple(name for name, _ in takes.missing.most_common())
    return TakenOver(edit=edit, remarks=(*read.remarks, *told(changed)), missing=missing)


def _track(track: Data, takes: _Takes) -> Data:
    clips = [_clip(clip, track["kind"], takes) for clip in track["clips"]]
    return {**track, "clips": [clip for clip in clips if clip is not None]}


def _clip(clip: Data, kind: str, takes: _Takes) -> Data | None:
    if clip["kind"] == "file":
        return _of_file(clip, kind, takes)
    if "tracks" in clip:
        clip = {**clip, "tracks": [_track(inner, takes) for inner in clip["tracks"]]}
    unknown = [id for id in _ids_of(clip) if takes.like(id) is None]
    if unknown:
        for id in unknown:
            takes.missing[takes.name_of(id)] += 1
        return _placeholder(clip, kind)
    found = {id: _of(takes.like(id)) for id in _ids_of(clip)}
    if "media" in clip:
        return {**clip, "media": found[clip["media"]]}
    if "pictures" in clip:
        return {**clip, "pictures": [found[id] for id in clip["pictures"]]}
    return clip


def _of(medium: Medium | None) -> str:
    assert medium is not None
    return medium.media


def _ids_of(clip: Data) -> list[str]:
    return [*([clip["media"]] if "media" in clip else []), *clip.get("pictures", [])]


_OF_ALL: Final = ("id", "name", "start", "length", "markers", "transition")


def _placeholder(clip: Data, kind: str) -> Data | None:
    if kind == "sound":
        return None
    return {"kind": "solid", "fill": _GREY} | {n: clip[n] for n in _OF_ALL if n in clip}


def _of_file(clip: Data, kind: str, takes: _Takes) -> Data | None:
    medium = takes.named(clip["file"])
    fits = medium is not None and (medium.kind != "still" if kind == "sound" else True)
    if medium is None or not fits or (kind != "sound" and medium.kind == "sound"):
        takes.missing[clip["file"] or "a file without a name"] += 1
        return _placeholder(clip, kind)
    shared = {name: clip[name] for name in _OF_ALL if name in clip}
    if kind == "sound":
        return shared | {"kind": "sound", "media": medium.media} | _source(clip, medium)
    make: Callable[[], Data] = _SEEN[medium.kind]
    return (
        shared
        | make()
        | {"media": medium.media}
        | (_source(clip, medium) | {"muted": clip["muted"]} if medium.kind == "video" else {})
    )


_SEEN: Final[dict[str, Callable[[], Data]]] = {
    "video": lambda: {"kind": "video"},
    "still": lambda: {"kind": "still"},
}


def _source(clip: Data, medium: Medium) -> Data:
    first = clip["source_in"]
    # A file that begins at a timecode is counted from there; ours from their first frame. One that
    # holds all up to the end of what is said to be there is counted from 0.
    if medium.length < clip["ends"]:
        first -= clip["begins"]
    return {
        "source_length": medium.length,
        "source_in": min(max(0, first), medium.length),
        "speed": clip["speed"],
    }


def _with_own_ids(tracks: list[Data]) -> list[Data]:
    """With a new id for whatever has that of another: programs copy clips with all their metadata."""
    known: set[str] = set()

    def fresh(thing: Data) -> Data:
        if thing.get("id") in known:
            thing = {**thing, "id": new_id()}
        known.add(thing.get("id", ""))
        for part in ("tracks", "clips"):
            if part in thing:
                thing = {**thing, part: [fresh(inner) for inner in thing[part]]}
        return thing

    return [fresh(track) for track in tracks]
