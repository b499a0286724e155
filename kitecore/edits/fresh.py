"""Layers that are not made of takes, as they are first placed."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Final, Literal

from pydantic import Field

from kitecore.document import ClipBase, Document, Holding, clip_kinds
from kitecore.edits._base import EditBase, edit_kinds
from kitecore.edits._fitting import DRAWN
from kitecore.edits.canvas import retimed_within
from kitecore.edits.fresh_mouth import mouth
from kitecore.edits.place import PlaceClip
from kitecore.model import Length, Start
from kitecore.registry import Registry
from kitecore.ticks import TICKS_PER_SECOND

FRESH_LENGTH: Final = 3 * TICKS_PER_SECOND
SHORT_SIDE: Final = 1080
"""Canvas pixels that fresh texts and shapes are made for; on other canvases they are sized to fit."""


@dataclass(frozen=True)
class FreshLayer:
    """What a person adds, and the clip it begins as; it is named by the title unless it says so."""

    title: str
    help: str
    clip: dict[str, Any]


def _plain(colour: str) -> dict[str, Any]:
    return {"kind": "plain", "colour": colour}


def _shape(form: str, **more: Any) -> dict[str, Any]:
    return {
        "kind": "shape",
        "form": {"kind": form},
        "fill": _plain("#e5604d"),
        "stroke": None,
    } | more


def _line(form: dict[str, Any], width: float) -> dict[str, Any]:
    stroke = {"fill": _plain("#fff4e2"), "width": width}
    return {"kind": "shape", "form": form, "fill": None, "stroke": stroke}


fresh_layers: Registry[FreshLayer] = Registry("fresh layer")

_LAYERS: Final = {
    "text": FreshLayer(
        "Text",
        "Words, in any font and script",
        {"kind": "text", "text": "Your words", "width": 860},
    ),
    "rectangle": FreshLayer("Rectangle", "With round corners if wanted", _shape("rectangle")),
    "ellipse": FreshLayer("Ellipse", "Or a circle", _shape("ellipse")),
    "polygon": FreshLayer("Polygon", "Three corners and more", _shape("polygon")),
    "star": FreshLayer("Star", "With as many points as wanted", _shape("star")),
    "line": FreshLayer("Line", "Straight, with dashes if wanted", _line({"kind": "line"}, 12)),
    "path": FreshLayer(
        "Pen path",
        "Set point by point on the picture",
        _line({"kind": "path", "contours": []}, 10) | {"name": "Path"},
    ),
    "colour": FreshLayer(
        "Colour",
        "One colour over the whole canvas",
        {"kind": "solid", "fill": _plain("#5d4384")},
    ),
    "gradient": FreshLayer(
        "Gradient",
        "From one colour to another; its ends are dragged on the picture",
        {"kind": "solid", "fill": {"kind": "straight"}},
    ),
    "mouth": FreshLayer(
        "Mouth",
        "Drawn lips with all poses; they talk with a voice, in Move",
        mouth(),
    ),
    "adjustment": FreshLayer(
        "Adjustment",
        "Its grade and effects work on all that lies below",
        {"kind": "adjustment"},
    ),
}
for _name, _layer in _LAYERS.items():
    fresh_layers.register(_name)(_layer)


@edit_kinds.register("add_layer")
class AddLayer(EditBase):
    """Lay a fresh layer above everything at ``at``, as large as the canvas asks for."""

    kind: Literal["add_layer"] = "add_layer"
    layer: str = Field(max_length=40)
    at: Start = 0
    length: Length = FRESH_LENGTH

    def label(self) -> str:
        return f"Add a layer: {self.layer}"

    def apply(self, document: Document) -> Document:
        canvas = document.canvas
        clip = fresh_clip(self.layer, min(canvas.width, canvas.height) / SHORT_SIDE, self.length)
        if isinstance(clip, Holding):
            clip = retimed_within(clip, document.rate.exact)
        return PlaceClip(seed=self.seed, clip=clip, mode="above", at=self.at).apply(document)


def fresh_clip(layer: str, factor: float = 1.0, length: int = FRESH_LENGTH) -> ClipBase:
    """A fresh layer as a clip, what is drawn enlarged by a factor.

    Raises
    ------
    UnknownName
        If there is no such layer.
    """
    fresh = fresh_layers[layer]
    data = {"name": fresh.title} | fresh.clip | {"id": "fresh", "length": length}
    own_size = data["kind"] in DRAWN or data.get("place", {}).get("fit") == "own"
    if own_size and factor != 1:
        data["place"] = data.get("place", {}) | {"size": [round(factor, 3)] * 2}
    return clip_kinds[data["kind"]].model_validate(data)
