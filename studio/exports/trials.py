"""What jobs that look at a film, without making it, have in common."""

from __future__ import annotations

from kitecore.document import Document
from kitecore.errors import Superseded
from studio.jobs.models import Job
from studio.projects import history
from studio.projects.models import Revision


def document_of(job: Job) -> Document:
    """The document of the revision that a job is about.

    Raises
    ------
    Superseded
        If its project was deleted.
    """
    revision = Revision.objects.filter(pk=job.args["revision"]).first()
    if revision is None:
        raise Superseded("The project was deleted.")
    return history.document_at(revision)
