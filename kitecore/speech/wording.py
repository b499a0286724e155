"""When the words of a text are said in a recording, and lines that are short enough to be read."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Final

from kitecore.speech.aligning import pauses_of
from kitecore.speech.features import LOOKS, Floats
from kitecore.speech.mouthing import laid_over
from kitecore.speech.reading import Reading

MOST_LETTERS: Final = 42
"""Of a line: what is read at a glance on a small screen."""
_LINGERS: Final = 0.3
"""Seconds that a line stays after its last word has begun to end, if nothing follows."""


@dataclass(frozen=True)
class Line:
    """Words of a text, from one second of a recording to another, and when each of them begins."""

    text: str
    begin: float
    end: float
    words: tuple[float, ...] = ()


def lines_of(text: str) -> Iterator[tuple[int, str]]:
    """Lines of a text, each with the number of its first letter: its own, cut where they are long.

    They are cut behind a sign if there is one in the second half, else between two words.
    """
    at = 0
    for own in text.splitlines(keepends=True):
        yield from _cut(own, at)
        at += len(own)


def _cut(text: str, at: int) -> Iterator[tuple[int, str]]:
    bare = text.strip()
    at += len(text) - len(text.lstrip())
    while len(bare) > MOST_LETTERS:
        head = bare[: MOST_LETTERS + 1]
        signs = [head.rfind(sign) + 1 for sign in (". ", "? ", "! ", ", ", "; ", ": ")]
        cut = max(signs) if max(signs) > MOST_LETTERS // 2 else head.rfind(" ")
        if cut <= 0:
            break
        yield at, bare[:cut].strip()
        rest = bare[cut:]
        at += cut + len(rest) - len(rest.lstrip())
        bare = rest.strip()
    if bare:
        yield at, bare


def spoken_lines(text: str, energies: Floats, reading: Reading) -> list[Line]:
    """The lines of a text with the times at which they are said; none if nothing is.

    Parameters
    ----------
    energies
        Of a recording, as `energies_of` makes them.
    reading
        Of the text.
    """
    there = laid_over(energies, reading)
    if there is None or not reading.words:
        return []
    begins = [(word.letter, there(word.begin) / LOOKS) for word in reading.words]
    last = there(len(reading.sound) / reading.rate) / LOOKS
    lines = list(lines_of(text))
    found = []
    for number, (at, said) in enumerate(lines):
        after = lines[number + 1][0] if number + 1 < len(lines) else len(text) + 1
        own = [(letter - at, second) for letter, second in begins if at <= letter < after]
        if not own:
            continue
        later = [second for letter, second in begins if letter >= after]
        begin, end = own[0][1], later[0] if later else last + _LINGERS
        found.append(Line(said, begin, max(end, begin), _words_of(said, own)))
    return [_without_pause(one, energies) for one in found]


def _words_of(text: str, begins: list[tuple[int, float]]) -> tuple[float, ...]:
    """When each word between spaces is said: what is read as one with the word before, with that."""
    found = list[float]()
    for word in re.finditer(r"\S+", text):
        own = [second for letter, second in begins if word.start() <= letter < word.end()]
        found.append(own[0] if own else found[-1] if found else begins[0][1])
    return tuple(found)


def _without_pause(line: Line, energies: Floats) -> Line:
    """A line that ends soon after its last sound, however late the next one is said."""
    first, last = round(line.begin * LOOKS), round(line.end * LOOKS)
    quiet = pauses_of(energies[first:last])
    heard = [at for at, pause in enumerate(quiet) if not pause]
    end = line.begin + ((heard[-1] + 1) / LOOKS if heard else 0) + _LINGERS
    return replace(line, end=min(line.end, max(end, line.begin + _LINGERS)))
