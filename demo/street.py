"""A street in the wind, taken by hand: a sign that swings, somebody who walks past behind a post.

Where they are is known at every moment: `sign_at`, `face_at`; and so is what the walls look like
without their stains.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from functools import cache
from typing import Any, Final

import numpy as np
import skia
from numpy.typing import NDArray

from demo.paper import draw_sheet, polygon
from demo.project import Source, ticks_of
from demo.scenes import Draw
from kitecore.document import derived_id
from kitecore.edits import EditBase, edit_kinds
from kitecore.tracking.quads import Matrix, Quad, carried

NAME: Final = "Wind street"
TAKE: Final = "wind-street.mp4"
TAKES: Final = (TAKE,)
LASTS: Final = 7.0
_WIDE, _HIGH = 1080.0, 1920.0
_HINGE: Final = (760.0, 520.0)
_SIGN: Final = (-130.0, 60.0, 130.0, 250.0)
"""Left, top, right and bottom of the sign, from its hinge."""
_FACE: Final = 62.0
"""Half the height of the face."""
_POST: Final = 640.0
STAINS: Final = ((302.0, 592.0, 17.0), (400.0, 1190.0, 13.0))
"""On the walls: middle and radius; somebody walks past the second."""


def _turned(degrees: float, x: float, y: float) -> Matrix:
    """About a point."""
    cos, sin = np.cos(np.radians(degrees)), np.sin(np.radians(degrees))
    return np.array(
        [[cos, -sin, x - cos * x + sin * y], [sin, cos, y - sin * x - cos * y], [0, 0, 1]]
    )


def camera_at(time: float) -> Matrix:
    """From the street to the picture: a hand that is never quite still."""
    x = 22 * np.sin(1.3 * time) + 9 * np.sin(3.7 * time + 1)
    y = 16 * np.sin(1.7 * time + 2) + 7 * np.sin(4.3 * time)
    near = 1.04 + 0.02 * np.sin(0.9 * time)
    turn = _turned(1.1 * np.sin(0.8 * time + 0.4), _WIDE / 2, _HIGH / 2)
    shift = np.array(
        [
            [near, 0, x + (1 - near) * _WIDE / 2],
            [0, near, y + (1 - near) * _HIGH / 2],
            [0, 0, 1.0],
        ]
    )
    return np.asarray(shift @ turn)


def _swing(time: float) -> float:
    return float(16 * np.sin(2.1 * time) + 5 * np.sin(5.2 * time + 0.6))


def sign_at(time: float) -> Quad:
    """Corners of the sign in the picture, in its pixels, clockwise from the upper left."""
    left, top, right, bottom = _SIGN
    corners = np.array([[left, top], [right, top], [right, bottom], [left, bottom]]) + _HINGE
    return carried(camera_at(time) @ _turned(_swing(time), *_HINGE), corners)


def _walk(time: float) -> tuple[float, float, float]:
    """Middle of the face in the street, and how near: he walks to the right."""
    step = abs(np.sin(4.5 * time))
    return 130 + 125 * time, 1180 - 14 * step, 1 + 0.02 * time


def face_at(time: float) -> Quad:
    """A box around the face in the picture."""
    x, y, near = _walk(time)
    wide, high = 0.8 * _FACE * near, _FACE * near
    corners = [
        (x - wide, y - high),
        (x + wide, y - high),
        (x + wide, y + high),
        (x - wide, y + high),
    ]
    return carried(camera_at(time), np.array(corners))


def hidden(time: float) -> bool:
    """Whether some of the face is behind the post."""
    x, _, near = _walk(time)
    return abs(x - _POST) < 22 + 0.8 * _FACE * near


@cache
def _houses() -> skia.Picture:
    recorder = skia.PictureRecorder()
    canvas = recorder.beginRecording(skia.Rect(-200, -200, 1280, 2120))
    canvas.clear(0xFFA9C6CF)
    luck = np.random.default_rng(12)
    colours = (0xFFD98E73, 0xFFE7C592, 0xFF8FAE9B, 0xFFC7788A)
    for number, left in enumerate((-160, 180, 520, 880)):
        top = 260 + 90 * (number % 2)
        front = polygon((left, top), (left + 340, top - 30), (left + 340, 1600), (left, 1600))
        draw_sheet(canvas, front, colours[number], shadow=26, seed=number + 2)
        for row in range(5):
            for column in range(3):
                x, y = left + 40 + 100 * column + luck.uniform(-8, 8), top + 90 + 200 * row
                pane = polygon((x, y), (x + 62, y - 4), (x + 62, y + 96), (x, y + 100))
                draw_sheet(
                    canvas, pane, 0xFF2F4858 if luck.uniform() < 0.6 else 0xFFF5C155, shadow=5
                )
    street = polygon((-200, 1560), (1280, 1520), (1280, 2200), (-200, 2200))
    draw_sheet(canvas, street, 0xFF6B5A63, shadow=30, seed=8)
    return recorder.finishRecordingAsPicture()


def stain_at(number: int, time: float) -> NDArray[np.float64]:
    """Where the middle of a stain is in the picture."""
    return carried(camera_at(time), np.array([STAINS[number][:2]]))[0]


def street(width: int, height: int, *, stained: bool = True) -> Draw:
    def draw(canvas: skia.Canvas, time: float) -> None:
        canvas.save()
        canvas.scale(width / _WIDE, height / _HIGH)
        canvas.concat(skia.Matrix(camera_at(time).astype(np.float32)))
        canvas.drawPicture(_houses())
        for x, y, radius in STAINS if stained else ():
            canvas.drawCircle(x, y, radius, skia.Paint(Color=0xFF2B2320, AntiAlias=True))
        _walker(canvas, time)
        post = polygon((_POST - 22, 300), (_POST + 22, 300), (_POST + 26, 1720), (_POST - 26, 1720))
        draw_sheet(canvas, post, 0xFF3A3340, shadow=16, seed=5)
        _sign(canvas, time)
        canvas.restore()

    return draw


def _walker(canvas: skia.Canvas, time: float) -> None:
    x, y, near = _walk(time)
    canvas.save()
    canvas.translate(x, y)
    canvas.scale(near, near)
    stride = 60 * np.sin(4.5 * time)
    for side in (-1, 1):
        leg = polygon((-24, 300), (24, 300), (side * stride + 22, 520), (side * stride - 22, 520))
        draw_sheet(canvas, leg, 0xFF3E4C6B, shadow=8)
    draw_sheet(canvas, polygon((-84, 60), (84, 60), (60, 330), (-60, 330)), 0xFFB8483F, shadow=16)
    head = polygon((-46, -58), (46, -58), (54, 20), (0, 66), (-54, 20))
    draw_sheet(canvas, head, 0xFFF0CBA4, shadow=10, seed=3)
    draw_sheet(canvas, polygon((-52, -62), (52, -62), (30, -30), (-40, -24)), 0xFF5B3A2E, shadow=4)
    for eye in (-20, 22):
        canvas.drawCircle(eye, -4, 6.5, skia.Paint(Color=0xFF2A1C22, AntiAlias=True))
    draw_sheet(canvas, polygon((2, 0), (14, 22), (-6, 22)), 0xFFD99A77, shadow=3)
    mouth = skia.Paint(
        Color=0xFF9A3B3B, AntiAlias=True, Style=skia.Paint.kStroke_Style, StrokeWidth=5
    )
    canvas.drawLine(-16, 38, 18, 36, mouth)
    canvas.restore()


def _sign(canvas: skia.Canvas, time: float) -> None:
    x, y = _HINGE
    draw_sheet(canvas, polygon((x, y - 14), (1300, y - 22), (1300, y), (x, y + 8)), 0xFF3A3340)
    canvas.save()
    canvas.translate(x, y)
    canvas.rotate(_swing(time))
    for side in (-90, 90):
        chain = skia.Paint(Color=0xFF3A3340, AntiAlias=True, StrokeWidth=7)
        canvas.drawLine(side * 0.2, 0, side, 62, chain)
    left, top, right, bottom = _SIGN
    board = polygon((left, top), (right, top), (right, bottom), (left, bottom))
    draw_sheet(canvas, board, 0xFFF7EBD3, shadow=20, seed=6)
    frame = skia.Paint(
        Color=0xFF8A5A44, AntiAlias=True, Style=skia.Paint.kStroke_Style, StrokeWidth=12
    )
    canvas.drawPath(
        polygon(
            (left + 14, top + 14),
            (right - 14, top + 14),
            (right - 14, bottom - 14),
            (left + 14, bottom - 14),
        ),
        frame,
    )
    for number in range(3):
        knot = polygon(
            (-90 + 70 * number, 120),
            (-50 + 70 * number, 110),
            (-40 + 70 * number, 180),
            (-84 + 70 * number, 200),
        )
        draw_sheet(canvas, knot, (0xFF4D8B8B, 0xFFD9A441, 0xFFB8483F)[number], shadow=5)
    canvas.restore()


def _corners(quad: Quad) -> list[tuple[float, float]]:
    """In heights of the picture, from its middle."""
    return [((x - _WIDE / 2) / _HIGH, (y - _HIGH / 2) / _HIGH) for x, y in quad.tolist()]


def street_edits(takes: Mapping[str, Source]) -> Iterator[EditBase]:
    """The sign is followed, and so is the face: a label goes along with one, a cover hides the other.

    The stains of the walls are healed, each by one stroke that goes along with its wall. The sign is cut out,
    too: a paper sun goes down behind it.
    """

    def edit(kind: str, **fields: Any) -> EditBase:
        made: EditBase = edit_kinds[kind].model_validate({"kind": kind, **fields})
        return made

    take = takes[TAKE]
    length = ticks_of(LASTS - 0.5)
    clip = {
        "kind": "video",
        "media": take.media,
        "name": "wind-street",
        "length": length,
        "source_length": take.length,
    }
    yield edit("place", seed="street", clip=clip)
    video = derived_id("street", 0)
    for name, change, quad in (("sign", "turns", sign_at(0)), ("face", "turns", face_at(0))):
        tracker = {
            "name": name,
            "change": change,
            "views": [{"at": 0, "corners": _corners(quad)}],
            "first": 0,
            "last": length,
        }
        yield edit("add_item", seed=name, clips=[video], list="trackers", item=tracker)
    yield from _healed(edit, video, length)
    yield edit("place", seed="sun", clip=_sun(length), mode="above", at=0)
    before = {**clip, "name": "sign before the sun", "muted": True}
    before["cutout"] = _sign_cut_out(length)
    yield edit("place", seed="before", clip=before, mode="above", at=0)
    x, y = sign_at(0).mean(axis=0) - (_WIDE / 2, _HIGH / 2)
    label = {
        "kind": "text",
        "name": "label",
        "length": length,
        "text": "KITES",
        "size": 84,
        "place": {"position": (float(x), float(y)), "turn": _swing(0)},
        "fill": {"kind": "plain", "colour": "#7a2f2a"},
    }
    yield edit("place", seed="label", clip=label, mode="above", at=0)
    along = {"leader": video, "tracker": derived_id("sign", 0), "at": 0}
    yield edit("follow", clips=[derived_id("label", 0)], **along)
    face = (face_at(0).mean(axis=0) - (_WIDE / 2, _HIGH / 2)) / _HIGH
    size = (0.8 * _FACE / _HIGH * 1.6, _FACE / _HIGH * 1.6)
    yield edit(
        "cover_tracked",
        seed="cover",
        clip=video,
        tracker=derived_id("face", 0),
        centre=tuple(face.tolist()),
        size=size,
        at=0,
    )


def _sun(length: int) -> dict[str, Any]:
    """From above the roofs down to the street, behind the sign."""
    down = [
        {"at": 0, "value": (150.0, -720.0)},
        {"at": length, "value": (330.0, -130.0)},
    ]
    return {
        "kind": "shape",
        "name": "sun",
        "length": length,
        "form": {"kind": "ellipse", "size": [330, 330]},
        "fill": {"kind": "plain", "colour": "#f2b134"},
        "place": {"position": {"keys": down}},
    }


def _sign_cut_out(length: int) -> dict[str, Any]:
    """By a line around the sign, and a stroke across it, as it hangs at first."""
    sign = sign_at(0)
    middle = sign.mean(axis=0)
    around, inner = (_corners(middle + (sign - middle) * share) for share in (1.12, 0.8))
    stroke = {"points": [*inner, inner[0], inner[2]], "width": 0.02}
    views = [{"at": 0, "around": around, "strokes": [stroke]}]
    through = {"views": views, "edge": 0.01, "first": 0, "last": length}
    return {"views": views, "edge": 0.01, "through": through}


def _healed(edit: Callable[..., EditBase], video: str, length: int) -> Iterator[EditBase]:
    for number, (_, _, radius) in enumerate(STAINS):
        name, spot = f"stain-{number + 1}", stain_at(number, 0)
        box = spot + np.array([(-1, -1), (1, -1), (1, 1), (-1, 1)]) * 12 * radius
        [middle, *corners] = _corners(np.vstack([spot, box]))
        stroke = {
            "kind": "heal_stroke",
            "points": [middle],
            "width": 3.6 * radius / _HIGH,
            "source": (4 * radius / _HIGH, 0.0),
        }
        yield edit("add_parts", seed=name, clips=[video], list="strokes", parts=[stroke])
        tracked = {"views": [{"at": 0, "corners": corners}], "first": 0, "last": length}
        yield edit(
            "strokes_along",
            seed=f"around-{name}",
            clip=video,
            strokes=[derived_id(name, 0)],
            tracked=tracked,
            since=0,
            name=f"Around stain {number + 1}",
        )
