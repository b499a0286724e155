"""Following something through a take, as a page asks for it."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

import numpy as np
from django.test import TestCase

from kitecore.analysis.tests.test_faces import SIZE as FACES_SIZE
from kitecore.analysis.tests.test_faces import frame
from kitecore.render.tests.trackedfilm import made_video, view
from kitecore.tracking.flow import Grey
from kitecore.tracking.quads import Quad
from kitecore.tracking.tests import scenes
from studio.jobs.models import Job
from studio.tests.site import SECOND, People, take_of, work_off

COUNT = 20


class TrackingTest(People, TestCase):
    def setUp(self) -> None:
        super().setUp()
        self.shoot(scenes.Scene("turns"))

    def shoot(self, scene: scenes.Scene) -> None:
        self.made = scene
        self.take = take_of(
            self.project,
            "sign",
            frames=COUNT,
            size=scenes.SIZE,
            sound=None,
            draw=lambda number: made_video(scene, number),
        )

    def wanted(self, first: int = 0) -> dict[str, Any]:
        return {
            "change": "turns",
            "views": [view(self.made.quad(5), 5)],
            "first": first,
            "last": SECOND,
        }

    def ask(self, wanted: dict[str, Any] | None = None, **how: Any) -> Any:
        return self.call("post", f"/takes/{self.take.id}/tracks", wanted or self.wanted(), **how)

    def test_it_is_found_and_known_afterwards(self) -> None:
        told = self.ask().json()
        self.assertIsNone(told["found"])
        path = f"/tracks/{told['job']['id']}"
        self.assertIsNone(self.call("get", path).json()["found"])
        work_off()
        told = self.call("get", path).json()
        self.assertEqual("done", told["job"]["state"])
        found = told["found"]
        self.assertEqual([n * SECOND // 30 for n in range(COUNT)], found["ticks"])
        for number in range(COUNT):
            quad = np.array(found["quads"][number]).reshape(4, 2) * 960 + np.array(scenes.SIZE) / 2
            self.assertLess(np.abs(quad - self.made.quad(number)).max(), 1.5)
        self.assertGreater(min(found["sure"]), 128)
        again = self.ask().json()
        self.assertEqual((None, found), (again["job"], again["found"]))

    def test_why_it_is_lost_is_told(self) -> None:
        def dark(frame: Grey, number: int, quad: Quad) -> Grey:
            return frame if number < 12 else np.full_like(frame, 16)

        self.shoot(scenes.Scene("turns", dark))
        job = self.ask().json()["job"]["id"]
        work_off()
        found = self.call("get", f"/tracks/{job}").json()["found"]
        self.assertEqual([None] * 12 + ["empty"] * (COUNT - 12), found["why"])
        self.assertEqual({0}, set(found["sure"][12:]))

    def test_what_makes_no_sense_is_refused(self) -> None:
        turned_over = self.wanted()
        turned_over["views"][0]["corners"].reverse()
        nothing = self.wanted() | {"views": []}
        for wanted in (turned_over, nothing, self.wanted(first=SECOND)):
            self.assertEqual(422, self.ask(wanted).status_code)

    def test_so_much_at_once_is_refused(self) -> None:
        asked = [self.ask(self.wanted(first=n)).status_code for n in range(4)]
        self.assertEqual([200, 200, 200, 422], asked)

    def test_takes_and_jobs_of_others_are_not_there(self) -> None:
        stranger = self.other
        self.assertEqual(404, self.ask(client=stranger).status_code)
        job = self.ask().json()["job"]["id"]
        self.assertEqual(404, self.call("get", f"/tracks/{job}", client=stranger).status_code)
        self.assertEqual(404, self.call("get", f"/tracks/{uuid4()}").status_code)
        Job.objects.filter(pk=job).update(kind="film")
        self.assertEqual(404, self.call("get", f"/tracks/{job}").status_code)


class FacesTest(People, TestCase):
    def setUp(self) -> None:
        super().setUp()
        self.take = take_of(
            self.project,
            "walk",
            frames=COUNT,
            size=FACES_SIZE,
            sound=None,
            draw=lambda number: frame(number, walks=True),
        )

    def ask(self, **how: Any) -> Any:
        return self.call("post", f"/takes/{self.take.id}/faces", **how)

    def test_faces_are_found_and_what_is_told_can_be_followed(self) -> None:
        told = self.ask().json()
        self.assertIsNone(told["found"])
        # Asked again it is the same job; it is no track.
        self.assertEqual(told["job"]["id"], self.ask().json()["job"]["id"])
        path = f"/tracks/{told['job']['id']}"
        self.assertEqual(404, self.call("get", path).status_code)
        path = f"/faces/{told['job']['id']}"
        self.assertIsNone(self.call("get", path).json()["found"])
        self.assertEqual(404, self.call("get", path, client=self.other).status_code)
        work_off()
        told = self.call("get", path).json()
        self.assertEqual("done", told["job"]["state"])
        [person] = self.ask().json()["found"]["persons"]
        self.assertEqual(told["found"]["persons"], [person])
        wanted = person["tracked"]
        answer = self.call("post", f"/takes/{self.take.id}/tracks", wanted)
        self.assertEqual(200, answer.status_code)
        self.assertEqual(0, person["first"])

    def test_takes_of_others_are_not_there(self) -> None:
        self.assertEqual(404, self.ask(client=self.other).status_code)
