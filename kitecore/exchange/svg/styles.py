"""Properties of elements as attributes, style and style sheets give them (CSS 2: simple selectors)."""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping
from typing import Final
from xml.etree.ElementTree import Element

Style = dict[str, str]
_RULE: Final = re.compile(r"([^{}]+)\{([^{}]*)\}")
_NUMBER: Final = re.compile(r"\s*([-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?)\s*(%|[a-z]*)", re.I)
_UNITS: Final = {"": 1.0, "px": 1.0, "pt": 4 / 3, "pc": 16.0, "mm": 96 / 25.4, "cm": 96 / 2.54}
_HREF: Final = ("href", "{http://www.w3.org/1999/xlink}href")


def local_name(element: Element) -> str:
    """The name of an element without its namespace."""
    return element.tag.rpartition("}")[2] if isinstance(element.tag, str) else ""


def rules_of(root: Element) -> dict[str, Style]:
    """What style sheets say, by simple selector: ``.class``, ``#id``, ``name``."""
    rules: dict[str, Style] = {}
    for sheet in root.iter():
        if local_name(sheet) == "style":
            for selectors, body in _RULE.findall(sheet.text or ""):
                for selector in selectors.split(","):
                    rules.setdefault(selector.strip(), {}).update(declared(body))
    return rules


def declared(style: str) -> Style:
    """``a: b; c: d`` as pairs."""
    pairs = (one.partition(":") for one in style.split(";") if ":" in one)
    return {name.strip().lower(): value.strip() for name, _, value in pairs}


def style_of(element: Element, rules: Mapping[str, Style]) -> Style:
    """An element's own properties, the stronger ones over the weaker."""
    names = [local_name(element), *(f".{name}" for name in element.get("class", "").split())]
    names.append(f"#{element.get('id')}")
    found = dict(element.attrib)
    for name in names:
        found |= rules.get(name, {})
    return found | declared(element.get("style", ""))


def number(text: str | None, default: float, whole: float = 1.0) -> float:
    """A length in user units; a percentage is of ``whole``."""
    match = _NUMBER.match(text or "")
    if not match:
        return default
    value, unit = float(match[1]), match[2].lower()
    return value / 100 * whole if unit == "%" else value * _UNITS.get(unit, 1.0)


def named(value: str | None) -> str | None:
    """The id that ``url(#id)`` speaks of."""
    match = re.match(r"\s*url\(\s*['\"]?#([^)'\"]+)['\"]?\s*\)", value or "")
    return match[1] if match else None


def linked(element: Element) -> str:
    """The id that an element refers to; empty if none."""
    found = next((element.get(name) for name in _HREF if element.get(name)), "") or ""
    return found[1:] if found.startswith("#") else ""


def by_id(root: Element) -> dict[str, Element]:
    return {name: one for one in root.iter() if (name := one.get("id"))}


def children(element: Element, name: str) -> Iterator[Element]:
    return (child for child in element if local_name(child) == name)
