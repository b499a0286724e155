from __future__ import annotations

from collections.abc import Callable
from datetime import datetime, timedelta
from threading import Event
from typing import Any
from unittest.mock import patch

from django.test import TestCase, TransactionTestCase, override_settings
from django.utils import timezone

from kitecore.errors import BadInput, RenderFailed, Superseded
from studio.jobs import queue, running
from studio.jobs.kinds import InParts, JobKind, Later, Note, Outcome, Part, job_kinds
from studio.jobs.models import Job
from studio.jobs.programs import Interrupted
from studio.jobs.running import Notes, Pulse
from studio.tests.site import Calm, People, work_off

Run = Callable[[Job, Note], Outcome]


def seconds_until(moment: str) -> float:
    return (datetime.fromisoformat(moment) - timezone.now()).total_seconds()


class Kinds(People):
    """Kinds of jobs for a test: ``self.kind(name, run)`` registers one."""

    def setUp(self) -> None:
        super().setUp()
        self.enterContext(patch.dict(job_kinds._entries))
        self.told: list[str] = []

    def kind(self, name: str, run: Run = lambda job, note: None, **more: Any) -> None:
        job_kinds._entries[name] = JobKind(run=run, **{"priority": 10, **more})

    def job(self, kind: str = "plain", subject: str = "") -> Job:
        return queue.hand_out(self.pip, kind, subject or f"s{Job.objects.count()}")

    def state(self, job: Job) -> str:
        job.refresh_from_db()
        return job.state

    def silence(self, job: Job, by: timedelta = -2 * queue.SILENT) -> None:
        Job.objects.filter(pk=job.pk).update(heartbeat=timezone.now() + by)


