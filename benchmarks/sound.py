"""Sound: mixing with chains, loudness after a change, the waveform of an hour."""

from __future__ import annotations

import shutil
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

import numpy as np

from benchmarks.rows import Row, seconds, side_by_side
from kitecore import edits
from kitecore.analysis import analyse, place_of
from kitecore.document import Document, Track, empty_document
from kitecore.document.clips import clip_kinds
from kitecore.edits.tests.populated import edit
from kitecore.media.folder import MediaFolder
from kitecore.media.tests.material import ingested, make_wav, tone
from kitecore.render.extract import content_key
from kitecore.render.levels import STRETCH_SECONDS, measured_stretch, stretches_of
from kitecore.render.samples import render_samples
from kitecore.render.sources import Sources
from kitecore.sound.ramps import RATE
from kitecore.ticks import TICKS_PER_SECOND, Span

TRACKS = 12
FILM = 120
CHAIN: list[dict[str, Any]] = [
    {"kind": "equaliser", "low_cut": {"on": True}, "low_bell": {"gain": -3}, "bell": {"gain": 3}},
    {"kind": "compressor"},
    {"kind": "gate"},
]


def sound() -> list[Row]:
    with TemporaryDirectory() as folder:
        root = Path(folder)
        ingested(root, "take", make_wav(root / "x", tone(float(FILM))))
        return [_mixing(root), _loudness(root), _waveform(root)]


def _find(root: Path) -> Any:
    return lambda media: MediaFolder(root / media)


def _film(tracks: int, seconds_: int) -> Document:
    """Tracks of one clip after another, each through a chain; a compressor over all."""
    document = empty_document()
    length = FILM * TICKS_PER_SECOND
    made = []
    for number in range(tracks):
        clips = tuple(
            clip_kinds["sound"].model_validate(
                {
                    "kind": "sound",
                    "id": f"c{number}-{at}",
                    "media": "take",
                    "start": at * length,
                    "length": length,
                    "source_length": length,
                }
            )
            for at in range(seconds_ // FILM)
        )
        made.append(Track(id=f"t{number}", kind="sound", clips=clips))
    document = document.model_copy(update={"tracks": (*document.tracks, *made)})
    for track in made:
        document = edits.apply(document, edit(kind="add_inserts", track=track.id, inserts=CHAIN))
    return edits.apply(document, edit(kind="add_inserts", inserts=[{"kind": "compressor"}]))


def _mixing(root: Path) -> Row:
    document = _film(TRACKS, FILM)

    def mix() -> None:
        sources = Sources(_find(root))
        for at in range(0, FILM // 2, 10):
            render_samples(document, at * RATE, 10 * RATE, sources)
        sources.close()

    taken = side_by_side(3, mix)[0]
    factor = FILM / 2 / taken
    how = f"{taken:.1f} s for {FILM // 2} s; an equaliser, a compressor and a gate on each, one thread"
    what = f"mixing of {TRACKS} tracks with chains, against real time"
    return Row(what, f"{factor:.1f} ×", "≥ 20 ×", how, factor >= 20)


def _loudness(root: Path) -> Row:
    """Of ten minutes on four tracks, after one clip of two minutes has become quieter."""
    document = _film(4, 600)
    changed = edits.apply(document, edit(kind="adjust", clips=["c1-2"], values={"gain": -3.0}))
    sources = Sources(_find(root), draft=True)

    def key(of: Document, number: int) -> str:
        start = number * STRETCH_SECONDS * TICKS_PER_SECOND
        span = Span(start, start + STRETCH_SECONDS * TICKS_PER_SECOND)
        return content_key(of, span, _find(root), number, heard=True)

    anew = [n for n in range(stretches_of(document)) if key(document, n) != key(changed, n)]

    def measure() -> None:
        for number in anew:
            measured_stretch(changed, number, sources)

    taken = seconds(measure)
    sources.close()
    how = f"{len(anew)} of {stretches_of(document)} stretches of 10 s changed; 4 tracks with chains"
    what = "loudness of ten minutes after a change of one clip"
    return Row(what, f"{taken:.1f} s", "≤ 2 s", how, taken <= 2)


def _waveform(root: Path) -> Row:
    """Of an hour, from its decoded sound on."""
    folder = MediaFolder(root / "hour")
    shutil.copytree(root / "take", folder.path)
    everything = np.memmap(folder.sound, np.float32, "r")
    with folder.sound.open("ab") as file:
        for _ in range(3600 // FILM - 1):
            file.write(everything.tobytes())

    def peaks() -> None:
        shutil.rmtree(place_of(folder, "peaks"), ignore_errors=True)
        analyse(folder, "peaks")

    taken = side_by_side(3, peaks)[0]
    how = "once its sound is decoded"
    return Row("waveform of an hour of sound", f"{taken:.1f} s", "≤ 3 s", how, taken <= 3)
