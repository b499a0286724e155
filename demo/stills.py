"""A kite cut out, with alpha; a sheet of sky; a paper star that opens, as numbered stills."""

from __future__ import annotations

import math
from pathlib import Path

import skia
from PIL import Image

from demo.paper import blob, draw_sheet, kite
from demo.scenes import sky_sheet

STARS = 8


def make_stills(folder: Path) -> list[Path]:
    cutout = skia.Surface(900, 1400)
    kite(cutout.getCanvas(), 450, 420, 2.0, 0, 1.2)
    picture = Image.fromarray(cutout.toarray(colorType=skia.kRGBA_8888_ColorType), "RGBA")
    picture.save(folder / "kite-cutout.png")
    sheet = skia.Surface(1600, 2000)
    canvas = sheet.getCanvas()
    canvas.drawImage(sky_sheet(1600, 2000, 0xFF27406E, 0xFF6E6E9E, 0xFFE7A98E), 0, 0)
    for number, (x, y) in enumerate(((380, 500), (1150, 900), (500, 1420))):
        draw_sheet(canvas, blob(x, y, 150, 7, number + 20), 0xFFF8E6D8, shadow=30)
    flat = Image.fromarray(sheet.toarray(colorType=skia.kRGBA_8888_ColorType), "RGBA")
    flat.convert("RGB").save(folder / "evening-sheet.jpg", quality=90)
    return [folder / "kite-cutout.png", folder / "evening-sheet.jpg"]


def make_stars(folder: Path) -> list[Path]:
    """A star of folded paper, a little further open and turned in each picture."""
    return [_star(folder / f"star-{n + 1:02d}.png", n / (STARS - 1)) for n in range(STARS)]


def _star(path: Path, opened: float) -> Path:
    surface = skia.Surface(600, 600)
    canvas = surface.getCanvas()
    canvas.translate(300, 300)
    canvas.rotate(opened * 40)
    inner = 60 + 60 * opened
    for side, colour in ((0, 0xFFF4C95D), (1, 0xFFDE9F3B)):
        paint = skia.Paint(AntiAlias=True, Color=colour)
        for point in range(6):
            canvas.drawPath(_ray(point, side, inner, 150 + 120 * opened), paint)
    flat = Image.fromarray(surface.toarray(colorType=skia.kRGBA_8888_ColorType), "RGBA")
    flat.save(path)
    return path


def _ray(point: int, side: int, inner: float, outer: float) -> skia.Path:
    """Half of one of the six points, on the light or the shaded side of its fold."""
    along = math.radians(point * 60)
    across = along + math.radians(30 if side else -30)
    tip = outer * math.cos(along), outer * math.sin(along)
    notch = inner * math.cos(across), inner * math.sin(across)
    return skia.Path.Polygon([(0, 0), tip, notch], True)
