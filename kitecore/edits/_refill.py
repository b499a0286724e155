"""What holds tracks, after what it holds was exchanged."""

from __future__ import annotations

from kitecore.document import Holding, Track
from kitecore.edits._lanes import neighbours, settled, swapped
from kitecore.errors import EditRefused


def refilled(track: Track, old: Holding, new: Holding, step: int) -> Track:
    """The track of ``old``, a group or multicam clip, with ``new`` in its place.

    One that showed all that was in it goes on doing so; another keeps its part, as far as there is
    one.

    Raises
    ------
    EditRefused
        If nothing would be left to show.
    """
    if not new.source_end:
        raise EditRefused("That would leave the group empty.", todo="Delete the group instead.")
    wanted = new.source_end if old.whole else min(old.length, new.lasting // step * step)
    _, later = neighbours(track.clips, old.id)
    room = wanted if track.closes_gaps or later is None else later.start - old.start
    length = min(wanted, room)
    if length < step:
        raise EditRefused("The part of the group that is shown would be empty.")
    return settled(track, swapped(track.clips, new.model_copy(update={"length": length})))
