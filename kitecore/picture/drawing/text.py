"""Words: shaped, wrapped and aligned by Skia's paragraphs, in any script and direction."""

from __future__ import annotations

import unicodedata
from dataclasses import dataclass
from itertools import pairwise
from threading import Lock
from typing import Any, Final, Literal

import numpy as np
import regex
import skia

from kitecore.arrays import Size
from kitecore.document import TextClip
from kitecore.document.fills import Fill
from kitecore.motion.plain import number, words
from kitecore.picture.drawing.fills import paint_of
from kitecore.picture.drawing.surface import drawn
from kitecore.picture.drawing.typefaces import Typefaces
from kitecore.picture.layer import Rgba

_layout = skia.textlayout
_ALIGN: Final = {
    "start": _layout.TextAlign.kLeft,
    "middle": _layout.TextAlign.kCenter,
    "end": _layout.TextAlign.kRight,
    "justified": _layout.TextAlign.kJustify,
}
_MIRRORED: Final = {"start": "end", "end": "start"}
MOST_SIZE: Final = 4000.0
"""Canvas pixels of a letter's height."""
_WIDE: Final = 1e5
_ISOLATE, _POP = "\u2067", "\u2069"
_lock = Lock()
"""Skia's collection of fonts is shared between threads."""

Unit = Literal["letter", "word", "line"]
Span = tuple[int, int]
"""From one index of a text up to another."""
Lit = tuple[Span, skia.Paint]
"""Letters that are drawn with a paint of their own."""


@dataclass(frozen=True)
class Box:
    """Where the words are, in canvas pixels from the middle of the clip.

    ``width`` × ``height`` is the box of the text, ``left`` to ``right`` its longest line.
    """

    width: float
    height: float
    left: float
    right: float


def box_of_text(clip: TextClip, faces: Typefaces) -> Box:
    """The box of a text without keys."""
    with _lock:
        return _box(clip, _paragraph(clip, faces, None, None))


def extent_of_text(clip: TextClip, faces: Typefaces) -> tuple[float, float]:
    """Width and height, in canvas pixels, of the picture that a text is drawn on."""
    box = box_of_text(clip, faces)
    # Letters reach beyond their line, by swashes and accents.
    across = down = 0.45 * number(clip.size) + number(clip.outline_width)
    if clip.plate is not None:
        across = max(across, number(clip.plate.across))
        down = max(down, number(clip.plate.down))
    return box.width + 2 * across, box.height + 2 * down


def draw_text(clip: TextClip, size: Size, faces: Typefaces, only: Span | None = None) -> Rgba:
    """The text, without keys, in ``size`` pixels over its extent.

    Parameters
    ----------
    only
        Draw just the letters from one index of the text up to another, where they stand; without
        the plate.
    """
    extent = extent_of_text(clip, faces)
    with _lock:
        box = _box(clip, _paragraph(clip, faces, None, None))
        origin = skia.Point(box.width / 2, box.height / 2)
        paragraphs = []
        if clip.outline is not None and number(clip.outline_width) > 0:
            paragraphs.append(_paragraph(clip, faces, _outline(clip, origin), only))
        if clip.fill is not None:
            inside, lit = _inside(clip.fill, origin), _lit(clip, origin)
            paragraphs.append(_paragraph(clip, faces, inside, only, lit))

        def draw(canvas: skia.Canvas) -> None:
            if clip.plate is not None and only is None:
                _draw_plate(canvas, clip, box)
            for paragraph in paragraphs:
                paragraph.paint(canvas, -box.width / 2, -box.height / 2)

        return drawn(size, extent, draw)


def units(text: str, unit: Unit) -> list[Span]:
    """Stretches of a text that are moved as one, as pairs of indices; white space is left out.

    Letters are grapheme clusters (UAX #29); lines end where the text breaks them.
    """
    pattern = {"letter": r"\X", "word": r"\S+", "line": r"[^\n]+"}[unit]
    found = (match.span() for match in regex.finditer(pattern, text))
    return [(start, end) for start, end in found if text[start:end].strip()]


def is_rtl(text: str) -> bool:
    """Whether a line runs from right to left: by its first strong letter (UAX #9, P2 and P3)."""
    for letter in text:
        kind = unicodedata.bidirectional(letter)
        if kind in ("R", "AL"):
            return True
        if kind == "L":
            return False
    return False


def _outline(clip: TextClip, origin: skia.Point) -> skia.Paint:
    assert clip.outline is not None
    paint = _moved(paint_of(clip.outline), origin)
    paint.setStyle(skia.Paint.kStroke_Style)
    # Half of the line lies within the letters, under their fill.
    paint.setStrokeWidth(2 * number(clip.outline_width))
    paint.setStrokeJoin(skia.Paint.kRound_Join)
    return paint


