"""Words read aloud by a machine, with the time of each of their sounds.

The reading is made by espeak-ng, in a program of its own: ``python -m kitecore.speech.reading``
takes JSON (``text``, ``voice``) and answers with a line of JSON and the sound as int16.
"""

from __future__ import annotations

import ctypes
import json
import subprocess
import sys
from dataclasses import dataclass
from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

from kitecore.errors import BadInput, KiteError
from kitecore.programs import GIB, Tell, run_limited

LANGUAGES: Final[dict[str, str]] = {
    "en": "English",
    "en-us": "English, American",
    "de": "German",
    "fr": "French",
    "es": "Spanish",
    "it": "Italian",
    "pt": "Portuguese",
    "nl": "Dutch",
    "sv": "Swedish",
    "pl": "Polish",
    "cs": "Czech",
    "tr": "Turkish",
    "uk": "Ukrainian",
    "hi": "Hindi",
}
"""In which words can be read, by the names of their voices."""

MOST_LETTERS: Final = 6000
_LONGEST: Final = 30
"""Seconds that reading may take; a minute of speech takes a tenth of one."""
_MEMORY: Final = 2 * GIB


class NoVoice(KiteError):
    code = "no_voice"
    default_todo = "Have the sound alone lead the mouth, or tap it."


@dataclass(frozen=True)
class Said:
    """A sound of speech from one second to another; no sign for a pause."""

    sign: str
    begin: float
    end: float


@dataclass(frozen=True)
class Word:
    """Where a word begins: the number of its first letter in the text, and the second."""

    letter: int
    begin: float


@dataclass(frozen=True)
class Reading:
    """float32 of one channel, full scale 1, at ``rate``, and what is said in it, without gaps.

    ``words`` are those of the text, in order.
    """

    sound: NDArray[np.float32]
    rate: int
    said: tuple[Said, ...]
    words: tuple[Word, ...] = ()


def read(text: str, voice: str = "en") -> Reading:
    """Words as they are read by a voice: the name of a language, ``+`` a variant if wanted.

    Raises
    ------
    BadInput
        If there is nothing to read, or too much.
    NoVoice
        If the reading fails.
    """
    if not text.strip():
        raise BadInput("There are no words.", todo="Type what is said.")
    if len(text) > MOST_LETTERS:
        raise BadInput(f"At most {MOST_LETTERS} letters are read at once.")
    command = [sys.executable, "-m", __name__]
    given = json.dumps({"text": text, "voice": voice}).encode()
    try:
        done = subprocess.run(command, input=given, capture_output=True, timeout=_LONGEST)
    except subprocess.TimeoutExpired as error:
        raise NoVoice("Reading the words takes too long.") from error
    head, _, sound = done.stdout.partition(b"\n")
    if done.returncode or not sound:
        raise NoVoice("These words cannot be read aloud here.")
    told = json.loads(head)
    samples = np.frombuffer(sound, np.int16).astype(np.float32) / np.float32(32768)
    signs, places = told["signs"], [at / told["rate"] for at in told["places"]]
    ends = [*places[1:], len(samples) / told["rate"]]
    row = zip(signs, places, ends, strict=True)
    words = tuple(Word(letter, at / told["rate"]) for letter, at in told["words"])
    said = tuple(Said(*one) for one in row if one[2] > one[1])
    return Reading(samples, told["rate"], said, words)


class _Id(ctypes.Union):
    _fields_ = (("number", ctypes.c_int), ("name", ctypes.c_char_p), ("sign", ctypes.c_char * 8))


class _Event(ctypes.Structure):
    """As ``speak_lib.h`` has it."""

    _fields_ = (
        ("type", ctypes.c_int),
        ("unique", ctypes.c_uint),
        ("text_position", ctypes.c_int),
        ("length", ctypes.c_int),
        ("audio_position", ctypes.c_int),
        ("sample", ctypes.c_int),
        ("user_data", ctypes.c_void_p),
        ("id", _Id),
    )


_LIBRARY: Final = "libespeak-ng.so.1"
_AT_ONCE: Final = 2
_SIGNS_IN_IPA: Final = 3
_UTF8: Final = 1
_LAST: Final = 0
_WORD: Final = 1
_SIGN: Final = 7
"""Of ``speak_lib.h``: the sound is given as it is made; events tell of signs; what they are."""

_Heard = ctypes.CFUNCTYPE(
    ctypes.c_int, ctypes.POINTER(ctypes.c_short), ctypes.c_int, ctypes.POINTER(_Event)
)


def _read_here(text: str, voice: str) -> dict[str, Any]:
    library = ctypes.CDLL(_LIBRARY)
    rate = library.espeak_Initialize(_AT_ONCE, 200, None, _SIGNS_IN_IPA)
    if rate <= 0 or library.espeak_SetVoiceByName(voice.encode()):
        raise NoVoice("There is no such voice.")
    sound, signs, places, words = bytearray(), [""], [0], list[tuple[int, int]]()

    def hear(samples: Any, count: int, events: Any) -> int:
        if samples and count:
            sound.extend(ctypes.string_at(samples, 2 * count))
        for event in _until_last(events):
            if event.type == _WORD:
                # It counts letters from 1.
                words.append((event.text_position - 1, event.sample))
            sign = event.id.sign.decode(errors="ignore") if event.type == _SIGN else "("
            # Words of another language are told in brackets.
            if not sign.startswith("("):
                signs.append(sign)
                places.append(event.sample)
        return 0

    heard = _Heard(hear)
    library.espeak_SetSynthCallback(heard)
    data = text.encode() + b"\0"
    library.espeak_Synth(data, len(data), 0, 1, 0, _UTF8, None, None)
    told = {"rate": rate, "signs": signs, "places": places, "words": words}
    return told | {"sound": bytes(sound)}


def _until_last(events: Any) -> Any:
    place = 0
    while events[place].type != _LAST:
        yield events[place]
        place += 1


def main() -> int:
    given = json.load(sys.stdin)

    def work(_: Tell) -> None:
        found = _read_here(given["text"], given["voice"])
        sound = found.pop("sound")
        sys.stdout.buffer.write(json.dumps(found).encode() + b"\n" + sound)

    return run_limited(work, memory=_MEMORY, cpu=_LONGEST)


if __name__ == "__main__":
    sys.exit(main())
