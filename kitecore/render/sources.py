"""Open files and decoded pictures, kept while they are of use."""

from __future__ import annotations

from collections.abc import Callable, Hashable
from functools import partial
from typing import Any, TypeVar

import av
import numpy as np
from numpy.typing import NDArray

from kitecore.analysis.cut import Mattes, is_cut, read_mattes
from kitecore.analysis.pictures import Pictures as Looked
from kitecore.analysis.power import read_power
from kitecore.analysis.track import Track, smoothed
from kitecore.analysis.voice import read_voice
from kitecore.arrays import Coverage, Size
from kitecore.colour.looks import FindLook, shipped
from kitecore.document.cutouts import CutThrough
from kitecore.document.masks import MaskBase
from kitecore.document.trackers import Tracker
from kitecore.fonts import FindFont, shipped_font
from kitecore.kept import Kept, KeptOf
from kitecore.media.folder import FindMedia, MediaFolder
from kitecore.media.info import PictureInfo
from kitecore.media.pixels import (
    Rgb16,
    Rgba,
    cut_to_8,
    halved_of,
    is_deep,
    to_rgb16,
    to_rgba,
)
from kitecore.media.planes import Halved
from kitecore.media.proxy import PROXY_SIDE
from kitecore.media.still import halved, read_still, resized
from kitecore.picture.drawing.typefaces import Typefaces, typefaces
from kitecore.picture.masks import coverage
from kitecore.render.placing import OVER
from kitecore.render.readers import Readers
from kitecore.render.tables import Tables
from kitecore.sound.ramps import Samples
from kitecore.ticks import TICKS_PER_SECOND

KEPT_WINDOWS = 24
"""Stretches of sound whose pitch was kept (see `render.paced`)."""
KEPT_PLANS = 256
"""Grades whose passes are remembered (see `render.grading.plan_of`)."""
KEPT_VOICES = 64
KEPT_TRACKS = 256
KEPT_CUTS = 16
"""What strokes cut out of stills (see `render.cutting`)."""
KEPT_SOUND = 128 * 2**20
"""Bytes of sound after chains: of sixteen tracks, the four blocks that a piece of ten seconds asks for."""
PASSING = 64 * 2**20
"""Bytes of frames of videos where each is drawn but once or twice: two of 4K."""
TO_NEAREST = 0.5
ALIKE = 0.004
"""Share of the way to the next frame up to which nothing of that is to be seen."""
_NUDGE = TICKS_PER_SECOND // 100_000
"""Ten microseconds: a frame whose time was rounded up a little still counts as shown."""

W = TypeVar("W")


def _go_on() -> None:
    """Nobody asks for an end."""


class Pictures(Kept[Any]):
    """Arrays by key; what is kept is never written to."""

    def get(self, key: Hashable, make: Callable[[], W]) -> W:
        def frozen() -> W:
            made: Any = make()
            made.flags.writeable = False
            return made  # type: ignore[no-any-return]

        return super().get(key, frozen)


