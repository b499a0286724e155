"""Pictures while paused, pieces while playing; of projects and of single takes alike."""

from __future__ import annotations

from typing import Annotated, Literal
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import Field, Query, Router, Schema

from kitecore.document import Document, dumps
from kitecore.edits import Edit
from kitecore.kept import Kept
from kitecore.render.extract import content_key
from kitecore.render.instruments import ScopesWanted
from kitecore.render.pieces import AAC_AROUND, AAC_BLOCK, PICTURE_TYPE, SOUND_TYPES
from kitecore.render.questions import Request, unpacked
from kitecore.sound.ramps import SAMPLE_TICKS
from kitecore.ticks import Span
from kitecore.ticks.timecode import to_timecode
from studio.library.arrival import bring_in
from studio.library.models import folder_of
from studio.library.shown import TakeOut, take_out
from studio.owned import owned
from studio.playback.levels import levels_key
from studio.playback.service import render
from studio.playback.store import keep, store
from studio.playback.turns import Job
from studio.playback.watched import (
    PLAIN,
    FrameNumber,
    Frames,
    Look,
    project_document,
    take_document,
    tried,
)
from studio.problems import Problem
from studio.projects.models import Project

router = Router()

MOST_TRIED = 200
"""Edits that a still may be drawn with before they are kept."""

MOST_STILLS = 32 * 2**20
"""Bytes of stills that are kept: some hundred, so that going back and undoing show at once."""

_stills: Kept[bytes] = Kept(MOST_STILLS, len)
"""By what they show."""

LongSide = Annotated[int, Field(ge=16, le=1920)]


class Playing(Schema):
    """What a player needs to know of what it plays."""

    frames: int
    rate_num: int
    rate_den: int
    width: int
    height: int
    picture_type: str = PICTURE_TYPE
    sound_types: dict[str, str] = SOUND_TYPES


class StillIn(Schema):
    """``frame`` of a revision; with ``edits`` as it would be after those, which are not kept.

    Of one ``lane`` only the request of the highest ``turn`` is answered. ``matte`` names a zone that
    is shown as what it lets through, ``onion`` a clip that is shown at its neighbouring keys too.
    With ``scopes`` the answer is as `render.instruments` packs it.
    """

    frame: FrameNumber
    long_side: LongSide = 640
    edits: list[Edit] = Field(default=[], max_length=MOST_TRIED)
    lane: str = Field(default="", max_length=80)
    turn: int = Field(default=0, ge=0, le=2**53)
    matte: str = Field(default="", max_length=40)
    onion: str = Field(default="", max_length=40)
    scopes: ScopesWanted | None = None


def _still(
    request: HttpRequest, name: str, document: Document, given: StillIn, look: Look = PLAIN
) -> HttpResponse:
    name, document = tried(request, name, document, given.edits)
    name, document = f"{name}/{look.name}", look.of(document)
    key = _still_key(document, given)
    seen = key if request.method == "GET" else ""
    if seen and request.headers.get("If-None-Match") == f'"{seen}"':
        return HttpResponse(status=304, headers={"ETag": f'"{seen}"'})
    data = _stills.find(key) if key else None
    if data is None:
        data = render(_still_job(request.user.pk, name, document, given))
        # A question that a newer one has taken the place of is answered by nothing.
        if key and data:
            _stills.put(key, data)
    kind = "image/jpeg" if given.scopes is None else "application/octet-stream"
    headers = {"ETag": f'"{seen}"'} if seen else {}
    return HttpResponse(data, content_type=kind, headers=headers)


def _still_job(person: int, name: str, document: Document, given: StillIn) -> Job:
    wanted = Request(
        "still",
        name,
        given.frame,
        long_side=given.long_side,
        matte=given.matte,
        onion=given.onion,
        scopes=given.scopes,
    )
    lane = f"still:{given.lane}" if given.lane else ""
    return Job(wanted, lambda: dumps(document), person, lane, given.turn)


def _still_key(document: Document, given: StillIn) -> str:
    """A name for what a still shows; none where it shows other moments too."""
    if given.onion:
        return ""
    rate = document.rate.exact
    span = Span(rate.start_of(given.frame), rate.start_of(given.frame + 1))
    scopes = given.scopes.model_dump_json() if given.scopes else ""
    return content_key(document, span, folder_of, "still", given.long_side, given.matte, scopes)


def _playing(document: Document) -> Playing:
    return Playing(
        frames=document.frames,
        rate_num=document.rate.num,
        rate_den=document.rate.den,
        width=document.canvas.width,
        height=document.canvas.height,
    )


class PieceQuery(Frames):
    """Sound in a ``coding`` that the player takes."""

    coding: Literal["flac", "aac"] = "flac"
    long_side: LongSide = 640
    lane: str = Field(default="", max_length=80)
    turn: int = Field(default=0, ge=0, le=2**53)


