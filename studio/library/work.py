"""Work on takes that takes long: taking one in, finding things out about it, lining several up."""

from __future__ import annotations

import json
import shutil
from collections.abc import Mapping
from uuid import UUID

from django.conf import settings
from django.db import connection, transaction
from huey.contrib.djhuey import on_startup

from kitecore.analysis import analyses, place_of, result_of, standing_for
from kitecore.analysis.lining import Facts, Lining
from kitecore.errors import NotThere
from kitecore.media.info import MediaInfo
from kitecore.media.proxy import is_outdated
from studio.jobs.kinds import IN_THE_BACKGROUND, WAITED_FOR, JobKind, Note, Outcome, job_kinds
from studio.jobs.models import Job
from studio.jobs.programs import run_program
from studio.jobs.queue import hand_out
from studio.library.digest import digest_of
from studio.library.models import Take

STANDING = WAITED_FOR - 1
"""Of analyses that every take gets, which a person sees at once; others come when there is time."""
_STAGES = {"sound": (0.0, 0.2), "proxy": (0.2, 1.0)}
"""Where in the whole each stage of taking in begins and ends."""


@transaction.atomic
def take_in(take: Take) -> Job:
    """Hand out the first look at a take and the making of its copies."""
    take.state, take.problem = Take.State.WAITING, None
    take.job = hand_out(take.owner, "take_in", take.id.hex)
    take.save(update_fields=["state", "problem", "job"])
    return take.job


def unpack(take: Take) -> None:
    """Hand out the unpacking of an archive that arrived."""
    take.state = Take.State.WAITING
    take.job = hand_out(take.owner, "unpack", take.id.hex)
    take.save(update_fields=["state", "job"])


def ask_for(
    take: Take,
    name: str,
    parameters: Mapping[str, object] | None = None,
    priority: int = IN_THE_BACKGROUND,
    kind: str = "analysis",
) -> Job | None:
    """Hand out an analysis of a take; none if its result is there.

    Of a ``kind`` of its own is what somebody waits for.
    """
    given = dict(parameters or {})
    wanted = analyses[name].parameters.model_validate(given)
    if result_of(take.folder, name, wanted) is not None:
        return None
    args = {"take": take.id.hex, "name": name, "parameters": given}
    subject = f"{take.id.hex}/{name}"
    return hand_out(take.owner, kind, subject, args=args, priority=priority)


@on_startup()
def find_out_what_is_missing() -> None:
    """Hand out what takes lack: analyses and proxies of before, or of an older version."""
    open_jobs = Job.objects.unfinished().filter(kind__in=("analysis", "renew"))
    asked = set(open_jobs.values_list("subject", flat=True))
    for take in Take.objects.filter(state=Take.State.READY, removed=False).select_related("owner"):
        if not take.folder.original.exists():
            continue
        info = MediaInfo.model_validate(take.facts)
        if is_outdated(info) and take.id.hex not in asked:
            hand_out(take.owner, "renew", take.id.hex, priority=IN_THE_BACKGROUND)
        for name in standing_for(info):
            if f"{take.id.hex}/{name}" not in asked:
                ask_for(take, name, priority=STANDING)
    connection.close()


def _take_of(id: str) -> Take | None:
    return Take.objects.filter(pk=UUID(id), removed=False).first()


def _take_in(job: Job, note: Note) -> None:
    take = _take_of(job.subject)
    if take is None or take.state == Take.State.READY:
        return
    if not take.digest and take.folder.original.exists():
        take.digest = digest_of(take.folder.original)
        take.save(update_fields=["digest"])

    def heard(stage: str, share: float) -> None:
        if stage in ("known", "remarked"):
            _keep_facts(take)
        begin, end = _STAGES.get(stage, (0.0, 0.0))
        note(max(begin + (end - begin) * share, job.share), stage)

    run_program("kitecore.media.ingest", [str(take.folder.path)], heard)
    _keep_facts(take)
    Take.objects.filter(pk=take.pk).update(state=Take.State.READY)
    for name in standing_for(MediaInfo.model_validate(take.facts)):
        ask_for(take, name, priority=STANDING)


def _renew(job: Job, note: Note) -> None:
    """Another proxy, and what is made of it; meanwhile the take is used as it is."""
    take = _take_of(job.subject)
    if take is None:
        return
    place = [str(take.folder.path), "proxy"]
    run_program("kitecore.media.ingest", place, lambda doing, share: note(share, doing))
    _keep_facts(take)
    shutil.rmtree(place_of(take.folder, "strip"), ignore_errors=True)
    ask_for(take, "strip", priority=STANDING)


def _keep_facts(take: Take) -> None:
    take.facts = json.loads(take.folder.info.model_dump_json())
    take.save(update_fields=["facts"])


def _refuse(job: Job, problem: Mapping[str, str]) -> None:
    """What was made of it so far goes; the file stays, to be tried again."""
    take = Take.objects.filter(pk=UUID(job.subject)).exclude(state=Take.State.READY).first()
    if take is None:
        return
    take.state, take.problem = Take.State.REFUSED, dict(problem)
    take.save(update_fields=["state", "problem"])
    if take.folder.path.exists():
        take.folder.forget_copies()


def _wait_again(job: Job) -> None:
    Take.objects.filter(pk=UUID(job.subject)).update(state=Take.State.WAITING, problem=None)


def _analyse(job: Job, note: Note) -> None:
    take, name = _take_of(job.args["take"]), job.args["name"]
    if take is None:
        return
    arguments = [str(take.folder.path), name, json.dumps(job.args["parameters"])]
    run_program("kitecore.analysis", arguments, lambda doing, share: note(share, doing))


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


job_kinds.register("take_in")(
    JobKind(run=_take_in, priority=WAITED_FOR, failed=_refuse, again=_wait_again)
)
job_kinds.register("renew")(JobKind(run=_renew, priority=IN_THE_BACKGROUND))
job_kinds.register("analysis")(JobKind(run=_analyse, priority=IN_THE_BACKGROUND))
job_kinds.register("track")(JobKind(run=_analyse, priority=WAITED_FOR))
job_kinds.register("line_up")(JobKind(run=_line_up, priority=WAITED_FOR))
