"""Taking in files and posts. Each has a name that its sender chose: sent twice, it is there once."""

from __future__ import annotations

import hashlib
import os
from contextlib import suppress
from dataclasses import asdict
from datetime import datetime, timedelta
from pathlib import Path
from typing import Final
from uuid import UUID, uuid4

from django.db import IntegrityError, transaction
from django.db.models import Sum
from django.utils import timezone

from practice.looking import look
from practice.models import Member, Post, Upload
from practice.rules import MOST_BYTES, MOST_CAPTION, MOST_TAGS, MOST_TITLE, reasons_against

MOST_OF_ONE: Final = 2 * 2**30
"""Bytes of all films of a member."""
LOOKING: Final = 3.0
"""Seconds that a post is looked at, at least."""


class Refused(Exception):
    """``status`` and a reason in plain words."""

    def __init__(self, status: int, reason: str) -> None:
        super().__init__(reason)
        self.status, self.reason = status, reason


def announce(member: Member, name: UUID, size: int, sha256: str) -> Upload:
    """An upload of this name, new or known."""
    known = Upload.objects.filter(member=member, name=name).first()
    if known is not None:
        if (known.bytes, known.sha256) != (size, sha256):
            raise Refused(409, "Another file has that name.")
        return known
    if not 0 < size <= MOST_BYTES:
        raise Refused(422, f"The file weighs {size / 1e6:.0f} MB; at most 200 are taken.")
    used = Upload.objects.filter(member=member).aggregate(all=Sum("bytes"))["all"] or 0
    if used + size > MOST_OF_ONE:
        raise Refused(422, "There is no room for more of your films: take one down.")
    upload, _ = Upload.objects.get_or_create(
        member=member, name=name, defaults={"bytes": size, "sha256": sha256}
    )
    upload.folder.mkdir(parents=True, exist_ok=True)
    return upload


def take_part(upload: Upload, number: int, content: bytes) -> None:
    if not 0 <= number < upload.count or len(content) != upload.size_of(number):
        raise Refused(422, "That is no part of the file.")
    if number not in upload.have():
        _write_whole(upload.part(number), content)


def publish(member: Member, name: UUID, upload: Upload, words: dict[str, object]) -> Post:
    """A post of this name, new or known."""
    known = Post.objects.filter(member=member, name=name).first()
    if known is not None:
        return known
    _require_words(words)
    missing = set(range(upload.count)) - set(upload.have())
    if missing:
        raise Refused(409, f"{len(missing)} parts of the film are missing.")
    _put_together(upload)
    ready_at = timezone.now() + timedelta(seconds=LOOKING)
    # Of two that arrive together one is first.
    with suppress(IntegrityError), transaction.atomic():
        Post.objects.create(member=member, upload=upload, name=name, ready_at=ready_at, **words)
    return Post.objects.get(member=member, name=name)


def _require_words(words: dict[str, object]) -> None:
    title, caption, tags = (str(words["title"]), str(words["caption"]), words["tags"])
    assert isinstance(tags, list)
    if len(title) > MOST_TITLE or len(caption) > MOST_CAPTION:
        raise Refused(422, f"Titles have {MOST_TITLE} letters at most, captions {MOST_CAPTION}.")
    if len(tags) > MOST_TAGS:
        raise Refused(422, f"{len(tags)} tags are too many; {MOST_TAGS} are taken.")


def _put_together(upload: Upload) -> None:
    if upload.film.exists():
        return
    digest = hashlib.sha256()
    unfinished = upload.folder / f"film-{uuid4().hex}"
    with unfinished.open("wb") as film:
        for number in range(upload.count):
            part = upload.part(number).read_bytes()
            digest.update(part)
            film.write(part)
    if digest.hexdigest() != upload.sha256:
        unfinished.unlink()
        for number in range(upload.count):
            upload.part(number).unlink(missing_ok=True)
        raise Refused(409, "The file arrived damaged: send it again.")
    unfinished.replace(upload.film)
    for number in range(upload.count):
        upload.part(number).unlink(missing_ok=True)


def settle(post: Post, now: datetime | None = None) -> Post:
    """What became of a post by now."""
    now = now or timezone.now()
    if post.state == Post.State.LOOKED_AT and now >= post.ready_at:
        facts = look(post.upload.film, post.upload.cover, post.cover_at)
        reasons = reasons_against(post, facts)
        shown_at = max(post.ready_at, post.shown_at or post.ready_at)
        state = Post.State.REFUSED if reasons else Post.State.WAITING
        _become(post, state, reasons=reasons, facts=asdict(facts), shown_at=shown_at)
    if post.state == Post.State.WAITING and post.shown_at and now >= post.shown_at:
        _become(post, Post.State.LIVE, live_at=post.shown_at)
    return post


def _become(post: Post, state: Post.State, **more: object) -> None:
    """From where it is to another state, unless somebody else was faster."""
    Post.objects.filter(pk=post.pk, state=post.state).update(state=state, **more)
    try:
        post.refresh_from_db()
    except Post.DoesNotExist:
        raise Refused(404, "There is no such post any more.") from None


def _write_whole(path: Path, content: bytes) -> None:
    unfinished = path.with_name(f"{path.name}-{uuid4().hex}")
    with unfinished.open("wb") as file:
        file.write(content)
        file.flush()
        os.fsync(file.fileno())
    unfinished.replace(path)
