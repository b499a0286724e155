"""Takes as the page sees them."""

from __future__ import annotations

from datetime import datetime
from uuid import UUID

from ninja import Field, Schema

from kitecore.analysis import result_of, standing_for
from kitecore.analysis.strip import StripLayout, layout_of
from kitecore.media.info import MediaInfo
from studio.jobs.shown import JobOut, job_out
from studio.library.models import Take
from studio.problems import Problem


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
    job: JobOut | None
    facts: MediaInfo | None
    problem: Problem | None
    mark_in: int | None
    mark_out: int | None
    ranges: list[Part]
    shelf: int | None
    stars: int
    tag: str
    archive: bool
    """Whether it is a project that is being unpacked."""
    missing: bool
    made_at: datetime
    strip: StripLayout | None
    has_peaks: bool
    has_proxy: bool
    complete: bool
    """Whether its strip and waveform are made, as far as it has any."""


def take_out(take: Take) -> TakeOut:
    folder = take.folder
    strip = result_of(folder, "strip")
    return TakeOut(
        id=take.id,
        media=take.id.hex,
        name=take.name,
        bytes=take.bytes,
        received=take.received,
        state=take.state,
        job=job_out(take.job) if take.job else None,
        facts=take.facts,
        problem=take.problem,
        mark_in=take.mark_in,
        mark_out=take.mark_out,
        ranges=take.ranges,
        shelf=take.shelf_id,
        stars=take.stars,
        tag=take.tag,
        archive=take.archive,
        missing=take.state == Take.State.READY and not folder.original.exists(),
        made_at=take.made_at,
        strip=layout_of(strip) if strip else None,
        has_peaks=result_of(folder, "peaks") is not None,
        has_proxy=folder.proxy.exists(),
        complete=_is_complete(take),
    )


def _is_complete(take: Take) -> bool:
    """Whether all there is to find out about a ready take is found out."""
    if take.state != Take.State.READY or take.facts is None:
        return take.state == Take.State.REFUSED
    names = standing_for(MediaInfo.model_validate(take.facts))
    return all(result_of(take.folder, name) is not None for name in names)
