"""Takes that are not there, or of which only a small copy is."""

from collections.abc import Iterator

from kitecore.document import all_clips
from kitecore.render.checking._base import Check, Film, Finding, checks


def _missing(film: Film) -> Iterator[Finding]:
    told: set[str] = set()
    for clip in all_clips(film.document.tracks):
        for media in sorted(clip.uses() - told):
            told.add(media)
            if not film.sources.folder(media).original.exists():
                yield Finding(
                    check="missing",
                    grade="bad",
                    message=f"The take of “{clip.name}” is missing.",
                    at=clip.start,
                    clip=clip.id,
                )


checks.register("missing")(Check(label="All takes are there", of="file", run=_missing))
