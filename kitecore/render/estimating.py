"""How large a file will be, and how long it takes, from trials of short stretches."""

from __future__ import annotations

import time
from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from math import ceil, log2
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Final

import av

from kitecore.render.export import PIECE_FRAMES
from kitecore.render.formats import Format
from kitecore.render.making.drawing import picture
from kitecore.render.making.films import Film, sound_of
from kitecore.render.making.format import Joining, Pieced
from kitecore.render.making.sounds import Sound
from kitecore.render.making.work import Work
from kitecore.render.sources import Sources

STRETCH: Final = 45
"""Frames of a trial: half a piece, more than encoders look ahead."""
STRETCHES: Final = 6
_HEARD: Final = 10
"""Seconds of sound in a trial."""
CRF_TO_HALVE: Final = 6.0
"""A file is about half as large with so much more crf, until that was tried."""

Heard = Callable[[float], None]


@dataclass(frozen=True)
class Estimate:
    """Bytes of a file, and the seconds that one worker would need."""

    bytes: int
    seconds: float


def estimate(work: Work, recipe: Format, sources: Sources, heard: Heard) -> Estimate:
    """What a file will weigh and take. ``heard`` is told the share that is done, and may raise."""
    with TemporaryDirectory() as name:
        folder = Path(name)
        if isinstance(recipe, Sound):
            return _of_sound(work, recipe, sources, folder)
        if isinstance(recipe, Pieced):
            return _of_pictures(work, recipe, sources, folder, heard)
        return _made(work, recipe, sources, folder)


def fitting_crf(
    work: Work, recipe: Format, most_bytes: int, sources: Sources, heard: Heard
) -> int | None:
    """The finest ``crf`` whose file is likely to weigh no more; None if that cannot be steered."""
    values = recipe.coarseness
    if values is None:
        return None
    crf, tried = values[len(values) // 3], dict[int, float]()
    for _ in range(3):
        if crf not in tried:
            weighed = estimate(replace(work, crf=crf), recipe, sources, heard).bytes
            tried[crf] = log2(weighed / most_bytes)
        crf = _next_crf(tried, values)
    return crf


def _next_crf(tried: dict[int, float], values: range) -> int:
    """Where the file would have the right size, by the two trials that lie nearest to it."""
    near = sorted(tried, key=lambda crf: abs(tried[crf]))[:2]
    slope = 1 / CRF_TO_HALVE
    if len(near) == 2:
        slope = max((tried[near[0]] - tried[near[1]]) / (near[1] - near[0]), 0.02)
    crf = ceil(near[0] + tried[near[0]] / slope)
    return min(max(crf, values.start), values[-1])


def _of_pictures(
    work: Work, recipe: Pieced, sources: Sources, folder: Path, heard: Heard
) -> Estimate:
    stretches, pieces = list(_stretches(work.numbers)), list[Path]()
    seconds = 0.0
    for at, stretch in enumerate(stretches):
        pieces.append(folder / f"piece-{at}")
        part = replace(work, numbers=stretch)
        # The film itself does not jump: the way to a stretch is none of its work.
        picture(part, work.document.rate.exact.start_of(work.own_number(stretch[0])), sources)
        started = time.monotonic()
        recipe.encode_piece(part, stretch, pieces[-1], sources)
        seconds += time.monotonic() - started
        heard((at + 1) / len(stretches))
    tried = sum(map(len, stretches))
    times = len(work.numbers) / tried
    if isinstance(recipe, Film):
        bytes = _by_key_frames(work, [_packets(piece) for piece in pieces])
        sound = _of_sound(work, sound_of(recipe), sources, folder)
        return Estimate(bytes + sound.bytes, seconds * times + sound.seconds)
    path, started = folder / f"film.{recipe.suffix}", time.monotonic()
    recipe.join(replace(work, numbers=work.numbers[:tried]), Joining(pieces, path, sources))
    seconds += time.monotonic() - started
    return Estimate(round(path.stat().st_size * times), seconds * times)


def _stretches(numbers: range) -> Iterator[range]:
    """Spread evenly over a film; all of a short one, as it will be cut into pieces."""
    if len(numbers) <= STRETCH * STRETCHES:
        for at in range(0, len(numbers), PIECE_FRAMES):
            yield numbers[at : at + PIECE_FRAMES]
        return
    room = len(numbers) - STRETCH
    for index in range(STRETCHES):
        at = round(room * (index + 0.5) / STRETCHES)
        yield numbers[at : at + STRETCH]


def _packets(path: Path) -> list[tuple[int, bool]]:
    """Bytes of each picture in a piece, and whether it stands alone."""
    with av.open(str(path)) as source:
        return [(one.size, bool(one.is_keyframe)) for one in source.demux(video=0) if one.size]


def _by_key_frames(work: Work, trials: list[list[tuple[int, bool]]]) -> int:
    """Bytes of a film's pictures: a whole one every two seconds, those between by their mean."""
    whole = [size for trial in trials for size, key in trial if key]
    between = [size for trial in trials for size, key in trial if not key]
    if not between:
        return round(len(work.numbers) * _mean(whole))
    apart, count = round(work.rate.fraction * 2), len(work.numbers)
    pieces, rest = divmod(count, PIECE_FRAMES)
    keys = pieces * ceil(PIECE_FRAMES / apart) + ceil(rest / apart)
    return round(keys * _mean(whole) + (count - keys) * _mean(between))


def _mean(sizes: list[int]) -> float:
    return sum(sizes) / len(sizes)


def _of_sound(work: Work, recipe: Sound, sources: Sources, folder: Path) -> Estimate:
    """From some seconds of the mix after its first third."""
    numbers = work.numbers
    wanted = min(ceil(_HEARD * work.rate.fraction), len(numbers))
    at = (len(numbers) - wanted) // 3
    made = _made(replace(work, numbers=numbers[at : at + wanted]), recipe, sources, folder)
    times = len(numbers) / wanted
    return Estimate(round(made.bytes * times), made.seconds * times)


def _made(work: Work, recipe: Format, sources: Sources, folder: Path) -> Estimate:
    """What a file that is made in one go costs: it is made."""
    path, started = folder / f"whole.{recipe.suffix}", time.monotonic()
    recipe.join(work, Joining([], path, sources))
    return Estimate(path.stat().st_size, time.monotonic() - started)
