"""A piece of a film as a task that holds all that whoever makes it has to know."""

from __future__ import annotations

from collections.abc import Mapping
from contextlib import closing
from pathlib import Path
from typing import Any, Final, Self

from pydantic import Field

from kitecore.colour.looks import LOOKS, LookFolder
from kitecore.document import SCHEMA, Document, Model, dump, load
from kitecore.errors import MediaMissing, RenderFailed
from kitecore.fonts import FONTS, FontFolder
from kitecore.media.folder import MediaFolder
from kitecore.render.export import ExportSettings
from kitecore.render.extract import RENDER_VERSION
from kitecore.render.making.format import Pieced
from kitecore.render.making.work import Share, Work, unheard
from kitecore.render.sources import Sources

VERSION: Final = f"{SCHEMA}+{RENDER_VERSION}".replace("/", "-")
"""Only a program of the same makes the same pictures of the same document."""


class PieceTask(Model):
    """Some frames of a film.

    Attributes
    ----------
    key
        Name of the piece, by its content.
    first, last
        Frames of the file, ``last`` not among them.
    media
        Bytes of the takes that it is drawn from, by their ids.
    """

    version: str = VERSION
    id: str = Field(max_length=80)
    key: str = Field(pattern="^[A-Za-z0-9_-]{8,128}$")
    document: dict[str, Any]
    settings: ExportSettings
    crf: int | None = None
    first: int
    last: int
    media: dict[str, int] = {}

    @classmethod
    def of(
        cls, id: str, key: str, document: Document, settings: ExportSettings, crf: int | None,
        numbers: range, takes: Path,
    ) -> Self:  # fmt: skip
        """The task of a piece, its takes as they lie in a folder."""
        return cls(
            id=id,
            key=key,
            document=dump(document),
            settings=settings,
            crf=crf,
            first=numbers.start,
            last=numbers.stop,
            media={media: _bytes_of(takes, media) for media in sorted(document.media_ids())},
        )


def _bytes_of(takes: Path, media: str) -> int:
    original = MediaFolder(takes / media).original
    return original.stat().st_size if original.exists() else 0


def sources_in(takes: Path) -> Sources:
    """What is drawn from, where all takes, looks and fonts lie in one folder."""
    return Sources(
        lambda media: MediaFolder(takes / media),
        threads=2,
        find_look=LookFolder(takes / LOOKS).find,
        find_font=FontFolder(takes / FONTS).find,
    )


def make_piece(task: PieceTask, takes: Path, path: Path, heard: Share = unheard) -> None:
    """Make a piece, unless it is there; ``heard`` hears the share that is done, 0 to 1.

    Raises
    ------
    RenderFailed
        If the task is of another version.
    MediaMissing
        If a take is not there, or not as it was.
    """
    if task.version != VERSION:
        raise RenderFailed("This program is of another version than whoever hands out work.")
    _require_takes(task.media, takes)
    if path.exists():
        return
    path.parent.mkdir(parents=True, exist_ok=True)
    work = task.settings.work(load(task.document), task.crf)
    with closing(sources_in(takes)) as sources:
        encode(task.settings, work, range(task.first, task.last), path, sources, heard)


def encode(
    settings: ExportSettings, work: Work, numbers: range, path: Path, sources: Sources,
    heard: Share = unheard,
) -> None:  # fmt: skip
    """The pictures of some frames as a piece; ``heard`` hears the share that is done, 0 to 1."""
    recipe = settings.recipe
    assert isinstance(recipe, Pieced)

    def made(number: float) -> None:
        heard((number + 1 - numbers.start) / len(numbers))

    recipe.encode_piece(work, numbers, path, sources, made)


def _require_takes(media: Mapping[str, int], takes: Path) -> None:
    for id, size in media.items():
        if _bytes_of(takes, id) != size:
            raise MediaMissing("A take is not on this machine, or is another there.")
