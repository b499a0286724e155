from __future__ import annotations

import fcntl
import shutil
from pathlib import Path
from tempfile import TemporaryDirectory
from unittest.mock import patch

import numpy as np
from django.test import TestCase, override_settings

from kitecore.analysis import result_of
from kitecore.document import empty_document
from kitecore.media.proxy import PROXY_VERSION
from kitecore.media.tests.material import make_video, tone
from studio.jobs import queue, running
from studio.jobs.models import Job
from studio.jobs.programs import Interrupted
from studio.library.models import Take
from studio.library.work import ask_for, find_out_what_is_missing, take_in
from studio.projects import history
from studio.tests.site import Calm, People, Uploader, work_off


class UploadTest(People, TestCase):
    def setUp(self) -> None:
        super().setUp()
        self.uploader = Uploader(self.mine)
        with TemporaryDirectory() as folder:
            self.film = make_video(Path(folder) / "x", frames=30).read_bytes()

    def test_pieces_are_put_together_and_handed_on_once(self) -> None:
        location = self.uploader.create(self.project, len(self.film))["Location"]
        third = len(self.film) // 3
        for at in range(0, len(self.film), third):
            self.assertEqual(at, self.uploader.offset(location))
            answer = self.uploader.send(location, at, self.film[at : at + third])
            self.assertEqual(204, answer.status_code)
        take = Take.objects.get()
        self.assertEqual(("waiting", "x.mp4"), (take.state, take.name))
        self.assertEqual(self.film, take.folder.original.read_bytes())
        self.assertEqual([take.id.hex], [job.subject for job in Job.objects.all()])

    def test_after_a_broken_line_it_goes_on_where_it_was(self) -> None:
        location = self.uploader.create(self.project, len(self.film))["Location"]
        self.uploader.send(location, 0, self.film[:1000])
        take = Take.objects.get()
        with take.folder.original.open("ab") as file:
            file.write(b"bytes that were never acknowledged")
        self.assertEqual(409, self.uploader.send(location, 1034, self.film[1034:]).status_code)
        self.uploader.send(location, 1000, self.film[1000:])
        self.assertEqual(self.film, take.folder.original.read_bytes())

    def test_more_than_was_announced_is_not_taken(self) -> None:
        location = self.uploader.create(self.project, 500)["Location"]
        self.uploader.send(location, 0, self.film[:2000])
        self.assertEqual(500, Take.objects.get().folder.original.stat().st_size)

    def test_letters_are_refused_with_its_first_bytes(self) -> None:
        location = self.uploader.create(self.project, 10_000_000, "letter.mp4")["Location"]
        answer = self.uploader.send(location, 0, b"Dear workshop, " * 20)
        self.assertEqual((422, "not_media"), (answer.status_code, answer.json()["code"]))
        self.assertFalse(Take.objects.get().folder.original.exists())

    def test_names_never_become_paths(self) -> None:
        self.uploader.create(self.project, 100, "../../../etc/passwd")
        take = Take.objects.get()
        self.assertEqual("../../../etc/passwd", take.name)
        self.assertEqual(take.id.hex, take.folder.path.name)

    def test_limits(self) -> None:
        with override_settings(UPLOAD_LIMIT=1000):
            self.assertEqual(422, self.uploader.create(self.project, 1001).status_code)
        with override_settings(LIBRARY_LIMIT=1500):
            self.assertEqual(201, self.uploader.create(self.project, 1000).status_code)
            self.assertIn("full", self.uploader.create(self.project, 600).json()["message"])
        self.assertEqual(422, self.uploader.create(self.project, 0).status_code)

    def test_nobody_else_sees_or_goes_on_with_an_upload(self) -> None:
        location = self.uploader.create(self.project, 1000)["Location"]
        foreign = Uploader(self.other)
        self.assertEqual(404, self.other.head(location).status_code)
        self.assertEqual(404, foreign.send(location, 0, b"x").status_code)
        self.assertEqual(404, foreign.create(self.project, 10).status_code)
        self.assertEqual(401, self.stranger.head(location).status_code)

    def test_given_up_uploads_are_gone(self) -> None:
        location = self.uploader.create(self.project, 1000)["Location"]
        self.assertEqual(204, self.mine.delete(location).status_code)
        self.assertEqual(404, self.mine.head(location).status_code)
        self.assertEqual([], self.call("get", f"/projects/{self.project.id}/takes").json())

    def test_whoever_lost_the_last_answer_learns_that_all_is_there(self) -> None:
        location = self.uploader.create(self.project, len(self.film))["Location"]
        self.uploader.send(location, 0, self.film)
        self.assertEqual(len(self.film), self.uploader.offset(location))
        self.assertEqual((1, 1), (Take.objects.count(), Job.objects.count()))

    def test_an_upload_announced_twice_is_one_take(self) -> None:
        first = self.uploader.create(self.project, 1000, key="page-7")["Location"]
        self.uploader.send(first, 0, self.film[:600])
        again = self.uploader.create(self.project, 1000, key="page-7")["Location"]
        self.assertEqual(first, again)
        self.assertEqual(600, self.uploader.offset(again))
        theirs = history.start_project(self.wren, "Theirs", empty_document())
        foreign = Uploader(self.other).create(theirs, 1000, key="page-7")["Location"]
        self.assertNotEqual(first, foreign)
        self.assertEqual(2, Take.objects.count())

    def test_of_two_requests_for_one_upload_one_is_told_to_wait(self) -> None:
        location = self.uploader.create(self.project, len(self.film))["Location"]
        with Take.objects.get().folder.original.open("r+b") as file:
            fcntl.flock(file, fcntl.LOCK_EX)
            self.assertEqual(423, self.uploader.send(location, 0, self.film).status_code)
        self.assertEqual(204, self.uploader.send(location, 0, self.film).status_code)
        self.assertEqual(self.film, Take.objects.get().folder.original.read_bytes())

    def test_an_upload_whose_worker_died_before_handing_it_on_goes_on_when_asked(self) -> None:
        location = self.uploader.create(self.project, len(self.film))["Location"]
        take = Take.objects.get()
        take.folder.original.write_bytes(self.film)
        Take.objects.update(received=len(self.film))
        self.uploader.offset(location)
        self.assertEqual("waiting", Take.objects.get().state)
        self.assertEqual(1, Job.objects.count())


