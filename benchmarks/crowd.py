"""Rows of many people at once on the whole site, as it is served."""

from __future__ import annotations

import json
import os
import random
import socket
import subprocess
import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager
from http.client import HTTPConnection
from pathlib import Path
from threading import Thread

from benchmarks.rows import Row, percentile

ROOT = Path(__file__).resolve().parent.parent
PEOPLE = 50
SECONDS = 60
PAUSE = 1.5
"""Seconds, about, that a person takes between two things."""

_MAKE = """
import json, os
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
for number in range(PEOPLE):
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


class Person(Thread):
    """Looks at frames and makes steps, a pause between them; counts how long each takes."""

    def __init__(self, port: int, session: str, project: str, head: int, end: float) -> None:
        super().__init__(daemon=True)
        self.line = HTTPConnection("127.0.0.1", port, timeout=60)
        self.session, self.path, self.head, self.end = (
            session,
            f"/api/projects/{project}",
            head,
            end,
        )
        self.luck = random.Random(project)
        self.stills: list[float] = []
        self.steps: list[float] = []
        self.failed = 0

    def run(self) -> None:
        time.sleep(self.luck.uniform(0, PAUSE))
        while time.monotonic() < self.end:
            if self.luck.random() < 0.7:
                self.look()
            else:
                self.step()
            time.sleep(self.luck.uniform(0.5, 1.5) * PAUSE)

    def look(self) -> None:
        body = {"frame": self.luck.randrange(90), "long_side": 320}
        self.ask(self.stills, f"{self.path}/revisions/{self.head}/still", body)

    def step(self) -> None:
        fill = {"kind": "plain", "colour": f"#{self.luck.randrange(2**24):06x}"}
        clip = {"kind": "solid", "name": "s", "length": 23_520_000, "fill": fill}
        edit = {"kind": "place", "clip": clip}
        told = self.ask(self.steps, f"{self.path}/edits", {"based_on": self.head, "edit": edit})
        self.head = json.loads(told)["revision"] if told else self.head

    def ask(self, times: list[float], path: str, body: object) -> bytes:
        token = "x" * 32
        headers = {
            "Cookie": f"sessionid={self.session}; csrftoken={token}",
            "X-CSRFToken": token,
            "Content-Type": "application/json",
        }
        begun = time.perf_counter()
        self.line.request("POST", path, json.dumps(body), headers)
        answer = self.line.getresponse()
        data = answer.read()
        times.append(time.perf_counter() - begun)
        if answer.status != 200:
            self.failed += 1
            return b""
        return data


def crowd(data: Path) -> list[Row]:
    environment = {**os.environ, "VELVET_KITE_DATA": str(data / f"crowd-{time.time_ns()}")}
    made = subprocess.run(
        [sys.executable, "-c", _MAKE.replace("PEOPLE", str(PEOPLE))],
        cwd=ROOT,
        env=environment,
        check=True,
        capture_output=True,
        text=True,
    )
    with served(environment) as (port, keeper):
        end = time.monotonic() + SECONDS
        people = [Person(port, *one, end) for one in json.loads(made.stdout.splitlines()[-1])]
        for one in people:
            one.start()
        for one in people:
            one.join()
        largest = max(resident(pid) for pid in drawing(keeper))
    stills = [taken for one in people for taken in one.stills]
    steps = [taken for one in people for taken in one.steps]
    failed = sum(one.failed for one in people)
    how = f"{PEOPLE} people for {SECONDS} s, each about every {PAUSE} s; {failed} of {len(stills) + len(steps)} failed; they ask from the same 2 cores"
    rows = [
        _row("stills of 320 px", stills, 300, how, failed),
        _row("steps", steps, 100, how, failed),
    ]
    memory = f"{largest / 2**20:.0f} MB"
    told = "the larger of the two render processes, after that"
    return [
        *rows,
        Row("memory of a render process", memory, "< 600 MB", told, largest < 600 * 2**20),
    ]


def _row(what: str, times: list[float], aim: int, how: str, failed: int) -> Row:
    reached = percentile(times, 0.95) * 1000
    middle = percentile(times, 0.5) * 1000
    good = reached <= aim and not failed
    name = f"{PEOPLE} people at once, {what}, 95 % within"
    return Row(name, f"{reached:.0f} ms", f"≤ {aim} ms", f"median {middle:.0f} ms; {how}", good)


@contextmanager
def served(environment: dict[str, str]) -> Iterator[tuple[int, int]]:
    """The site on a free port; the process that keeps it."""
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
        while True:
            time.sleep(0.2)
            with socket.socket() as line:
                if line.connect_ex(("127.0.0.1", port)) == 0:
                    break
        time.sleep(3)
        yield port, keeper.pid
    finally:
        keeper.terminate()
        keeper.wait()


def drawing(pid: int) -> Iterator[int]:
    """Render processes among all that came from one."""
    for listed in Path(f"/proc/{pid}/task").glob("*/children"):
        for child in map(int, listed.read_text().split()):
            if "kitecore.render.worker" in Path(f"/proc/{child}/cmdline").read_text():
                yield child
            yield from drawing(child)


def resident(pid: int) -> int:
    """Bytes that a process holds in memory."""
    pages = int(Path(f"/proc/{pid}/statm").read_text().split()[1])
    return pages * os.sysconf("SC_PAGE_SIZE")
