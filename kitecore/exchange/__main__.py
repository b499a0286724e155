"""``python -m kitecore.exchange NAME FOLDER``: see `kitecore.exchange.reading`."""

from __future__ import annotations

import sys
from pathlib import Path

from kitecore.exchange.reading import read
from kitecore.programs import GIB, run_limited

MEMORY_LIMIT = 3 * GIB // 2
"""Of address space; about a third of it is taken before a file is opened."""
CPU_LIMIT = 20
"""Seconds."""


def main(name: str, folder: str) -> int:
    return run_limited(lambda tell: read(name, Path(folder)), memory=MEMORY_LIMIT, cpu=CPU_LIMIT)


if __name__ == "__main__":
    sys.exit(main(sys.argv[1], sys.argv[2]))
