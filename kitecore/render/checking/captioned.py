"""Captions that nobody can read in time, and those that are missing."""

from collections.abc import Iterator

from kitecore.document import TextClip
from kitecore.document.clips.text import Saying
from kitecore.render.checking._base import Check, Film, Finding, checks
from kitecore.render.speaking import spoken_stretches
from kitecore.ticks import TICKS_PER_SECOND

_FASTEST = 20
"""Letters a second that few can follow."""
_SPOKEN = 1.5
"""Seconds of speech from which on a film is not understood without sound."""
_LONGEST = 84
"""Letters: two lines of what a screen holds beside each other."""


def _captions(film: Film) -> Iterator[Finding]:
    for track in film.document.tracks:
        for clip in track.clips if track.captions else ():
            if isinstance(clip, TextClip):
                for said in clip.sayings:
                    yield from _too_much(clip, said)


def _too_much(clip: TextClip, said: Saying) -> Iterator[Finding]:
    letters = len("".join(said.words.split()))
    pace = letters / ((said.end - said.begin) / TICKS_PER_SECOND)
    told = None
    if pace > _FASTEST:
        told = f"is too fast to read: {pace:.0f} letters a second."
    elif len(said.words) > _LONGEST:
        told = f"is long: {len(said.words)} letters at once."
    if told:
        yield Finding(
            check="captions",
            grade="doubt",
            message=f"The caption “{clip.name[:24]}” {told}",
            at=said.begin,
            until=said.end,
            clip=clip.id,
        )


def _uncaptioned(film: Film) -> Iterator[Finding]:
    tracks = film.document.tracks
    if any(track.captions and track.clips and not track.hidden for track in tracks):
        return
    said = spoken_stretches(film.document, [track.id for track in tracks], film.sources)
    seconds = sum(until - at for at, until in said) / TICKS_PER_SECOND
    if seconds >= _SPOKEN:
        yield Finding(
            check="uncaptioned",
            grade="doubt",
            message=f"Somebody speaks for {seconds:.0f} s, and there are no captions.",
            at=said[0][0],
            until=said[-1][1],
        )


checks.register("captions")(Check(label="Captions can be read", of="picture", run=_captions))
checks.register("uncaptioned")(
    Check(label="What is said can be read", of="picture", run=_uncaptioned)
)
