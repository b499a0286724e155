"""Markers: named moments, on the timeline or on a clip."""

from __future__ import annotations

from typing import Final, Literal

from pydantic import Field

from kitecore.model import Id, Model, Name, Tick, new_id

MOST_MARKERS: Final = 2000
"""Of the timeline, or of one clip."""

Tag = Literal["", "sky", "amber", "olive", "sea", "violet", "rose"]
"""A colour by name; a page shows the name too."""


class Marker(Model):
    """A moment: of the timeline, or of a clip counted from its start (so it travels with it).

    One that was found in music says that it is a ``beat``, or the first of a bar.
    """

    id: Id = Field(default_factory=new_id)
    at: Tick
    name: Name = ""
    tag: Tag = ""
    beat: Literal["", "beat", "bar"] = ""
