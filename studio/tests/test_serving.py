"""The two programs of the site are brought back when they die, and go with the one that runs them."""

from __future__ import annotations

import os
import signal

from studio.tests.serving import Served, alive, below, children


class ServingTest(Served):
    def part(self, word: str) -> int | None:
        """The program of the site that is started with a word."""
        found = children(self.served.pid).items()
        return next((pid for pid, command in found if word in command), None)

    def test_each_is_brought_back_alone_and_both_end_with_their_keeper(self) -> None:
        self.until(lambda: len(set(below(self.part("run_huey") or 0))) > 1, what="no workers came")
        workers = set(below(self.part("run_huey") or 0))
        before = {word: self.part(word) for word in ("studio.listening", "run_huey")}
        for word, pid in before.items():
            assert pid is not None
            os.kill(pid, signal.SIGKILL)
            self.until(lambda word=word, old=pid: self.part(word) not in (None, old))
        self.until(self.answers)
        self.until(lambda: self.call("GET", "/api/health")["worker"], what="no sign of the worker")
        self.assertTrue(self.call("GET", "/api/health")["drawing"])
        after = [self.part(word) for word in before]
        self.assertFalse(set(before.values()) & set(after))
        self.until(lambda: not any(alive(pid) for pid in workers), what="workers were left behind")
        self.served.kill()
        self.until(lambda: not any(alive(pid) for pid in after if pid))
