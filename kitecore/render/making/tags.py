"""What a file says about itself."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from av.container import OutputContainer

from kitecore.document import Document
from kitecore.render.making.captiontrack import Said
from kitecore.ticks import TICKS_PER_SECOND, Span


@dataclass(frozen=True)
class Tags:
    """What a file says besides what is seen and heard.

    Attributes
    ----------
    chapters
        Names, with the seconds at which each begins.
    said
        Captions that go into a track of the file.
    """

    title: str = ""
    chapters: tuple[tuple[str, Fraction], ...] = ()
    said: tuple[Said, ...] = ()


def chapters_of(document: Document, span: Span) -> tuple[tuple[str, Fraction], ...]:
    """The named markers of a timeline within a range, counted from its start."""
    named = [(one.name, one.at) for one in document.markers if one.name and one.at in span]
    return tuple(
        (name, Fraction(at - span.start, TICKS_PER_SECOND))
        for name, at in sorted(named, key=lambda one: one[1])
    )


def write_tags(out: OutputContainer, tags: Tags, seconds: Fraction) -> None:
    """Into a file of ``seconds`` that nothing has been written to yet."""
    if tags.title:
        out.metadata["title"] = tags.title
    ends = [*(begin for _, begin in tags.chapters[1:]), seconds]
    out.set_chapters(
        [
            {
                "id": number,
                "start": round(begin * 1000),
                "end": round(end * 1000),
                "time_base": Fraction(1, 1000),
                "metadata": {"title": name},
            }
            for number, ((name, begin), end) in enumerate(zip(tags.chapters, ends, strict=False))
        ]
    )
