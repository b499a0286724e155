"""Tracks that are hidden, muted, or left out because another is solo: by accident, perhaps."""

from collections.abc import Iterator
from typing import Any

from kitecore.document import Track
from kitecore.render.checking._base import Check, Film, Finding, checks


def _left_out(film: Film) -> Iterator[Finding]:
    tracks = [one for one in film.document.tracks if one.clips and not one.captions]
    for track in tracks:
        if track.kind != "sound" and track.hidden:
            yield _told(track, "is hidden: it is not seen in the film", hidden=False)
        elif track.kind == "sound" and track.muted:
            yield _told(track, "is muted: it is not heard in the film", muted=False)
        elif track.solo and not all(one.solo for one in tracks):
            # Of pictures a solo leaves out what others show, and of all what others sound.
            lose = "heard" if track.kind == "sound" else "seen or heard"
            yield _told(track, f"is solo: no other track is {lose} in the film", solo=False)


def _told(track: Track, what: str, **values: Any) -> Finding:
    name = f"“{track.name}”" if track.name else "A track"
    return Finding(
        check="left_out",
        grade="doubt",
        message=f"{name} {what}.",
        at=track.clips[0].start,
        until=track.end,
        clip=track.clips[0].id,
        mend={"kind": "set_track", "track": track.id, **values},
    )


checks.register("left_out")(Check(label="No track is left out", of="file", run=_left_out))
