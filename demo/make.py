"""Make all demo takes: ``python -m demo.make FOLDER``. Finished ones are left alone."""

from __future__ import annotations

import sys
from concurrent.futures import ProcessPoolExecutor
from multiprocessing import get_context
from pathlib import Path

from demo.films import FILMS, make_film
from demo.layers import make_sheets
from demo.report import make_recording
from demo.shelf import SOUNDS, make_shelf_sounds
from demo.sounds import make_sounds
from demo.stills import STARS, make_stars, make_stills

ORDER = (
    *(film.name for film in FILMS),
    "kite-cutout.png",
    "evening-sheet.jpg",
    "ridge-noon.jpg",
    "ink-wash.jpg",
    "paper-weather-loop.wav",
    "spoken-line.wav",
    "paper-rustle.flac",
    "report-recorder.flac",
)
SHELF = (*(f"star-{number:02d}.png" for number in range(1, STARS + 1)), *SOUNDS)
"""What lies on the sample shelf besides, to be brought in by hand."""


def make_all(folder: Path) -> list[Path]:
    """All takes in order; each appears in the folder only when it is whole."""
    folder.mkdir(parents=True, exist_ok=True)
    takes = [folder / name for name in ORDER]
    wanted = [*takes, *(folder / name for name in SHELF)]
    if all(path.exists() for path in wanted):
        return takes
    fresh = folder / "unfinished"
    fresh.mkdir(exist_ok=True)
    with ProcessPoolExecutor(2, mp_context=get_context("spawn")) as pool:
        missing = [film for film in FILMS if not (folder / film.name).exists()]
        jobs = [pool.submit(make_film, film, fresh) for film in missing]
        jobs += [
            pool.submit(make, fresh)
            for make in (
                make_stills,
                make_sheets,
                make_stars,
                make_sounds,
                make_shelf_sounds,
                make_recording,
            )
        ]
        for job in jobs:
            job.result()
    for path in fresh.iterdir():
        path.replace(folder / path.name)
    fresh.rmdir()
    return takes


if __name__ == "__main__":
    for made in make_all(Path(sys.argv[1])):
        print(made.name)
