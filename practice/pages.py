"""The pages of the practice feed: what was posted, and how the line behaves."""

from __future__ import annotations

import functools
import re
from collections.abc import Callable
from pathlib import Path
from typing import Concatenate, ParamSpec
from uuid import UUID

from django.core import signing
from django.http import FileResponse, Http404, HttpRequest, HttpResponse, JsonResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.utils import timezone
from django.views.decorators.http import require_POST, require_safe

from practice.api import TICKET
from practice.faults import EVERY, FAULTS
from practice.looking import type_of
from practice.models import Member, Post, counts_at, digest_of
from practice.receiving import settle

P = ParamSpec("P")
_COOKIE = "practice-member"
_STAYS = 30 * 24 * 3600
_TICKET_LASTS = 60
_RANGE = re.compile(r"bytes=(\d+)-(\d*)")


def _member_of(request: HttpRequest) -> Member | None:
    id = request.get_signed_cookie(_COOKIE, default=None, max_age=_STAYS)
    return Member.objects.filter(pk=id).first() if id else None


def for_members(
    view: Callable[Concatenate[HttpRequest, Member, P], HttpResponse],
) -> Callable[Concatenate[HttpRequest, P], HttpResponse]:
    """A page that asks strangers for their key first."""

    @functools.wraps(view)
    def shown(request: HttpRequest, *args: P.args, **more: P.kwargs) -> HttpResponse:
        member = _member_of(request)
        if member is None:
            return render(request, "practice/door.html", status=403)
        answer = view(request, member, *args, **more)
        answer.headers.setdefault("Cache-Control", "private, no-store")
        return answer

    return shown


def _let_in(request: HttpRequest, member: Member) -> HttpResponse:
    answer = redirect("practice:feed")
    answer.set_signed_cookie(
        _COOKIE,
        str(member.pk),
        max_age=_STAYS,
        httponly=True,
        samesite="Strict",
        secure=request.is_secure(),
        path="/practice/",
    )
    return answer


@require_safe
def enter(request: HttpRequest, ticket: str) -> HttpResponse:
    try:
        id = signing.loads(ticket, salt=TICKET, max_age=_TICKET_LASTS)
    except signing.BadSignature:
        return render(request, "practice/door.html", {"late": True}, status=403)
    return _let_in(request, get_object_or_404(Member, pk=id))


@require_POST
def door(request: HttpRequest) -> HttpResponse:
    member = Member.objects.filter(key_digest=digest_of(request.POST.get("key", ""))).first()
    if member is None:
        return render(request, "practice/door.html", {"unknown": True}, status=403)
    return _let_in(request, member)


@require_POST
def leave(request: HttpRequest) -> HttpResponse:
    answer = redirect("practice:feed")
    answer.delete_cookie(_COOKIE, path="/practice/", samesite="Strict")
    return answer


@require_safe
@for_members
def feed(request: HttpRequest, member: Member) -> HttpResponse:
    now = timezone.now()
    posts = [settle(post, now) for post in member.posts.select_related("upload")]
    shown = [(post, counts_at(post, now)) for post in posts if post.state == Post.State.LIVE]
    return render(
        request,
        "practice/feed.html",
        {
            "member": member,
            "shown": shown,
            "coming": [one for one in posts if one.state in ("waiting", "looked-at")],
            "refused": [one for one in posts if one.state == Post.State.REFUSED],
        },
    )


@require_safe
@for_members
def counts(request: HttpRequest, member: Member) -> HttpResponse:
    now = timezone.now()
    return JsonResponse({str(post.name): counts_at(post, now) for post in member.posts.all()})


@for_members
def line(request: HttpRequest, member: Member) -> HttpResponse:
    """How the line between the member and us behaves."""
    if request.method == "POST":
        chosen = {name: request.POST.get(name, "0") for name in FAULTS}
        known = {name: int(every) for name, every in chosen.items() if every.isdecimal()}
        member.line = {name: every for name, every in known.items() if EVERY.get(every) and every}
        member.calls = 0
        member.save(update_fields=["line", "calls"])
        return redirect("practice:line")
    rows = [(name, fault, member.line.get(name, 0)) for name, fault in FAULTS.items()]
    return render(request, "practice/line.html", {"member": member, "rows": rows, "every": EVERY})


def _of_post(member: Member, name: UUID) -> Post:
    return get_object_or_404(Post.objects.select_related("upload"), member=member, name=name)


@require_safe
@for_members
def film(request: HttpRequest, member: Member, name: UUID) -> HttpResponse:
    path = _of_post(member, name).upload.film
    if not path.exists():
        raise Http404
    return _ranged(request, path, type_of(path))


@require_safe
@for_members
def cover(request: HttpRequest, member: Member, name: UUID) -> HttpResponse:
    return _ranged(request, _of_post(member, name).upload.cover, "image/jpeg")


def _ranged(request: HttpRequest, path: Path, mime: str) -> HttpResponse:
    """A file, or from one byte to another (RFC 9110, 14): players ask for parts of films."""
    if not path.exists():
        raise Http404
    size = path.stat().st_size
    file = path.open("rb")
    asked = _RANGE.fullmatch(request.headers.get("Range", ""))
    if asked is None or int(asked[1]) >= size:
        answer = FileResponse(file, content_type=mime)
        answer["Accept-Ranges"] = "bytes"
        return answer
    first = int(asked[1])
    last = min(int(asked[2] or size - 1), size - 1, first + 2**22)
    with file:
        file.seek(first)
        part = HttpResponse(file.read(last - first + 1), status=206, content_type=mime)
    part["Content-Range"] = f"bytes {first}-{last}/{size}"
    return part
