"""Rows that need the site: edits on long timelines, and play pressed in a real browser."""

from __future__ import annotations

import json
import os
import socket
import statistics
import subprocess
import sys
from pathlib import Path
from urllib.error import URLError
from urllib.request import urlopen

from benchmarks.rows import Row, percentile

ROOT = Path(__file__).resolve().parent.parent

_EDITS = """
import json, os, statistics, sys, time
os.environ["DJANGO_SETTINGS_MODULE"] = "studio.settings"
import django; django.setup()
from django.contrib.auth.models import User
from django.core.management import call_command
from django.test import Client
call_command("migrate", verbosity=0)
from kitecore.document import SolidClip, empty_document
from studio.projects import history
user, _ = User.objects.get_or_create(username="bench")
client = Client(SERVER_NAME="localhost"); client.force_login(user)
result = {}
for count in (500, 5000):
    document = empty_document()
    step = document.rate.exact.frame_ticks
    clips = tuple(SolidClip(id=f"c{n}", name=f"c{n}", start=n * 30 * step, length=30 * step) for n in range(count))
    document = document.with_track(document.main.model_copy(update={"clips": clips}))
    project = history.start_project(user, "Long", document)
    times, head = [], project.head_id
    for n in range(40):
        tick = (count // 2 * 30 + n * 30 + 7) * step
        edit = {"kind": "split", "at": tick} if n % 2 else {"kind": "adjust", "clips": [f"c{n}"], "values": {"opacity": 0.5}}
        start = time.perf_counter()
        answer = client.post(f"/api/projects/{project.id}/edits", json.dumps({"based_on": head, "edit": edit}), "application/json")
        times.append(time.perf_counter() - start)
        assert answer.status_code == 200, answer.content
        head = answer.json()["revision"]
    result[count] = times[2:]
print(json.dumps(result))
"""


def edits(data: Path) -> list[Row]:
    environment = {**os.environ, "VELVET_KITE_DATA": str(data / "edits")}
    done = subprocess.run(
        [sys.executable, "-c", _EDITS],
        cwd=ROOT,
        env=environment,
        check=True,
        capture_output=True,
        text=True,
    )
    rows = []
    for count, times in json.loads(done.stdout.splitlines()[-1]).items():
        reached = statistics.median(times) * 1000
        how = f"95 % within {percentile(times, 0.95) * 1000:.0f} ms; splits and values in turn, each on disk before the answer"
        rows.append(
            Row(
                f"an edit on {count} clips, request to answer",
                f"{reached:.0f} ms",
                "≤ 50 ms at 500; beyond: 20 ms at any length",
                how,
                reached <= 50,
            )
        )
    return rows


_PRESS = """
const done = arguments[arguments.length - 1]
const video = document.querySelector('[data-test=moving]')
const start = performance.now()
let frames = 0
const look = () => { if (++frames >= 2) done(performance.now() - start); else video.requestVideoFrameCallback(look) }
video.requestVideoFrameCallback(look)
document.querySelector('[data-test=play]').click()
"""


def play_start(data: Path) -> Row:
    """Play pressed after an edit, until the second picture is on the screen."""
    from browser_tests.browser import Browser

    environment = {**os.environ, "VELVET_KITE_DATA": str(data / "demo")}
    (data / "demo").mkdir(parents=True, exist_ok=True)
    subprocess.run(
        [sys.executable, "manage.py", "load_demo"],
        cwd=ROOT,
        env=environment,
        check=True,
        stdout=subprocess.DEVNULL,
    )
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        port = probe.getsockname()[1]
    serve = [sys.executable, "tools/serve.py", "--port", str(port)]
    server = subprocess.Popen(serve, cwd=ROOT, env=environment, stdout=subprocess.DEVNULL)
    base = f"http://127.0.0.1:{port}"
    while server.poll() is None:
        try:
            urlopen(base + "/api/health", timeout=2).close()
            break
        except (URLError, OSError):
            continue
    browser = Browser(base)
    times = []
    try:
        browser.sign_in("maker", "four-folds-up")
        browser.find(".cover").click()
        browser.test("play")
        for number in range(12):
            browser.find('[role=option][aria-label^="launch"] .face').click()
            browser.press("verb-fill")
            browser.wait(
                lambda: browser.run(
                    "return document.querySelector('.saved').textContent.startsWith('saved')"
                )
            )
            taken = browser.driver.execute_async_script(_PRESS)
            if number > 1:
                times.append(taken)
            browser.press("play")
    finally:
        browser.close()
        server.terminate()
        server.wait()
    reached = percentile(times, 0.5)
    how = f"95 % within {percentile(times, 0.95):.0f} ms; 10 starts in headless Chromium, software decoding and drawing"
    return Row(
        "play pressed after an edit, until pictures move",
        f"{reached:.0f} ms",
        "≤ 400 ms",
        how,
        reached <= 400,
    )
