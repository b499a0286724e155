"""Films made by workers on other machines, which are killed and cut off in the middle."""

from __future__ import annotations

import os
import tempfile
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any
from unittest import skipUnless
from unittest.mock import patch

from django.conf import settings
from django.test import TransactionTestCase, override_settings
from redis import Redis

from kitecore.media.tests.material import decoded_numbers
from kitecore.render.handed import PieceTask
from studio.distant.board import Board, queue_of, task_on
from studio.distant.relay import Relay
from studio.distant.tests.machines import Machine, redis_server
from studio.exports import work
from studio.exports.models import Export
from studio.jobs import queue, running
from studio.jobs.models import Job, State
from studio.tests.site import Calm, People, clip_of, take_of

FRAMES = 360


@skipUnless(os.geteuid() == 0, "networks are made by root")
@override_settings(WORKER_SILENCE=3)
class DistantTest(People, TransactionTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.enterContext(patch("studio.jobs.queue.wake"))
        folder = Path(self.enterContext(tempfile.TemporaryDirectory()))
        self.port = self.enterContext(redis_server(folder))
        self.url = f"redis://127.0.0.1:{self.port}/0"
        take = take_of(self.project, frames=FRAMES, size=(360, 640), sound=None)
        self.edit(kind="place", clip=clip_of(take, FRAMES / 30))
        self.relay = Relay(self.url, work._task_of)

    def machine(self) -> Machine:
        made = Machine(self.port, settings.DATA_DIR)
        self.addCleanup(made.close)
        return made

    def begin(self) -> Job:
        """A film, cut into its pieces."""
        body = {"settings": [{"quality": "best"}]}
        self.call("post", f"/projects/{self.project.id}/exports", body)
        self.do("film")
        return Export.objects.get().job

    def do(self, kind: str) -> None:
        job = queue.take(kind)
        assert job is not None
        with patch.object(running, "Pulse", Calm):
            running.run(job)

    def step_until(self, condition: Callable[[], Any], seconds: float = 120) -> None:
        end = time.monotonic() + seconds
        while not condition():
            self.assertLess(time.monotonic(), end, self.states())
            self.relay.step()
            queue.tend()
            time.sleep(0.05)

    def states(self) -> dict[str, int]:
        rows = Job.objects.filter(kind="piece").values_list("state", flat=True)
        return {state: list(rows).count(state) for state in set(rows)}

    def all_made(self) -> bool:
        return set(self.states()) == {State.DONE}

    def begun(self) -> Job | None:
        """A piece of which a machine has told that it is in the middle."""
        rows = Job.objects.filter(kind="piece", state=State.WORKING, elsewhere=True)
        return rows.filter(share__gt=0.05, share__lt=0.8).first()

    def check_film(self) -> None:
        job = Export.objects.get().job
        self.step_until(lambda: Job.objects.get(pk=job.pk).state == State.WAITING)
        self.do("film")
        self.assertEqual(list(range(FRAMES)), decoded_numbers(Export.objects.get().path))
        self.assertEqual(4, Job.objects.filter(kind="piece").count())

    def test_two_machines_make_a_film(self) -> None:
        self.machine(), self.machine()
        self.begin()
        self.step_until(self.all_made)
        self.check_film()

    def test_one_that_is_killed_in_the_middle_loses_nothing(self) -> None:
        first = self.machine()
        self.begin()
        self.step_until(self.begun)
        first.kill()
        self.machine()
        self.step_until(self.all_made)
        self.check_film()

    def test_one_that_is_cut_off_does_no_harm_and_comes_back(self) -> None:
        first = self.machine()
        self.begin()
        self.step_until(self.begun)
        first.cut_off()
        self.step_until(lambda: not Job.objects.filter(state=State.WORKING).exists())
        self.assertIn(State.WAITING, self.states())
        first.join_again()
        self.step_until(self.all_made)
        self.check_film()

    def test_a_relay_that_dies_leaves_its_pieces_to_another(self) -> None:
        self.machine()
        self.begin()
        self.step_until(self.begun)
        Redis(port=self.port).delete(*Redis(port=self.port).keys("velvet-kite:relay:*"))
        self.relay = Relay(self.url, work._task_of)
        self.step_until(self.all_made)
        self.check_film()

    def test_what_is_cancelled_stops_there_too(self) -> None:
        self.machine()
        job = self.begin()
        self.step_until(self.begun)
        queue.cancel(job)
        self.step_until(lambda: Board(self.url).idle() == 1)
        self.assertEqual({State.CANCELLED}, set(self.states()))
        self.assertFalse(Job.objects.unfinished().exists())

    def test_a_take_that_is_not_there_leaves_the_piece_to_whoever_has_it(self) -> None:
        self.machine()
        self.begin()
        of = PieceTask.of

        def other(*given: Any) -> PieceTask:
            task = of(*given)
            return task.model_copy(update={"media": dict.fromkeys(task.media, 1)})

        with patch.object(PieceTask, "of", other):
            self.step_until(lambda: Job.objects.filter(args__has_key="here").count() == 4)
        self.assertEqual({State.WAITING}, set(self.states()))
        self.assertIsNone(queue.take("piece"))
        self.assertIsNotNone(queue.take())

    def test_one_of_another_version_takes_nothing(self) -> None:
        self.machine()
        self.step_until(lambda: Board(self.url).idle() == 1)
        older = Board(self.url, version="older")
        self.assertEqual(0, older.idle())
        task_on(queue_of(self.url, "older"), print)("{}")
        time.sleep(1.5)
        self.assertEqual(1, queue_of(self.url, "older").pending_count())
