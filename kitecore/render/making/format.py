"""What every kind of file has in common."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Hashable, Sequence
from dataclasses import dataclass, field
from pathlib import Path
from typing import ClassVar, Literal

from kitecore.registry import Registry
from kitecore.render.making.tags import Tags
from kitecore.render.making.work import Progress, Share, Work, unheard
from kitecore.render.sources import Sources

Kind = Literal["film", "moving", "pictures", "still", "sound"]
"""A film with sound; a picture that moves, or many pictures, both mute; one picture; only sound."""


@dataclass(frozen=True)
class Joining:
    """What a file is joined of, in order, and where it is to be; it appears there whole or not at all."""

    pieces: Sequence[Path]
    path: Path
    sources: Sources
    tags: Tags = field(default_factory=Tags)
    progress: Share = unheard


@dataclass(frozen=True, kw_only=True)
class Format(ABC):
    """A way to make a file.

    Attributes
    ----------
    label, help
        Its name, and what it is good for.
    suffix, mime
        Of the file.
    """

    label: str
    help: str
    suffix: str
    mime: str
    kind: ClassVar[Kind]

    @property
    def can_clear(self) -> bool:
        """Whether it can stay see-through."""
        return False

    @property
    def can_caption(self) -> bool:
        """Whether captions can be a track of it, to be shown on request."""
        return False

    @property
    def can_cover(self) -> bool:
        """Whether it can have a picture by which it is shown in lists of files."""
        return False

    @property
    def coarseness(self) -> range | None:
        """The values of ``crf``, from fine to coarse; None if its size cannot be steered."""
        return None

    @abstractmethod
    def join(self, work: Work, to: Joining) -> None:
        """Put the pieces behind each other, if there are any, and add what else is to be in the file.

        Raises
        ------
        RenderFailed
            If a piece is missing or broken.
        """


@dataclass(frozen=True, kw_only=True)
class Pieced(Format):
    """One whose picture is made in pieces that can be repeated anywhere and are then joined."""

    def facts(self, work: Work) -> Hashable:
        """What a piece depends on besides the document's pictures."""
        return (type(self).__name__, work.framing, work.clear)

    @abstractmethod
    def encode_piece(
        self, work: Work, piece: range, path: Path, sources: Sources, progress: Progress = unheard
    ) -> None:
        """Make the picture of some frames as a file of its own, whole or not at all."""


formats: Registry[Format] = Registry("export format")
