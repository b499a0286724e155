"""Run the site and its worker together until interrupted: ``python tools/serve.py [--port N]``."""

from __future__ import annotations

import argparse
import os
import signal
import subprocess
import sys
import time
from pathlib import Path
from urllib.error import URLError
from urllib.request import urlopen

ROOT = Path(__file__).resolve().parent.parent


def main() -> int:
    parser = argparse.ArgumentParser()
    parser.add_argument("--host", default=os.environ.get("HOST", "127.0.0.1"))
    parser.add_argument("--port", type=int, default=int(os.environ.get("PORT", "8000")))
    parser.add_argument("--sign-in", default="", help="told when the site is up")
    given = parser.parse_args()
    web = [sys.executable, "-m", "gunicorn", "studio.wsgi:application", "--threads", "16"]
    web += ["--bind", f"{given.host}:{given.port}", "--timeout", "180", "--graceful-timeout", "5"]
    worker = [sys.executable, "manage.py", "run_huey", "--quiet"]
    running = [subprocess.Popen(command, cwd=ROOT) for command in (web, worker)]
    signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))
    try:
        address = f"http://{given.host}:{given.port}/"
        if _is_up(address + "api/health", running):
            print(f"\n  Velvet Kite is at {address}", flush=True)
            if given.sign_in:
                print(f"  Sign in: {given.sign_in}", flush=True)
            print("  Ctrl+C ends it.\n", flush=True)
        while all(process.poll() is None for process in running):
            time.sleep(0.5)
        return 1
    except (KeyboardInterrupt, SystemExit):
        return 0
    finally:
        for process in running:
            process.terminate()
        for process in running:
            try:
                process.wait(timeout=10)
            except subprocess.TimeoutExpired:
                process.kill()


def _is_up(address: str, running: list[subprocess.Popen[bytes]]) -> bool:
    """Wait until the site answers, or one of its processes has ended."""
    while all(process.poll() is None for process in running):
        try:
            with urlopen(address, timeout=2):
                return True
        except (URLError, OSError):
            time.sleep(0.2)
    return False


if __name__ == "__main__":
    sys.exit(main())
