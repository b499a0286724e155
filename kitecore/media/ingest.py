"""Everything that happens to a fresh file before it can be used, as a program of its own.

``python -m kitecore.media.ingest FOLDER`` reads FOLDER/original, writes what is known of it and its
copies. Progress and refusals are told as `kitecore.programs` says.
"""

from __future__ import annotations

import sys
from pathlib import Path

from kitecore.media.folder import MediaFolder
from kitecore.media.info import MediaInfo
from kitecore.media.probe import probe
from kitecore.media.proxy import make_proxy
from kitecore.media.soundcopy import make_sound_copy
from kitecore.media.whole import whole_file
from kitecore.programs import GIB, Tell, run_limited, tell_nobody

MEMORY_LIMIT = 6 * GIB
CPU_LIMIT = 6 * 3600
"""Seconds."""


def ingest(folder: MediaFolder, tell: Tell = tell_nobody) -> None:
    """Probe the file, then make its copies. ``tell`` hears the stage and its share done.

    Raises
    ------
    MediaError
    """
    tell("look", 0.0)
    info, index = probe(folder.original)
    if index is not None:
        with whole_file(folder.index_file) as unfinished:
            index.save(unfinished)
    _keep(folder, info)
    tell("known", 0.0)
    if info.sound is not None:
        lost = make_sound_copy(folder, lambda share: tell("sound", share))
        if lost:
            _keep(folder, info.model_copy(update={"remarks": (*info.remarks, lost_sound(lost))}))
            tell("remarked", 0.0)
    if info.kind == "video":
        make_proxy(folder, lambda share: tell("proxy", share))
    tell("ready", 1.0)


def _keep(folder: MediaFolder, info: MediaInfo) -> None:
    with whole_file(folder.info_file) as unfinished:
        unfinished.write_text(info.model_dump_json())


def lost_sound(packets: int) -> str:
    """What is said of a take whose sound could not be read everywhere."""
    places = "a place" if packets == 1 else f"{packets} places"
    return f"Its sound is damaged in {places} and silent there."


def main(path: str) -> int:
    folder = MediaFolder(Path(path))
    return run_limited(lambda tell: ingest(folder, tell), memory=MEMORY_LIMIT, cpu=CPU_LIMIT)


if __name__ == "__main__":
    sys.exit(main(sys.argv[1]))
