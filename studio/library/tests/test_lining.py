"""Lining takes up, as a page asks for it."""

from __future__ import annotations

from typing import Any
from unittest.mock import patch
from uuid import uuid4

import numpy as np
from django.test import TestCase

from kitecore.analysis.match import read_match
from kitecore.sound.tests.test_alignment import RATE, Mono, part, spoken
from studio.jobs.models import Job
from studio.library.models import Take
from studio.tests.site import SECOND, People, take_of, work_off


class LiningTest(People, TestCase):
    def setUp(self) -> None:
        super().setUp()
        sound = spoken(21, 16)
        self.far = self.take("far", part(sound, 0, 12))
        self.near = self.take("near", part(sound, 3, 9))
        self.odd = self.take("odd", spoken(22, 8))

    def take(self, name: str, sound: Mono) -> Take:
        frames = len(sound) * 30 // RATE
        return take_of(self.project, name, frames=frames, sound=np.repeat(sound, 48_000 // RATE))

    def ask(self, *takes: Take, client: Any = None) -> Any:
        files = [{"angle": n, "take": take.id.hex} for n, take in enumerate(takes)]
        return self.call("post", "/linings", {"files": files}, client)

    def test_what_matches_is_found_and_what_does_not_is_said(self) -> None:
        asked = self.ask(self.far, self.near, self.odd)
        self.assertEqual(201, asked.status_code)
        path = f"/linings/{asked.json()['job']['id']}"
        self.assertEqual([], self.call("get", path).json()["found"])
        work_off()
        told = self.call("get", path).json()
        self.assertEqual("done", told["job"]["state"])
        first, near, other = told["found"]
        self.assertEqual((0, "first"), (first["at"], first["way"]))
        self.assertAlmostEqual(3, near["at"] / SECOND, delta=0.001)
        self.assertGreater(near["confidence"], 0.9)
        self.assertIsNone(other["at"])

    def test_again_it_costs_nothing(self) -> None:
        for take in (self.near, self.odd):
            for other in (self.far, self.near):
                if take != other:
                    read_match(take.folder, other.id.hex)
        self.ask(self.far, self.near, self.odd)
        with patch("kitecore.analysis.match.aligned") as compared:
            work_off()
        compared.assert_not_called()

    def test_so_much_at_once_is_refused(self) -> None:
        asked = [self.ask(self.far, self.near).status_code for _ in range(4)]
        self.assertEqual([201, 201, 201, 422], asked)

    def test_takes_and_jobs_of_others_are_not_there(self) -> None:
        stranger = self.other
        self.assertEqual(404, self.ask(self.far, client=stranger).status_code)
        job = self.ask(self.far, self.near).json()["job"]["id"]
        self.assertEqual(404, self.call("get", f"/linings/{job}", client=stranger).status_code)
        self.assertEqual(404, self.call("get", f"/linings/{uuid4()}").status_code)
        Job.objects.filter(pk=job).update(kind="film")
        self.assertEqual(404, self.call("get", f"/linings/{job}").status_code)
