"""All tests in parts, two at a time, each with a database, a queue and a folder of its own.

Django's runner does the work; here its parts are handed out and their counts put together.
"""

from __future__ import annotations

import os
import re
import subprocess
import sys
import tempfile
import time
from collections import deque
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from contextlib import suppress
from pathlib import Path
from typing import Final, NamedTuple

ROOT: Final = Path(__file__).parents[1]
BROWSERS: Final = "browser_tests"
"""Two at a time would wait for each other: one of the two lanes has them all, and begins with them."""
SPREAD: Final = {BROWSERS: 4, "studio": 4, "kitecore.render": 2, "kitecore": 2}
"""Packages, and into how many parts each is cut; what none of them names is one more."""

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


def parts() -> dict[str, list[list[str]]]:
    """Which modules run together, by their package; each module once."""
    left = modules()
    made: dict[str, list[list[str]]] = {}
    for package, count in SPREAD.items():
        mine = [one for one in left if one.startswith(f"{package}.")]
        left = [one for one in left if one not in mine]
        # Every so-and-so-many-th: what lies beside each other is often as long.
        made[package] = [mine[first::count] for first in range(count)]
    return made | {"": [left]}


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


def lane(rows: list[deque[list[str]]]) -> list[Result]:
    """Run what waits in some rows, one part after another."""
    return [run(part) for row in rows for part in taken(row)]


def taken(row: deque[list[str]]) -> Iterator[list[str]]:
    """One after the other, until nothing waits: both lanes take from one row."""
    with suppress(IndexError):
        while True:
            yield row.popleft()


def main() -> int:
    began = time.monotonic()
    waiting = parts()
    browsers = deque(waiting.pop(BROWSERS))
    others = deque(part for row in waiting.values() for part in row)
    with ThreadPoolExecutor(2) as pool:
        ways = list(pool.map(lane, ([browsers, others], [others])))
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
