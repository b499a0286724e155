"""Shapes and pens."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from kitecore.document import Document, Id, Place, ShapeClip, derived_id
from kitecore.document.fills import PlainFill
from kitecore.document.outlines import outline_of
from kitecore.document.paths import Contour, Contours
from kitecore.document.properties import Hex, Keys, Vector
from kitecore.document.shapes import PathForm, Stroke
from kitecore.edits._base import EditBase, edit_kinds, open_clips
from kitecore.edits._tracks import on_free_track
from kitecore.errors import BadInput, EditRefused
from kitecore.model import Length, Start
from kitecore.motion.fitting import fitted

DrawnPoints = Annotated[tuple[Vector, ...], Field(min_length=2, max_length=5000)]


@edit_kinds.register("to_path")
class ToPath(EditBase):
    """A shape becomes pen paths of the same outline, whose points can be moved."""

    kind: Literal["to_path"] = "to_path"
    clip: Id

    def label(self) -> str:
        return "Turn a shape into a path"

    def apply(self, document: Document) -> Document:
        clip = _shape(document, self.clip)
        try:
            form = PathForm(contours=outline_of(clip.form))
        except BadInput as error:
            raise EditRefused(error.message, todo=error.todo) from error
        return document.with_clip(clip.model_copy(update={"form": form}))


@edit_kinds.register("draw_freehand")
class DrawFreehand(EditBase):
    """A line drawn by hand, smoothed: on a shape of pen paths, or as a new clip at ``at``.

    Parameters
    ----------
    points
        Canvas pixels from the middle of the canvas; on a shape, from its own middle.
    smoothness
        How far the line may be from the points, in canvas pixels.
    """

    kind: Literal["draw_freehand"] = "draw_freehand"
    points: DrawnPoints
    smoothness: float = Field(default=4.0, gt=0, le=100)
    closed: bool = False
    clip: Id | None = None
    at: Start = 0
    length: Length = 705_600_000 * 3
    colour: Hex = "#fff4e2"
    width: float = Field(default=14.0, ge=0, le=400)

    def label(self) -> str:
        return "Draw by hand"

    def apply(self, document: Document) -> Document:
        line = fitted(self.points, self.smoothness, closed=self.closed)
        if self.clip is None:
            return self._new(document, line)
        clip = _shape(document, self.clip)
        form = PathForm(contours=(*_contours(clip), line))
        return document.with_clip(clip.model_copy(update={"form": form}))

    def _new(self, document: Document, line: Contour) -> Document:
        rate = document.rate.exact
        length = max(rate.frame_ticks, self.length // rate.frame_ticks * rate.frame_ticks)
        fill = PlainFill(colour=self.colour)
        middle = _middle(line)
        form = PathForm(contours=(_shifted(line, middle),))
        clip = ShapeClip(
            id=derived_id(self.seed, 0),
            name="Drawing",
            start=rate.nearest(self.at),
            length=length,
            form=form,
            fill=fill if self.closed else None,
            stroke=None if self.closed else Stroke(fill=fill, width=self.width),
            place=Place(position=middle),
        )
        return on_free_track(document, "picture", (clip,), derived_id(self.seed, 1))


def _shape(document: Document, clip_id: str) -> ShapeClip:
    [(_, clip)] = open_clips(document, (clip_id,))
    if not isinstance(clip, ShapeClip):
        raise EditRefused("That is no shape.", todo="Take a shape in hand.")
    return clip


def _contours(clip: ShapeClip) -> Contours:
    if not isinstance(clip.form, PathForm):
        raise EditRefused("That shape is no path yet.", todo="Turn it into a path first.")
    if isinstance(clip.form.contours, Keys):
        raise EditRefused("A path that moves by keys takes no more lines.")
    return clip.form.contours


def _middle(contour: Contour) -> Vector:
    xs, ys = zip(*(node.at for node in contour.nodes), strict=True)
    return round((min(xs) + max(xs)) / 2, 3), round((min(ys) + max(ys)) / 2, 3)


def _shifted(contour: Contour, middle: Vector) -> Contour:
    nodes = (
        node.model_copy(update={"at": (node.at[0] - middle[0], node.at[1] - middle[1])})
        for node in contour.nodes
    )
    return contour.model_copy(update={"nodes": tuple(nodes)})