def _inside(fill: Fill, origin: skia.Point) -> skia.Paint:
    return _moved(paint_of(fill), origin)


def _lit(clip: TextClip, origin: skia.Point) -> Lit | None:
    """The words that are lit: the one that is being said, or all up to that."""
    assert clip.said is None or isinstance(clip.said, int)
    spans = units(words(clip.text), "word")
    if clip.lit is None or not clip.said or clip.said > len(spans):
        return None
    first = 0 if clip.lit_stays else clip.said - 1
    return (spans[first][0], spans[clip.said - 1][1]), _inside(clip.lit, origin)


def _moved(paint: skia.Paint, origin: skia.Point) -> skia.Paint:
    """Gradients count from the middle of the clip, a paragraph from its corner."""
    shader = paint.getShader()
    if shader is not None:
        paint.setShader(shader.makeWithLocalMatrix(skia.Matrix.Translate(origin.x(), origin.y())))
    return paint


def _paragraph(
    clip: TextClip,
    faces: Typefaces,
    paint: skia.Paint | None,
    only: Span | None,
    lit: Lit | None = None,
) -> Any:
    """A paragraph laid out in its width."""
    text = words(clip.text) or " "
    rtl = is_rtl(text)
    align = _MIRRORED.get(clip.align, clip.align) if rtl else clip.align
    style = _layout.ParagraphStyle()
    style.setTextAlign(_ALIGN[align])
    plain = _style(clip, faces, paint)
    style.setTextStyle(plain)
    builder = _layout.ParagraphBuilder.make(style, faces.collection, faces.unicode)
    clear = _style(clip, faces, skia.Paint(Color=0))
    bright, lamp = lit or ((0, 0), None)
    shining = _style(clip, faces, lamp) if lamp else plain
    seen = only or (0, len(text))
    # All is shaped and ordered as one, whatever of it is seen.
    directed, places = _directed(text)
    for first, last in pairwise(sorted({0, *seen, *bright, len(text)})):
        here = clear if not _within(first, seen) else shining if _within(first, bright) else plain
        begin = places[first] if first else 0
        end = places[last] if last < len(text) else len(directed)
        builder.pushStyle(here)
        builder.addText(directed[begin:end])
        builder.pop()
    paragraph = builder.Build()
    width = max(number(clip.width), 0.0)
    paragraph.layout(width or _WIDE)
    if not width:
        paragraph.layout(float(np.ceil(paragraph.LongestLine)) + 1)
    return paragraph


def _within(at: int, span: Span) -> bool:
    return span[0] <= at < span[1]


def _directed(text: str) -> tuple[str, list[int]]:
    """Lines that run from right to left marked as such, so that stops and numbers stand right.

    With it where each index of the text is now.
    """
    out = ""
    places: list[int] = []
    for line in text.split("\n"):
        marks = (_ISOLATE, _POP) if is_rtl(line) else ("", "")
        begin = len(out) + len(marks[0])
        places += range(begin, begin + len(line) + 1)
        out += marks[0] + line + marks[1] + "\n"
    return out[:-1], places


def _style(clip: TextClip, faces: Typefaces, paint: skia.Paint | None) -> Any:
    style = _layout.TextStyle()
    style.setFontSize(min(max(number(clip.size), 1.0), MOST_SIZE))
    style.setFontFamilies(faces.families(clip.font))
    weight = skia.FontStyle.kBold_Weight if clip.bold else skia.FontStyle.kNormal_Weight
    slant = skia.FontStyle.kItalic_Slant if clip.italic else skia.FontStyle.kUpright_Slant
    style.setFontStyle(skia.FontStyle(weight, skia.FontStyle.kNormal_Width, slant))
    style.setLetterSpacing(number(clip.letter_space))
    style.setHeight(max(number(clip.line_height), 0.1))
    style.setHeightOverride(True)
    style.setHalfLeading(True)
    if paint is not None:
        style.setForegroundPaint(paint)
    return style


def _box(clip: TextClip, paragraph: Any) -> Box:
    width = max(number(clip.width), 0.0) or float(np.ceil(paragraph.LongestLine)) + 1
    line = min(paragraph.LongestLine, width)
    align = _MIRRORED.get(clip.align, clip.align) if is_rtl(words(clip.text)) else clip.align
    left = {"start": 0.0, "end": width - line}.get(align, (width - line) / 2) - width / 2
    return Box(width, paragraph.Height, left, left + line)


def _draw_plate(canvas: skia.Canvas, clip: TextClip, box: Box) -> None:
    plate = clip.plate
    assert plate is not None
    across, down, radius = number(plate.across), number(plate.down), number(plate.radius)
    rect = skia.Rect.MakeLTRB(
        box.left - across, -box.height / 2 - down, box.right + across, box.height / 2 + down
    )
    canvas.drawRoundRect(rect, radius, radius, paint_of(plate.fill))
