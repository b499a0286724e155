"""Which tracks are heard."""

from __future__ import annotations

from kitecore.document import Track


def audible(tracks: tuple[Track, ...]) -> list[Track]:
    solo = any(track.solo for track in tracks)
    return [t for t in tracks if not t.muted and (t.solo or not solo)]