class Sources:
    """What a renderer draws from. One for each thread that renders.

    Parameters
    ----------
    find
        From a media id to its folder.
    draft
        Use proxies where they are large enough.
    cache_bytes
        Bound of the pictures kept.
    threads
        Of each decoder.
    find_look
        From a look's name to its table of colours.
    find_font
        From a font's name to its files.
    """

    def __init__(
        self,
        find: FindMedia,
        *,
        draft: bool = False,
        cache_bytes: int = 192 * 2**20,
        threads: int = 1,
        find_look: FindLook = shipped,
        find_font: FindFont = shipped_font,
    ) -> None:
        self._find = find
        self._find_font = find_font
        self.tables = Tables(find_look, draft=draft)
        self._draft = draft
        self._folders: dict[str, tuple[int, MediaFolder]] = {}
        self.readers = Readers(self.folder, threads)
        self.cache = Pictures(cache_bytes, lambda picture: picture.nbytes)
        # While somebody looks, a frame is drawn again and again; in a film it goes by.
        self._frames = self.cache if draft else Pictures(PASSING, lambda frame: frame.nbytes)
        self.stretches: Kept[Samples] = Kept(KEPT_WINDOWS)
        self.plans: KeptOf[Any] = KeptOf(KEPT_PLANS)
        self.sound_blocks: Kept[Samples] = Kept(KEPT_SOUND, lambda samples: samples.nbytes)
        self._voices: Kept[NDArray[np.uint8]] = Kept(KEPT_VOICES)
        self._tracks: Kept[Track] = Kept(KEPT_TRACKS)
        self._mattes: Kept[Mattes] = Kept(KEPT_TRACKS)
        self.cuts: Kept[Any] = Kept(KEPT_CUTS)
        self._powers: Kept[NDArray[np.float32]] = Kept(KEPT_VOICES)
        self.checkpoint: Callable[[], None] = _go_on
        """Called between parts of the work; whoever wants an end of it raises an error here."""
        self.rounding = TO_NEAREST
        """Share of a level that is added where what has more bits is cut to 8 (`render.deep`)."""

    def folder(self, media: str) -> MediaFolder:
        return self._known(media)[1]

    def stamp(self, media: str) -> int:
        """Another number each time that a take is taken in: keys of what is read from it hold it."""
        return self._known(media)[0]

    def _known(self, media: str) -> tuple[int, MediaFolder]:
        """The stamp and the folder of a take; readers of one that was taken in anew are closed."""
        known = self._folders.get(media)
        if known is None or known[0] != known[1].stamp:
            folder = self._find(media)
            self.readers.forget(media)
            known = self._folders[media] = (folder.stamp, folder)
        return known

    def picture(self, media: str) -> PictureInfo:
        found = self.folder(media).info.picture
        assert found is not None
        return found

    def voice(self, media: str) -> NDArray[np.uint8]:
        """How surely somebody speaks in a take, as `analysis.voice` tells it."""
        stamp, folder = self._known(media)
        return self._voices.get((media, stamp), lambda: read_voice(folder))

    def power(self, media: str) -> NDArray[np.float32]:
        """How strong a take sounds, as `analysis.power` tells it."""
        stamp, folder = self._known(media)
        return self._powers.get((media, stamp), lambda: read_power(folder))

    def track(self, media: str, tracker: Tracker) -> Track:
        """Where something is in each frame of a take, evened out as the tracker says."""
        stamp, folder = self._known(media)
        key = (media, stamp, tracker)
        return self._tracks.get(key, lambda: smoothed(folder, tracker))

    def mattes(self, media: str, through: CutThrough) -> Mattes | None:
        """What is cut out of each frame of a take; where one only looks, none until it is found."""
        stamp, folder = self._known(media)
        key = (media, stamp, through)
        known = self._mattes.find(key)
        if known is None and (not self._draft or is_cut(folder, through)):
            known = self._mattes.get(key, lambda: read_mattes(folder, through))
        return known

    def frame_number(self, media: str, tick: int) -> int:
        """Number of a video's frame shown at ``tick`` of the file."""
        return self.folder(media).index.frame_at(tick + _NUDGE)

    def between(self, media: str, tick: int) -> tuple[int, float]:
        """The last frame that begins before ``tick``, and the share of the way to the next.

        From one shot to another there is no way: the last frame of the first stands until then.
        """
        folder = self.folder(media)
        index = folder.index
        number = index.frame_at(tick + _NUDGE)
        if number + 1 >= len(index):
            return number, 0.0
        begin, end = int(index.times[number]), int(index.times[number + 1])
        share = min(max((tick - begin) / (end - begin), 0.0), 1.0)
        if number + 1 in folder.shots:
            return number, 0.0
        return number, share if share >= ALIKE else 0.0

    def decoded(
        self, media: str, number: int, lane: str, size: Size
    ) -> tuple[av.VideoFrame, PictureInfo]:
        """A frame as decoded, from the proxy or the original, and how to read its pixels.

        ``lane`` tells apart clips that use one file at different places at the same time.
        """
        reader = self.readers.of(media, lane, self._use_proxy(media, size))
        return reader.frame(number), reader.picture

    def video(self, media: str, number: int, lane: str, size: Size) -> Rgba:
        """Frame ``number`` of a video, made ``size``."""

        def decode() -> Rgba:
            frame, picture = self.decoded(media, number, lane, size)
            return to_rgba(frame, picture, size)

        def cut() -> Rgba:
            return cut_to_8(self.video16(media, number, lane, size), self.rounding)

        exact = self.rounding == TO_NEAREST or not is_deep(self.picture(media))
        key = (media, self.stamp(media), number, size)
        return self._frames.get(key, decode) if exact else cut()

    def looked_at(self, media: str, number: int, lane: str) -> Rgba:
        """A frame as analyses look at it: the same in a draft as in what is sent."""
        reader = self.readers.of(media, lane, self.folder(media).proxy.exists())
        return Looked(reader).colours(number)

    def video16(self, media: str, number: int, lane: str, size: Size) -> Rgb16:
        """The same in 16 bits, RGB, for sources of more than 8."""

        def decode() -> Rgb16:
            frame, picture = self.decoded(media, number, lane, size)
            return to_rgb16(frame, picture, size)

        return self._frames.get((media, self.stamp(media), number, size, "deep"), decode)

    def halved(self, media: str, number: int, lane: str, size: Size) -> Halved | None:
        """The same as planes, if they need nothing more than to be scaled."""
        return halved_of(*self.decoded(media, number, lane, size), size)

    def still(self, media: str, size: Size, *, passing: bool = False) -> Rgba:
        """A still, made ``size``. It is decoded once; sizes are made from that.

        ``passing``: in a size that is hardly asked for again, made from halves that are kept.
        """

        def make() -> Rgba:
            return resized(self.cache.get(media, lambda: read_still(self.folder(media))), size)

        if passing:
            return resized(self._large_enough(media, size), size)
        return self.cache.get((media, size), make)

    def _large_enough(self, media: str, size: Size) -> Rgba:
        """The smallest of a still's halves that is at least as large as ``size``."""
        picture = self.cache.get(media, lambda: read_still(self.folder(media)))
        level = 0
        while picture.shape[1] >= 2 * size[0] and picture.shape[0] >= 2 * size[1]:
            level += 1
            picture = self.cache.get((media, "half", level), partial(halved, picture))
        return picture

    @property
    def faces(self) -> Typefaces:
        """Fonts for text; the process opens them once."""
        return typefaces(self._find_font)

    def coverage(
        self, masks: tuple[MaskBase, ...], width: int, height: int, aspect: float
    ) -> Coverage:
        """What masks without keys let through, kept as long as they are asked for."""
        key = (tuple(mask.model_dump_json() for mask in masks), width, height, aspect)
        found: Coverage = self.cache.get(key, lambda: coverage(masks, width, height, aspect))
        return found

    def _use_proxy(self, media: str, size: Size) -> bool:
        picture = self.picture(media)
        small = max(size) <= min(PROXY_SIDE * OVER, max(picture.width, picture.height))
        return self._draft and small and self.folder(media).proxy.exists()

    def close(self) -> None:
        self.readers.close()
