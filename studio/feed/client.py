"""Speaking with the practice feed over HTTP: each call may be made again."""

from __future__ import annotations

import base64
import hashlib
import json
from collections.abc import Mapping, Sequence
from time import sleep
from typing import Any, Final
from urllib.parse import urljoin
from uuid import UUID

import urllib3
from django.conf import settings

from kitecore.errors import BadInput, ServiceAway

PATIENCE: Final = urllib3.Timeout(connect=5, read=10)
AT_ONCE: Final = (0.5, 2.0)
"""Seconds before a worker asks once more: a line that was cut is often there again."""
_SOON: Final = 5.0
"""Seconds that a worker waits where it is asked to."""
_MOST_ANSWER: Final = 2**20
"""Bytes of an answer that are read."""
_pool: Final = urllib3.PoolManager(retries=False, timeout=PATIENCE)


class Away(ServiceAway):
    """The feed cannot be reached now, or asks to wait ``seconds``: what was asked for may be done."""

    def __init__(self, message: str, seconds: float = 0.0) -> None:
        super().__init__(message)
        self.seconds = seconds


class Refused(BadInput):
    """The feed does not take what it was sent."""

    code = "feed_refused"


class UnknownThere(Refused):
    """There is no such thing at the feed."""


class WrongKey(BadInput):
    code = "feed_key"
    default_todo = "Connect anew in Send, under Feed."


class FeedClient:
    """With the key of a member, or a partner's secret; ``pauses`` before it asks again."""

    def __init__(self, key: str, pauses: Sequence[float] = ()) -> None:
        self._key = key
        self._pauses = pauses

    def welcome(self, name: str) -> str:
        """Make a member; the key."""
        return str(self._ask("POST", "members", {"name": name})["key"])

    def who(self) -> str:
        """Whose key this is."""
        return str(self._ask("GET", "me")["name"])

    def way_in(self) -> str:
        """The path of a page that lets its member in."""
        return str(self._ask("POST", "tickets")["path"])

    def announce(self, upload: UUID, size: int, sha256: str) -> tuple[int, set[int]]:
        """Bytes of a part, and the parts that are there."""
        told = self._ask("PUT", f"uploads/{upload}", {"bytes": size, "sha256": sha256})
        return int(told["part_bytes"]), set(told["have"])

    def send_part(self, upload: UUID, number: int, content: bytes) -> None:
        digest = base64.b64encode(hashlib.sha256(content).digest()).decode()
        headers = {"Content-Digest": f"sha-256=:{digest}:"}
        self._ask("PUT", f"uploads/{upload}/parts/{number}", content, headers)

    def publish(self, post: UUID, words: Mapping[str, Any]) -> dict[str, Any]:
        return self._ask("PUT", f"posts/{post}", words)

    def post(self, post: UUID) -> dict[str, Any]:
        return self._ask("GET", f"posts/{post}")

    def take_down(self, post: UUID) -> None:
        self._ask("DELETE", f"posts/{post}")

    def _ask(
        self,
        method: str,
        path: str,
        body: Mapping[str, Any] | bytes | None = None,
        headers: Mapping[str, str] | None = None,
    ) -> dict[str, Any]:
        """The JSON of an answer.

        Raises
        ------
        Away
            Without an answer, or where it says to come again.
        Refused, WrongKey
            Where it says no.
        """
        for pause in self._pauses:
            try:
                return self._ask_once(method, path, body, headers or {})
            except Away as error:
                if error.seconds > _SOON:
                    raise
                sleep(max(pause, error.seconds))
        return self._ask_once(method, path, body, headers or {})

    def _ask_once(
        self,
        method: str,
        path: str,
        body: Mapping[str, Any] | bytes | None,
        headers: Mapping[str, str],
    ) -> dict[str, Any]:
        plain = {"Authorization": f"Bearer {self._key}", "Content-Type": "application/json"}
        sent = body if isinstance(body, bytes) or body is None else json.dumps(body).encode()
        try:
            answer = _pool.request(
                method,
                urljoin(settings.FEED_ADDRESS, f"api/{path}"),
                body=sent,
                headers=plain | dict(headers),
                redirect=False,
                preload_content=False,
            )
            try:
                content = answer.read(_MOST_ANSWER)
            finally:
                answer.release_conn()
        except urllib3.exceptions.HTTPError as error:
            raise Away(_line_says(error)) from error
        return _told(answer, content)


def _line_says(error: urllib3.exceptions.HTTPError) -> str:
    if isinstance(error, urllib3.exceptions.NewConnectionError):
        return "The practice feed cannot be reached."
    if isinstance(error, urllib3.exceptions.TimeoutError):
        return "The practice feed does not answer."
    return "The line to the practice feed was cut."


def _told(answer: urllib3.BaseHTTPResponse, content: bytes) -> dict[str, Any]:
    try:
        told = json.loads(content) if content else {}
    except ValueError:
        raise Away("The practice feed's answer cannot be read.") from None
    if answer.status < 300:
        return dict(told)
    reason = str(told.get("reason", "")) or f"The practice feed answered {answer.status}."
    if answer.status == 401:
        raise WrongKey("The practice feed does not know this key.")
    if answer.status == 404:
        raise UnknownThere(reason)
    if answer.status in (409, 429) or answer.status >= 500:
        raise Away(reason, _seconds(answer.headers.get("Retry-After", "")))
    raise Refused(reason, todo="Change what it says, then try again.")


def _seconds(told: str) -> float:
    return min(float(told), 3600.0) if told.isdecimal() else 0.0
