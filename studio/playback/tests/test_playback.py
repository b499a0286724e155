from __future__ import annotations

import io
import os
import signal
from concurrent.futures import Future
from pathlib import Path
from tempfile import TemporaryDirectory
from unittest.mock import patch

import av
import numpy as np
import simplejpeg
from django.test import SimpleTestCase, TestCase

from kitecore import edits
from kitecore.document import Canvas, Document, Place, SolidClip, dumps, empty_document
from kitecore.document.effects import effect_kinds
from kitecore.edits import edit_kinds
from kitecore.errors import RenderFailed, Superseded, TookTooLong
from kitecore.media.tests.material import read_number
from kitecore.render.questions import Request
from kitecore.ticks import TICKS_PER_SECOND
from studio.playback.service import RenderProcess, _Silent, service
from studio.playback.store import PieceStore
from studio.playback.turns import Job
from studio.tests.site import People, clip_of, take_of


class PlaybackTest(People, TestCase):
    def setUp(self) -> None:
        super().setUp()
        self.take = take_of(self.project, size=(1080, 1920), frames=45)
        self.edit(kind="place", clip=clip_of(self.take))
        self.project.refresh_from_db()
        self.base = f"/projects/{self.project.id}/revisions/{self.project.head_id}"

    def number(self, jpeg: bytes) -> int:
        return read_number(simplejpeg.decode_jpeg(jpeg))

    def test_stills_of_projects_and_takes(self) -> None:
        for path in (self.base, f"/takes/{self.take.id}"):
            for frame in (0, 17, 29, 3):
                answer = self.call("post", f"{path}/still", {"frame": frame, "long_side": 320})
                self.assertEqual("image/jpeg", answer["Content-Type"])
                self.assertEqual(frame, self.number(answer.content))
        cover = self.call("get", f"{self.base}/frames/9?long_side=200")
        self.assertEqual(9, self.number(cover.content))

    def test_a_step_can_be_tried_without_being_kept(self) -> None:
        clip = self.document()["tracks"][0]["clips"][0]["id"]
        edit = {"kind": "adjust", "clips": [clip], "values": {"opacity": 0.0}}
        tried = self.call("post", f"{self.base}/still", {"frame": 5, "edits": [edit]})
        self.assertLess(simplejpeg.decode_jpeg(tried.content).max(), 8)
        plain = self.call("post", f"{self.base}/still", {"frame": 5})
        self.assertEqual(5, self.number(plain.content))

    def test_shuttle_plays_faster_and_backwards(self) -> None:
        for speed, wanted in ((2, [0, 2, 4, 6, 8]), (-1, [29, 28, 27, 26, 25])):
            path = f"{self.base}/picture?first=0&last=5&long_side=320&speed={speed}"
            with av.open(io.BytesIO(self.call("get", path).content)) as piece:
                shown = [read_number(f.to_ndarray(format="rgb24")) for f in piece.decode(video=0)]
            self.assertEqual(wanted, shown)
        sound = self.call("get", f"{self.base}/sound?first=0&last=5&speed=-2").content
        with av.open(io.BytesIO(sound)) as piece:
            samples = np.concatenate([f.to_ndarray().reshape(-1) for f in piece.decode(audio=0)])
        self.assertGreater(np.abs(samples).max(), 1000)
        self.assertEqual(422, self.call("get", f"{self.base}/playing?speed=0").status_code)

    def test_a_group_can_be_watched_by_itself(self) -> None:
        clip = self.document()["tracks"][0]["clips"][0]["id"]
        self.edit(kind="trim", clip=clip, edge="start", to=5 * 705_600_000 // 30)
        self.edit(kind="place", clip=self.solid(), mode="push", at=0)
        self.edit(kind="group", clips=[clip])
        group = next(c["id"] for c in self.document()["tracks"][0]["clips"] if c["kind"] == "group")
        self.project.refresh_from_db()
        base = f"/projects/{self.project.id}/revisions/{self.project.head_id}"
        answer = self.call("post", f"{base}/still?within={group}", {"frame": 4, "long_side": 320})
        self.assertEqual(9, self.number(answer.content))
        playing = self.call("get", f"{base}/playing?within={group}").json()
        self.assertEqual(25, playing["frames"])
        gone = self.call("post", f"{base}/still?within=gone", {"frame": 4})
        self.assertEqual(404, gone.status_code)

    def test_pieces_hold_their_frames_at_their_times(self) -> None:
        for path in (self.base, f"/takes/{self.take.id}"):
            for _ in range(2):
                data = self.call("get", f"{path}/picture?first=7&last=15&long_side=320").content
                with av.open(io.BytesIO(data)) as piece:
                    shown = [
                        (round(f.time * 30), read_number(f.to_ndarray(format="rgb24")))
                        for f in piece.decode(video=0)
                    ]
                self.assertEqual([(n, n) for n in range(7, 15)], shown)
        sound = self.call("get", f"{self.base}/sound?first=7&last=15").content
        with av.open(io.BytesIO(sound)) as piece:
            count = sum(f.samples for f in piece.decode(audio=0))
            self.assertEqual((8 * 1600, 7 * 1600), (count, piece.streams.audio[0].start_time))

    def test_sound_comes_as_aac_where_that_is_asked_for(self) -> None:
        path = f"{self.base}/sound?first=7&last=15"
        told = self.call("get", f"{self.base}/playing").json()["sound_types"]
        self.assertEqual('audio/mp4; codecs="mp4a.40.2"', told["aac"])
        for coding, codec in (("&coding=aac", "aac"), ("", "flac")):
            data = self.call("get", path + coding).content
            with av.open(io.BytesIO(data)) as piece:
                self.assertEqual(codec, piece.streams.audio[0].codec_context.name)
                # The block that the piece's first sample, 7 * 1600, lies in begins at 10 * 1024.
                first = {"aac": 10 * 1024, "flac": 7 * 1600}[codec]
                self.assertEqual(first, piece.streams.audio[0].start_time)
        self.assertEqual(422, self.call("get", f"{path}&coding=mp3").status_code)

    def test_an_edit_makes_only_what_it_touches_anew(self) -> None:
        self.edit(kind="place", clip=clip_of(self.take))
        self.project.refresh_from_db()
        first = f"/projects/{self.project.id}/revisions/{self.project.head_id}"
        for at in (0, 45):
            self.call("get", f"{first}/picture?first={at}&last={at + 15}&long_side=320")
        clip = self.document()["tracks"][0]["clips"][1]["id"]
        self.edit(kind="adjust", clips=[clip], values={"opacity": 0.5})
        self.project.refresh_from_db()
        after = f"/projects/{self.project.id}/revisions/{self.project.head_id}"
        asked: list[Request] = []
        pieces = service().pieces
        submit = pieces.submit
        pieces.submit = lambda job: asked.append(job.request) or submit(job)  # type: ignore[assignment,func-returns-value]
        self.addCleanup(setattr, pieces, "submit", submit)
        for at in (0, 45):
            self.call("get", f"{after}/picture?first={at}&last={at + 15}&long_side=320")
        self.assertEqual([45], [request.first for request in asked])

    def test_a_still_is_drawn_once_for_all_revisions_that_show_it(self) -> None:
        self.edit(kind="place", clip=clip_of(self.take))
        self.project.refresh_from_db()
        asked: list[Request] = []
        process = service().stills
        submit = process.submit
        process.submit = lambda job: asked.append(job.request) or submit(job)  # type: ignore[assignment,func-returns-value]
        self.addCleanup(setattr, process, "submit", submit)
        pictures = []
        clip = self.document()["tracks"][0]["clips"][1]["id"]
        for opacity in (1.0, 0.5, 1.0):
            self.edit(kind="adjust", clips=[clip], values={"opacity": opacity})
            self.project.refresh_from_db()
            path = f"/projects/{self.project.id}/revisions/{self.project.head_id}"
            for frame in (2, 45):
                asking = {"frame": frame, "long_side": 160}
                pictures.append(self.call("post", f"{path}/still", asking).content)
        self.assertEqual([2, 45, 45], [request.first for request in asked])
        self.assertEqual(pictures[1], pictures[5])
        self.assertNotEqual(pictures[1], pictures[3])
        shown = self.call("get", f"{path}/frames/2?long_side=160")
        self.assertEqual(3, len(asked))
        again = self.mine.get(
            f"/api{path}/frames/2?long_side=160", headers={"If-None-Match": shown["ETag"]}
        )
        self.assertEqual((304, b""), (again.status_code, again.content))

    def test_senseless_ranges_are_refused(self) -> None:
        for query in ("first=5&last=5", "first=0&last=1000", "first=-1&last=4", "first=0"):
            self.assertEqual(422, self.call("get", f"{self.base}/picture?{query}").status_code)
        self.assertEqual(422, self.call("get", f"{self.base}/smell?first=0&last=5").status_code)

    def test_a_missing_file_is_said(self) -> None:
        self.edit(kind="place", clip=clip_of(self.take, 0.5))
        self.project.refresh_from_db()
        path = f"/projects/{self.project.id}/revisions/{self.project.head_id}"
        for process in (service().stills, service().pieces):
            process.close()
        self.take.folder.original.unlink()
        self.take.folder.proxy.unlink()
        answer = self.call("post", f"{path}/still", {"frame": 2})
        self.assertEqual(422, answer.status_code)
        self.assertIn("missing", answer.json()["message"])


def heavy() -> Document:
    """A document whose picture takes a while: wide blurs, one above another."""
    second = TICKS_PER_SECOND
    blurred = SolidClip(length=second, effects=(effect_kinds["soft_blur"](id="b", sigma=3.5),))
    document = empty_document(Canvas(width=1080, height=1920))
    for number in range(40):
        place = Place(turn=float(number), size=(0.9, 0.9))
        clip = blurred.model_copy(update={"place": place})
        document = edits.apply(document, edit_kinds["place"](clip=clip, mode="above", at=0))
    return document


class RenderProcessTest(SimpleTestCase):
    """The process behind the pictures: dropped questions, and death."""

    def setUp(self) -> None:
        folder = Path(self.enterContext(TemporaryDirectory()))
        self.process = RenderProcess(folder)
        self.addCleanup(self.process.close)

    def ask(self, lane: str = "", turn: int = 0) -> Future[bytes]:
        request = Request("still", "empty", 0, long_side=64)
        return self.process.submit(Job(request, lambda: dumps(empty_document()), 1, lane, turn))

    def test_of_a_lane_only_the_newest_is_drawn(self) -> None:
        futures = [self.ask("scrub", turn) for turn in range(12)]
        self.assertTrue(futures[-1].result(30))
        dropped = [f for f in futures[:-1] if isinstance(f.exception(30), Superseded)]
        self.assertGreaterEqual(len(dropped), 9)

    def overtaken(self, name: str, turn: int) -> tuple[Future[bytes], Future[bytes]]:
        """Something heavy, and what is asked for while its document is told."""
        newer: list[Future[bytes]] = []

        def told() -> str:
            newer.append(self.ask("scrub", turn + 1))
            return dumps(heavy())

        request = Request("still", name, 0, long_side=1920)
        older = self.process.submit(Job(request, told, 1, "scrub", turn))
        older.exception(60)
        return older, newer[0]

    def test_one_that_is_overtaken_is_left_undone(self) -> None:
        older, newer = self.overtaken("heavy", 1)
        self.assertIsInstance(older.exception(), Superseded)
        self.assertTrue(newer.result(30))
        # The process lives, and knows the document: nobody asks for it again.
        request = Request("still", "heavy", 0, long_side=1920)
        again = Job(request, lambda: self.fail("told twice"), 1)
        self.assertTrue(self.process.submit(again).result(60))

    def test_of_two_in_a_row_one_is_finished(self) -> None:
        _, between = self.overtaken("heavy", 1)
        between.result(30)  # still in hand, it would be the one that is spared
        older, newer = self.overtaken("heavy too", 3)
        self.assertTrue(older.result())
        self.assertTrue(newer.result(30))

    def test_a_killed_process_costs_no_answer(self) -> None:
        self.assertTrue(self.ask().result(30))
        assert self.process._process is not None
        os.kill(self.process._process.pid, signal.SIGKILL)
        self.assertTrue(self.ask().result(30))

    def test_a_question_that_kills_ends_plainly(self) -> None:
        with patch.object(self.process, "_told", side_effect=EOFError):
            self.assertIsInstance(self.ask().exception(30), RenderFailed)

    def test_what_takes_too_long_is_said_and_ended(self) -> None:
        self.assertTrue(self.ask().result(30))
        first = self.process._process
        assert first is not None
        with patch.object(self.process, "_exchange", side_effect=_Silent):
            self.assertIsInstance(self.ask().exception(30), TookTooLong)
        self.assertIsNotNone(first.poll())
        self.assertTrue(self.ask().result(30))

    def test_the_picture_of_an_empty_project_is_its_background(self) -> None:
        picture = simplejpeg.decode_jpeg(self.ask().result(30))
        self.assertEqual((64, 36, 3), picture.shape)
        self.assertEqual(0, int(np.max(picture)))


class StoreTest(SimpleTestCase):
    def test_the_longest_unused_go_first(self) -> None:
        # Putting prunes by chance.
        chance = patch("studio.playback.store.random", return_value=1.0)
        with TemporaryDirectory() as folder, chance:
            store = PieceStore(Path(folder), 3000)
            for number, key in enumerate(("aa1", "bb2", "cc3", "dd4")):
                store.put(key, bytes(1000))
                os.utime(store.path(key), (number, number))
            self.assertEqual(1000, len(store.get("aa1") or b""))
            store.prune()
            kept = [key for key in ("aa1", "bb2", "cc3", "dd4") if store.get(key)]
            self.assertEqual(["aa1", "dd4"], kept)
            self.assertIsNone(store.get("zz9"))
