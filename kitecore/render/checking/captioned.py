"""Captions that nobody can read in time."""

from collections.abc import Iterator

from kitecore.document import TextClip
from kitecore.document.clips.text import Saying
from kitecore.render.checking._base import Check, Film, Finding, checks
from kitecore.ticks import TICKS_PER_SECOND

_FASTEST = 20
"""Letters a second that few can follow."""
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


checks.register("captions")(Check(label="Captions can be read", of="picture", run=_captions))
