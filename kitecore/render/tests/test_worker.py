"""The process that draws, by what goes over its line."""

from __future__ import annotations

import tempfile
from multiprocessing import Pipe
from pathlib import Path
from threading import Thread
from unittest import TestCase
from unittest.mock import patch

from kitecore.document import dumps, empty_document
from kitecore.render import worker
from kitecore.render.questions import Request
from kitecore.render.worker import Asked, Failed, Stop, Unknown, serve

STILL = Request("still", "empty", 0, long_side=64)


class LineTest(TestCase):
    def setUp(self) -> None:
        folder = self.enterContext(tempfile.TemporaryDirectory())
        # Every look is one whether to stop.
        self.enterContext(patch.object(worker, "_GRACE", -1.0))
        self.enterContext(patch.object(worker, "_GLANCE", -1.0))
        self.line, theirs = Pipe()
        thread = Thread(target=serve, args=(theirs, Path(folder)))
        thread.start()
        self.addCleanup(thread.join)
        self.addCleanup(self.line.close)

    def ask(self, number: int) -> object:
        self.line.send(Asked(number, STILL))
        return self.line.recv()

    def test_a_document_is_told_once(self) -> None:
        self.assertEqual(Unknown("empty"), self.ask(1))
        self.line.send(("empty", dumps(empty_document())))
        for number in (2, 3):
            self.assertIsInstance(self.ask(number), bytes)

    def test_what_was_to_stop_an_earlier_one_is_late(self) -> None:
        self.line.send(("empty", dumps(empty_document())))
        self.line.send(Stop(1))
        self.assertIsInstance(self.ask(2), bytes)

    def test_the_one_in_hand_is_stopped_between_its_parts(self) -> None:
        connection, other = Pipe()
        look = worker._stopping(connection, 7)
        other.send(Stop(6))
        look()
        other.send(Stop(7))
        with self.assertRaises(worker.Superseded):
            look()

    def test_what_it_does_not_know_fails_plainly(self) -> None:
        self.line.send(("empty", dumps(empty_document())))
        self.line.send(Asked(1, Request("smell", "empty", 0)))
        self.assertIsInstance(self.line.recv(), Failed)
