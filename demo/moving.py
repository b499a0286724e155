"""The demo's motion: one thing for each way that something can be made to move."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping
from typing import Any, Final

from demo.project import Source, ticks_of
from kitecore.document import (
    ClipBase,
    GroupClip,
    Pictured,
    Place,
    ShapeClip,
    StillClip,
    TextClip,
    Track,
)
from kitecore.document.ease import OVERSHOOT, SOFT, Bezier, Ease, Spring, Steady
from kitecore.document.effects import effect_kinds
from kitecore.document.fills import PlainFill, RoundFill, Stop, StraightFill
from kitecore.document.moves import Entrance, Meanwhile, Moves
from kitecore.document.paths import Contour, Contours, Node, PathKeys, polygon
from kitecore.document.properties import (
    Key,
    LatticeKeys,
    NumberKeys,
    PointKeys,
    SpotKey,
    Vector,
)
from kitecore.document.shapes import PathForm, RectangleForm, StarForm, Stroke
from kitecore.document.warps import GridWarp, Pin, PinWarp
from kitecore.edits import EditBase, edit_kinds
from kitecore.model import derived_id

NAME: Final = "Paper in the wind"
SHARED: Final = ("kite-cutout.png", "evening-sheet.jpg")
"""Takes of the other project that this one uses too."""

LENGTH: Final = 10.0
_CREAM, _CORAL, _PLUM, _GOLD = "#fff4e2", "#e5604d", "#5d4384", "#f4c15c"
_FLUTTER: Final = Bezier(x1=0.45, y1=0, x2=0.55, y2=1)
_EVEN: Final = Steady()
FRAME: Final = ticks_of(1 / 30)


def moving_edits(takes: Mapping[str, Source]) -> Iterator[EditBase]:
    """The edits, in order; ``takes`` by file name."""
    yield edit_kinds["place"](clip=_scene(takes), mode="end", seed="scene")
    for name, clip, at in _actors(takes):
        yield edit_kinds["place"](clip=clip, mode="above", at=ticks_of(at), seed=name)
    yield edit_kinds["draw_motion"](
        clip=_id("kite"), points=_loop(), length=ticks_of(7.0), tolerance=6
    )
    yield edit_kinds["follow"](
        clips=(_id("ribbon"),), leader=_id("kite"), inherits=("position", "turn")
    )
    yield edit_kinds["add_marker"](at=ticks_of(4.0), name="Star")


def _id(seed: str) -> str:
    """The id that a clip gets that is placed by an edit of that seed."""
    return derived_id(seed, 0)


def _scene(takes: Mapping[str, Source]) -> GroupClip:
    """Sky, hills and the bird as one, pushed slowly closer."""
    sky = StillClip(
        name="evening-sheet",
        media=takes["evening-sheet.jpg"].media,
        length=ticks_of(LENGTH),
        place=Place(fit="fill"),
    )
    hills = (
        _shape("Far hills", _hill(980, 500, 120), "#b9786c", y=520),
        _shape("Near hills", _hill(700, 620, 160), "#7b4a6c", y=760),
    )
    lanes = [("main", (sky,)), *(("picture", (clip,)) for clip in (*hills, *_bird()))]
    tracks = tuple(
        Track(kind=kind, name=clips[0].name, clips=clips)  # type: ignore[arg-type]
        for kind, clips in lanes
    )
    closer = _points((0.0, (1.0, 1.0)), (LENGTH, (1.16, 1.16)), ease=SOFT)
    return GroupClip(
        name="Scene",
        length=ticks_of(LENGTH),
        tracks=tracks,
        place=Place(size=closer, pivot=(0.0, 260.0)),
    )


def _bird() -> Iterator[Pictured]:
    """Its wing is bent by a grid in eight poses that play there and back; its beak opens."""
    here = (-190.0, 40.0)
    feathers = StraightFill(
        begin=(-190, -60),
        end=(150, 80),
        stops=(Stop(at=0, colour="#fff0d8"), Stop(at=1, colour="#e9b78f")),
    )
    body = polygon(((-150, 10), (-40, -64), (96, -40), (140, 6), (60, 66), (-70, 64)))
    yield _clip(
        ShapeClip,
        "Bird",
        form=PathForm(contours=(body,)),
        fill=feathers,
        place=Place(position=here),
    )
    eye = RectangleForm(size=(22, 22), radius=11)
    yield _clip(
        ShapeClip,
        "Eye",
        form=eye,
        fill=PlainFill(colour="#2b1a3c"),
        place=Place(position=(here[0] + 92, here[1] - 12)),
    )
    beak = PathKeys(
        keys=tuple(
            Key(at=ticks_of(at), value=_beak(opened), ease=_FLUTTER)
            for at, opened in ((0, 0), (1.0, 0), (1.3, 1), (1.6, 0.1), (1.9, 0.8), (2.3, 0), (9, 0))
        )
    )
    yield _clip(
        ShapeClip,
        "Beak",
        form=PathForm(contours=beak),
        fill=PlainFill(colour="#f0a93b"),
        place=Place(position=(here[0] + 150, here[1] + 4)),
    )
    wing = polygon(((-118, 70), (-96, -150), (-20, -250), (20, -120), (90, 60)))
    yield _clip(
        ShapeClip,
        "Wing",
        form=PathForm(contours=(wing,)),
        fill=PlainFill(colour="#d98f6c"),
        stroke=Stroke(fill=PlainFill(colour="#9b5a4a"), width=3),
        place=Place(position=(here[0] - 20, here[1] - 20)),
        warp=GridWarp(columns=2, rows=3, points=_flaps()),
    )


def _beak(opened: float) -> Contours:
    upper = Contour(
        nodes=(
            Node(at=(-14, -16)),
            Node(at=(64, -4 - 12 * opened), before=(-26, -10)),
            Node(at=(-12, 2)),
        )
    )
    lower = polygon(((-12, 2), (48 - 6 * opened, 4 + 20 * opened), (-16, 16)))
    return (upper, lower)


def _flaps() -> LatticeKeys:
    """Eight poses of a flap, then back through them, again and again."""
    poses = [_pose(math.sin(math.pi * number / 14)) for number in range(8)]
    there_and_back = [*poses, *poses[-2:0:-1]]
    step = ticks_of(0.1)
    count = int(ticks_of(LENGTH) / step)
    keys = tuple(
        Key(at=number * step, value=there_and_back[number % len(there_and_back)])
        for number in range(count)
    )
    return LatticeKeys(keys=keys)


def _pose(lift: float) -> tuple[Vector, ...]:
    """Offsets of 3 × 4 points: the higher up the wing, the further down and back it bends."""
    rows = (1.0, 0.62, 0.24, 0.0)
    return tuple(
        (0.16 * lift * row * (0.6 + 0.2 * column), 0.46 * lift * row * row)
        for row in rows
        for column in range(3)
    )


def _actors(takes: Mapping[str, Source]) -> Iterator[tuple[str, ClipBase, float]]:
    kite = StillClip(
        name="Kite",
        media=takes["kite-cutout.png"].media,
        length=ticks_of(LENGTH),
        place=Place(size=(0.5, 0.5), turn=12.0),
        moves=Moves(shutter=150.0),
    )
    yield "kite", kite, 0
    yield "ribbon", _ribbon(), 0
    yield "tag", _tag(), 1.6
    yield "price", _price(), 1.6
    yield "star", _star(), 4.0
    yield "title", _title(), 5.2


def _ribbon() -> Pictured:
    """A paper tail that waves from three pins; the lower ones follow the top one later."""
    strip = Contour(
        nodes=(
            Node(at=(-16, -210)),
            Node(at=(16, -210)),
            Node(at=(26, 60), before=(10, -80), after=(-6, 70)),
            Node(at=(4, 210)),
            Node(at=(-22, 60), before=(-4, 70), after=(4, -80)),
        )
    )
    swing = _points(
        *((0.8 * n, (0.1 * (-1) ** n, -0.5)) for n in range(int(LENGTH / 0.8) + 1)), ease=SOFT
    )
    pins = (
        Pin(id="knot", rest=(0.0, -0.5), at=swing),
        Pin(id="middle", rest=(0.0, 0.0), at=(0.0, 0.0)),
        Pin(id="end", rest=(0.0, 0.46), at=(0.0, 0.46)),
    )
    return _clip(
        ShapeClip,
        "Ribbon",
        form=PathForm(contours=(strip,)),
        fill=StraightFill(
            begin=(0, -210),
            end=(0, 210),
            stops=(Stop(at=0, colour=_CORAL), Stop(at=1, colour=_GOLD)),
        ),
        place=Place(
            position=(-350.0 - 4, 250.0 + 330),
            pivot=(0.0, -200.0),
            turn=_numbers(
                *((1.1 * n, 14.0 * (-1) ** n) for n in range(int(LENGTH / 1.1) + 1)), ease=SOFT
            ),
        ),
        warp=PinWarp(pins=pins, chain=("knot", "middle", "end"), later=5 * FRAME, stiffness=0.2),
    )


def _tag() -> Pictured:
    """A price tag that pops in, and settles."""
    return _clip(
        ShapeClip,
        "Tag",
        length=4.4,
        form=PathForm(
            contours=(polygon(((-150, 0), (-96, -74), (160, -74), (160, 74), (-96, 74))),)
        ),
        fill=PlainFill(colour=_CREAM),
        place=Place(
            position=(270.0, -560.0),
            pivot=(-140.0, 0.0),
            size=_points((0.0, (0.0, 0.0)), (0.5, (1.0, 1.0)), ease=OVERSHOOT),
            turn=_numbers((0.0, -34.0), (1.4, -8.0), ease=Spring(stiffness=260, damping=9)),
        ),
        moves=Moves(goes=Entrance(kind="drop", length=ticks_of(0.6))),
        effects=(effect_kinds["shadow"](id="under-tag", softness=14),),
    )


def _price() -> Pictured:
    return _clip(
        TextClip,
        "Price",
        length=4.4,
        text="3 folds",
        size=62,
        width=260,
        fill=PlainFill(colour=_PLUM),
        place=Place(position=(300.0, -564.0), turn=-8.0),
        moves=Moves(
            comes=Entrance(kind="pop", length=ticks_of(0.9), ease=OVERSHOOT),
            goes=Entrance(kind="drop", length=ticks_of(0.6)),
        ),
    )


def _star() -> Pictured:
    """A paper star that flickers alight; the flicker dies away."""
    return _clip(
        ShapeClip,
        "Star",
        length=6.0,
        form=StarForm(radius=95, inner=44),
        fill=RoundFill(
            begin=(0, 0),
            end=(0, 95),
            stops=(Stop(at=0, colour="#fff6cf"), Stop(at=1, colour=_GOLD)),
        ),
        place=Place(position=(300.0, -180.0)),
        opacity=_numbers((0.0, 0.0), (0.3, 1.0)),
        moves=Moves(
            meanwhile=(
                Meanwhile(
                    id="light",
                    kind="flicker",
                    rate=11,
                    strength=_numbers((0.0, 1.0), (2.6, 0.0), ease=SOFT),
                ),
                Meanwhile(id="air", kind="sway", rate=0.35),
            )
        ),
        effects=(effect_kinds["glow"](id="shine", width=50, strength=1.0, colour="#ffd98a"),),
    )


def _title() -> Pictured:
    """Comes in letter by letter, and goes word by word."""
    return _clip(
        TextClip,
        "Title",
        length=4.8,
        text="Paper in the wind",
        size=118,
        width=900,
        outline=PlainFill(colour="#2b1a3c"),
        outline_width=5,
        place=Place(position=(0.0, -640.0)),
        moves=Moves(
            comes=Entrance(kind="rise", unit="letter", length=ticks_of(1.5), later=0.7),
            goes=Entrance(kind="fade", unit="word", length=ticks_of(0.7), later=0.5),
        ),
    )


def _loop() -> tuple[Vector, ...]:
    """A hand-drawn way: up in a bow, round a loop, and away."""
    spots = []
    for n in range(121):
        t = n / 120
        x = -350 + 620 * t + 190 * math.sin(math.tau * t)
        y = 250 - 760 * t + 170 * math.sin(math.tau * 1.5 * t)
        spots.append((round(x, 1), round(y, 1)))
    return tuple(spots)


def _hill(width: float, height: float, bend: float) -> Contours:
    nodes = (
        Node(at=(-width, height)),
        Node(at=(-width, 40)),
        Node(at=(-width / 3, -bend / 2), before=(-160, 30), after=(200, -40), join="smooth"),
        Node(at=(width / 2, bend / 3), before=(-200, 40), after=(160, -30), join="smooth"),
        Node(at=(width, -30)),
        Node(at=(width, height)),
    )
    return (Contour(nodes=nodes),)


def _shape(name: str, contours: Contours, colour: str, *, y: float) -> Pictured:
    return _clip(
        ShapeClip,
        name,
        form=PathForm(contours=contours),
        fill=PlainFill(colour=colour),
        place=Place(position=(0.0, y)),
    )


def _points(*keys: tuple[float, Vector], ease: Ease = _EVEN) -> PointKeys:
    return PointKeys(
        keys=tuple(SpotKey(at=ticks_of(at), value=value, ease=ease) for at, value in keys)
    )


def _numbers(*keys: tuple[float, float], ease: Ease = _EVEN) -> NumberKeys:
    return NumberKeys(
        keys=tuple(Key(at=ticks_of(at), value=value, ease=ease) for at, value in keys)
    )


def _clip(kind: type[Pictured], name: str, length: float = LENGTH, **more: Any) -> Pictured:
    return kind(name=name, length=ticks_of(length), **more)
