from __future__ import annotations

import os
import signal
import subprocess
import sys
import tempfile
import time
from pathlib import Path
from threading import Event
from typing import Any
from unittest.mock import patch

from django.conf import settings
from django.db import connection
from django.test import TestCase, TransactionTestCase, override_settings

from kitecore.document import empty_document
from kitecore.edits import edit_kinds
from kitecore.errors import Superseded
from kitecore.media.tests.material import decoded_numbers
from kitecore.render.making.films import Film
from studio.exports import work
from studio.exports.models import Export
from studio.jobs import queue, running
from studio.jobs.kinds import job_kinds
from studio.jobs.models import Job
from studio.jobs.running import Notes
from studio.projects import history
from studio.tests.site import Calm, People, clip_of, take_of, work_off


class ExportTest(People, TestCase):
    def setUp(self) -> None:
        super().setUp()
        self.take = take_of(self.project, frames=200, sound=None)
        self.edit(kind="place", clip=clip_of(self.take, 6.0))

    def start(self, **settings: object) -> dict[str, object]:
        answer = self.call("post", f"/projects/{self.project.id}/exports", {"settings": [settings]})
        self.assertEqual(201, answer.status_code, answer.content)
        made: dict[str, object] = answer.json()[0]
        return made

    def film(self, id: object) -> list[int]:
        path = Path(tempfile.mkdtemp()) / "film"
        answer = self.mine.get(f"/api/exports/{id}/file")
        self.assertEqual(200, answer.status_code)
        path.write_bytes(b"".join(answer.streaming_content))
        return decoded_numbers(path)

    def look(self) -> dict[str, object]:
        found: dict[str, object] = self.call("get", f"/projects/{self.project.id}/exports").json()[
            0
        ]
        return found

    def test_from_start_to_download(self) -> None:
        made = self.start(long_side=160)
        self.assertEqual(("waiting", 180, 0), (made["job"]["state"], made["frames"], made["done"]))
        self.assertEqual(404, self.mine.get(f"/api/exports/{made['id']}/file").status_code)
        work_off()
        done = self.look()
        self.assertEqual(("done", 180), (done["job"]["state"], done["done"]))
        self.assertEqual(list(range(180)), self.film(made["id"]))
        self.assertEqual("Kites.mp4", done["filename"])
        self.assertEqual(404, self.other.get(f"/api/exports/{made['id']}/file").status_code)

    def test_a_second_export_encodes_only_what_changed(self) -> None:
        self.start(long_side=160)
        work_off()
        # A step in the last three seconds leaves the first piece as it was.
        self.edit(kind="split", at=clip_of(self.take, 5.0)["length"])
        clip = self.document()["tracks"][0]["clips"][1]["id"]
        self.edit(kind="adjust", clips=[clip], values={"place/turn": 1})
        self.start(long_side=160)
        with patch.object(
            Film, "encode_piece", autospec=True, side_effect=Film.encode_piece
        ) as encode:
            work_off()
        self.assertEqual([range(90, 180)], [call.args[2] for call in encode.call_args_list])
        self.assertEqual("done", self.look()["job"]["state"])

    def test_cancel_and_delete(self) -> None:
        made = self.start()
        path, job = f"/exports/{made['id']}", f"/jobs/{made['job']['id']}"
        self.assertEqual(422, self.call("delete", path).status_code)
        self.assertEqual("cancelled", self.call("post", f"{job}/cancel").json()["state"])
        work_off()
        self.assertEqual("cancelled", self.look()["job"]["state"])
        self.assertEqual(422, self.call("post", f"{job}/cancel").status_code)
        self.assertEqual(204, self.call("delete", path).status_code)
        self.assertFalse(Job.objects.filter(kind__in=("film", "piece")).exists())

    def test_cancelling_stops_a_piece_that_is_being_made(self) -> None:
        made = self.start()
        self.plan()
        job = queue.take()
        assert job is not None
        lost, encode = Event(), Film.encode_piece

        def cancelled_in_the_middle(*given: Any) -> None:
            self.call("post", f"/jobs/{made['job']['id']}/cancel")
            lost.set()
            encode(*given)

        with (
            patch.object(Film, "encode_piece", cancelled_in_the_middle),
            self.assertRaises(Superseded),
        ):
            job_kinds["piece"].run(job, Notes(job, lost))
        self.assertEqual([], [p for p in work.piece_store().folder.rglob("*") if "-" in p.name])

    def plan(self) -> None:
        """Let the film be cut into pieces, and no more."""
        job = queue.take()
        assert job is not None and job.kind == "film"
        with patch.object(running, "Pulse", Calm):
            running.run(job)

    def test_two_at_once_both_finish_and_share_their_pieces(self) -> None:
        films = [self.start(long_side=160), self.start(long_side=160)]
        with patch.object(
            Film, "encode_piece", autospec=True, side_effect=Film.encode_piece
        ) as encode:
            work_off()
        self.assertEqual(2, encode.call_count)
        for film in films:
            self.assertEqual(list(range(180)), self.film(film["id"]))

    def test_nobody_encodes_a_piece_that_another_is_encoding(self) -> None:
        self.start(long_side=160), self.start(long_side=160)
        self.plan(), self.plan()
        first, second = queue.take(), queue.take()
        assert first is not None and second is not None
        self.assertNotEqual(first.subject, second.subject)
        self.assertIsNone(queue.take())

    def test_planning_leaves_the_database_to_others(self) -> None:
        self.start()

        def key(*given: Any) -> str:
            self.assertEqual(before, len(connection.savepoint_ids))
            return "k" * 32

        before = len(connection.savepoint_ids)
        with patch("studio.exports.work.piece_key", key):
            self.plan()
        self.assertEqual(2, Job.objects.filter(kind="piece").count())

    def test_pieces_of_unfinished_films_are_not_pruned(self) -> None:
        self.start(long_side=160)
        self.plan()
        done = Job.objects.filter(kind="piece")[0]
        with patch.object(running, "Pulse", Calm):
            running.run(queue.take() or Job())
        done.refresh_from_db()
        self.assertEqual("done", done.state)
        with override_settings(EXPORT_PIECE_BYTES=1):
            work._prune()
        self.assertTrue(work.piece_store().path(done.subject).exists())
        work_off()
        self.assertEqual("done", self.look()["job"]["state"])

    def test_pieces_that_vanished_are_made_again_before_joining(self) -> None:
        made = self.start(long_side=160)
        self.plan()
        for _ in range(2):
            with patch.object(running, "Pulse", Calm):
                running.run(queue.take() or Job())
        gone = Job.objects.filter(kind="piece").first()
        work.piece_store().path(gone.subject).unlink()
        work_off()
        self.assertEqual(list(range(180)), self.film(made["id"]))

    def test_a_broken_piece_is_made_again_when_the_film_is_tried_again(self) -> None:
        made = self.start(long_side=160)
        self.plan()
        for _ in range(2):
            with patch.object(running, "Pulse", Calm):
                running.run(queue.take() or Job())
        work.piece_store().path(Job.objects.filter(kind="piece").first().subject).write_bytes(b"x")
        work_off()
        self.assertEqual("failed", self.look()["job"]["state"])
        self.call("post", f"/jobs/{made['job']['id']}/again")
        work_off()
        self.assertEqual(list(range(180)), self.film(made["id"]))

    def test_a_deleted_project_takes_its_films_and_its_own_takes_along(self) -> None:
        made = self.start(long_side=160)
        work_off()
        film = Export.objects.get(pk=made["id"]).path
        other = history.start_project(self.pip, "Other", empty_document())
        shared = take_of(self.project, "shared.mp4")
        place = edit_kinds["place"](clip=clip_of(shared))
        history.apply_edit(other, other.head_id, place)
        lone = self.take.folder.path
        with self.captureOnCommitCallbacks(execute=True):
            self.assertEqual(204, self.call("delete", f"/projects/{self.project.id}").status_code)
        self.assertEqual((False, False), (film.exists(), lone.exists()))
        self.assertTrue(shared.folder.original.exists())
        [left] = self.call("get", f"/projects/{other.id}/takes").json()
        self.assertEqual(shared.id.hex, left["media"])
        self.assertFalse(Job.objects.filter(kind__in=("film", "piece")).exists())

    def test_a_missing_take_fails_plainly(self) -> None:
        self.take.folder.original.unlink()
        self.start(quality="best")
        work_off()
        self.assertEqual("failed", self.look()["job"]["state"])
        self.assertIn("missing", self.look()["job"]["problem"]["message"])  # type: ignore[index]

    def test_an_empty_project_has_nothing_to_export(self) -> None:
        clip = self.document()["tracks"][0]["clips"][0]["id"]
        self.edit(kind="remove", clips=[clip])
        answer = self.call("post", f"/projects/{self.project.id}/exports", {})
        self.assertEqual(422, answer.status_code)
        self.assertIn("nothing to export", answer.json()["message"])