@override_settings(JOBS_EACH=9)
class QueueTest(Kinds, TestCase):
    def test_the_most_urgent_goes_first_then_the_oldest(self) -> None:
        self.kind("later", priority=1)
        self.kind("now", priority=5)
        jobs = [self.job(kind) for kind in ("later", "now", "later", "now")]
        taken = [queue.take() for _ in range(4)]
        self.assertEqual([jobs[n] for n in (1, 3, 0, 2)], taken)
        self.assertIsNone(queue.take())

    def test_people_take_turns(self) -> None:
        self.kind("plain")
        mine = [self.job() for _ in range(4)]
        theirs = [queue.hand_out(self.wren, "plain", f"w{number}") for number in range(2)]
        taken = [queue.take() for _ in range(6)]
        self.assertEqual([mine[0], theirs[0], mine[1], theirs[1], *mine[2:]], taken)

    @override_settings(JOBS_EACH=2)
    def test_one_person_never_has_all_workers(self) -> None:
        self.kind("plain")
        mine = [self.job() for _ in range(4)]
        self.assertEqual(mine[:2], [queue.take(), queue.take()])
        self.assertIsNone(queue.take())
        theirs = queue.hand_out(self.wren, "plain", "w")
        self.assertEqual(theirs, queue.take())
        mine[0].refresh_from_db()
        queue.finish(mine[0], None)
        self.assertEqual(mine[2], queue.take())

    def test_of_one_subject_only_one_is_worked_on(self) -> None:
        self.kind("plain")
        first, second = self.job(subject="same"), self.job(subject="same")
        self.assertEqual(first, queue.take())
        self.assertIsNone(queue.take())
        first.refresh_from_db()
        queue.finish(first, {"found": 3})
        self.assertEqual(second, queue.take())
        self.assertEqual(
            ("done", {"found": 3}, 1.0), (self.state(first), first.result, first.share)
        )

    def test_what_a_silent_worker_had_is_given_out_again(self) -> None:
        self.kind("plain", attempts=2)
        job = self.job()
        mine = queue.take()
        assert mine is not None
        queue.tend()
        self.assertEqual("working", self.state(job))
        self.silence(job)
        queue.tend()
        self.assertEqual("waiting", self.state(job))
        self.assertFalse(queue.beat(mine))
        queue.finish(mine, None)
        queue.fail(mine, RenderFailed("too late"))
        self.assertEqual("waiting", self.state(job))

    def test_a_clock_that_was_set_back_keeps_nothing_waiting(self) -> None:
        self.kind("plain")
        job = self.job()
        queue.take()
        self.silence(job, by=timedelta(hours=1))
        queue.tend()
        self.assertEqual("waiting", self.state(job))

    def test_failing_again_and_again_ends_with_a_reason(self) -> None:
        self.kind("plain", attempts=2, failed=lambda job, why: self.told.append(why["message"]))
        job = self.job()
        for _ in range(2):
            queue.take()
            self.silence(job)
            queue.tend()
        self.assertEqual("failed", self.state(job))
        self.assertTrue(job.problem["todo"])
        self.assertEqual([job.problem["message"]], self.told)

    def test_a_job_in_parts_is_run_again_when_they_are_done(self) -> None:
        def whole(job: Job, note: Note) -> Outcome:
            self.told.append(f"whole with {job.parts.count()}")
            return (
                None if job.parts.exists() else InParts([Part("part", f"p{n}") for n in range(3)])
            )

        self.kind("whole", whole)
        self.kind("part", lambda job, note: self.told.append(job.subject))
        job = self.job("whole")
        work_off()
        self.assertEqual(["whole with 0", "p0", "p1", "p2", "whole with 3"], self.told)
        self.assertEqual("done", self.state(job))

    def test_a_worker_that_died_between_last_part_and_whole_leaves_nothing_waiting(self) -> None:
        self.kind("whole", lambda job, note: None)
        self.kind("part")
        job = self.job("whole")
        mine = queue.take()
        assert mine is not None
        queue.split(mine, [Part("part", "p")])
        with patch.object(queue, "_release"):
            work_off()
        self.assertEqual("holding", self.state(job))
        queue.tend()
        work_off()
        self.assertEqual("done", self.state(job))

    def test_a_failing_part_ends_the_whole_and_its_other_parts(self) -> None:
        def broken(job: Job, note: Note) -> Outcome:
            raise BadInput("the second is bad") if job.subject == "p1" else RenderFailed("never")

        parts = [Part("part", "p0"), Part("bad", "p1"), Part("part", "p2")]
        self.kind("whole", lambda job, note: InParts(parts))
        self.kind("part", priority=1)
        self.kind("bad", broken, priority=2)
        job = self.job("whole")
        work_off()
        self.assertEqual(("failed", "the second is bad"), (self.state(job), job.problem["message"]))
        states = sorted(job.parts.values_list("subject", "state"))
        self.assertEqual([("p0", "cancelled"), ("p1", "failed"), ("p2", "cancelled")], states)

    def test_cancelled_work_stops_at_its_next_note_and_can_be_tried_again(self) -> None:
        def slow(job: Job, note: Note) -> Outcome:
            self.told.append("begun")
            if len(self.told) == 1:
                queue.cancel(Job.objects.get(pk=job.pk))
            note(0.5, "still at it")
            return None

        self.kind("plain", slow)
        job = self.job()
        work_off()
        self.assertEqual("cancelled", self.state(job))
        with self.assertRaises(BadInput):
            queue.cancel(job)
        queue.try_again(job)
        work_off()
        self.assertEqual(("done", None), (self.state(job), job.problem))
        with self.assertRaises(BadInput):
            queue.try_again(job)

    def test_mistakes_of_ours_end_a_job_plainly(self) -> None:
        def wrong(job: Job, note: Note) -> Outcome:
            raise ZeroDivisionError

        self.kind("plain", wrong)
        job = self.job()
        with self.assertLogs("studio.jobs.running", "ERROR"):
            work_off()
        self.assertEqual("failed", self.state(job))
        self.assertNotIn("Traceback", job.problem["message"])

    def test_work_that_was_interrupted_waits_for_another_worker(self) -> None:
        def killed(job: Job, note: Note) -> Outcome:
            raise Interrupted("killed")

        self.kind("plain", killed, attempts=3)
        job = self.job()
        with patch.object(running, "Pulse", Calm):
            running.run(queue.take() or Job())
        self.assertEqual("waiting", self.state(job))
        work_off()
        self.assertEqual(("failed", "interrupted"), (self.state(job), job.problem["code"]))

    def test_work_that_is_put_off_is_gone_on_with_when_it_is_due(self) -> None:
        def patient(job: Job, note: Note) -> Outcome:
            self.told.append(job.doing)
            return Later(60, "waiting for rain") if len(self.told) == 1 else {"rain": True}

        self.kind("plain", patient)
        job = self.job()
        self.assertEqual(1, work_off())
        self.assertEqual("waiting", self.state(job))
        self.assertEqual((0, "waiting for rain"), (job.attempts, job.doing))
        [told] = self.call("get", "/jobs").json()
        self.assertAlmostEqual(60, seconds_until(told["due_at"]), delta=5)
        Job.objects.update(due_at=timezone.now())
        work_off()
        self.assertEqual(("done", {"rain": True}), (self.state(job), job.result))

    def test_nobody_begins_what_is_not_due(self) -> None:
        self.kind("plain")
        soon = timezone.now() + timedelta(minutes=1)
        job = queue.hand_out(self.pip, "plain", "s", due_at=soon)
        self.assertIsNone(queue.take())
        Job.objects.update(due_at=timezone.now())
        self.assertEqual(job, queue.take())

    def test_notes_are_taken_when_the_work_changes_and_bounded(self) -> None:
        self.kind("plain")
        job = self.job()
        mine = queue.take()
        assert mine is not None
        note = Notes(mine, Event())
        note(1.7, "first")
        note(0.2, "first")
        job.refresh_from_db()
        self.assertEqual((1.0, "first"), (job.share, job.doing))
        note(0.3, "second")
        job.refresh_from_db()
        self.assertEqual((0.3, "second"), (job.share, job.doing))

    def test_nobody_else_sees_or_stops_a_job(self) -> None:
        self.kind("plain")
        job = self.job()
        self.assertEqual([str(job.id)], [one["id"] for one in self.call("get", "/jobs").json()])
        self.assertEqual([], self.call("get", "/jobs", client=self.other).json())
        for verb in ("cancel", "again"):
            path = f"/jobs/{job.id}/{verb}"
            self.assertEqual(404, self.call("post", path, client=self.other).status_code)
            self.assertEqual(401, self.call("post", path, client=self.stranger).status_code)
        self.assertEqual(401, self.stranger.get("/api/events").status_code)


class PulseTest(Kinds, TransactionTestCase):
    @override_settings(WORKER_SILENCE=0.2)
    def test_long_silent_work_keeps_its_job_until_it_is_taken_away(self) -> None:
        self.kind("plain")
        self.job()
        job = queue.take()
        assert job is not None
        begun = job.heartbeat
        with Pulse(job) as pulse:
            self.assertFalse(pulse.lost.wait(0.3))
            self.assertGreater(Job.objects.get().heartbeat, begun)
            Job.objects.update(claim=None, state="waiting")
            self.assertTrue(pulse.lost.wait(5))
        with self.assertRaises(Superseded):
            Notes(job, pulse.lost)(0.5)
