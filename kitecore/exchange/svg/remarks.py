"""What of a drawing cannot be taken, in words."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Final
from xml.etree.ElementTree import Element

from kitecore.exchange.svg.styles import Style, local_name, style_of

OVAL: Final = "Some of its gradients are round or even here."
_ELEMENTS: Final = {
    "image": "pictures",
    "foreignObject": "pages in it",
    "textPath": "words along a line",
    "pattern": "patterns",
    "animate": "motion",
    "animateTransform": "motion",
    "animateMotion": "motion",
    "set": "motion",
}
_PROPERTIES: Final = {
    "filter": "filters",
    "mask": "masks",
    "clip-path": "clipping",
    "marker-start": "ends of lines",
    "marker-mid": "ends of lines",
    "marker-end": "ends of lines",
    "mix-blend-mode": "blending",
}


def remarks_of(root: Element, rules: Mapping[str, Style]) -> tuple[str, ...]:
    """One sentence that names all that is left out; none if that is nothing."""
    lost: list[str] = []
    for element in root.iter():
        lost.append(_ELEMENTS.get(local_name(element), ""))
        style = style_of(element, rules)
        lost += [
            words
            for name, words in _PROPERTIES.items()
            if style.get(name, "none") not in ("none", "normal", "")
        ]
    found = [*dict.fromkeys(words for words in lost if words)]
    return (f"Left out of the drawing: {', '.join(found)}.",) if found else ()
