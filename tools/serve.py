"""Run the site and its worker together until interrupted: ``python tools/serve.py [--port N]``.

One of them that dies is started again, alone; when this program goes, they go with it.
"""

from __future__ import annotations

import argparse
import os
import signal
import subprocess
import sys
import time
from collections.abc import Sequence
from pathlib import Path
from urllib.error import URLError
from urllib.request import urlopen

ROOT = Path(__file__).resolve().parent.parent
sys.path.insert(0, str(ROOT))

from kitecore.programs import end_with_parent

FAST, PAUSE, LONGEST = 5.0, 1.0, 30.0
"""Seconds: a program that ends within the first starts again after a pause that grows."""
LATEST, AFTER = 20.0, 3.0
"""Seconds for which the worker is kept waiting, so that people are answered first: at most, and after
the site is up."""


class Kept:
    """A program that is started again whenever it ends."""

    def __init__(self, command: Sequence[str]) -> None:
        self._command = command
        self._pause = PAUSE
        self.start()

    def start(self) -> None:
        self._begun = time.monotonic()
        self.process = subprocess.Popen(self._command, cwd=ROOT, preexec_fn=_with_us)

    def look(self) -> None:
        """Start it again if it has ended, not at once if it ends again and again."""
        if self.process.poll() is None:
            return
        lasted = time.monotonic() - self._begun
        self._pause = PAUSE if lasted > FAST else min(2 * self._pause, LONGEST)
        name = " ".join(self._command[1:4])
        print(f"  {name} ended ({self.process.returncode}); it is started again.", flush=True)
        time.sleep(self._pause)
        self.start()

    def stop(self) -> None:
        self.process.terminate()
        try:
            self.process.wait(timeout=10)
        except subprocess.TimeoutExpired:
            self.process.kill()
            self.process.wait()


def _with_us() -> None:
    end_with_parent(signal.SIGTERM)


def main() -> int:
    parser = argparse.ArgumentParser()
    parser.add_argument("--host", default=os.environ.get("HOST", "127.0.0.1"))
    parser.add_argument("--port", type=int, default=int(os.environ.get("PORT", "8000")))
    parser.add_argument("--sign-in", default="", help="told when the site is up")
    given = parser.parse_args()
    web = [
        sys.executable,
        "-m",
        "studio.listening",
        "--host",
        given.host,
        "--port",
        f"{given.port}",
    ]
    worker = [sys.executable, "manage.py", "run_huey", "--quiet"]
    # Where the worker finds the practice feed, unless it is elsewhere.
    os.environ["PORT"] = str(given.port)
    signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))
    kept: list[Kept] = []
    try:
        kept = [Kept(web)]
        address = f"http://{given.host}:{given.port}/"
        told, due = False, time.monotonic() + LATEST
        while True:
            for one in kept:
                one.look()
            if len(kept) == 1 and time.monotonic() > due:
                kept.append(Kept(worker))
            if not told and _is_up(address + "api/health"):
                told, due = True, time.monotonic() + AFTER
                print(f"\n  Velvet Kite is at {address}", flush=True)
                if given.sign_in:
                    print(f"  Sign in: {given.sign_in}", flush=True)
                print("  Ctrl+C ends it.\n", flush=True)
            time.sleep(0.5 if told else 0.2)
    except (KeyboardInterrupt, SystemExit):
        return 0
    finally:
        for one in kept:
            one.stop()


def _is_up(address: str) -> bool:
    try:
        with urlopen(address, timeout=2):
            return True
    except (URLError, OSError):
        return False


if __name__ == "__main__":
    sys.exit(main())
