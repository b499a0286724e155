"""The demo's layers: one shot for each thing that layers are for."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any

from demo.project import Source, ticks_of
from kitecore.document import (
    AdjustmentClip,
    ClipBase,
    Grade,
    Pictured,
    Place,
    ShapeClip,
    SolidClip,
    StillClip,
    TextClip,
    VideoClip,
)
from kitecore.document.effects import effect_kinds
from kitecore.document.fills import PlainFill, RoundFill, Stop, StraightFill
from kitecore.document.grade import Balance, Light
from kitecore.document.keying import ChromaKey, LumaKey
from kitecore.document.masks import EdgeMask, EllipseMask
from kitecore.document.paths import Contour, Node
from kitecore.document.properties import Key, NumberKeys, PointKeys, SpotKey
from kitecore.document.shapes import PathForm, RectangleForm, Stroke
from kitecore.edits import EditBase, edit_kinds

NAME = "Paper layers"
TAKES = (
    "pip-green.mp4",
    "seeds.mp4",
    "seeds-matte.mp4",
    "ridge-noon.jpg",
    "ink-wash.jpg",
)
SHARED = ("launch.mp4", "kite-cutout.png", "evening-sheet.jpg")
"""Takes of the other project that this one uses too."""

SHOT = 3.0
_CREAM, _CORAL, _PLUM = "#fff4e2", "#e5604d", "#5d4384"


def layer_edits(takes: Mapping[str, Source]) -> Iterator[EditBase]:
    """The edits, in order; ``takes`` by file name."""
    shots = (_green, _ridge, _seeds, _emblem)
    grounds = (
        _video(takes, "launch.mp4", 1.0),
        _still(takes, "ridge-noon.jpg", place=Place(fit="fill")),
        _still(takes, "evening-sheet.jpg", place=Place(fit="fill")),
        SolidClip(
            name="Dusk",
            length=ticks_of(SHOT),
            fill=StraightFill(
                begin=(0, -960),
                end=(0, 960),
                stops=(
                    Stop(at=0, colour="#27406e"),
                    Stop(at=0.62, colour="#a0607a"),
                    Stop(at=1, colour="#f0b58c"),
                ),
            ),
        ),
    )
    for ground in grounds:
        yield edit_kinds["place"](clip=ground, mode="end")
    for number, shot in enumerate(shots):
        for clip in shot(takes):
            yield edit_kinds["place"](clip=clip, mode="above", at=ticks_of(number * SHOT))


def _green(takes: Mapping[str, Source]) -> Iterator[ClipBase]:
    """The presenter before a green sheet, in the wind; her name on stacked sheets of paper."""
    yield _video(
        takes,
        "pip-green.mp4",
        0,
        key=ChromaKey(colour="#2f9f4c", clear_below=0.14, solid_above=0.8),
        place=Place(position=(90, 190), size=(0.92, 0.92)),
        gain=-60,
    )
    shadow = effect_kinds["shadow"](softness=10)
    for name, y, colour, lean in (("back", 664, _PLUM, 2.0), ("front", 648, _CORAL, -1.5)):
        yield _clip(
            ShapeClip,
            f"Sheet, {name}",
            form=RectangleForm(size=(800, 190), radius=14),
            fill=PlainFill(colour=colour),
            place=Place(position=(-20, y), turn=lean),
            effects=(shadow.model_copy(update={"id": f"shadow-{name}"}),),
        )
    yield _clip(
        TextClip,
        "Name",
        text="Pip Folding\nwind reporter",
        size=62,
        width=720,
        align="start",
        line_height=1.05,
        place=Place(position=(0, 648), turn=-1.5),
    )


def _ridge(takes: Mapping[str, Source]) -> Iterator[ClipBase]:
    """A kite behind a ridge, whose bright sky is keyed out of a copy; noon made into dusk."""
    up = PointKeys(
        keys=(
            SpotKey(at=0, value=(-380.0, 420.0)),
            SpotKey(at=ticks_of(SHOT), value=(260.0, -420.0)),
        )
    )
    yield _still(takes, "kite-cutout.png", place=Place(position=up, size=(0.5, 0.5), turn=-18))
    yield _still(
        takes,
        "ridge-noon.jpg",
        name="ridge in front",
        place=Place(fit="fill"),
        key=LumaKey(low=0, high=66, softness=8),
    )
    yield _clip(
        SolidClip,
        "Light from the left",
        fill=PlainFill(colour="#ff9d4d"),
        blend="hard_light",
        opacity=0.75,
        masks=(EllipseMask(id="glow", centre=(-0.3, -0.05), size=(0.24, 0.4), outwards=0.3),),
    )
    yield _clip(
        SolidClip,
        "Dark base",
        fill=PlainFill(colour="#3a2a5c"),
        blend="multiply",
        opacity=0.6,
        masks=(EdgeMask(id="base", centre=(0, 0.12), invert=True, inwards=0.2, outwards=0.2),),
    )
    yield _clip(
        AdjustmentClip,
        "Dusk",
        grade=Grade(light=Light(exposure=-0.2), balance=Balance(warmth=18)),
        effects=(effect_kinds["vignette"](id="corners"),),
    )


def _seeds(takes: Mapping[str, Source]) -> Iterator[ClipBase]:
    """Drifting seeds: their matte cuts the hole, then their light is added."""
    yield _video(takes, "seeds-matte.mp4", 0, blend="holdout_luma", place=Place(fit="fill"))
    yield _video(takes, "seeds.mp4", 0, blend="add", place=Place(fit="fill"))
    yield _still(takes, "ink-wash.jpg", blend="multiply", opacity=0.8, place=Place(fit="fill"))


def _emblem(takes: Mapping[str, Source]) -> Iterator[ClipBase]:
    """A kite drawn in pens, its outline a gradient, glowing, mirrored by the ground."""
    outline = Stroke(
        fill=StraightFill(
            begin=(-200, -260),
            end=(200, 260),
            stops=(
                Stop(at=0, colour="#ffd36b"),
                Stop(at=0.5, colour="#ff6f61"),
                Stop(at=1, colour="#8f6bff"),
            ),
        ),
        width=18,
        end=NumberKeys(keys=(Key(at=0, value=0.02), Key(at=ticks_of(1.6), value=1.0))),
    )
    yield _clip(
        ShapeClip,
        "Emblem",
        form=PathForm(contours=_kite_contours()),
        fill=RoundFill(
            begin=(0, -60),
            end=(0, 260),
            stops=(Stop(at=0, colour="#fff4e2"), Stop(at=1, colour="#e8b48a")),
        ),
        stroke=outline,
        place=Place(position=(0, -160)),
        effects=(
            effect_kinds["glow"](id="glow", of="outline", width=60, strength=1.1, colour="#ffb88a"),
            effect_kinds["reflection"](id="ground", gap=-90, height=55),
        ),
    )
    yield _clip(
        TextClip,
        "Title",
        text="Paper Weather",
        size=120,
        outline=PlainFill(colour="#2b1a3c"),
        outline_width=5,
        fill=StraightFill(
            begin=(-400, 0),
            end=(400, 0),
            stops=(Stop(at=0, colour="#ffd9a0"), Stop(at=1, colour="#ff8f70")),
        ),
        place=Place(position=(0, 560)),
    )


def _kite_contours() -> tuple[Contour, ...]:
    def sheet(*points: tuple[float, float], bend: float = 0.0) -> Contour:
        nodes = tuple(
            Node(at=at, before=(-bend, 0), after=(bend, 0), join="smooth" if bend else "corner")
            for at in points
        )
        return Contour(nodes=nodes)

    left = sheet((0, -260), (0, 260), (-170, -60))
    right = sheet((0, -260), (170, -60), (0, 260))
    return left, right


def _clip(kind: type[Pictured], name: str, **more: Any) -> Pictured:
    return kind(name=name, length=ticks_of(SHOT), **more)


def _video(takes: Mapping[str, Source], name: str, begin: float, **more: Any) -> ClipBase:
    take = takes[name]
    return VideoClip(
        name=name.split(".")[0],
        media=take.media,
        source_in=ticks_of(begin),
        length=ticks_of(SHOT),
        source_length=take.length,
        **more,
    )


def _still(takes: Mapping[str, Source], file: str, name: str = "", **more: Any) -> ClipBase:
    return StillClip(
        name=name or file.split(".")[0], media=takes[file].media, length=ticks_of(SHOT), **more
    )
