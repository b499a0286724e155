"""What was acknowledged is there after the process was killed."""

from __future__ import annotations

import os
import signal
import subprocess
import sys

from django.conf import settings
from django.test import TransactionTestCase

from studio.projects import history
from studio.projects.models import Project
from studio.tests.site import People

_WORK = """
from studio.projects import history
from studio.projects.models import Project
from kitecore.document import SolidClip
from kitecore.edits import edit_kinds
while True:
    project = Project.objects.get()
    clip = SolidClip(name="s", length=705_600_000)
    step = history.apply_edit(project, project.head_id, edit_kinds["place"](clip=clip))
    print(step.revision.number, flush=True)
"""


class DurabilityTest(People, TransactionTestCase):
    def test_every_acknowledged_step_survives_a_kill(self) -> None:
        environment = {
            **os.environ,
            "VELVET_KITE_DATA": str(settings.DATA_DIR),
            "VELVET_KITE_DATABASE": str(settings.DATABASES["default"]["NAME"]),
        }
        command = [sys.executable, "manage.py", "shell", "--no-imports", "-c", _WORK]
        process = subprocess.Popen(
            command, cwd=settings.BASE_DIR, env=environment, stdout=subprocess.PIPE, text=True
        )
        assert process.stdout is not None
        for line in process.stdout:
            if int(line) >= 23:
                os.kill(process.pid, signal.SIGKILL)
                break
        acknowledged = [int(line), *(int(rest) for rest in process.stdout)]
        process.wait()
        process.stdout.close()
        project = Project.objects.select_related("head").get()
        head = history.head_of(project)
        self.assertGreaterEqual(head.number, acknowledged[-1])
        history._documents.clear()
        self.assertEqual(head.number, len(history.document_at(head).main.clips))
