"""Takes that are not there, or of which only a small copy is."""

from collections.abc import Iterator

from kitecore.render.checking._base import Check, Film, Finding, checks
from kitecore.render.checking.within import named_once


def _missing(film: Film) -> Iterator[Finding]:
    for lies, media in named_once(film.lies):
        if not film.sources.folder(media).original.exists():
            yield Finding(
                check="missing",
                grade="bad",
                message=f"The take of “{lies.clip.name}” is missing.",
                at=film.tick(int(lies.frames[0])),
                clip=lies.outer.id,
            )


checks.register("missing")(Check(label="All takes are there", of="file", run=_missing))
