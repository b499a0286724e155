"""A document as a finished file, made in pieces that can be repeated anywhere and then joined."""

from __future__ import annotations

from fractions import Fraction
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Annotated, Final, Literal, Self

from pydantic import AfterValidator, BeforeValidator, Field, model_validator

from kitecore.document import Document, Model
from kitecore.errors import BadInput
from kitecore.media.folder import FindMedia
from kitecore.model import Start
from kitecore.render.extract import content_key
from kitecore.render.formats import Format, formats
from kitecore.render.making.captiontrack import said_in
from kitecore.render.making.following import facts_of
from kitecore.render.making.format import Joining, Pieced
from kitecore.render.making.framing import Fit, framed, whole
from kitecore.render.making.tags import Tags, chapters_of
from kitecore.render.making.work import Quality, Work
from kitecore.render.sources import Sources
from kitecore.ticks import RATES, Rate, Span

PIECE_FRAMES: Final = 90
"""Frames of a piece: what a killed worker loses at most."""

FILE_RATES: Final = tuple(
    sorted({Rate(10), Rate(25, 2), Rate(15), Rate(20), *RATES}, key=lambda rate: rate.fraction)
)
"""Frames a second that a file can have: those of projects, and slower ones."""


def _known(name: str) -> str:
    if name not in formats:
        raise ValueError(f"formats: {', '.join(sorted(formats))}")
    return name


class FileRate(Model):
    """Frames a second of a file as a fraction, one of `FILE_RATES`."""

    num: int = Field(gt=0, le=1_000_000)
    den: int = Field(default=1, gt=0, le=1001)

    @model_validator(mode="after")
    def _offered(self) -> Self:
        if Fraction(self.num, self.den) not in {rate.fraction for rate in FILE_RATES}:
            raise ValueError("frame rates: " + ", ".join(str(rate) for rate in FILE_RATES))
        return self

    @property
    def exact(self) -> Rate:
        reduced = Fraction(self.num, self.den)
        return Rate(reduced.numerator, reduced.denominator)


class Aspect(Model):
    """Width to height of a file that has another shape than the canvas."""

    width: int = Field(ge=1, le=64)
    height: int = Field(ge=1, le=64)


def _as_said_before(told: object) -> object:
    """Settings of before there were tracks say whether captions are seen."""
    return ("seen" if told else "left_out") if isinstance(told, bool) else told


Captions = Annotated[Literal["seen", "track", "left_out"], BeforeValidator(_as_said_before)]


class ExportSettings(Model):
    """What to make of a document.

    Attributes
    ----------
    long_side
        The most pixels of the longer side; 0 for the project's own size.
    first, last
        Bounds of the range in ticks; ``last`` 0 means to the end. A still shows ``first``.
    rate
        None for the project's own. A faster one shows frames twice.
    shape, fit
        Another shape than the canvas's, and how that lies in it.
    clear
        Whether the file stays see-through, if its format can.
    captions
        Seen in the picture, a track of the file that players show on request, or left out. Where a
        format has no such track they are seen.
    cover
        The tick whose picture is the file's cover, where the format has one; None for no cover.
    most_bytes
        What the file may weigh, if the format can be steered; 0 for whatever its quality weighs.
    """

    format: Annotated[str, AfterValidator(_known)] = "mp4"
    quality: Quality = "good"
    long_side: int = Field(default=0, ge=0, le=4096)
    first: Start = 0
    last: Start = 0
    rate: FileRate | None = None
    shape: Aspect | None = None
    fit: Fit = "fit"
    clear: bool = False
    captions: Captions = "seen"
    cover: Start | None = None
    most_bytes: int = Field(default=0, ge=0, le=2**40)

    @property
    def recipe(self) -> Format:
        return formats[self.format]

    def work(self, document: Document, crf: int | None = None) -> Work:
        """All that makers need to know; ``crf`` as it was found for ``most_bytes``.

        Raises
        ------
        BadInput
            If there is nothing to make.
        """
        captioned = self.captions == "track" and self.recipe.can_caption
        if captioned or self.captions == "left_out":
            document = _without_captions(document)
        canvas = document.canvas.width, document.canvas.height
        framing = whole(canvas, self.long_side)
        if self.shape is not None:
            shape = self.shape.width, self.shape.height
            framing = framed(canvas, shape, self.fit, self.long_side)
        rate = (self.rate or document.rate).exact
        numbers = self._numbers(document, rate)
        clear = self.clear and self.recipe.can_clear
        return Work(
            document,
            rate,
            numbers,
            framing,
            self.quality,
            clear=clear,
            crf=crf,
            captioned=captioned,
            cover=self._cover(document),
        )

    def _cover(self, document: Document) -> int | None:
        """On the last frame if the film has become shorter."""
        if self.cover is None or not self.recipe.can_cover:
            return None
        own = document.rate.exact
        return own.start_of(own.frame_at(max(0, min(self.cover, document.length - 1))))

    def _numbers(self, document: Document, rate: Rate) -> range:
        end = min(self.last or document.length, document.length)
        numbers = range(rate.frame_at(self.first), rate.frame_at(end))
        if not numbers:
            raise BadInput("There is nothing to export yet.", todo="Place a take first.")
        return numbers[:1] if self.recipe.kind == "still" else numbers


def _without_captions(document: Document) -> Document:
    tracks = tuple(
        one.model_copy(update={"hidden": True}) if one.captions else one for one in document.tracks
    )
    return document.model_copy(update={"tracks": tracks})


def plan(work: Work) -> list[range]:
    """The frames of each piece."""
    return [
        work.numbers[at : at + PIECE_FRAMES] for at in range(0, len(work.numbers), PIECE_FRAMES)
    ]


def piece_key(work: Work, recipe: Pieced, piece: range, find: FindMedia) -> str:
    """Name of a piece by its content: an export after a small change finds most of them made."""
    own = work.document.rate.exact
    shown = work.own_number(piece.start), work.own_number(piece[-1]) + 1
    span = Span(*map(own.start_of, shown))
    way = facts_of(work, span)
    facts = (work.rate.fraction, piece.start, piece.stop, recipe.facts(work), way)
    return content_key(work.document, span, find, *facts)


def tags_of(work: Work, title: str) -> Tags:
    """Title, chapters and captions of a file."""
    span = Span(work.rate.start_of(work.numbers.start), work.rate.start_of(work.numbers.stop))
    said = said_in(work.document, span) if work.captioned else ()
    return Tags(title, chapters_of(work.document, span), said)


def make(
    document: Document, settings: ExportSettings, path: Path, sources: Sources, *, title: str = ""
) -> None:
    """The whole file in one go, for whoever has no workers.

    Raises
    ------
    BadInput
        If there is nothing to make.
    """
    work, recipe, pieces = settings.work(document), settings.recipe, list[Path]()
    with TemporaryDirectory(dir=path.parent) as folder:
        if isinstance(recipe, Pieced):
            for number, piece in enumerate(plan(work)):
                pieces.append(Path(folder) / f"piece-{number}")
                recipe.encode_piece(work, piece, pieces[-1], sources)
        recipe.join(work, Joining(pieces, path, sources, tags_of(work, title)))
