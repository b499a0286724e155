"""A line between a browser and the site that can be cut."""

from __future__ import annotations

import socket
from contextlib import suppress
from threading import Thread


class Cable:
    """Passes on what comes to its own port; ``base`` is the site's address behind it."""

    def __init__(self, host: str, port: int) -> None:
        self._site = (host, port)
        self._ends: list[socket.socket] = []
        self._door = socket.create_server(("127.0.0.1", 0))
        self.base = f"http://127.0.0.1:{self._door.getsockname()[1]}"
        Thread(target=self._open, daemon=True).start()

    def cut(self) -> None:
        """No line is open any more, and none can be opened."""
        for end in (self._door, *self._ends):
            with suppress(OSError):
                end.shutdown(socket.SHUT_RDWR)
            end.close()

    def _open(self) -> None:
        with suppress(OSError):
            while True:
                near = self._door.accept()[0]
                far = socket.create_connection(self._site)
                self._ends += [near, far]
                for pair in ((near, far), (far, near)):
                    Thread(target=_pass_on, args=pair, daemon=True).start()


def _pass_on(near: socket.socket, far: socket.socket) -> None:
    with suppress(OSError):
        while data := near.recv(2**16):
            far.sendall(data)
    with suppress(OSError):
        far.shutdown(socket.SHUT_WR)
