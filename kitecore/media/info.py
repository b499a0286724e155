"""What is known about a file."""

from __future__ import annotations

from fractions import Fraction
from typing import Literal

from kitecore.model import Model
from kitecore.rates import FrameRate
from kitecore.ticks import RATES

Kind = Literal["video", "still", "sound"]


class Colours(Model):
    """Colour tags as FFmpeg's numbers (ITU-T H.273); 2 means not tagged.

    ``peak`` is the brightest light in cd/m² that a PQ take says it holds; 0 if it does not.
    """

    matrix: int = 2
    primaries: int = 2
    transfer: int = 2
    full_range: bool = False
    peak: float = 0.0


class Pace(Model):
    """Frames a second as a fraction; of takes with uneven pace the average."""

    num: int
    den: int = 1


class PictureInfo(Model):
    """Of the picture as it is shown: turned upright, square pixels.

    ``turn`` is the quarter turn (0, 90, 180, 270, clockwise) that makes it upright; after it what is
    ``mirrored`` is flipped left to right. ``stacked``: as proxies hold a picture with alpha, its
    premultiplied colours stand above its alpha, in grey. ``interlaced``: each frame is two fields.
    """

    width: int
    height: int
    turn: int = 0
    mirrored: bool = False
    codec: str = ""
    pixels: str = ""
    depth: int = 8
    alpha: bool = False
    stacked: bool = False
    interlaced: bool = False
    colours: Colours = Colours()
    rate: Pace | None = None
    variable: bool = False
    frames: int = 1


class SoundInfo(Model):
    codec: str
    rate: int
    channels: int


class Clock(Model):
    """When a file says it begins: ticks since midnight by its timecode, seconds since 1970."""

    timecode: int | None = None
    made_at: float | None = None


class MediaInfo(Model):
    """Length in ticks; for a still 0. ``remarks`` say what of the file could not be taken.

    ``proxy`` is the version of how its proxy was made, if it has one.
    """

    kind: Kind
    container: str
    length: int
    picture: PictureInfo | None = None
    sound: SoundInfo | None = None
    remarks: tuple[str, ...] = ()
    clock: Clock = Clock()
    proxy: int = 0

    def nearest_project_rate(self) -> FrameRate:
        """The rate a project gets when this take sets it."""
        if self.picture is None or self.picture.rate is None:
            return FrameRate()
        pace = Fraction(self.picture.rate.num, self.picture.rate.den)
        best = min(RATES, key=lambda rate: _strain(pace, Fraction(rate.num, rate.den)))
        return FrameRate(num=best.num, den=best.den)


def _strain(pace: Fraction, rate: Fraction) -> tuple[float, float]:
    """How badly pictures at a pace fit into a rate: at best each is shown for as many frames."""
    times = max(1, round(rate / pace))
    return round(abs(float(rate / pace / times) - 1), 4), float(rate)
