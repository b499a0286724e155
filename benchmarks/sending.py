"""What files weigh and take against what was foretold; looking a film over; captions from words."""

from __future__ import annotations

from itertools import chain
from typing import Final

import numpy as np

from benchmarks.core import Workshop
from benchmarks.rows import Row, seconds
from benchmarks.speech import VOICES
from kitecore.render.checking.pictures import measure, pieces_of
from kitecore.render.estimating import estimate
from kitecore.render.export import ExportSettings, FileRate, make
from kitecore.render.sources import Sources
from kitecore.speech.features import energies_of
from kitecore.speech.reading import read
from kitecore.speech.tests.made import LINES, heard
from kitecore.speech.wording import spoken_lines

_FILES: Final = {
    "MP4": ExportSettings(long_side=960),
    "WebM": ExportSettings(format="webm", long_side=960),
    "GIF": ExportSettings(format="gif", long_side=480, rate=FileRate(num=25, den=2)),
    "WebP": ExportSettings(format="webp-moving", long_side=480, rate=FileRate(num=25, den=2)),
}


def sending(shop: Workshop) -> list[Row]:
    return [
        *chain.from_iterable(_foretold(shop, *one) for one in _FILES.items()),
        _looked_over(shop),
        _captioned(),
    ]


def _foretold(shop: Workshop, name: str, settings: ExportSettings) -> list[Row]:
    document = shop.piece
    work, path = settings.work(document), shop.root / "foretold"
    trial: list[float] = []
    # The film is made by another process: it knows nothing of what was read for the trial.
    tries, makes = (Sources(shop.find, threads=2) for _ in range(2))
    took = seconds(lambda: trial.extend(_tried(work, settings, tries)))
    whole = seconds(lambda: make(document, settings, path, makes))
    tries.close()
    makes.close()
    bytes, told = trial[0] / path.stat().st_size - 1, trial[1] / whole - 1
    how = f"the demo piece, {path.stat().st_size / 1e6:.1f} MB in {whole:.0f} s; tried in {took:.0f} s"
    return [
        Row(f"size of a {name} foretold", f"{bytes:+.0%}", "± 15 %", how, abs(bytes) <= 0.15),
        Row(f"time of a {name} foretold", f"{told:+.0%}", "± 30 %", how, abs(told) <= 0.3),
    ]


def _tried(work: object, settings: ExportSettings, sources: Sources) -> tuple[float, float]:
    found = estimate(work, settings.recipe, sources, lambda _: None)  # type: ignore[arg-type]
    return found.bytes, found.seconds


def _looked_over(shop: Workshop) -> Row:
    sources, document = Sources(shop.find), shop.piece
    took = seconds(lambda: [measure(document, one, sources) for one in pieces_of(document)])
    sources.close()
    film = document.frames / float(document.rate.exact.fraction)
    how = f"{took:.1f} s for the pictures of the demo piece, {film:.0f} s, nothing known before"
    return Row("looking a film over", f"{took / film:.2f} × its length", "", how, True)


def _captioned() -> Row:
    off: list[float] = []
    for voice in VOICES:
        for line in LINES:
            one = heard(line, voice)
            energies = energies_of(one.sound, one.reading.rate)
            begins = {word.letter: word.begin + one.late for word in one.reading.words}
            lines = spoken_lines(line, energies, read(line, "en+m1"))
            off += [abs(found.begin - begins[line.index(found.text)]) for found in lines]
    what = f"lines in {len(VOICES)} made voices, in noise; the farthest {max(off):.2f} s"
    return Row("captions where their words are said", f"{np.median(off):.2f} s off", "", what, True)
