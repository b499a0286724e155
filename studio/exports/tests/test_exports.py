from __future__ import annotations

import os
import signal
import subprocess
import sys
import tempfile
import time
from pathlib import Path
from unittest.mock import patch

from django.conf import settings
from django.test import TestCase, TransactionTestCase

from kitecore.media.tests.material import decoded_numbers
from studio.exports import tasks
from studio.exports.models import Export, Piece
from studio.tests.site import People, clip_of, take_of


def work() -> None:
    """Do what is handed out, in this process, until nothing is left."""
    for piece in Piece.objects.filter(state="waiting"):
        tasks.make_piece.call_local(piece.pk)


@patch("studio.exports.tasks.join_export", tasks.join_export.call_local)
@patch("studio.exports.tasks.make_piece", tasks.make_piece)
class ExportTest(People, TestCase):
    def setUp(self) -> None:
        super().setUp()
        self.take = take_of(self.project, frames=200, sound=None)
        self.edit(kind="place", clip=clip_of(self.take, 6.0))

    def start(self, **settings: object) -> dict[str, object]:
        answer = self.call("post", f"/projects/{self.project.id}/exports", {"settings": settings})
        self.assertEqual(201, answer.status_code, answer.content)
        made: dict[str, object] = answer.json()
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
        self.assertEqual(("waiting", 180, 0), (made["state"], made["frames"], made["done"]))
        self.assertEqual(404, self.mine.get(f"/api/exports/{made['id']}/file").status_code)
        work()
        done = self.look()
        self.assertEqual(("done", 180), (done["state"], done["done"]))
        self.assertEqual(list(range(180)), self.film(made["id"]))
        self.assertEqual("Kites.mp4", done["filename"])
        self.assertEqual(404, self.other.get(f"/api/exports/{made['id']}/file").status_code)

    def test_a_second_export_encodes_only_what_changed(self) -> None:
        self.start(long_side=160)
        work()
        # A step in the last three seconds leaves the first piece as it was.
        self.edit(kind="split", at=clip_of(self.take, 5.0)["length"])
        clip = self.document()["tracks"][0]["clips"][1]["id"]
        self.edit(kind="adjust", clips=[clip], values={"place/turn": 1})
        self.start(long_side=160)
        with patch("studio.exports.tasks.encode_piece", wraps=tasks.encode_piece) as encode:
            work()
        self.assertEqual([range(90, 180)], [call.args[2] for call in encode.call_args_list])
        self.assertEqual("done", self.look()["state"])

    def test_cancel_and_delete(self) -> None:
        made = self.start()
        path = f"/exports/{made['id']}"
        self.assertEqual(422, self.call("delete", path).status_code)
        self.assertEqual("cancelled", self.call("post", f"{path}/cancel").json()["state"])
        work()
        self.assertEqual("cancelled", self.look()["state"])
        self.assertEqual(422, self.call("post", f"{path}/cancel").status_code)
        self.assertEqual(204, self.call("delete", path).status_code)

    def test_cancelling_stops_a_piece_that_is_being_made(self) -> None:
        made = self.start()
        piece = Piece.objects.first()
        assert piece is not None
        note = tasks._note_frames(piece)
        Export.objects.filter(pk=made["id"]).update(state="cancelled")
        with patch("studio.exports.tasks._BEAT", -1), self.assertRaises(tasks.Superseded):
            note(piece.first)

    def test_a_silent_worker_loses_its_piece_to_another(self) -> None:
        made = self.start(long_side=160)
        piece = Piece.objects.first()
        assert piece is not None
        self.assertTrue(tasks._claim(piece.pk))
        self.assertFalse(tasks._claim(piece.pk))
        Piece.objects.filter(pk=piece.pk).update(heartbeat="2020-01-01T00:00:00Z")
        with patch("studio.exports.tasks.make_piece", tasks.make_piece.call_local):
            tasks.tend_exports.call_local()
        work()
        self.assertEqual(list(range(180)), self.film(made["id"]))

    def test_failing_again_and_again_ends_with_a_reason(self) -> None:
        self.start()
        Piece.objects.update(state="working", attempts=3, heartbeat="2020-01-01T00:00:00Z")
        tasks.tend_exports.call_local()
        self.assertEqual("failed", self.look()["state"])
        self.assertTrue(self.look()["problem"]["todo"])  # type: ignore[index]

    def test_a_missing_take_fails_plainly(self) -> None:
        self.take.folder.original.unlink()
        self.start(quality="best")
        work()
        self.assertEqual("failed", self.look()["state"])
        self.assertIn("missing", self.look()["problem"]["message"])  # type: ignore[index]

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
        self.call("post", f"/projects/{self.project.id}/exports", {"settings": {"quality": "best"}})
        self.until(lambda: Piece.objects.filter(state="done").exists())
        _kill(worker)
        self.assertNotEqual("done", Export.objects.get().state)
        finished = set(Piece.objects.filter(state="done").values_list("pk", flat=True))
        successor = self.worker()
        self.addCleanup(_kill, successor)
        self.until(lambda: Export.objects.get().state == "done")
        self.assertTrue(all(p.attempts == 1 for p in Piece.objects.filter(pk__in=finished)))
        self.assertEqual(list(range(360)), decoded_numbers(Export.objects.get().path))


def _kill(process: subprocess.Popen[bytes]) -> None:
    if process.poll() is None:
        os.killpg(process.pid, signal.SIGKILL)
        process.wait()
