"""Captions that nobody can read in time."""

from collections.abc import Iterator

from kitecore.document import TextClip
from kitecore.render.checking._base import Check, Film, Finding, checks
from kitecore.ticks import TICKS_PER_SECOND

_FASTEST = 20
"""Letters a second that few can follow."""
_LONGEST = 84
"""Letters: two lines of what a screen holds beside each other."""


def _captions(film: Film) -> Iterator[Finding]:
    for track in film.document.tracks:
        for clip in track.clips if track.captions else ():
            if not isinstance(clip, TextClip):
                continue
            letters = len("".join(clip.text.split()))
            pace = letters / (clip.length / TICKS_PER_SECOND)
            told = None
            if pace > _FASTEST:
                told = f"is too fast to read: {pace:.0f} letters a second."
            elif len(clip.text) > _LONGEST:
                told = f"is long: {len(clip.text)} letters at once."
            if told:
                yield Finding(
                    check="captions",
                    grade="doubt",
                    message=f"The caption “{clip.name[:24]}” {told}",
                    at=clip.start,
                    until=clip.end,
                    clip=clip.id,
                )


checks.register("captions")(Check(label="Captions can be read", of="picture", run=_captions))
