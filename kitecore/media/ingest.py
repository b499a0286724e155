"""Everything that happens to a fresh file, as a program of its own.

``python -m kitecore.media.ingest FOLDER`` reads FOLDER/original, writes what is known of it and its
copies, and tells of its progress in lines of JSON. It runs under limits of memory and time, so a
file that crashes or floods a decoder harms nobody.
"""

from __future__ import annotations

import json
import resource
import sys
from collections.abc import Callable
from pathlib import Path
from time import monotonic

from kitecore.errors import KiteError
from kitecore.media.folder import MediaFolder
from kitecore.media.peaks import make_peaks
from kitecore.media.pixels import fitting
from kitecore.media.probe import probe
from kitecore.media.proxy import make_proxy
from kitecore.media.soundcopy import make_sound_copy
from kitecore.media.still import read_still, resized
from kitecore.media.strips import StripMaker, over_ground
from kitecore.ticks import TICKS_PER_SECOND

MEMORY_LIMIT = 6 * 2**30
"""Bytes of address space."""
CPU_LIMIT = 6 * 3600
"""Seconds."""

Tell = Callable[[str, float], None]


def ingest(folder: MediaFolder, tell: Tell = lambda stage, share: None) -> None:
    """Probe the file, then make all its copies. ``tell`` hears the stage and its share done.

    Raises
    ------
    MediaError
    """
    tell("look", 0.0)
    info, index = probe(folder.original)
    if index is not None:
        index.save(folder.index_file)
    folder.info_file.write_text(info.model_dump_json())
    tell("known", 0.0)
    if info.sound is not None:
        make_sound_copy(folder, lambda share: tell("sound", share))
        make_peaks(folder)
        tell("waveform", 1.0)
    if info.kind == "video":
        make_proxy(folder, lambda share: tell("proxy", share))
    elif info.kind == "still" and info.picture is not None:
        size = fitting(info.picture.width, info.picture.height, 960)
        strip = StripMaker(folder, *size, TICKS_PER_SECOND // 2)
        strip.offer(0, over_ground(resized(read_still(folder), size)))
        strip.write()
    tell("ready", 1.0)


def _tell_in_lines() -> Tell:
    last: tuple[float, str] = (0.0, "")

    def tell(stage: str, share: float) -> None:
        nonlocal last
        now = monotonic()
        if stage != last[1] or now - last[0] > 0.25:
            last = (now, stage)
            print(json.dumps({"stage": stage, "share": round(share, 3)}), flush=True)

    return tell


def main(path: str) -> int:
    resource.setrlimit(resource.RLIMIT_AS, (MEMORY_LIMIT, MEMORY_LIMIT))
    resource.setrlimit(resource.RLIMIT_CPU, (CPU_LIMIT, CPU_LIMIT))
    try:
        ingest(MediaFolder(Path(path)), _tell_in_lines())
    except KiteError as error:
        told = {
            "code": error.code,
            "message": error.message,
            "safe": error.safe,
            "todo": error.todo,
        }
        print(json.dumps({"refused": told}), flush=True)
        return 3
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1]))
