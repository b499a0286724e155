from __future__ import annotations

import json
from collections.abc import Iterator

from django.test import TransactionTestCase, override_settings

from studio.jobs import queue
from studio.jobs.events import stream, watch
from studio.jobs.kinds import Part
from studio.jobs.models import Job
from studio.tests.site import People


def changes(lines: Iterator[bytes]) -> Iterator[dict[str, str]]:
    for line in lines:
        if line.startswith(b"data: "):
            yield json.loads(line[6:])


class EventsTest(People, TransactionTestCase):
    @override_settings(STREAM_SECONDS=10)
    def test_whoever_listens_hears_of_their_own_jobs_and_of_the_whole_of_parts(self) -> None:
        lines = stream(self.pip.pk)
        self.assertEqual(b"retry: 500\n\n", next(lines))
        heard = changes(lines)
        queue.hand_out(self.wren, "analysis", "theirs")
        job = queue.hand_out(self.pip, "film", "f")
        self.assertEqual({"job": str(job.id), "kind": "film"}, next(heard))
        Job.objects.filter(owner=self.wren).delete()
        mine = queue.take()
        assert mine is not None
        self.assertEqual(str(job.id), next(heard)["job"])
        queue.split(mine, [Part("piece", "k")])
        self.assertEqual({"job": str(job.id), "kind": "film"}, next(heard))
        lines.close()
        self.assertNotIn(self.pip.pk, watch._boxes)

    @override_settings(STREAM_SECONDS=0.1)
    def test_a_stream_ends_by_itself(self) -> None:
        self.assertEqual(b": still here\n\n", list(stream(self.pip.pk))[-1])
        self.assertNotIn(self.pip.pk, watch._boxes)
