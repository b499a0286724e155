"""How long films wait where 100 000 people make some: a simulation of the queue, by events.

``python -m benchmarks.many_makers`` prints the table of docs/many-machines.md. What it takes for granted
stands in `Makers`; the cost of a piece is that of docs/benchmarks.md.
"""

from __future__ import annotations

import heapq
import random
from collections import deque
from dataclasses import dataclass
from statistics import quantiles
from typing import Final

HOUR: Final = 3600.0
BY_HOUR: Final = (
    1, 1, 1, 1, 1, 2, 3, 4, 4, 4, 4, 5, 5, 5, 5, 5, 6, 7, 8, 9, 8, 6, 3, 2,
)  # fmt: skip
"""Of a hundred films, how many are begun in each hour of a day."""


@dataclass(frozen=True)
class Makers:
    """Who makes films, and what one costs."""

    people: int = 100_000
    films_a_week: float = 3.0
    seconds: float = 40.0
    """Median length; long ones are much longer (lognormal)."""
    spread: float = 0.8
    piece: float = 6.0
    """Seconds for three seconds of film: between an untouched clip (2.6) and thirty layers (9.9)."""
    joining: float = 1.5


@dataclass
class _Film:
    begun: float
    left: int
    pieces: int


def waits(makers: Makers, cores: int, *, fair: bool = True, seed: int = 1) -> list[float]:
    """Seconds from asking for a film until it is there, for each film of a day."""
    chance = random.Random(seed)
    arrivals = deque(_arrivals(makers, chance))
    turns: deque[_Film] = deque()
    free, ends, found, now = cores, list[tuple[float, int, _Film]](), list[float](), 0.0
    number = 0
    while arrivals or ends:
        coming = arrivals[0].begun if arrivals else float("inf")
        done = ends[0][0] if ends else float("inf")
        now = min(coming, done)
        if coming <= done:
            turns.append(arrivals.popleft())
        else:
            _, _, film = heapq.heappop(ends)
            free += 1
            film.left -= 1
            if not film.left:
                found.append(now + makers.joining - film.begun)
        while free and turns:
            # A piece of each person in turn; else all of one film, then of the next.
            film = turns.popleft()
            film.pieces -= 1
            if film.pieces:
                (turns.append if fair else turns.appendleft)(film)
            free, number = free - 1, number + 1
            heapq.heappush(ends, (now + makers.piece, number, film))
    return found


def _arrivals(makers: Makers, chance: random.Random) -> list[_Film]:
    films = []
    a_day = makers.people * makers.films_a_week / 7
    for hour, share in enumerate(BY_HOUR):
        for _ in range(round(a_day * share / sum(BY_HOUR))):
            seconds = makers.seconds * chance.lognormvariate(0, makers.spread)
            pieces = max(1, round(seconds / 3))
            films.append(_Film((hour + chance.random()) * HOUR, pieces, pieces))
    return sorted(films, key=lambda one: one.begun)


def main() -> None:
    makers = Makers()
    print("| cores | turns | half wait | 95 of 100 wait | 99 of 100 wait |")
    print("| ---: | --- | ---: | ---: | ---: |")
    for cores in (90, 110, 120, 130, 150):
        for fair in (True, False):
            told = quantiles(waits(makers, cores, fair=fair), n=100)
            how = "a piece of each" if fair else "film by film"
            cells = [f"{told[at] / 60:.1f} min" for at in (49, 94, 98)]
            print(f"| {cores} | {how} | {' | '.join(cells)} |")


if __name__ == "__main__":
    main()
