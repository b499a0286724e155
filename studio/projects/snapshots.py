"""Whole documents kept with some revisions, so that others are rebuilt by few patches.

They only save time, so nobody waits for one: they are written when the answer has gone out.
"""

from __future__ import annotations

import logging
import threading
import zlib
from typing import Any, Final

from django.core.signals import request_finished
from django.db import DatabaseError, transaction
from django.dispatch import receiver

from kitecore.document import Document, dumps, loads
from studio.projects.models import Revision

EVERY: Final = 20
"""Steps between two revisions that hold the whole document."""

_log = logging.getLogger(__name__)
_waiting = threading.local()


def packed(document: Document) -> bytes:
    return zlib.compress(dumps(document).encode(), 1)


def unpacked(snapshot: bytes) -> Document:
    return loads(zlib.decompress(snapshot))


def keep_soon(revision: Revision, document: Document) -> None:
    """Keep the document with its revision, once this step is on disk and its request answered."""
    if revision.number % EVERY == 0:
        transaction.on_commit(lambda: _ours().append((revision.pk, document)))


@receiver(request_finished)
def _keep(**_: Any) -> None:
    waiting = _ours()
    while waiting:
        number, document = waiting.pop()
        try:
            Revision.objects.filter(pk=number).update(snapshot=packed(document))
        except DatabaseError:
            _log.warning("The document of revision %s was not kept whole.", number, exc_info=True)


def _ours() -> list[tuple[int, Document]]:
    """Those that wait in this thread."""
    if not hasattr(_waiting, "documents"):
        _waiting.documents = []
    return _waiting.documents  # type: ignore[no-any-return]
