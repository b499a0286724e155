"""Reading and writing .cube files (Cube LUT Specification 1.0).

Read besides: ``LUT_1D_INPUT_RANGE`` and ``LUT_3D_INPUT_RANGE``, a common other way to say the domain.
"""

from __future__ import annotations

import math
from typing import Final

import numpy as np
from numpy.typing import NDArray

from kitecore.colour.cube import Cube
from kitecore.errors import BadInput

MOST_1D: Final = 65_536
MOST_3D: Final = 129
MOST_BYTES: Final = 80 * 2**20
LONGEST_LINE: Final = 1000
"""Characters; a line holds three numbers, a title, or a remark."""

_NUMBERS: Final = {
    "LUT_1D_SIZE": 1,
    "LUT_3D_SIZE": 1,
    "DOMAIN_MIN": 3,
    "DOMAIN_MAX": 3,
    "LUT_1D_INPUT_RANGE": 2,
    "LUT_3D_INPUT_RANGE": 2,
}
"""How many numbers stand behind each keyword."""


class BadCube(BadInput):
    """A .cube file that cannot be used; ``line`` counts from 1."""

    code = "bad_cube"
    default_safe = "Your looks and your project are unchanged."
    default_todo = "Have the file written again by the program it comes from."

    def __init__(self, message: str, line: int) -> None:
        super().__init__(f"Line {line}: {message}")
        self.line = line


def read_cube(data: bytes) -> Cube:
    """The table in a file.

    Raises
    ------
    BadCube
        With the number of the first wrong line, and what is wrong with it.
    """
    if len(data) > MOST_BYTES:
        raise BadCube(f"the file is larger than {MOST_BYTES // 2**20} MB.", 1)
    lines = data.decode("utf-8", "replace").lstrip("\ufeff").splitlines()
    for number, line in enumerate(lines, 1):
        if len(line) > LONGEST_LINE:
            raise BadCube(f"more than {LONGEST_LINE} characters stand here.", number)
    header, first = _header(lines)
    size, channels_only = _size(header, len(lines))
    rows = _rows(lines, first, size if channels_only else size**3)
    low, high = _domain(header)
    values = rows if channels_only else rows.reshape(size, size, size, 3).transpose(2, 1, 0, 3)
    return Cube(np.ascontiguousarray(values), low, high, header.title)


class _Header:
    def __init__(self) -> None:
        self.title = ""
        self.numbers: dict[str, list[float]] = {}
        self.lines: dict[str, int] = {}


def _header(lines: list[str]) -> tuple[_Header, int]:
    """What stands before the table, and the index of the table's first line."""
    header = _Header()
    for index, raw in enumerate(lines):
        line, number = raw.strip(), index + 1
        if not line or line.startswith("#"):
            continue
        if line[0] in "+-.0123456789":
            return header, index
        word, _, rest = line.partition(" ") if " " in line else line.partition("\t")
        if word == "TITLE":
            header.title = rest.strip().strip('"')[:200]
        elif word in _NUMBERS:
            if word in header.numbers:
                raise BadCube(f"{word} stands here a second time.", number)
            header.numbers[word] = _keyword(word, rest, number)
            header.lines[word] = number
        else:
            raise BadCube(f"“{word[:40]}” is no word of a .cube file.", number)
    return header, len(lines)


def _keyword(word: str, rest: str, number: int) -> list[float]:
    parts = rest.split()
    wanted = _NUMBERS[word]
    values = _numbers(parts)
    if values is None or len(values) != wanted:
        noun = "a number" if wanted == 1 else f"{wanted} numbers"
        raise BadCube(f"behind {word} stands {noun}.", number)
    return values


def _numbers(parts: list[str]) -> list[float] | None:
    try:
        values = [float(part) for part in parts]
    except ValueError:
        return None
    return values if all(math.isfinite(value) for value in values) else None


def _size(header: _Header, last: int) -> tuple[int, bool]:
    one, three = header.numbers.get("LUT_1D_SIZE"), header.numbers.get("LUT_3D_SIZE")
    if one and three:
        line = max(header.lines["LUT_1D_SIZE"], header.lines["LUT_3D_SIZE"])
        raise BadCube("a table is either 1D or 3D.", line)
    if not one and not three:
        raise BadCube("LUT_1D_SIZE or LUT_3D_SIZE is missing before the table.", max(1, last))
    word, most = ("LUT_1D_SIZE", MOST_1D) if one else ("LUT_3D_SIZE", MOST_3D)
    [value] = header.numbers[word]
    if value != int(value) or not 2 <= value <= most:
        raise BadCube(f"{word} goes from 2 to {most}.", header.lines[word])
    return int(value), bool(one)


def _domain(header: _Header) -> tuple[tuple[float, float, float], tuple[float, float, float]]:
    low, high = [0.0] * 3, [1.0] * 3
    for word in ("LUT_1D_INPUT_RANGE", "LUT_3D_INPUT_RANGE"):
        if word in header.numbers:
            first, last = header.numbers[word]
            low, high = [first] * 3, [last] * 3
    low, high = header.numbers.get("DOMAIN_MIN", low), header.numbers.get("DOMAIN_MAX", high)
    if any(a >= b for a, b in zip(low, high, strict=True)):
        line = max(n for word, n in header.lines.items() if not word.endswith("_SIZE"))
        raise BadCube("the domain ends before it begins.", line)
    return (low[0], low[1], low[2]), (high[0], high[1], high[2])


def _rows(lines: list[str], first: int, wanted: int) -> NDArray[np.float32]:
    """The numbers of the table, shape (wanted, 3); read at once, and searched if that fails."""
    kept = [
        (index, line)
        for index, line in enumerate(map(str.strip, lines[first:]), first)
        if line and not line.startswith("#")
    ]
    try:
        values = np.array(" ".join(line for _, line in kept).split(), np.float32)
    except ValueError:
        values = np.empty(0, np.float32)
    whole = values.size == 3 * wanted and len(kept) == wanted and bool(np.isfinite(values).all())
    if not whole:
        raise _wrong(kept, wanted, len(lines))
    return values.reshape(wanted, 3)


def _wrong(kept: list[tuple[int, str]], wanted: int, last: int) -> BadCube:
    for count, (index, line) in enumerate(kept):
        if count == wanted:
            return BadCube(
                f"the table has more than the {wanted} lines its size asks for.", index + 1
            )
        values = _numbers(line.split())
        if values is None or len(values) != 3:
            return BadCube(f"three numbers are wanted, here stands “{line[:40]}”.", index + 1)
    return BadCube(f"the table ends after {len(kept)} of {wanted} lines.", max(1, last))


def write_cube(cube: Cube) -> str:
    """The text of a file with this table."""
    word = "LUT_1D_SIZE" if cube.is_curves else "LUT_3D_SIZE"
    title = cube.title.replace('"', "'")
    head = [f'TITLE "{title}"'] if title else []
    head.append(f"{word} {cube.size}")
    if cube.low != (0.0, 0.0, 0.0) or cube.high != (1.0, 1.0, 1.0):
        head.append("DOMAIN_MIN {:g} {:g} {:g}".format(*cube.low))
        head.append("DOMAIN_MAX {:g} {:g} {:g}".format(*cube.high))
    ordered = cube.values if cube.is_curves else cube.values.transpose(2, 1, 0, 3)
    rows = (f"{r:.6f} {g:.6f} {b:.6f}" for r, g, b in ordered.reshape(-1, 3).tolist())
    return "\n".join([*head, "", *rows, ""])
