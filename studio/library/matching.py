"""The job of lining takes up; what is found of a pair of takes is kept."""

from __future__ import annotations

from uuid import UUID

from django.conf import settings

from kitecore.analysis.lining import Facts, Lining
from kitecore.errors import NotThere
from kitecore.media.info import MediaInfo
from studio.jobs.kinds import WAITED_FOR, JobKind, Note, Outcome, job_kinds
from studio.jobs.models import Job
from studio.jobs.programs import run_program
from studio.library.models import Take


def _line_up(job: Job, note: Note) -> Outcome:
    takes = {file["take"] for file in job.args["files"]}
    facts = {take: _facts(job, take).model_dump() for take in takes}
    lining = Lining.model_validate({**job.args, "facts": facts})
    arguments = [str(settings.MEDIA_DIR), lining.model_dump_json()]
    run_program("kitecore.analysis.lining", arguments, lambda doing, share: note(share, doing))
    # All that it asks for is kept by now.
    return {"found": [one.model_dump() for one in lining.found(settings.MEDIA_DIR)]}


def _facts(job: Job, take: str) -> Facts:
    """What is known of a take of the job's owner."""
    known = Take.objects.filter(pk=UUID(take), owner=job.owner_id).first()
    if known is None:
        raise NotThere("A take that was to be lined up is not there any more.")
    info = MediaInfo.model_validate(known.facts)
    return Facts(clock=info.clock, sounds=info.sound is not None)


job_kinds.register("line_up")(JobKind(run=_line_up, priority=WAITED_FOR))
