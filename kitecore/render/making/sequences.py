"""A picture a frame, all of them in one archive."""

from __future__ import annotations

import zipfile
from contextlib import closing
from dataclasses import dataclass
from pathlib import Path
from typing import Final

import av
import numpy as np

from kitecore.media.whole import whole_file
from kitecore.picture.layer import Rgba
from kitecore.render.ahead import ahead
from kitecore.render.making.drawing import drawn
from kitecore.render.making.format import Joining, Pieced
from kitecore.render.making.joinable import joinable
from kitecore.render.making.stills import as_png
from kitecore.render.making.work import Progress, Work, unheard
from kitecore.render.sources import Sources

_EPOCH: Final = (1980, 1, 1, 0, 0, 0)
"""The same film gives the same archive, whenever it is made."""


@dataclass(frozen=True, kw_only=True)
class PngSequence(Pieced):
    """PNG files without loss, numbered from 1; pieces are archives too."""

    kind = "pictures"

    @property
    def can_clear(self) -> bool:
        return True

    def encode_piece(
        self, work: Work, piece: range, path: Path, sources: Sources, progress: Progress = unheard
    ) -> None:
        before: tuple[av.VideoFrame, bytes] | None = None
        with (
            whole_file(path) as unfinished,
            zipfile.ZipFile(unfinished, "w") as archive,
            closing(ahead(drawn(work, piece, "bgra", sources))) as frames,
        ):
            for number, frame in zip(piece, frames, strict=True):
                if before is None or before[0] is not frame:
                    before = frame, as_png(_pixels(frame), work.clear)
                _add(archive, _name(number - work.numbers.start), before[1])
                progress(number)

    def join(self, work: Work, to: Joining) -> None:
        done = 0
        with joinable(), whole_file(to.path) as path, zipfile.ZipFile(path, "w") as archive:
            for piece in to.pieces:
                with zipfile.ZipFile(piece) as part:
                    for name in part.namelist():
                        _add(archive, _name(done), part.read(name))
                        done += 1
                        to.progress(done / len(work.numbers))


def _pixels(frame: av.VideoFrame) -> Rgba:
    return np.asarray(frame.to_ndarray(format="rgba"), np.uint8)


def _add(archive: zipfile.ZipFile, name: str, picture: bytes) -> None:
    archive.writestr(zipfile.ZipInfo(name, _EPOCH), picture)


def _name(number: int) -> str:
    return f"frame-{number + 1:06d}.png"
