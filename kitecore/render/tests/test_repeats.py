"""Frames that look like the one before are drawn once, and are what drawing them would give."""

from __future__ import annotations

import tempfile
from pathlib import Path
from typing import Any
from unittest import TestCase

import av
import numpy as np

from kitecore.arrays import Size
from kitecore.document import Document
from kitecore.render.frame import render_planes
from kitecore.render.repeats import frames_of
from kitecore.render.sources import Sources
from kitecore.render.tests.scene import SECOND, SIZE, Scene

COUNT = 12
RISING = {"keys": [{"at": 0, "value": 0.2}, {"at": SECOND, "value": 1.0}]}


class RepeatsTest(TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.scene = Scene(Path(folder.name))

    def solid(self, **more: Any) -> None:
        fill = {"kind": "plain", "colour": "#30a070"}
        clip = {"kind": "solid", "name": "s", "length": SECOND, "fill": fill, **more}
        self.scene.do(kind="place", clip=clip, mode="above", seed=str(len(more)))

    def drawn(self) -> int:
        """How many of the first frames are drawn; each is compared with one that is."""
        count = 0

        def draw(document: Document, tick: int, size: Size, sources: Sources) -> av.VideoFrame:
            nonlocal count
            count += 1
            return render_planes(document, tick, size, sources)

        document, rate = self.scene.document, self.scene.document.rate.exact
        sources, alone = Sources(self.scene.find), Sources(self.scene.find)
        frames = frames_of(document, range(COUNT), SIZE, sources, draw)
        for number, frame in enumerate(frames):
            wanted = render_planes(document, rate.start_of(number), SIZE, alone)
            np.testing.assert_array_equal(wanted.to_ndarray(), frame.to_ndarray(), str(number))
        return count

    def test_what_stands_still_is_drawn_once(self) -> None:
        self.solid()
        self.scene.do(kind="add_layer", layer="text", at=0, seed="t")
        self.assertEqual(1, self.drawn())

    def test_a_take_of_half_the_rate_is_drawn_every_other_frame(self) -> None:
        self.scene.video("slow", frames=20, rate=15)
        self.scene.place("slow", 1)
        self.assertEqual(COUNT // 2, self.drawn())

    def test_a_take_of_the_project_s_rate_is_drawn_each_frame(self) -> None:
        self.scene.video("take", frames=30)
        self.scene.place("take", 1)
        self.assertEqual(COUNT, self.drawn())

    def test_what_moves_runs_or_crosses_is_drawn_each_frame(self) -> None:
        for more in (
            {"opacity": RISING},
            {"effects": [{"kind": "grain", "amount": 40}]},
            {"moves": {"comes": {"kind": "fade", "length": SECOND}}},
            {"moves": {"meanwhile": [{"id": "m", "kind": "sway"}]}},
        ):
            with self.subTest(more):
                self.solid(**more)
                self.assertEqual(COUNT, self.drawn())
                ids = [clip.id for _, clip in self.scene.document.clips()]
                self.scene.do(kind="remove", clips=ids)

    def test_a_group_is_drawn_as_often_as_what_it_holds(self) -> None:
        for more, count in (({}, 1), ({"opacity": RISING}, COUNT)):
            with self.subTest(more):
                self.solid(**more)
                ids = [clip.id for _, clip in self.scene.document.clips()]
                self.scene.do(kind="group", clips=ids, name="g", seed=f"g{count}")
                self.assertEqual(count, self.drawn())
                ids = [clip.id for _, clip in self.scene.document.clips()]
                self.scene.do(kind="remove", clips=ids)
