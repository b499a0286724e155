"""Stretches in which much of the picture is at the end of what can be shown."""

from collections.abc import Iterator

import numpy as np
from numpy.typing import NDArray

from kitecore.render.checking._base import Check, Film, Finding, checks, runs

_CLIPPED = 0.2
_CRUSHED = 0.35
_SECONDS = 0.5


def _found(film: Film, shares: NDArray[np.float32], most: float, told: str) -> Iterator[Finding]:
    for first, last in runs((shares > most) & (shares < 0.99), film.frames(_SECONDS)):
        share = round(100 * float(shares[first:last].mean()))
        yield Finding(
            check="exposure",
            grade="doubt",
            message=f"{share} % of the picture is {told}.",
            **film.stretch(first, last),
        )


def _exposure(film: Film) -> Iterator[Finding]:
    yield from _found(film, film.pictures.clipped, _CLIPPED, "as bright as it can be")
    yield from _found(film, film.pictures.crushed, _CRUSHED, "wholly black")


checks.register("exposure")(
    Check(label="Lights and shadows keep their detail", of="picture", run=_exposure)
)
