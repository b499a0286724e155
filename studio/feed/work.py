"""Posting films, and taking them down: whatever fails on the way, a post is there once or not at all.

A film goes in parts, each acknowledged. What is there is asked of the feed, not remembered, so a worker
that takes over sends what is missing; and names are ours, so nothing is made twice.
"""

from __future__ import annotations

import hashlib
from collections.abc import Mapping, Sequence
from dataclasses import asdict, dataclass
from datetime import datetime
from pathlib import Path
from typing import Any, Final
from uuid import uuid4

from django.contrib.auth.models import AbstractBaseUser
from django.db import transaction
from django.utils import timezone
from django.utils.dateparse import parse_datetime

from kitecore.errors import BadInput, Superseded
from studio.exports.models import Export
from studio.feed.client import AT_ONCE, Away, FeedClient, Refused, UnknownThere, WrongKey
from studio.feed.models import Connection, Post, There
from studio.feed.sealing import unseal
from studio.jobs.kinds import WAITED_FOR, JobKind, Later, Note, Outcome, job_kinds
from studio.jobs.models import Job, State
from studio.jobs.queue import cancel, hand_out

MOST_TRIES: Final = 300
"""About a day of them."""
_LONGEST_PAUSE: Final = 300.0
_FILM, _LOOK, _SHOWN, _SURE = 3.0, 2.0, 1.0, 12.0
"""Seconds until it is looked again: whether the film is made, was looked at, is shown, stays away."""
_LONGEST_WAIT: Final = 3600.0


@dataclass(frozen=True)
class Words:
    """What is posted with a film; ``cover_at`` in seconds from its start."""

    title: str
    caption: str = ""
    tags: tuple[str, ...] = ()
    cover_at: float = 0.0
    shown_at: datetime | None = None


def client_of(owner: AbstractBaseUser, pauses: Sequence[float] = ()) -> FeedClient:
    """The feed as this person may use it; ``pauses`` before it is asked again.

    Raises
    ------
    WrongKey
        If they are not connected, or their key cannot be read any more.
    """
    connection = Connection.objects.filter(owner=owner).first()
    key = unseal(connection.sealed) if connection else None
    if key is None:
        raise WrongKey("You are not connected to the practice feed.")
    return FeedClient(key, pauses)


@transaction.atomic
def start(film: Export, words: Words) -> Post:
    """Post a film, as soon as it is made."""
    id = uuid4()
    return Post.objects.create(
        id=id,
        owner=film.owner,
        project=film.project,
        film=film,
        job=hand_out(film.owner, "post", id.hex),
        **_kept(words),
    )


@transaction.atomic
def reword(post: Post, words: Words) -> None:
    """Other words for a post that the feed does not have.

    Raises
    ------
    BadInput
        If it may have it.
    """
    if post.told and post.there != There.REFUSED:
        raise BadInput("It is at the feed already.", todo="Take it down, then post it anew.")
    Post.objects.filter(pk=post.pk).update(**_kept(words))


def _kept(words: Words) -> dict[str, Any]:
    return asdict(words) | {"tags": list(words.tags)}


def take_down(post: Post) -> None:
    """Have it taken down, or not posted."""
    if post.job.unfinished:
        cancel(post.job)
    else:
        _turn_round(post)


def _turn_round(post: Post) -> None:
    with transaction.atomic():
        job = hand_out(post.owner, "post", post.id.hex)
        Post.objects.filter(pk=post.pk).update(wanted=False, tries=0, trouble="", job=job)


def look(post: Post) -> None:
    """Take down what has become of it at the feed."""
    if not post.told or post.there == There.GONE:
        return
    try:
        _note_what(post, client_of(post.owner).post(post.name))
    except UnknownThere:
        _note(post, there=There.GONE)


def _run(job: Job, note: Note) -> Outcome:
    post = Post.objects.select_related("film__job", "owner").filter(job=job).first()
    if post is None:
        raise Superseded("The post was deleted.")
    try:
        client = client_of(post.owner, AT_ONCE)
        return _bring_up(post, client, note) if post.wanted else _bring_down(post, client)
    except Away as error:
        return _tried(post, error)


