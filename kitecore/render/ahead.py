"""Making things in a thread of its own, a few ahead of whoever uses them."""

from __future__ import annotations

from collections.abc import Generator, Iterable
from queue import Full, Queue
from threading import Event, Thread
from typing import TypeVar

T = TypeVar("T")

DEPTH = 4


class _End:
    """Stands behind the last item, with what ended it if that was an error."""

    def __init__(self, error: BaseException | None) -> None:
        self.error = error


def ahead(items: Iterable[T], depth: int = DEPTH) -> Generator[T, None, None]:
    """The same items, made up to ``depth`` ahead in another thread.

    An error there is raised here in its place. When the user stops early, so does the thread, before
    this generator is closed.
    """
    queue: Queue[T | _End] = Queue(depth)
    stopped = Event()
    thread = Thread(target=_fill, args=(items, queue, stopped), name="ahead", daemon=True)
    thread.start()
    try:
        while True:
            item = queue.get()
            if isinstance(item, _End):
                if item.error is not None:
                    raise item.error
                return
            yield item
    finally:
        stopped.set()
        thread.join()


def _fill(items: Iterable[T], queue: Queue[T | _End], stopped: Event) -> None:
    error: BaseException | None = None
    try:
        for item in items:
            if not _put(queue, item, stopped):
                return
    except BaseException as raised:
        error = raised
    _put(queue, _End(error), stopped)


def _put(queue: Queue[T | _End], item: T | _End, stopped: Event) -> bool:
    """Wait for room; false if nobody wants it any more."""
    while not stopped.is_set():
        try:
            queue.put(item, timeout=0.05)
        except Full:
            continue
        return True
    return False
