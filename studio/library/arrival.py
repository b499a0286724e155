"""Files that come into the library other than by upload, and lost ones that come back."""

from __future__ import annotations

import shutil
from pathlib import Path

from kitecore.errors import BadInput
from studio.library.digest import digest_of
from studio.library.models import Take, require_room
from studio.library.work import take_in
from studio.problems import Problem
from studio.projects.models import Project


def bring_in(project: Project, name: str, content: bytes | Path, order: int = 0) -> Take:
    """A new take of a project (see `new_take`) that is looked at in the background."""
    take = new_take(project, name, content, order)
    take_in(take)
    return take


def new_take(project: Project, name: str, content: bytes | Path, order: int = 0) -> Take:
    """A take with its file, from bytes or from a file of our own, that waits to be looked at."""
    size = len(content) if isinstance(content, bytes) else content.stat().st_size
    require_room(project.owner_id, size)
    take = Take.objects.create(
        owner=project.owner,
        project=project,
        name=name,
        order=order,
        bytes=size,
        received=size,
        state=Take.State.WAITING,
    )
    take.folder.path.mkdir(parents=True)
    if isinstance(content, bytes):
        take.folder.original.write_bytes(content)
    else:
        shutil.copy(content, take.folder.original)
    return take


def found_again(upload: Take) -> None:
    """Put an uploaded file back as the missing file of the take it replaces, if it is the same.

    The upload itself goes out of the library; if it is another file, it says so.
    """
    lost = upload.replaces
    assert lost is not None
    upload.removed = True
    if digest_of(upload.folder.original) != lost.digest:
        other = BadInput(
            f"“{upload.name}” is not the file that was “{lost.name}”.",
            todo="Look for the original, or replace the clips by another take.",
        )
        upload.state, upload.removed = Take.State.REFUSED, False
        upload.problem = Problem.of(other).model_dump()
        upload.save(update_fields=["removed", "state", "problem"])
        upload.folder.original.unlink()
        return
    lost.folder.path.mkdir(parents=True, exist_ok=True)
    upload.folder.original.replace(lost.folder.original)
    upload.save(update_fields=["removed"])
    take_in(lost)
