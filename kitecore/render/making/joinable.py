"""What is wrong with pieces that do not go together."""

from __future__ import annotations

import zipfile
from collections.abc import Iterator
from contextlib import contextmanager

import av

from kitecore.errors import RenderFailed


@contextmanager
def joinable() -> Iterator[None]:
    """Raises `RenderFailed` for a piece that is missing or broken."""
    try:
        yield
    except (av.FFmpegError, zipfile.BadZipFile, FileNotFoundError, IndexError) as error:
        raise RenderFailed("The pieces of the export could not be joined.") from error
