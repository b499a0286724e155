"""All tests, in two lanes of parts, each with a database, a queue and a folder of its own.

Django's runner does the work; here its parts are handed out and their counts put together.
"""

from __future__ import annotations

import os
import re
import subprocess
import sys
import tempfile
import time
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Final, NamedTuple

ROOT: Final = Path(__file__).parents[1]
LANES: Final = (
    ("browser_tests",),
    ("studio", "kitecore.render", "kitecore.edits", "kitecore.picture"),
)
"""What runs side by side. Two browsers at a time would wait for each other: theirs is a lane of its own.

Each label is a part; what none of them names comes last in the last lane. A package in `SPREAD` is cut
into several parts, so that what has been found out is told early.
"""
SPREAD: Final = {"browser_tests": 4, "studio": 3}


REPORT: Final = re.compile(
    r"={70}\n((?:ERROR|FAIL): .+?)(?=\n[=-]{70}\n(?:ERROR|FAIL|Ran))", re.DOTALL
)
"""What the runner tells of one test that failed."""


class Result(NamedTuple):
    passed: int
    failed: int
    skipped: int
    ran: int
    reports: list[str]


def modules() -> list[str]:
    """All test modules, by their dotted names."""
    found = (
        path.relative_to(ROOT).with_suffix("")
        for top in ("browser_tests", "demo", "kitecore", "practice", "studio", "tools")
        for path in (ROOT / top).rglob("test*.py")
    )
    return sorted(".".join(path.parts) for path in found)


def lanes() -> list[list[list[str]]]:
    """Which modules run together, one part after another in each lane; each module once."""
    left = modules()
    made: list[list[list[str]]] = []
    for labels in LANES:
        lane: list[list[str]] = []
        for label in labels:
            mine = [one for one in left if one.startswith(f"{label}.")]
            left = [one for one in left if one not in mine]
            count = SPREAD.get(label, 1)
            # Every so-and-so-many-th: what lies beside each other is often as long.
            lane += [mine[first::count] for first in range(count)]
        made.append(lane)
    made[-1].append(left)
    return made


def run(part: list[str]) -> Result:
    """Run one part and print what it said, as a whole."""
    with tempfile.NamedTemporaryFile("r") as summary:
        kept = os.environ | {"VELVET_KITE_SUMMARY": summary.name}
        command = [sys.executable, "manage.py", "test", "--noinput", *part]
        done = subprocess.run(
            command, cwd=ROOT, env=kept, text=True, stdout=subprocess.PIPE, stderr=subprocess.STDOUT
        )
        told = summary.read()
    sys.stdout.write(f"\n{'=' * 70}\n{part[0]} and {len(part) - 1} more\n{done.stdout}")
    sys.stdout.flush()
    counts = {word: int(number) for number, word in re.findall(r"(\d+) (\w+)", told)}
    ran = int((re.search(r"Ran (\d+) test", done.stdout) or [0, "0"])[1])
    # One that ended before it could count failed as a whole.
    lost = 1 if done.returncode and not counts.get("failed") else 0
    failed = counts.get("failed", 0) + lost
    reports = REPORT.findall(done.stdout) or ([f"{part[0]} and others ended early"] if lost else [])
    return Result(counts.get("passed", 0), failed, counts.get("skipped", 0), ran, reports)


def main() -> int:
    began = time.monotonic()
    with ThreadPoolExecutor(len(LANES)) as pool:
        ways = list(pool.map(lambda lane: [run(part) for part in lane], lanes()))
    results = [result for way in ways for result in way]
    # Once more at the end, where whoever reads only that finds them.
    for report in (one for result in results for one in result.reports):
        print(f"\n{'=' * 70}\n{report}")
    passed, failed, skipped, ran = (
        sum(one) for one in zip(*(one[:4] for one in results), strict=True)
    )
    print(f"\n{'-' * 70}\nRan {ran} tests in {time.monotonic() - began:.3f}s\n")
    print("OK" if not failed else f"FAILED ({failed})")
    summary = f"{passed} passed, {failed} failed" + (f", {skipped} skipped" if skipped else "")
    print(summary)
    if path := os.environ.get("VELVET_KITE_SUMMARY"):
        Path(path).write_text(summary + "\n")
    return 1 if failed else 0


if __name__ == "__main__":
    sys.exit(main())
