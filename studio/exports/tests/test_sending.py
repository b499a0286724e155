"""Several files at once, their order, how much they weigh, and what becomes of them."""

from __future__ import annotations

from typing import Any
from unittest.mock import patch

import av
import numpy as np
from django.test import TestCase

from kitecore.errors import BadInput
from kitecore.render.checking.pictures import measure
from kitecore.render.estimating import Estimate
from studio.exports.models import Export
from studio.jobs import queue, running
from studio.jobs.models import Job
from studio.library.models import Take
from studio.tests.site import Calm, People, clip_of, take_of, work_off


def noise(number: int) -> av.VideoFrame:
    pixels = np.random.default_rng(number).integers(0, 256, (320, 180, 3))
    return av.VideoFrame.from_ndarray(pixels.astype(np.uint8), format="rgb24")


class SendingTest(People, TestCase):
    def setUp(self) -> None:
        super().setUp()
        take = take_of(self.project, frames=120, sound=None)
        self.edit(kind="place", clip=clip_of(take, 4.0))
        self.base = f"/projects/{self.project.id}"

    def start(self, *settings: dict[str, Any], **more: Any) -> list[dict[str, Any]]:
        answer = self.call("post", f"{self.base}/exports", {"settings": list(settings), **more})
        self.assertEqual(201, answer.status_code, answer.content)
        made: list[dict[str, Any]] = answer.json()
        return made

    def listed(self) -> list[dict[str, Any]]:
        found: list[dict[str, Any]] = self.call("get", f"{self.base}/exports").json()
        return found

    def do(self, film: dict[str, Any], what: str) -> int:
        status: int = self.call("post", f"/jobs/{film['job']['id']}/{what}").status_code
        return status

    def test_three_versions_from_one_look(self) -> None:
        made = self.start(
            {"long_side": 160},
            {"format": "gif", "long_side": 80, "rate": {"num": 10}},
            {"format": "wav"},
        )
        work_off()
        done = {one["id"]: one for one in self.listed()}
        self.assertEqual({"done"}, {one["job"]["state"] for one in done.values()})
        self.assertEqual(["film", "moving", "sound"], [done[one["id"]]["kind"] for one in made])
        self.assertEqual([120, 40, 120], [done[one["id"]]["frames"] for one in made])
        for one in made:
            answer = self.mine.get(f"/api/exports/{one['id']}/file")
            self.assertEqual(done[one["id"]]["bytes"], len(b"".join(answer.streaming_content)))

    def test_all_of_them_or_none(self) -> None:
        answer = self.call(
            "post", f"{self.base}/exports", {"settings": [{}, {"first": 48 * 3600 * 705_600_000}]}
        )
        self.assertEqual(422, answer.status_code)
        self.assertFalse(Export.objects.exists())

    def test_what_is_put_first_goes_first_and_what_is_paused_waits(self) -> None:
        [one], [two], [three] = (self.start({"long_side": side}) for side in (120, 140, 160))
        self.assertEqual(
            [one["id"], two["id"], three["id"]], [film["id"] for film in self.listed()]
        )
        self.assertEqual(200, self.do(three, "first"))
        self.assertEqual(200, self.do(one, "pause"))
        order = [film["id"] for film in self.listed()]
        self.assertEqual([three["id"], two["id"], one["id"]], order)
        ended: list[str] = []
        finish = queue.finish

        def note(job: Job, result: Any) -> None:
            finish(job, result)
            if job.kind == "film":
                ended.append(str(Export.objects.get(job=job).id))

        with patch.object(queue, "finish", note):
            work_off()
        self.assertEqual([three["id"], two["id"]], ended)
        waiting = next(film for film in self.listed() if film["id"] == one["id"])
        self.assertTrue(waiting["job"]["paused"])
        self.assertEqual(422, self.do(two, "pause"))
        self.assertEqual(200, self.do(one, "go-on"))
        work_off()
        self.assertEqual({"done"}, {film["job"]["state"] for film in self.listed()})

    def test_a_film_that_was_paused_half_way_makes_no_more_pieces(self) -> None:
        [film] = self.start({"long_side": 120})
        job = queue.take()
        assert job is not None
        self.do(film, "pause")
        with patch.object(running, "Pulse", Calm):
            running.run(job)
        self.assertIsNone(queue.take())
        self.assertEqual(
            {True}, set(Job.objects.filter(kind="piece").values_list("paused", flat=True))
        )

    def noisy(self) -> None:
        """A film that is hard to encode, as real ones are."""
        take = take_of(self.project, "noisy.mp4", frames=60, sound=None, draw=noise)
        self.edit(kind="place", clip=clip_of(take, 2.0))

    def test_a_film_weighs_no_more_than_it_may(self) -> None:
        self.noisy()
        self.start({"long_side": 320, "quality": "best"})
        work_off()
        weight = self.listed()[0]["bytes"]
        self.start({"long_side": 320, "most_bytes": weight // 2})
        work_off()
        found = self.listed()[0]
        self.assertEqual("done", found["job"]["state"], found["job"]["problem"])
        self.assertTrue(0.6 < found["bytes"] / (weight // 2) <= 1, found["bytes"])
        # What was guessed wrong is made good.
        [film] = self.start({"long_side": 320, "most_bytes": weight // 4})
        with patch("studio.exports.work.fitting_crf", return_value=16):
            work_off()
        found = self.listed()[0]
        self.assertEqual("done", found["job"]["state"], found["job"]["problem"])
        self.assertLessEqual(found["bytes"], weight // 4)
        self.assertGreater(Export.objects.get(pk=film["id"]).crf, 16)

    def test_what_cannot_be_so_small_says_so(self) -> None:
        self.start({"long_side": 320, "most_bytes": 1000})
        work_off()
        job = self.listed()[0]["job"]
        self.assertEqual("failed", job["state"])
        self.assertIn("does not fit into 0.001 MB", job["problem"]["message"])
        self.assertFalse(Export.objects.get().path.exists())

    def test_a_file_goes_into_the_library(self) -> None:
        [film] = self.start({"long_side": 160}, as_take=True)
        work_off()
        take = Take.objects.get(name="Kites.mp4")
        self.assertEqual(Take.State.READY, take.state)
        self.assertEqual(204, self.call("post", f"/exports/{film['id']}/take").status_code)
        self.assertEqual(2, Take.objects.filter(name="Kites.mp4").count())
        with patch("studio.exports.work.bring_in", side_effect=BadInput("Your library is full.")):
            [third] = self.start({"long_side": 160}, as_take=True)
            work_off()
        made = next(one for one in self.listed() if one["id"] == third["id"])
        self.assertEqual("done", made["job"]["state"])
        [archive] = self.start({"format": "pngs", "long_side": 64})
        work_off()
        self.assertEqual(422, self.call("post", f"/exports/{archive['id']}/take").status_code)


class EstimateTest(People, TestCase):
    def setUp(self) -> None:
        super().setUp()
        self.take = take_of(self.project, frames=120, sound=None)
        self.edit(kind="place", clip=clip_of(self.take, 4.0))

    def ask(self, **settings: Any) -> dict[str, Any]:
        answer = self.call("post", f"/projects/{self.project.id}/estimates", settings)
        self.assertEqual(200, answer.status_code, answer.content)
        found: dict[str, Any] = answer.json()
        return found

    def test_asked_once_and_kept_until_the_film_changes(self) -> None:
        first = self.ask(long_side=160)
        self.assertIsNone(first["bytes"])
        self.assertEqual(first["job"]["id"], self.ask(long_side=160)["job"]["id"])
        work_off()
        done = self.ask(long_side=160)
        self.assertEqual(first["job"]["id"], done["job"]["id"])
        self.assertGreater(done["bytes"], 1000)
        self.edit(kind="split", at=clip_of(self.take, 2.0)["length"])
        clip = self.document()["tracks"][0]["clips"][1]["id"]
        self.edit(kind="adjust", clips=[clip], values={"place/turn": 10})
        self.assertNotEqual(first["job"]["id"], self.ask(long_side=160)["job"]["id"])

    def test_of_a_film_that_has_changed_nobody_waits_for_the_old_trial(self) -> None:
        first = self.ask(long_side=160)
        self.edit(kind="split", at=clip_of(self.take, 2.0)["length"])
        clip = self.document()["tracks"][0]["clips"][1]["id"]
        self.edit(kind="adjust", clips=[clip], values={"place/turn": 10})
        self.ask(long_side=160)
        self.assertEqual("cancelled", Job.objects.get(pk=first["job"]["id"]).state)

    def test_a_file_that_may_only_weigh_so_much_is_told_so(self) -> None:
        self.ask(long_side=160, most_bytes=2000)
        work_off()
        self.assertEqual(2000, self.ask(long_side=160, most_bytes=2000)["bytes"])

    def test_the_oldest_of_too_many_are_given_up(self) -> None:
        first = self.ask(long_side=100)
        for side in range(102, 126, 2):
            self.ask(long_side=side)
        self.assertEqual(12, Job.objects.unfinished().filter(kind="estimate").count())
        self.assertEqual("cancelled", Job.objects.get(pk=first["job"]["id"]).state)

    def test_a_deleted_project_is_not_tried(self) -> None:
        self.ask()
        self.call("delete", f"/projects/{self.project.id}")
        with patch("studio.exports.estimates.estimate", return_value=Estimate(1, 1.0)) as tried:
            work_off()
        tried.assert_not_called()


class CheckTest(People, TestCase):
    def setUp(self) -> None:
        super().setUp()
        self.take = take_of(self.project, frames=120, sound=None)
        self.edit(kind="place", clip=clip_of(self.take, 4.0))

    def ask(self, destination: str = "square", **settings: Any) -> dict[str, Any]:
        given = {"destination": destination, "settings": settings}
        answer = self.call("post", f"/projects/{self.project.id}/checks", given)
        self.assertEqual(200, answer.status_code, answer.content)
        found: dict[str, Any] = answer.json()
        return found

    def test_found_in_the_background_and_anew_only_where_the_film_changed(self) -> None:
        self.assertIsNone(self.ask()["lines"])
        with patch("studio.exports.checks.measure", wraps=measure) as measured:
            work_off()
            self.assertEqual([range(90), range(90, 120)], [c.args[1] for c in measured.mock_calls])
        lines = {line["check"]: line["findings"] for line in self.ask()["lines"]}
        self.assertEqual("The film has no sound.", lines["silence"][0]["message"])
        self.assertEqual([], lines["missing"])
        at = clip_of(self.take, 3.5)["length"]
        text = {"kind": "text", "text": "Later", "length": at // 7}
        self.edit(kind="place", clip=text, mode="above", at=at)
        again = self.ask()
        self.assertIsNone(again["lines"])
        with patch("studio.exports.checks.measure", wraps=measure) as measured:
            work_off()
            self.assertEqual([range(90, 120)], [call.args[1] for call in measured.mock_calls])

    def test_the_weight_is_told_once_it_was_tried(self) -> None:
        def size() -> list[str] | None:
            lines = {line["check"]: line["findings"] for line in self.ask()["lines"]}
            return [one["message"] for one in lines["size"]] if "size" in lines else None

        self.ask()
        work_off()
        self.assertIsNone(size())
        for bytes, told in (
            (99_000_000, []),
            (187_000_000, ["about 187 MB: Square post takes 100"]),
        ):
            Job.objects.filter(kind="estimate").delete()
            self.call("post", f"/projects/{self.project.id}/estimates", {})
            with patch("studio.exports.estimates.estimate", return_value=Estimate(bytes, 1.0)):
                work_off()
            found = size()
            self.assertEqual(len(told), len(found or []))
            for message, wanted in zip(found or (), told, strict=True):
                self.assertIn(wanted, message)

    def test_a_missing_take_is_told_and_nothing_of_it_kept(self) -> None:
        self.take.folder.original.unlink()
        self.take.folder.proxy.unlink(missing_ok=True)
        self.ask()
        work_off()
        lines = {line["check"]: line["findings"] for line in self.ask()["lines"]}
        self.assertEqual("The take of “count.mp4” is missing.", lines["missing"][0]["message"])

    def test_an_unknown_destination_is_refused(self) -> None:
        given = {"destination": "moon", "settings": {}}
        answer = self.call("post", f"/projects/{self.project.id}/checks", given)
        self.assertEqual(422, answer.status_code)
        self.assertIn("no destination", answer.json()["message"])
