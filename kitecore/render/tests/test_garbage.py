"""What a frame was drawn with is let go as soon as it is drawn, not when garbage is next looked for:

a circle of references holds pictures of many megabytes by a few small objects.
"""

from __future__ import annotations

import gc
import tempfile
from pathlib import Path
from typing import Any
from unittest import TestCase

from kitecore.render.frame import render
from kitecore.render.sources import Sources
from kitecore.render.tests.scene import SECOND, SIZE, Scene
from kitecore.render.tests.test_extremes import LAYERS

EFFECTS = ("echo", "hold", "displace", "shards", "soft_blur")
"""That look at other moments, at other layers, or at nothing."""
ABOVE: dict[str, dict[str, Any]] = {
    **{name: LAYERS[name] for name in ("text", "graded", "chroma key", "pins", "goes on")},
    **{
        f"{effect} on {kind}": {"kind": kind, "effects": [{"kind": effect}]}
        for effect in EFFECTS
        for kind in ("solid", "adjustment")
    },
    "clipped": {"kind": "solid", "clipped": "luma"},
    "in a cell": {
        "kind": "solid",
        "cell": {"screen": "s", "rows": [2], "place": 0},
    },
    "blurred": {
        "kind": "solid",
        "moves": {"shutter": 180},
        "place": {
            "position": {"keys": [{"at": 0, "value": [0, 0]}, {"at": SECOND, "value": [900, 0]}]}
        },
    },
}


class GarbageTest(TestCase):
    def setUp(self) -> None:
        root = Path(self.enterContext(tempfile.TemporaryDirectory()))
        self.scene = Scene(root)
        self.scene.video("film", frames=40)
        self.sources = Sources(self.scene.find)
        self.addCleanup(self.sources.close)

    def left_after(self) -> int:
        """Objects that only a search finds, after a frame that is like the one before."""
        document = self.scene.document
        render(document, 10 * SECOND // 30, SIZE, self.sources)
        gc.collect()
        gc.disable()
        try:
            render(document, 11 * SECOND // 30, SIZE, self.sources)
            return gc.collect()
        finally:
            gc.enable()

    def test_of_no_layer_anything_is_left(self) -> None:
        self.scene.place("film", 1, effects=[{"kind": "soft_blur"}, {"kind": "echo"}])
        ground = self.scene.document
        for name, what in ABOVE.items():
            with self.subTest(name):
                self.scene.document = ground
                clip = {"name": name, "length": SECOND, **what}
                self.scene.do(kind="place", clip=clip, mode="above", at=0)
                self.assertEqual(0, self.left_after())
