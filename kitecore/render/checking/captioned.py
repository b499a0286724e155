"""Captions that nobody can read in time, that lie over each other, and those that are missing."""

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


def _overlapping(film: Film) -> Iterator[Finding]:
    """Of several tracks of captions, those that are on at once in one place."""
    tracks = [one for one in film.document.tracks if one.captions and not one.hidden]
    said = sorted(
        (
            (words.begin, words.end, number, clip)
            for number, track in enumerate(tracks)
            for clip in track.clips
            if isinstance(clip, TextClip)
            for words in clip.sayings
        ),
        key=lambda one: one[:3],
    )
    on: list[tuple[int, int, int, TextClip]] = []
    for begin, end, number, clip in said:
        on = [one for one in on if one[1] > begin]
        for _, until, other, before in on:
            if other != number and before.place.position == clip.place.position:
                yield Finding(
                    check="captions_over",
                    grade="doubt",
                    message=f"The captions “{before.name[:24]}” and “{clip.name[:24]}” lie over "
                    "each other.",
                    at=begin,
                    until=min(end, until),
                    clip=clip.id,
                )
        on.append((begin, end, number, clip))


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
checks.register("captions_over")(
    Check(label="Captions lie side by side", of="picture", run=_overlapping)
)
checks.register("uncaptioned")(
    Check(label="What is said can be read", of="picture", run=_uncaptioned)
)
