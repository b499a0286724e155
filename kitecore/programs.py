"""Work on files of others, done in a program of its own under limits of memory and time.

What the program does and how it ends it tells in lines of JSON, so that whoever started it can show
progress and the reason of a refusal. A file that crashes or floods a decoder harms nobody.
"""

from __future__ import annotations

import ctypes
import gc
import json
import resource
import signal
from collections.abc import Callable
from time import monotonic
from typing import Final

from kitecore.errors import KiteError

Tell = Callable[[str, float], None]
"""Hears what is being done and the share of it that is done, 0..1."""

REFUSED: Final = 3
"""How a program ends that found a reason to refuse its file."""

GIB: Final = 2**30
_PR_SET_PDEATHSIG: Final = 1
_PAUSE = 0.25
"""Seconds between two lines about the same."""


def end_with_parent(how: int = signal.SIGKILL) -> None:
    """Have this process end when the one that started it does, by a signal (Linux' prctl)."""
    ctypes.CDLL(None).prctl(_PR_SET_PDEATHSIG, how)


def tell_nobody(doing: str, share: float) -> None:
    """For callers who do not care how far it is."""


def run_limited(work: Callable[[Tell], None], *, memory: int, cpu: int) -> int:
    """Do the work of a program; how it is to end.

    Parameters
    ----------
    work
        Gets something to tell its progress to.
    memory
        Bytes of address space.
    cpu
        Seconds.
    """
    resource.setrlimit(resource.RLIMIT_AS, (memory, memory))
    # First a signal that tells of the limit; a plain kill would look like one from outside.
    resource.setrlimit(resource.RLIMIT_CPU, (cpu, cpu + 5))
    try:
        work(_in_lines())
    except KiteError as error:
        told = {"code": error.code, "message": error.message}
        told |= {"safe": error.safe, "todo": error.todo}
        print(json.dumps({"refused": told}), flush=True)
        return REFUSED
    return 0


def _in_lines() -> Tell:
    last: tuple[float, str] = (0.0, "")

    def tell(doing: str, share: float) -> None:
        nonlocal last
        now = monotonic()
        if doing != last[1] or now - last[0] > _PAUSE:
            last = (now, doing)
            print(json.dumps({"doing": doing, "share": round(share, 3)}), flush=True)

    return tell


def settle() -> None:
    """Leave what a program has loaded out of all further searches for garbage, and begin with those.

    Called once a long-lived program is ready: a search through hundreds of thousands of objects that
    stay would hold up an answer for 0.2 s again and again. None is made before either: it would find
    two thousand of them.
    """
    gc.freeze()
    gc.enable()
