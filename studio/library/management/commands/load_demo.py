"""``manage.py load_demo``: the demo account, its takes and its finished piece."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from concurrent.futures import ThreadPoolExecutor
from functools import partial
from pathlib import Path
from typing import Any

from django.conf import settings
from django.contrib.auth.models import User
from django.core.management import call_command
from django.core.management.base import BaseCommand
from django.db import connections

from demo import burst, compositing, mixing, moving, report, speaking, street
from demo.project import CAMERA_TAKES, CAMERAS, NAME, Source, camera_edits, edits_of
from kitecore.document import VideoClip, empty_document
from kitecore.edits import EditBase
from kitecore.media.info import MediaInfo
from studio.jobs.running import work_off
from studio.library.arrival import new_take
from studio.library.models import Take
from studio.library.work import ask_for, take_in
from studio.projects import history
from studio.projects.models import Project

Compose = Callable[[Mapping[str, Source]], Iterator[EditBase]]

USER, PASSWORD = "maker", "four-folds-up"


class Command(BaseCommand):
    help = "Make the demo account with Paper Weather's takes and its finished piece."

    def handle(self, *args: Any, **options: Any) -> None:
        call_command("migrate", verbosity=0)
        user, is_new = User.objects.get_or_create(username=USER)
        if is_new:
            user.set_password(PASSWORD)
            user.save()
        if Project.objects.filter(owner=user).exists():
            return
        from demo.make import make_all

        self.stdout.write("Folding the demo takes (a minute or two, once) …")
        files = make_all(settings.DATA_DIR / "demo")
        cameras = [path for path in files if path.name in CAMERA_TAKES]
        shared = [path for path in files if path.name in compositing.SHARED]
        layers = [path for path in files if path.name in compositing.TAKES]
        desk = [path for path in files if path.name in report.TAKES]
        walks = [path for path in files if path.name in street.TAKES]
        rest = [path for path in files if path not in (*cameras, *layers, *desk, *walks)]
        self.stdout.write("Making their proxies and strips …")
        self._project(user, CAMERAS, cameras, camera_edits)
        self._project(user, compositing.NAME, [*layers, *shared], compositing.layer_edits)
        moved = [path for path in files if path.name in moving.SHARED]
        self._project(user, moving.NAME, moved, moving.moving_edits)
        torn = [path for path in files if path.name in burst.SHARED]
        self._project(user, burst.NAME, torn, burst.burst_edits)
        said = {path.name: path for path in files if path.name in speaking.SHARED}
        speak = partial(speaking.speaking_edits, voice=said[speaking.VOICE])
        self._project(user, speaking.NAME, list(said.values()), speak)
        heard = [path for path in files if path.name in mixing.SHARED]
        shelf = [settings.DATA_DIR / "demo" / name for name in mixing.TAKES]
        self._project(user, mixing.NAME, [*heard, *shelf], mixing.mix_edits)
        self._project(user, report.NAME, desk, report.report_edits)
        self._project(user, street.NAME, walks, street.street_edits)
        self._project(user, NAME, rest, edits_of)

    def _project(self, user: User, name: str, files: list[Path], compose: Compose) -> None:
        project = history.start_project(user, name, empty_document())
        takes = [new_take(project, path.name, path, number) for number, path in enumerate(files)]
        for take in takes:
            take_in(take)
        with ThreadPoolExecutor(2) as pool:
            list(pool.map(_work_off, range(2)))
        sources = {}
        for take in takes:
            take.refresh_from_db()
            info = MediaInfo.model_validate(take.facts)
            sources[take.name] = Source(take.id.hex, info.length)
        for edit in compose(sources):
            project.refresh_from_db()
            history.apply_edit(project, project.head_id, edit)
        self._follow(project, {take.id.hex: take for take in takes})

    def _follow(self, project: Project, takes: dict[str, Take]) -> None:
        """What is followed or cut out in a project is found now, not when it is first shown."""
        document = history.document_at(history.head_of(project))
        for clip in (one for _, one in document.clips() if isinstance(one, VideoClip)):
            for tracker in clip.trackers:
                wanted = tracker.wanted.model_dump(mode="json")
                ask_for(takes[clip.media], "track", wanted, kind="track")
            if clip.cutout is not None and clip.cutout.through is not None:
                wanted = clip.cutout.through.model_dump(mode="json")
                ask_for(takes[clip.media], "cut", wanted, kind="track")
        work_off()


def _work_off(_: int) -> None:
    work_off()
    connections.close_all()
