"""Rendering in a process of its own, so that a decoder that crashes takes nothing with it.

``python -m kitecore.render.worker FD MEDIA`` answers requests that come over the socket ``FD``, one
after the other. Takes lie in folders below MEDIA, named by their ids; looks that were brought in in
one besides.
"""

from __future__ import annotations

import json
import resource
import sys
from collections import OrderedDict
from collections.abc import Mapping
from contextlib import closing
from dataclasses import dataclass, field
from multiprocessing.connection import Connection
from pathlib import Path
from typing import Any, Literal

from kitecore.colour.looks import LOOKS, LookFolder
from kitecore.document import Document, loads
from kitecore.errors import KiteError, MediaMissing, RenderFailed
from kitecore.fonts import FONTS, FontFolder
from kitecore.media.folder import MediaFolder
from kitecore.media.pixels import fitting
from kitecore.render.instruments import ScopesWanted
from kitecore.render.layers import bending_lines, extents, layer_picture, under_finger
from kitecore.render.measuring import (
    as_cube,
    colour_at,
    match,
    neutral_spot,
    screens,
    suggestion,
)
from kitecore.render.pieces import picture_piece, sound_piece
from kitecore.render.sources import Sources
from kitecore.render.still import frame_file, measured_still, still
from kitecore.render.warm import warm

MEMORY_LIMIT = 8 * 2**30
_DOCUMENTS = 8


What = Literal[
    "still",
    "frame",
    "picture",
    "sound",
    "neutral",
    "suggestion",
    "match",
    "cube",
    "screens",
    "colour",
    "under",
    "extents",
    "layer",
    "bending",
]


@dataclass(frozen=True)
class Request:
    """``what`` to make of the document known as ``document``.

    A still (JPEG, for watching) or a frame (PNG, to keep) is of frame ``first``; pieces are of
    frames ``first`` up to ``last``. ``long_side`` in pixels. A still shows the ``matte`` of a zone,
    or the ``onion`` skins of a clip, if one is named, and comes with ``scopes`` if they are wanted.
    Measures take the rest as ``of``.
    """

    what: What
    document: str
    first: int
    last: int = 0
    long_side: int = 0
    matte: str = ""
    onion: str = ""
    scopes: ScopesWanted | None = None
    of: Mapping[str, Any] = field(default_factory=dict)


@dataclass(frozen=True)
class Unknown:
    """The answer to a request whose document has not been told yet."""

    document: str


@dataclass(frozen=True)
class Failed:
    """The answer to a request that did not succeed."""

    code: str
    message: str
    todo: str


Answer = bytes | Unknown | Failed


def _still(document: Document, request: Request, sources: Sources) -> bytes:
    tick = document.rate.exact.start_of(request.first)
    side, matte = request.long_side, request.matte
    if request.scopes is not None:
        return measured_still(document, tick, side, sources, request.scopes, matte)
    return still(document, tick, side, sources, matte=matte, onion=request.onion)


def _frame(document: Document, request: Request, sources: Sources) -> bytes:
    tick = document.rate.exact.start_of(request.first)
    return frame_file(document, tick, request.long_side, sources)


def _picture(document: Document, request: Request, sources: Sources) -> bytes:
    size = fitting(document.canvas.width, document.canvas.height, request.long_side)
    return picture_piece(document, request.first, request.last, size, sources)


def _sound(document: Document, request: Request, sources: Sources) -> bytes:
    return sound_piece(document, request.first, request.last, sources)


def _neutral(document: Document, request: Request, sources: Sources) -> bytes:
    tick, of = document.rate.exact.start_of(request.first), request.of
    return _json(neutral_spot(document, of["clip"], tick, of["spot"], sources))


def _suggestion(document: Document, request: Request, sources: Sources) -> bytes:
    tick = document.rate.exact.start_of(request.first)
    return _json(suggestion(document, request.of["clip"], tick, sources))


def _match(document: Document, request: Request, sources: Sources) -> bytes:
    rate, of = document.rate.exact, request.of
    tick, other = rate.start_of(request.first), rate.start_of(of["other_frame"])
    return _json(match(document, of["clip"], tick, of["other"], other, sources))


