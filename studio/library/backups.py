"""Backups: the database as it is at one moment, and files by their content, each kept once.

A folder of backups holds ``contents/`` and, for each backup, its database and the list of its files.
"""

from __future__ import annotations

import json
import shutil
import sqlite3
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Final

from kitecore.errors import BadInput
from studio.library.digest import digest_of

KEPT: Final = ("takes", "exports")
"""Folders of the data that cannot be made again; all else is a cache."""
DATABASE: Final = "database.sqlite3"
FILES: Final = "files.json"


@dataclass(frozen=True)
class Told:
    """What a backup or restoring came to."""

    files: int
    copied: int
    gone: tuple[str, ...] = ()
    """Files that went while the backup was made; nothing in its database needs them any more."""


def back_up(data: Path, database: Path, into: Path, name: str) -> Told:
    """Write the backup ``name`` into a folder of backups, while the site goes on.

    The database is copied first: whatever it names was on disk before.

    Raises
    ------
    BadInput
        If there is a backup of that name, or the copied database is broken.
    """
    place = into / name
    if place.exists():
        raise BadInput(f"There is a backup “{name}” already.", todo="Choose another name.")
    unfinished = into / f".{name}"
    shutil.rmtree(unfinished, ignore_errors=True)
    unfinished.mkdir(parents=True)
    _copy_database(database, unfinished / DATABASE)
    listed: dict[str, str] = {}
    gone: list[str] = []
    copied = 0
    for path in _files(data):
        try:
            digest = digest_of(path)
            copied += _kept(path, into / "contents", digest)
        except FileNotFoundError:
            gone.append(str(path.relative_to(data)))
            continue
        listed[str(path.relative_to(data))] = digest
    (unfinished / FILES).write_text(json.dumps(listed, indent=1))
    # A backup is there whole or not at all.
    unfinished.rename(place)
    return Told(len(listed), copied, tuple(gone))


def restore(backup: Path, data: Path, database: Path) -> Told:
    """Bring a backup back into an empty folder of data, checking every file.

    Raises
    ------
    BadInput
        If there is data already, or a file of the backup is missing or changed.
    """
    if database.exists() or any(any((data / kept).rglob("*")) for kept in KEPT):
        raise BadInput(f"There is data in {data} already.", todo="Restore into an empty folder.")
    listed: dict[str, str] = json.loads((backup / FILES).read_text())
    contents = backup.parent / "contents"
    for name, digest in listed.items():
        source = contents / digest[:2] / digest
        if not source.exists() or digest_of(source) != digest:
            raise BadInput(f"The backup's copy of {name} is missing or changed.")
        target = data / name
        target.parent.mkdir(parents=True, exist_ok=True)
        shutil.copyfile(source, target)
    database.parent.mkdir(parents=True, exist_ok=True)
    _copy_database(backup / DATABASE, database)
    return Told(len(listed), len(listed))


def _copy_database(source: Path, target: Path) -> None:
    """By SQLite's own backup, which sees one moment however much is written meanwhile."""
    with sqlite3.connect(source) as before, sqlite3.connect(target) as after:
        before.backup(after)
        [(verdict,)] = after.execute("PRAGMA integrity_check")
        after.execute("PRAGMA journal_mode=DELETE")
    before.close()
    after.close()
    if verdict != "ok":
        raise BadInput(f"The database is broken: {verdict}.")


def _files(data: Path) -> Iterator[Path]:
    for kept in KEPT:
        yield from (path for path in sorted((data / kept).rglob("*")) if path.is_file())


def _kept(path: Path, contents: Path, digest: str) -> bool:
    """Keep a file under its digest; false if it is there already."""
    target = contents / digest[:2] / digest
    if target.exists():
        return False
    target.parent.mkdir(parents=True, exist_ok=True)
    unfinished = target.with_suffix(".part")
    shutil.copyfile(path, unfinished)
    unfinished.rename(target)
    return True
