"""Waking workers. Lost or doubled wake-ups do no harm: the rows say what there is to do."""

from __future__ import annotations

from huey.contrib.djhuey import db_task


@db_task()
def work() -> None:
    """Do the most urgent job that waits; then somebody looks for the next."""
    from studio.jobs.running import run_next

    if run_next():
        wake()


def wake(after: float = 0.0) -> None:
    """Have a worker look for what there is to do, in so many seconds."""
    if after > 0:
        work.schedule(delay=after)
    else:
        work()
