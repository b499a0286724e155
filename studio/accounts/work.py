"""All that is a person's in one ZIP file: documents, files as they came, films, what is in the Kit."""

from __future__ import annotations

import json
from collections.abc import Iterator
from pathlib import Path
from typing import Any, Final
from zipfile import ZIP_DEFLATED, ZIP_STORED, ZipFile

from django.conf import settings
from django.contrib.auth.models import User

from kitecore.document import dump
from kitecore.media.whole import whole_file
from studio.exports.models import Export
from studio.files import plain_name, require_free
from studio.jobs.kinds import IN_THE_BACKGROUND, JobKind, Note, job_kinds
from studio.jobs.models import Job
from studio.jobs.queue import hand_out
from studio.kit.models import Font, Look, Preset, font_folder, look_folder
from studio.library.models import Take
from studio.projects import history
from studio.projects.models import Project

KIND: Final = "archive"


def path_of(job: Job) -> Path:
    return settings.EXPORT_DIR / "archives" / f"{job.id.hex}.zip"


def newest(owner: User) -> Job | None:
    return Job.objects.filter(owner=owner, kind=KIND).order_by("-made_at").first()


def ask_for_archive(owner: User) -> Job:
    """The job that makes one: that which is under way, or a new one in place of the last."""
    last = newest(owner)
    if last is not None and last.unfinished:
        return last
    forget_archives(owner)
    return hand_out(owner, KIND, str(owner.pk))


def forget_archives(owner: User) -> None:
    for job in Job.objects.filter(owner=owner, kind=KIND):
        path_of(job).unlink(missing_ok=True)
        job.delete()


def _make(job: Job, note: Note) -> dict[str, int]:
    path = path_of(job)
    files = list(_files(job.owner))
    whole = sum(file.stat().st_size for _, file in files) or 1
    require_free(path.parent, whole)
    with whole_file(path) as unfinished, ZipFile(unfinished, "w", ZIP_DEFLATED) as archive:
        for name, text in _texts(job.owner):
            archive.writestr(name, text)
        done = 0
        for name, file in files:
            note(done / whole, "packing")
            # Films and takes are packed as tightly as they will be.
            archive.write(file, name, ZIP_STORED)
            done += file.stat().st_size
    return {"bytes": path.stat().st_size}


def _texts(owner: User) -> Iterator[tuple[str, str]]:
    """What the database holds, as JSON."""
    for project in Project.objects.filter(owner=owner).select_related("head"):
        document = history.document_at(history.head_of(project))
        told = {"name": project.name, "document": dump(document)}
        yield f"projects/{plain_name(project.name, project.id.hex)}.json", _json(told)
    yield "takes.json", _json([_told_of(take) for take in _takes(owner)])
    rows = Preset.objects.filter(owner=owner)
    yield "kit.json", _json(list(rows.values("kind", "name", "content")))


def _files(owner: User) -> Iterator[tuple[str, Path]]:
    """Names in the archive, and the files."""
    found = [(_take_name(take), take.folder.original) for take in _takes(owner)]
    found += [
        (f"films/{plain_name(export.filename, export.id.hex)}", export.path)
        for export in Export.objects.filter(owner=owner)
    ]
    for look in Look.objects.filter(owner=owner):
        name = f"looks/{plain_name(look.name, look.id.hex)}.cube"
        found.append((name, look_folder().file(look.id.hex)))
    for font in Font.objects.filter(owner=owner):
        name = f"fonts/{plain_name(font.name, font.id.hex)}.ttf"
        found.append((name, font_folder().file(font.id.hex)))
    yield from ((name, file) for name, file in found if file.is_file())


def _takes(owner: User) -> Any:
    return Take.objects.filter(owner=owner).exclude(state=Take.State.ARRIVING)


def _take_name(take: Take) -> str:
    return f"takes/{plain_name(take.name, take.id.hex)}"


def _told_of(take: Take) -> dict[str, Any]:
    kept = ("name", "mark_in", "mark_out", "ranges", "stars", "tag", "facts", "digest")
    told = {name: getattr(take, name) for name in kept}
    return told | {"media": take.id.hex, "file": _take_name(take)}


def _json(value: object) -> str:
    return json.dumps(value, indent=1, ensure_ascii=False)


def _forget_file(job: Job, problem: object) -> None:
    path_of(job).unlink(missing_ok=True)


job_kinds.register(KIND)(JobKind(run=_make, priority=IN_THE_BACKGROUND, failed=_forget_file))
