"""Watching a document faster, slower or backwards, with its sound."""

from __future__ import annotations

from kitecore.document import Document, GroupClip, Speed, Track
from kitecore.errors import BadInput


def shuttled(document: Document, speed: float) -> Document:
    """A document whose frame ``n`` is frame ``n * speed`` of ``document``, from its end if negative.

    It is one group that runs at that speed, so that picture and sound come the usual way; the pitch
    goes along, as on a tape.

    Raises
    ------
    BadInput
        If nothing would be left to watch.
    """
    step = document.rate.exact.frame_ticks
    length = int(document.length / abs(speed)) // step * step if speed else 0
    if not length:
        raise BadInput("There is nothing to play at that speed.")
    group = GroupClip(
        id="shuttle",
        tracks=document.tracks,
        source_in=0 if speed > 0 else document.length,
        speed=Speed.steady(speed),
        length=length,
        keep_pitch=False,
        silent_below=0.0,
    )
    main = Track(id="shuttle-track", kind="main", clips=(group,))
    return document.model_copy(update={"tracks": (main,), "markers": ()})