class TakeInTest(People, TestCase):
    def _take(self, data: bytes) -> Take:
        take = Take.objects.create(
            owner=self.pip, project=self.project, name="x", bytes=len(data), state="waiting"
        )
        take.folder.path.mkdir(parents=True)
        take.folder.original.write_bytes(data)
        take_in(take)
        return take

    def _film(self) -> bytes:
        with TemporaryDirectory() as folder:
            return make_video(Path(folder) / "x", frames=30, sound=tone(1)).read_bytes()

    def test_a_take_is_ready_then_its_strip_and_waveform_come(self) -> None:
        take = self._take(self._film())
        self.assertEqual(4, work_off())
        [shown] = self.call("get", f"/projects/{self.project.id}/takes").json()
        self.assertEqual(
            ("ready", True, True), (shown["state"], shown["complete"], shown["has_peaks"])
        )
        self.assertEqual("done", shown["job"]["state"])
        for name in ("poster.jpg", "strip.jpg", "waveform.i8"):
            answer = self.call("get", f"/takes/{take.id}/files/{name}")
            self.assertEqual(200, answer.status_code)
        self.assertEqual(404, self.call("get", f"/takes/{take.id}/files/layout.json").status_code)
        fine = f"/takes/{take.id}/waveform?first=4800&count=50&each=8"
        answer = self.call("get", fine)
        stretches = np.frombuffer(answer.content, "<i2").reshape(50, 4)
        self.assertTrue((stretches[:, 0] <= stretches[:, 1]).all())
        self.assertEqual(422, self.call("get", fine.replace("count=50", "count=50000")).status_code)
        self.assertEqual(404, self.other.get(f"/api{fine}").status_code)

    def test_a_crashing_decoder_is_a_refusal_and_no_more(self) -> None:
        take = self._take(b"anything")
        with patch("studio.jobs.programs.sys.executable", "/bin/false"):
            work_off()
        take.refresh_from_db()
        self.assertEqual(("refused", "broken_media"), (take.state, take.problem["code"]))
        self.assertTrue(take.problem["todo"])

    def test_a_look_that_was_killed_is_no_refusal(self) -> None:
        take = self._take(self._film())
        killed = patch("studio.library.work.run_program", side_effect=Interrupted("killed"))
        with killed, patch.object(running, "Pulse", Calm):
            running.run(queue.take() or Job())
        self.assertEqual("waiting", Job.objects.get().state)
        work_off()
        take.refresh_from_db()
        self.assertEqual("ready", take.state)

    def test_a_refused_take_can_be_looked_at_again(self) -> None:
        take = self._take(b"letters only, nothing else at all")
        work_off()
        take.refresh_from_db()
        self.assertEqual(("refused", "not_media"), (take.state, take.problem["code"]))
        take.folder.original.write_bytes(self._film())
        again = self.call("post", f"/takes/{take.id}/again")
        self.assertEqual(("waiting", None), (again.json()["state"], again.json()["problem"]))
        work_off()
        take.refresh_from_db()
        self.assertEqual("ready", take.state)

    def test_a_cancelled_look_says_so(self) -> None:
        take = self._take(self._film())
        self.assertEqual(200, self.call("post", f"/jobs/{take.job_id}/cancel").status_code)
        work_off()
        take.refresh_from_db()
        self.assertEqual("refused", take.state)
        self.assertIn("cancelled", take.problem["message"])

    def test_a_worker_that_starts_sees_to_what_takes_lack(self) -> None:
        take = self._take(self._film())
        work_off()
        shutil.rmtree(result_of(take.folder, "strip"))
        with patch("studio.library.work.connection"):
            for _ in range(2):
                find_out_what_is_missing()
        self.assertEqual(1, Job.objects.unfinished().count())
        work_off()
        self.assertIsNotNone(result_of(take.folder, "strip"))

    def test_proxies_of_before_are_made_anew_while_their_takes_are_used(self) -> None:
        tags = {"x264-params": "colorprim=bt2020:transfer=smpte2084:colormatrix=bt2020nc"}
        with TemporaryDirectory() as folder:
            film = make_video(Path(folder) / "x", frames=6, options=tags).read_bytes()
        take = self._take(film)
        work_off()
        take.refresh_from_db()
        self.assertEqual(PROXY_VERSION, take.facts["proxy"])
        before = take.folder.proxy.read_bytes()
        take.folder.proxy.write_bytes(b"of an older version")
        Take.objects.update(facts={**take.facts, "proxy": 0})
        with patch("studio.library.work.connection"):
            for _ in range(2):
                find_out_what_is_missing()
        self.assertEqual(["renew"], [job.kind for job in Job.objects.unfinished()])
        take.refresh_from_db()
        self.assertEqual("ready", take.state)
        strip = result_of(take.folder, "strip") / "strip.jpg"
        made = strip.stat().st_mtime_ns
        work_off()
        take.refresh_from_db()
        self.assertEqual(("ready", PROXY_VERSION), (take.state, take.facts["proxy"]))
        self.assertEqual(len(before), take.folder.proxy.stat().st_size)
        self.assertGreater(strip.stat().st_mtime_ns, made)

    def test_an_analysis_that_is_there_is_not_asked_for(self) -> None:
        take = self._take(self._film())
        work_off()
        self.assertIsNone(ask_for(take, "peaks"))
        shutil.rmtree(result_of(take.folder, "peaks"))
        self.assertIsNotNone(ask_for(take, "peaks"))
        work_off()
        self.assertIsNotNone(result_of(take.folder, "peaks"))
