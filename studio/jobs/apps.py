from __future__ import annotations

import os
import sys
from importlib import import_module
from importlib.util import find_spec

from django.apps import AppConfig, apps

from kitecore.programs import end_with_parent


class JobsConfig(AppConfig):
    name = "studio.jobs"

    def ready(self) -> None:
        """Let every app register its kinds of jobs, and be looked after in workers."""
        for app in apps.get_app_configs():
            if app.name.startswith("studio.") and find_spec(f"{app.name}.work"):
                import_module(f"{app.name}.work")
        import_module("studio.jobs.tending")
        if "run_huey" in sys.argv:
            # Whoever starts workers may be killed; a new one has workers of its own.
            os.register_at_fork(after_in_child=end_with_parent)
