"""The test runner: Django's own, and a summary line."""

from __future__ import annotations

import os
import shutil
import tempfile
from pathlib import Path
from typing import Any

from django.conf import settings
from django.test.runner import DiscoverRunner
from hypothesis import HealthCheck
from hypothesis import settings as hypothesis_settings

# How long an example takes says nothing on a busy machine. Set before tests are read in.
hypothesis_settings.register_profile(
    "untimed", deadline=None, suppress_health_check=[HealthCheck.too_slow]
)
hypothesis_settings.load_profile("untimed")


class Runner(DiscoverRunner):
    """Says at the end how many tests passed, failed and were skipped."""

    def setup_test_environment(self, **kwargs: Any) -> None:
        super().setup_test_environment(**kwargs)
        settings.AXES_ENABLED = False

    def teardown_test_environment(self, **kwargs: Any) -> None:
        super().teardown_test_environment(**kwargs)
        if settings.DATA_DIR.is_relative_to(tempfile.gettempdir()):
            shutil.rmtree(settings.DATA_DIR, ignore_errors=True)

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
        return super().suite_result(suite, result, **kwargs)
