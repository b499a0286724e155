"""A scene to judge colours by, from two cameras."""

from __future__ import annotations

import numpy as np
import skia

from demo.paper import draw_sheet, hill, kite, polygon
from demo.scenes import Draw, put, sky_sheet


def from_the_front(width: int, height: int) -> Draw:
    """A test sheet on the bench: a white and a grey card, paper of the tone of skin, a kite."""
    return _cards(width, height, 1.0, 0)


def from_the_side(width: int, height: int) -> Draw:
    """The same from another side, closer."""
    return _cards(width, height, 1.22, 5)


def _cards(width: int, height: int, near: float, lean: float) -> Draw:
    sheet = skia.Surface(width, height)
    flat = sheet.getCanvas()
    put(flat, sky_sheet(width, height, 0xFF6E97B8, 0xFF9DB7C4, 0xFFD9C9B0), 0, 0)
    draw_sheet(flat, hill(width, height, 1180, 60, 1.1, 0.8), 0xFF8A5C46, shadow=30)
    face = skia.Path.Oval(skia.Rect.MakeXYWH(300, 520, 480, 640))
    draw_sheet(flat, face, 0xFFDDA98A, shadow=26, seed=31)
    draw_sheet(flat, polygon((300, 700), (540, 400), (800, 720), (540, 610)), 0xFF4B3A4E, seed=32)
    for x, colour in ((430, 0xFF3A2B35), (650, 0xFF3A2B35)):
        draw_sheet(flat, skia.Path.Circle(x, 800, 26), colour, shadow=4)
    draw_sheet(flat, polygon((500, 980), (590, 960), (610, 1010), (520, 1030)), 0xFFB9544E)
    for x, colour in ((120, 0xFFEDEDED), (400, 0xFF8C8C8C), (680, 0xFF232323)):
        draw_sheet(
            flat, polygon((x, 1380), (x + 230, 1370), (x + 240, 1620), (x + 6, 1630)), colour
        )
    picture = sheet.makeImageSnapshot()

    def draw(canvas: skia.Canvas, time: float) -> None:
        canvas.save()
        canvas.translate(width / 2, height / 2)
        canvas.scale(near + 0.012 * time, near + 0.012 * time)
        canvas.rotate(lean)
        canvas.translate(-width / 2, -height / 2)
        put(canvas, picture, 0, 0)
        kite(canvas, 790 + 20 * np.sin(time), 300 + 12 * time, 0.8, -16 + 4 * np.sin(time), time)
        canvas.restore()

    return draw
