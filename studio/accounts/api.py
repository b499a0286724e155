"""Signing in and out."""

from __future__ import annotations

from django.contrib.auth import authenticate, login, logout
from django.http import HttpRequest, JsonResponse
from django.views.decorators.csrf import csrf_protect, ensure_csrf_cookie
from ninja import Router, Schema
from ninja.decorators import decorate_view

from kitecore.errors import BadInput
from studio.problems import Problem

router = Router()


class Person(Schema):
    signed_in: bool
    name: str = ""


class Credentials(Schema):
    name: str
    password: str


def _person(request: HttpRequest) -> Person:
    user = request.user
    return Person(signed_in=user.is_authenticated, name=user.get_username())


@router.get("/session", auth=None, response=Person)
@decorate_view(ensure_csrf_cookie)
def who(request: HttpRequest) -> Person:
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
