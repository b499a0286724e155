"""Where the parts of a take lie: one folder a take, names fixed here."""

from __future__ import annotations

import json
import shutil
from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property
from pathlib import Path

from kitecore.errors import MediaMissing
from kitecore.media.index import FrameIndex
from kitecore.media.info import MediaInfo


@dataclass(frozen=True)
class MediaFolder:
    """A take on disk: the file as it came, what is known of it, and the copies made of it."""

    path: Path

    @property
    def original(self) -> Path:
        return self.path / "original"

    @property
    def unfolded(self) -> Path:
        """The pictures of a moving GIF, WebP and the like as a film, without loss."""
        return self.path / "unfolded.mkv"

    @property
    def film(self) -> Path:
        """What frames are read from."""
        return self.unfolded if self.unfolded.exists() else self.original

    @property
    def proxy(self) -> Path:
        """Small video whose frame ``n`` is frame ``n`` of the original, upright, BT.709."""
        return self.path / "proxy.mp4"

    @property
    def sound(self) -> Path:
        """All of the sound, decoded: float32 stereo at 48 kHz, from the start of the file."""
        return self.path / "sound.f32"

    @cached_property
    def info_file(self) -> Path:
        """Looked at for each picture of each clip, so it is put together once."""
        return self.path / "info.json"

    @property
    def wishes_file(self) -> Path:
        """What a person knows better than the file."""
        return self.path / "wishes.json"

    @property
    def stamp(self) -> int:
        """Another number each time that what is known of the take is written; 0 if nothing is."""
        try:
            return self.info_file.stat().st_mtime_ns
        except FileNotFoundError:
            return 0

    @property
    def index_file(self) -> Path:
        return self.path / "frames.npz"

    @property
    def shots_file(self) -> Path:
        return self.path / "shots.json"

    def forget_copies(self) -> None:
        """Remove all that was made of the file, and all that was begun and is not whole.

        What was wished stays.
        """
        for path in self.path.iterdir():
            if path not in (self.original, self.wishes_file):
                shutil.rmtree(path) if path.is_dir() else path.unlink(missing_ok=True)

    @cached_property
    def info(self) -> MediaInfo:
        try:
            return MediaInfo.model_validate_json(self.info_file.read_bytes())
        except FileNotFoundError as error:
            raise MediaMissing("This take is not ready, or its file is missing.") from error

    @cached_property
    def index(self) -> FrameIndex:
        try:
            return FrameIndex.load(self.index_file)
        except FileNotFoundError as error:
            raise MediaMissing("This take is not ready, or its file is missing.") from error

    @cached_property
    def shots(self) -> frozenset[int]:
        """Numbers of the frames that begin another shot, as far as that is known."""
        try:
            return frozenset(json.loads(self.shots_file.read_text()))
        except (FileNotFoundError, ValueError):
            return frozenset()


FindMedia = Callable[[str], MediaFolder]
"""From a media id in a document to its folder."""
