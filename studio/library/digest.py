from __future__ import annotations

import hashlib
from pathlib import Path


def digest_of(path: Path) -> str:
    """BLAKE2b of a file, in hexadecimal."""
    with path.open("rb") as file:
        return hashlib.file_digest(file, lambda: hashlib.blake2b(digest_size=32)).hexdigest()
