"""The scenes: each a function of time that draws on a canvas. Static sheets are cut once."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
import skia

from demo.paper import blob, draw_sheet, hill, kite, polygon, sheet_image

Draw = Callable[[skia.Canvas, float], None]
Scene = Callable[[int, int], Draw]

_SMOOTH = skia.SamplingOptions(skia.FilterMode.kLinear)


def sky_sheet(width: int, height: int, *colours: int) -> skia.Image:
    surface = skia.Surface(width, height)
    canvas = surface.getCanvas()
    shader = skia.GradientShader.MakeLinear([(0, 0), (0, height)], list(colours))
    canvas.drawPaint(skia.Paint(Shader=shader))
    draw_sheet(
        canvas,
        polygon((-9, -9), (width + 9, -9), (width + 9, height + 9), (-9, height + 9)),
        0x00000000,
        shadow=0,
        seed=9,
    )
    return surface.makeImageSnapshot()


def put(canvas: skia.Canvas, image: skia.Image, x: float, y: float) -> None:
    canvas.drawImage(image, x, y, _SMOOTH)


def _light(canvas: skia.Canvas, x: float, y: float, radius: float, colour: int) -> None:
    shader = skia.GradientShader.MakeRadial((x, y), radius, [colour, colour & 0x00FFFFFF])
    canvas.drawCircle(x, y, radius, skia.Paint(Shader=shader, BlendMode=skia.BlendMode.kScreen))


def launch(width: int, height: int) -> Draw:
    """Evening over paper dunes: the kite climbs, the camera follows it up."""
    tall = height + 500
    sky = sky_sheet(width, tall, 0xFF35538A, 0xFFB58AA0, 0xFFE9A987, 0xFFF6D7A8)
    sun = sheet_image(skia.Path.Circle(360, 360, 190), 0xFFFDF0CF, (720, 720), shadow=14)
    hills = [
        (
            sheet_image(
                hill(width + 300, 1000, 160, 60, 1.2, 0.4),
                0xFFC98673,
                (width + 300, 1000),
                shadow=40,
            ),
            0.35,
            980,
        ),
        (
            sheet_image(
                hill(width + 300, 900, 150, 70, 1.0, 2.0), 0xFFA0607A, (width + 300, 900), shadow=46
            ),
            0.6,
            1230,
        ),
        (
            sheet_image(
                hill(width + 300, 800, 140, 60, 1.4, 4.1), 0xFF5F3E61, (width + 300, 800), shadow=50
            ),
            1.0,
            1520,
        ),
    ]
    clouds = [
        (
            sheet_image(blob(360, 260, 110, 6, seed), 0xFFF8E6D8, (720, 420), shadow=20, seed=seed),
            x,
            y,
            speed,
        )
        for seed, x, y, speed in ((2, -80, 420, 40), (7, 620, 700, 65), (11, 200, 120, 30))
    ]

    def draw(canvas: skia.Canvas, time: float) -> None:
        climb = 380 * (0.5 - 0.5 * np.cos(min(time / 5.5, 1) * np.pi))
        put(canvas, sky, 0, -500 + climb * 0.25)
        put(canvas, sun, 430, 760 + climb * 0.3)
        for image, x, y, speed in clouds:
            put(canvas, image, x - time * speed, y + climb * 0.4)
        for image, depth, top in hills[:2]:
            put(canvas, image, -150 - 30 * depth * time, top + climb * depth)
        x = 330 + 70 * time + 50 * np.sin(time * 1.3)
        y = 1240 - 150 * time + 40 * np.sin(time * 2.1)
        kite(canvas, x, y + climb * 0.5, 1.15, -18 + 9 * np.sin(time * 1.7), time)
        image, depth, top = hills[2]
        put(canvas, image, -150 - 30 * depth * time, top + climb * depth)
        _light(canvas, 790, 1100 + climb * 0.3, 900, 0x66FFC98A)

    return draw


def workbench(width: int, height: int) -> Draw:
    """From above: a sheet is folded to a kite, edge by edge."""
    margin = 160
    bench = skia.Surface(width + 2 * margin, height + 2 * margin)
    flat = bench.getCanvas()
    wood = sky_sheet(bench.width(), bench.height(), 0xFF6E4B3A, 0xFF845B45, 0xFF6A4737)
    put(flat, wood, 0, 0)
    flat.translate(margin, margin)
    inner = skia.Rect.MakeXYWH(90, 260, width - 180, height - 620)
    mat = skia.Path.RRect(skia.RRect.MakeRectXY(inner, 36, 36))
    draw_sheet(flat, mat, 0xFF2F6F66, shadow=18)
    draw_sheet(flat, polygon((820, 120), (1010, 90), (1030, 560), (860, 600)), 0xFFE9C9B4)
    draw_sheet(flat, polygon((130, 1660), (330, 1600), (300, 1790), (180, 1840)), 0xFFF5C155)
    table = bench.makeImageSnapshot()

    def draw(canvas: skia.Canvas, time: float) -> None:
        canvas.save()
        closer = 1 + 0.035 * time
        canvas.translate(width / 2, height / 2)
        canvas.scale(closer, closer)
        canvas.rotate(-3 + time)
        canvas.translate(-width / 2, -height / 2)
        put(canvas, table, -margin, -margin)
        _folding(canvas, width / 2, height / 2 - 60, time)
        canvas.restore()
        _light(canvas, 150 + 60 * time, 250, 1300, 0x55FFE2B0)

    return draw


def _folding(canvas: skia.Canvas, x: float, y: float, time: float) -> None:
    """A square on its corner whose left and right corners are folded to the middle line."""
    canvas.save()
    canvas.translate(x, y)
    half = 430.0
    draw_sheet(
        canvas,
        polygon((0, -half), (half, 0), (0, half), (-half, 0)),
        0xFFF3D9C0,
        shadow=24,
        seed=21,
    )
    for side, begin in ((-1, 0.8), (1, 2.6)):
        share = float(np.clip((time - begin) / 1.3, 0, 1))
        share = share * share * (3 - 2 * share)
        reach = half * (1 - 2 * share)
        if share > 0:
            draw_sheet(
                canvas,
                polygon((0, -half), (side * half, 0), (side * half * 0.02, half)),
                0xFF2F6F66,
                shadow=0,
                seed=22,
            )
        colour = 0xFFF3D9C0 if share < 0.5 else 0xFFE5534B
        draw_sheet(
            canvas,
            polygon((0, -half), (side * reach, 10 - 60 * share), (0, half)),
            colour,
            shadow=10 + 26 * share * (1 - share) * 4,
            seed=23,
        )
    fold = skia.Paint(
        Color=0x55301020, AntiAlias=True, StrokeWidth=4, Style=skia.Paint.kStroke_Style
    )
    canvas.drawLine(0, -half, 0, half, fold)
    canvas.restore()


def window(width: int, height: int) -> Draw:
    """Kites on a line before a window; light wanders over paper of a skin-like tone."""
    wall = sky_sheet(width, height, 0xFF7B5568, 0xFF5D3F57, 0xFF3E2B41)
    frame = skia.Path()
    frame.addRect(skia.Rect.MakeXYWH(180, 190, 720, 980))
    frame.addRect(skia.Rect.MakeXYWH(220, 230, 305, 440), skia.PathDirection.kCCW)
    frame.addRect(skia.Rect.MakeXYWH(555, 230, 305, 440), skia.PathDirection.kCCW)
    frame.addRect(skia.Rect.MakeXYWH(220, 700, 305, 430), skia.PathDirection.kCCW)
    frame.addRect(skia.Rect.MakeXYWH(555, 700, 305, 430), skia.PathDirection.kCCW)
    bars = sheet_image(frame, 0xFFE7D5C4, (width, height), shadow=30)
    outside = sky_sheet(760, 1020, 0xFF8FB7D9, 0xFFD8E4E4, 0xFFF7E3C0)
    sill = sheet_image(
        polygon((120, 1170), (960, 1170), (1000, 1250), (80, 1250)),
        0xFFD9BFA6,
        (width, height),
        shadow=34,
    )
    cloud = sheet_image(blob(300, 240, 90, 5, 5), 0xFFFFFFFF, (640, 360), shadow=14)

    def draw(canvas: skia.Canvas, time: float) -> None:
        canvas.save()
        canvas.translate(-14 * time, 0)
        canvas.scale(1.08, 1.08)
        put(canvas, wall, 0, 0)
        canvas.save()
        canvas.clipRect(skia.Rect.MakeXYWH(180, 190, 720, 980))
        put(canvas, outside, 160, 170)
        put(canvas, cloud, 100 + 50 * time, 420)
        canvas.restore()
        put(canvas, bars, 0, 0)
        put(canvas, sill, 0, 0)
        line = skia.Paint(
            Color=0xFFF4E8DA, AntiAlias=True, StrokeWidth=5, Style=skia.Paint.kStroke_Style
        )
        path = skia.Path()
        path.moveTo(-100, 1300)
        path.quadTo(540, 1470 + 12 * np.sin(time * 2), 1200, 1290)
        canvas.drawPath(path, line)
        papers = (
            (210, 0xFFE9B99A, 0xFFF3D9C0),
            (540, 0xFF6FC3B2, 0xFFF5C155),
            (860, 0xFFE5534B, 0xFFF8E6D8),
        )
        for number, (x, warm, bright) in enumerate(papers):
            sway = 6 * np.sin(time * 2.2 + number * 1.4)
            kite(canvas, x, 1590, 0.95, 180 + sway, time, warm=warm, bright=bright, tail=False)
        canvas.restore()
        _light(canvas, 300 + 120 * time, 700, 1000, 0x66FFE0A6)

    return draw


def harbour(width: int, height: int) -> Draw:
    """Wide: five kites drift over paper water."""
    sky = sky_sheet(width, height, 0xFF7FB2C9, 0xFFBFDDD9, 0xFFFBE9C6)
    waves = [
        (
            sheet_image(
                hill(width + 600, 600, 110, 26, 5 + n, n * 1.7),
                colour,
                (width + 600, 600),
                shadow=30,
            ),
            top,
            speed,
        )
        for n, (colour, top, speed) in enumerate(
            ((0xFF4E93A0, 560, 34), (0xFF34728A, 690, -48), (0xFF22506B, 830, 66))
        )
    ]
    clouds = [
        (
            sheet_image(blob(460, 260, 120, 7, seed), 0xFFFFF6EA, (920, 420), shadow=22, seed=seed),
            x,
            y,
        )
        for seed, x, y in ((3, -120, 60), (8, 760, -40), (13, 1330, 110))
    ]
    boat = skia.Path()
    boat.moveTo(0, 60)
    boat.lineTo(260, 60)
    boat.lineTo(200, 130)
    boat.lineTo(60, 130)
    boat.close()
    boat.addPath(polygon((125, 50), (125, -120), (235, 45)))
    ship = sheet_image(boat, 0xFFF8E6D8, (300, 200), shadow=16)

    def draw(canvas: skia.Canvas, time: float) -> None:
        put(canvas, sky, 0, 0)
        for number, (image, x, y) in enumerate(clouds):
            put(canvas, image, x + time * (18 + 9 * number), y)
        for number in range(5):
            x = 200 + number * 370 + 55 * time
            y = 330 + 80 * np.sin(number * 1.9 + time)
            warm, bright = ((0xFFE5534B, 0xFFF5C155), (0xFF5D4384, 0xFFF3D9C0))[number % 2]
            kite(
                canvas,
                x,
                y,
                0.5 + 0.08 * (number % 3),
                12 * np.sin(time * 1.5 + number),
                time + number,
                warm=warm,
                bright=bright,
            )
        for number, (image, top, speed) in enumerate(waves):
            put(
                canvas,
                image,
                -300 + speed * np.sin(time * 0.9 + number),
                top + 10 * np.sin(time * 1.4 + number),
            )
            if number == 0:
                put(canvas, ship, 1100 - 40 * time, 560 + 12 * np.sin(time * 2))
        _light(canvas, 1500, 150, 1100, 0x55FFF0C8)

    return draw


def bird(
    width: int,
    height: int,
    speaks: Callable[[float], float] = lambda time: 26 * abs(np.sin(time * 6)),
) -> Draw:
    """The workshop's paper bird looks into the camera, and speaks: how far its beak is open."""
    back = sky_sheet(width, height, 0xFF2F5E66, 0xFF3E7A78, 0xFF2B4A57)
    dots = skia.Surface(width, height)
    for number in range(40):
        rng = np.random.default_rng(number)
        spot = skia.Path.Circle(rng.random() * width, rng.random() * height, 14 + 22 * rng.random())
        draw_sheet(dots.getCanvas(), spot, (0xFF4C8F86, 0xFF397069)[number % 2], shadow=6)
    pattern = dots.makeImageSnapshot()

    def draw(canvas: skia.Canvas, time: float) -> None:
        put(canvas, back, 0, 0)
        put(canvas, pattern, 10 * np.sin(time), 0)
        canvas.save()
        canvas.translate(width / 2 + 30 * np.sin(time * 1.2), height * 0.56)
        nod = 5 * np.sin(time * 2.4)
        flap = 30 * np.sin(time * 5)
        draw_sheet(
            canvas, polygon((-90, 40), (-430, -120 + flap), (-140, 260)), 0xFFD98E73, shadow=30
        )
        draw_sheet(canvas, polygon((90, 40), (430, -120 + flap), (140, 260)), 0xFFD98E73, shadow=30)
        draw_sheet(
            canvas,
            polygon((0, -80), (210, 120), (120, 480), (-120, 480), (-210, 120)),
            0xFFE9B99A,
            shadow=36,
        )
        canvas.rotate(nod)
        draw_sheet(
            canvas,
            polygon((0, -420), (190, -250), (150, -60), (-150, -60), (-190, -250)),
            0xFFF3CDB2,
            shadow=34,
        )
        blink = 0.15 if time % 1.7 < 0.12 else 1.0
        for side in (-1, 1):
            draw_sheet(
                canvas,
                skia.Path.Oval(
                    skia.Rect.MakeXYWH(side * 80 - 28, -240 - 30 * blink, 56, 60 * blink)
                ),
                0xFF2A1A24,
                shadow=4,
            )
        opened = speaks(time)
        draw_sheet(canvas, polygon((-56, -170), (56, -170), (0, -80)), 0xFFF5C155, shadow=12)
        draw_sheet(
            canvas,
            polygon((-40, -150 + opened), (40, -150 + opened), (0, -70 + opened)),
            0xFFE09A3C,
            shadow=6,
        )
        canvas.restore()
        _light(canvas, width * 0.2, height * 0.2, 1200, 0x44FFE7C0)

    return draw


