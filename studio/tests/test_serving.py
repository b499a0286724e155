"""The two programs of the site are brought back when they die, and go with the one that runs them."""

from __future__ import annotations

import os
import signal
import socket
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path
from unittest import TestCase
from urllib.error import URLError
from urllib.request import urlopen

ROOT = Path(__file__).resolve().parent.parent.parent


def children(pid: int) -> dict[str, int]:
    """The living children of a process: the last word of their command and their id."""
    found = {}
    for listed in Path(f"/proc/{pid}/task").glob("*/children"):
        for child in listed.read_text().split():
            words = Path(f"/proc/{child}/cmdline").read_text().split("\0")
            found["web" if "gunicorn" in words else "worker"] = int(child)
    return found


def alive(pid: int) -> bool:
    try:
        return "Z" not in Path(f"/proc/{pid}/stat").read_text().rsplit(")", 1)[1].split()[0]
    except FileNotFoundError:
        return False


class ServingTest(TestCase):
    def setUp(self) -> None:
        data = self.enterContext(tempfile.TemporaryDirectory(ignore_cleanup_errors=True))
        with socket.socket() as free:
            free.bind(("127.0.0.1", 0))
            self.port = free.getsockname()[1]
        environment = {**os.environ, "VELVET_KITE_DATA": data}
        environment.pop("VELVET_KITE_DATABASE", None)
        subprocess.run(
            [sys.executable, "manage.py", "migrate", "-v0"], cwd=ROOT, env=environment, check=True
        )
        self.served = subprocess.Popen(
            [sys.executable, "tools/serve.py", "--port", str(self.port)],
            cwd=ROOT,
            env=environment,
            stdout=subprocess.DEVNULL,
            stderr=subprocess.DEVNULL,
        )
        self.addCleanup(self.served.wait)
        self.addCleanup(self.served.terminate)

    def until(self, condition: Callable[[], bool], seconds: float = 60) -> None:
        end = time.monotonic() + seconds
        while not condition():
            self.assertLess(time.monotonic(), end, "it never happened")
            time.sleep(0.1)

    def answers(self) -> bool:
        try:
            with urlopen(f"http://127.0.0.1:{self.port}/api/health", timeout=5) as answer:
                return bool(answer.status == 200)
        except (URLError, OSError):
            return False

    def test_each_is_brought_back_alone_and_both_end_with_their_keeper(self) -> None:
        self.until(self.answers)
        first = children(self.served.pid)
        for name in ("web", "worker"):
            before = children(self.served.pid)
            os.kill(before[name], signal.SIGKILL)
            self.until(
                lambda name=name, old=before[name]: children(self.served.pid).get(name, old) != old
            )
        self.until(self.answers)
        second = children(self.served.pid)
        self.assertFalse(set(first.values()) & set(second.values()))
        self.served.kill()
        self.until(lambda: not any(alive(pid) for pid in second.values()))
