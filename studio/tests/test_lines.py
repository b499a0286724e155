"""Lines that stall, and bodies that are too large, cost the others nothing."""

from __future__ import annotations

import socket
from contextlib import ExitStack
from unittest import TestCase

from studio.listening import FORM, MB, STRANGER, limit_of
from studio.tests.serving import Served

HEADERS = "Host: localhost\r\nContent-Type: application/json\r\n"
SESSION = "Cookie: sessionid=of-somebody\r\n"


class LimitTest(TestCase):
    def test_a_body_may_be_as_large_as_its_address_asks_for(self) -> None:
        for path, limit in (
            ("/api/uploads/1", 64 * MB),
            ("/api/kit/looks", 81 * MB),
            ("/api/kit/looks/1", FORM),
            ("/api/projects/1/edits", 9 * MB),
            ("/api/projects/1/revisions/2/still", 9 * MB),
            ("/api/projects", FORM),
            ("/", FORM),
        ):
            with self.subTest(path):
                self.assertEqual(limit, limit_of(path, "sessionid=1"))
                self.assertEqual(STRANGER, limit_of(path, "csrftoken=1"))

    def test_parts_for_the_practice_feed_come_without_a_session(self) -> None:
        self.assertEqual(MB // 2, limit_of("/practice/api/uploads/1/parts/2", ""))
        self.assertEqual(FORM, limit_of("/practice/api/posts/1", ""))


class LinesTest(Served):
    def line(self, stack: ExitStack, sent: str) -> socket.socket:
        host, port = self.base.removeprefix("http://").split(":")
        line = stack.enter_context(socket.create_connection((host, int(port)), timeout=30))
        line.sendall(sent.encode())
        return line

    def test_stalled_lines_stop_nobody(self) -> None:
        upload = "PATCH /api/uploads/1 HTTP/1.1\r\nContent-Length: 16000000\r\n"
        with ExitStack() as stack:
            for _ in range(100):
                self.line(stack, f"{upload}{HEADERS}{SESSION}\r\nbegun")
                self.line(stack, f"GET /api/health HTTP/1.1\r\n{HEADERS}")
                self.line(stack, "")
            for _ in range(20):
                self.assertTrue(self.call("GET", "/api/health")["ok"])

    def test_what_is_too_large_is_refused_before_it_comes(self) -> None:
        for cookies, path, length in (
            ("", "/api/session", 500 * MB),
            ("", "/api/uploads/1", STRANGER + 1),
            (SESSION, "/api/projects", FORM + 1),
            (SESSION, "/api/uploads/1", 65 * MB),
        ):
            head = f"POST {path} HTTP/1.1\r\nContent-Length: {length}\r\n{HEADERS}{cookies}\r\n"
            with self.subTest(path, length=length), ExitStack() as stack:
                self.assertIn(b" 413 ", self.line(stack, head).recv(100))

    def test_nor_does_a_body_of_unknown_length_go_on_for_ever(self) -> None:
        head = f"POST /api/session HTTP/1.1\r\nTransfer-Encoding: chunked\r\n{HEADERS}\r\n"
        with ExitStack() as stack:
            line = self.line(stack, head)
            try:
                for _ in range(50):
                    line.sendall(b"2000\r\n" + bytes(0x2000) + b"\r\n")
                answer = line.recv(100)
            except (ConnectionResetError, BrokenPipeError):
                # The line was closed while more was sent than anybody would take.
                answer = b" 413 "
        self.assertIn(b" 413 ", answer)
        self.assertTrue(self.call("GET", "/api/health")["ok"])

    def test_bodies_that_fit_are_heard(self) -> None:
        body = "x" * 1000
        head = f"POST /api/session HTTP/1.1\r\nContent-Length: 1000\r\n{HEADERS}\r\n"
        with ExitStack() as stack:
            answer = self.line(stack, head + body).recv(100)
        self.assertNotIn(b" 413 ", answer)
        self.assertIn(b"HTTP/1.1 4", answer)
