"""Rows of a site that is used for long, and of one person beside another's heavy work."""

from __future__ import annotations

import json
import time
from collections.abc import Callable, Sequence
from pathlib import Path
from statistics import median
from threading import Thread
from typing import Any

from benchmarks.people import SECOND, Person, Site, open_files, resident, served, solid
from benchmarks.rows import Row

STILLS = 20_000
SETTLED = 5_000
"""Stills after which everything that is kept is full."""
HANDS = 4
FILMS = 10
_LOOKS = 60
HEAVY = 8
"""Stills of one person that wait at once."""


def long_use(data: Path) -> list[Row]:
    """Memory and open files of all that serves, early and late in 20 000 stills."""
    with served(data, HANDS) as site:
        people = site.people()
        _look(people, SETTLED // HANDS)
        early = _holding(site)
        _look(people, (STILLS - SETTLED) // HANDS)
        late = _holding(site)
    failed = sum(one.failed for one in people)
    how = f"from still {SETTLED} to still {STILLS}, {HANDS} at once, {failed} failed"
    return [_flat(name, early[name], late[name], how, failed) for name in early]


def _look(people: Sequence[Person], each: int) -> None:
    def look(one: Person) -> None:
        for number in range(each):
            one.still(number % 90, 320 + number % 7 * 16)

    together([lambda one=one: look(one) for one in people])  # type: ignore[misc]


def together(works: Sequence[Callable[[], object]]) -> None:
    threads = [Thread(target=work, daemon=True) for work in works]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()


def _holding(site: Site) -> dict[str, tuple[int, int]]:
    """Bytes and open files of the largest of each kind."""
    return {
        name: (max(map(resident, pids)), max(map(open_files, pids)))
        for name, pids in site.processes().items()
    }


def _flat(name: str, early: tuple[int, int], late: tuple[int, int], how: str, failed: int) -> Row:
    memory = f"{early[0] >> 20} → {late[0] >> 20} MB"
    reached = f"{memory}, {early[1]} → {late[1]} files"
    good = not failed and late[0] < 1.1 * early[0] and late[1] <= early[1] + 8
    return Row(f"long use: the largest {name}", reached, "flat", how, good)


def beside(data: Path) -> list[Row]:
    """What one person waits for while another has heavy stills and long films in hand."""
    with served(data, 2) as site:
        busy, other = site.people()
        _make_heavy(busy)
        other.step(solid("#336699", 0.5))
        alone = median(other.still(frame) for frame in range(9))
        stills, heavy = _beside_stills(site, busy, other)
        idle = _p95(other)
        film, fresh, worker = _beside_films(site, busy, other)
    failed = busy.failed + other.failed
    told = f"alone {alone * 1000:.0f} ms; {failed} failed"
    return [
        Row(
            f"a still beside another's {HEAVY} heavy ones",
            f"{max(stills):.1f} s",
            "≤ 2 heavy ones",
            f"the longest of {len(stills)}, median {median(stills):.2f} s; a heavy one takes {heavy:.1f} s; {told}",
            max(stills) <= 2 * heavy and not failed,
        ),
        Row(
            f"a film of half a second beside another's {FILMS} long films",
            f"{film:.1f} s",
            "≤ 20 s",
            f"from asking to done; {told}",
            film <= 20 and not failed,
        ),
        Row(
            "fresh stills beside them, against none",
            f"{fresh / idle:.1f} ×",
            "≤ 2 ×",
            f"95 % within {fresh * 1000:.0f} ms, {idle * 1000:.0f} ms alone; {failed} failed",
            fresh <= 2 * idle and not failed,
        ),
        Row(
            "memory of a worker, films in hand",
            f"{worker >> 20} MB",
            "< 800 MB",
            "the largest process below it",
            worker < 800 * 2**20,
        ),
    ]


def _make_heavy(person: Person) -> None:
    blur = {"kind": "zoom_blur", "id": "b", "amount": 40.0}
    person.step(solid("#884422", 60))
    for _ in range(4):
        clip = {"kind": "adjustment", "name": "soft", "length": 60 * SECOND, "effects": [blur]}
        person.step({"kind": "place", "clip": clip, "mode": "above", "at": 0})


def _another(site: Site, person: Person) -> Person:
    """Another line of the same person."""
    made = next(one for one in site.made if one[0] == person.session)
    return Person(site.port, made[0], made[1], person.head)


def _beside_stills(site: Site, busy: Person, other: Person) -> tuple[list[float], float]:
    """Seconds of the other's stills meanwhile, and of a heavy one alone."""
    heavy = busy.still(1, 1920)
    lines = [_another(site, busy) for _ in range(HEAVY)]
    works = [lambda one=one, at=at: one.still(10 + at, 1920) for at, one in enumerate(lines)]
    busy_thread = Thread(target=lambda: together(works), daemon=True)  # type: ignore[arg-type]
    busy_thread.start()
    time.sleep(0.3)
    taken = []
    while busy_thread.is_alive():
        taken.append(other.still(len(taken) % 14))
    busy.failed += sum(one.failed for one in lines)
    return taken, heavy


def _beside_films(site: Site, busy: Person, other: Person) -> tuple[float, float, int]:
    """Seconds of a short film, of stills while ten films wait, and bytes of the largest working process."""
    for _ in range(FILMS):
        busy.ask("POST", f"{busy.path}/exports", {"settings": [{"long_side": 1280}]})
    time.sleep(5)
    begun = time.monotonic()
    other.ask("POST", f"{other.path}/exports", {"settings": [{"last": SECOND // 2}]})
    largest = 0
    while _films(other)[0]["job"]["state"] != "done":
        largest = max(largest, *map(resident, site.processes()["worker"]))
        time.sleep(0.2)
    film = time.monotonic() - begun
    fresh = _p95(other)
    for one in _films(busy):
        busy.ask("POST", f"/api/jobs/{one['job']['id']}/cancel")
    return film, fresh, largest


def _p95(person: Person) -> float:
    """Seconds within which 95 % of fresh stills are there, of a film that was just changed."""
    person.step(solid("#993366", 0.5))
    taken = [person.still(number % 14, 400 + 16 * (number // 14)) for number in range(_LOOKS)]
    return sorted(taken)[round(0.95 * (_LOOKS - 1))]


def _films(person: Person) -> list[dict[str, Any]]:
    listed: list[dict[str, Any]] = json.loads(person.ask("GET", f"{person.path}/exports")[1])
    return listed
