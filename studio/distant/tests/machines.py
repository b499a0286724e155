"""A real Redis server, and workers as on other machines: each in a network of its own, to be cut off."""

from __future__ import annotations

import os
import signal
import socket
import subprocess
import sys
import time
from collections.abc import Iterator
from contextlib import ExitStack, contextmanager
from pathlib import Path
from random import randrange
from uuid import uuid4

from redis import Redis
from redis.exceptions import RedisError

ROOT = Path(__file__).resolve().parents[3]


@contextmanager
def redis_server(folder: Path) -> Iterator[int]:
    """Its port, on all addresses of this machine."""
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        port = free.getsockname()[1]
    command = ["redis-server", "--port", f"{port}", "--bind", "0.0.0.0", "--protected-mode", "no"]
    command += ["--save", "", "--appendonly", "no", "--dir", str(folder)]
    server = subprocess.Popen(command, stdout=subprocess.DEVNULL)
    try:
        _until_it_answers(port)
        yield port
    finally:
        server.terminate()
        server.wait()


def _until_it_answers(port: int) -> None:
    line, end = Redis(port=port), time.monotonic() + 20
    while True:
        try:
            line.ping()
            return
        except RedisError:
            assert time.monotonic() < end, "the Redis server does not answer"
            time.sleep(0.05)


def _ip(*words: str) -> None:
    subprocess.run(["ip", *words], check=True, capture_output=True)


class Machine:
    """A worker in a network namespace, joined to this machine by a line that can be cut."""

    def __init__(self, port: int, data: Path) -> None:
        self._name = f"vk{uuid4().hex[:6]}"
        self._here, there = f"{self._name}a", f"{self._name}b"
        # Of its own, also beside what a test that was killed has left behind.
        net = f"10.{randrange(64, 250)}.{randrange(1, 250)}"
        ours, theirs = f"{net}.1", f"{net}.2"
        self._closing = ExitStack()
        _ip("netns", "add", self._name)
        self._closing.callback(_ip, "netns", "del", self._name)
        _ip("link", "add", self._here, "type", "veth", "peer", "name", there)
        _ip("link", "set", there, "netns", self._name)
        _ip("addr", "add", f"{ours}/30", "dev", self._here)
        _ip("link", "set", self._here, "up")
        _ip("-n", self._name, "addr", "add", f"{theirs}/30", "dev", there)
        _ip("-n", self._name, "link", "set", there, "up")
        command = ["ip", "netns", "exec", self._name, sys.executable, "-m", "studio.distant.worker"]
        command += ["--redis", f"redis://{ours}:{port}/0", "--data", str(data)]
        # It has neither settings nor a database.
        plain = {key: value for key, value in os.environ.items() if "DJANGO" not in key}
        plain.pop("VELVET_KITE_DATA", None)
        self.process = subprocess.Popen(command, cwd=ROOT, env=plain)
        self._closing.callback(self.kill)

    def kill(self) -> None:
        """As if the machine lost its power."""
        if self.process.poll() is None:
            self.process.send_signal(signal.SIGKILL)
        self.process.wait()

    def cut_off(self) -> None:
        _ip("link", "set", self._here, "down")

    def join_again(self) -> None:
        _ip("link", "set", self._here, "up")

    def close(self) -> None:
        self._closing.close()
