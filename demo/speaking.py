"""Three paper birds say one line, which is captioned and lit word by word: poses swapped by its sound,
bouncing, and drawn lips that move by its words.
"""

from __future__ import annotations

import wave
from collections.abc import Iterator, Mapping
from pathlib import Path
from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

from demo.project import Source, ticks_of
from demo.sounds import LINE
from kitecore.document import derived_id
from kitecore.edits import EditBase, edit_kinds
from kitecore.edits.fresh_mouth import mouth
from kitecore.speech.features import energies_of
from kitecore.speech.mouthing import Posed, by_sound, by_words
from kitecore.speech.reading import read
from kitecore.speech.wording import spoken_lines

NAME: Final = "Pip speaks"
SHARED: Final = ("evening-sheet.jpg", "spoken-line.wav")
VOICE: Final = "spoken-line.wav"
_FPS: Final = 30
_BODY: Final = {"width": 900, "height": 700}
_DARK: Final = "#2b1f2b"


def speaking_edits(takes: Mapping[str, Source], voice: Path) -> Iterator[EditBase]:
    """The edits, in order; ``takes`` by file name, ``voice`` the file that is heard."""
    place = edit_kinds["place"]
    spoken = takes[VOICE]
    length = spoken.length // ticks_of(1 / _FPS) * ticks_of(1 / _FPS)
    sheet = {
        "kind": "still",
        "name": "evening-sheet",
        "media": takes["evening-sheet.jpg"].media,
        "length": length,
        "place": {"fit": "fill"},
    }
    yield place(clip=sheet, mode="end", seed="sheet")
    line = {
        "kind": "sound",
        "name": "Pip's line",
        "media": spoken.media,
        "length": length,
        "source_length": spoken.length,
    }
    yield place(clip=line, mode="above", at=0, seed="line")
    sound, words = _posed(voice, length)
    ways: list[tuple[str, str, dict[str, Any], list[Posed]]] = [
        ("Wren", "#c9a15a", {"kind": "swapped"}, sound),
        ("Tern", "#5d9e93", {"kind": "bouncing", "bounce": 0.25}, words),
        ("Pip", "#c07aa5", {"kind": "moving"}, words),
    ]
    for number, (name, colour, way, posed) in enumerate(ways):
        bird = _bird(name, colour, length, _talking(way, posed, length))
        bird |= {
            "place": {"fit": "own", "position": (0.0, -590.0 + 590 * number), "size": (0.8, 0.8)},
            "moves": {
                "meanwhile": [{"kind": "sway", "rate": 0.35 + 0.1 * number, "strength": 3.0}]
            },
        }
        yield place(clip=bird, mode="above", at=0, seed=f"bird{number}")
    cues = _captions(voice)
    yield edit_kinds["lay_captions"](cues=cues, seed="said")
    said = [derived_id("said", number) for number in range(1, len(cues) + 1)]
    lit = {"kind": "plain", "colour": "#ffb454"}
    yield edit_kinds["adjust"](clips=said, values={"lit": lit}, seed="lit")


def _posed(voice: Path, length: int) -> tuple[list[Posed], list[Posed]]:
    """The poses of the line, by its sound and by its words."""
    sound, rate = _samples(voice)
    energies, frames = energies_of(sound, rate), length // ticks_of(1 / _FPS)
    return by_sound(energies, frames, _FPS), by_words(energies, read(LINE), frames, _FPS)


def _captions(voice: Path) -> list[dict[str, Any]]:
    """The words of the line where they are heard."""
    sound, rate = _samples(voice)
    lines = spoken_lines(LINE, energies_of(sound, rate), read(LINE))
    return [
        {
            "at": ticks_of(one.begin),
            "until": ticks_of(one.end),
            "text": one.text,
            "words": [ticks_of(second) for second in one.words],
        }
        for one in lines
    ]


def _samples(voice: Path) -> tuple[NDArray[np.float32], int]:
    with wave.open(str(voice)) as file:
        samples = np.frombuffer(file.readframes(file.getnframes()), np.int16)
        sides = samples.reshape(-1, file.getnchannels()).mean(axis=1)
        return (sides / 32768).astype(np.float32), file.getframerate()


def _talking(way: dict[str, Any], posed: list[Posed], length: int) -> dict[str, Any]:
    turns = [
        {"at": ticks_of(one.begin / _FPS), "pose": one.pose, "sure": min(one.sure, 1.0)}
        for one in posed
    ]
    where = {"fit": "own", "position": (0.0, 130.0), "size": (0.85, 0.85)}
    return mouth() | {
        "name": "Mouth",
        "length": length,
        "way": way,
        "turns": turns,
        "place": where,
    }


def _bird(name: str, colour: str, length: int, talking: dict[str, Any]) -> dict[str, Any]:
    """A head with two eyes and a tuft, and its mouth within it."""
    head = _ellipse("Head", (720.0, 600.0), colour, (0.0, 20.0), length)
    head["effects"] = [{"kind": "paper", "strength": 0.3}]
    layers = [
        _ellipse("Tuft", (120.0, 260.0), colour, (0.0, -250.0), length),
        head,
        *(
            _ellipse(side, size, tone, (x + by, -60.0), length)
            for x in (-150.0, 150.0)
            for side, size, tone, by in (
                ("Eye", (150.0, 170.0), "#fbf4e6", 0.0),
                ("Pupil", (64.0, 84.0), _DARK, 8.0),
            )
        ),
        talking,
    ]
    tracks = [
        {"kind": "picture" if place else "main", "name": clip["name"], "clips": [clip]}
        for place, clip in enumerate(layers)
    ]
    return {"kind": "group", "name": name, "length": length, "canvas": _BODY, "tracks": tracks}


def _ellipse(
    name: str, size: tuple[float, float], colour: str, position: tuple[float, float], length: int
) -> dict[str, Any]:
    return {
        "kind": "shape",
        "name": name,
        "length": length,
        "form": {"kind": "ellipse", "size": size},
        "fill": {"kind": "plain", "colour": colour},
        "place": {"position": position},
    }
