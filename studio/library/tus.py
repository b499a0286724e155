"""Uploads in resumable pieces: tus 1.0 (core, creation, termination; https://tus.io/protocols).

A piece goes to disk as it arrives, so a file of any size needs little memory.
"""

from __future__ import annotations

import base64
import binascii
import fcntl
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any, BinaryIO
from uuid import UUID

from django.conf import settings
from django.db import transaction
from django.http import HttpRequest, HttpResponse, JsonResponse
from django.urls import path, reverse
from django.views import View

from kitecore.errors import BadInput, KiteError, NotMedia, NotThere
from kitecore.exchange.archives import MARK
from kitecore.media.sniff import HEAD, sniff
from studio.library.arrival import found_again
from studio.library.models import Take, require_room
from studio.library.work import take_in, unpack
from studio.owned import owned
from studio.problems import Problem
from studio.projects.models import Project

VERSION = "1.0.0"
CHUNK = 1 << 20


class TusView(View):
    """What every answer of the protocol has in common."""

    def dispatch(self, request: HttpRequest, *args: Any, **kwargs: Any) -> HttpResponse:
        if not request.user.is_authenticated:
            response = HttpResponse(status=401)
        else:
            try:
                response = super().dispatch(request, *args, **kwargs)
            except KiteError as error:
                status = 404 if isinstance(error, NotThere) else 422
                response = JsonResponse(Problem.of(error).model_dump(), status=status)
        response["Tus-Resumable"] = VERSION
        response["Cache-Control"] = "no-store"
        return response


class Creation(TusView):
    def options(self, request: HttpRequest, *args: Any, **kwargs: Any) -> HttpResponse:
        response = HttpResponse(status=204)
        response["Tus-Version"] = VERSION
        response["Tus-Extension"] = "creation,termination"
        response["Tus-Max-Size"] = str(settings.UPLOAD_LIMIT)
        return response

    def post(self, request: HttpRequest) -> HttpResponse:
        """Announce a file; the answer's Location takes its bytes."""
        told = _metadata(request.headers.get("Upload-Metadata", ""))
        key = told.get("key", "")[:80]
        known = Take.objects.filter(owner=request.user, upload_key=key).first() if key else None
        take = known or self._announced(request, told, key)
        response = HttpResponse(status=201)
        response["Location"] = reverse("upload", args=[take.id])
        response["Upload-Id"] = str(take.id)
        return response

    def _announced(self, request: HttpRequest, told: dict[str, str], key: str) -> Take:
        length = _number(request, "Upload-Length")
        _require_room(request, length)
        project = owned(Project, request.user, "project", _uuid(told.get("project", "")))
        take = Take.objects.create(
            owner=request.user,
            project=project,
            name=(told.get("filename") or "Take")[:200],
            order=_order(told.get("order", "")),
            bytes=length,
            upload_key=key,
            replaces=_lost(request, told.get("replaces", "")),
        )
        take.folder.path.mkdir(parents=True)
        take.folder.original.touch()
        return take


class Piece(TusView):
    http_method_names = ["head", "patch", "delete"]

    def head(self, request: HttpRequest, id: UUID) -> HttpResponse:
        """How far the upload got; one that is whole says so, for whoever lost that answer."""
        take = _upload(request, id)
        if take.state == Take.State.ARRIVING and take.received == take.bytes:
            _take_down(take, take.received)
        response = HttpResponse(status=200)
        response["Upload-Offset"] = str(take.received)
        response["Upload-Length"] = str(take.bytes)
        return response

    def patch(self, request: HttpRequest, id: UUID) -> HttpResponse:
        """Take the bytes from ``Upload-Offset`` on; of two who send at once one is told to wait."""
        take = _upload(request, id)
        if request.headers.get("Content-Type") != "application/offset+octet-stream":
            return HttpResponse(status=415)
        with _alone(take) as file:
            if file is None:
                return HttpResponse(status=423)
            take.refresh_from_db()
            if _number(request, "Upload-Offset") != take.received:
                return HttpResponse(status=409)
            if take.received < take.bytes:
                received = _append(request, take, file)
                _take_down(take, received)
        response = HttpResponse(status=204)
        response["Upload-Offset"] = str(take.received)
        return response

    def delete(self, request: HttpRequest, id: UUID) -> HttpResponse:
        """Give up an upload."""
        take = _upload(request, id)
        if take.state != Take.State.ARRIVING:
            raise NotThere("That upload is finished.")
        take.removed, take.upload_key = True, ""
        take.save(update_fields=["removed", "upload_key"])
        take.folder.original.unlink(missing_ok=True)
        return HttpResponse(status=204)


