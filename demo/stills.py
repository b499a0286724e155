"""Two pictures: a kite cut out, with alpha, and a sheet of sky."""

from __future__ import annotations

from pathlib import Path

import skia
from PIL import Image

from demo.paper import blob, draw_sheet, kite
from demo.scenes import _sky


def make_stills(folder: Path) -> list[Path]:
    cutout = skia.Surface(900, 1400)
    kite(cutout.getCanvas(), 450, 420, 2.0, 0, 1.2)
    picture = Image.fromarray(cutout.toarray(colorType=skia.kRGBA_8888_ColorType), "RGBA")
    picture.save(folder / "kite-cutout.png")
    sheet = skia.Surface(1600, 2000)
    canvas = sheet.getCanvas()
    canvas.drawImage(_sky(1600, 2000, 0xFF27406E, 0xFF6E6E9E, 0xFFE7A98E), 0, 0)
    for number, (x, y) in enumerate(((380, 500), (1150, 900), (500, 1420))):
        draw_sheet(canvas, blob(x, y, 150, 7, number + 20), 0xFFF8E6D8, shadow=30)
    flat = Image.fromarray(sheet.toarray(colorType=skia.kRGBA_8888_ColorType), "RGBA")
    flat.convert("RGB").save(folder / "evening-sheet.jpg", quality=90)
    return [folder / "kite-cutout.png", folder / "evening-sheet.jpg"]
