"""What tests of the API share: two people, small takes, short calls."""

from __future__ import annotations

import base64
import json
import tempfile
from pathlib import Path
from threading import Event
from typing import Any
from unittest.mock import patch

from django.contrib.auth.models import User
from django.http import HttpResponse
from django.test import Client

from kitecore.document import empty_document
from kitecore.media.folder import MediaFolder
from kitecore.media.ingest import ingest
from kitecore.media.tests.material import make_video, tone
from kitecore.programs import Tell
from studio.jobs import running
from studio.jobs.models import Job
from studio.library.models import Take
from studio.library.work import take_in
from studio.projects import history
from studio.projects.models import Project

SECOND = 705_600_000


class People:
    """Mixin for Django's test cases: ``self.mine`` is signed in as pip, ``self.other`` as wren."""

    def setUp(self) -> None:
        self.pip = User.objects.create_user("pip", password="a-long-one-7")
        self.wren = User.objects.create_user("wren", password="a-long-one-8")
        self.mine, self.other, self.stranger = Client(), Client(), Client()
        self.mine.force_login(self.pip)
        self.other.force_login(self.wren)
        self.project = history.start_project(self.pip, "Kites", empty_document())

    def call(self, method: str, path: str, data: Any = None, client: Client | None = None) -> Any:
        send = getattr(client or self.mine, method)
        body = None if data is None else json.dumps(data)
        return send(f"/api{path}", body, content_type="application/json")

    def edit(self, based_on: int | None = None, **edit: Any) -> Any:
        self.project.refresh_from_db()
        revision = self.project.head_id if based_on is None else based_on
        return self.call(
            "post", f"/projects/{self.project.id}/edits", {"based_on": revision, "edit": edit}
        )

    def solid(self, name: str = "s", seconds: float = 1, **more: Any) -> dict[str, Any]:
        return {"kind": "solid", "name": name, "length": round(seconds * SECOND), **more}

    def document(self) -> dict[str, Any]:
        state: dict[str, Any] = self.call("get", f"/projects/{self.project.id}").json()
        return state["document"]


class Calm:
    """In place of a `Pulse`: a test within one transaction can have no second line to its database."""

    def __init__(self, job: Job) -> None:
        self.lost = Event()

    def __enter__(self) -> Calm:
        return self

    def __exit__(self, *_: object) -> None:
        self.lost.set()


def work_off() -> int:
    """Do all that was handed out, in this process; the number of jobs done."""
    with patch.object(running, "Pulse", Calm):
        return running.work_off()


def _here(module: str, arguments: list[str], heard: Tell) -> None:
    ingest(MediaFolder(Path(arguments[0])), heard)


def take_of(project: Project, name: str = "count.mp4", **how: Any) -> Take:
    """A made video as a take that is ready."""
    with tempfile.TemporaryDirectory() as folder:
        how = {"frames": 45, "size": (180, 320), "sound": tone(1.5), **how}
        data = make_video(Path(folder) / "x", **how).read_bytes()
    take = Take.objects.create(
        owner=project.owner,
        project=project,
        name=name,
        bytes=len(data),
        received=len(data),
        state=Take.State.WAITING,
    )
    take.folder.path.mkdir(parents=True)
    take.folder.original.write_bytes(data)
    # The programs themselves are tried where they are what a test is about; and no other worker
    # that a test may have takes this work away.
    with (
        patch("studio.jobs.queue.wake"),
        patch("studio.library.work.run_program", _here),
        patch("studio.library.work.standing_for", lambda info: []),
    ):
        take_in(take)
        work_off()
    take.refresh_from_db()
    return take


def clip_of(take: Take, seconds: float = 1.0) -> dict[str, Any]:
    return {
        "kind": "video",
        "name": take.name,
        "media": take.id.hex,
        "length": round(seconds * SECOND),
        "source_length": take.facts["length"],
    }


class Uploader:
    """Speaks tus 1.0 as a browser would."""

    def __init__(self, client: Client) -> None:
        self.client = client

    def create(
        self, project: Project, length: int, name: str = "x.mp4", **more: str
    ) -> HttpResponse:
        told = {"filename": name, "project": str(project.id), **more}
        coded = ",".join(f"{k} {base64.b64encode(v.encode()).decode()}" for k, v in told.items())
        return self.client.post(
            "/api/uploads/", headers={"Upload-Length": str(length), "Upload-Metadata": coded}
        )

    def send(self, location: str, offset: int, data: bytes) -> HttpResponse:
        return self.client.patch(
            location,
            data,
            content_type="application/offset+octet-stream",
            headers={"Upload-Offset": str(offset)},
        )

    def offset(self, location: str) -> int:
        return int(self.client.head(location)["Upload-Offset"])
