"""The test runner: Django's own, and a summary line with the tests that took longest."""

from __future__ import annotations

import os
import shutil
import tempfile
from pathlib import Path
from time import monotonic
from typing import Any, Final
from unittest import TestCase, TextTestResult

from django.conf import settings
from django.contrib.auth.hashers import Argon2PasswordHasher, get_hashers, get_hashers_by_algorithm
from django.test.runner import DiscoverRunner
from hypothesis import HealthCheck
from hypothesis import settings as hypothesis_settings

# How long an example takes says nothing on a busy machine. Set before tests are read in.
hypothesis_settings.register_profile(
    "untimed", deadline=None, suppress_health_check=[HealthCheck.too_slow]
)
hypothesis_settings.load_profile("untimed")


SLOW: Final = 20.0
"""Seconds from which on a test is named at the end."""


class QuickHasher(Argon2PasswordHasher):
    """The site's own way with the least of work: a quarter of a second for each password adds up."""

    time_cost = 1
    memory_cost = 8
    parallelism = 1


class Timed(TextTestResult):
    """Knows how long each test took."""

    def __init__(self, *given: Any, **more: Any) -> None:
        super().__init__(*given, **more)
        self.taken: list[tuple[float, str]] = []
        self._began = 0.0

    def startTest(self, test: TestCase) -> None:  # noqa: N802
        self._began = monotonic()
        super().startTest(test)

    def stopTest(self, test: TestCase) -> None:  # noqa: N802
        super().stopTest(test)
        # Of the class, since tests may have something of their own by that name.
        self.taken.append((monotonic() - self._began, TestCase.id(test)))


class Runner(DiscoverRunner):
    """Says at the end how many tests passed, failed and were skipped."""

    def setup_test_environment(self, **kwargs: Any) -> None:
        super().setup_test_environment(**kwargs)
        settings.AXES_ENABLED = False
        settings.PASSWORD_HASHERS = [f"{QuickHasher.__module__}.{QuickHasher.__qualname__}"]
        get_hashers.cache_clear()
        get_hashers_by_algorithm.cache_clear()

    def teardown_test_environment(self, **kwargs: Any) -> None:
        super().teardown_test_environment(**kwargs)
        if settings.DATA_DIR.is_relative_to(tempfile.gettempdir()):
            shutil.rmtree(settings.DATA_DIR, ignore_errors=True)

    def get_resultclass(self) -> Any:
        return super().get_resultclass() or Timed

    def suite_result(self, suite: Any, result: Any, **kwargs: Any) -> int:
        # A test that failed in several of its parts is one test.
        failed = [test for test, _ in (*result.failures, *result.errors)]
        failed += result.unexpectedSuccesses
        bad = len({getattr(test, "test_case", test).id() for test in failed})
        skipped = len(result.skipped)
        summary = f"{result.testsRun - bad - skipped} passed, {bad} failed"
        if skipped:
            summary += f", {skipped} skipped"
        if path := os.environ.get("VELVET_KITE_SUMMARY"):
            Path(path).write_text(summary + "\n")
        self.log(summary)
        for seconds, name in sorted(getattr(result, "taken", ()), reverse=True):
            if seconds >= SLOW:
                self.log(f"{seconds:6.0f} s {name}")
        return super().suite_result(suite, result, **kwargs)
