"""Cut paper: sheets with fibres, soft shadows and a lit edge."""

from __future__ import annotations

from functools import cache

import cv2
import numpy as np
import skia

INK = 0xFF4A2A35


@cache
def fibres(seed: int, width: int = 700, height: int = 900) -> skia.Image:
    """Grey paper grain to multiply with: long soft fibres over fine tooth."""
    rng = np.random.default_rng(seed)
    tooth = rng.normal(0, 1, (height, width)).astype(np.float32)
    long = cv2.GaussianBlur(
        rng.normal(0, 1, (height, width)).astype(np.float32), (0, 0), 9, sigmaY=1.2
    )
    cloud = cv2.resize(
        rng.normal(0, 1, (12, 8)).astype(np.float32), (width, height), interpolation=cv2.INTER_CUBIC
    )
    grain = 238 + 3.5 * tooth + 26 * long + 4 * cloud
    grey = np.clip(grain, 190, 255).astype(np.uint8)
    return skia.Image.fromarray(cv2.cvtColor(grey, cv2.COLOR_GRAY2RGBA))


def draw_sheet(
    canvas: skia.Canvas,
    path: skia.Path,
    colour: int,
    *,
    shadow: float = 22,
    seed: int = 1,
) -> None:
    """A cut sheet with its shadow; ``shadow`` is how far it lies above what is below, in pixels."""
    if shadow:
        dark = skia.Paint(Color=0x66231528, AntiAlias=True)
        dark.setMaskFilter(skia.MaskFilter.MakeBlur(skia.kNormal_BlurStyle, shadow * 0.6))
        canvas.save()
        canvas.translate(-shadow * 0.25, shadow * 0.55)
        canvas.drawPath(path, dark)
        canvas.restore()
    canvas.drawPath(path, skia.Paint(Color=colour, AntiAlias=True))
    bounds = path.getBounds()
    at = skia.Matrix.Translate(bounds.left(), bounds.top())
    tiles = (skia.TileMode.kMirror, skia.TileMode.kMirror)
    grain = fibres(seed).makeShader(*tiles, skia.SamplingOptions(), at)
    canvas.drawPath(
        path, skia.Paint(Shader=grain, BlendMode=skia.BlendMode.kMultiply, AntiAlias=True)
    )
    edge = skia.Paint(
        Color=0x38FFFFFF, AntiAlias=True, Style=skia.Paint.kStroke_Style, StrokeWidth=2.5
    )
    canvas.drawPath(path, edge)


def sheet_image(path: skia.Path, colour: int, size: tuple[int, int], **how: object) -> skia.Image:
    """The same on a transparent picture of its own, to be moved about cheaply."""
    surface = skia.Surface(*size)
    draw_sheet(surface.getCanvas(), path, colour, **how)  # type: ignore[arg-type]
    return surface.makeImageSnapshot()


def hill(
    width: int, height: int, top: float, swing: float, waves: float, phase: float
) -> skia.Path:
    """A rolling edge with everything below it."""
    path = skia.Path()
    path.moveTo(-50, height + 50)
    for x in range(-50, width + 51, 10):
        across = x / width * np.pi * 2 * waves + phase
        path.lineTo(x, top + swing * (np.sin(across) + 0.35 * np.sin(across * 2.3 + 1)))
    path.lineTo(width + 50, height + 50)
    path.close()
    return path


def blob(cx: float, cy: float, radius: float, bumps: int, seed: int) -> skia.Path:
    """A cloud as one would cut it with scissors."""
    rng = np.random.default_rng(seed)
    path = skia.Path()
    for number in range(bumps):
        share = number / (bumps - 1)
        r = radius * (0.45 + 0.4 * np.sin(share * np.pi)) * (0.85 + 0.3 * rng.random())
        path.addCircle(cx + (share - 0.5) * radius * 3.2, cy - r * 0.55, r)
    path.addRoundRect(
        skia.Rect.MakeXYWH(cx - radius * 1.9, cy - radius * 0.5, radius * 3.8, radius * 0.55),
        40,
        40,
    )
    return skia.Simplify(path)


def polygon(*points: tuple[float, float]) -> skia.Path:
    path = skia.Path()
    path.moveTo(*points[0])
    for point in points[1:]:
        path.lineTo(*point)
    path.close()
    return path


def kite(
    canvas: skia.Canvas,
    x: float,
    y: float,
    scale: float,
    turn: float,
    time: float,
    *,
    warm: int = 0xFFE5534B,
    bright: int = 0xFFF5C155,
    tail: bool = True,
) -> None:
    """A folded kite with two papers and a tail that follows the wind."""
    canvas.save()
    canvas.translate(x, y)
    canvas.rotate(turn)
    canvas.scale(scale, scale)
    if tail:
        _tail(canvas, time, bright)
    top, right, left, end = (0, -150), (105, -40), (-105, -40), (0, 190)
    middle = (0, -40)
    draw_sheet(canvas, polygon(top, right, end, left), warm, shadow=26, seed=3)
    for corners, colour in (((top, right, middle), bright), ((left, end, middle), bright)):
        draw_sheet(canvas, polygon(*corners), colour, shadow=0, seed=4)
    shade = skia.Paint(Color=0x22301020, AntiAlias=True)
    canvas.drawPath(polygon(middle, right, end), shade)
    fold = skia.Paint(Color=INK, AntiAlias=True, StrokeWidth=4, Style=skia.Paint.kStroke_Style)
    canvas.drawLine(0, -150, 0, 190, fold)
    canvas.drawLine(-105, -40, 105, -40, fold)
    canvas.restore()


def _tail(canvas: skia.Canvas, time: float, colour: int) -> None:
    line = skia.Paint(
        Color=0xFFFBEFDC, AntiAlias=True, StrokeWidth=6, Style=skia.Paint.kStroke_Style
    )
    path = skia.Path()
    spots = []
    for step in range(60):
        share = step / 59
        spots.append((np.sin(share * 6 - time * 4) * 60 * share, 190 + share * 430))
    path.moveTo(*spots[0])
    for spot in spots[1:]:
        path.lineTo(*spot)
    canvas.drawPath(path, line)
    for step in (16, 30, 44, 57):
        x, y = spots[step]
        slant = 12 * np.sin(time * 4 + step)
        bow = polygon(
            (x, y),
            (x - 34, y - 18 + slant),
            (x - 30, y + 20 + slant),
            (x + 34, y - 18 - slant),
            (x + 30, y + 20 - slant),
        )
        draw_sheet(canvas, bow, colour, shadow=8, seed=5)
