"""Takes as the page sees them."""

from __future__ import annotations

from datetime import datetime
from typing import Any
from uuid import UUID

from ninja import Field, Schema

from kitecore.media.info import MediaInfo
from studio.library.models import Take
from studio.problems import Problem


class StripLayout(Schema):
    """How the sheet of small pictures is laid out; ``step`` is ticks from one to the next."""

    step: int
    width: int
    height: int
    columns: int
    count: int


class Part(Schema):
    """A marked part of a take that was kept, in ticks of the file."""

    name: str = Field(default="", max_length=200)
    mark_in: int = Field(ge=0)
    mark_out: int = Field(ge=0)


class TakeOut(Schema):
    """A take. Times in ticks; ``media`` is its id as documents name it."""

    id: UUID
    media: str
    name: str
    bytes: int
    received: int
    state: str
    stage: str
    share: float
    facts: MediaInfo | None
    problem: Problem | None
    mark_in: int | None
    mark_out: int | None
    ranges: list[Part]
    shelf: int | None
    stars: int
    tag: str
    missing: bool
    made_at: datetime
    strip: StripLayout | None
    has_peaks: bool
    has_proxy: bool


def take_out(take: Take) -> TakeOut:
    folder = take.folder
    strip: dict[str, Any] | None = folder.strip_layout if folder.strip_facts.exists() else None
    return TakeOut(
        id=take.id,
        media=take.id.hex,
        name=take.name,
        bytes=take.bytes,
        received=take.received,
        state=take.state,
        stage=take.stage,
        share=take.share,
        facts=take.facts,
        problem=take.problem,
        mark_in=take.mark_in,
        mark_out=take.mark_out,
        ranges=take.ranges,
        shelf=take.shelf_id,
        stars=take.stars,
        tag=take.tag,
        missing=take.state == Take.State.READY and not folder.original.exists(),
        made_at=take.made_at,
        strip=strip,
        has_peaks=folder.peaks.exists(),
        has_proxy=folder.proxy.exists(),
    )
