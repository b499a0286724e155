"""Rendering in a process of its own, so that a decoder that crashes takes nothing with it.

``python -m kitecore.render FD MEDIA`` answers requests that come over the socket ``FD``, one
after the other; the one in hand is left undone when it is told to stop. Takes lie in folders below MEDIA, named by their ids; looks that were brought in in
one besides.
"""

from __future__ import annotations

import resource
import sys
from collections.abc import Callable
from contextlib import closing
from dataclasses import dataclass
from multiprocessing.connection import Connection
from pathlib import Path
from time import monotonic
from typing import Final

from kitecore.colour.looks import LOOKS, LookFolder
from kitecore.document import Document, loads
from kitecore.errors import KiteError, MediaMissing, RenderFailed, Superseded
from kitecore.fonts import FONTS, FontFolder
from kitecore.kept import Kept
from kitecore.media.folder import MediaFolder
from kitecore.programs import settle
from kitecore.render.questions import Request, questions
from kitecore.render.sources import Sources
from kitecore.render.warm import warm

MEMORY_LIMIT = 8 * 2**30
_DOCUMENTS = 8
_GLANCE: Final = 0.005
"""Seconds from one look whether to stop to the next."""
_GRACE: Final = 0.1
"""Seconds that each may take: what is drawn that fast is shown on the way, though overtaken."""


@dataclass(frozen=True)
class Asked:
    """A request and its number, by which it can be stopped."""

    number: int
    request: Request


@dataclass(frozen=True)
class Stop:
    """Nobody waits any more for the answer to the request of that number."""

    number: int


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


class Worker:
    """Keeps open files and the last documents between requests."""

    def __init__(self, media: Path) -> None:
        self._media = media
        self._sources = self._opened(draft=True)
        self._documents: Kept[Document] = Kept(_DOCUMENTS)

    def _opened(self, *, draft: bool) -> Sources:
        look = LookFolder(self._media / LOOKS).find
        font = FontFolder(self._media / FONTS).find
        return Sources(
            lambda name: _folder(self._media, name), draft=draft, find_look=look, find_font=font
        )

    def learn(self, name: str, text: str) -> None:
        self._documents.put(name, loads(text))

    def answer(self, request: Request, checkpoint: Callable[[], None]) -> Answer:
        """``checkpoint`` is called between parts of the work; it raises `Superseded` to end it."""
        self._sources.checkpoint = checkpoint
        document = self._documents.find(request.document)
        if document is None:
            return Unknown(request.document)
        try:
            question = questions[request.what]
            if question.fine:
                with closing(self._opened(draft=False)) as sources:
                    return question.answer(document, request, sources)
            return question.answer(document, request, self._sources)
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
    """Answer until the other side closes.

    Messages: what is `Asked`, or that it shall `Stop`; or a document's name and JSON.
    """
    worker = Worker(media)
    while True:
        try:
            message = connection.recv()
        except EOFError:
            return
        if isinstance(message, Asked):
            checkpoint = _stopping(connection, message.number)
            answer = worker.answer(message.request, checkpoint)
            try:
                connection.send(answer)
            except BrokenPipeError:
                return
        elif not isinstance(message, Stop):
            worker.learn(*message)


def _stopping(connection: Connection, number: int) -> Callable[[], None]:
    """What looks now and then whether the request of that number is still wanted.

    While one is in hand nothing else comes over the line; what was to stop an earlier one is late.
    """
    due = monotonic() + _GRACE

    def look() -> None:
        nonlocal due
        if monotonic() < due:
            return
        due = monotonic() + _GLANCE
        while connection.poll():
            message = connection.recv()
            if isinstance(message, Stop) and message.number == number:
                raise Superseded("A newer picture was asked for.")

    return look


def main() -> None:
    resource.setrlimit(resource.RLIMIT_AS, (MEMORY_LIMIT, MEMORY_LIMIT))
    warm()
    settle()
    serve(Connection(int(sys.argv[1])), Path(sys.argv[2]))