Kind = Literal["picture", "sound"]


def _piece(
    person: int, name: str, document: Document, kind: Kind, given: PieceQuery, look: Look = PLAIN
) -> HttpResponse:
    name, document = f"{name}/{look.name}", look.of(document)
    what = "aac" if kind == "sound" and given.coding == "aac" else kind
    side = given.long_side if kind == "picture" else 0
    span = _span(document, given, what)
    key = content_key(document, span, folder_of, what, side, heard=kind == "sound")
    data = store().get(key)
    if data is None:
        request = Request(what, name, given.first, given.last, side)
        lane = f"{kind}:{given.lane}" if given.lane else ""
        data = render(Job(request, lambda: dumps(document), person, lane, given.turn))
        if what == "sound" and data:
            data, levels = unpacked(data)
            keep(levels_key(document, span), levels)
        keep(key, data)
    return HttpResponse(data, content_type="video/mp4" if kind == "picture" else "audio/mp4")


def _span(document: Document, given: PieceQuery, what: str) -> Span:
    """What of the document a piece depends on."""
    shown = given.within(document)
    around = AAC_AROUND * AAC_BLOCK * SAMPLE_TICKS if what == "aac" else 0
    return Span(max(0, shown.start - around), shown.end + around)


_MEDIA = {200: None, 204: None, 404: Problem, 422: Problem}


@router.post("/projects/{uuid:id}/revisions/{int:revision}/still", response=_MEDIA)
def project_still(
    request: HttpRequest, id: UUID, revision: int, given: StillIn, look: Query[Look]
) -> HttpResponse:
    """A JPEG of the picture at a frame."""
    return _still(request, *project_document(request, id, revision), given, look)


@router.get("/projects/{uuid:id}/revisions/{int:revision}/frames/{int:frame}", response=_MEDIA)
def project_frame(
    request: HttpRequest,
    id: UUID,
    revision: int,
    frame: FrameNumber,
    look: Query[Look],
    long_side: LongSide = 360,
) -> HttpResponse:
    """The same for a page to show directly; a revision's picture never changes."""
    found = project_document(request, id, revision)
    response = _still(request, *found, StillIn(frame=frame, long_side=long_side), look)
    response["Cache-Control"] = "private, max-age=3600"
    return response


@router.post(
    "/projects/{uuid:id}/revisions/{int:revision}/frames/{int:frame}/keep",
    response={201: TakeOut, 404: Problem, 422: Problem},
)
def keep_frame(
    request: HttpRequest, id: UUID, revision: int, frame: FrameNumber, look: Query[Look]
) -> tuple[int, TakeOut]:
    """The picture at a frame, in the project's own size, as a still in the library."""
    name, document = project_document(request, id, revision)
    document = look.of(document)
    side = max(document.canvas.width, document.canvas.height)
    wanted = Request("frame", f"{name}/{look.name}", frame, long_side=side)
    picture = render(Job(wanted, lambda: dumps(document), request.user.pk))
    project = owned(Project, request.user, "project", id)
    code = to_timecode(frame, document.rate.exact).replace(":", "-")
    return 201, take_out(bring_in(project, f"{project.name} {code}.png"[-200:], picture))


@router.get("/projects/{uuid:id}/revisions/{int:revision}/playing", response=Playing)
def project_playing(request: HttpRequest, id: UUID, revision: int, look: Query[Look]) -> Playing:
    return _playing(look.of(project_document(request, id, revision)[1]))


@router.get("/projects/{uuid:id}/revisions/{int:revision}/{kind}", response=_MEDIA)
def project_piece(
    request: HttpRequest,
    id: UUID,
    revision: int,
    kind: Kind,
    given: Query[PieceQuery],
    look: Query[Look],
) -> HttpResponse:
    """Some frames as fragmented MP4, to be appended to a player."""
    found = project_document(request, id, revision)
    return _piece(request.user.pk, *found, kind, given, look)


@router.post("/takes/{uuid:id}/still", response=_MEDIA)
def take_still(request: HttpRequest, id: UUID, given: StillIn) -> HttpResponse:
    return _still(request, *take_document(request, id), given)


@router.get("/takes/{uuid:id}/playing", response=Playing)
def take_playing(request: HttpRequest, id: UUID) -> Playing:
    return _playing(take_document(request, id)[1])


@router.get("/takes/{uuid:id}/{kind}", response=_MEDIA)
def take_piece(
    request: HttpRequest, id: UUID, kind: Kind, given: Query[PieceQuery]
) -> HttpResponse:
    return _piece(request.user.pk, *take_document(request, id), kind, given)
