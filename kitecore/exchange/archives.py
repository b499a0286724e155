"""A project with its files as one ZIP: a bundle as OpenTimelineIO defines it (.otioz), and more.

``content.otio`` and ``media/`` are what other programs read; under ``velvet-kite/`` stands all that is
ours: the document, what is known of the takes, looks and fonts. Bundles of other programs open too.
"""

from __future__ import annotations

import json
import stat
import zlib
from collections.abc import Callable, Iterator, Mapping
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path, PurePosixPath
from typing import Any, Final, Literal
from zipfile import ZIP_DEFLATED, ZIP_STORED, BadZipFile, ZipFile, ZipInfo

from pydantic import Field, ValidationError

from kitecore.document import Model
from kitecore.errors import BadInput
from kitecore.media.whole import whole_file

MARK: Final = b"PK\x03\x04"
"""How such files begin."""
CONTENT: Final = "content.otio"
MEDIA: Final = "media/"
_OURS: Final = "velvet-kite/project.json"
MOST_FILES: Final = 5000
MOST_TEXT: Final = 64 * 2**20
"""Bytes of a timeline, of what is ours, of a look or a font."""
_TIGHTEST: Final = 200
"""Times that a file grows at most when it is unpacked; a bomb grows a thousand times."""
_CHUNK: Final = 2**20

Heard = Callable[[int], None]
"""Hears of bytes that were written."""


class ArchivedTake(Model):
    """What is known of a take; ``file`` is empty where its original is not in the archive."""

    media: str = Field(max_length=64)
    name: str = Field(max_length=200)
    file: str = Field("", max_length=300)
    digest: str = Field("", max_length=64)
    facts: dict[str, Any] | None = None
    mark_in: int | None = None
    mark_out: int | None = None
    ranges: list[dict[str, Any]] = Field([], max_length=200)
    stars: int = Field(0, ge=0, le=5)
    tag: str = Field("", max_length=10)


class ArchivedPart(Model):
    """A look or a font, by the id that the document calls it by."""

    id: str = Field(max_length=80)
    name: str = Field(max_length=200)
    file: str = Field(max_length=300)


class ArchivedProject(Model):
    schema_: Literal["velvet-kite-project/1"] = Field("velvet-kite-project/1", alias="schema")
    name: str = Field(max_length=200)
    document: dict[str, Any]
    takes: tuple[ArchivedTake, ...] = Field((), max_length=MOST_FILES)
    looks: tuple[ArchivedPart, ...] = Field((), max_length=MOST_FILES)
    fonts: tuple[ArchivedPart, ...] = Field((), max_length=MOST_FILES)


def pack(
    path: Path, project: ArchivedProject, timeline: str, files: Mapping[str, Path], heard: Heard
) -> None:
    """Write an archive, whole or not at all; ``files`` by their names in it."""
    with whole_file(path) as unfinished, ZipFile(unfinished, "w", ZIP_DEFLATED) as archive:
        archive.writestr("version.txt", "1.0.0")
        archive.writestr(CONTENT, timeline)
        archive.writestr(_OURS, project.model_dump_json(by_alias=True))
        for name, file in files.items():
            # Takes are packed as tightly as they will be.
            info = ZipInfo.from_file(file, name)
            info.compress_type = ZIP_STORED
            with file.open("rb") as source, archive.open(info, "w", force_zip64=True) as target:
                while chunk := source.read(_CHUNK):
                    target.write(chunk)
                    heard(len(chunk))


@dataclass(frozen=True)
class OpenedArchive:
    """An archive that was looked over: its names are plain, its sizes bounded.

    ``project`` is None in bundles of other programs.
    """

    project: ArchivedProject | None
    files: Mapping[str, ZipInfo]
    _zip: ZipFile

    @property
    def media(self) -> list[str]:
        """Names of the files that can be takes."""
        return sorted(name for name in self.files if name.startswith(MEDIA))

    @property
    def weight(self) -> int:
        """Bytes of all media."""
        return sum(self.files[name].file_size for name in self.media)

    def text(self, name: str) -> bytes:
        """A small file."""
        if name not in self.files:
            raise BadInput(f"The archive lacks “{name}”.")
        if self.files[name].file_size > MOST_TEXT:
            raise BadInput(f"“{name}” in this archive is too large.")
        with _readable():
            return self._zip.read(name)

    def extract(self, name: str, target: Path, heard: Heard) -> None:
        """One file, whole or not at all."""
        with (
            _readable(),
            self._zip.open(self.files[name]) as source,
            whole_file(target) as unfinished,
            unfinished.open("wb") as written,
        ):
            while chunk := source.read(_CHUNK):
                written.write(chunk)
                heard(len(chunk))


@contextmanager
def opened(path: Path) -> Iterator[OpenedArchive]:
    """An archive, looked over before anything of it is used.

    Raises
    ------
    BadInput
        If it is none, is damaged, or holds what no archive of a project has: paths that lead out of
        it, links, files that grow out of all measure.
    """
    with _readable():
        zipped = ZipFile(path)
    with zipped as archive:
        files = _files(archive)
        if CONTENT not in files and _OURS not in files:
            raise BadInput(
                "There is no project in this archive.", todo="Choose an archive of a project."
            )
        found = OpenedArchive(None, files, archive)
        project = _project(found.text(_OURS)) if _OURS in files else None
        yield OpenedArchive(project, files, archive)


def _files(archive: ZipFile) -> dict[str, ZipInfo]:
    infos = archive.infolist()
    if len(infos) > MOST_FILES:
        raise BadInput(f"This archive holds more than {MOST_FILES} files.")
    files: dict[str, ZipInfo] = {}
    for info in infos:
        _require_plain(info)
        if info.filename in files:
            raise BadInput(f"This archive holds “{info.filename[:80]}” twice.")
        if not info.is_dir():
            files[info.filename] = info
    return files


def _require_plain(info: ZipInfo) -> None:
    path = PurePosixPath(info.filename)
    mode = info.external_attr >> 16
    odd = path.is_absolute() or ".." in path.parts or "\\" in info.filename or "\0" in info.filename
    link = stat.S_ISLNK(mode) or (mode and stat.S_IFMT(mode) not in (0, stat.S_IFREG, stat.S_IFDIR))
    if odd or link:
        raise BadInput("This archive holds paths that lead out of it.")
    if info.flag_bits & 1:
        raise BadInput("This archive is locked by a password.")
    if info.file_size > _CHUNK and info.file_size > _TIGHTEST * max(1, info.compress_size):
        raise BadInput("This archive holds files that grow out of all measure.")


def _project(data: bytes) -> ArchivedProject:
    try:
        return ArchivedProject.model_validate(json.loads(data))
    except (ValidationError, ValueError) as error:
        raise BadInput("The project in this archive cannot be read.") from error


@contextmanager
def _readable() -> Iterator[None]:
    """Around what is read of an archive, and nothing else: mistakes of ours are not its damage."""
    try:
        yield
    except (BadZipFile, EOFError, NotImplementedError, zlib.error) as error:
        raise BadInput(
            "This archive is damaged, or is none.", todo="Have it made once more."
        ) from error
