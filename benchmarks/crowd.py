"""Rows of many people at once on the whole site."""

from __future__ import annotations

import random
import time
from pathlib import Path
from threading import Thread

from benchmarks.people import Person, resident, served, solid
from benchmarks.rows import Row, percentile

PEOPLE = 50
SECONDS = 60
PAUSE = 1.5
"""Seconds, about, that a person takes between two things."""


class Visit(Thread):
    """Looks at frames and makes steps, a pause between them; counts how long each takes."""

    def __init__(self, person: Person, end: float) -> None:
        super().__init__(daemon=True)
        self.person, self.end = person, end
        self.luck = random.Random(person.path)
        self.stills: list[float] = []
        self.steps: list[float] = []

    def run(self) -> None:
        time.sleep(self.luck.uniform(0, PAUSE))
        while time.monotonic() < self.end:
            if self.luck.random() < 0.7:
                self.stills.append(self.person.still(self.luck.randrange(90)))
            else:
                colour = f"#{self.luck.randrange(2**24):06x}"
                self.steps.append(self.person.step(solid(colour)))
            time.sleep(self.luck.uniform(0.5, 1.5) * PAUSE)


def crowd(data: Path) -> list[Row]:
    with served(data, PEOPLE) as site:
        end = time.monotonic() + SECONDS
        visits = [Visit(person, end) for person in site.people()]
        for one in visits:
            one.start()
        for one in visits:
            one.join()
        largest = max(map(resident, site.processes()["render process"]))
    stills = [taken for one in visits for taken in one.stills]
    steps = [taken for one in visits for taken in one.steps]
    failed = sum(one.person.failed for one in visits)
    how = f"{PEOPLE} people for {SECONDS} s, each about every {PAUSE} s; {failed} of {len(stills) + len(steps)} failed; they ask from the same 2 cores"
    rows = [
        _row("stills of 320 px", stills, 300, how, failed),
        _row("steps", steps, 100, how, failed),
    ]
    memory = f"{largest / 2**20:.0f} MB"
    told = "the larger of the two render processes, after that"
    return [
        *rows,
        Row("memory of a render process", memory, "< 600 MB", told, largest < 600 * 2**20),
    ]


def _row(what: str, times: list[float], aim: int, how: str, failed: int) -> Row:
    reached = percentile(times, 0.95) * 1000
    middle = percentile(times, 0.5) * 1000
    good = reached <= aim and not failed
    name = f"{PEOPLE} people at once, {what}, 95 % within"
    return Row(name, f"{reached:.0f} ms", f"≤ {aim} ms", f"median {middle:.0f} ms; {how}", good)
