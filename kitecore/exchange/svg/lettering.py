"""Words of a drawing as outlines, shaped by HarfBuzz with our own fonts."""

from __future__ import annotations

import copy
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path
from typing import Final
from xml.etree.ElementTree import Element

import uharfbuzz as hb
from fontTools.pens.svgPathPen import SVGPathPen
from fontTools.pens.transformPen import TransformPen

from kitecore.exchange.svg.styles import Style, local_name, number, style_of
from kitecore.fonts import SHIPPED_FONTS, fallbacks

_STANDING_IN: Final = {"serif": "fraunces", "monospace": "space-mono", "cursive": "caveat"}
_PLAIN: Final = "instrument-sans"
_INHERITED: Final = ("font-size", "font-family", "font-weight", "font-style", "text-anchor")
_PLACED: Final = {"x", "y", "dx", "dy", "rotate", "textLength", "lengthAdjust"}
_BOLD: Final = {"bold", "bolder", "600", "700", "800", "900"}
_SPACES: Final = "{http://www.w3.org/XML/1998/namespace}space"
MOST_LETTERS: Final = 2000


@dataclass
class _Run:
    """Letters of one look; ``at`` where the pen is put before them, if it is."""

    text: str
    style: Style
    element: Element
    at: tuple[float | None, float | None] = (None, None)
    by: tuple[float, float] = (0.0, 0.0)


def lettered(root: Element, rules: Mapping[str, Style]) -> None:
    """Put outlines in place of all text of a drawing."""
    for parent, above in list(_with_styles(root, rules, {})):
        for place, child in enumerate(list(parent)):
            if local_name(child) == "text":
                parent[place] = _outlines(child, above, rules)


def _with_styles(
    element: Element, rules: Mapping[str, Style], above: Style
) -> Iterator[tuple[Element, Style]]:
    """Every element with what its content inherits."""
    style = above | _of_type(style_of(element, rules))
    yield element, style
    for child in element:
        if local_name(child) != "text":
            yield from _with_styles(child, rules, style)


def _of_type(style: Style) -> Style:
    return {name: value for name, value in style.items() if name in _INHERITED}


def _outlines(text: Element, above: Style, rules: Mapping[str, Style]) -> Element:
    """A group that looks like a text element, of a path for each of its runs."""
    group = Element(text.tag.replace("text", "g"), _unplaced(text))
    pen = [0.0, 0.0]
    for chunk in _chunks(list(_runs(text, above, rules))):
        pen = [here if at is None else at for here, at in zip(pen, chunk[0].at, strict=True)]
        shaped = [(run, *_shape(run)) for run in chunk]
        width = sum(run.by[0] + advance for run, _, advance in shaped)
        anchor = chunk[0].style.get("text-anchor", "start")
        pen[0] -= {"middle": width / 2, "end": width}.get(anchor, 0.0)
        for run, glyphs, advance in shaped:
            pen[0] += run.by[0]
            pen[1] += run.by[1]
            path = Element(text.tag.replace("text", "path"), _unplaced(run.element))
            path.set("d", _drawn(glyphs, pen[0], pen[1]))
            if run.element is text:
                path.attrib = {"d": path.attrib["d"]}
            group.append(path)
            pen[0] += advance
    return group


def _unplaced(element: Element) -> dict[str, str]:
    return {name: value for name, value in element.attrib.items() if name not in _PLACED}


def _runs(element: Element, above: Style, rules: Mapping[str, Style]) -> Iterator[_Run]:
    own = style_of(element, rules)
    style = above | _of_type(own)
    kept = element.get(_SPACES) == "preserve"
    first = _Run(_spaced(element.text, kept), style, element)
    first.at = (_first(own.get("x")), _first(own.get("y")))
    first.by = (_first(own.get("dx")) or 0.0, _first(own.get("dy")) or 0.0)
    yield first
    for child in element:
        if local_name(child) in ("tspan", "a"):
            yield from _runs(child, style, rules)
        yield _Run(_spaced(child.tail, kept), style, element)


def _first(numbers: str | None) -> float | None:
    parts = (numbers or "").replace(",", " ").split()
    return number(parts[0], 0.0) if parts else None


def _spaced(text: str | None, kept: bool) -> str:
    text = (text or "").replace("\n", " ").replace("\t", " ")
    if kept:
        return text
    words = " ".join(text.split())
    return f"{' ' * text.startswith(' ')}{words}{' ' * (text.endswith(' ') and bool(words))}"


def _chunks(runs: list[_Run]) -> Iterator[list[_Run]]:
    """Runs that stand in a row: a new place begins a new one; spaces at its ends are left out."""
    row: list[_Run] = []
    for run in runs:
        if row and run.at != (None, None):
            yield row
            row = []
        if not row:
            run = copy.copy(run)
            run.text = run.text.lstrip(" ")
        row.append(run)
    if row:
        yield row


def _shape(run: _Run) -> tuple[list[tuple[hb.Font, int, float, float, float]], float]:
    """Glyphs as font, number, place and size; and how far they lead on."""
    size = number(run.style.get("font-size"), 16.0)
    glyphs: list[tuple[hb.Font, int, float, float, float]] = []
    pen = 0.0
    for font, part in _by_font(run.text[:MOST_LETTERS], _files(run.style)):
        buffer = hb.Buffer()
        buffer.add_str(part)
        buffer.guess_segment_properties()
        hb.shape(font, buffer)
        unit = size / font.face.upem
        for info, position in zip(buffer.glyph_infos, buffer.glyph_positions, strict=True):
            x, y = pen + position.x_offset * unit, -position.y_offset * unit
            glyphs.append((font, info.codepoint, x, y, unit))
            pen += position.x_advance * unit
    return glyphs, pen


def _drawn(glyphs: list[tuple[hb.Font, int, float, float, float]], x: float, y: float) -> str:
    pen = SVGPathPen(None, ntos=lambda value: f"{value:.4f}")
    for font, number_, dx, dy, unit in glyphs:
        font.draw_glyph_with_pen(number_, TransformPen(pen, (unit, 0, 0, -unit, x + dx, y + dy)))
    return str(pen.getCommands())


def _files(style: Style) -> tuple[Path, ...]:
    """The font that is asked for, or that stands in for it, and those for letters it lacks."""
    families = [one.strip(" '\"").lower() for one in style.get("font-family", "").split(",")]
    titles = {font.title.lower(): name for name, font in SHIPPED_FONTS.items()}
    known = titles | _STANDING_IN
    name = next((known[family] for family in families if family in known), _PLAIN)
    bold = style.get("font-weight", "") in _BOLD
    italic = style.get("font-style", "") in ("italic", "oblique")
    files = SHIPPED_FONTS[name].files
    wanted = f"{name}{'-bold' * bold}{'-italic' * italic}"
    first = next((path for path in files if path.stem == wanted), files[0])
    return (first, *fallbacks())


def _by_font(text: str, files: tuple[Path, ...]) -> Iterator[tuple[hb.Font, str]]:
    """Stretches of a text that one font has the letters of."""
    held, current = "", _font(files[0])
    for letter in text:
        has = next((path for path in files if _has(path, letter)), files[0])
        font = current if letter == " " and held else _font(has)
        if font is not current and held:
            yield current, held
            held = ""
        held, current = held + letter, font
    if held:
        yield current, held


@lru_cache(maxsize=32)
def _font(path: Path) -> hb.Font:
    return hb.Font(hb.Face(hb.Blob.from_file_path(str(path))))


@lru_cache(maxsize=4096)
def _has(path: Path, letter: str) -> bool:
    return _font(path).get_nominal_glyph(ord(letter)) is not None
