"""The whole site as it is served, for tests that kill parts of it."""

from __future__ import annotations

import json
import os
import socket
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable, Iterator
from http.client import HTTPException
from http.cookiejar import CookieJar
from pathlib import Path
from typing import Any
from unittest import TestCase
from urllib.error import HTTPError, URLError
from urllib.request import HTTPCookieProcessor, Request, build_opener

ROOT = Path(__file__).resolve().parent.parent.parent
PATIENCE = 300.0
"""Seconds for which anything is waited for: on a busy machine each process takes long to start."""


class Served(TestCase):
    """A site of its own, with a worker, kept alive by ``tools/serve.py``."""

    def setUp(self) -> None:
        self.data = self.make_data()
        with socket.socket() as free:
            free.bind(("127.0.0.1", 0))
            self.base = f"http://127.0.0.1:{free.getsockname()[1]}"
        self.environment = {
            **os.environ,
            "VELVET_KITE_DATA": str(self.data),
            "VELVET_KITE_SILENT": "2",
        }
        self.environment.pop("VELVET_KITE_DATABASE", None)
        self.manage("migrate", "-v0")
        self.served = subprocess.Popen(
            [sys.executable, "tools/serve.py", "--port", self.base.rsplit(":", 1)[1]],
            cwd=ROOT,
            env=self.environment,
            stdout=subprocess.DEVNULL,
            stderr=subprocess.DEVNULL,
        )
        self.addCleanup(self.served.wait)
        self.addCleanup(self.served.terminate)
        self.opener = build_opener(HTTPCookieProcessor(jar := CookieJar()))
        self.jar = jar
        self.until(self.answers, what="the site never answered")

    def make_data(self) -> Path:
        return Path(self.enterContext(tempfile.TemporaryDirectory(ignore_cleanup_errors=True)))

    def manage(self, *words: str) -> None:
        command = [sys.executable, "manage.py", *words]
        subprocess.run(command, cwd=ROOT, env=self.environment, check=True, capture_output=True)

    def until(self, condition: Callable[[], Any], seconds: float = PATIENCE, what: str = "") -> Any:
        end = time.monotonic() + seconds
        while not (found := condition()):
            self.assertLess(time.monotonic(), end, what or "it never happened")
            time.sleep(0.1)
        return found

    def answers(self) -> bool:
        try:
            return bool(self.call("GET", "/api/health")["ok"])
        except OSError:
            return False

    def call(
        self, method: str, path: str, data: Any = None, headers: dict[str, str] | None = None
    ) -> Any:
        """The JSON of an answer. Raises `OSError` where none comes, or a refusal."""
        token = next((cookie.value for cookie in self.jar if cookie.name == "csrftoken"), "") or ""
        body = data if isinstance(data, bytes) or data is None else json.dumps(data).encode()
        plain = {"X-CSRFToken": token, "Content-Type": "application/json"} | (headers or {})
        request = Request(self.base + path, body, plain, method=method)
        try:
            with self.opener.open(request, timeout=30) as answer:
                text = answer.read()
                return json.loads(text) if text else dict(answer.headers)
        except HTTPException as error:
            raise ConnectionError from error

    def insist(self, method: str, path: str, data: Any = None, **more: Any) -> Any:
        """The same, asked again until somebody answers."""

        def asked() -> Any:
            try:
                return self.call(method, path, data, **more) or True
            except HTTPError as error:
                if error.code < 500:
                    raise
            except (URLError, OSError):
                pass
            return None

        return self.until(asked, what=f"{method} {path} was never answered")


def children(pid: int) -> dict[int, str]:
    """The living children of a process and what they are started with."""
    found = {}
    for listed in Path(f"/proc/{pid}/task").glob("*/children"):
        for child in listed.read_text().split():
            try:
                found[int(child)] = Path(f"/proc/{child}/cmdline").read_text().replace("\0", " ")
            except FileNotFoundError:
                continue
    return found


def below(pid: int) -> Iterator[int]:
    """All living processes that came from this one."""
    for child in children(pid):
        yield child
        yield from below(child)


def alive(pid: int) -> bool:
    try:
        return Path(f"/proc/{pid}/stat").read_text().rsplit(")", 1)[1].split()[0] != "Z"
    except FileNotFoundError:
        return False
