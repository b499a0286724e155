"""What the colours of a project's clips say, and grades as files."""

from __future__ import annotations

import json
from typing import Any, Final
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import Field, Query, Router, Schema

from kitecore.document import Pictured
from kitecore.document.grade import Grade, Match
from kitecore.errors import BadInput
from kitecore.exchange.cdl import write_cdl
from kitecore.motion import still_at
from studio.playback.asking import asked
from studio.playback.watched import FrameNumber, Look, project_document
from studio.problems import Problem

router = Router()
MOST_MEASURED: Final = 12
"""Frames of a clip that are measured together."""


class ClipAt(Schema):
    """A clip as it is at a frame of the timeline."""

    clip: str = Field(max_length=40)
    frame: FrameNumber


class SpotIn(ClipAt):
    """``x`` and ``y`` in pixels of the canvas."""

    x: float = Field(allow_inf_nan=False)
    y: float = Field(allow_inf_nan=False)


class MatchIn(Schema):
    """Two clips, and the frames of the timeline at which each is measured."""

    clip: str = Field(max_length=40)
    frames: list[FrameNumber] = Field(min_length=1, max_length=MOST_MEASURED)
    other: str = Field(max_length=40)
    other_frames: list[FrameNumber] = Field(min_length=1, max_length=MOST_MEASURED)


class Hues(Schema):
    middle: float
    width: float
    weakest: float


class HuesOut(Schema):
    """After the grade without its zones, and before it; null where there is hardly any colour."""

    graded: Hues | None
    original: Hues | None


class BalanceOut(Schema):
    warmth: float
    tint: float


class NeutralOut(BalanceOut):
    """Distances from neutral, 0..1, now and with that balance; the colour now, 0..255."""

    distance: float
    after: float
    rgb: list[int]


_BASE = "/projects/{uuid:id}/revisions/{int:revision}"


@router.post(f"{_BASE}/neutral", response={200: NeutralOut, 404: Problem, 422: Problem})
def neutral(request: HttpRequest, id: UUID, revision: int, given: SpotIn, look: Query[Look]) -> Any:
    """The balance that makes a spot of a clip's picture neutral."""
    spot = (given.x, given.y)
    of = {"clip": given.clip, "spot": spot}
    return json.loads(asked(request, id, revision, look, "neutral", given.frame, **of))


@router.post(f"{_BASE}/hue", response={200: HuesOut, 404: Problem, 422: Problem})
def hue(request: HttpRequest, id: UUID, revision: int, given: SpotIn, look: Query[Look]) -> Any:
    """The hues at a spot of a clip's picture, as a zone's range."""
    spot = (given.x, given.y)
    of = {"clip": given.clip, "spot": spot}
    return json.loads(asked(request, id, revision, look, "hue", given.frame, **of))


@router.post(f"{_BASE}/suggestion", response={200: BalanceOut, 404: Problem, 422: Problem})
def suggestion(
    request: HttpRequest, id: UUID, revision: int, given: ClipAt, look: Query[Look]
) -> Any:
    """A balance for the light of a clip's picture."""
    found = asked(request, id, revision, look, "suggestion", given.frame, clip=given.clip)
    return json.loads(found)


@router.post(f"{_BASE}/match", response={200: Match, 404: Problem, 422: Problem})
def match(request: HttpRequest, id: UUID, revision: int, given: MatchIn, look: Query[Look]) -> Any:
    """The stage that leads a clip's colours to those of another."""
    return json.loads(asked(request, id, revision, look, "match", given.frames[0], **given.dict()))


_FILE = {200: None, 404: Problem, 422: Problem}


@router.get(f"{_BASE}/clips/{{clip}}/grade.cube", response=_FILE)
def grade_as_cube(
    request: HttpRequest,
    id: UUID,
    revision: int,
    clip: str,
    look: Query[Look],
    frame: FrameNumber = 0,
) -> HttpResponse:
    """A clip's grade as a .cube file; zones with masks are left out."""
    text = asked(request, id, revision, look, "cube", frame, clip=clip)
    return _attached(text, "grade.cube", "text/plain")


@router.get(f"{_BASE}/clips/{{clip}}/grade.cc", response=_FILE)
def grade_as_cdl(
    request: HttpRequest,
    id: UUID,
    revision: int,
    clip: str,
    look: Query[Look],
    frame: FrameNumber = 0,
) -> HttpResponse:
    """The CDL stage of a clip's grade as a .cc file."""
    document = look.of(project_document(request, id, revision)[1])
    found = document.find_clip(clip)[1]
    if not isinstance(found, Pictured):
        raise BadInput("A sound has no colours.")
    tick = document.rate.exact.start_of(frame) - found.start
    cdl = still_at(found.grade or Grade(), tick).cdl
    return _attached(write_cdl(cdl, found.name or "grade").encode(), "grade.cc", "application/xml")


def _attached(data: bytes, name: str, kind: str) -> HttpResponse:
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return HttpResponse(data, content_type=kind, headers=headers)