def _cube(document: Document, request: Request, sources: Sources) -> bytes:
    tick = document.rate.exact.start_of(request.first)
    return as_cube(document, request.of["clip"], tick, sources).encode()


def _screens(document: Document, request: Request, sources: Sources) -> bytes:
    tick = document.rate.exact.start_of(request.first)
    return _json(screens(document, request.of["clip"], tick, sources))


def _colour(document: Document, request: Request, sources: Sources) -> bytes:
    tick, of = document.rate.exact.start_of(request.first), request.of
    return _json(colour_at(document, of["clip"], tick, of["spot"], sources))


def _under(document: Document, request: Request, sources: Sources) -> bytes:
    tick = document.rate.exact.start_of(request.first)
    return _json(under_finger(document, tick, request.of["spot"], sources))


def _extents(document: Document, request: Request, sources: Sources) -> bytes:
    return _json(extents(document, document.rate.exact.start_of(request.first), sources))


def _layer(document: Document, request: Request, sources: Sources) -> bytes:
    tick = document.rate.exact.start_of(request.first)
    return layer_picture(document, tick, request.of["clip"], request.long_side, sources)


def _bending(document: Document, request: Request, sources: Sources) -> bytes:
    tick = document.rate.exact.start_of(request.first)
    return _json(bending_lines(document, tick, request.of["clip"], sources))


def _json(found: dict[str, Any]) -> bytes:
    return json.dumps(found).encode()


_MAKERS = {
    "still": _still,
    "picture": _picture,
    "sound": _sound,
    "neutral": _neutral,
    "suggestion": _suggestion,
    "match": _match,
    "cube": _cube,
    "screens": _screens,
    "colour": _colour,
    "under": _under,
    "extents": _extents,
    "layer": _layer,
    "bending": _bending,
}


class Worker:
    """Keeps open files and the last documents between requests."""

    def __init__(self, media: Path) -> None:
        self._media = media
        self._sources = self._opened(draft=True)
        self._documents: OrderedDict[str, Document] = OrderedDict()

    def _opened(self, *, draft: bool) -> Sources:
        look = LookFolder(self._media / LOOKS).find
        font = FontFolder(self._media / FONTS).find
        return Sources(
            lambda name: _folder(self._media, name), draft=draft, find_look=look, find_font=font
        )

    def learn(self, name: str, text: str) -> None:
        self._documents[name] = loads(text)
        while len(self._documents) > _DOCUMENTS:
            self._documents.popitem(last=False)

    def answer(self, request: Request) -> Answer:
        document = self._documents.get(request.document)
        if document is None:
            return Unknown(request.document)
        self._documents.move_to_end(request.document)
        try:
            if request.what == "frame":
                # To be kept, so from the originals and by fine tables.
                with closing(self._opened(draft=False)) as sources:
                    return _frame(document, request, sources)
            return _MAKERS[request.what](document, request, self._sources)
        except KiteError as error:
            return Failed(error.code, error.message, error.todo)
        except Exception as error:
            failed = RenderFailed(f"The picture could not be drawn ({type(error).__name__}).")
            return Failed(failed.code, failed.message, failed.todo)


def _folder(media: Path, name: str) -> MediaFolder:
    folder = MediaFolder(media / name)
    if not folder.info_file.exists():
        raise MediaMissing("A take of this project is not ready, or its file is missing.")
    return folder


def serve(connection: Connection, media: Path) -> None:
    """Answer until the other side closes. Messages: a `Request`, or a document's name and JSON."""
    worker = Worker(media)
    while True:
        try:
            message = connection.recv()
        except EOFError:
            return
        if isinstance(message, Request):
            connection.send(worker.answer(message))
        else:
            worker.learn(*message)


def main() -> None:
    resource.setrlimit(resource.RLIMIT_AS, (MEMORY_LIMIT, MEMORY_LIMIT))
    warm()
    serve(Connection(int(sys.argv[1])), Path(sys.argv[2]))


if __name__ == "__main__":
    # Under its real name, so that messages are of the same classes on both sides.
    from kitecore.render import worker

    worker.main()
