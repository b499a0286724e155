"""Signing in and out, accounts, and the devices of a person."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated

from django.contrib.auth import authenticate, login, logout, update_session_auth_hash
from django.http import FileResponse, HttpRequest, JsonResponse
from django.views.decorators.csrf import csrf_protect, ensure_csrf_cookie
from ninja import Field, Router, Schema
from ninja.decorators import decorate_view

from kitecore.errors import BadInput, NotThere
from studio.accounts import devices, keeping, work
from studio.accounts.allowances import allowed_to
from studio.accounts.models import Device
from studio.files import download
from studio.jobs.models import Job, State
from studio.jobs.shown import JobOut, job_out
from studio.library.models import bytes_of
from studio.owned import owned
from studio.problems import Problem
from studio.projects.models import Project

router = Router()

Name = Annotated[str, Field(max_length=150)]
Password = Annotated[str, Field(max_length=1000)]
BACKEND = "django.contrib.auth.backends.ModelBackend"


class Person(Schema):
    """``way_in`` says whether a stranger can make an account: the first one, openly, by invitation."""

    signed_in: bool
    name: str = ""
    way_in: keeping.Way = "closed"


class Credentials(Schema):
    name: Name
    password: Password


class NewAccount(Credentials):
    invitation: str = Field(default="", max_length=40)


class AccountChange(Schema):
    """``password`` is the one of now, which a new one asks for."""

    name: Name | None = None
    password: Password = ""
    new_password: Password | None = None


class NewPassword(Schema):
    who: str = Field(max_length=40)
    token: str = Field(max_length=100)
    password: Password


class Leaving(Schema):
    password: Password


class DeviceOut(Schema):
    """``here``: the one that asks."""

    id: int
    browser: str
    made_at: datetime
    seen_at: datetime
    here: bool


class Share(Schema):
    has: int
    most: int


class Room(Schema):
    """``library`` in bytes."""

    library: Share
    projects: Share
    unfinished_films: Share


def _person(request: HttpRequest) -> Person:
    user = request.user
    if user.is_authenticated:
        return Person(signed_in=True, name=user.get_username())
    return Person(signed_in=False, way_in=keeping.way_in())


@router.get("/session", auth=None, response=Person)
@decorate_view(ensure_csrf_cookie)
def who(request: HttpRequest) -> Person:
    if request.user.is_authenticated:
        devices.seen(request)
    return _person(request)


@router.post("/session", auth=None, response=Person)
@decorate_view(csrf_protect)
def sign_in(request: HttpRequest, given: Credentials) -> Person:
    user = authenticate(request, username=given.name, password=given.password)
    if user is None:
        raise BadInput(
            "The name or the password is not right.", safe="", todo="Check both and try again."
        )
    login(request, user)
    return _person(request)


def slowed_down(request: HttpRequest, *_: object) -> JsonResponse:
    """The answer to a name, or an address, from which too many wrong passwords came."""
    problem = Problem(
        code="too_many_attempts",
        message="Too many attempts.",
        safe="Your account is safe.",
        todo="Wait 15 minutes.",
    )
    return JsonResponse(problem.model_dump(), status=429)


@router.delete("/session", response=Person)
def sign_out(request: HttpRequest) -> Person:
    logout(request)
    return Person(signed_in=False)


@router.post("/accounts", auth=None, response={201: Person, 422: Problem})
@decorate_view(csrf_protect)
def make_account(request: HttpRequest, given: NewAccount) -> tuple[int, Person]:
    """Make an account and sign in."""
    user = keeping.make_account(given.name, given.password, given.invitation)
    login(request, user, backend=BACKEND)
    return 201, _person(request)


@router.patch("/account", response={200: Person, 422: Problem})
def change_account(request: HttpRequest, given: AccountChange) -> Person:
    user = request.user
    if given.new_password is not None:
        _require_password(request, given.password)
        keeping.change_password(user, given.new_password)
        update_session_auth_hash(request, user)
        devices.seen(request)
    if given.name is not None and given.name != user.username:
        keeping.rename(user, given.name)
    return _person(request)


@router.get("/account/devices", response=list[DeviceOut])
def list_devices(request: HttpRequest) -> list[DeviceOut]:
    devices.seen(request)
    here = request.session.session_key
    return [
        DeviceOut(
            id=one.pk,
            browser=one.browser,
            made_at=one.made_at,
            seen_at=one.seen_at,
            here=one.session == here,
        )
        for one in devices.living(request.user)
    ]


@router.get("/account/room", response=Room)
def room(request: HttpRequest) -> Room:
    """What the person has of what may be had, told before it runs out."""
    allowed, owner = allowed_to(request.user.pk), request.user
    films = Job.objects.unfinished().filter(owner=owner, kind="film").count()
    return Room(
        library=Share(has=bytes_of(owner.pk), most=allowed.library),
        projects=Share(has=Project.objects.filter(owner=owner).count(), most=allowed.projects),
        unfinished_films=Share(has=films, most=allowed.unfinished_films),
    )


@router.post("/account/archive", response={201: JobOut})
def make_archive(request: HttpRequest) -> tuple[int, JobOut]:
    """Pack all that is the person's; what was packed before goes."""
    return 201, job_out(work.ask_for_archive(request.user))


@router.get("/account/archive", response={200: JobOut | None})
def look_at_archive(request: HttpRequest) -> JobOut | None:
    job = work.newest(request.user)
    return None if job is None else job_out(job)


@router.get("/account/archive/file", response={200: None, 404: Problem})
def fetch_archive(request: HttpRequest) -> FileResponse:
    job = work.newest(request.user)
    if job is None or job.state != State.DONE or not work.path_of(job).exists():
        raise NotThere("There is no archive yet.", todo="Have one packed first.")
    return download(request, work.path_of(job), "velvet-kite.zip", "application/zip")


@router.delete("/account/devices/{int:id}", response={204: None, 404: Problem})
def sign_out_device(request: HttpRequest, id: int) -> tuple[int, None]:
    devices.sign_out(owned(Device, request.user, "device", id))
    return 204, None


@router.post("/account/delete", response={200: Person, 422: Problem})
def delete_account(request: HttpRequest, given: Leaving) -> Person:
    """With all projects, takes and films of the person."""
    _require_password(request, given.password)
    user = request.user
    logout(request)
    keeping.delete_account(user)
    return _person(request)


@router.post("/new-password", auth=None, response={200: Person, 404: Problem, 422: Problem})
@decorate_view(csrf_protect)
def set_new_password(request: HttpRequest, given: NewPassword) -> Person:
    """By a link of whoever runs the site, after the old one was forgotten."""
    user = keeping.by_password_link(given.who, given.token)
    keeping.change_password(user, given.password)
    login(request, user, backend=BACKEND)
    return _person(request)


def _require_password(request: HttpRequest, password: str) -> None:
    if not request.user.check_password(password):
        raise BadInput("That is not your password of now.", safe="Nothing was changed.")
