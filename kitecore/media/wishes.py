"""What a person knows better of a take than its file says; kept beside it."""

from __future__ import annotations

from kitecore.media.folder import MediaFolder
from kitecore.media.info import MediaInfo
from kitecore.media.whole import whole_file
from kitecore.model import Model


class Wishes(Model):
    """``two_fields``: whether each frame is two fields; None leaves it to the file."""

    two_fields: bool | None = None


def wishes_of(folder: MediaFolder) -> Wishes:
    try:
        return Wishes.model_validate_json(folder.wishes_file.read_bytes())
    except FileNotFoundError:
        return Wishes()


def keep_wishes(folder: MediaFolder, wishes: Wishes) -> None:
    """They count from the next time on that the file is taken in."""
    with whole_file(folder.wishes_file) as unfinished:
        unfinished.write_text(wishes.model_dump_json())


def as_wished(info: MediaInfo, wishes: Wishes) -> MediaInfo:
    """What is known of a take, with what was wished in place of what its file says."""
    if wishes.two_fields is None or info.picture is None or info.kind != "video":
        return info
    picture = info.picture.model_copy(update={"interlaced": wishes.two_fields})
    return info.model_copy(update={"picture": picture})
