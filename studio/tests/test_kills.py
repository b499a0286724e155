"""Whatever process dies, and when: what was acknowledged is there once, and all work ends well."""

from __future__ import annotations

import base64
import os
import random
import signal
import tempfile
import time
from contextlib import suppress
from pathlib import Path
from threading import Thread
from typing import Any
from urllib.error import HTTPError

from kitecore.media.tests.material import decoded_numbers, make_video, tone
from studio.tests.serving import Served, below

KILLS = 30
SECOND = 705_600_000


class KillTest(Served):
    def setUp(self) -> None:
        super().setUp()
        script = (
            "from django.contrib.auth.models import User;"
            "User.objects.create_user('pip', password='a-long-one-7')"
        )
        self.manage("shell", "--no-imports", "-c", script)
        self.call("GET", "/api/session")
        self.call("POST", "/api/session", {"name": "pip", "password": "a-long-one-7"})
        project = self.call("POST", "/api/projects", {"name": "Kites"})
        self.project, self.revision = f"/api/projects/{project['id']}", project["revision"]
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "x"
            self.film = make_video(path, frames=240, size=(360, 640), sound=tone(8)).read_bytes()

    def test_steps_uploads_and_films_outlive_kills_of_any_process(self) -> None:
        first = self._upload("first.mp4")
        self._ready(first)
        self._step({"kind": "place", "clip": self._clip(first)}, "clip")
        made: list[str] = []
        takes: list[dict[str, Any]] = []
        [film] = self.insist("POST", f"{self.project}/exports", {"settings": [{"long_side": 320}]})
        users = [
            Thread(target=self._mark, args=(made,)),
            Thread(target=lambda: takes.append(self._upload("second.mp4"))),
        ]
        for user in users:
            user.start()
        self._kill_at_random()
        for user in users:
            user.join()
        done = self.until(lambda: self._done(film["id"]), what="the film did not end")
        self.assertEqual("done", done["job"]["state"], done["job"]["problem"])
        path = self.data / "exports" / film["id"].replace("-", "") / "film.mp4"
        self.assertEqual(list(range(240)), decoded_numbers(path))
        self._ready(takes[0])
        state = self.insist("GET", self.project)
        names = [marker["name"] for marker in state["document"]["markers"]]
        self.assertEqual(sorted(made), sorted(names))
        self.assertEqual(len(made) + 1, state["step"])
        self.assertEqual(2, len(self.insist("GET", f"{self.project}/takes")))

    def _kill_at_random(self) -> None:
        chance = random.Random(7)
        for _ in range(KILLS):
            time.sleep(chance.uniform(0.2, 1.8))
            victims = list(below(self.served.pid))
            if victims:
                # It may have ended by itself since it was listed.
                with suppress(ProcessLookupError):
                    os.kill(chance.choice(victims), signal.SIGKILL)

    def _mark(self, made: list[str]) -> None:
        """Steps one after another, each sent again until it is acknowledged."""
        for number in range(25):
            name = f"m{number}"
            self._step({"kind": "add_marker", "at": number * SECOND // 5, "name": name}, name)
            made.append(name)

    def _step(self, edit: dict[str, Any], seed: str) -> None:
        while True:
            body = {"based_on": self.revision, "edit": edit | {"seed": seed}}
            try:
                done = self.insist("POST", f"{self.project}/edits", body)
                self.revision = done["revision"]
                return
            except HTTPError as error:
                self.assertEqual(409, error.code)
                self.revision = self.insist("GET", self.project)["revision"]

    def _upload(self, name: str) -> dict[str, Any]:
        """As a page does it: asks how far it is, and goes on from there."""
        told = {"filename": name, "project": self.project.rsplit("/", 1)[1], "key": name}
        coded = ",".join(f"{k} {base64.b64encode(v.encode()).decode()}" for k, v in told.items())
        headers = {"Upload-Length": str(len(self.film)), "Upload-Metadata": coded}
        place = self.insist("POST", "/api/uploads/", b"", headers=headers)["Location"]
        kind = {"Content-Type": "application/offset+octet-stream"}
        while True:
            at = int(self.insist("HEAD", place)["Upload-Offset"])
            if at == len(self.film):
                return {"id": place.rsplit("/", 1)[1]}
            part = self.film[at : at + 20_000]
            try:
                self.call("PATCH", place, part, headers=kind | {"Upload-Offset": str(at)})
            except OSError:
                continue

    def _ready(self, take: dict[str, Any]) -> None:
        def ready() -> bool:
            found = {one["id"]: one for one in self.insist("GET", f"{self.project}/takes")}
            take.update(found.get(take["id"], {}))
            return take.get("state") in ("ready", "refused")

        self.until(ready, what="a take was never ready")
        self.assertEqual("ready", take["state"], take["problem"])

    def _clip(self, take: dict[str, Any]) -> dict[str, Any]:
        length = take["facts"]["length"]
        clip = {"kind": "video", "media": take["media"], "length": 8 * SECOND}
        return clip | {"source_length": length}

    def _done(self, id: str) -> Any:
        films = self.insist("GET", f"{self.project}/exports")
        found = next(film for film in films if film["id"] == id)
        return found if found["job"]["state"] in ("done", "failed", "cancelled") else None
