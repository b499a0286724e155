"""The finished demo piece as the edits that a person would make."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Any

from kitecore.document import ClipBase, Place, SolidClip, SoundClip, StillClip, VideoClip
from kitecore.document.ease import Bezier, Ease, Steady
from kitecore.document.fills import PlainFill
from kitecore.document.properties import Key, NumberKeys, PointKeys, SpotKey
from kitecore.edits import EditBase, edit_kinds
from kitecore.ticks import Rate

NAME = "Four folds up"
CAMERAS = "Two cameras"
CAMERA_TAKES = ("card-log.mp4", "card-cold.mp4")
_RATE = Rate(30)
_SOFT: Ease = Bezier(x1=0.4, y1=0, x2=0.2, y2=1)


@dataclass(frozen=True)
class Source:
    """A take as the piece uses it: media id, and length in ticks (0 for a still)."""

    media: str
    length: int


def ticks_of(seconds: float) -> int:
    """Of the demo's frame nearest to a time."""
    return _RATE.nearest(round(seconds * _RATE.frame_ticks * 30))


def _points(*keys: tuple[float, tuple[float, float]]) -> PointKeys:
    return PointKeys(
        keys=tuple(SpotKey(at=ticks_of(at), value=value, ease=_SOFT) for at, value in keys)
    )


def _numbers(*keys: tuple[float, float]) -> NumberKeys:
    return NumberKeys(
        keys=tuple(Key(at=ticks_of(at), value=value, ease=Steady()) for at, value in keys)
    )


def edits_of(takes: Mapping[str, Source]) -> Iterator[EditBase]:
    """The edits, in order; ``takes`` by file name."""

    def video(name: str, begin: float, seconds: float, **more: Any) -> ClipBase:
        take = takes[name]
        return VideoClip(
            name=name.split(".")[0],
            media=take.media,
            source_in=ticks_of(begin),
            length=ticks_of(seconds),
            source_length=take.length,
            **more,
        )

    def still(name: str, seconds: float, **more: Any) -> ClipBase:
        return StillClip(
            name=name.split(".")[0], media=takes[name].media, length=ticks_of(seconds), **more
        )

    def sound(name: str, seconds: float, begin: float = 0, **more: Any) -> ClipBase:
        take = takes[name]
        length = min(ticks_of(seconds), take.length // _RATE.frame_ticks * _RATE.frame_ticks)
        return SoundClip(
            name=name.split(".")[0],
            media=take.media,
            source_in=ticks_of(begin),
            length=length,
            source_length=take.length,
            **more,
        )

    place = edit_kinds["place"]
    rename, add = edit_kinds["set_track"], edit_kinds["add_track"]
    for clip in (
        video("workbench.mp4", 0.6, 3.6, gain=-10),
        video("window.mp4", 0.4, 2.6),
        video("bird-sideways.mov", 0.2, 2.8),
        video("reel-uneven.mp4", 0.3, 1.8),
        video("launch.mp4", 0.5, 4.2, gain=-8),
        still(
            "evening-sheet.jpg",
            3.0,
            place=Place(fit="fill", size=_points((0, (1.0, 1.0)), (3, (1.12, 1.12)))),
        ),
    ):
        yield place(clip=clip, mode="end")
    yield add(seed="voice", track="sound")
    yield rename(track="voice", name="Voice")
    wide = Place(position=(0, 520), size=(0.92, 0.92), turn=-3)
    yield place(
        clip=video("harbour-wide.mp4", 0.5, 2.2, place=wide, gain=-60),
        mode="above",
        at=ticks_of(3.9),
    )
    flight = Place(
        position=_points((0, (-620, 900)), (1.6, (40, -120)), (3.0, (160, -420))),
        size=(0.62, 0.62),
        turn=_numbers((0, -34), (1.6, -12), (3.0, -20)),
    )
    yield place(clip=still("kite-cutout.png", 3.0, place=flight), mode="above", at=ticks_of(15.0))
    yield add(seed="veil", track="picture")
    yield rename(track="veil", name="Veil")
    dark = SolidClip(
        name="to dark",
        fill=PlainFill(colour="#17141a"),
        length=ticks_of(0.8),
        opacity=_numbers((0, 0), (0.8, 1)),
    )
    yield place(clip=dark, mode="over", at=ticks_of(17.2), track="veil")
    yield place(
        clip=sound(
            "paper-weather-loop.wav", 18, gain=-7, fade_in=ticks_of(0.3), fade_out=ticks_of(1.6)
        ),
        mode="above",
        at=0,
    )
    yield place(
        clip=sound("spoken-line.wav", 9, gain=2), mode="over", at=ticks_of(6.5), track="voice"
    )
    yield place(
        clip=sound("paper-rustle.flac", 2.6, gain=-9, fade_out=ticks_of(0.4)),
        mode="over",
        at=ticks_of(0.4),
        track="voice",
    )


def camera_edits(takes: Mapping[str, Source]) -> Iterator[EditBase]:
    """Two takes of one scene that do not match yet, behind each other: practice for Grade."""
    for name in CAMERA_TAKES:
        take = takes[name]
        clip = VideoClip(
            name=name.split(".")[0],
            media=take.media,
            length=ticks_of(2.5),
            source_length=take.length,
        )
        yield edit_kinds["place"](clip=clip, mode="end")
