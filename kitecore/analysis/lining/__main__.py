"""``python -m kitecore.analysis.lining MEDIA JOB``: find, and keep, all matches that lining up asks for.

JOB is `Lining` as JSON. Progress and refusals are told as `kitecore.programs` says.
"""

from __future__ import annotations

import sys
from pathlib import Path

from kitecore.analysis.__main__ import CPU_LIMIT, MEMORY_LIMIT
from kitecore.analysis.lining import Lining
from kitecore.programs import Tell, run_limited


def main(media: str, job: str) -> int:
    lining = Lining.model_validate_json(job)

    def work(tell: Tell) -> None:
        lining.found(Path(media), tell)

    return run_limited(work, memory=MEMORY_LIMIT, cpu=CPU_LIMIT)


if __name__ == "__main__":
    sys.exit(main(*sys.argv[1:3]))
