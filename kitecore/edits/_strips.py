"""Strips of tracks that become inner ones, or copies, or outer ones again."""

from __future__ import annotations

from collections.abc import Mapping

from kitecore.document.properties import map_keys
from kitecore.document.strips import TrackStrip


def relinked_strip(strip: TrackStrip, new: Mapping[str, str], by: int = 0) -> TrackStrip:
    """A strip with its keys ``by`` ticks later, that steps back under tracks by their ``new`` ids.

    Those that have none are not beside it any more.
    """
    strip = map_keys(strip, lambda keys: keys.moved(by)) if by else strip
    if strip.under is None:
        return strip
    tracks = tuple(new[track] for track in strip.under.tracks if track in new)
    under = strip.under.model_copy(update={"tracks": tracks}) if tracks else None
    return strip.model_copy(update={"under": under})
