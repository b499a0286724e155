"""How a line, and a service that is overrun, fail: chosen on a page, each every so many calls."""

from __future__ import annotations

import functools
import time
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import Any, Concatenate, Final, ParamSpec

from django.db.models import F
from django.http import HttpRequest, HttpResponse, JsonResponse, StreamingHttpResponse

from practice.models import Member

P = ParamSpec("P")
Act = Callable[[], Any]
"""Does what was asked for, and answers it."""

LATE, STALLED, BUSY = 3.0, 20.0, 4
"""Seconds of an answer that is late, of one that never comes, and to wait for one that is overrun."""
EVERY: Final = {0: "never", 10: "every tenth call", 4: "every fourth", 2: "every other"}


@dataclass(frozen=True)
class Fault:
    """``happen`` takes the place of what was asked for."""

    title: str
    help: str
    happen: Callable[[Act], Any]


def _late(act: Act) -> Any:
    time.sleep(LATE)
    return act()


def _stalled(act: Act) -> Any:
    time.sleep(STALLED)
    return _cut_short()


def _lost(act: Act) -> Any:
    act()
    return _cut_short()


def _cut(act: Act) -> Any:
    return _cut_short()


def _busy(act: Act) -> Any:
    return JsonResponse({"reason": "Slow down."}, status=429, headers={"Retry-After": str(BUSY)})


def _broken(act: Act) -> Any:
    return JsonResponse({"reason": "Something broke here."}, status=503)


def _cut_short() -> HttpResponse:
    """An answer of which the end never comes."""

    def beginning() -> Iterator[bytes]:
        yield b"{"
        raise ConnectionResetError("the line is cut")

    answer = StreamingHttpResponse(beginning(), content_type="application/json")
    answer["Content-Length"] = "1000"
    return answer


FAULTS: Final = {
    "late": Fault("Late", f"Answers come after {LATE:g} seconds.", _late),
    "stalled": Fault("Stalled", "Nothing is answered, the line stays open.", _stalled),
    "cut": Fault("Cut", "The line breaks before anything is done.", _cut),
    "lost": Fault("Lost", "It is done, but the answer is lost.", _lost),
    "busy": Fault("Overrun", f"Asks to slow down, for {BUSY} seconds.", _busy),
    "broken": Fault("Broken", "Answers that something broke.", _broken),
}


def _due(member: Member) -> Fault | None:
    """The fault whose turn it is. The rarest comes first, so that each of several happens."""
    Member.objects.filter(pk=member.pk).update(calls=F("calls") + 1)
    member.refresh_from_db(fields=["calls"])
    by_rarity = sorted(member.line.items(), key=lambda one: -one[1])
    return next(
        (FAULTS[name] for name, every in by_rarity if every and member.calls % every == 0), None
    )


def on_the_line(
    view: Callable[Concatenate[HttpRequest, P], Any],
) -> Callable[Concatenate[HttpRequest, P], Any]:
    """A call of the API, over the line of its member."""

    @functools.wraps(view)
    def over_the_line(request: HttpRequest, *args: P.args, **more: P.kwargs) -> Any:
        fault = _due(request.auth)  # type: ignore[attr-defined]
        if fault is None:
            return view(request, *args, **more)
        return fault.happen(lambda: view(request, *args, **more))

    return over_the_line
