"""Silence, and sound on one side only."""

from collections.abc import Iterator

import numpy as np

from kitecore.render.checking._base import Check, Film, Finding, checks, runs
from kitecore.render.checking.sounds import SILENT, TENTHS
from kitecore.ticks import TICKS_PER_SECOND

_SECONDS = 2.0
_APART = 10 ** (24 / 20)
"""Times as loud on one side as on the other."""


def _silence(film: Film) -> Iterator[Finding]:
    if not film.sound.there:
        yield Finding(check="silence", grade="doubt", message="The film has no sound.")
        return
    quiet = np.maximum(film.sound.left, film.sound.right) < SILENT
    for first, last in runs(quiet, round(_SECONDS * TENTHS)):
        yield Finding(
            check="silence",
            grade="doubt",
            message=f"Nothing is heard for {(last - first) / TENTHS:.1f} s.",
            **_span(first, last),
        )


def _sides(film: Film) -> Iterator[Finding]:
    left, right = film.sound.left, film.sound.right
    for side, loud, soft in (("left", left, right), ("right", right, left)):
        only = (loud > SILENT * 4) & (loud > soft * _APART)
        for first, last in runs(only, round(_SECONDS * TENTHS)):
            yield Finding(
                check="sides",
                grade="doubt",
                message=f"Only the {side} side is heard for {(last - first) / TENTHS:.1f} s.",
                **_span(first, last),
            )


def _span(first: int, last: int) -> dict[str, int]:
    tick = TICKS_PER_SECOND // TENTHS
    return {"at": first * tick, "until": last * tick}


checks.register("silence")(Check(label="No silence", of="sound", run=_silence))
checks.register("sides")(Check(label="Both sides are heard", of="sound", run=_sides))
