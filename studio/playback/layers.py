"""The layers of a project's frame, one by one."""

from __future__ import annotations

import json
from typing import Any
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import Field, Query, Router, Schema

from kitecore.document.strokes import HealStroke
from studio.playback.asking import asked
from studio.playback.colours import ClipAt, SpotIn
from studio.playback.watched import FrameNumber, Look
from studio.problems import Problem

router = Router()

LAYER_SIDE = 128


class Spot(Schema):
    """``x`` and ``y`` in pixels of the canvas."""

    frame: FrameNumber
    x: float = Field(allow_inf_nan=False)
    y: float = Field(allow_inf_nan=False)


class UnderOut(Schema):
    """Ids of clips, the front one first."""

    clips: list[str]


class ExtentsOut(Schema):
    """Width and height in canvas pixels of what the program draws, by clip; and the six numbers of
    the map from where a layer's place puts it to where it is shown, of those that are moved, and of
    the part of it that what it follows has done.
    """

    extents: dict[str, tuple[float, float]]
    bodies: dict[str, tuple[float, float, float, float]]
    moved: dict[str, tuple[float, float, float, float, float, float]]
    led: dict[str, tuple[float, float, float, float, float, float]]


class LayersOut(Schema):
    """By the clip's id its picture, as a ``data:`` URL."""

    pictures: dict[str, str]


class BendingOut(Schema):
    """A mesh: points in heights of the picture, as they are and at rest, pairs of them joined by
    lines; where pins are.
    """

    points: list[tuple[float, float]]
    rest: list[tuple[float, float]]
    lines: list[tuple[int, int]]
    pins: list[tuple[float, float]]
    seen: tuple[float, float, float, float] | None


class ScreenOut(Schema):
    """A colour that may be a screen, its share of the picture, and a level that suits it."""

    colour: str
    share: float
    clear_below: float


class ScreensOut(Schema):
    screens: list[ScreenOut]


class StrokeIn(ClipAt):
    """A stroke that is painted on a clip."""

    stroke: HealStroke


class SourceOut(Schema):
    """Which way its source lies, in heights of the picture; null if there is no place that suits."""

    source: tuple[float, float] | None


class FreedOut(Schema):
    """Values to be set by path: after that it follows nothing, and goes on as it did."""

    values: dict[str, Any]


class ColourOut(Schema):
    colour: str


_BASE = "/projects/{uuid:id}/revisions/{int:revision}"
_ANSWERS: dict[int, Any] = {404: Problem, 422: Problem}


@router.post(f"{_BASE}/under", response={200: UnderOut, **_ANSWERS})
def under(request: HttpRequest, id: UUID, revision: int, given: Spot, look: Query[Look]) -> Any:
    """Which clips are seen at a spot."""
    spot = (given.x, given.y)
    return json.loads(asked(request, id, revision, look, "under", given.frame, spot=spot))


@router.get(f"{_BASE}/extents", response={200: ExtentsOut, **_ANSWERS})
def extents(
    request: HttpRequest, id: UUID, revision: int, look: Query[Look], frame: FrameNumber = 0
) -> Any:
    """How large texts and shapes are at a frame."""
    return json.loads(asked(request, id, revision, look, "extents", frame))


@router.get(f"{_BASE}/freed/{{clip}}", response={200: FreedOut, **_ANSWERS})
def freed(request: HttpRequest, id: UUID, revision: int, clip: str, look: Query[Look]) -> Any:
    """What a clip does by following another, as keys of its own."""
    return {"values": json.loads(asked(request, id, revision, look, "freed", 0, clip=clip))}


@router.get(f"{_BASE}/bending/{{clip}}", response={200: BendingOut, **_ANSWERS})
def bending(
    request: HttpRequest,
    id: UUID,
    revision: int,
    clip: str,
    look: Query[Look],
    frame: FrameNumber = 0,
) -> Any:
    """The mesh of a clip's warp at a frame."""
    return json.loads(asked(request, id, revision, look, "bending", frame, clip=clip))


@router.get(f"{_BASE}/layers", response={200: LayersOut, **_ANSWERS})
def layer_pictures(
    request: HttpRequest, id: UUID, revision: int, look: Query[Look], frame: FrameNumber = 0
) -> Any:
    """Each clip of a frame alone, small; all in one answer, since a list shows them together."""
    found = asked(request, id, revision, look, "layers", frame, side=LAYER_SIDE)
    return {"pictures": json.loads(found)}


@router.get(f"{_BASE}/effects/{{kind}}.jpg", response={200: None, **_ANSWERS})
def effect_sample(
    request: HttpRequest,
    id: UUID,
    revision: int,
    kind: str,
    clip: str,
    look: Query[Look],
    frame: FrameNumber = 0,
) -> HttpResponse:
    """What an effect would do to a clip: small pictures in a row, one after another."""
    found = asked(request, id, revision, look, "effect", frame, clip=clip, kind=kind)
    headers = {"Cache-Control": "private, max-age=3600"}
    return HttpResponse(found, content_type="image/jpeg", headers=headers)


@router.post(f"{_BASE}/screens", response={200: ScreensOut, **_ANSWERS})
def screens(request: HttpRequest, id: UUID, revision: int, given: ClipAt, look: Query[Look]) -> Any:
    """Colours of a clip that may be a screen to be keyed, the most likely first."""
    found = asked(request, id, revision, look, "screens", given.frame, clip=given.clip)
    return json.loads(found)


@router.post(f"{_BASE}/colour", response={200: ColourOut, **_ANSWERS})
def colour(request: HttpRequest, id: UUID, revision: int, given: SpotIn, look: Query[Look]) -> Any:
    """The colour of a clip's own picture at a spot."""
    of = {"clip": given.clip, "spot": (given.x, given.y)}
    return json.loads(asked(request, id, revision, look, "colour", given.frame, **of))


@router.post(f"{_BASE}/stroke-source", response={200: SourceOut, 404: Problem, 422: Problem})
def stroke_source(
    request: HttpRequest, id: UUID, revision: int, given: StrokeIn, look: Query[Look]
) -> Any:
    """From where a stroke takes the picture that it lays."""
    stroke = given.stroke.model_dump(mode="json")
    found = asked(
        request, id, revision, look, "stroke_source", given.frame, clip=given.clip, stroke=stroke
    )
    return json.loads(found)
