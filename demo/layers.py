"""Takes to be laid over each other: a green sheet, drifting seeds with their matte, ink on white."""

from __future__ import annotations

from pathlib import Path

import cv2
import numpy as np
import skia
from PIL import Image

from demo.paper import blob, draw_sheet, hill, polygon
from demo.scenes import Draw, put, sky_sheet

SCREEN = (47, 160, 76)
_SEEDS = 26


def before_green(width: int, height: int) -> Draw:
    """The workshop's bird before a wrinkled green sheet that is lit from one side."""
    sheet = _wrinkled(width, height)

    def draw(canvas: skia.Canvas, time: float) -> None:
        put(canvas, sheet, 0, 0)
        canvas.save()
        canvas.translate(width / 2 + 60 * np.sin(time * 1.1), height * 0.62)
        _presenter(canvas, time)
        canvas.restore()

    return draw


def _wrinkled(width: int, height: int) -> skia.Image:
    rng = np.random.default_rng(5)
    y, x = np.mgrid[0:height, 0:width].astype(np.float32)
    light = 1.12 - 0.3 * (x / width) - 0.08 * (y / height)
    folds = cv2.GaussianBlur(rng.normal(0, 1, (height, width)).astype(np.float32), (0, 0), 70)
    light += 0.09 * folds / folds.std() + 0.05 * np.sin((x + 0.35 * y) / 90)
    tooth = rng.normal(0, 0.012, (height, width)).astype(np.float32)
    rgb = np.array(SCREEN, np.float32) * (light + tooth)[..., None]
    solid = np.full((height, width, 1), 255, np.uint8)
    pixels = np.concatenate([np.clip(rgb, 0, 255).astype(np.uint8), solid], axis=2)
    return skia.Image.fromarray(np.ascontiguousarray(pixels), skia.kRGBA_8888_ColorType)


def _presenter(canvas: skia.Canvas, time: float) -> None:
    """Clear of pure green, with a tuft of thin paper hair and wings that blur as they flap."""
    flap = 46 * np.sin(time * 7)
    for side in (-1, 1):
        wing = polygon((side * 90, 40), (side * 400, -110 + flap), (side * 150, 250))
        draw_sheet(canvas, wing, 0xFFD98E73, shadow=0, seed=6)
    body = polygon((0, -90), (200, 120), (150, 900), (-150, 900), (-200, 120))
    draw_sheet(canvas, body, 0xFFE9B99A, shadow=0)
    canvas.rotate(4 * np.sin(time * 2.2))
    hair = skia.Paint(AntiAlias=True, Style=skia.Paint.kStroke_Style, StrokeWidth=4.5)
    hair.setStrokeCap(skia.Paint.kRound_Cap)
    for strand in range(11):
        hair.setColor((0xFF8A4A3C, 0xFFB56A4B)[strand % 2])
        lean = (strand - 5) * 26 + 22 * np.sin(time * 3 + strand)
        path = skia.Path()
        path.moveTo((strand - 5) * 9, -400)
        path.quadTo((strand - 5) * 14, -500, lean, -560 + 5 * abs(strand - 5))
        canvas.drawPath(path, hair)
    head = polygon((0, -430), (190, -260), (150, -60), (-150, -60), (-190, -260))
    draw_sheet(canvas, head, 0xFFF3CDB2, shadow=0)
    blink = 0.15 if time % 1.6 < 0.12 else 1.0
    for side in (-1, 1):
        eye = skia.Rect.MakeXYWH(side * 80 - 28, -250 - 30 * blink, 56, 60 * blink)
        draw_sheet(canvas, skia.Path.Oval(eye), 0xFF2A1A24, shadow=0)
    opened = 26 * abs(np.sin(time * 6))
    draw_sheet(canvas, polygon((-56, -180), (56, -180), (0, -90)), 0xFFF5C155, shadow=0)
    below = polygon((-40, -160 + opened), (40, -160 + opened), (0, -80 + opened))
    draw_sheet(canvas, below, 0xFFE09A3C, shadow=0)


def seeds(width: int, height: int) -> Draw:
    """Seeds with fine threads, on black."""
    return lambda canvas, time: _drift(canvas, width, height, time, 0xFFFFF3D6)


def seeds_matte(width: int, height: int) -> Draw:
    """The same seeds, white where they are: the matte that comes with them."""
    return lambda canvas, time: _drift(canvas, width, height, time, 0xFFFFFFFF)


def _drift(canvas: skia.Canvas, width: int, height: int, time: float, colour: int) -> None:
    canvas.clear(0xFF000000)
    rng = np.random.default_rng(11)
    for _ in range(_SEEDS):
        x, y, size, phase, pace = rng.random(5)
        at = (x * width + time * (90 + 120 * pace)) % (width + 200) - 100
        down = (y * height + 60 * np.sin(time + phase * 9) - time * 40) % height
        _seed(canvas, at, down, 0.5 + size, 20 * np.sin(time * 2 + phase * 7), colour)


def _seed(canvas: skia.Canvas, x: float, y: float, scale: float, turn: float, colour: int) -> None:
    canvas.save()
    canvas.translate(x, y)
    canvas.rotate(turn)
    canvas.scale(scale, scale)
    thread = skia.Paint(
        AntiAlias=True, Color=colour, Style=skia.Paint.kStroke_Style, StrokeWidth=2.2
    )
    canvas.drawLine(0, 0, 0, 70, thread)
    for strand in range(13):
        angle = np.radians(-150 + strand * 10)
        canvas.drawLine(0, 0, 60 * float(np.cos(angle)), 60 * float(np.sin(angle)), thread)
    grain = skia.Path.Oval(skia.Rect.MakeXYWH(-5, 66, 10, 26))
    canvas.drawPath(grain, skia.Paint(AntiAlias=True, Color=colour))
    canvas.restore()


def make_sheets(folder: Path) -> list[Path]:
    """A ridge under a flat bright noon sky, and ink washed over white paper."""
    return [_ridge(folder / "ridge-noon.jpg"), _wash(folder / "ink-wash.jpg")]


def _ridge(path: Path) -> Path:
    width, height = 1080, 1920
    surface = skia.Surface(width, height)
    canvas = surface.getCanvas()
    put(canvas, sky_sheet(width, height, 0xFFE9F0F2, 0xFFF3F1E6, 0xFFF6EFDD), 0, 0)
    for number, (top, colour) in enumerate(
        ((1010, 0xFF9C8272), (1200, 0xFF80695F), (1430, 0xFF6B564F))
    ):
        draw_sheet(canvas, hill(width, height, top, 90, 0.9, number * 1.9), colour, shadow=34)
    return _saved(surface, path)


def _wash(path: Path) -> Path:
    width, height = 1080, 1920
    surface = skia.Surface(width, height)
    surface.getCanvas().clear(0xFFFDFCF8)
    for number in range(7):
        paint = skia.Paint(AntiAlias=True, Color=(0x3A2E3F6B, 0x30563A66)[number % 2])
        paint.setMaskFilter(skia.MaskFilter.MakeBlur(skia.kNormal_BlurStyle, 14 + 6 * number))
        rng = np.random.default_rng(number + 3)
        x, y = width * (0.15 + 0.7 * rng.random()), height * (0.1 + 0.8 * rng.random())
        surface.getCanvas().drawPath(blob(x, y, 200 + 160 * rng.random(), 9, number), paint)
    return _saved(surface, path)


def _saved(surface: skia.Surface, path: Path) -> Path:
    pixels = surface.toarray(colorType=skia.kRGBA_8888_ColorType)
    Image.fromarray(pixels, "RGBA").convert("RGB").save(path, quality=90)
    return path
