"""The API, put together from the apps; errors become answers here and nowhere else."""

from __future__ import annotations

from typing import Final

from django.http import HttpRequest, HttpResponse
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, ValidationError
from ninja.security import django_auth

from kitecore.errors import (
    BadInput,
    BrokenDocument,
    KiteError,
    MediaError,
    NotThere,
    RenderFailed,
    ServiceAway,
    Superseded,
    TookTooLong,
)
from studio.accounts.api import router as accounts
from studio.exports.api import router as exports
from studio.exports.captions import router as captions
from studio.exports.handing import router as handing
from studio.exports.timelines import router as timelines
from studio.feed.api import router as feed
from studio.health import Health, health
from studio.jobs.api import router as jobs
from studio.kit.api import router as kit
from studio.kit.layers import router as kit_layers
from studio.kit.moves import router as kit_moves
from studio.kit.sending import router as kit_sending
from studio.kit.sounds import router as kit_sounds
from studio.library.api import router as library
from studio.library.cutting import router as cutting
from studio.library.lining import router as lining
from studio.library.tracking import router as tracking
from studio.playback.api import router as playback
from studio.playback.captions import router as words_said
from studio.playback.colours import router as colours
from studio.playback.hearing import router as hearing
from studio.playback.layers import router as layers
from studio.playback.mouths import router as mouths
from studio.problems import Problem, Stale
from studio.projects.api import router as projects

api = NinjaAPI(
    title="Velvet Kite", version="1", auth=django_auth, urls_namespace="api", docs_url=None
)
api.add_router("", accounts, tags=["accounts"])
api.add_router("", projects, tags=["projects"])
api.add_router("", library, tags=["library"])
api.add_router("", lining, tags=["library"])
api.add_router("", tracking, tags=["library"])
api.add_router("", cutting, tags=["library"])
api.add_router("", kit, tags=["kit"])
api.add_router("", kit_layers, tags=["kit"])
api.add_router("", kit_moves, tags=["kit"])
api.add_router("", kit_sounds, tags=["kit"])
api.add_router("", kit_sending, tags=["kit"])
api.add_router("", layers, tags=["playback"])
api.add_router("", mouths, tags=["playback"])
api.add_router("", words_said, tags=["playback"])
api.add_router("", colours, tags=["playback"])
api.add_router("", hearing, tags=["playback"])
api.add_router("", playback, tags=["playback"])
api.add_router("", exports, tags=["exports"])
api.add_router("", captions, tags=["exports"])
api.add_router("", timelines, tags=["exports"])
api.add_router("", handing, tags=["exports"])
api.add_router("", feed, tags=["feed"])
api.add_router("", jobs, tags=["jobs"])

STATUS: Final[list[tuple[type[KiteError], int]]] = [
    (NotThere, 404),
    (Stale, 409),
    (MediaError, 422),
    (BrokenDocument, 422),
    (BadInput, 422),
    (RenderFailed, 500),
    (TookTooLong, 503),
    (ServiceAway, 503),
    (KiteError, 500),
]
"""HTTP status by class of error; the first that fits counts."""


def _answer(request: HttpRequest, problem: Problem, status: int) -> HttpResponse:
    return api.create_response(request, problem, status=status)


@api.exception_handler(KiteError)
def on_kite_error(request: HttpRequest, error: KiteError) -> HttpResponse:
    """An answer that nobody waits for any more is empty; the rest say what went wrong."""
    if isinstance(error, Superseded):
        return HttpResponse(status=204)
    status = next(status for kind, status in STATUS if isinstance(error, kind))
    return _answer(request, Problem.of(error), status)


@api.exception_handler(ValidationError)
def on_validation(request: HttpRequest, error: ValidationError) -> HttpResponse:
    first = error.errors[0] if error.errors else {"msg": "unreadable", "loc": ()}
    where = " / ".join(str(part) for part in first["loc"][2:])
    message = f"That cannot be used: {first['msg']}" + (f" ({where})." if where else ".")
    return _answer(request, Problem.of(BadInput(message)), 422)


@api.exception_handler(OverflowError)
def on_overflow(request: HttpRequest, error: OverflowError) -> HttpResponse:
    """A number larger than the database can hold names nothing that is there."""
    return _answer(request, Problem.of(NotThere("There is nothing of that number.")), 404)


@api.exception_handler(AuthenticationError)
def on_stranger(request: HttpRequest, error: AuthenticationError) -> HttpResponse:
    problem = Problem(code="signed_out", message="You are signed out.", safe="", todo="Sign in.")
    return _answer(request, problem, 401)


@api.get("/health", auth=None, tags=["site"])
def tell_health(request: HttpRequest) -> Health:
    """Answers as soon as the site is up."""
    return health()
