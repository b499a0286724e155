"""Captions from words that are said in a film."""

from __future__ import annotations

from typing import Annotated, Any, Final

import numpy as np
from pydantic import AfterValidator, Field

from kitecore.document import Document, Model
from kitecore.document.cues import Cue
from kitecore.errors import EditRefused
from kitecore.render.driving import TrackIds, among
from kitecore.render.mouths import LONGEST_READ, known_language
from kitecore.render.samples import mixed
from kitecore.render.sources import Sources
from kitecore.sound.ramps import RATE, sample_at
from kitecore.speech.features import energies_of
from kitecore.speech.reading import MOST_LETTERS, read
from kitecore.speech.wording import spoken_lines
from kitecore.ticks import TICKS_PER_SECOND

_AUDIBLE: Final = 1e-4


class Words(Model):
    """What is said, in what language, on which tracks: all that are heard where none is named."""

    text: str = Field(min_length=1, max_length=MOST_LETTERS)
    language: Annotated[str, AfterValidator(known_language)] = "en"
    tracks: TrackIds = ()


def captioned(document: Document, words: dict[str, Any], sources: Sources) -> dict[str, Any]:
    """Cues for the lines of a text, at the times at which they are said.

    Raises
    ------
    EditRefused
        If nothing is heard, or the film is too long.
    """
    wanted = Words.model_validate(words)
    if document.length > LONGEST_READ * TICKS_PER_SECOND:
        raise EditRefused(
            f"Words are laid over {LONGEST_READ // 60} minutes at most.",
            todo="Tap them in, or open a file of captions.",
        )
    heard = among(document.tracks, wanted.tracks)
    sound = mixed(heard, 0, sample_at(document.length), sources).mean(axis=1)
    if not np.abs(sound).max(initial=0) > _AUDIBLE:
        raise EditRefused("Nothing is heard in this film.", todo="Place a voice first.")
    energies = energies_of(np.asarray(sound, np.float32), RATE)
    lines = spoken_lines(wanted.text, energies, read(wanted.text, wanted.language))
    cues = [
        Cue(
            at=round(one.begin * TICKS_PER_SECOND),
            until=round(one.end * TICKS_PER_SECOND),
            text=one.text,
            words=tuple(round(second * TICKS_PER_SECOND) for second in one.words),
        )
        for one in lines
    ]
    return {"cues": [cue.model_dump() for cue in cues]}