def _bring_up(post: Post, client: FeedClient, note: Note) -> Outcome:
    if post.there in (There.NOTHING, There.REFUSED):
        film = post.film
        if film is None:
            raise BadInput("The film was deleted.", todo="Make it anew, and post that.")
        if film.job.unfinished:
            return Later(_FILM, "making")
        if not film.path.exists():
            raise BadInput("The film was not made.", todo="Make it, and post that.")
        try:
            _send(post, film, client, note)
        except UnknownThere as error:
            raise Away(error.message) from error
    return _follow(post, client)


def _send(post: Post, film: Export, client: FeedClient, note: Note) -> None:
    """What of the film is missing there, then the words."""
    note(0.0, "sending")
    size, digest = film.path.stat().st_size, _sha256(film.path)
    part_bytes, have = client.announce(film.id, size, digest)
    numbers = range(-(-size // part_bytes))
    with film.path.open("rb") as file:
        for number in numbers:
            if number not in have:
                file.seek(number * part_bytes)
                client.send_part(film.id, number, file.read(part_bytes))
                _note(post, tries=0, trouble="")
            note((number + 1) / len(numbers), "sending")
    _note(post, told=True)
    shown_at = post.shown_at.isoformat() if post.shown_at else None
    words = {"title": post.title, "caption": post.caption, "tags": post.tags}
    words |= {"upload": str(film.id), "cover_at": post.cover_at, "shown_at": shown_at}
    _note_what(post, client.publish(post.name, words))


def _follow(post: Post, client: FeedClient) -> Outcome:
    """What becomes of it."""
    try:
        _note_what(post, client.post(post.name))
    except UnknownThere:
        _note(post, there=There.GONE)
    _note(post, tries=0, trouble="")
    if post.there == There.LOOKED_AT:
        return Later(_LOOK, "looked-at")
    if post.there == There.WAITING:
        left = (post.shown_at - timezone.now()).total_seconds() if post.shown_at else 0.0
        return Later(min(max(left + _SHOWN, _SHOWN), _LONGEST_WAIT), "scheduled")
    if post.there == There.REFUSED:
        raise Refused(" ".join(post.reasons), todo="Mend that, then try again.")
    return None


def _bring_down(post: Post, client: FeedClient) -> Outcome:
    """Taken down twice: a call to publish it may have been under way when it was cancelled."""
    sure = post.there == There.GONE
    client.take_down(post.name)
    _note(post, there=There.GONE, tries=0, trouble="")
    return None if sure else Later(_SURE, "taking-down")


def _tried(post: Post, error: Away) -> Later:
    """Wait before it is tried again, longer each time.

    Raises
    ------
    Away
        After very many times.
    """
    tries = post.tries + 1
    if tries > MOST_TRIES:
        raise error
    _note(post, tries=tries, trouble=error.message[:200])
    return Later(max(min(2.0 ** (tries - 1), _LONGEST_PAUSE), error.seconds), "away")


def _note_what(post: Post, told: Mapping[str, Any]) -> None:
    shown_at = parse_datetime(told["shown_at"]) if told["shown_at"] else post.shown_at
    state, reasons = There(told["state"]), [str(reason) for reason in told["reasons"]]
    counts = {"seen": int(told["seen"]), "liked": int(told["liked"])}
    _note(post, there=state, reasons=reasons, path=told["path"], shown_at=shown_at, **counts)


def _note(post: Post, **fields: Any) -> None:
    for name, value in fields.items():
        setattr(post, name, value)
    post.save(update_fields=list(fields))


def _sha256(path: Path) -> str:
    with path.open("rb") as file:
        return hashlib.file_digest(file, "sha256").hexdigest()


def _came_to_nothing(job: Job, problem: Mapping[str, str]) -> None:
    """What was cancelled and may be there already is taken down."""
    if not Job.objects.filter(pk=job.pk, state=State.CANCELLED).exists():
        return
    for post in Post.objects.filter(job=job, wanted=True, told=True).exclude(there=There.REFUSED):
        _turn_round(post)


def _once_more(job: Job) -> None:
    """What was refused is another post."""
    fresh: dict[str, Any] = {"tries": 0, "trouble": ""}
    refused = Post.objects.filter(job=job, there=There.REFUSED)
    refused.update(name=uuid4(), told=False, there=There.NOTHING, reasons=[], **fresh)
    Post.objects.filter(job=job).update(**fresh)


job_kinds.register("post")(
    JobKind(run=_run, priority=WAITED_FOR, failed=_came_to_nothing, again=_once_more)
)
