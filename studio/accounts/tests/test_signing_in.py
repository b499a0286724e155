"""Signing in, and being slowed down."""

from __future__ import annotations

from typing import Any

from axes.utils import reset
from django.test import TestCase, override_settings

from studio.tests.site import People


@override_settings(AXES_ENABLED=True, AXES_FAILURE_LIMIT=3)
class SlowedDownTest(People, TestCase):
    def setUp(self) -> None:
        super().setUp()
        reset()
        self.addCleanup(reset)

    def sign_in(self, name: str, password: str, address: str, **more: str) -> Any:
        return self.stranger.post(
            "/api/session",
            {"name": name, "password": password},
            content_type="application/json",
            REMOTE_ADDR=address,
            **more,  # type: ignore[arg-type]
        )

    def test_the_right_password_lets_in(self) -> None:
        answer = self.sign_in("pip", "a-long-one-7", "10.0.0.1")
        self.assertEqual((200, True), (answer.status_code, answer.json()["signed_in"]))

    def test_one_address_that_tries_many_names_has_to_wait(self) -> None:
        for number in range(3):
            self.sign_in(f"name-{number}", "guess", "10.0.0.1")
        answer = self.sign_in("pip", "a-long-one-7", "10.0.0.1")
        self.assertIn("Too many attempts", answer.json()["message"])
        self.assertEqual(200, self.sign_in("pip", "a-long-one-7", "10.0.0.2").status_code)

    def test_one_name_from_many_addresses_has_to_wait(self) -> None:
        for number in range(3):
            self.sign_in("pip", "guess", f"10.0.1.{number}")
        answer = self.sign_in("pip", "a-long-one-7", "10.0.1.9")
        self.assertIn("Too many attempts", answer.json()["message"])

    def test_an_address_cannot_be_made_up(self) -> None:
        for number in range(3):
            made_up = {"HTTP_X_FORWARDED_FOR": f"10.9.9.{number}"}
            self.sign_in(f"name-{number}", "guess", "10.0.0.1", **made_up)
        answer = self.sign_in("pip", "a-long-one-7", "10.0.0.1")
        self.assertIn("Too many attempts", answer.json()["message"])

    @override_settings(BEHIND_PROXY=True)
    def test_behind_a_proxy_its_word_counts_and_not_what_came_before(self) -> None:
        for number in range(3):
            told = {"HTTP_X_FORWARDED_FOR": f"10.9.9.{number}, 10.0.0.1"}
            self.sign_in(f"name-{number}", "guess", "127.0.0.1", **told)
        told = {"HTTP_X_FORWARDED_FOR": "10.0.0.1"}
        answer = self.sign_in("pip", "a-long-one-7", "127.0.0.1", **told)
        self.assertIn("Too many attempts", answer.json()["message"])
