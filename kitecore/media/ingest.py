"""Everything that happens to a fresh file before it can be used, as a program of its own.

``python -m kitecore.media.ingest FOLDER`` reads FOLDER/original, writes what is known of it and its
copies; with ``proxy`` behind it only the proxy is made, anew. Progress and refusals are told as
`kitecore.programs` says.
"""

from __future__ import annotations

import sys
from pathlib import Path

from kitecore.media.folder import MediaFolder
from kitecore.media.index import FrameIndex
from kitecore.media.info import MediaInfo
from kitecore.media.moving import is_moving, unfold
from kitecore.media.probe import probe
from kitecore.media.proxy import PROXY_VERSION, make_proxy
from kitecore.media.sniff import family_of
from kitecore.media.soundcopy import make_sound_copy, sound_length
from kitecore.media.whole import whole_file
from kitecore.media.wishes import as_wished, wishes_of
from kitecore.programs import GIB, Tell, run_limited, tell_nobody
from kitecore.ticks import TICKS_PER_SECOND

MEMORY_LIMIT = 6 * GIB
CPU_LIMIT = 6 * 3600
"""Seconds."""
_RUN_OUT = TICKS_PER_SECOND // 10
"""By so much the last packet of a sound may reach beyond the picture."""


def ingest(folder: MediaFolder, tell: Tell = tell_nobody) -> None:
    """Probe the file, then make its copies. ``tell`` hears the stage and its share done.

    Raises
    ------
    MediaError
    """
    tell("look", 0.0)
    info, index = _known(folder, tell)
    info = as_wished(info, wishes_of(folder))
    if index is not None:
        with whole_file(folder.index_file) as unfinished:
            index.save(unfinished)
    _keep(folder, info)
    tell("known", 0.0)
    if info.sound is not None:
        lost = make_sound_copy(folder, lambda share: tell("sound", share))
        heard = as_heard(info, sound_length(folder), lost)
        if heard != info:
            _keep(folder, heard)
            tell("remarked", 0.0)
    if info.kind == "video":
        renew_proxy(folder, tell)
    tell("ready", 1.0)


def renew_proxy(folder: MediaFolder, tell: Tell = tell_nobody) -> None:
    """Make the proxy of a video, in place of one that may be there, and note how it was made."""
    make_proxy(folder, lambda share: tell("proxy", share))
    info = MediaInfo.model_validate_json(folder.info_file.read_bytes())
    _keep(folder, info.model_copy(update={"proxy": PROXY_VERSION}))


def _known(folder: MediaFolder, tell: Tell) -> tuple[MediaInfo, FrameIndex | None]:
    """What a file is; the pictures of one that moves are taken apart for it."""
    if not is_moving(folder.original):
        return probe(folder.original)
    clear = unfold(folder, lambda share: tell("look", share))
    info, index = probe(folder.film)
    family = family_of(folder.original)
    picture = info.picture and info.picture.model_copy(update={"alpha": clear, "codec": family})
    return info.model_copy(update={"container": family, "picture": picture}), index


def _keep(folder: MediaFolder, info: MediaInfo) -> None:
    with whole_file(folder.info_file) as unfinished:
        unfinished.write_text(info.model_dump_json())


def as_heard(info: MediaInfo, heard: int, lost: int) -> MediaInfo:
    """What is known of a take once its sound is decoded.

    A sound is as long as it is heard, whatever its file says; a video with clearly longer sound as
    long as that, its last frame standing meanwhile.

    Parameters
    ----------
    heard
        Ticks from the start of the file until its sound ends.
    lost
        Packets of it that could not be decoded.
    """
    longer = info.kind == "sound" or heard > info.length + _RUN_OUT
    return info.model_copy(
        update={
            "length": heard if longer and heard else info.length,
            "remarks": (*info.remarks, lost_sound(lost)) if lost else info.remarks,
        }
    )


def lost_sound(packets: int) -> str:
    """What is said of a take whose sound could not be read everywhere."""
    places = "a place" if packets == 1 else f"{packets} places"
    return f"Its sound is damaged in {places} and silent there."


def main(path: str, only: str = "") -> int:
    work = renew_proxy if only == "proxy" else ingest
    folder = MediaFolder(Path(path))
    return run_limited(lambda tell: work(folder, tell), memory=MEMORY_LIMIT, cpu=CPU_LIMIT)


if __name__ == "__main__":
    sys.exit(main(*sys.argv[1:]))
