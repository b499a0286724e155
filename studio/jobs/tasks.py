"""Where Huey looks for tasks."""

from studio.jobs.waking import work

__all__ = ["work"]
