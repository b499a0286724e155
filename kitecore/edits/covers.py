"""Covers over what is tracked: so strong that nothing of it can be made out again."""

from __future__ import annotations

from typing import Annotated, Any, Final, Literal

from pydantic import Field

from kitecore.document import AdjustmentClip, Document, Id, Pictured, SolidClip, Track, derived_id
from kitecore.document.model import Real, Tick
from kitecore.document.properties import Hex, Vector
from kitecore.edits._base import EditBase, edit_kinds, open_clips
from kitecore.edits._tracks import with_track_beside
from kitecore.edits.motion import FollowLayer
from kitecore.errors import EditRefused

How = Literal["mosaic", "soft_blur", "plain"]
_SQUARES: Final = 5
"""Of a mosaic, across what is covered: so few that no face is known by them."""
_BLUR: Final = 0.3
"""Sigma of a blur in shares of what is covered: what is left are its colours."""
_EDGE: Final = 0.08
"""Softness outwards, in shares of what is covered."""

Half = Annotated[float, Field(gt=0, le=4)]


@edit_kinds.register("cover_tracked")
class CoverTracked(EditBase):
    """Cover what a tracker of a clip follows, right above it.

    ``centre`` and ``size`` (half of its width and height) are how it lies on the canvas at tick
    ``at`` of the timeline, in heights of that, from its middle.
    """

    kind: Literal["cover_tracked"] = "cover_tracked"
    clip: Id
    tracker: Id
    how: How = "mosaic"
    shape: Literal["ellipse", "rectangle"] = "ellipse"
    centre: Vector
    size: tuple[Half, Half]
    turn: Real = 0.0
    colour: Hex = "#17141a"
    at: Tick = 0

    def label(self) -> str:
        return "Cover what is tracked"

    def apply(self, document: Document) -> Document:
        [(track, clip)] = open_clips(document, (self.clip,))
        if not isinstance(clip, Pictured):
            raise EditRefused("There is no picture to be covered.")
        cover = self._cover(document).model_copy(
            update={"start": clip.start, "length": clip.length}
        )
        row = Track(id=derived_id(self.seed, 1), kind="picture", name="Cover").with_clips((cover,))
        document = with_track_beside(document, track.id, row)
        follow = FollowLayer(clips=(cover.id,), leader=clip.id, tracker=self.tracker, at=self.at)
        return follow.apply(document)

    def _cover(self, document: Document) -> AdjustmentClip | SolidClip:
        wide = 2 * max(self.size)
        mask = {
            "kind": self.shape,
            "id": derived_id(self.seed, 2),
            "centre": self.centre,
            "size": self.size,
            "turn": self.turn,
            "outwards": min(_EDGE * wide, 0.5),
        }
        facts: dict[str, Any] = {
            "id": derived_id(self.seed, 0),
            "name": "Cover",
            "length": 1,
            "masks": [mask],
        }
        if self.how == "plain":
            fill = {"kind": "plain", "colour": self.colour}
            return SolidClip.model_validate({**facts, "kind": "solid", "fill": fill})
        pixels = wide * document.canvas.height
        strength = (
            {"side": max(8.0, pixels / _SQUARES)}
            if self.how == "mosaic"
            else {"sigma": max(4.0, pixels * _BLUR)}
        )
        effect = {"kind": self.how, "id": derived_id(self.seed, 3), **strength}
        return AdjustmentClip.model_validate({**facts, "kind": "adjustment", "effects": [effect]})
