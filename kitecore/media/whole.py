"""Files that appear under their name only when they are whole, whoever else writes the same."""

from __future__ import annotations

import os
import shutil
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from tempfile import mkdtemp, mkstemp

UNFINISHED = ".unfinished-"
"""How the names of what is not whole begin."""


@contextmanager
def whole_file(path: Path) -> Iterator[Path]:
    """A place to write a file that becomes ``path`` at the end; nothing is left if that fails."""
    handle, name = mkstemp(prefix=UNFINISHED, suffix=path.suffix, dir=path.parent)
    os.close(handle)
    unfinished = Path(name)
    try:
        yield unfinished
        unfinished.replace(path)
    finally:
        unfinished.unlink(missing_ok=True)


@contextmanager
def whole_folder(path: Path) -> Iterator[Path]:
    """A folder to fill that becomes ``path`` at the end; one that was there first stays."""
    path.parent.mkdir(parents=True, exist_ok=True)
    unfinished = Path(mkdtemp(prefix=UNFINISHED, dir=path.parent))
    try:
        yield unfinished
        if not path.exists():
            unfinished.rename(path)
    except OSError:
        if not path.exists():
            raise
    finally:
        shutil.rmtree(unfinished, ignore_errors=True)
