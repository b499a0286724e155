"""A row of the table, and how to time things on a noisy machine."""

from __future__ import annotations

import statistics
from collections.abc import Callable
from dataclasses import dataclass
from time import perf_counter


@dataclass(frozen=True)
class Row:
    """``reached`` is told as measured; ``aim`` is what it is held against."""

    what: str
    reached: str
    aim: str
    how: str
    good: bool


def seconds(work: Callable[[], object]) -> float:
    start = perf_counter()
    work()
    return perf_counter() - start


def side_by_side(runs: int, *works: Callable[[], object]) -> list[float]:
    """Median seconds of each, taken in turns so that noise meets all alike."""
    taken: list[list[float]] = [[] for _ in works]
    for _ in range(runs):
        for index, work in enumerate(works):
            taken[index].append(seconds(work))
    return [statistics.median(times) for times in taken]


def percentile(values: list[float], share: float) -> float:
    ordered = sorted(values)
    return ordered[min(len(ordered) - 1, round(share * (len(ordered) - 1)))]
