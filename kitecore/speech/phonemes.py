"""Which pose shows a sound of speech, told in the International Phonetic Alphabet."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import groupby
from typing import Final

from kitecore.document.poses import REST

_SIGNS: Final = {
    "closed": "m b p ɓ β ɸ",
    "small": "t d n k ɡ g ŋ ɲ ɾ r ɹ ɻ ʁ ʀ x ɣ h ɦ ç q ʔ c ɟ ə ɘ ɜ ɝ ɚ ɨ",
    "open": "a ɑ æ ʌ ɐ",
    "wide": "i ɪ e ɛ j",
    "round": "o ɔ ɒ u ʊ w ʍ y ø œ ɥ ɵ ɤ ɯ",
    "teeth": "f v ʋ ɱ",
    "tongue": "l ɫ ɬ ʎ ɭ θ ð",
    "smile": "s z ʃ ʒ ɕ ʑ ʂ ʐ",
}
_POSE: Final = {sign: pose for pose, signs in _SIGNS.items() for sign in signs.split()}
_WITH_TEETH: Final = "tdcɟ"
"""Stops that are made with the hiss after them: ch, j, ts."""
_FIRST: Final = 0.6
"""Of a gliding vowel, for what it begins with."""


def poses_of(sound: str) -> list[tuple[str, float]]:
    """Poses that show one sound, in turn, each with its share of the time; in a pause that of rest.

    Marks of length, stress and colouring are passed over, and so are unknown signs.
    """
    found = [pose for pose, _ in groupby(_signs(sound))]
    if len(found) > 1 and sound[0] in _WITH_TEETH and found[1] == "smile":
        found = found[1:]
    if not found:
        return [(REST, 1.0)]
    if len(found) == 1:
        return [(found[0], 1.0)]
    rest = (1 - _FIRST) / (len(found) - 1)
    return [(pose, rest if place else _FIRST) for place, pose in enumerate(found)]


def posed_within(sound: str, begin: float, end: float) -> Iterator[tuple[str, float, float]]:
    """Poses of a sound that lasts from one moment to another, in turn, each with its own moments."""
    at, length = begin, end - begin
    for pose, share in poses_of(sound):
        yield pose, at, at + share * length
        at += share * length


def lips_meet(sound: str) -> bool:
    """Whether a sound is made with closed lips: m, b, p."""
    return any(_POSE.get(sign) == "closed" for sign in sound)


def _signs(sound: str) -> Iterator[str]:
    return (_POSE[sign] for sign in sound if sign in _POSE)
