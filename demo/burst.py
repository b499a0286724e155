"""A kite of paper bursts into shards on a marker, hangs, and is whole again; all around it shakes."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any, Final

from demo.project import Source, ticks_of
from kitecore.document.ease import SOFT, Bezier, Ease, Steady
from kitecore.edits import EditBase, edit_kinds

NAME: Final = "Burst"
SHARED: Final = ("kite-cutout.png", "evening-sheet.jpg")
LENGTH: Final = 6.0
BURST: Final = 2.0
"""Seconds: the marker on which all of it begins."""
_HIT: Final = Bezier(x1=0.1, y1=0.9, x2=0.3, y2=1)


def burst_edits(takes: Mapping[str, Source]) -> Iterator[EditBase]:
    """The edits, in order; ``takes`` by file name."""
    place, length = edit_kinds["place"], ticks_of(LENGTH)
    since = ticks_of(BURST)
    sheet = {
        "kind": "still",
        "name": "evening-sheet",
        "media": takes["evening-sheet.jpg"].media,
        "length": length,
        "place": {"fit": "fill"},
        "effects": [_wave(since), {"kind": "paper", "strength": 0.35}],
    }
    yield place(clip=sheet, mode="end", seed="sheet")
    kite = {
        "kind": "still",
        "name": "kite",
        "media": takes["kite-cutout.png"].media,
        "length": length,
        "place": {"position": (0.0, 40.0), "size": (0.9, 0.9)},
        "effects": [_shards(), {"kind": "shadow", "shift": (14.0, 22.0), "softness": 18.0}],
    }
    yield place(clip=kite, mode="above", at=0, seed="kite")
    around = {
        "kind": "adjustment",
        "name": "Blow",
        "length": length,
        "effects": [_apart(), _shaken(since), _flash()],
    }
    yield place(clip=around, mode="above", at=0, seed="blow")
    yield edit_kinds["add_marker"](at=since, name="Burst")


def _keys(*keys: tuple[float, float, Ease]) -> dict[str, Any]:
    return {
        "keys": [{"at": ticks_of(at), "value": value, "ease": ease} for at, value, ease in keys]
    }


def _shards() -> dict[str, Any]:
    way = _keys(
        (BURST, 0.0, _HIT),
        (BURST + 0.4, 0.42, Steady()),
        (BURST + 1.5, 0.5, SOFT),
        (BURST + 2.8, 0.0, Steady()),
    )
    return {
        "kind": "shards",
        "amount": way,
        "count": 90,
        "centre": (0.0, -140.0),
        "distance": 560.0,
        "fall": 220.0,
        "spin": 420.0,
        "thickness": 8.0,
    }


def _wave(since: int) -> dict[str, Any]:
    return {
        "kind": "ripple",
        "since": since,
        "height": 34.0,
        "width": 190.0,
        "speed": 1100.0,
        "rings": 2,
        "reach": 2200.0,
        "centre": (0.0, -100.0),
    }


def _apart() -> dict[str, Any]:
    distance = _keys((BURST, 0.0, _HIT), (BURST + 0.1, 26.0, SOFT), (BURST + 1.0, 0.0, Steady()))
    return {"kind": "colour_split", "distance": distance, "way": "outwards"}


def _shaken(since: int) -> dict[str, Any]:
    strength = _keys((BURST, 0.0, _HIT), (BURST + 0.05, 46.0, SOFT), (BURST + 1.2, 0.0, Steady()))
    return {
        "kind": "shake",
        "since": since,
        "strength": strength,
        "turn": 1.5,
        "rate": 11.0,
        "shutter": 0.02,
    }


def _flash() -> dict[str, Any]:
    """Inverted for three frames."""
    held = {"kind": "hold"}
    shown = [
        {"at": ticks_of(at), "value": value, "ease": held}
        for at, value in ((0.0, 0.0), (BURST, 1.0), (BURST + 0.1, 0.0))
    ]
    return {"kind": "invert", "mix": {"keys": shown}}
