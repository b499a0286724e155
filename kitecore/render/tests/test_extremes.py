"""Whatever may be set can be drawn: every number of every kind of layer at both its ends."""

from __future__ import annotations

import tempfile
import time
from collections.abc import Iterator
from pathlib import Path
from typing import Any
from unittest import TestCase

import annotated_types
import numpy as np

from kitecore.document import Document, Model
from kitecore.document.clips import clip_kinds
from kitecore.document.effects import effect_kinds
from kitecore.document.fills import FILLS
from kitecore.document.grade import Grade, Zone
from kitecore.document.masks import MASKS
from kitecore.document.shapes import FORMS
from kitecore.document.transitions import transition_kinds
from kitecore.edits._properties import with_values
from kitecore.errors import EditRefused
from kitecore.model import FARTHEST, Within
from kitecore.render.frame import render
from kitecore.render.sources import Sources
from kitecore.render.tests.scene import SECOND, Scene

SIZE = (90, 160)
SLOWEST = 20.0
"""Seconds after which drawing one small frame counts as stuck, on the busiest machine."""

LAYERS: dict[str, dict[str, Any]] = {
    "text": {"kind": "text", "text": "Kite", "plate": {}, "outline_width": 4},
    "solid": {"kind": "solid", "fill": {"kind": "plain", "colour": "#cc8844"}},
    "graded": {"kind": "solid", "grade": {"zones": [{"id": "z", "masks": [{"kind": "edge"}]}]}},
    "luma key": {"kind": "solid", "key": {"kind": "luma"}},
    "chroma key": {"kind": "solid", "key": {"kind": "chroma"}},
    "pins": {
        "kind": "shape",
        "form": {"kind": "rectangle"},
        "warp": {"kind": "pins", "pins": [{"rest": [0, 0], "at": [0.1, 0]}]},
    },
    "grid": {"kind": "solid", "warp": {"kind": "grid"}},
    "adjustment": {"kind": "adjustment", "grade": {"light": {"exposure": 1}}},
    "goes on": {"kind": "solid", "moves": {"meanwhile": [{"kind": "sway", "id": "m"}]}},
    **{f"effect {kind}": {"kind": "solid", "effects": [{"kind": kind}]} for kind in effect_kinds},
    **{f"mask {kind}": {"kind": "solid", "masks": [{"kind": kind}]} for kind in MASKS},
    **{f"fill {kind}": {"kind": "solid", "fill": {"kind": kind}} for kind in FILLS},
    **{
        f"form {kind}": {
            "kind": "shape",
            "form": {"kind": kind},
            "stroke": {"fill": {"kind": "plain"}, "width": 5, "dashes": [9, 4]},
        }
        for kind in FORMS
    },
}


def leaves(model: Model, path: str = "") -> Iterator[tuple[str, Any, float, float]]:
    """Paths of numbers and points within a model, what they are, and their bounds."""
    for name, field in type(model).model_fields.items():
        value, here = getattr(model, name), f"{path}{name}"
        if isinstance(value, Model):
            yield from leaves(value, f"{here}/")
        elif isinstance(value, tuple) and value and isinstance(value[0], Model):
            for index, one in enumerate(value):
                yield from leaves(one, f"{here}/{index}/")
        elif _numeric(value) and name not in ("start", "length"):
            low, high = _bounds(field.metadata)
            yield here, value, low, high


def _numeric(value: Any) -> bool:
    if isinstance(value, tuple):
        return bool(value) and all(_numeric(one) for one in value)
    return isinstance(value, int | float) and not isinstance(value, bool)


def _bounds(metadata: list[Any]) -> tuple[float, float]:
    low, high = -FARTHEST, FARTHEST
    for one in metadata:
        if isinstance(one, Within):
            return one.low, one.high
        low = one.ge if isinstance(one, annotated_types.Ge) else low  # type: ignore[assignment]
        high = one.le if isinstance(one, annotated_types.Le) else high  # type: ignore[assignment]
    return low, high


def at(value: Any, number: float) -> Any:
    if isinstance(value, tuple):
        return [at(one, number) for one in value]
    return round(number) if isinstance(value, int) else number


class ExtremesTest(TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.scene = Scene(Path(folder.name))
        self.sources = Sources(self.scene.find)
        self.addCleanup(self.sources.close)

    def document_of(self, clip: Any) -> Document:
        ground = {"kind": "solid", "length": SECOND, "fill": {"kind": "plain", "colour": "#336699"}}
        empty = self.scene.document
        main = empty.main.with_clips((clip_kinds["solid"].model_validate(ground),))
        above = main.model_copy(update={"id": "above", "kind": "picture", "clips": (clip,)})
        return empty.model_copy(update={"tracks": (main, above)})

    def test_every_layer_with_every_number_at_its_ends(self) -> None:
        tried = 0
        for name, data in LAYERS.items():
            clip = clip_kinds[data["kind"]].model_validate({"id": "c", "length": SECOND} | data)
            for path, value, low, high in leaves(clip):
                for number in (low, high):
                    try:
                        wild = with_values(clip, {path: at(value, number)})
                    except EditRefused:
                        continue
                    tried += 1
                    with self.subTest(layer=name, path=path, number=number):
                        self._draws(self.document_of(wild))
        self.assertLess(500, tried)

    def _draws(self, document: Document) -> None:
        begun = time.monotonic()
        with np.errstate(invalid="ignore"):
            drawn = render(document, SECOND // 3, SIZE, self.sources)
        self.assertEqual((*SIZE[::-1], 4), drawn.shape)
        self.assertLess(time.monotonic() - begun, SLOWEST)

    def test_every_stage_of_a_grade_is_among_them(self) -> None:
        clip: Any = clip_kinds["solid"].model_validate(
            {"id": "c", "length": SECOND, "grade": Grade(zones=(Zone(),))}
        )
        paths = {path for path, *_ in leaves(clip)}
        for wanted in ("grade/light/exposure", "grade/zones/0/amount", "grade/levels/gamma"):
            self.assertIn(wanted, paths)

    def test_every_transition(self) -> None:
        for kind, model in transition_kinds.items():
            plain = model.model_validate({"kind": kind, "length": SECOND // 2})
            for path, value, low, high in leaves(plain):
                for number in (low, high):
                    with self.subTest(kind, path=path, number=number):
                        wild = with_values(plain, {path: at(value, number)})
                        self._draws(self._joined(wild))

    def _joined(self, transition: Model) -> Document:
        solid = {"kind": "solid", "length": SECOND // 2}
        first, second = (
            clip_kinds["solid"].model_validate(solid | {"start": n * SECOND // 2}) for n in (0, 1)
        )
        second = second.model_copy(update={"transition": transition})
        empty = self.scene.document
        main = empty.main.with_clips((first, second))
        return empty.model_copy(update={"tracks": (main,)})
