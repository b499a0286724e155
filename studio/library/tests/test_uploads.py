from __future__ import annotations

import subprocess
from pathlib import Path
from tempfile import TemporaryDirectory
from unittest.mock import patch

from django.test import TestCase, override_settings

from kitecore.media.tests.material import make_video
from studio.library.models import Take
from studio.library.tasks import ingest_take, tend_takes
from studio.tests.site import People, Uploader


@patch("studio.library.tus.ingest_take")
class UploadTest(People, TestCase):
    def setUp(self) -> None:
        super().setUp()
        self.uploader = Uploader(self.mine)
        with TemporaryDirectory() as folder:
            self.film = make_video(Path(folder) / "x", frames=30).read_bytes()

    def test_pieces_are_put_together_and_handed_on_once(self, ingest: object) -> None:
        location = self.uploader.create(self.project, len(self.film))["Location"]
        third = len(self.film) // 3
        for at in range(0, len(self.film), third):
            self.assertEqual(at, self.uploader.offset(location))
            answer = self.uploader.send(location, at, self.film[at : at + third])
            self.assertEqual(204, answer.status_code)
        take = Take.objects.get()
        self.assertEqual(("waiting", "x.mp4"), (take.state, take.name))
        self.assertEqual(self.film, take.folder.original.read_bytes())
        ingest.assert_called_once_with(str(take.id))  # type: ignore[attr-defined]

    def test_after_a_broken_line_it_goes_on_where_it_was(self, ingest: object) -> None:
        location = self.uploader.create(self.project, len(self.film))["Location"]
        self.uploader.send(location, 0, self.film[:1000])
        take = Take.objects.get()
        with take.folder.original.open("ab") as file:
            file.write(b"bytes that were never acknowledged")
        self.assertEqual(409, self.uploader.send(location, 1034, self.film[1034:]).status_code)
        self.uploader.send(location, 1000, self.film[1000:])
        self.assertEqual(self.film, take.folder.original.read_bytes())

    def test_more_than_was_announced_is_not_taken(self, ingest: object) -> None:
        location = self.uploader.create(self.project, 500)["Location"]
        self.uploader.send(location, 0, self.film[:2000])
        self.assertEqual(500, Take.objects.get().folder.original.stat().st_size)

    def test_letters_are_refused_with_its_first_bytes(self, ingest: object) -> None:
        location = self.uploader.create(self.project, 10_000_000, "letter.mp4")["Location"]
        answer = self.uploader.send(location, 0, b"Dear workshop, " * 20)
        self.assertEqual((422, "not_media"), (answer.status_code, answer.json()["code"]))
        self.assertFalse(Take.objects.get().folder.original.exists())

    def test_names_never_become_paths(self, ingest: object) -> None:
        self.uploader.create(self.project, 100, "../../../etc/passwd")
        take = Take.objects.get()
        self.assertEqual("../../../etc/passwd", take.name)
        self.assertEqual(take.id.hex, take.folder.path.name)

    def test_limits(self, ingest: object) -> None:
        with override_settings(UPLOAD_LIMIT=1000):
            self.assertEqual(422, self.uploader.create(self.project, 1001).status_code)
        with override_settings(LIBRARY_LIMIT=1500):
            self.assertEqual(201, self.uploader.create(self.project, 1000).status_code)
            self.assertIn("full", self.uploader.create(self.project, 600).json()["message"])
        self.assertEqual(422, self.uploader.create(self.project, 0).status_code)

    def test_nobody_else_sees_or_goes_on_with_an_upload(self, ingest: object) -> None:
        location = self.uploader.create(self.project, 1000)["Location"]
        foreign = Uploader(self.other)
        self.assertEqual(404, self.other.head(location).status_code)
        self.assertEqual(404, foreign.send(location, 0, b"x").status_code)
        self.assertEqual(404, foreign.create(self.project, 10).status_code)
        self.assertEqual(401, self.stranger.head(location).status_code)

    def test_given_up_uploads_are_gone(self, ingest: object) -> None:
        location = self.uploader.create(self.project, 1000)["Location"]
        self.assertEqual(204, self.mine.delete(location).status_code)
        self.assertEqual(404, self.mine.head(location).status_code)
        self.assertEqual([], self.call("get", f"/projects/{self.project.id}/takes").json())


class IngestTaskTest(People, TestCase):
    def _take(self, data: bytes) -> Take:
        take = Take.objects.create(
            owner=self.pip, project=self.project, name="x", bytes=len(data), state="waiting"
        )
        take.folder.path.mkdir(parents=True)
        take.folder.original.write_bytes(data)
        return take

    def test_a_crashing_decoder_is_a_refusal_and_no_more(self) -> None:
        take = self._take(b"anything")
        with patch("studio.library.tasks.sys.executable", "/bin/false"):
            ingest_take.call_local(str(take.id))
        take.refresh_from_db()
        self.assertEqual(("refused", "broken_media"), (take.state, take.problem["code"]))
        self.assertTrue(take.problem["todo"])

    def test_takes_of_silent_workers_are_given_out_again(self) -> None:
        take = self._take(b"anything")
        Take.objects.update(state="making", attempts=1, heartbeat="2020-01-01T00:00:00Z")
        with patch("studio.library.tasks.ingest_take") as again:
            tend_takes.call_local()
            again.assert_called_once_with(str(take.id))
        Take.objects.update(attempts=3)
        tend_takes.call_local()
        take.refresh_from_db()
        self.assertEqual("refused", take.state)

    def test_the_child_runs_without_a_shell(self) -> None:
        take = self._take(b"anything")
        with patch("studio.library.tasks.subprocess.Popen", wraps=subprocess.Popen) as started:
            ingest_take.call_local(str(take.id))
        self.assertIsInstance(started.call_args.args[0], list)
        self.assertNotIn("shell", started.call_args.kwargs)
