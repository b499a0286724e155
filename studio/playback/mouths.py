"""Mouths and the voice of the film: poses proposed, pictures of both."""

from __future__ import annotations

import json
from typing import Annotated, Any, Final
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import Field, Query, Router, Schema

from kitecore.document.clips.mouth import Turn
from kitecore.document.track import MOST_TRACKS
from kitecore.model import Start
from kitecore.render.mouths import Voice
from studio.playback.asking import asked
from studio.playback.watched import PLAIN
from studio.problems import Problem

router = Router()

_BASE = "/projects/{uuid:id}/revisions/{int:revision}"
_ANSWERS: dict[int, Any] = {404: Problem, 422: Problem}
_WIDEST: Final = 2000
TrackIds = Annotated[list[str], Field(max_length=MOST_TRACKS)]


class MouthedIn(Schema):
    """A mouth, in whatever group, and what leads it."""

    clip: str = Field(max_length=40)
    voice: Voice


class MouthedOut(Schema):
    """Poses from the first on up to ``until``, or pauses; moments are of the mouth's own time."""

    turns: list[Turn]
    pauses: list[tuple[int, int]]
    until: int


class VoiceRange(Schema):
    low: Start
    high: Start
    width: int = Field(default=800, ge=16, le=_WIDEST)
    tracks: TrackIds = []


@router.post(f"{_BASE}/mouthed", response={200: MouthedOut, **_ANSWERS})
def mouthed(request: HttpRequest, id: UUID, revision: int, given: MouthedIn) -> Any:
    """What a mouth would do with the voice."""
    of = {"clip": given.clip, "voice": given.voice.model_dump()}
    return json.loads(asked(request, id, revision, PLAIN, "mouthed", 0, **of))


@router.get(f"{_BASE}/clips/{{clip}}/voice.jpg", response={200: None, **_ANSWERS})
def voice_picture(
    request: HttpRequest, id: UUID, revision: int, clip: str, given: Query[VoiceRange]
) -> HttpResponse:
    """Waveform and spectrogram of what is heard between two moments of a mouth."""
    of = {"clip": clip, "low": given.low, "high": max(given.high, given.low + 1)}
    data = asked(
        request, id, revision, PLAIN, "voice_picture", 0, given.width, **of, tracks=given.tracks
    )
    return HttpResponse(data, content_type="image/jpeg")


@router.get(f"{_BASE}/clips/{{clip}}/poses.jpg", response={200: None, **_ANSWERS})
def pose_pictures(request: HttpRequest, id: UUID, revision: int, clip: str) -> HttpResponse:
    """All poses of a mouth beside each other."""
    data = asked(request, id, revision, PLAIN, "poses", 0, clip=clip)
    return HttpResponse(data, content_type="image/jpeg")
