"""Bodies and addresses that no page sends: each is answered, none by a failure of ours."""

from __future__ import annotations

import copy
import random
from collections.abc import Iterator
from typing import Any
from unittest.mock import patch

from django.test import TestCase

from studio.tests.samples import bodies, every, leading
from studio.tests.test_ownership import Ownership

ODD: tuple[Any, ...] = (
    *(None, True, "", "\u0000", "x" * 5000, [], {}, [[[[]]]]),
    *(-1, 0, 2**53, 2**63, 2**64, -(2**70), 1e308, float("nan"), float("inf")),
)
TRIED = 2500
"""Requests, drawn with the same luck every time."""


def places(body: Any, path: tuple[Any, ...] = ()) -> Iterator[tuple[Any, ...]]:
    """Where in a body a value could be exchanged."""
    if path:
        yield path
    if isinstance(body, dict):
        inside: Any = body.items()
    else:
        inside = enumerate(body) if isinstance(body, list) else ()
    for key, inner in inside:
        yield from places(inner, (*path, key))


def exchanged(body: Any, path: tuple[Any, ...], value: Any) -> Any:
    made = copy.deepcopy(body)
    inside = made
    for key in path[:-1]:
        inside = inside[key]
    inside[path[-1]] = value
    return made


class OddRequestsTest(Ownership, TestCase):
    def test_odd_values_in_every_body_are_answered(self) -> None:
        luck = random.Random(7)
        cases = [
            (method, path, exchanged(body, place, odd))
            for method, path, schema in bodies()
            for body in self._plain(schema)
            for place in places(body)
            for odd in ODD
        ]
        self.mine.raise_request_exception = False
        with patch("studio.playback.api.render", lambda job: b"picture"):
            for method, path, body in luck.sample(cases, TRIED):
                with self.subTest(f"{method} {path}", body=body):
                    whole = self.filled(body, self.own)
                    answer = self.call(method, self.path(path), whole)
                    self.assertLess(answer.status_code, 500)
        self._is_well()

    def _plain(self, schema: Any) -> list[Any]:
        return [*leading(schema), *every(schema)]

    def _is_well(self) -> None:
        """All that was kept can be listed, opened and undone."""
        self.assertEqual(200, self.call("get", "/projects").status_code)
        state = self.call("get", f"/projects/{self.project.id}")
        self.assertEqual(200, state.status_code)
        while state.json()["can_undo"]:
            body = {"based_on": state.json()["revision"]}
            state = self.call("post", f"/projects/{self.project.id}/undo", body)
            self.assertEqual(200, state.status_code)

    def test_odd_numbers_in_addresses_are_answered(self) -> None:
        self.mine.raise_request_exception = False
        own, _ = self.takes
        project = f"/projects/{self.project.id}/revisions"
        for number in (2**31, 2**63, 2**64, 10**30):
            for address in (
                f"/takes/{own.id}/picture?first={number}&last={number + 1}",
                f"/takes/{own.id}/picture?first=0&last={number}",
                f"{project}/{number}/playing",
                f"{project}/{self.project.head_id}/frames/{number}",
                f"{project}/{self.project.head_id}/extents?frame={number}",
                f"/kit/presets/{number}/picture.jpg",
            ):
                with self.subTest(address):
                    self.assertIn(self.call("get", address).status_code, (200, 404, 422))

    def test_numbers_that_are_none_are_refused(self) -> None:
        """NaN and infinity are no JSON, though many readers take them."""
        for number in ("NaN", "Infinity", "-Infinity", "1e999"):
            values = f'{{"place/position": [{number}, 0]}}'
            edit = f'{{"kind": "adjust", "clips": ["{self.clip}"], "values": {values}}}'
            self.project.refresh_from_db()
            body = f'{{"based_on": {self.project.head_id}, "edit": {edit}}}'
            address = f"/api/projects/{self.project.id}/edits"
            answer = self.mine.post(address, body, content_type="application/json")
            self.assertIn(answer.status_code, (400, 422), answer.content)
