"""``python -m kitecore.analysis FOLDER NAME PARAMETERS``: an analysis as a program of its own.

PARAMETERS are JSON. Progress and refusals are told as `kitecore.programs` says.
"""

from __future__ import annotations

import sys
from pathlib import Path

from kitecore.analysis import analyse, analyses
from kitecore.media.folder import MediaFolder
from kitecore.programs import GIB, Tell, run_limited

MEMORY_LIMIT = 6 * GIB
CPU_LIMIT = 6 * 3600
"""Seconds."""


def main(folder: str, name: str, parameters: str) -> int:
    wanted = analyses[name].parameters.model_validate_json(parameters)

    def work(tell: Tell) -> None:
        analyse(MediaFolder(Path(folder)), name, wanted, tell)

    return run_limited(work, memory=MEMORY_LIMIT, cpu=CPU_LIMIT)


if __name__ == "__main__":
    sys.exit(main(*sys.argv[1:4]))
