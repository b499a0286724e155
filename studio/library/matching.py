"""The job of lining takes up; what is found of a pair of takes is kept."""

from __future__ import annotations

from collections.abc import Callable
from uuid import UUID

from kitecore.analysis import result_of
from kitecore.analysis.lining import Facts, Unplaced, lined_up
from kitecore.analysis.match import Match, Other, read_match
from kitecore.errors import NotThere
from kitecore.media.info import MediaInfo
from studio.jobs.kinds import WAITED_FOR, JobKind, Note, Outcome, job_kinds
from studio.jobs.models import Job
from studio.jobs.programs import Refused, run_program
from studio.library.models import Take, folder_of


def _line_up(job: Job, note: Note) -> Outcome:
    files = [Unplaced.model_validate(one) for one in job.args["files"]]
    takes = {file.take: _facts(job, file.take) for file in files}
    done = 0.0

    def tell(share: float) -> None:
        nonlocal done
        done = share
        note(done, "comparing")

    def ask(one: str, other: str) -> Match:
        return _match(one, other, lambda: note(done, "comparing"))

    found = lined_up(files, job.args["first"], takes, ask, tell)
    return {"found": [one.model_dump() for one in found]}


def _facts(job: Job, take: str) -> Facts:
    """What is known of a take of the job's owner."""
    known = Take.objects.filter(pk=UUID(take), owner=job.owner_id).first()
    if known is None:
        raise NotThere("A take that was to be lined up is not there any more.")
    info = MediaInfo.model_validate(known.facts)
    return Facts(clock=info.clock, sounds=info.sound is not None)


def _match(one: str, other: str, alive: Callable[[], None]) -> Match:
    """Of a pair of takes: kept from before, or found now by a program under limits."""
    folder, wanted = folder_of(one), Other(other=other)
    if result_of(folder, "match", wanted) is None:
        arguments = [str(folder.path), "match", wanted.model_dump_json()]
        try:
            run_program("kitecore.analysis", arguments, lambda doing, share: alive())
        except Refused:
            return Match()
    return read_match(folder, other)


job_kinds.register("line_up")(JobKind(run=_line_up, priority=WAITED_FOR))
