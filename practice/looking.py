"""What a file is that somebody sent: ``python -m practice.looking FILE COVER SECONDS``, under limits.

Files of others are opened in a program of their own, which may die of them.
"""

from __future__ import annotations

import json
import math
import resource
import subprocess
import sys
from dataclasses import asdict, dataclass
from itertools import chain
from pathlib import Path
from typing import Final

PATIENCE: Final = 90
"""Seconds of a processor that a file may take."""
_MEMORY: Final = 3 * 2**30
_MATROSKA: Final = b"\x1aE\xdf\xa3"


@dataclass(frozen=True)
class Facts:
    """A film; ``codec`` is empty where there is none, ``loudness`` None where nothing is heard."""

    codec: str = ""
    width: int = 0
    height: int = 0
    seconds: float = 0.0
    loudness: float | None = None


def look(film: Path, cover: Path, cover_at: float) -> Facts:
    """The facts of a film; its cover is written beside it."""
    command = [sys.executable, "-m", "practice.looking", str(film), str(cover), str(cover_at)]
    try:
        done = subprocess.run(
            command,
            cwd=Path(__file__).resolve().parents[1],
            capture_output=True,
            timeout=2 * PATIENCE,
            check=True,
        )
        return Facts(**json.loads(done.stdout))
    except (subprocess.SubprocessError, ValueError, TypeError):
        return Facts()


def type_of(film: Path) -> str:
    """The media type of a film by its first bytes: Matroska's (RFC 8794), else what has boxes."""
    with film.open("rb") as file:
        return "video/webm" if file.read(4) == _MATROSKA else "video/mp4"


def facts_of(film: Path, cover: Path, cover_at: float) -> Facts:
    import av

    with av.open(str(film)) as container:
        video = container.streams.video[0]
        seconds = (container.duration or 0) / av.time_base
        facts = Facts(
            codec=video.codec_context.name.removeprefix("lib").split("-")[0],
            width=video.width,
            height=video.height,
            seconds=seconds,
        )
        at = min(cover_at, max(0.0, seconds - 0.2))
        container.seek(int(at * av.time_base))
        reached = (frame for frame in container.decode(video) if (frame.time or 0.0) >= at - 0.02)
        next(reached).to_image().save(cover, quality=85)
    loudness = _loudness_of(film)
    return Facts(**asdict(facts) | {"loudness": loudness})


def _loudness_of(film: Path) -> float | None:
    """Of the whole, in LUFS, by FFmpeg's own meter (EBU R 128)."""
    import av
    import av.filter

    with av.open(str(film)) as container:
        if not container.streams.audio:
            return None
        stream = container.streams.audio[0]
        graph = av.filter.Graph()
        source = graph.add_abuffer(template=stream)
        meter = graph.add("ebur128", "metadata=1")
        sink = graph.add("abuffersink")
        source.link_to(meter)
        meter.link_to(sink)
        graph.configure()
        told = -math.inf
        for frame in chain(container.decode(stream), [None]):
            graph.push(frame)
            while True:
                try:
                    heard = graph.pull()
                except (av.error.BlockingIOError, av.error.EOFError):
                    break
                told = float(heard.metadata.get("lavfi.r128.I", told))
    return None if math.isinf(told) or told <= -70 else told


if __name__ == "__main__":
    resource.setrlimit(resource.RLIMIT_AS, (_MEMORY, _MEMORY))
    resource.setrlimit(resource.RLIMIT_CPU, (PATIENCE, PATIENCE))
    found = facts_of(Path(sys.argv[1]), Path(sys.argv[2]), float(sys.argv[3]))
    print(json.dumps(asdict(found)))
