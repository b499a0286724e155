"""How inserts sound. To add one: a module here for each in `kitecore.document.inserts`.

Each result depends on a bounded stretch of the sound before and after, so any piece of a film can be
made alone.
"""

from __future__ import annotations

from collections.abc import Callable

import numpy as np

from kitecore.document.inserts import InsertBase
from kitecore.registry import import_all
from kitecore.sound.following import GRAIN, Levels
from kitecore.sound.inserts._base import Over, Processing, insert_sounds
from kitecore.sound.ramps import Samples

import_all(__name__)

__all__ = ["Over", "Processing", "chain_reach", "chained", "insert_sounds", "turned_down_by"]

Read = Callable[[int, int], Samples]


def _working(chain: tuple[InsertBase, ...]) -> list[tuple[InsertBase, Processing]]:
    both = [(insert, insert_sounds[insert.kind]) for insert in chain if insert.on]
    return [(insert, sound) for insert, sound in both if not sound.idle(insert)]


def chain_reach(chain: tuple[InsertBase, ...]) -> tuple[int, int]:
    """Samples before and after a stretch that it depends on."""
    working = _working(chain)
    before = sum(sound.before(insert) for insert, sound in working)
    return before, sum(sound.after(insert) for insert, sound in working)


def chained(chain: tuple[InsertBase, ...], read: Read, first: int, count: int) -> Samples:
    """Sound after a chain; the same samples, within -90 dB, however a range is cut.

    Parameters
    ----------
    read
        ``read(first, count)``: the sound before it.
    first
        Counted from where the keys of the inserts count from.

    Returns
    -------
    float32, shape (count, 2).
    """
    before, after = chain_reach(chain)
    at = first - before
    samples = read(at, before + count + after)
    for insert, sound in _working(chain):
        done = sound.run(insert, samples, Over(at, len(samples)))
        head, tail = sound.before(insert), sound.after(insert)
        samples, at = done[head : len(done) - tail], at + head
    return samples


def turned_down_by(
    chain: tuple[InsertBase, ...], insert: str, read: Read, first: int, count: int
) -> Levels | None:
    """By how many dB an insert of a chain makes each sample quieter; 0 while it is off.

    Parameters
    ----------
    insert
        Its id. None comes back if the chain has none of it that turns anything down.
    read, first
        As of `chained`.

    Returns
    -------
    float32, shape (count,).
    """
    place = next((at for at, one in enumerate(chain) if one.id == insert), None)
    if place is None or (reduction := insert_sounds[chain[place].kind].reduction) is None:
        return None
    own = chain[place]
    if not own.on:
        return np.zeros(count, np.float32)
    before, after = chain_reach((own,))
    over = Over(first - before, before + count + after)
    samples = chained(chain[:place], read, over.first, over.count)
    each = np.repeat(reduction(own, samples, over), GRAIN)[over.lead + before :]
    return np.asarray(each[:count], np.float32)
