"""Cutting something out of a take, as a page asks for it."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

import av
import numpy as np
from django.test import TestCase

from studio.tests.site import SECOND, People, take_of, work_off

COUNT = 6
SIZE = (90, 160)


def square(number: int) -> av.VideoFrame:
    """A bright square that goes to the right, before a dark ground."""
    picture = np.full((*SIZE[::-1], 3), (40, 60, 90), np.uint8)
    picture += np.random.default_rng(1).integers(0, 12, picture.shape, np.uint8)
    picture[50:110, 10 + 3 * number : 50 + 3 * number] += 130
    return av.VideoFrame.from_ndarray(picture, format="rgb24")


class CuttingTest(People, TestCase):
    def setUp(self) -> None:
        super().setUp()
        self.take = take_of(
            self.project, "square", frames=COUNT, size=SIZE, sound=None, draw=square
        )

    def wanted(self, **more: Any) -> dict[str, Any]:
        stroke = {"points": [[-0.15, -0.1], [-0.05, 0.1]], "width": 0.05}
        views = [{"at": 0, "strokes": [stroke]}]
        return {"views": views, "first": 0, "last": SECOND, **more}

    def ask(self, wanted: dict[str, Any] | None = None, **how: Any) -> Any:
        return self.call("post", f"/takes/{self.take.id}/cuts", wanted or self.wanted(), **how)

    def test_it_is_found_and_known_afterwards(self) -> None:
        told = self.ask().json()
        self.assertIsNone(told["found"])
        path = f"/cuts/{told['job']['id']}"
        self.assertIsNone(self.call("get", path).json()["found"])
        work_off()
        told = self.call("get", path).json()
        self.assertEqual("done", told["job"]["state"])
        found = told["found"]
        self.assertEqual([n * SECOND // 30 for n in range(COUNT)], found["ticks"])
        self.assertGreater(min(found["sure"]), 128)
        again = self.ask().json()
        self.assertEqual((None, found), (again["job"], again["found"]))

    def test_what_makes_no_sense_is_refused(self) -> None:
        beyond = self.wanted(views=[{"at": 2 * SECOND, "strokes": []}])
        for wanted in (beyond, self.wanted(views=[]), self.wanted(edge=9)):
            self.assertEqual(422, self.ask(wanted).status_code)

    def test_where_nothing_is_kept_the_job_says_so(self) -> None:
        job = self.ask(self.wanted(views=[{"at": 0}])).json()["job"]["id"]
        work_off()
        told = self.call("get", f"/cuts/{job}").json()["job"]
        self.assertEqual("failed", told["state"])
        self.assertIn("Nothing is marked", told["problem"]["message"])

    def test_takes_and_jobs_of_others_are_not_there(self) -> None:
        stranger = self.other
        self.assertEqual(404, self.ask(client=stranger).status_code)
        job = self.ask().json()["job"]["id"]
        self.assertEqual(404, self.call("get", f"/cuts/{job}", client=stranger).status_code)
        self.assertEqual(404, self.call("get", f"/cuts/{uuid4()}").status_code)
        self.assertEqual(404, self.call("get", f"/tracks/{job}").status_code)
