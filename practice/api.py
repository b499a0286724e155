"""The API of the practice feed. Everything can be asked for again: names are chosen by who asks."""

import base64
import binascii
import hashlib
import hmac
import re
from datetime import datetime
from uuid import UUID

from django.conf import settings
from django.core import signing
from django.http import HttpRequest, HttpResponse
from django.urls import reverse
from django.utils import timezone
from ninja import Field, NinjaAPI, Schema
from ninja.errors import AuthenticationError, ValidationError
from ninja.security import HttpBearer

from practice.faults import on_the_line
from practice.models import PART_BYTES, Member, Post, Upload, counts_at, digest_of
from practice.receiving import Refused, announce, publish, settle, take_part

TICKET = "practice.ticket"
"""What a ticket to the pages is signed for."""


class MemberKey(HttpBearer):
    def authenticate(self, request: HttpRequest, token: str) -> Member | None:
        return Member.objects.filter(key_digest=digest_of(token)).first()


class PartnerSecret(HttpBearer):
    """Of programs that may make members."""

    def authenticate(self, request: HttpRequest, token: str) -> bool:
        return hmac.compare_digest(token.encode(), settings.PRACTICE_PARTNER.encode())


api = NinjaAPI(
    title="Practice feed",
    version="1",
    auth=MemberKey(),
    urls_namespace="practice-api",
    docs_url=None,
)


class MemberIn(Schema):
    name: str = Field(min_length=1, max_length=40)


class MemberOut(Schema):
    name: str


class WelcomeOut(MemberOut):
    key: str


class TicketOut(Schema):
    path: str


class UploadIn(Schema):
    bytes: int = Field(ge=0, lt=2**50)
    sha256: str = Field(pattern="^[0-9a-f]{64}$")


class UploadOut(Schema):
    part_bytes: int
    have: list[int]


class PostIn(Schema):
    upload: UUID
    title: str = Field("", max_length=2000)
    caption: str = Field("", max_length=20_000)
    tags: list[str] = Field([], max_length=200)
    cover_at: float = Field(0.0, ge=0, le=100_000)
    shown_at: datetime | None = None


class PostOut(Schema):
    state: str
    reasons: list[str]
    path: str
    shown_at: datetime | None
    seen: int
    liked: int


class Reason(Schema):
    reason: str


def _member(request: HttpRequest) -> Member:
    member: Member = request.auth  # type: ignore[attr-defined]
    return member


def _upload(request: HttpRequest, name: UUID) -> Upload:
    found = Upload.objects.filter(member=_member(request), name=name).first()
    if found is None:
        raise Refused(404, "There is no such upload.")
    return found


def _post_out(post: Post) -> PostOut:
    return PostOut(
        state=settle(post).state,
        reasons=post.reasons,
        path=reverse("practice:feed") + f"#{post.name}",
        shown_at=post.shown_at,
        **counts_at(post, timezone.now()),
    )


@api.post("/members", auth=PartnerSecret(), response={201: WelcomeOut})
def welcome(request: HttpRequest, given: MemberIn) -> tuple[int, WelcomeOut]:
    member, key = Member.welcome(given.name)
    return 201, WelcomeOut(name=member.name, key=key)


@api.get("/me", response=MemberOut)
@on_the_line
def me(request: HttpRequest) -> MemberOut:
    return MemberOut(name=_member(request).name)


@api.post("/tickets", response=TicketOut)
def ticket(request: HttpRequest) -> TicketOut:
    """A way into the pages, good for a minute."""
    signed = signing.dumps(_member(request).pk, salt=TICKET)
    return TicketOut(path=reverse("practice:enter", args=[signed]))


@api.put("/uploads/{uuid:name}", response=UploadOut)
@on_the_line
def put_upload(request: HttpRequest, name: UUID, given: UploadIn) -> UploadOut:
    """Announce a file, or ask what of it is here."""
    upload = announce(_member(request), name, given.bytes, given.sha256)
    return UploadOut(part_bytes=PART_BYTES, have=upload.have())


@api.put("/uploads/{uuid:name}/parts/{int:number}", response={204: None})
@on_the_line
def put_part(request: HttpRequest, name: UUID, number: int) -> tuple[int, None]:
    """A part of a file, with its ``Content-Digest`` (RFC 9530)."""
    if _digest_told(request) != hashlib.sha256(request.body).digest():
        raise Refused(422, "That part arrived damaged.")
    take_part(_upload(request, name), number, request.body)
    return 204, None


def _digest_told(request: HttpRequest) -> bytes:
    told = re.fullmatch(r"sha-256=:([^:]+):", request.headers.get("Content-Digest", ""))
    try:
        return base64.b64decode(told[1], validate=True) if told else b""
    except binascii.Error:
        return b""


@api.put("/posts/{uuid:name}", response=PostOut)
@on_the_line
def put_post(request: HttpRequest, name: UUID, given: PostIn) -> PostOut:
    """Publish an upload under these words."""
    words = given.model_dump(exclude={"upload"})
    return _post_out(publish(_member(request), name, _upload(request, given.upload), words))


@api.get("/posts/{uuid:name}", response=PostOut)
@on_the_line
def get_post(request: HttpRequest, name: UUID) -> PostOut:
    found = Post.objects.filter(member=_member(request), name=name).first()
    if found is None:
        raise Refused(404, "There is no such post.")
    return _post_out(found)


@api.delete("/posts/{uuid:name}", response={204: None})
@on_the_line
def delete_post(request: HttpRequest, name: UUID) -> tuple[int, None]:
    """Take a post down; one that is not there stays so."""
    for post in Post.objects.filter(member=_member(request), name=name):
        post.delete()
    return 204, None


@api.exception_handler(Refused)
def on_refused(request: HttpRequest, error: Refused) -> HttpResponse:
    return api.create_response(request, Reason(reason=error.reason), status=error.status)


@api.exception_handler(ValidationError)
def on_validation(request: HttpRequest, error: ValidationError) -> HttpResponse:
    return api.create_response(request, Reason(reason="That cannot be read."), status=422)


@api.exception_handler(AuthenticationError)
def on_stranger(request: HttpRequest, error: AuthenticationError) -> HttpResponse:
    return api.create_response(request, Reason(reason="That key is not known."), status=401)