@contextmanager
def _alone(take: Take) -> Iterator[BinaryIO | None]:
    """The file of an upload, for one request at a time; none if another has it."""
    try:
        file = take.folder.original.open("r+b")
    except FileNotFoundError:
        raise NotThere("That upload was given up.") from None
    with file:
        try:
            fcntl.flock(file, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            yield None
            return
        yield file


def _append(request: HttpRequest, take: Take, file: BinaryIO) -> int:
    """Write the body behind what is there, never more than was announced; the new length."""
    # A broken connection may have left more on disk than was acknowledged.
    file.seek(take.received)
    file.truncate()
    at = take.received
    while at < take.bytes:
        try:
            chunk = request.read(min(CHUNK, take.bytes - at))
        except OSError:
            break
        if not chunk:
            break
        file.write(chunk)
        at += len(chunk)
    file.flush()
    if take.received < HEAD <= at or at == take.bytes:
        _require_media(take)
    return at


def _take_down(take: Take, received: int) -> None:
    """Acknowledge what came; a take that is whole is handed on in the same transaction."""
    take.received = received
    whole = received == take.bytes
    with transaction.atomic():
        take.save(update_fields=["received"])
        if whole and take.archive:
            unpack(take)
        elif whole and take.replaces is None:
            take_in(take)
    if whole and take.replaces is not None:
        found_again(take)


def _require_media(take: Take) -> None:
    """Refuse at once what is neither picture, sound nor project, before more of it arrives."""
    with take.folder.original.open("rb") as file:
        head = file.read(HEAD)
    if head.startswith(MARK) and take.replaces is None:
        take.archive = True
        take.save(update_fields=["archive"])
        return
    try:
        sniff(head)
    except NotMedia as error:
        take.state, take.problem = Take.State.REFUSED, Problem.of(error).model_dump()
        take.save(update_fields=["state", "problem"])
        take.folder.original.unlink()
        raise


def _upload(request: HttpRequest, id: UUID) -> Take:
    """An upload that was not given up or refused."""
    take = owned(Take, request.user, "upload", id)
    if take.removed or take.state == Take.State.REFUSED:
        raise NotThere("That upload was refused or given up.")
    return take


def _lost(request: HttpRequest, id: str) -> Take | None:
    """The take whose missing file this is."""
    if not id:
        return None
    take = owned(Take, request.user, "take", _uuid(id))
    if take.folder.original.exists():
        raise BadInput(f"The file of “{take.name}” is there.")
    return take


def _require_room(request: HttpRequest, length: int) -> None:
    limit = settings.UPLOAD_LIMIT
    if length <= 0:
        raise BadInput("The file is empty.", safe="", todo="Choose another file.")
    if length > limit:
        raise BadInput(f"The file is larger than {limit / 2**30:g} GB, the most that is taken.")
    require_room(request.user.pk, length)


def _number(request: HttpRequest, header: str) -> int:
    try:
        return max(0, int(request.headers[header]))
    except (KeyError, ValueError):
        raise BadInput(f"The upload lacks its {header}.") from None


def _order(text: str) -> int:
    return int(text) if text.isdecimal() and len(text) < 18 else 0


def _uuid(text: str) -> UUID:
    try:
        return UUID(text)
    except ValueError:
        raise NotThere("That project is not there.") from None


def _metadata(header: str) -> dict[str, str]:
    """``Upload-Metadata``: comma-separated pairs of a key and a value in Base64."""
    told = {}
    for pair in header.split(","):
        key, _, value = pair.strip().partition(" ")
        try:
            told[key] = base64.b64decode(value, validate=True).decode()
        except (binascii.Error, UnicodeDecodeError):
            raise BadInput("The upload's description cannot be read.") from None
    return told


urlpatterns = [
    path("", Creation.as_view(), name="uploads"),
    path("<uuid:id>", Piece.as_view(), name="upload"),
]
