"""Projects and timelines that go to somebody else, and come from there."""

from __future__ import annotations

import json
import tempfile
from pathlib import Path
from typing import Any
from unittest.mock import patch
from uuid import UUID
from zipfile import ZipFile

import opentimelineio as otio
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client, TestCase

from kitecore.document import empty_document
from studio.exports import unpacking
from studio.jobs.models import Job, State
from studio.kit.models import Look
from studio.library.models import Take
from studio.projects import history
from studio.projects.models import Project
from studio.tests.site import SECOND, People, Uploader, _here, clip_of, take_of, work_off

CUBE = b"LUT_3D_SIZE 2\n" + b"0 0 0\n" * 7 + b"1 1 1\n"


class Handing(People, TestCase):
    def setUp(self) -> None:
        super().setUp()
        self.take = take_of(self.project, "wind 1.mp4")
        look = SimpleUploadedFile("dusk.cube", CUBE)
        answer = self.mine.post("/api/kit/looks", {"file": look})
        self.look = answer.json()["name"]
        clip = clip_of(self.take) | {"grade": {"lut": {"look": self.look}}}
        self.edit(kind="place", clip=clip)
        self.edit(kind="add_marker", at=SECOND // 2, name="fold")

    def packed(self, **more: Any) -> Path:
        self.call("post", f"/projects/{self.project.id}/archive", more)
        work_off()
        answer = self.mine.get(f"/api/projects/{self.project.id}/archive/file")
        self.assertEqual(200, answer.status_code)
        path = Path(self.enterContext(tempfile.TemporaryDirectory())) / "kites.otioz"
        path.write_bytes(b"".join(answer.streaming_content))
        return path

    def theirs(self, path: Path, client: Client | None = None, name: str = "") -> Project:
        """The archive as Wren opens it, in a new project."""
        project = history.start_project(self.wren, path.stem, empty_document())
        self.arrive(project, path, client or self.other, name)
        self.work()
        project.refresh_from_db()
        return project

    def arrive(self, project: Project, path: Path, client: Client, name: str = "") -> Take:
        data, uploader = path.read_bytes(), Uploader(client)
        with patch("studio.jobs.queue.wake"):
            place = uploader.create(project, len(data), name or path.name)["Location"]
            uploader.send(place, 0, data)
        return Take.objects.get(pk=UUID(place.rsplit("/", 1)[1]))

    def work(self) -> None:
        with (
            patch("studio.jobs.queue.wake"),
            patch("studio.library.work.run_program", _here),
            patch("studio.library.work.standing_for", lambda info: []),
        ):
            for _ in range(6):
                Job.objects.filter(state=State.WAITING).update(due_at=None)
                work_off()

    def document_of(self, project: Project) -> Any:
        project.refresh_from_db()
        return history.document_at(history.head_of(project))


class ArchiveTest(Handing):
    def test_a_project_is_opened_by_somebody_else_with_all_that_it_needs(self) -> None:
        project = self.theirs(self.packed())
        document = self.document_of(project)
        [clip] = document.main.clips
        take = Take.objects.get(pk=UUID(clip.media))
        self.assertEqual(
            (self.wren, project, Take.State.READY), (take.owner, take.project, take.state)
        )
        self.assertEqual(self.take.folder.original.read_bytes(), take.folder.original.read_bytes())
        look = Look.objects.get(owner=self.wren)
        self.assertEqual(look.id.hex, clip.grade.lut.look)
        mine = self.document_of(self.project)
        self.assertEqual(mine.markers, document.markers)
        same = clip.model_copy(
            update={"media": self.take.id.hex, "grade": mine.main.clips[0].grade}
        )
        self.assertEqual(mine.main.clips[0], same)
        self.assertEqual("Kites", project.name)
        listed = self.call("get", f"/projects/{project.id}/takes", client=self.other).json()
        self.assertEqual(["wind 1.mp4"], [one["name"] for one in listed])

    def test_without_originals_takes_are_lost_ones_that_are_found_again(self) -> None:
        path = self.packed(originals=False)
        self.assertLess(path.stat().st_size, self.take.bytes)
        project = self.theirs(path)
        [clip] = self.document_of(project).main.clips
        take = Take.objects.get(pk=UUID(clip.media))
        self.assertEqual(self.take.digest, take.digest)
        [listed] = self.call("get", f"/projects/{project.id}/takes", client=self.other).json()
        self.assertTrue(listed["missing"])
        uploader, data = Uploader(self.other), self.take.folder.original.read_bytes()
        with patch("studio.jobs.queue.wake"):
            place = uploader.create(project, len(data), replaces=str(take.id))["Location"]
            uploader.send(place, 0, data)
        self.work()
        take.refresh_from_db()
        self.assertEqual((Take.State.READY, True), (take.state, take.folder.original.exists()))

    def test_a_worker_killed_in_the_middle_leaves_the_next_one_to_go_on(self) -> None:
        project = history.start_project(self.wren, "x", empty_document())
        upload = self.arrive(project, self.packed(), self.other)

        class Killed(BaseException):
            pass

        for where in ("take_in", "_film", "_lay"):
            target = f"studio.exports.unpacking.{where}"
            with patch(target, side_effect=Killed), self.assertRaises(Killed):
                self.work()
            Job.objects.update(heartbeat=None)
            Job.objects.filter(state=State.WORKING).update(state=State.WAITING, claim=None)
        self.work()
        upload.refresh_from_db()
        self.assertEqual((True, State.DONE), (upload.removed, upload.job.state))
        self.assertEqual(1, Take.objects.filter(project=project, removed=False).count())
        self.assertEqual(1, project.revisions.filter(seed__startswith="unpack").count())
        self.assertEqual(1, Look.objects.filter(owner=self.wren).count())

    def test_a_project_that_has_a_film_keeps_it(self) -> None:
        before = self.document_of(self.project)
        upload = self.arrive(self.project, self.packed(), self.mine)
        self.work()
        upload.refresh_from_db()
        self.assertEqual(Take.State.REFUSED, upload.state)
        self.assertIn("film already", upload.problem["message"])
        self.assertEqual(before, self.document_of(self.project))

    def test_a_bundle_of_another_program_is_opened(self) -> None:
        path = Path(self.enterContext(tempfile.TemporaryDirectory())) / "other.otioz"
        span = otio.opentime.TimeRange(
            otio.opentime.RationalTime(6, 30), otio.opentime.RationalTime(15, 30)
        )
        clip = otio.schema.Clip("c", otio.schema.ExternalReference("media/w.mp4"), span)
        lost = otio.schema.Clip("l", otio.schema.ExternalReference("media/lost.mp4"), span)
        timeline = otio.schema.Timeline("Other")
        timeline.tracks.append(otio.schema.Track("V", [clip, lost], kind="Video"))
        with ZipFile(path, "w") as archive:
            archive.writestr("content.otio", otio.adapters.write_to_string(timeline, "otio_json"))
            archive.writestr("version.txt", "1.0.0")
            archive.write(self.take.folder.original, "media/w.mp4")
        document = self.document_of(self.theirs(path))
        one, other = document.main.clips
        self.assertEqual(("video", SECOND // 5, SECOND // 2), (one.kind, one.source_in, one.length))
        self.assertEqual("solid", other.kind)
        path_of = f"/jobs/{Job.objects.get(kind='unpack').pk}"
        told = self.call("get", path_of, client=self.other)
        self.assertIn("“lost.mp4” is not in the archive.", told.json()["remarks"])
        self.assertEqual(404, self.call("get", path_of).status_code)

    def test_what_is_no_project_is_refused_and_can_be_removed(self) -> None:
        path = Path(self.enterContext(tempfile.TemporaryDirectory())) / "letter.zip"
        with ZipFile(path, "w") as archive:
            archive.writestr("letter.txt", "x")
        project = self.theirs(path)
        [listed] = self.call("get", f"/projects/{project.id}/takes", client=self.other).json()
        self.assertEqual("refused", listed["state"])
        self.assertIn("no project", listed["problem"]["message"])

    def test_a_full_library_takes_nothing(self) -> None:
        path = self.packed()
        with patch("studio.exports.unpacking.require_room", side_effect=unpacking.BadInput("full")):
            project = self.theirs(path)
        self.assertEqual(0, Take.objects.filter(project=project, state=Take.State.READY).count())
        self.assertFalse(self.document_of(project).main.clips)

    def test_a_download_that_was_cut_off_goes_on(self) -> None:
        whole = self.packed().read_bytes()
        address = f"/api/projects/{self.project.id}/archive/file"
        rest = self.mine.get(address, headers={"Range": "bytes=1000-"})
        self.assertEqual(206, rest.status_code)
        self.assertEqual(whole[1000:], b"".join(rest.streaming_content))
        self.assertEqual(f"bytes 1000-{len(whole) - 1}/{len(whole)}", rest["Content-Range"])
        told = self.call("get", f"/projects/{self.project.id}/archive").json()
        self.assertEqual((len(whole), True), (told["bytes"], told["originals"]))

    def test_an_archive_goes_with_its_project_and_is_nobody_elses(self) -> None:
        self.packed()
        address = f"/projects/{self.project.id}/archive"
        for method, path, given in (
            ("get", address, None),
            ("get", f"{address}/file", None),
            ("post", address, {}),
        ):
            self.assertEqual(404, self.call(method, path, given, client=self.other).status_code)
        self.assertEqual(1, Job.objects.filter(kind="pack").count())
        self.call("delete", f"/projects/{self.project.id}")
        self.assertEqual(0, Job.objects.filter(kind="pack").count())


class TimelineTest(Handing):
    def test_a_timeline_goes_out_and_comes_back_as_a_step(self) -> None:
        answer = self.mine.get(f"/api/projects/{self.project.id}/timeline")
        self.assertIn('filename="Kites.otio"', answer["Content-Disposition"])
        timeline = otio.adapters.read_from_string(answer.content.decode(), "otio_json")
        self.assertEqual(["wind 1.mp4"], [c.media_reference.name for c in timeline.tracks[0]])
        before = self.document_of(self.project)
        self.edit(kind="remove", clips=[before.main.clips[0].id])
        taken = self.bring(answer.content)
        self.assertEqual(([], []), (taken["remarks"], taken["missing"]))
        self.assertEqual(200, self.edit(**taken["edit"]).status_code)
        self.project.refresh_from_db()
        self.assertEqual(before, self.document_of(self.project))

    def bring(self, data: bytes, client: Client | None = None, project: Any = None) -> Any:
        address = f"/api/projects/{(project or self.project).id}/timeline"
        file = SimpleUploadedFile("kites.otio", data)
        answer = (client or self.mine).post(address, {"file": file})
        self.assertEqual(200, answer.status_code, answer.content)
        return json.loads(answer.content)

    def test_looks_of_somebody_else_are_left_out(self) -> None:
        data = self.mine.get(f"/api/projects/{self.project.id}/timeline").content
        project = history.start_project(self.wren, "Theirs", empty_document())
        take_of(project, "wind 1.mp4")
        taken = self.bring(data, self.other, project)
        self.assertIn("Left out: looks that are not in your Kit.", taken["remarks"])
        step = {"based_on": project.head_id, "edit": taken["edit"]}
        done = self.call("post", f"/projects/{project.id}/edits", step, client=self.other)
        self.assertEqual(200, done.status_code, done.content)

    def test_a_file_that_is_none_changes_nothing(self) -> None:
        file = SimpleUploadedFile("x.otio", b"no")
        answer = self.mine.post(f"/api/projects/{self.project.id}/timeline", {"file": file})
        self.assertEqual(422, answer.status_code)
        self.assertIn("no timeline", answer.json()["message"])
