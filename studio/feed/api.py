"""The practice feed: being connected to it, and what is posted there."""

from __future__ import annotations

import re
from contextlib import suppress
from datetime import datetime, timedelta
from typing import Annotated
from urllib.parse import urljoin
from uuid import UUID

from django.conf import settings
from django.http import HttpRequest
from django.utils import timezone
from ninja import Field, Router, Schema
from pydantic import AfterValidator

from kitecore.errors import BadInput
from studio.exports.models import Export
from studio.feed.client import Away, FeedClient
from studio.feed.models import Connection, Post, There
from studio.feed.sealing import seal
from studio.feed.work import Words, client_of, look, reword, start, take_down
from studio.jobs.shown import JobOut, job_out
from studio.owned import owned
from studio.problems import Problem
from studio.projects.models import Project

router = Router()

LATEST = timedelta(days=180)
_ANY_TAG = re.compile(r"^\w[\w-]*$")


class FeedOut(Schema):
    """``name`` of the person there; None without a connection. ``address`` of its pages."""

    name: str | None
    address: str


class AccountIn(Schema):
    """The name of a new account, or the key of one that there is."""

    name: str = Field("", max_length=40)
    key: str = Field("", max_length=200)


class VisitOut(Schema):
    address: str


def _tag(told: str) -> str:
    tag = told.strip().lstrip("#")
    if not _ANY_TAG.match(tag):
        raise ValueError("tags are words without spaces")
    return tag


class WordsIn(Schema):
    title: str = Field(min_length=1, max_length=80)
    caption: str = Field("", max_length=600)
    tags: list[Annotated[str, Field(max_length=40), AfterValidator(_tag)]] = Field([], max_length=8)
    cover_at: float = Field(0.0, ge=0, le=86_400)
    shown_at: datetime | None = None


class PostOut(Schema):
    """``there`` is what is known of it at the feed; ``trouble`` why it waits to be tried again."""

    id: UUID
    film: UUID | None
    title: str
    caption: str
    tags: list[str]
    cover_at: float
    shown_at: datetime | None
    wanted: bool
    there: str
    reasons: list[str]
    trouble: str
    address: str
    seen: int
    liked: int
    job: JobOut


def _address(path: str) -> str:
    """Of a page of the feed, as a browser finds it."""
    return urljoin(settings.FEED_PAGES, path)


def _feed_out(connection: Connection | None) -> FeedOut:
    return FeedOut(name=connection.name if connection else None, address=_address("/practice/"))


def _out(post: Post) -> PostOut:
    return PostOut(
        id=post.id,
        film=post.film_id,
        title=post.title,
        caption=post.caption,
        tags=post.tags,
        cover_at=post.cover_at,
        shown_at=post.shown_at,
        wanted=post.wanted,
        there=post.there,
        reasons=post.reasons,
        trouble=post.trouble if post.job.unfinished else "",
        address=_address(post.path) if post.there == There.LIVE else "",
        seen=post.seen,
        liked=post.liked,
        job=job_out(post.job),
    )


def _words(given: WordsIn) -> Words:
    now = timezone.now()
    shown_at = given.shown_at
    if shown_at is not None:
        if timezone.is_naive(shown_at):
            raise BadInput("The time lacks its zone.")
        if shown_at > now + LATEST:
            raise BadInput("That is too far ahead.", todo="Choose a day within half a year.")
    told = given.model_dump() | {"tags": tuple(given.tags)}
    return Words(**told | {"shown_at": shown_at if shown_at and shown_at > now else None})


def _post(request: HttpRequest, id: UUID) -> Post:
    return owned(Post, request.user, "post", id)


@router.get("/feed", response=FeedOut)
def tell_feed(request: HttpRequest) -> FeedOut:
    return _feed_out(Connection.objects.filter(owner=request.user).first())


@router.post("/feed", response={200: FeedOut, 422: Problem})
def connect_feed(request: HttpRequest, given: AccountIn) -> FeedOut:
    """By a key, or by a new account of the name that is given."""
    if bool(given.name.strip()) == bool(given.key.strip()):
        raise BadInput("Give a name for a new account, or a key.")
    key = given.key.strip() or FeedClient(settings.PRACTICE_PARTNER).welcome(given.name.strip())
    kept = {"name": FeedClient(key).who()[:40], "sealed": seal(key)}
    connection, _ = Connection.objects.update_or_create(owner=request.user, defaults=kept)
    return _feed_out(connection)


@router.delete("/feed", response={204: None})
def leave_feed(request: HttpRequest) -> tuple[int, None]:
    """Forget the key. What is posted stays."""
    Connection.objects.filter(owner=request.user).delete()
    return 204, None


@router.post("/feed/visit", response={200: VisitOut, 422: Problem})
def visit_feed(request: HttpRequest) -> VisitOut:
    """The address of a page that lets this person in, good for a minute."""
    assert request.user.is_authenticated
    return VisitOut(address=_address(client_of(request.user).way_in()))


@router.get("/projects/{uuid:id}/posts", response={200: list[PostOut], 404: Problem})
def list_posts(request: HttpRequest, id: UUID) -> list[PostOut]:
    project = owned(Project, request.user, "project", id)
    return [_out(post) for post in project.posts.select_related("job")]


@router.post("/exports/{uuid:id}/posts", response={201: PostOut, 404: Problem, 422: Problem})
def start_post(request: HttpRequest, id: UUID, given: WordsIn) -> tuple[int, PostOut]:
    """Post a film; one that is being made is posted when it is made."""
    film = owned(Export, request.user, "export", id)
    if film.wanted.recipe.kind != "film":
        raise BadInput("The practice feed takes films.", todo="Make one for it.")
    client_of(film.owner)
    return 201, _out(start(film, _words(given)))


@router.put("/posts/{uuid:id}", response={200: PostOut, 404: Problem, 422: Problem})
def reword_post(request: HttpRequest, id: UUID, given: WordsIn) -> PostOut:
    """Other words, as long as the feed does not have it."""
    reword(_post(request, id), _words(given))
    return _out(_post(request, id))


@router.post("/posts/{uuid:id}/look", response={200: PostOut, 404: Problem, 422: Problem})
def look_at_post(request: HttpRequest, id: UUID) -> PostOut:
    """Ask the feed what has become of it; while that is away, what it told last stands."""
    with suppress(Away):
        look(_post(request, id))
    return _out(_post(request, id))


@router.post("/posts/{uuid:id}/down", response={200: PostOut, 404: Problem, 422: Problem})
def take_post_down(request: HttpRequest, id: UUID) -> PostOut:
    take_down(_post(request, id))
    return _out(_post(request, id))


@router.delete("/posts/{uuid:id}", response={204: None, 404: Problem, 422: Problem})
def delete_post(request: HttpRequest, id: UUID) -> tuple[int, None]:
    """Off the list, if it is not at the feed."""
    post = _post(request, id)
    if post.job.unfinished or (post.told and post.there not in (There.REFUSED, There.GONE)):
        raise BadInput("It is at the feed, or may be.", todo="Take it down first.")
    post.delete()
    return 204, None
