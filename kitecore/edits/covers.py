"""Covers over what is tracked: so strong that nothing of it can be made out again."""

from __future__ import annotations

from typing import Annotated, Any, Final, Literal

from pydantic import Field

from kitecore.document import (
    AdjustmentClip,
    Document,
    Id,
    Pictured,
    SolidClip,
    StillClip,
    Track,
    derived_id,
)
from kitecore.document.covers import STRENGTHS
from kitecore.document.properties import Hex, Vector
from kitecore.document.references import TakeId
from kitecore.edits._base import EditBase, edit_kinds, open_clips
from kitecore.edits._tracks import with_track_beside
from kitecore.edits.motion import FollowLayer
from kitecore.errors import EditRefused
from kitecore.model import Model, Real, Tick

How = Literal["mosaic", "soft_blur", "plain"]
Cover = AdjustmentClip | SolidClip | StillClip
_EDGE: Final = 0.08
"""Softness outwards, in shares of what is covered."""

Half = Annotated[float, Field(gt=0, le=4)]


class CoverPicture(Model):
    """A still that is laid as a cover, ``aspect`` times as wide as it is high."""

    media: TakeId
    aspect: float = Field(gt=0.02, lt=50)


@edit_kinds.register("cover_tracked")
class CoverTracked(EditBase):
    """Cover what a tracker of a clip follows, right above it.

    ``centre`` and ``size`` (half of its width and height) are how it lies on the canvas at tick
    ``at`` of the timeline, in heights of that, from its middle. At most what it covers ``grows`` to so
    many times its size, and it is as strong as that needs. A ``picture`` fills that, above a
    plain cover: it may be clear in places.
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
    grows: float = Field(default=1.0, ge=1, le=100)
    picture: CoverPicture | None = None

    def label(self) -> str:
        return "Cover what is tracked"

    def apply(self, document: Document) -> Document:
        [(track, clip)] = open_clips(document, (self.clip,))
        if not isinstance(clip, Pictured):
            raise EditRefused("There is no picture to be covered.")
        covers = [self._cover(document)]
        if self.picture is not None:
            covers.append(self._pictured(self.picture, document))
        below = track.id
        for number, cover in enumerate(covers):
            placed = cover.model_copy(update={"start": clip.start, "length": clip.length})
            row = Track(id=derived_id(self.seed, 10 + number), kind="picture", name="Cover")
            document = with_track_beside(document, below, row.with_clips((placed,)))
            below = row.id
        ids = tuple(cover.id for cover in covers)
        follow = FollowLayer(clips=ids, leader=clip.id, tracker=self.tracker, at=self.at)
        return follow.apply(document)

    def _facts(self, number: int, **mask: Any) -> dict[str, Any]:
        """What all covers have; the mask is that of ``centre`` and ``size`` unless told otherwise."""
        ids = [derived_id(self.seed, 3 * number + part) for part in (0, 2)]
        size: tuple[float, float] = mask.get("size", self.size)
        whole = {
            "kind": self.shape,
            "id": ids[1],
            "centre": self.centre,
            "size": size,
            "turn": self.turn,
            "outwards": min(2 * _EDGE * max(size), 0.5),
            **mask,
        }
        return {"id": ids[0], "name": "Cover", "length": 1, "masks": [whole]}

    def _cover(self, document: Document) -> Cover:
        facts = self._facts(0)
        if self.how == "plain" or self.picture is not None:
            fill = {"kind": "plain", "colour": self.colour}
            return SolidClip.model_validate({**facts, "kind": "solid", "fill": fill})
        pixels = 2 * max(self.size) * document.canvas.height * self.grows
        strength = STRENGTHS[self.how]
        named = {"kind": self.how, "id": derived_id(self.seed, 1)}
        effect = {**named, strength.number: strength.over(pixels)}
        return AdjustmentClip.model_validate({**facts, "kind": "adjustment", "effects": [effect]})

    def _pictured(self, picture: CoverPicture, document: Document) -> Cover:
        """The still, as large as fills the cover, and of its form."""
        canvas = document.canvas
        high = min(1.0, canvas.width / canvas.height / picture.aspect)
        wide, (across, down) = high * picture.aspect, self.size
        larger = max(2 * across / wide, 2 * down / high)
        within = (across / (high * larger), down / (high * larger))
        place = {
            "position": tuple(one * canvas.height for one in self.centre),
            "size": (larger, larger),
            "turn": self.turn,
        }
        facts = self._facts(1, centre=(0.0, 0.0), size=within, turn=0.0)
        return StillClip.model_validate({**facts, "media": picture.media, "place": place})
