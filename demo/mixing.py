"""The demo's mix: a voice, music that steps back under it, and weather near and far."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any, Final

from demo.project import Source, ticks_of
from kitecore.document import ClipBase, Place, SolidClip, SoundClip, StillClip, VideoClip
from kitecore.document.fills import PlainFill
from kitecore.document.inserts.compressor import Compressor
from kitecore.document.inserts.de_esser import DeEsser
from kitecore.document.inserts.equaliser import Cut, Equaliser, HighBell, LowBell
from kitecore.document.inserts.room import RoomSound
from kitecore.document.properties import Key, NumberKeys
from kitecore.edits import EditBase, edit_kinds

NAME: Final = "Wind report"
TAKES: Final = ("water.flac", "bang-far.flac", "alarm.flac", "bell.flac")
"""Sounds of the shelf that it uses."""
SHARED: Final = (
    "launch.mp4",
    "ridge-noon.jpg",
    "evening-sheet.jpg",
    "paper-weather-loop.wav",
    "spoken-line.wav",
)
"""Takes of other projects that this one uses too."""
_DARK: Final = 17.0
_END: Final = 20.0
_FLASH: Final = 3.0


def mix_edits(takes: Mapping[str, Source]) -> Iterator[EditBase]:
    """The edits, in order; ``takes`` by file name."""
    yield from _pictures(takes)
    yield from _air(takes)
    yield from _tracks()
    for track, at, clip in _sounds(takes):
        yield edit_kinds["place"](clip=clip, mode="over", at=ticks_of(at), track=track)
    yield edit_kinds["add_inserts"](track="voice", inserts=_voice_chain(), name="Clear voice")
    under = {"tracks": ["voice"], "amount": 11.0, "fade": 0.5, "ahead": 0.2}
    yield edit_kinds["set_strip"](track="music", values={"under": under, "gain": -4.0})
    distance = (RoomSound(seconds=2.4, ahead=40, dull=70, mix=35),)
    yield edit_kinds["add_inserts"](track="far", inserts=distance, name="Across the valley")
    aim = {"purpose": "phone", "target": -14.0, "ceiling": -1.0, "gain": 6.0}
    yield edit_kinds["set_strip"](track=None, values=aim)


def _pictures(takes: Mapping[str, Source]) -> Iterator[EditBase]:
    place = edit_kinds["place"]
    film = takes["launch.mp4"]
    yield place(
        clip=VideoClip(
            name="launch",
            media=film.media,
            length=ticks_of(5),
            source_in=ticks_of(0.5),
            source_length=film.length,
            gain=-16,
        ),
        mode="end",
    )
    for name, seconds in (("ridge-noon.jpg", 6.0), ("evening-sheet.jpg", _DARK - 11)):
        still = StillClip(
            name=name.split(".")[0],
            media=takes[name].media,
            length=ticks_of(seconds),
            place=Place(fit="fill"),
        )
        yield place(clip=still, mode="end")
    white = PlainFill(colour="#fff4e2")
    flash = SolidClip(name="flash", fill=white, length=ticks_of(0.2), opacity=_falling(0.2))
    yield place(clip=flash, mode="above", at=ticks_of(_FLASH))


def _falling(seconds: float) -> NumberKeys:
    return NumberKeys(keys=(Key(at=0, value=1.0), Key(at=ticks_of(seconds), value=0.0)))


def _air(takes: Mapping[str, Source]) -> Iterator[EditBase]:
    """A steady sound of water under everything, to the end of the fade in the dark."""
    at = 0.0
    while at < _END:
        seconds = min(5.8, _END - at)
        last = at + seconds >= _END
        out = ticks_of(3.0 if last else 0.1)
        clip = _sound(takes, "water.flac", seconds, gain=-25, fade_out=min(out, ticks_of(seconds)))
        yield edit_kinds["place"](clip=clip, mode="above", at=ticks_of(at))
        at += seconds


def _tracks() -> Iterator[EditBase]:
    for seed, name in (
        ("music", "Music"),
        ("voice", "Voice"),
        ("far", "Far away"),
        ("signals", "Signals"),
    ):
        yield edit_kinds["add_track"](seed=seed, track="sound")
        yield edit_kinds["set_track"](track=seed, name=name)


def _sounds(takes: Mapping[str, Source]) -> Iterator[tuple[str, float, ClipBase]]:
    """Tracks, moments in seconds, clips."""
    last = {"fade_out": ticks_of(3.0), "fade_out_shape": "late"}
    yield "music", 0, _sound(takes, "paper-weather-loop.wav", _END, **last)
    yield "voice", 0.8, _sound(takes, "spoken-line.wav", 9)
    # The bang is five seconds away from its flash.
    yield "far", _FLASH + 5, _sound(takes, "bang-far.flac", 4.4, gain=-2)
    # The alarm begins while the bang dies away.
    yield "signals", 9.2, _sound(takes, "alarm.flac", 4.4, gain=-30, pan=0.5, fade_in=ticks_of(1.5))
    yield "far", 12.5, _sound(takes, "bang-far.flac", 4.0, gain=-9, pan=-0.4)
    for at, pitch, pan in ((14.1, 0.0, -0.6), (15.2, 4.0, 0.2), (16.3, -3.0, 0.7)):
        yield "signals", at, _sound(takes, "bell.flac", 1.1, gain=-14, pitch=pitch, pan=pan)
    yield "far", 17.2, _sound(takes, "bang-far.flac", 2.4, gain=-14, pan=0.3, **last)


def _voice_chain() -> tuple[Any, ...]:
    clear = Equaliser(
        low_cut=Cut(on=True, frequency=90),
        low_bell=LowBell(frequency=320, gain=-3),
        high_bell=HighBell(frequency=3600, gain=3.5),
    )
    even = Compressor(threshold=-26, ratio=3, attack=8, release=140, makeup=5)
    return clear, even, DeEsser()


def _sound(takes: Mapping[str, Source], name: str, seconds: float, **more: Any) -> ClipBase:
    take = takes[name]
    frame = ticks_of(1 / 30)
    length = min(ticks_of(seconds), take.length // frame * frame)
    given = {"fade_out": min(more.pop("fade_out", 0), length), **more}
    return SoundClip(
        name=name.split(".")[0],
        media=take.media,
        length=length,
        source_length=take.length,
        **given,
    )