class KilledWorkerTest(People, TransactionTestCase):
    """A real worker process, killed in the middle; the next one goes on."""

    def worker(self) -> subprocess.Popen[bytes]:
        name = settings.DATABASES["default"]["NAME"]
        environment = {
            **os.environ,
            "VELVET_KITE_DATA": str(settings.DATA_DIR),
            "VELVET_KITE_DATABASE": str(name),
            "VELVET_KITE_SILENT": "2",
        }
        command = [sys.executable, "manage.py", "run_huey", "--quiet", "-w", "1"]
        return subprocess.Popen(
            command, cwd=settings.BASE_DIR, env=environment, start_new_session=True
        )

    def until(self, condition: object, seconds: float = 60) -> None:
        end = time.monotonic() + seconds
        while not condition():  # type: ignore[operator]
            self.assertLess(time.monotonic(), end, "it never happened")
            time.sleep(0.1)

    def test_an_export_outlives_its_worker(self) -> None:
        take = take_of(self.project, frames=400, size=(720, 1280), sound=None)
        self.edit(kind="place", clip=clip_of(take, 12.0))
        worker = self.worker()
        self.addCleanup(_kill, worker)
        self.call(
            "post", f"/projects/{self.project.id}/exports", {"settings": [{"quality": "best"}]}
        )
        pieces = Job.objects.filter(kind="piece")
        self.until(lambda: pieces.filter(state="done").exists())
        _kill(worker)
        self.assertNotEqual("done", Export.objects.get().job.state)
        finished = set(pieces.filter(state="done").values_list("pk", flat=True))
        successor = self.worker()
        self.addCleanup(_kill, successor)
        self.until(lambda: Export.objects.get().job.state == "done")
        self.assertTrue(all(p.attempts == 1 for p in pieces.filter(pk__in=finished)))
        self.assertEqual(list(range(360)), decoded_numbers(Export.objects.get().path))


def _kill(process: subprocess.Popen[bytes]) -> None:
    if process.poll() is None:
        os.killpg(process.pid, signal.SIGKILL)
        process.wait()
