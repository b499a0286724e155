"""The whole site, as it is served, with people who use it."""

from __future__ import annotations

import json
import os
import socket
import subprocess
import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from http.client import HTTPConnection
from pathlib import Path
from typing import Any

ROOT = Path(__file__).resolve().parent.parent
SECOND = 705_600_000

_MAKE = """
import json, os, sys
os.environ["DJANGO_SETTINGS_MODULE"] = "studio.settings"
import django; django.setup()
from django.contrib.auth.models import User
from django.contrib.sessions.backends.db import SessionStore
from django.core.management import call_command
from django.contrib.auth import BACKEND_SESSION_KEY, HASH_SESSION_KEY, SESSION_KEY
call_command("migrate", verbosity=0)
from kitecore import edits
from kitecore.document import empty_document
from kitecore.edits import edit_kinds
from studio.projects import history
document = empty_document()
for name, at in (("colour", 0), ("gradient", 1), ("star", 1), ("text", 1)):
    document = edits.apply(document, edit_kinds["add_layer"](seed=name, layer=name, at=at))
made = []
for number in range(int(sys.argv[1])):
    user = User.objects.create_user(f"person-{number}")
    session = SessionStore()
    session[SESSION_KEY] = str(user.pk)
    session[BACKEND_SESSION_KEY] = "django.contrib.auth.backends.ModelBackend"
    session[HASH_SESSION_KEY] = user.get_session_auth_hash()
    session.create()
    project = history.start_project(user, "Kites", document)
    made.append([session.session_key, str(project.id), project.head_id])
print(json.dumps(made))
"""


class Person:
    """A line to the site on which one signed in person asks, of a project of their own."""

    def __init__(self, port: int, session: str, project: str, head: int) -> None:
        self.line = HTTPConnection("127.0.0.1", port, timeout=600)
        self.session, self.path, self.head = session, f"/api/projects/{project}", head
        self.failed = 0

    def still(self, frame: int, long_side: int = 320) -> float:
        """Seconds until the picture is there."""
        body = {"frame": frame, "long_side": long_side}
        return self.ask("POST", f"{self.path}/revisions/{self.head}/still", body)[0]

    def step(self, edit: dict[str, Any]) -> float:
        body = {"based_on": self.head, "edit": edit}
        taken, told = self.ask("POST", f"{self.path}/edits", body)
        self.head = json.loads(told)["revision"] if told else self.head
        return taken

    def ask(self, method: str, path: str, body: object = None) -> tuple[float, bytes]:
        """Seconds, and the answer; nothing if it is refused."""
        token = "x" * 32
        headers = {
            "Cookie": f"sessionid={self.session}; csrftoken={token}",
            "X-CSRFToken": token,
            "Content-Type": "application/json",
        }
        begun = time.perf_counter()
        self.line.request(method, path, None if body is None else json.dumps(body), headers)
        answer = self.line.getresponse()
        data = answer.read()
        if answer.status >= 300:
            self.failed += 1
            data = b""
        return time.perf_counter() - begun, data


def solid(colour: str, seconds: float = 1 / 30, **more: Any) -> dict[str, Any]:
    """An edit that places a clip of one colour at the end."""
    fill = {"kind": "plain", "colour": colour}
    length = round(seconds * SECOND)
    clip = {"kind": "solid", "name": "s", "length": length, "fill": fill, **more}
    return {"kind": "place", "clip": clip}


@dataclass(frozen=True)
class Site:
    port: int
    keeper: int
    made: list[list[Any]]

    def people(self) -> list[Person]:
        return [Person(self.port, *one) for one in self.made]

    def processes(self) -> dict[str, list[int]]:
        """Process ids by what they do."""
        found: dict[str, list[int]] = {"web": [], "worker": [], "render process": []}
        for pid, command in _below(self.keeper):
            for name, word in _WORDS.items():
                if word in command:
                    found[name].append(pid)
                    break
        return found


_WORDS = {
    "render process": "kitecore.render",
    "web": "studio.listening",
    "worker": "run_huey",
}


Data = tuple[dict[str, str], list[list[Any]]]
"""The environment of a site, and its people: session, project and head of each."""


def peopled(data: Path, people: int) -> Data:
    """Data of a site of its own with so many people, each with a project."""
    folder = data / f"people-{time.time_ns()}"
    environment = {**os.environ, "VELVET_KITE_DATA": str(folder)}
    command = [sys.executable, "-c", _MAKE, str(people)]
    told = subprocess.run(
        command, cwd=ROOT, env=environment, check=True, capture_output=True, text=True
    )
    return environment, json.loads(told.stdout.splitlines()[-1])


@contextmanager
def served(data: Path, people: int) -> Iterator[Site]:
    """A site of its own with so many people, once all of it runs."""
    with running(peopled(data, people)) as site:
        time.sleep(3)
        yield site


@contextmanager
def running(data: Data) -> Iterator[Site]:
    """A site on a free port, as soon as it answers."""
    environment, made = data
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        port: int = free.getsockname()[1]
    keeper = subprocess.Popen(
        [sys.executable, "tools/serve.py", "--port", str(port)],
        cwd=ROOT,
        env=environment,
        stdout=subprocess.DEVNULL,
    )
    try:
        while not _answers(port):
            time.sleep(0.05)
        yield Site(port, keeper.pid, made)
    finally:
        keeper.terminate()
        keeper.wait()


def _answers(port: int) -> bool:
    with socket.socket() as line:
        return line.connect_ex(("127.0.0.1", port)) == 0


def _below(pid: int) -> Iterator[tuple[int, str]]:
    """All processes that came from one, with their commands."""
    for listed in Path(f"/proc/{pid}/task").glob("*/children"):
        for child in map(int, listed.read_text().split()):
            yield child, Path(f"/proc/{child}/cmdline").read_text().replace("\0", " ")
            yield from _below(child)


def resident(pid: int) -> int:
    """Bytes that a process holds in memory."""
    pages = int(Path(f"/proc/{pid}/statm").read_text().split()[1])
    return pages * os.sysconf("SC_PAGE_SIZE")


def open_files(pid: int) -> int:
    return len(list(Path(f"/proc/{pid}/fd").iterdir()))
