"""Stretches in which no clip shows, or in which all is black."""

from collections.abc import Iterator

from kitecore.render.checking._base import Check, Film, Finding, checks, clock, runs

_BLACK_SHARE = 0.995
_BLACK_SECONDS = 0.5
"""Shorter is a cut to black, which is meant."""


def _empty(film: Film) -> Iterator[Finding]:
    for first, last in runs(film.pictures.empty):
        yield Finding(
            check="empty",
            grade="bad",
            message=f"Nothing shows for {clock(film, last - first)}.",
            **film.stretch(first, last),
        )


def _black(film: Film) -> Iterator[Finding]:
    black = (film.pictures.dark >= _BLACK_SHARE) & ~film.pictures.empty
    for first, last in runs(black, film.frames(_BLACK_SECONDS)):
        yield Finding(
            check="black",
            grade="doubt",
            message=f"The picture is black for {clock(film, last - first)}.",
            **film.stretch(first, last),
        )


checks.register("empty")(Check(label="No empty stretches", of="picture", run=_empty))
checks.register("black")(Check(label="No black stretches", of="picture", run=_black))