def reel(width: int, height: int) -> Draw:
    """A spinning reel of string, close up."""
    back = sky_sheet(width, height, 0xFFE8A98A, 0xFFD98873, 0xFFB9656B)

    def draw(canvas: skia.Canvas, time: float) -> None:
        put(canvas, back, 0, 0)
        canvas.save()
        canvas.translate(width / 2, height * 0.56)
        canvas.rotate(-200 * time)
        draw_sheet(canvas, skia.Path.Circle(0, 0, 400), 0xFF5D4384, shadow=44)
        draw_sheet(canvas, skia.Path.Circle(0, 0, 320), 0xFFF8E6D8, shadow=18)
        string = skia.Paint(
            Color=0x66A07868, AntiAlias=True, StrokeWidth=5, Style=skia.Paint.kStroke_Style
        )
        for ring in range(9):
            canvas.drawOval(
                skia.Rect.MakeXYWH(
                    -300 + ring * 20, -300 + ring * 22, 600 - ring * 40, 600 - ring * 44
                ),
                string,
            )
        for _ in range(6):
            canvas.rotate(60)
            draw_sheet(
                canvas,
                polygon((-26, -60), (26, -60), (16, -390), (-16, -390)),
                0xFFF5C155,
                shadow=12,
            )
        draw_sheet(canvas, skia.Path.Circle(0, 0, 84), 0xFFE5534B, shadow=16)
        canvas.restore()
        line = skia.Paint(
            Color=0xFFFBEFDC, AntiAlias=True, StrokeWidth=7, Style=skia.Paint.kStroke_Style
        )
        path = skia.Path()
        path.moveTo(width / 2 + 300, height * 0.56 - 110)
        path.quadTo(900, 500, 760 + 40 * np.sin(time * 3), -20)
        canvas.drawPath(path, line)
        _light(canvas, 250, 300, 1100, 0x55FFE9C9)

    return draw
